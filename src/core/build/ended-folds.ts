/** Folds end where their paper does: at a window over them, and in the gaps of a shaped outline. Lengths in mm. */
import { stretchesInside, type Stretch } from '../plane/chord';
import { contains, distanceToEdge, type Polygon } from '../plane/polygon';
import { dist2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { creaseStretches, type Interruption } from '../pattern/facets';
import type { CreaseLine, Piece } from '../pattern/pattern';
import { WELD_MM } from '../tolerance';

/**
 * What interrupts the folds of pieces because there is no paper. A fold that has none anywhere is left as it is: it is
 * not ended but lost, and is told as such.
 * @param interruptions those of what stands on the folds
 */
export const endedFolds = (pieces: readonly Piece[], interruptions: readonly Interruption[]): Interruption[] =>
  pieces.flatMap((piece) => {
    const papers = [piece.outline, ...(piece.islands ?? [])];
    return piece.creases.flatMap((crease) => {
      const kept = creaseStretches(crease, interruptions).map((s): Stretch => along(crease, s.a, s.b));
      const bare = kept.flatMap((stretch) => bareOf(crease, stretch, papers));
      const left = lengthOf(kept) - lengthOf(bare);
      return left > WELD_MM ? bare.map((s) => ({ crease: crease.id, ...s })) : [];
    });
  });

const along = ({ a: from }: CreaseLine, a: Vec2, b: Vec2): Stretch => ({ from: dist2(from, a), to: dist2(from, b) });
const lengthOf = (stretches: readonly Stretch[]): number => stretches.reduce((sum, s) => sum + s.to - s.from, 0);

/** Inside it, or on its edge: there is paper on one side then. */
const isOn = (paper: Polygon, at: Vec2): boolean => contains(paper, at) || distanceToEdge(paper, at) < 10 * WELD_MM;

/** Parts of a stretch that have no paper on either side. */
function bareOf({ a, b }: CreaseLine, { from, to }: Stretch, papers: readonly Polygon[]): Stretch[] {
  const length = dist2(a, b);
  const ends = papers
    .flatMap((paper) => stretchesInside(paper, a, scale2(sub2(b, a), 1 / length)))
    .flatMap((s) => [s.from, s.to])
    .filter((t) => t > from + WELD_MM && t < to - WELD_MM);
  const marks = [from, ...ends, to].sort((s, t) => s - t);
  const hasPaper = (s: Stretch): boolean => {
    const middle = lerp2(a, b, (s.from + s.to) / 2 / length);
    return papers.some((paper) => isOn(paper, middle));
  };
  const parts = marks.slice(1).map((t, k): Stretch => ({ from: marks[k], to: t }));
  return parts.filter((s) => s.to - s.from > WELD_MM && !hasPaper(s));
}
