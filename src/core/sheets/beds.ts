/** Sheets laid on a cutting bed, several at once where they fit: where they were put, or where there is room. */
import type { OnBed, SheetChoices } from '../document/design';
import { rectangle } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import type { Layout, SheetLayout } from './layout';
import { nesting, type Nesting, type NestItem } from './nest/nest';

export interface SheetOnBed extends OnBed {
  readonly sheet: SheetLayout;
}
export interface Bed {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly sheets: readonly SheetOnBed[];
}
export interface Beds {
  readonly beds: readonly Bed[];
  /** Larger than the bed both ways, or put where they hang over it. */
  readonly tooLarge: readonly SheetLayout[];
}

/** Room between sheets on a bed, mm: what a strip of tape takes (common practice, no source). */
const BETWEEN_SHEETS_MM = 2;

export function layOnBeds({ sheets }: Layout, bed: NonNullable<SheetChoices['bed']>): Beds {
  const items = sheets.map(({ slot, widthMm, heightMm }): NestItem => {
    const place = Object.hasOwn(bed.at, slot) ? bed.at[slot] : undefined;
    const region = [{ outer: rectangle(0, 0, widthMm + BETWEEN_SHEETS_MM, heightMm + BETWEEN_SHEETS_MM), holes: [] }];
    const item = { key: `${widthMm} ${heightMm}`, region, turns: [0, 90] };
    if (!place || !fits(place, widthMm, heightMm, bed)) return item;
    return { ...item, fixed: { sheet: place.bed, at: originOf(place, heightMm), turnDeg: place.turned ? 90 : 0 } };
  });
  const most = sheets.length + Math.max(0, ...Object.values(bed.at).map((p) => p.bed + 1));
  const room = {
    widthMm: bed.widthMm + BETWEEN_SHEETS_MM,
    heightMm: bed.heightMm + BETWEEN_SHEETS_MM,
    cost: bed.widthMm * bed.heightMm,
  };
  const rooms = Array.from({ length: most }, () => room);
  const { placed, unplaced } = nesting(items, rooms, 1).next().value as Nesting;
  const beds = rooms.map((_, k): Bed => {
    const own = placed.filter((p) => p.sheet === k).sort((a, b) => a.item - b.item);
    return {
      widthMm: bed.widthMm,
      heightMm: bed.heightMm,
      sheets: own.map(({ item, at, turnDeg }) => {
        const turned = turnDeg === 90;
        const x = turned ? at[0] - sheets[item].heightMm - BETWEEN_SHEETS_MM : at[0];
        return { sheet: sheets[item], bed: k, x, y: at[1], ...(turned ? { turned } : {}) };
      }),
    };
  });
  return { beds: beds.filter((b) => b.sheets.length > 0), tooLarge: unplaced.map((i) => sheets[i]) };
}

/** Where the corner of a sheet lies that is its origin: turned, that is its lower right, room beside it and all. */
const originOf = ({ x, y, turned }: OnBed, heightMm: number): Vec2 => [
  turned ? x + heightMm + BETWEEN_SHEETS_MM : x,
  y,
];

type Size = Pick<Bed, 'widthMm' | 'heightMm'>;
function fits({ x, y, turned }: OnBed, widthMm: number, heightMm: number, bed: Size): boolean {
  const [w, h] = turned ? [heightMm, widthMm] : [widthMm, heightMm];
  return x >= 0 && y >= 0 && x + w <= bed.widthMm && y + h <= bed.heightMm;
}

/** A point of a sheet on its bed. */
export const onBed = ({ sheet, x, y, turned }: SheetOnBed, [px, py]: Vec2): Vec2 =>
  turned ? [x + sheet.heightMm - py, y + px] : [x + px, y + py];
