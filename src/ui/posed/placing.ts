/** From a piece into the posed card and back: a facet's placement is 12 numbers, row by row. */
import type { Vec3 } from '@/core/linkage';
import type { Vec2 } from '@/core/plane/vec2';
import type { ScenePose } from '@/workers/protocol';

const rowsOf = ({ placed }: Pick<ScenePose, 'placed'>, facet: number): Float64Array =>
  placed.subarray(12 * facet, 12 * facet + 12);

/** A point of a facet's piece, at a height over its plane, in world axes, mm. */
export function inWorld(pose: Pick<ScenePose, 'placed'>, facet: number, [x, y]: Vec2, z = 0): Vec3 {
  const m = rowsOf(pose, facet);
  const row = (r: number): number => m[4 * r] * x + m[4 * r + 1] * y + m[4 * r + 2] * z + m[4 * r + 3];
  return [row(0), row(1), row(2)];
}

/** A direction of a facet's piece, in world axes. */
export function turnedToWorld(pose: Pick<ScenePose, 'placed'>, facet: number, [x, y]: Vec2): Vec3 {
  const m = rowsOf(pose, facet);
  return [m[0] * x + m[1] * y, m[4] * x + m[5] * y, m[8] * x + m[9] * y];
}

/** A point of the world in the axes of a facet's piece, mm: on it, and how far over it. */
export function onPiece(pose: Pick<ScenePose, 'placed'>, facet: number, [x, y, z]: Vec3): Vec3 {
  const m = rowsOf(pose, facet);
  const [dx, dy, dz] = [x - m[3], y - m[7], z - m[11]];
  // Placements are rotations: the inverse is the transpose.
  const column = (c: number): number => m[c] * dx + m[4 + c] * dy + m[8 + c] * dz;
  return [column(0), column(1), column(2)];
}
