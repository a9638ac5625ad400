/** What an export shows: drawings placed on a surface, walked once for every format. */
import type { LineRole } from '../pattern/pattern';
import { joinKey, strokesOf, type Stroke } from '../plane/arcs';
import { dist2, distToSegment, type Vec2 } from '../plane/vec2';
import { inCutOrder, type Drawing, type DrawnLine } from './drawing';
import { onBed, type Bed } from './beds';
import { onSheet, type SheetLayout } from './layout';
import { WELD_MM } from '../tolerance';

export interface PlateItem {
  readonly drawing: Drawing;
  /** Point of the piece to point of the plate, mm, y up. */
  readonly place: (p: Vec2) => Vec2;
}
export interface Plate {
  readonly title: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly items: readonly PlateItem[];
  /** It is a whole sheet or page, margins and all. */
  readonly page?: true;
}

const GAP_MM = 10;

/** Pieces one above the other, at true size, with a gap round each. */
export function plateOfPieces(title: string, drawings: readonly Drawing[]): Plate {
  let y = GAP_MM;
  const widthMm = 2 * GAP_MM + drawings.reduce((w, d) => Math.max(w, d.box.max[0] - d.box.min[0]), 0);
  const items = drawings.map((drawing): PlateItem => {
    const { min, max } = drawing.box;
    const [dx, dy] = [GAP_MM - min[0], y - min[1]];
    y += max[1] - min[1] + GAP_MM;
    return { drawing, place: ([px, py]) => [px + dx, py + dy] };
  });
  return { title, widthMm, heightMm: y, items };
}

export const plateOfSheet = (title: string, sheet: SheetLayout): Plate => ({
  title,
  widthMm: sheet.widthMm,
  heightMm: sheet.heightMm,
  page: true,
  items: sheet.placed.map((p) => ({ drawing: p.drawing, place: (at) => onSheet(p, at) })),
});

/** A bed with the sheets that lie on it. */
export const plateOfBed = (title: string, bed: Bed): Plate => ({
  title,
  widthMm: bed.widthMm,
  heightMm: bed.heightMm,
  page: true,
  items: bed.sheets.flatMap((s) =>
    s.sheet.placed.map((p) => ({ drawing: p.drawing, place: (at: Vec2) => onBed(s, onSheet(p, at)) })),
  ),
});

/** The plate turned over about its upright middle, with what is drawn on the outside of its pieces. */
export const turnedOver = (plate: Plate): Plate => ({
  ...plate,
  title: `${plate.title}, outside`,
  items: plate.items
    .filter(({ drawing }) => drawing.outside.length > 0)
    .map(({ drawing, place }) => ({
      drawing: { ...drawing, lines: drawing.outside },
      place: (p) => {
        const [x, y] = place(p);
        return [plate.widthMm - x, y];
      },
    })),
});

/** A line in plate axes, and as the strokes it is drawn with. */
export interface PlatePath {
  readonly points: readonly Vec2[];
  readonly closed: boolean;
  readonly strokes: readonly Stroke[];
}

/** Takes lines in plate axes: mm, y up. A sink flips y itself if its format needs that. */
export interface PlateSink<Out> {
  line(role: LineRole, path: PlatePath, line: DrawnLine, item: PlateItem): void;
  finish(): Out;
}

/** Glue areas first, so that they lie under the lines; then lines in the order of cutting. */
export function walkPlate<Out>(plate: Plate, sink: PlateSink<Out>): Out {
  for (const item of plate.items) {
    const lines = [...item.drawing.lines.filter((l) => l.role === 'glue'), ...inCutOrder(item.drawing)];
    const ends = endsOf(lines);
    for (const l of lines) {
      const points = l.points.map(item.place);
      // Where lines meet is looked for in the piece; strokes are made on the plate.
      const joins = new Set(metBy(l, ends).map((k) => joinKey(points[k])));
      sink.line(l.role, { points, closed: l.closed, strokes: strokesOf(points, l.closed, joins) }, l, item);
    }
  }
  return sink.finish();
}

/** Ends of the lines that are worked: they lie on others, mostly. */
const endsOf = (lines: readonly DrawnLine[]): Vec2[] =>
  lines
    .filter((l) => !l.closed && l.role !== 'glue' && l.role !== 'mark')
    .flatMap((l) => [l.points[0], l.points[l.points.length - 1]]);

/**
 * Points of a line that the ends of others lie on. An end that lies on a chord, and not on the curve it stands for, has
 * both ends of the chord: it stays as it is.
 */
function metBy({ points, closed }: DrawnLine, ends: readonly Vec2[]): number[] {
  return points.flatMap((a, k) => {
    const next = k + 1 < points.length ? k + 1 : closed ? 0 : -1;
    if (next < 0) return ends.some((p) => dist2(p, a) < WELD_MM) ? [k] : [];
    const on = ends.filter((p) => within(p, a, points[next]) && distToSegment(p, a, points[next]) < WELD_MM);
    const inside = on.some((p) => dist2(p, a) >= WELD_MM && dist2(p, points[next]) >= WELD_MM);
    return inside ? [k, next] : on.some((p) => dist2(p, a) < WELD_MM) ? [k] : [];
  });
}
/** In the box of a segment, or so close to it that it may lie on it. */
const within = (p: Vec2, a: Vec2, b: Vec2): boolean =>
  [0, 1].every((i) => p[i] >= Math.min(a[i], b[i]) - WELD_MM && p[i] <= Math.max(a[i], b[i]) + WELD_MM);

/** Line styles by role: pattern and weight first, colour second. Dashes in mm; weights in mm. */
export const ROLE_STYLE: Readonly<
  Record<
    LineRole,
    {
      readonly colour: string;
      readonly dashMm: readonly number[];
      readonly weightMm: number;
      readonly dxfColour: number;
    }
  >
> = {
  cut: { colour: '#1e2a30', dashMm: [], weightMm: 0.25, dxfColour: 7 },
  valley: { colour: '#0b6470', dashMm: [4, 1.6], weightMm: 0.25, dxfColour: 4 },
  mountain: { colour: '#b3541e', dashMm: [3.6, 1.2, 0.6, 1.2], weightMm: 0.25, dxfColour: 30 },
  perforation: { colour: '#3f3f73', dashMm: [], weightMm: 0.25, dxfColour: 5 },
  window: { colour: '#1e2a30', dashMm: [], weightMm: 0.25, dxfColour: 7 },
  mark: { colour: '#8a8a86', dashMm: [], weightMm: 0.12, dxfColour: 8 },
  glue: { colour: '#6f6787', dashMm: [0.8, 0.8], weightMm: 0.12, dxfColour: 6 },
};
