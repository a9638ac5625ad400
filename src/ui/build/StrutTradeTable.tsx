'use client';
import { Box, chakra } from '@chakra-ui/react';
import { TRADED_MM, type StrutTrade } from '@/core/kinds/on-crease/strut-figure';
import { setParameter, valuesOf } from '@/core/document/fields';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { useAsk } from '../shapes/useAsk';

/**
 * Few wide struts or many narrow ones: what each costs of the outline and how much paper holds. A row is taken by a
 * click.
 */
export function StrutTradeTable({ id }: { id: string }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const m = design.mechanisms.find((x) => x.id === id)!;
  const { value, why, busy } = useAsk(JSON.stringify([id, m.parameters, design.shapes]), () =>
    engine('shape').struts(design, id),
  );
  if (why) return null;
  const now = valuesOf(m).struts === 'auto' ? valuesOf(m).strutMin : null;
  const most = Math.max(...(value?.trade.map((t) => t.totalMm) ?? []), 1);
  const take = (strutMin: number): void =>
    edit(`narrowest strut ${strutMin}`, (d) =>
      setParameter(setParameter(d, id, 'struts', 'auto'), id, 'strutMin', strutMin),
    );
  return (
    <Box mb="14px" opacity={busy ? 0.6 : 1} aria-busy={busy}>
      <chakra.h3 className="heading" mb="5px !important">
        Struts, weighed
      </chakra.h3>
      <chakra.table
        width="100%"
        fontSize="13px"
        css={{
          borderCollapse: 'collapse',
          '& td, & th': { padding: '3px 4px', textAlign: 'right', fontWeight: 400 },
          '& th': { color: 'var(--ink-2)' },
        }}
      >
        <thead>
          <tr>
            <th scope="col">least</th>
            <th scope="col">struts</th>
            <th scope="col">narrowest</th>
            <th scope="col">outline lost</th>
            <th scope="col" title="Joined width in all: what must tear before it lets go">
              holds by
            </th>
          </tr>
        </thead>
        <tbody>
          {TRADED_MM.map((strutMin, k) => (
            <TradeRow
              key={strutMin}
              strutMin={strutMin}
              trade={value?.trade[k]}
              now={now === strutMin}
              most={most}
              onTake={() => take(strutMin)}
            />
          ))}
        </tbody>
      </chakra.table>
      <chakra.p className="dim" fontSize="12.5px" m="4px 0 0">
        {value
          ? `Now ${value.struts.length} struts, ${value.lossPct.toFixed(1)} % of the outline given up or added.`
          : 'Weighing…'}
      </chakra.p>
    </Box>
  );
}

/** One least width; its numbers are empty until they are worked out. */
function TradeRow({
  strutMin,
  trade,
  now,
  most,
  onTake,
}: {
  readonly strutMin: number;
  readonly trade: StrutTrade | undefined;
  readonly now: boolean;
  /** The widest of all joins, mm: the length of its bar. */
  readonly most: number;
  readonly onTake: () => void;
}) {
  const units = useStudio((s) => s.design.units);
  return (
    <chakra.tr bg={now ? 'accentWash' : 'transparent'} cursor="pointer" onClick={onTake}>
      <td>
        <chakra.button
          type="button"
          className="plain"
          textDecoration="underline"
          data-trade={strutMin}
          aria-label={`Struts no narrower than ${strutMin} mm`}
        >
          {formatLength(strutMin, units)}
        </chakra.button>
      </td>
      <td className="num">{trade?.count}</td>
      <td className="num">
        {trade && (Number.isFinite(trade.narrowestMm) ? formatLength(trade.narrowestMm, units) : '—')}
      </td>
      <td className="num">{trade && `${trade.lossPct.toFixed(1)} %`}</td>
      <td className="num">
        {trade && (
          <>
            <Box
              display="inline-block"
              height="8px"
              mr="5px"
              style={{ width: `${(28 * trade.totalMm) / most}px`, background: 'var(--good-bar)' }}
            />
            {formatLength(trade.totalMm, units)}
          </>
        )}
      </td>
    </chakra.tr>
  );
}
