/** Points and directions in the plane of a sheet: mm, y up. */
import { orient2d } from 'robust-predicates';

export type Vec2 = readonly [x: number, y: number];

export const add2 = (a: Vec2, b: Vec2): Vec2 => [a[0] + b[0], a[1] + b[1]];
export const sub2 = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
export const scale2 = (a: Vec2, k: number): Vec2 => [a[0] * k, a[1] * k];
export const dot2 = (a: Vec2, b: Vec2): number => a[0] * b[0] + a[1] * b[1];
export const cross2 = (a: Vec2, b: Vec2): number => a[0] * b[1] - a[1] * b[0];
// `Math.hypot` takes several times as long, for ends of a double's range that no sheet comes near.
export const norm2 = ([x, y]: Vec2): number => Math.sqrt(x * x + y * y);
export function dist2(a: Vec2, b: Vec2): number {
  const x = a[0] - b[0];
  const y = a[1] - b[1];
  return Math.sqrt(x * x + y * y);
}
export const lerp2 = (a: Vec2, b: Vec2, t: number): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];

/** > 0: p is left of a→b (y up). 0: collinear, decided exactly. The library's y points down, hence the swap. */
export const sideOf = (a: Vec2, b: Vec2, p: Vec2): number => orient2d(b[0], b[1], a[0], a[1], p[0], p[1]) + 0;

/** Distance from `p` to the segment a–b, mm. A segment of no length is a point. */
export function distToSegment(p: Vec2, a: Vec2, b: Vec2): number {
  // Asked for every corner of an outline: no points are made on the way.
  const x = b[0] - a[0];
  const y = b[1] - a[1];
  const length2 = x * x + y * y;
  const t = length2 === 0 ? 0 : Math.min(1, Math.max(0, ((p[0] - a[0]) * x + (p[1] - a[1]) * y) / length2));
  const [u, v] = [p[0] - (a[0] + x * t), p[1] - (a[1] + y * t)];
  return Math.sqrt(u * u + v * v);
}

/** The place on the segment a–b that is nearest to `p`. */
export function nearestOnSegment(p: Vec2, a: Vec2, b: Vec2): Vec2 {
  const along = sub2(b, a);
  const length2 = dot2(along, along);
  return length2 === 0 ? a : lerp2(a, b, Math.min(1, Math.max(0, dot2(sub2(p, a), along) / length2)));
}

/** Length of a line through points. */
export const wayLength = (points: readonly Vec2[]): number =>
  points.reduce((sum, p, k) => (k === 0 ? 0 : sum + dist2(points[k - 1], p)), 0);

/** Distance from the line through a and b, which must differ. */
export const distToLine = (p: Vec2, a: Vec2, b: Vec2): number => Math.abs(cross2(sub2(b, a), sub2(p, a))) / dist2(a, b);

/** A right-handed frame on a sheet: `at(x, y)` is the sheet point at local x, y. */
export interface Frame2 {
  readonly origin: Vec2;
  /** Unit vector of local x; local y is a quarter turn to its left. */
  readonly along: Vec2;
}

export const frameAt = (f: Frame2, x: number, y: number): Vec2 => [
  f.origin[0] + f.along[0] * x - f.along[1] * y,
  f.origin[1] + f.along[1] * x + f.along[0] * y,
];
