/**
 * In which order flat parts are painted so that nearer ones cover those behind: what lies wholly on one side of
 * another's plane comes before or after it; where that says nothing, by rank and mean distance.
 */
import { dot3, sub3, type Vec3 } from '../linkage';

export interface Painted {
  /** Corners in the world, and on the page. */
  readonly corners: readonly Vec3[];
  readonly onPage: readonly (readonly [number, number])[];
  readonly normal: Vec3;
  readonly rank: number;
  /** Toward the eye, mm. */
  readonly depth: number;
}

/** Corners this near to a plane lie in it, mm. */
const IN_PLANE_MM = 0.02;
/** More parts than this are painted by rank and distance alone. */
const MOST_PARTS = 400;

type Box = readonly [x0: number, y0: number, x1: number, y1: number];
const boxOn = (points: Painted['onPage']): Box => [
  Math.min(...points.map((p) => p[0])),
  Math.min(...points.map((p) => p[1])),
  Math.max(...points.map((p) => p[0])),
  Math.max(...points.map((p) => p[1])),
];
const apart = (a: Box, b: Box): boolean => a[2] <= b[0] || b[2] <= a[0] || a[3] <= b[1] || b[3] <= a[1];

/** -1: all corners of `b` lie behind the plane of `a`, 1: before it, 0: neither; the eye looks along `-from`. */
function sideOf(a: Painted, b: Painted, from: Vec3): -1 | 0 | 1 {
  const facing = dot3(a.normal, from);
  if (Math.abs(facing) < 1e-6) return 0;
  let [least, most] = [Infinity, -Infinity];
  for (const p of b.corners) {
    const d = dot3(a.normal, sub3(p, a.corners[0])) * Math.sign(facing);
    least = Math.min(least, d);
    most = Math.max(most, d);
  }
  if (least > -IN_PLANE_MM && most > IN_PLANE_MM) return 1;
  return most < IN_PLANE_MM && least < -IN_PLANE_MM ? -1 : 0;
}

/** Indices of the parts, the first to be painted first. */
export function paintingOrder(parts: readonly Painted[], from: Vec3): number[] {
  const plain = parts.map((_, i) => i).sort((i, j) => parts[i].rank - parts[j].rank || parts[i].depth - parts[j].depth);
  if (parts.length > MOST_PARTS) return plain;
  const boxes = parts.map((p) => boxOn(p.onPage));
  const covers: number[][] = parts.map(() => []);
  const under = parts.map(() => 0);
  for (let i = 0; i < parts.length; i++)
    for (let j = i + 1; j < parts.length; j++) {
      if (apart(boxes[i], boxes[j])) continue;
      const order = sideOf(parts[i], parts[j], from) || -sideOf(parts[j], parts[i], from);
      if (order === 0) continue;
      const [first, then] = order > 0 ? [i, j] : [j, i];
      covers[first].push(then);
      under[then]++;
    }
  const out: number[] = [];
  const left = [...plain];
  while (left.length > 0) {
    // Where parts cover each other in a ring the furthest goes first.
    const k = Math.max(
      0,
      left.findIndex((i) => under[i] === 0),
    );
    const [next] = left.splice(k, 1);
    out.push(next);
    for (const j of covers[next]) under[j]--;
  }
  return out;
}
