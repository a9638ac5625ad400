/** Which glue bears a load: it pulls, or holds a fold that works against it. */
import type { Assembly } from '../assembly/assembly';
import type { Piece } from '../pattern/pattern';

/**
 * A piece that folds or slides between parts of the card pulls on its glue wherever it is stuck. One that only folds
 * with the leaves it lies on, as a liner does, or does not move by itself, does not.
 */
export function bearsLoad({ creases, facets, leafBodies, linkage }: Assembly, piece: Piece): boolean {
  const own = creases.filter((c) => c.piece === piece.id && (c.joint >= 0 || c.bend));
  const withLeaves = (facet: number): boolean => leafBodies.has(facets[facet].body);
  if (own.some(({ a, b }) => !withLeaves(a) || !withLeaves(b))) return true;
  // What is drawn by a strip.
  const bodies = new Set(facets.filter((f) => f.piece === piece.id).map((f) => f.body));
  return linkage.joints.some((j) => j.motion.kind === 'track' && bodies.has(j.b));
}
