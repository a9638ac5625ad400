'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { marginOf, type Design } from '@/core/document/design';
import { useStudio } from '@/store/context';
import { Hint } from '../common/Hint';
import { BedBoard } from './BedBoard';
import { RefusedForGrain } from './GrainChoice';
import { Lines } from './Making';
import { NestPanel } from './NestPanel';
import { PiecePanel } from './PiecePanel';
import { BoardMessage, SheetBoard } from './SheetBoard';
import { ShelfPanel } from './ShelfPanel';
import { TogetherPanel } from './TogetherPanel';
import { useHand } from './useHand';
import { useLaid } from './useLaid';

/** Sheets by stock, laid by their true outlines, and how every crease is made. */
export function SheetsStage() {
  const design = useStudio((s) => s.design);
  const [guestCards, setGuests] = useState<ReadonlyMap<string, Design>>(new Map());
  const guests = useMemo(() => [...guestCards.values()], [guestCards]);
  const { laid, why, searching, search, stop, giveUp } = useLaid(guests);
  const hand = useHand(laid, guests);
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr) 330px" height="100%" minHeight="0">
      <Box
        overflowY="auto"
        p="16px 20px"
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 310px), 1fr))"
        gap="20px"
        alignContent="start"
      >
        {why && <BoardMessage>{why}</BoardMessage>}
        {laid?.beds?.beds.map((b, k) => (
          <BedBoard key={`bed ${k}`} bed={b} number={k + 1} />
        ))}
        {laid?.beds?.tooLarge.map((s) => (
          <BoardMessage key={s.slot}>{`${s.stock.name}, ${s.name}, is larger than the bed.`}</BoardMessage>
        ))}
        {laid?.layout.sheets.map((s, k) => (
          <SheetBoard
            key={s.slot}
            sheet={s}
            number={k + 1}
            marginMm={marginOf(design, s.stock)}
            troubles={laid.troubles}
            hand={hand}
          />
        ))}
        {laid?.layout.unplaced.map(({ drawing, copy, why: reason }) => (
          <BoardMessage key={`${drawing.id} ${copy}`}>{`${drawing.title} is not placed: ${reason}.`}</BoardMessage>
        ))}
      </Box>
      <Box bg="panel" p="12px 14px" overflowY="auto" borderLeft="1px solid var(--rule)">
        <Hint />
        {laid || why ? (
          <>
            {laid && <PiecePanel laid={laid} hand={hand} />}
            {laid && <RefusedForGrain refused={laid.layout.refused} />}
            <NestPanel laid={laid} searching={searching} onSearch={search} onStop={stop} onGiveUp={giveUp} />
            <TogetherPanel guests={guestCards} onGuests={setGuests} />
            <ShelfPanel laid={laid} />
            <Lines />
          </>
        ) : (
          // All of it at once: what is filled in bit by bit moves under the hand.
          <chakra.p className="dim" role="status">
            Laying out…
          </chakra.p>
        )}
      </Box>
    </Box>
  );
}
