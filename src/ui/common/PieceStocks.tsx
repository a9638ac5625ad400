'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Design } from '@/core/document/design';
import { withEntry } from '@/core/document/entries';
import { CARD } from '@/core/ids';
import { useActions, useStudio } from '@/store/context';
import { Choice } from './Field';

/** In the list of stocks: the one that its kind has the piece from. */
const AS_THE_REST = '';

/** A card with one piece cut from a stock, or from what the rest of its mechanism is cut from. */
const cutFrom = (design: Design, piece: string, stock: string): Design =>
  withEntry(design, 'cutFrom', piece, stock === AS_THE_REST ? null : { piece, stock });

/** The pieces of a mechanism or of the base, each with the stock that it is cut from. */
export function PieceStocks({ id }: { readonly id: string }) {
  const design = useStudio((s) => s.design);
  const all = useStudio((s) => s.scene?.pieces);
  const { edit } = useActions();
  const pieces = all?.filter((p) => p.mechanism === id && p.id !== CARD) ?? [];
  const own = new Map(design.cutFrom?.map((c) => [c.piece, c.stock]));
  // What is cut from one sheet alone has its stock said already.
  if (pieces.length < (id === CARD ? 1 : 2)) return null;
  return (
    <chakra.details mb="12px">
      <chakra.summary cursor="pointer" fontWeight="600" mb="6px">
        Stocks of its pieces
      </chakra.summary>
      <Box pl="10px">
        {pieces.map(({ id: piece, title }) => (
          <Choice
            key={piece}
            asList
            label={title}
            value={own.get(piece) ?? AS_THE_REST}
            choices={[
              { id: AS_THE_REST, name: 'as the rest' },
              ...design.stocks.map((s) => ({ id: s.id, name: s.name })),
            ]}
            onChange={(stock) => edit(`stock of ${title}`, (d) => cutFrom(d, piece, stock))}
          />
        ))}
      </Box>
    </chakra.details>
  );
}
