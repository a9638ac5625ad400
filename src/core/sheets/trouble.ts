/** What is wrong with where a piece lies: over another, nearer to it than asked, or off the part that can be cut. */
import { boxesMeet, boxOf, intersect, regionArea, type Box2, type Region } from '../plane/polygon';
import { outlineGap } from '../plane/gap';
import { NEST_TOUCH_MM } from '../tolerance';
import { paperOnSheet, type PlacedPiece } from './layout';

export type Trouble = 'overlap' | 'near' | 'margin';

export interface SheetRoom {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: number;
  readonly spacingMm: number;
}

/** Overlaps smaller than this are the rounding of the clipping grid along an edge in common, mm². */
const OVERLAP_FROM_MM2 = 1e-3;

/** The gravest first; null where it lies well. */
export function troubleOfPiece(piece: PlacedPiece, others: readonly PlacedPiece[], room: SheetRoom): Trouble | null {
  const paper = paperOnSheet(piece);
  const box = boxOf(paper.flatMap((p) => p.outer));
  const near = others
    .map((o) => paperOnSheet(o))
    .filter((r) => boxesMeet(grown(box, room.spacingMm), boxOf(r.flatMap((p) => p.outer))));
  if (near.some((r) => overlaps(paper, r))) return 'overlap';
  if (near.some((r) => outlineGap(paper, r) < room.spacingMm - 2 * NEST_TOUCH_MM)) return 'near';
  return isOff(box, room) ? 'margin' : null;
}

const overlaps = (a: Region, b: Region): boolean => regionArea(intersect(a, b)) > OVERLAP_FROM_MM2;

const grown = ({ min, max }: Box2, by: number): Box2 => ({
  min: [min[0] - by, min[1] - by],
  max: [max[0] + by, max[1] + by],
});

const isOff = ({ min, max }: Box2, { widthMm, heightMm, marginMm }: SheetRoom): boolean => {
  const least = marginMm - 2 * NEST_TOUCH_MM;
  return min[0] < least || min[1] < least || max[0] > widthMm - least || max[1] > heightMm - least;
};
