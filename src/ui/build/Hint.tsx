'use client';
import { Box } from '@chakra-ui/react';
import { CARD } from '@/core/ids';
import { useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { useKept } from '../common/kept';

/** What the next step could be, where a hand hesitates; put away for good one by one. */
const HINTS = {
  empty: 'Click the gutter, or press N, to stand something on it.',
  held: 'Drag its lines, its paper, its corners in the posed view; type a number meanwhile.',
  proved: 'It is proved. Sheets lays it on your stock, Make saves the cut files.',
} as const;
type HintId = keyof typeof HINTS;

const readAway = (value: unknown): readonly HintId[] | null =>
  Array.isArray(value) ? value.filter((v): v is HintId => typeof v === 'string' && v in HINTS) : null;

export function Hint() {
  const [away, put] = useKept('hints', NONE, readAway);
  const count = useStudio((s) => s.design.mechanisms.length);
  const template = useStudio((s) => s.design.card.template !== undefined);
  const selected = useStudio((s) => s.selected);
  const proved = useStudio((s) => !s.proving && s.proof?.verdict === 'clear');
  const wanted: HintId | null =
    count === 0 ? (template ? null : 'empty') : selected !== CARD ? 'held' : proved ? 'proved' : null;
  if (wanted === null || away.includes(wanted)) return null;
  return (
    <Box
      data-testid="hint"
      role="note"
      position="absolute"
      left="34px"
      right="8px"
      bottom="48px"
      display="flex"
      gap="8px"
      alignItems="center"
      bg="board"
      border="1px solid var(--rule)"
      borderRadius="card"
      px="9px"
      py="4px"
      fontSize="13px"
      zIndex="1"
    >
      <Box flex="1">{HINTS[wanted]}</Box>
      <Action small onClick={() => put([...away, wanted])}>
        Got it
      </Action>
    </Box>
  );
}
const NONE: readonly HintId[] = [];
