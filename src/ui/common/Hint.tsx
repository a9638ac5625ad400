'use client';
import { Box } from '@chakra-ui/react';
import { useStudio } from '@/store/context';
import { Action } from './Action';
import { HINTS, hintFor } from './hints';
import { useKept } from './kept';

const readAway = (value: unknown): readonly string[] | null =>
  Array.isArray(value) ? HINTS.map((h) => h.id).filter((id) => value.includes(id)) : null;

/** A hint of the stage, put away for good one by one. @param over it lies over a drawing, at its head */
export function Hint({ over }: { readonly over?: true }) {
  const [away, put] = useKept('hints', NONE, readAway);
  const hint = useStudio((s) => hintFor(s.stage, s, away));
  if (!hint) return null;
  return (
    <Box
      data-testid="hint"
      role="note"
      {...(over ? OVER : { mb: '12px' })}
      display="flex"
      gap="8px"
      alignItems="center"
      bg="board"
      border="1px solid var(--rule)"
      borderRadius="card"
      px="9px"
      py="4px"
      fontSize="13px"
    >
      <Box flex="1">{hint.says}</Box>
      <Action small onClick={() => put([...away, hint.id])}>
        Got it
      </Action>
    </Box>
  );
}
const NONE: readonly string[] = [];
const OVER = { position: 'absolute', left: '34px', right: '8px', top: '24px', zIndex: '1' } as const;
