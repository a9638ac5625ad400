/** From a piece into the posed card and back: a facet's placement is 12 numbers, row by row. */
import type { Vec2 } from '@/core/plane/vec2';
import type { ScenePose } from '@/workers/protocol';

export type Point3 = readonly [number, number, number];

const rowsOf = ({ placed }: Pick<ScenePose, 'placed'>, facet: number): Float64Array =>
  placed.subarray(12 * facet, 12 * facet + 12);

/** A point of a facet's piece, at a height over its plane, in world axes, mm. */
export function inWorld(pose: Pick<ScenePose, 'placed'>, facet: number, [x, y]: Vec2, z = 0): Point3 {
  const m = rowsOf(pose, facet);
  const row = (r: number): number => m[4 * r] * x + m[4 * r + 1] * y + m[4 * r + 2] * z + m[4 * r + 3];
  return [row(0), row(1), row(2)];
}

/** A direction of a facet's piece, in world axes. */
export function turnedToWorld(pose: Pick<ScenePose, 'placed'>, facet: number, [x, y]: Vec2): Point3 {
  const m = rowsOf(pose, facet);
  return [m[0] * x + m[1] * y, m[4] * x + m[5] * y, m[8] * x + m[9] * y];
}

/** Where a point of the world lies over a facet, in the axes of its piece, mm. */
export function onPiece(pose: Pick<ScenePose, 'placed'>, facet: number, [x, y, z]: Point3): Vec2 {
  const m = rowsOf(pose, facet);
  const [dx, dy, dz] = [x - m[3], y - m[7], z - m[11]];
  // Placements are rotations: the inverse is the transpose.
  return [m[0] * dx + m[4] * dy + m[8] * dz, m[1] * dx + m[5] * dy + m[9] * dz];
}
