'use client';
import { Box, chakra } from '@chakra-ui/react';
import { boxOf } from '@/core/plane/polygon';
import { paperOnSheet, type PlacedPiece, type SheetLayout } from '@/core/sheets/layout';
import { useStudio } from '@/store/context';
import type { Laid } from '@/workers/protocol';
import { deg, mm } from '../common/asked';
import { Action } from '../common/Action';
import { NumberField } from '../common/Field';
import { GrainChoice } from './GrainChoice';
import { troubleWords } from './SheetBoard';
import { turnedInPlace, type Hand } from './useHand';

const LEFT = mm('left', 'From the left');
const FOOT = mm('foot', 'From below');
const TURN = deg('turn', 'Turned');

/** The piece that is picked: where its box lies on its sheet, exactly; turned, locked, or let go. */
export function PiecePanel({ laid, hand }: { readonly laid: Laid; readonly hand: Hand }) {
  const units = useStudio((s) => s.design.units);
  const found = findPicked(laid, hand);
  if (!found) {
    return (
      <chakra.p className="dim" fontSize="13px" m="0 0 12px">
        Drag a piece to put it where you want it: it keeps its room to others and stays there. Arrow keys move what is
        picked, Q turns it, Space locks it.
      </chakra.p>
    );
  }
  const { piece, sheet } = found;
  const { drawing, copy, turnDeg, locked, acrossGrain } = piece;
  const low = lowCorner(piece);
  const at = { slot: sheet.slot, piece: drawing.id, copy, x: piece.x, y: piece.y, turnDeg };
  const moved = `${drawing.title} moved on its sheet`;
  const trouble = laid.troubles.find((t) => t.piece === drawing.id && t.copy === copy);
  return (
    <Box as="section" aria-label="Picked piece" borderBottom="1px solid var(--rule)" mb="10px" pb="6px">
      <chakra.h2 className="heading" mb="6px !important">
        {drawing.title}
        {copy > 1 && `, ${copy}`}
      </chakra.h2>
      <NumberField
        parameter={LEFT}
        value={low[0]}
        unit={units}
        onChange={(v) => v !== null && hand.put({ ...at, x: piece.x + v - low[0] }, moved)}
      />
      <NumberField
        parameter={FOOT}
        value={low[1]}
        unit={units}
        onChange={(v) => v !== null && hand.put({ ...at, y: piece.y + v - low[1] }, moved)}
      />
      <NumberField
        parameter={TURN}
        value={turnDeg}
        unit={units}
        onChange={(v) =>
          v !== null && hand.put(turnedInPlace(piece, sheet.slot, v - turnDeg), `${drawing.title} turned`)
        }
      />
      <Box display="flex" gap="7px" flexWrap="wrap" mb="6px">
        <Action small onClick={() => hand.put(turnedInPlace(piece, sheet.slot, 90), `${drawing.title} turned`)}>
          Quarter turn
        </Action>
        <Action small on={locked} aria-pressed={locked} onClick={() => hand.lock(sheet.slot, piece, !locked)}>
          {locked ? 'Locked here' : 'Lock it here'}
        </Action>
      </Box>
      {sheet.stock.grain !== 'none' && <GrainChoice piece={drawing.id} title={drawing.title} />}
      {trouble && (
        <chakra.p role="alert" color="bad" m="0 0 6px" fontSize="13px">
          It {troubleWords(trouble.trouble)}.
        </chakra.p>
      )}
      {acrossGrain && (
        <chakra.p className="dim" m="0 0 6px" fontSize="13px">
          Its longest crease runs across the grain here.
        </chakra.p>
      )}
    </Box>
  );
}

function findPicked({ layout }: Laid, { picked }: Hand): { piece: PlacedPiece; sheet: SheetLayout } | null {
  for (const sheet of layout.sheets)
    for (const piece of sheet.placed)
      if (picked && piece.drawing.id === picked.piece && piece.copy === picked.copy) return { piece, sheet };
  return null;
}

/** Lower left of its box as it lies. */
const lowCorner = (piece: PlacedPiece): readonly [number, number] =>
  boxOf(paperOnSheet(piece).flatMap((p) => p.outer)).min;
