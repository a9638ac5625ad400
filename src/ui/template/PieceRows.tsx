'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { PieceStock } from '@/core/build/bring';
import type { Design } from '@/core/document/design';
import type { Template } from '@/core/document/template';
import { contains } from '@/core/plane/polygon';
import type { OfferedPiece } from '@/workers/protocol';
import { LineInput } from '../common/Field';
import { Pick } from '../common/Pick';

/** What each piece is called and cut from; the first is the one that opens. */
export function PieceRows({
  pieces,
  template,
  stocks,
  design,
  onNames,
  onStocks,
}: {
  readonly pieces: readonly OfferedPiece[];
  readonly template: Template;
  readonly stocks: readonly PieceStock[];
  readonly design: Design;
  readonly onNames: (names: Template['pieces']) => void;
  readonly onStocks: (stocks: readonly PieceStock[]) => void;
}) {
  const names = template.pieces ?? [];
  return (
    <>
      <chakra.h3 className="heading" m="10px 0 6px !important">
        Pieces
      </chakra.h3>
      {pieces.map((piece, k) => {
        const { id, title, at } = piece;
        return (
          <Box key={id} data-piece-row={id} display="flex" gap="6px" mb="5px">
            <LineInput
              aria-label={`Name of piece ${k + 1}`}
              flex="1"
              minWidth="0"
              maxLength={60}
              placeholder={title}
              value={names.find((n) => isOn(piece, n.at))?.name ?? ''}
              onChange={(e) => onNames(saidOf(piece, names, named(at, e.currentTarget.value)))}
            />
            <Pick
              label={`Stock of piece ${k + 1}`}
              maxWidth="130px"
              value={stocks.find((s) => isOn(piece, s.at))?.stock ?? piece.stock}
              choices={design.stocks.map((s) => ({ id: s.id, name: s.name }))}
              onChange={(stock) => onStocks(saidOf(piece, stocks, { at, stock }))}
            />
          </Box>
        );
      })}
    </>
  );
}

/** A list that says one thing of a piece, by its place, and nothing else of it. */
function saidOf<T extends { readonly at: OfferedPiece['at'] }>(
  piece: OfferedPiece,
  list: readonly T[],
  entry: T | null,
): readonly T[] {
  return [...list.filter((n) => !isOn(piece, n.at)), ...(entry ? [entry] : [])];
}
const isOn = ({ outline }: OfferedPiece, at: OfferedPiece['at']): boolean =>
  contains({ outer: outline, holes: [] }, at);
const named = (at: OfferedPiece['at'], name: string) => (name === '' ? null : { at, name });
