'use client';
import { chakra } from '@chakra-ui/react';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { OnBed } from '@/core/document/design';
import { onBed, type Bed, type SheetOnBed } from '@/core/sheets/beds';
import { paperOnSheet } from '@/core/sheets/layout';
import { useActions } from '@/store/context';
import { pale } from '../common/files';

/** Sheets are drawn to the edges of the bed and of each other within this, mm. */
const SNAP_MM = 3;

/** A cutting bed with the sheets that go on it at once; a sheet is dragged to where it is to lie. */
export function BedBoard({ bed, number: n }: { readonly bed: Bed; readonly number: number }) {
  const { widthMm, heightMm, sheets } = bed;
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
        {sheets.map((s) => (
          <BedSheet key={s.sheet.slot} own={s} bed={bed} number={n} />
        ))}
      </svg>
      <chakra.figcaption fontSize="13px" mt="4px">
        <b>Bed {n}</b> {Math.round(widthMm)} × {Math.round(heightMm)} mm, {sheets.length}{' '}
        {sheets.length === 1 ? 'sheet' : 'sheets'}
      </chakra.figcaption>
    </chakra.figure>
  );
}

interface Held {
  readonly x: number;
  readonly y: number;
}

/** A sheet in the hand, or where it lies. */
function useSheetHand(own: SheetOnBed, bed: Bed) {
  const { edit } = useActions();
  const [held, setHeld] = useState<Held | null>(null);
  const from = useRef<DOMPoint | null>(null);
  const put = (place: OnBed): void =>
    edit('sheet moved on its bed', (d) => {
      if (!d.sheets.bed) return d;
      const at = { ...d.sheets.bed.at, [own.sheet.slot]: place };
      return { ...d, sheets: { ...d.sheets, bed: { ...d.sheets.bed, at } } };
    });
  const plain: OnBed = { bed: own.bed, x: own.x, y: own.y, ...(own.turned ? { turned: true } : {}) };
  const letGo = (): void => {
    from.current = null;
    setHeld(null);
  };
  const pointer = {
    onPointerDown: (e: PointerEvent<SVGGElement>) => {
      e.currentTarget.setPointerCapture(e.pointerId);
      from.current = onDrawing(e);
    },
    onPointerMove: (e: PointerEvent<SVGGElement>) => {
      if (!from.current) return;
      const at = onDrawing(e);
      setHeld(drawnTo(own, bed, own.x + at.x - from.current.x, own.y - (at.y - from.current.y)));
    },
    onPointerUp: () => {
      if (held) put({ ...plain, ...held });
      letGo();
    },
    onPointerCancel: letGo,
  };
  const onKeyDown = (e: KeyboardEvent): void => {
    const mm = e.shiftKey ? 10 : 1;
    const ways: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-mm, 0],
      ArrowRight: [mm, 0],
      ArrowUp: [0, mm],
      ArrowDown: [0, -mm],
    };
    const way = ways[e.key];
    const { turned, ...upright } = plain;
    if (way) put({ ...plain, x: own.x + way[0], y: own.y + way[1] });
    else if (e.key.toLowerCase() === 'q') put(turned ? upright : { ...upright, turned: true });
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return { shown: held ? { ...own, ...held } : own, handlers: { ...pointer, onKeyDown } };
}

const onDrawing = (e: PointerEvent<SVGGElement>): DOMPoint =>
  new DOMPoint(e.clientX, e.clientY).matrixTransform(e.currentTarget.ownerSVGElement!.getScreenCTM()!.inverse());

function BedSheet({ own, bed, number: n }: { readonly own: SheetOnBed; readonly bed: Bed; readonly number: number }) {
  const { shown, handlers } = useSheetHand(own, bed);
  const [w, h] = sizeOf(shown);
  return (
    <g
      {...handlers}
      data-bed-sheet={own.sheet.slot}
      tabIndex={0}
      role="button"
      aria-label={`${own.sheet.stock.name} on bed ${n}: drag it, arrow keys move it, Q turns it`}
      style={{ cursor: 'grab' }}
    >
      <rect
        x={shown.x}
        y={bed.heightMm - shown.y - h}
        width={w}
        height={h}
        fill={pale(own.sheet.colour)}
        stroke="var(--ink-2)"
        className="thin"
      />
      {own.sheet.placed.map((p, k) => (
        <path
          key={k}
          fill="var(--sheet)"
          fillRule="evenodd"
          stroke="var(--cut)"
          className="thin"
          d={outlineOn(shown, p, bed.heightMm)}
        />
      ))}
    </g>
  );
}

/** Outlines of a piece on the bed, the drawing's y down. */
function outlineOn(sheet: SheetOnBed, piece: SheetOnBed['sheet']['placed'][number], heightMm: number): string {
  const rings = paperOnSheet(piece).flatMap((p) => [p.outer, ...p.holes]);
  const corner = (q: readonly [number, number]): string => {
    const [x, y] = onBed(sheet, q);
    return `${x.toFixed(2)} ${(heightMm - y).toFixed(2)}`;
  };
  return rings.map((ring) => `M${ring.map(corner).join('L')}Z`).join('');
}

const sizeOf = ({ sheet, turned }: SheetOnBed): readonly [number, number] =>
  turned ? [sheet.heightMm, sheet.widthMm] : [sheet.widthMm, sheet.heightMm];

/** Kept on the bed, and drawn to its ends and to the edges of others. */
function drawnTo(own: SheetOnBed, { widthMm, heightMm, sheets }: Bed, x: number, y: number): Held {
  const others = sheets.filter((o) => o.sheet.slot !== own.sheet.slot);
  const along = (axis: 0 | 1, at: number, bed: number): number => {
    const size = sizeOf(own)[axis];
    const edges = others.map((o) => [axis === 0 ? o.x : o.y, (axis === 0 ? o.x : o.y) + sizeOf(o)[axis]] as const);
    const lines = [0, bed - size, ...edges.flatMap(([low, high]) => [low - size - 2, high + 2, low, high - size])];
    const near = lines.find((v) => Math.abs(v - at) <= SNAP_MM);
    return Math.min(Math.max(0, bed - size), Math.max(0, near ?? at));
  };
  return { x: along(0, x, widthMm), y: along(1, y, heightMm) };
}
