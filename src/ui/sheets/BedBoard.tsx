'use client';
import { chakra } from '@chakra-ui/react';
import { useRef, useState, type PointerEvent } from 'react';
import type { OnBed } from '@/core/document/design';
import { onBed, type Bed, type SheetOnBed } from '@/core/sheets/beds';
import { paperOnSheet } from '@/core/sheets/layout';
import { useActions } from '@/store/context';
import { pale } from '../common/files';

/** Sheets are drawn to the edges of the bed and of each other within this, mm. */
const SNAP_MM = 3;

/** A cutting bed with the sheets that go on it at once; a sheet is dragged to where it is to lie. */
export function BedBoard({ bed, number: n }: { readonly bed: Bed; readonly number: number }) {
  const { edit } = useActions();
  const [held, setHeld] = useState<{ readonly slot: string; readonly x: number; readonly y: number } | null>(null);
  const grab = useRef<{ readonly from: DOMPoint; readonly s: SheetOnBed } | null>(null);
  const { widthMm, heightMm } = bed;
  const put = (s: SheetOnBed, place: OnBed): void =>
    edit('sheet moved on its bed', (d) =>
      d.sheets.bed
        ? {
            ...d,
            sheets: { ...d.sheets, bed: { ...d.sheets.bed, at: { ...d.sheets.bed.at, [s.sheet.slot]: place } } },
          }
        : d,
    );
  const place = (s: SheetOnBed, x: number, y: number): OnBed => ({
    bed: s.bed,
    x: drawnTo(
      x,
      sizeOf(s)[0],
      widthMm,
      bed.sheets.filter((o) => o !== s).map((o) => [o.x, o.x + sizeOf(o)[0]]),
    ),
    y: drawnTo(
      y,
      sizeOf(s)[1],
      heightMm,
      bed.sheets.filter((o) => o !== s).map((o) => [o.y, o.y + sizeOf(o)[1]]),
    ),
    ...(s.turned ? { turned: true } : {}),
  });
  const at = (e: PointerEvent<SVGGElement>): DOMPoint =>
    new DOMPoint(e.clientX, e.clientY).matrixTransform(e.currentTarget.ownerSVGElement!.getScreenCTM()!.inverse());
  return (
    <chakra.figure m="0">
      <svg
        role="group"
        aria-label={`Bed ${n}`}
        width="100%"
        viewBox={`-1 -1 ${widthMm + 2} ${heightMm + 2}`}
        style={{ touchAction: 'none' }}
      >
        <rect width={widthMm} height={heightMm} fill="var(--panel)" stroke="var(--ink)" className="thin" />
        {bed.sheets.map((own) => {
          const s = held?.slot === own.sheet.slot ? { ...own, x: held.x, y: held.y } : own;
          const [w, h] = sizeOf(s);
          return (
            <g
              key={s.sheet.slot}
              data-bed-sheet={s.sheet.slot}
              tabIndex={0}
              role="button"
              aria-label={`${s.sheet.stock.name} on bed ${n}: drag it, arrow keys move it, Q turns it`}
              style={{ cursor: 'grab' }}
              onPointerDown={(e) => {
                e.currentTarget.setPointerCapture(e.pointerId);
                grab.current = { from: at(e), s: own };
              }}
              onPointerMove={(e) => {
                const g = grab.current;
                if (!g) return;
                const p = at(e);
                const next = place(g.s, g.s.x + p.x - g.from.x, g.s.y - (p.y - g.from.y));
                setHeld({ slot: g.s.sheet.slot, x: next.x, y: next.y });
              }}
              onPointerUp={() => {
                if (grab.current && held) put(grab.current.s, place(grab.current.s, held.x, held.y));
                grab.current = null;
                setHeld(null);
              }}
              onPointerCancel={() => {
                grab.current = null;
                setHeld(null);
              }}
              onKeyDown={(e) => {
                const mm = e.shiftKey ? 10 : 1;
                const ways: Readonly<Record<string, readonly [number, number]>> = {
                  ArrowLeft: [-mm, 0],
                  ArrowRight: [mm, 0],
                  ArrowUp: [0, mm],
                  ArrowDown: [0, -mm],
                };
                const way = ways[e.key];
                if (way) put(own, { ...plain(own), x: own.x + way[0], y: own.y + way[1] });
                else if (e.key === 'q')
                  put(own, { bed: own.bed, x: own.x, y: own.y, ...(own.turned ? {} : { turned: true }) });
                else return;
                e.preventDefault();
              }}
            >
              <rect
                x={s.x}
                y={heightMm - s.y - h}
                width={w}
                height={h}
                fill={pale(s.sheet.colour)}
                stroke="var(--ink-2)"
                className="thin"
              />
              {s.sheet.placed.map((p, k) => (
                <path
                  key={k}
                  fill="var(--sheet)"
                  fillRule="evenodd"
                  stroke="var(--cut)"
                  className="thin"
                  d={paperOnSheet(p)
                    .flatMap((q) => [q.outer, ...q.holes])
                    .map(
                      (ring) =>
                        `M${ring
                          .map((q) => {
                            const [x, y] = onBed(s, q);
                            return `${x.toFixed(2)} ${(heightMm - y).toFixed(2)}`;
                          })
                          .join('L')}Z`,
                    )
                    .join('')}
                />
              ))}
            </g>
          );
        })}
      </svg>
      <chakra.figcaption fontSize="13px" mt="4px">
        <b>Bed {n}</b> {Math.round(widthMm)} × {Math.round(heightMm)} mm, {bed.sheets.length}{' '}
        {bed.sheets.length === 1 ? 'sheet' : 'sheets'}
      </chakra.figcaption>
    </chakra.figure>
  );
}

const plain = ({ bed, x, y, turned }: SheetOnBed): OnBed => ({ bed, x, y, ...(turned ? { turned } : {}) });
const sizeOf = ({ sheet, turned }: SheetOnBed): readonly [number, number] =>
  turned ? [sheet.heightMm, sheet.widthMm] : [sheet.widthMm, sheet.heightMm];

/** Kept on the bed, and drawn to its ends and to the edges of others. */
function drawnTo(at: number, size: number, bed: number, others: readonly (readonly [number, number])[]): number {
  const lines = [0, bed - size, ...others.flatMap(([low, high]) => [low - size - 2, high + 2, low, high - size])];
  const near = lines.find((v) => Math.abs(v - at) <= SNAP_MM);
  return Math.min(Math.max(0, bed - size), Math.max(0, near ?? at));
}
