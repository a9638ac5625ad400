/**
 * Rings of corners, and what is said of them without the clipping library.
 * Lengths in mm, y up. No ring repeats its first point.
 */
import { cross2, type Vec2 } from './vec2';

export type Ring = readonly Vec2[];
export interface Polygon {
  readonly outer: Ring;
  readonly holes: readonly Ring[];
}
/** Part of the plane: polygons that do not overlap. */
export type Region = readonly Polygon[];

export const ringArea = (ring: Ring): number =>
  ring.reduce((sum, p, i) => sum + cross2(p, ring[(i + 1) % ring.length]), 0) / 2;

export const ringsOf = (p: Polygon): readonly Ring[] => [p.outer, ...p.holes];

export interface Box2 {
  readonly min: Vec2;
  readonly max: Vec2;
}
export function boxOf(points: Iterable<Vec2>): Box2 {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    x0 = Math.min(x0, x);
    y0 = Math.min(y0, y);
    x1 = Math.max(x1, x);
    y1 = Math.max(y1, y);
  }
  return { min: [x0, y0], max: [x1, y1] };
}

/** Inside or on the edge counts as inside only when `distanceToEdge` says so; this is the strict crossing test. */
export function contains(polygon: Polygon, p: Vec2): boolean {
  let inside = false;
  for (const ring of ringsOf(polygon)) {
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const a = ring[i];
      const b = ring[j];
      if (a[1] > p[1] !== b[1] > p[1] && p[0] < ((b[0] - a[0]) * (p[1] - a[1])) / (b[1] - a[1]) + a[0])
        inside = !inside;
    }
  }
  return inside;
}
