'use client';
import { Box, chakra } from '@chakra-ui/react';
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
  const { value, busy } = useAsk(JSON.stringify([id, m.parameters, design.shapes]), () =>
    engine('shape').struts(design, id),
  );
  if (!value) return null;
  const now = valuesOf(m).struts === 'auto' ? valuesOf(m).strutMin : null;
  const most = Math.max(...value.trade.map((t) => t.totalMm), 1);
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
          {value.trade.map((t) => (
            <chakra.tr
              key={t.strutMin}
              bg={now === t.strutMin ? 'accentWash' : 'transparent'}
              cursor="pointer"
              onClick={() =>
                edit(`narrowest strut ${t.strutMin}`, (d) =>
                  setParameter(setParameter(d, id, 'struts', 'auto'), id, 'strutMin', t.strutMin),
                )
              }
            >
              <td>
                <chakra.button
                  type="button"
                  className="plain"
                  textDecoration="underline"
                  data-trade={t.strutMin}
                  aria-label={`Struts no narrower than ${t.strutMin} mm`}
                >
                  {formatLength(t.strutMin, design.units)}
                </chakra.button>
              </td>
              <td className="num">{t.count}</td>
              <td className="num">
                {Number.isFinite(t.narrowestMm) ? formatLength(t.narrowestMm, design.units) : '—'}
              </td>
              <td className="num">{t.lossPct.toFixed(1)} %</td>
              <td className="num">
                <Box
                  display="inline-block"
                  height="8px"
                  bg="goodBar"
                  mr="5px"
                  style={{ width: `${(28 * t.totalMm) / most}px`, background: 'var(--good-bar)' }}
                />
                {formatLength(t.totalMm, design.units)}
              </td>
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
      <chakra.p className="dim" fontSize="12.5px" m="4px 0 0">
        Now {value.struts.length} struts, {value.lossPct.toFixed(1)} % of the outline given up or added.
      </chakra.p>
    </Box>
  );
}
