'use client';
import { chakra } from '@chakra-ui/react';
import type { Ring } from '@/core/plane/polygon';
import type { CutListRow } from '@/core/sheets/cutlist';
import { cutterSize } from '@/core/units/length';
import type { CutListing } from '@/workers/protocol';

/** Pieces by stock and colour, each with its outline, in mm and in the marks of a ruler in inches. */
export function CutListTable({ listing: { rows, outlines } }: { readonly listing: CutListing }) {
  const groups = new Map<string, CutListRow[]>();
  for (const r of rows) groups.set(`${r.stock}|${r.colour}`, [...(groups.get(`${r.stock}|${r.colour}`) ?? []), r]);
  return (
    <chakra.table
      width="100%"
      fontSize="13.5px"
      css={{
        '& th': { textAlign: 'left', color: 'var(--ink-2)', fontWeight: 600 },
        '& td, & th': { padding: '4px 10px 4px 0', borderBottom: '1px solid var(--rule)' },
      }}
    >
      <thead>
        <tr>
          <th>
            <chakra.span position="absolute" width="1px" height="1px" overflow="hidden">
              Outline
            </chakra.span>
          </th>
          <th>Piece</th>
          <th>Size</th>
          <th className="num">Count</th>
          <th className="num">Creases</th>
          <th className="num">Glue</th>
        </tr>
      </thead>
      {[...groups].map(([key, own]) => (
        <tbody key={key}>
          <tr>
            <th colSpan={6} scope="rowgroup">
              {own[0].colour && (
                <chakra.span
                  display="inline-block"
                  width="11px"
                  height="11px"
                  bg={own[0].colour}
                  border="1px solid var(--ink-2)"
                  mr="6px"
                />
              )}
              {own[0].stock}
            </th>
          </tr>
          {own.map((r) => (
            <tr key={r.piece}>
              <td>
                <Thumb rings={outlines[r.piece] ?? []} />
              </td>
              <td>
                {r.title}
                {r.side && <chakra.span className="dim">, outside</chakra.span>}
              </td>
              <td>{r.width_mm > 0 ? cutterSize(r.width_mm, r.height_mm) : '–'}</td>
              <td className="num">{r.count}</td>
              <td className="num">{r.creases.length}</td>
              <td className="num">{r.glue.length || '–'}</td>
            </tr>
          ))}
        </tbody>
      ))}
    </chakra.table>
  );
}

function Thumb({ rings }: { readonly rings: readonly Ring[] }) {
  if (rings.length === 0) return null;
  const all = rings.flat();
  const of = (k: 0 | 1): number[] => all.map((p) => p[k]);
  const [x, y] = [Math.min(...of(0)), Math.min(...of(1))];
  const [w, h] = [Math.max(...of(0)) - x, Math.max(...of(1)) - y];
  const pad = Math.max(w, h) * 0.05;
  return (
    <svg
      width="44"
      height="30"
      aria-hidden="true"
      viewBox={`${x - pad} ${-(y + h) - pad} ${w + 2 * pad} ${h + 2 * pad}`}
    >
      <path
        d={rings.map((r) => `M${r.map(([px, py]) => `${px.toFixed(2)} ${(-py).toFixed(2)}`).join('L')}Z`).join('')}
        fill="var(--panel)"
        fillRule="evenodd"
        stroke="var(--cut)"
        className="thin"
      />
    </svg>
  );
}
