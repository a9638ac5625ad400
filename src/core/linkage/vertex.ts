/**
 * Closed forms that lead a single vertex of four creases out of the flat sheet. Opposite folds are equal in size and
 * the half-angle tangents of neighbours keep one ratio p (Huffman 1976; Tachi 2009); slow and fast creases can differ
 * by any factor, which no search by sizes would meet.
 */
import type { Block } from './block';
import type { Linkage } from './joint';
import { cross3, dot3, norm3, sub3, type Vec3 } from './rigid';
import { KAWASAKI_RAD, SAME_POINT_MM } from '../tolerance';

/**
 * Starting values for a block that is one loop of four creases of a flat sheet through one point, from the fold that
 * is known in `q`; none for anything else.
 */
export function vertexSeeds(linkage: Linkage, block: Block, flat: Float64Array, q: Float64Array): number[][] {
  const [loop] = block.loops;
  if (block.loops.length !== 1 || loop.steps.length !== 4 || block.unknowns.length !== 3) return [];
  const ring = loop.steps.map((s) => s.joint);
  const known = ring.findIndex((j) => !block.unknowns.includes(j));
  if (known < 0 || ring.some((j) => flat[j] !== 0 || linkage.joints[j].placement)) return [];
  const spokes = spokesOf(linkage, ring);
  if (!spokes) return [];
  const sectors = spokes.map((s, k) => angleBetween(s, spokes[(k + 1) % 4]));
  if (Math.abs(sectors[0] + sectors[2] - Math.PI) > KAWASAKI_RAD) return [];
  return [1, -1].flatMap((branch) => seedsOf(linkage, block, ring, known, sectors, branch, q[ring[known]]));
}

/** Directions of the creases away from the point they share; null where they share none. */
function spokesOf({ joints }: Linkage, ring: readonly number[]): Vec3[] | null {
  const shared = joints[ring[0]].span.find((p) =>
    ring.every((j) => joints[j].span.some((r) => norm3(sub3(p, r)) < SAME_POINT_MM)),
  );
  if (!shared) return null;
  return ring.map((j) => {
    const far = joints[j].span.reduce((a, b) => (norm3(sub3(a, shared)) > norm3(sub3(b, shared)) ? a : b));
    return sub3(far, shared);
  });
}
const angleBetween = (u: Vec3, v: Vec3): number => Math.atan2(norm3(cross3(u, v)), dot3(u, v));

/**
 * Folds r0 = ±r2 and r1 = ±r3. In a flat-foldable vertex one pair of opposite folds has equal signs and the other
 * opposite ones; of the two branches one halves the sum, the other the difference, of the sectors beside a crease.
 */
function seedsOf(
  linkage: Linkage,
  block: Block,
  ring: readonly number[],
  known: number,
  sectors: readonly number[],
  branch: number,
  fold: number,
): number[][] {
  // Sectors beside the known crease: before it and after it in the ring.
  const [a, b] = [sectors[(known + 3) % 4], sectors[known]];
  const ratio =
    branch > 0 ? Math.cos((a + b) / 2) / Math.cos((a - b) / 2) : Math.sin((a - b) / 2) / Math.sin((a + b) / 2);
  if (!Number.isFinite(ratio) || ratio === 0) return [];
  const size = (factor: number): number => 2 * Math.atan(Math.tan(Math.abs(fold) / 2) * factor);
  const neighbour = [ratio, 1 / ratio].map((f) => Math.abs(size(f)));
  return neighbour.map((beside) =>
    block.unknowns.map((j) => {
      const steps = (ring.indexOf(j) - known + 4) % 4;
      return linkage.joints[j].role * (steps === 2 ? Math.abs(fold) : beside);
    }),
  );
}
