'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Offcut, Stock } from '@/core/paper/stocks';
import { formatLength } from '@/core/units/length';
import type { Laid } from '@/workers/protocol';
import { useActions, useStudio } from '@/store/context';
import { count, mm, UNSET } from '../common/asked';
import { Action } from '../common/Action';
import { NumberField } from '../common/Field';

const PRICE = count('price', 'Price of a sheet', 0, 1e6, { ...UNSET, note: 'In your money; empty where it has none.' });
const WHOLES = count('wholes', 'Whole sheets at hand', 0, 10_000, {
  ...UNSET,
  note: 'Empty: as many as are wanted.',
});
const MARGIN = mm('stockMarginMm', 'Margin of its own', 0, 100, {
  ...UNSET,
  note: 'Edge of its sheets that is not cut: 0 where your machine cuts to it. Empty: as all sheets.',
});
const WIDTH = mm('widthMm', 'Offcut, wide', 5, 5000, { note: 'Along the longer side of the sheet it is from.' });
const HEIGHT = mm('heightMm', 'Offcut, high', 5, 5000);

/** Stock as people have it: rests with their own sizes and colours, sheets that are counted or cost something. */
export function ShelfPanel({ laid }: { readonly laid: Laid | null }) {
  const stocks = useStudio((s) => s.design.stocks);
  const used = new Set([
    ...(laid?.layout.sheets.map((s) => s.stock.id) ?? []),
    ...(laid?.layout.unplaced.map((u) => u.drawing.stock) ?? []),
  ]);
  return (
    <Box as="section" aria-label="On the shelf">
      <chakra.h2 className="heading" m="16px 0 8px !important">
        On the shelf
      </chakra.h2>
      {stocks
        .filter((s) => used.has(s.id) || s.marginMm !== undefined || (s.offcuts?.length ?? 0) > 0)
        .map((s) => (
          <StockShelf key={s.id} stock={s} colours={coloursOf(laid, s)} />
        ))}
    </Box>
  );
}

/** Colours that something is cut from this stock in. */
const coloursOf = (laid: Laid | null, stock: Stock): string[] => [
  ...new Set([
    stock.insideColour,
    ...(laid?.layout.sheets.filter((s) => s.stock.id === stock.id).map((s) => s.colour) ?? []),
  ]),
];

function StockShelf({ stock, colours }: { stock: Stock; colours: readonly string[] }) {
  const units = useStudio((s) => s.design.units);
  const margin = useStudio((s) => s.design.sheets.marginMm);
  const { edit } = useActions();
  const [size, setSize] = useState({ widthMm: 150, heightMm: 100 });
  const [colour, setColour] = useState(colours[0]);
  const change = (label: string, next: (s: Stock) => Stock): void =>
    edit(label, (d) => ({ ...d, stocks: d.stocks.map((s) => (s.id === stock.id ? next(s) : s)) }));
  const unset = (key: 'price' | 'wholes' | 'marginMm', label: string, v: number | null): void =>
    change(label, ({ [key]: _, ...rest }) => (v === null ? rest : { ...rest, [key]: v }));
  const { offcuts = [] } = stock;
  const add = (): void =>
    change('an offcut', (s) => {
      let n = 1;
      while (s.offcuts?.some((o) => o.id === `offcut-${n}`)) n++;
      const own: Offcut = { id: `offcut-${n}`, ...size, ...(colour === s.insideColour ? {} : { colour }) };
      return { ...s, offcuts: [...(s.offcuts ?? []), own] };
    });
  const drop = (id: string): void =>
    change('an offcut less', ({ offcuts: all, ...s }) => ({ ...s, offcuts: all?.filter((o) => o.id !== id) ?? [] }));
  return (
    <details>
      <chakra.summary cursor="pointer" mb="6px">
        {stock.name}
        {offcuts.length > 0 && `, ${offcuts.length} ${offcuts.length === 1 ? 'offcut' : 'offcuts'}`}
      </chakra.summary>
      <NumberField
        parameter={WHOLES}
        value={stock.wholes ?? null}
        unit={units}
        follows="no limit"
        onChange={(v) => unset('wholes', 'whole sheets', v)}
      />
      <NumberField
        parameter={MARGIN}
        value={stock.marginMm ?? null}
        unit={units}
        follows={`as all, ${formatLength(margin, units)}`}
        onChange={(v) => unset('marginMm', `margin of ${stock.name}`, v)}
      />
      <NumberField
        parameter={PRICE}
        value={stock.price ?? null}
        unit={units}
        follows="none"
        onChange={(v) => unset('price', 'price of a sheet', v)}
      />
      <chakra.label display="flex" gap="7px" alignItems="center" mb="8px">
        <input
          type="checkbox"
          checked={stock.oneWay ?? false}
          onChange={(e) => {
            const on = e.currentTarget.checked;
            change('pattern with an up', ({ oneWay: _, ...rest }) => (on ? { ...rest, oneWay: true } : rest));
          }}
        />
        Its pattern has an up
      </chakra.label>
      {offcuts.map((o) => (
        <Box key={o.id} display="flex" alignItems="center" gap="7px" mb="5px" fontSize="13px">
          <Swatch colour={o.colour ?? stock.insideColour} />
          <chakra.span flex="1" className="num">
            {formatLength(o.widthMm, units)} × {formatLength(o.heightMm, units)} {units}
            {(o.count ?? 1) > 1 && `, ${o.count}`}
          </chakra.span>
          <Action small aria-label={`Take away the offcut ${o.id} of ${stock.name}`} onClick={() => drop(o.id)}>
            Take away
          </Action>
        </Box>
      ))}
      <NumberField
        parameter={WIDTH}
        value={size.widthMm}
        unit={units}
        onChange={(v) => v !== null && setSize({ ...size, widthMm: v })}
      />
      <NumberField
        parameter={HEIGHT}
        value={size.heightMm}
        unit={units}
        onChange={(v) => v !== null && setSize({ ...size, heightMm: v })}
      />
      {colours.length > 1 && (
        <Box display="flex" gap="6px" mb="8px" role="radiogroup" aria-label="Colour of the offcut">
          {colours.map((c) => (
            <chakra.button
              key={c}
              type="button"
              role="radio"
              aria-checked={c === colour}
              aria-label={c}
              onClick={() => setColour(c)}
              border={c === colour ? '2px solid var(--accent)' : '1px solid var(--rule)'}
              borderRadius="card"
              p="2px"
            >
              <Swatch colour={c} />
            </chakra.button>
          ))}
        </Box>
      )}
      <Box mb="10px">
        <Action small onClick={add}>
          Put this offcut on the shelf
        </Action>
      </Box>
    </details>
  );
}

export const Swatch = ({ colour }: { colour: string }) => (
  <chakra.span display="inline-block" width="14px" height="14px" bg={colour} border="1px solid var(--ink-2)" />
);
