import { Tabs } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A few panes of which one is shown; arrow keys go from one to the next. */
export function Panes<Id extends string>({
  label,
  shown,
  panes,
  onShow,
  sticky = false,
}: {
  label: string;
  shown: Id;
  panes: readonly { readonly id: Id; readonly name: string; readonly pane: ReactNode }[];
  onShow: (id: Id) => void;
  /** The names stay in sight while the pane scrolls. */
  sticky?: boolean;
}) {
  return (
    <Tabs.Root
      value={shown}
      onValueChange={(e) => onShow(e.value as Id)}
      lazyMount
      unmountOnExit
      variant="plain"
      css={{ '--tabs-height': 'auto' }}
    >
      <Tabs.List
        aria-label={label}
        display="flex"
        gap="4px"
        borderBottom="1px solid var(--rule)"
        {...(sticky ? { position: 'sticky', top: '0', bg: 'panel', zIndex: '1', px: '8px', pt: '6px' } : {})}
      >
        {panes.map(({ id, name }) => (
          <Tabs.Trigger
            key={id}
            value={id}
            px="10px"
            py="6px"
            height="auto"
            color="ink"
            fontSize="inherit"
            fontWeight={shown === id ? 700 : 400}
            borderBottom={shown === id ? '3px solid var(--accent)' : '3px solid transparent'}
          >
            {name}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {panes.map(({ id, pane }) => (
        // A pane that is left stays for a moment: out of sight, or it would push the next one down.
        <Tabs.Content
          key={id}
          value={id}
          p={sticky ? '12px 14px' : '14px 0 0'}
          display={shown === id ? undefined : 'none'}
        >
          {pane}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
