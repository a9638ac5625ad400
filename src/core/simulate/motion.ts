/** How a machine moves: it speeds up and slows down evenly, and takes corners as slowly as they are sharp. */
import { dist2, type Vec2 } from '../plane/vec2';
import { ROUNDING_MM } from '../tolerance';

export interface Leg {
  readonly points: readonly Vec2[];
  readonly speedMmS: number;
  readonly down: boolean;
  /** Index of its stroke; that of the next one while the tool is lifted. */
  readonly stroke: number;
}

/** A corner may be cut off by so much in thought, mm: from that follows how fast it is taken. */
const CORNER_MM = 0.02;

/**
 * Speeds at the points of a leg that starts and ends at rest, mm/s: what each corner allows and what can be reached
 * and braked from on the way.
 */
export function speedsAt({ points, speedMmS }: Leg, accelerationMmS2: number): number[] {
  const out = points.map((p, k) =>
    k === 0 || k === points.length - 1
      ? 0
      : Math.min(speedMmS, cornerSpeed(points[k - 1], p, points[k + 1], accelerationMmS2)),
  );
  const reach = (from: number, mm: number): number => Math.sqrt(from * from + 2 * accelerationMmS2 * mm);
  for (let k = 1; k < out.length; k++) out[k] = Math.min(out[k], reach(out[k - 1], dist2(points[k - 1], points[k])));
  for (let k = out.length - 2; k >= 0; k--)
    out[k] = Math.min(out[k], reach(out[k + 1], dist2(points[k], points[k + 1])));
  return out;
}

/** Speed on the circle that passes a corner within CORNER_MM of it. */
function cornerSpeed(a: Vec2, b: Vec2, c: Vec2, acceleration: number): number {
  const [u, v] = [dist2(a, b), dist2(b, c)];
  if (u < ROUNDING_MM || v < ROUNDING_MM) return Infinity;
  const cos = -((b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1])) / (u * v);
  const sinHalf = Math.sqrt(Math.max(0, (1 - cos) / 2));
  return sinHalf > 1 - 1e-9 ? Infinity : Math.sqrt((acceleration * CORNER_MM * sinHalf) / (1 - sinHalf));
}

/** Seconds for a leg, each segment sped up, held and slowed down. */
export function legSeconds(leg: Leg, acceleration: number): number {
  const speeds = speedsAt(leg, acceleration);
  return leg.points.slice(1).reduce((sum, p, k) => {
    const mm = dist2(leg.points[k], p);
    return sum + segmentSeconds(mm, speeds[k], speeds[k + 1], leg.speedMmS, acceleration);
  }, 0);
}

function segmentSeconds(mm: number, from: number, to: number, most: number, a: number): number {
  if (mm < ROUNDING_MM) return 0;
  const top = Math.min(most, Math.sqrt((from * from + to * to) / 2 + a * mm));
  const [up, off] = [(top * top - from * from) / (2 * a), (top * top - to * to) / (2 * a)];
  return (top - from) / a + (top - to) / a + Math.max(0, mm - up - off) / top;
}
