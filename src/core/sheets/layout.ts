/** Pieces laid on sheets: the arrangement that every picture and file of the sheets is made from. */
import type { Place } from '../document/design';
import type { Stock } from '../paper/stocks';
import { boxOf, regionArea, ringsOf, type Polygon } from '../plane/polygon';
import { add2, type Vec2 } from '../plane/vec2';
import type { Drawing } from './drawing';
import { turnPoint } from '../plane/turning';

export interface PlacedPiece {
  readonly drawing: Drawing;
  /** Which of the pieces of its kind, from 1. */
  readonly copy: number;
  /** Where the origin of the piece's axes lies on the sheet, mm. */
  readonly x: number;
  readonly y: number;
  /** Turned so far to the left. */
  readonly turnDeg: number;
  /** Put there by hand, and kept there. */
  readonly locked: boolean;
  /** It fits only with its longest crease across the grain. */
  readonly acrossGrain: boolean;
}
export interface SheetLayout {
  /** Id of the sheet on the shelf. */
  readonly slot: string;
  readonly stock: Stock;
  readonly colour: string;
  readonly name: string;
  readonly offcut: boolean;
  readonly price: number | null;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly placed: readonly PlacedPiece[];
  /** Part of the sheet's area that becomes pieces, percent. */
  readonly usePercent: number;
  /** What is left whole when the rest is cut off straight, mm. */
  readonly left: { readonly widthMm: number; readonly heightMm: number };
}
export interface RefusedForGrain {
  readonly drawing: Drawing;
  readonly offcut: { readonly slot: string; readonly widthMm: number; readonly heightMm: number };
}
export interface Layout {
  readonly sheets: readonly SheetLayout[];
  readonly unplaced: readonly { readonly drawing: Drawing; readonly copy: number; readonly why: string }[];
  /** Pieces that an offcut at hand would take, were it not for its grain. */
  readonly refused: readonly RefusedForGrain[];
  /** Rounds of the search that made it. */
  readonly rounds: number;
  /** Sum of the sheets that have a price; null where none has. */
  readonly price: number | null;
}

/** Where a point of a piece lies on its sheet. */
export const onSheet = ({ x, y, turnDeg }: Pick<PlacedPiece, 'x' | 'y' | 'turnDeg'>, p: Vec2): Vec2 =>
  add2(turnPoint(p, turnDeg), [x, y]);

/** Paper of a piece on its sheet, windows left out. */
export const paperOnSheet = (p: PlacedPiece): readonly Polygon[] =>
  p.drawing.region.map(({ outer, holes }) => ({
    outer: outer.map((q) => onSheet(p, q)),
    holes: holes.map((h) => h.map((q) => onSheet(p, q))),
  }));

/** Where everything lies, as it is kept with the card; what lay locked stays so. */
export const placesOf = ({ sheets }: Layout): Place[] =>
  sheets.flatMap((s) =>
    s.placed.map(({ drawing, copy, x, y, turnDeg, locked }) => ({
      piece: drawing.id,
      copy,
      sheet: s.slot,
      x,
      y,
      turnDeg,
      ...(locked ? { locked } : {}),
    })),
  );

/** Turned further about the middle of its box, so that it stays where it is looked at. */
export function turnedAbout(piece: PlacedPiece, byDeg: number): Pick<PlacedPiece, 'x' | 'y' | 'turnDeg'> {
  const { min, max } = piece.drawing.box;
  const middle: Vec2 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const turnDeg = (((piece.turnDeg + byDeg) % 360) + 360) % 360;
  const [was, is] = [turnPoint(middle, piece.turnDeg), turnPoint(middle, turnDeg)];
  return { x: piece.x + was[0] - is[0], y: piece.y + was[1] - is[1], turnDeg };
}

/** What is used of a sheet, and the larger of the two rests that one straight cut leaves. */
export function sheetUse(
  widthMm: number,
  heightMm: number,
  placed: readonly PlacedPiece[],
): Pick<SheetLayout, 'usePercent' | 'left'> {
  const used = placed.reduce((sum, p) => sum + regionArea(p.drawing.region), 0);
  const { max } = boxOf(placed.flatMap((p) => paperOnSheet(p).flatMap((q) => ringsOf(q)[0])));
  const [beside, above] = [Math.max(0, widthMm - max[0]), Math.max(0, heightMm - max[1])];
  const left = beside * heightMm >= above * widthMm ? [beside, heightMm] : [widthMm, above];
  return {
    usePercent: (100 * used) / (widthMm * heightMm),
    left: { widthMm: left[0], heightMm: left[1] },
  };
}
