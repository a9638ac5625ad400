'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Design } from '@/core/document/design';
import { setRemoved, type UnreadProject } from '@/store/projects';
import { Action } from '../common/Action';
import { fileName, saveAs } from '../common/files';

interface UnreadCardsProps {
  readonly unread: readonly UnreadProject[];
  readonly onKeep: (design: Design) => Promise<void>;
  readonly onSay: (why: string) => void;
  readonly onChanged: () => void;
}

/** Cards of this browser that do not read: by name, with what is wrong, and every way to get at them. */
export function UnreadCards({ unread, onKeep, onSay, onChanged }: UnreadCardsProps) {
  if (unread.length === 0) return null;
  return (
    <Box as="section" aria-label="Cards that do not read" mt="34px" maxWidth="760px">
      <chakra.h2 className="heading" mb="8px !important">
        Cards that do not read
      </chakra.h2>
      {unread.map((card) => (
        <UnreadCard key={card.id} card={card} onKeep={onKeep} onSay={onSay} onChanged={onChanged} />
      ))}
    </Box>
  );
}

/** One of them: saved as it is, opened without what stands in the way, or put on the shelf. */
export function UnreadCard({
  card: { id, name, why, raw, repaired },
  onKeep,
  onSay,
  onChanged,
}: { readonly card: UnreadProject } & Omit<UnreadCardsProps, 'unread'>) {
  const shelve = async (): Promise<void> => {
    await setRemoved(id, true).catch((error: Error) => onSay(`${name} is where it was: ${error.message}.`));
    onChanged();
  };
  const save = (): void => {
    try {
      saveAs(`${fileName(name)}.json`, JSON.stringify(raw, null, 1) ?? '', 'application/json');
    } catch (error) {
      onSay(`${name} cannot be written as a file (${(error as Error).message.split('\n')[0]}).`);
    }
  };
  const parts = repaired?.leftOut.length ?? 0;
  return (
    <Box borderTop="1px solid var(--rule)" py="8px">
      <chakra.p m="0 0 4px" fontWeight="600">
        {name}
      </chakra.p>
      <chakra.p m="0 0 8px" color="ink2">
        {why}. It is left as it is.
      </chakra.p>
      <Box display="flex" gap="8px" flexWrap="wrap" alignItems="center">
        <Action small onClick={save}>
          Save it as it is
        </Action>
        {repaired && (
          <Action
            small
            title={repaired.leftOut.join('\n')}
            onClick={() => void onKeep({ ...repaired.design, name: `${repaired.design.name.slice(0, 108)}, repaired` })}
          >
            {parts === 0
              ? 'Bring a repaired copy in'
              : `Bring in a copy without ${parts === 1 ? 'the part that does not read' : `${parts} parts`}`}
          </Action>
        )}
        <Action small onClick={() => void shelve()}>
          Remove it
        </Action>
      </Box>
    </Box>
  );
}
