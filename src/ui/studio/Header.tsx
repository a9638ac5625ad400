'use client';
import { Box, chakra } from '@chakra-ui/react';
import { IconArrowBackUp, IconArrowForwardUp, IconContrast, IconKeyboard } from '@tabler/icons-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useActions, useHistory, useStudio, useStudioStore } from '@/store/context';
import { STAGES, type Stage } from '@/store/studio';
import { Mark } from '../common/Mark';
import { toggleDark } from '../theme';

export const STAGE_NAMES: Readonly<Record<Stage, string>> = {
  brief: 'Brief',
  build: 'Build',
  dress: 'Dress',
  prove: 'Prove',
  sheets: 'Sheets',
  make: 'Make',
};

export function Header({ onKeys }: { onKeys: () => void }) {
  const { undo, redo, cut } = useHistory();
  const nothing = cut ? 'Nothing to undo: older changes are no longer kept' : 'Nothing to undo';
  const actions = useActions();
  const units = useStudio((s) => s.design.units);
  return (
    <Box as="header" className="no-print" bg="board" display="flex" alignItems="stretch" minWidth="0">
      <Box width="228px" flex="none" display="flex" alignItems="center" gap="10px" px="14px">
        <AllCards />
        <CardName />
      </Box>
      <StageStrip />
      <Box flex="1" />
      <Box display="flex" alignItems="center" gap="4px" pr="12px">
        <HeaderButton label={undo ? `Undo: ${undo}` : nothing} disabled={!undo} onClick={actions.undo}>
          <IconArrowBackUp size={17} aria-hidden />
          <chakra.span maxWidth="150px" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap" hideBelow="lg">
            {undo ? `Undo: ${undo}` : 'Undo'}
          </chakra.span>
        </HeaderButton>
        <HeaderButton label={redo ? `Redo: ${redo}` : 'Nothing to redo'} disabled={!redo} onClick={actions.redo}>
          <IconArrowForwardUp size={17} aria-hidden />
        </HeaderButton>
        <HeaderButton
          label={`Units: ${units}, ${units === 'mm' ? 'millimetres' : 'inches'}. Change`}
          onClick={() =>
            actions.edit(`units ${units === 'mm' ? 'in' : 'mm'}`, (d) => ({
              ...d,
              units: units === 'mm' ? 'in' : 'mm',
            }))
          }
        >
          {units}
        </HeaderButton>
        <HeaderButton label="Light or dark" onClick={toggleDark}>
          <IconContrast size={17} aria-hidden />
        </HeaderButton>
        <HeaderButton label="Keys" onClick={onKeys}>
          <IconKeyboard size={18} aria-hidden />
        </HeaderButton>
      </Box>
    </Box>
  );
}

/**
 * Leaves by loading the other page anew: going on within this one, the router keeps the whole page that is left. What
 * is stored nowhere lives in this page, so it is not left that way.
 */
function AllCards() {
  const store = useStudioStore();
  const router = useRouter();
  return (
    <a
      href="/"
      aria-label="All cards"
      onClick={(e) => {
        if (!store.unsaved()) return;
        e.preventDefault();
        router.push('/');
      }}
    >
      <Mark />
    </a>
  );
}

function HeaderButton({ label, ...rest }: { label: string } & React.ComponentProps<typeof chakra.button>) {
  return (
    <chakra.button
      type="button"
      aria-label={label}
      title={label}
      height="32px"
      px="7px"
      display="flex"
      alignItems="center"
      gap="5px"
      borderRadius="card"
      cursor="pointer"
      _hover={{ bg: 'var(--board-2)' }}
      _disabled={{ opacity: 0.4, cursor: 'default', bg: 'none' }}
      {...rest}
    />
  );
}

function CardName() {
  const name = useStudio((s) => s.design.name);
  const saving = useStudio((s) => s.saving);
  const writes = useStudio((s) => s.writes);
  const { edit } = useActions();
  const [typed, setTyped] = useState<string | null>(null);
  const commit = (): void => {
    const next = typed?.trim().slice(0, 120);
    setTyped(null);
    if (next && next !== name) edit(`name ${next}`, (d) => ({ ...d, name: next }));
  };
  return (
    <Box minWidth="0" flex="1">
      <chakra.input
        aria-label="Name of the card"
        value={typed ?? name}
        maxLength={120}
        onChange={(e) => setTyped(e.currentTarget.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
          if (e.key === 'Escape') {
            setTyped(null);
            e.currentTarget.blur();
          }
        }}
        width="100%"
        bg="transparent"
        border="0"
        fontWeight="700"
        fontSize="15px"
        p="0"
        textOverflow="ellipsis"
      />
      <Box role="status" fontSize="12px" color={saving === 'saved' || saving === 'saving' ? 'ink2' : 'bad'}>
        {!writes
          ? 'followed from another tab'
          : saving === 'saved'
            ? 'saved in this browser'
            : saving === 'saving'
              ? 'saving…'
              : 'not saved here'}
      </Box>
    </Box>
  );
}

/** An accordion-folded strip of card: every second panel leans the other way and lies in its shade. */
function StageStrip() {
  const stage = useStudio((s) => s.stage);
  const proof = useStudio((s) => s.proof);
  const { go } = useActions();
  const open = proof?.findings.filter((f) => f.severity !== 'note') ?? [];
  const blocks = open.some((f) => f.severity === 'blocks');
  return (
    <Box as="nav" aria-label="Stages" display="flex" alignItems="flex-end" pl="2px">
      {STAGES.map((s, i) => {
        const on = s === stage;
        const up = i % 2 === 0;
        return (
          <chakra.button
            key={s}
            type="button"
            onClick={() => go(s)}
            aria-current={on ? 'page' : undefined}
            width={{ base: '94px', xl: '110px' }}
            height="46px"
            pt="10px"
            cursor="pointer"
            fontWeight={on ? '700' : '500'}
            position="relative"
            bg={on ? 'sheet' : up ? 'var(--panel)' : 'var(--board-2)'}
            clipPath={
              up ? 'polygon(0 11px, 100% 2px, 100% 100%, 0 100%)' : 'polygon(0 2px, 100% 11px, 100% 100%, 0 100%)'
            }
            _hover={{ bg: on ? 'sheet' : 'wash' }}
          >
            {on && (
              <chakra.span
                position="absolute"
                inset="0"
                bg="accent"
                clipPath={
                  up
                    ? 'polygon(0 11px, 100% 2px, 100% 5.5px, 0 14.5px)'
                    : 'polygon(0 2px, 100% 11px, 100% 14.5px, 0 5.5px)'
                }
              />
            )}
            {STAGE_NAMES[s]}
            {s === 'prove' && open.length > 0 && (
              <chakra.span
                aria-label={`${open.length} findings`}
                ml="6px"
                px="7px"
                borderRadius="9px"
                fontSize="12px"
                fontWeight="700"
                color="sheet"
                bg={blocks ? 'bad' : 'warn'}
              >
                {open.length}
              </chakra.span>
            )}
          </chakra.button>
        );
      })}
    </Box>
  );
}
