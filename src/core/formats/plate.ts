/** What an export shows: drawings placed on a surface, walked once for every format. */
import type { LineRole } from '../pattern/pattern';
import type { Vec2 } from '../plane/vec2';
import { inCutOrder, type Drawing, type DrawnLine } from '../sheets/drawing';
import { onSheet, type SheetLayout } from '../sheets/pack';

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
  items: sheet.placed.map((p) => ({ drawing: p.drawing, place: (at) => onSheet(p, at) })),
});

/** Takes lines in plate axes: mm, y up. A sink flips y itself if its format needs that. */
export interface PlateSink<Out> {
  line(role: LineRole, points: readonly Vec2[], closed: boolean, line: DrawnLine, item: PlateItem): void;
  finish(): Out;
}

/** Glue areas first, so that they lie under the lines; then lines in the order of cutting. */
export function walkPlate<Out>(plate: Plate, sink: PlateSink<Out>): Out {
  for (const item of plate.items) {
    const lines = [...item.drawing.lines.filter((l) => l.role === 'glue'), ...inCutOrder(item.drawing)];
    for (const l of lines) sink.line(l.role, l.points.map(item.place), l.closed, l, item);
  }
  return sink.finish();
}

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
