'use client';
import { Box, Portal } from '@chakra-ui/react';
import type { HoldNote } from './useHold';

/** What a hand is setting, beside the pointer: the number, what it lines up with, what it runs into. */
export function HoldNoteAt({ note }: { readonly note: HoldNote | null }) {
  if (!note) return null;
  return (
    <Portal>
      <Box
        role="status"
        data-testid="hold-note"
        position="fixed"
        left={`${note.x + 16}px`}
        top={`${note.y + 14}px`}
        maxWidth="320px"
        bg="board"
        color={note.bad ? 'bad' : 'ink'}
        border="1px solid"
        borderColor={note.bad ? 'bad' : 'rule'}
        borderRadius="card"
        px="8px"
        py="3px"
        fontSize="13px"
        fontWeight="600"
        pointerEvents="none"
        zIndex="tooltip"
      >
        {note.text}
      </Box>
    </Portal>
  );
}
