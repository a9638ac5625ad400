'use client';
import { Box, chakra, VisuallyHidden } from '@chakra-ui/react';
import { sheetOf } from '@/core/document/post';
import { SHEETS } from '@/core/paper/sizes';
import type { Stock } from '@/core/paper/stocks';
import type { Design } from '@/core/document/design';
import { useActions, useStudio } from '@/store/context';
import { count, mm } from '../common/asked';
import { Action } from '../common/Action';
import { NumberField } from '../common/Field';

const GSM = count('gsm', '', 20, 2000, { note: 'Grams per square metre' });
const CALIPER = mm('caliperMm', '', 0.02, 10, { note: 'Thickness of one sheet' });
const WEB = mm('leastWebMm', '', 0.1, 50, { note: 'Narrowest strip that does not tear' });

const inUse = (d: Design, id: string): boolean =>
  d.card.stock === id ||
  d.card.pageStock === id ||
  d.mechanisms.some((m) => m.stock === id) ||
  d.layers.some((l) => l.stock === id) ||
  (d.cutFrom ?? []).some((c) => c.stock === id) ||
  d.dressing.some((x) => x.mats.some((m) => m.stock === id));

/** In the list of sheets: none of them. */
const OWN = 'own';
const SIDE = mm('side', '', 20, 5000, { note: 'A side of the whole sheet' });
function OwnSheet({
  stock,
  onChange,
}: {
  readonly stock: Stock;
  readonly onChange: (sheet: NonNullable<Stock['ownSheet']>) => void;
}) {
  const unit = useStudio((s) => s.design.units);
  const { shortMm, longMm } = stock.ownSheet!;
  const side = (label: string, value: number, other: number) => (
    <NumberField
      parameter={{ ...SIDE, label }}
      value={value}
      unit={unit}
      onChange={(v) => onChange({ shortMm: Math.min(v ?? value, other), longMm: Math.max(v ?? value, other) })}
    />
  );
  return (
    <Box mt="3px">
      {side('by', shortMm, longMm)}
      {side('by', longMm, shortMm)}
    </Box>
  );
}

/** Stocks at hand: weight, caliper, colours, grain, least web, and the sheet they come in. */
export function StockTable() {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const another = (): void =>
    edit('another stock', (d) => {
      let n = d.stocks.length + 1;
      while (d.stocks.some((s) => s.id === `stock-${n}`)) n++;
      return { ...d, stocks: [...d.stocks, { ...d.stocks[0], id: `stock-${n}`, name: `Stock ${n}` }] };
    });
  return (
    <Box as="section" aria-label="Stocks" borderTop="1px solid var(--rule)" bg="panel" p="12px 18px" overflowX="auto">
      <Box display="flex" alignItems="center" mb="6px">
        <chakra.h2 className="heading" flex="1">
          Stocks
        </chakra.h2>
        <Action small onClick={another}>
          Another stock
        </Action>
      </Box>
      <chakra.table
        width="100%"
        fontSize="13px"
        css={{
          '& th': { textAlign: 'left', fontWeight: 600, color: 'var(--ink-2)', padding: '2px 8px 2px 0' },
          '& td': { padding: '1px 8px 1px 0' },
          '& td > div': { marginBottom: 0 },
          '& input.num': { width: '70px' },
        }}
      >
        <thead>
          <tr>
            <th>Name</th>
            <th>g/m²</th>
            <th>Caliper</th>
            <th>Least web</th>
            <th>Inside</th>
            <th>Outside</th>
            <th>Grain</th>
            <th>Sheet</th>
            <th>
              <VisuallyHidden>Remove</VisuallyHidden>
            </th>
          </tr>
        </thead>
        <tbody>
          {design.stocks.map((s) => (
            <StockRow key={s.id} stock={s} />
          ))}
        </tbody>
      </chakra.table>
    </Box>
  );
}

function StockRow({ stock: s }: { readonly stock: Stock }) {
  const design = useStudio((st) => st.design);
  const { edit } = useActions();
  const used = inUse(design, s.id);
  const change = (label: string, next: (stock: Stock) => Stock): void =>
    edit(label, (d) => ({ ...d, stocks: d.stocks.map((x) => (x.id === s.id ? next(x) : x)) }));
  const set = (part: Partial<Stock>): void => change('stock', (x) => ({ ...x, ...part }));
  const setSheet = (sheet: string): void =>
    change('sheet', (x) => {
      const { ownSheet: _, ...listed } = x;
      const { shortMm, longMm } = sheetOf(x);
      return sheet === OWN ? { ...x, ownSheet: { shortMm, longMm } } : { ...listed, sheet };
    });
  return (
    <tr>
      <td>
        <chakra.input
          aria-label={`Name of ${s.name}`}
          defaultValue={s.name}
          key={s.name}
          maxLength={80}
          onBlur={(e) => {
            const name = e.currentTarget.value.trim();
            if (name && name !== s.name) set({ name });
          }}
          width="132px"
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          px="6px"
          height="26px"
        />
      </td>
      <td>
        <NumberField parameter={GSM} value={s.gsm} unit="mm" onChange={(v) => v !== null && set({ gsm: v })} />
      </td>
      <td>
        <NumberField
          fine
          parameter={CALIPER}
          value={s.caliperMm}
          unit={design.units}
          onChange={(v) => v !== null && set({ caliperMm: v })}
        />
      </td>
      <td>
        <NumberField
          parameter={WEB}
          value={s.leastWebMm}
          unit={design.units}
          onChange={(v) => v !== null && set({ leastWebMm: v })}
        />
      </td>
      <td>
        <input
          type="color"
          aria-label={`Inside colour of ${s.name}`}
          value={s.insideColour}
          onChange={(e) => set({ insideColour: e.currentTarget.value })}
        />
      </td>
      <td>
        <input
          type="color"
          aria-label={`Outside colour of ${s.name}`}
          value={s.outsideColour}
          onChange={(e) => set({ outsideColour: e.currentTarget.value })}
        />
      </td>
      <td>
        <chakra.select
          aria-label={`Grain of ${s.name}`}
          value={s.grain}
          onChange={(e) => set({ grain: e.currentTarget.value as Stock['grain'] })}
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          height="26px"
        >
          <option value="long">long</option>
          <option value="short">short</option>
          <option value="none">none</option>
        </chakra.select>
      </td>
      <td>
        <chakra.select
          aria-label={`Sheet of ${s.name}`}
          value={s.ownSheet ? OWN : s.sheet}
          onChange={(e) => setSheet(e.currentTarget.value)}
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          height="26px"
        >
          {SHEETS.map((x) => (
            <option key={x.id} value={x.id}>
              {x.name}
            </option>
          ))}
          <option value={OWN}>own size</option>
        </chakra.select>
        {s.ownSheet && <OwnSheet stock={s} onChange={(ownSheet) => set({ ownSheet })} />}
      </td>
      <td>
        <Action
          small
          disabled={used}
          title={used ? 'In use' : undefined}
          aria-label={`Remove ${s.name}`}
          onClick={() => edit(`remove ${s.name}`, (d) => ({ ...d, stocks: d.stocks.filter((x) => x.id !== s.id) }))}
        >
          ×
        </Action>
      </td>
    </tr>
  );
}
