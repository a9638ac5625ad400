/** Whether two solids are in each other's room in a pose, and how far. */
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { compose, invert, type Rigid } from '../linkage';
import { intersect, mapRegion, regionArea, regionBox, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { CLASH_FROM_MM2, CONTACT_MM } from '../tolerance';
import { crossingDepth } from './crossing';
import { areParallel, givesMm, type PlacedSolid, type Solid } from './solids';

/**
 * How far two solids stand through each other, mm; 0 where they do not, or lie flat over each other.
 * @param slackMm what they may cross by beside the thickness of their paper
 */
export function throughDepth(p: Solid, q: Solid, a: PlacedSolid, b: PlacedSolid, slackMm = 0): number {
  const beyond = givesMm(p) + givesMm(q) + slackMm + CONTACT_MM;
  let deepest = 0;
  for (const s of a.slabs) for (const t of b.slabs) deepest = Math.max(deepest, crossingDepth(s, t, beyond));
  return deepest;
}

/** How one solid lies over another where their planes are parallel: in the axes of the first one's facet. */
export interface Over {
  /** Heights between which the second lies. */
  readonly fromMm: number;
  readonly toMm: number;
  /** Where the middle of its facet's sheet lies, and whether both insides look the same way. */
  readonly groundMm: number;
  readonly up: boolean;
  /** From the axes of the second one's piece to those of the first's. */
  readonly seen: Rigid;
}

/**
 * Null where their planes are not parallel.
 * @param m where the first one's piece lies in the world; `n`: the second's
 */
export function overOf(q: Solid, m: Rigid, n: Rigid): Over | null {
  if (!areParallel(m, n)) return null;
  const seen = compose(invert(m), n);
  const up = seen[10] > 0;
  const groundMm = seen[11];
  const heights = up
    ? { fromMm: groundMm + q.fromMm, toMm: groundMm + q.toMm }
    : { fromMm: groundMm - q.toMm, toMm: groundMm - q.fromMm };
  return { ...heights, groundMm, up, seen };
}

/** The same for two solids in one pose. */
export const overIn = ({ placed }: Pose, p: Solid, q: Solid): Over | null =>
  overOf(q, placed[p.facet], placed[q.facet]);

/** By how much two solids that lie flat share heights, mm; below `CONTACT_MM` they only touch. */
export const heightShared = (p: Solid, over: Over): number =>
  Math.min(p.toMm, over.toMm) - Math.max(p.fromMm, over.fromMm);

/** Whether two solids that lie flat are at one height, where it is known at which they are. */
export const atOneHeight = (p: Solid, q: Solid, over: Over): boolean =>
  p.knownHigh && q.knownHigh && heightShared(p, over) > CONTACT_MM;

const movedBy =
  ({ seen }: Over) =>
  ([x, y]: Vec2): Vec2 => [seen[0] * x + seen[1] * y + seen[3], seen[4] * x + seen[5] * y + seen[7]];
/** The outline of the second solid in the axes of the first one's facet. */
export const seenOver = (q: Solid, over: Over): Region => mapRegion([q.polygon], movedBy(over), !over.up);

/** How wide two outlines lap, mm: the lesser side of what they share; 0 where that is rounding. */
export function lapOf(p: Solid, q: Solid, over: Over): number {
  if (apart(p.polygon.outer, q.polygon.outer.map(movedBy(over)))) return 0;
  const shared = intersect([p.polygon], seenOver(q, over));
  if (shared.length === 0 || regionArea(shared) < CLASH_FROM_MM2) return 0;
  const { min, max } = regionBox(shared);
  return Math.min(max[0] - min[0], max[1] - min[1]);
}

/** Edges of each whose normals are tried for a line between two outlines. */
const EDGES_TRIED = 16;
/** Whether a line along an edge of one of two outlines has them on its two sides: then they share nothing. */
function apart(p: readonly Vec2[], q: readonly Vec2[]): boolean {
  for (const ring of [p, q]) {
    const every = Math.max(1, Math.ceil(ring.length / EDGES_TRIED));
    for (let k = 0; k < ring.length; k += every) {
      const [a, b] = [ring[k], ring[(k + 1) % ring.length]];
      const normal: Vec2 = [b[1] - a[1], a[0] - b[0]];
      const [own, other] = [reachAlong(p, normal), reachAlong(q, normal)];
      if (own[0] >= other[1] || other[0] >= own[1]) return true;
    }
  }
  return false;
}
function reachAlong(ring: readonly Vec2[], [x, y]: Vec2): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const [u, v] of ring) {
    const t = u * x + v * y;
    if (t < low) low = t;
    if (t > high) high = t;
  }
  return [low, high];
}

/** Both keep the height that they had over each other. */
export const sameHeight = (over: Over | null, before: Over | null): boolean =>
  over !== null && before !== null && over.up === before.up && Math.abs(over.groundMm - before.groundMm) < CONTACT_MM;

/** What is folded lies on itself, in one piece or in several that are glued back to back. */
export function isPleat({ facets, pieces }: Assembly, p: Solid, q: Solid): boolean {
  const [f, g] = [facets[p.facet], facets[q.facet]];
  const folds = (id: string): boolean => pieces.find((piece) => piece.id === id)!.creases.length > 0;
  return f.piece === g.piece || (f.mechanism === g.mechanism && folds(f.piece) && folds(g.piece));
}
