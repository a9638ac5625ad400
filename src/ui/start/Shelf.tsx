'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { emptyShelf, type RemovedProject } from '@/store/projects';
import { Action } from '../common/Action';
import { dayOf } from './ProjectCard';

interface ShelfProps {
  readonly shelf: readonly RemovedProject[];
  readonly onPutBack: (card: RemovedProject) => void;
  readonly onSay: (why: string) => void;
  readonly onChanged: () => void;
}

/** Removed cards stay here, over any reload, until the shelf is emptied. */
export function Shelf({ shelf, onPutBack, onSay, onChanged }: ShelfProps) {
  const [sure, setSure] = useState(false);
  if (shelf.length === 0) return null;
  const empty = async (): Promise<void> => {
    setSure(false);
    await emptyShelf().catch((error: Error) => onSay(`The shelf was not emptied: ${error.message}.`));
    onChanged();
  };
  return (
    <Box as="section" aria-label="Removed cards" mt="34px" maxWidth="760px">
      <Box display="flex" alignItems="center" gap="12px" mb="8px">
        <chakra.h2 className="heading">Removed cards</chakra.h2>
        <Box flex="1" />
        {sure ? (
          <>
            <span>{shelf.length === 1 ? 'This card is' : `These ${shelf.length} cards are`} then gone for good.</span>
            <Action small danger onClick={() => void empty()}>
              Empty it
            </Action>
            <Action small onClick={() => setSure(false)}>
              Leave it
            </Action>
          </>
        ) : (
          <Action small onClick={() => setSure(true)}>
            Empty the shelf
          </Action>
        )}
      </Box>
      <Box as="ul" listStyleType="none" m="0" p="0">
        {shelf.map((card) => (
          <Box
            as="li"
            key={card.id}
            display="flex"
            gap="12px"
            alignItems="center"
            py="5px"
            borderTop="1px solid var(--rule)"
          >
            <Box flex="1" minWidth="0" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
              {card.name}
            </Box>
            <span className="dim">removed {dayOf(card.removed)}</span>
            <Action small aria-label={`Put ${card.name} back`} onClick={() => onPutBack(card)}>
              Put back
            </Action>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
