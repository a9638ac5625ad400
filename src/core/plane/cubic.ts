/** The cubic Bézier curve a run of points was drawn from, if there is one: least squares, ends held. */
import { PARALLEL_PART } from '../tolerance';
import { dist2, distToSegment, type Vec2 } from './vec2';

/** Rounds of fitting and of moving the parameters to the nearest points of the curve; a true cubic needs one or two. */
const ROUNDS = 8;

/**
 * The two inner control points of a cubic from the first of `points` to the last that passes within `fit` of each, and
 * whose stretch between two neighbours leaves their chord by no more than `sagitta`; null where none was found.
 */
export function cubicOver(points: readonly Vec2[], fit: number, sagitta: number): [Vec2, Vec2] | null {
  const ts = startParameters(points);
  for (let round = 0, before = Infinity; round < ROUNDS; round++) {
    const inner = innerPoints(points, ts);
    if (!inner) return null;
    const curve = [points[0], ...inner, points[points.length - 1]];
    const off = nearestParameters(points, curve, ts);
    if (off <= fit) return keepsToChords(points, curve, ts, sagitta) ? inner : null;
    if (off > before * 0.7) return null;
    before = off;
  }
  return null;
}

/**
 * Parameters the points may have been drawn at: even steps, but for a first and last one that were cut short. Curves
 * are drawn that way here, and a part of a cubic is one.
 */
function startParameters(points: readonly Vec2[]): number[] {
  const last = points.length - 1;
  const length = (k: number): number => dist2(points[k], points[k + 1]);
  // A whole step's length there goes on from its three neighbours as a parabola does.
  const part = (k: number, way: 1 | -1): number => {
    const ratio = length(k) / (3 * length(k + way) - 3 * length(k + 2 * way) + length(k + 3 * way));
    return ratio > 0 ? Math.min(1, ratio) : 1;
  };
  const [first, end] = [part(0, 1), part(last - 1, -1)];
  const total = first + end + last - 2;
  return points.map((_, k) => (k === 0 ? 0 : k === last ? 1 : (first + k - 1) / total));
}

/** Bernstein polynomials of the third degree. */
const weights = (t: number): readonly number[] => {
  const u = 1 - t;
  return [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
};
export const cubicAt = (curve: readonly Vec2[], t: number): Vec2 => {
  const w = weights(t);
  return [0, 1].map((i) => w.reduce((sum, wk, k) => sum + wk * curve[k][i], 0)) as unknown as Vec2;
};

/** Least squares for the two inner points: the same two by two matrix for both axes. */
function innerPoints(points: readonly Vec2[], ts: readonly number[]): [Vec2, Vec2] | null {
  const [a, b] = [points[0], points[points.length - 1]];
  let [m11, m12, m22] = [0, 0, 0];
  const [r1, r2] = [
    [0, 0],
    [0, 0],
  ];
  points.forEach((p, k) => {
    const w = weights(ts[k]);
    m11 += w[1] * w[1];
    m12 += w[1] * w[2];
    m22 += w[2] * w[2];
    for (const i of [0, 1]) {
      const rest = p[i] - w[0] * a[i] - w[3] * b[i];
      r1[i] += w[1] * rest;
      r2[i] += w[2] * rest;
    }
  });
  const det = m11 * m22 - m12 * m12;
  if (det < PARALLEL_PART * m11 * m22) return null;
  const solve = (i: number): [number, number] => [(m22 * r1[i] - m12 * r2[i]) / det, (m11 * r2[i] - m12 * r1[i]) / det];
  const [[x1, x2], [y1, y2]] = [solve(0), solve(1)];
  return [
    [x1, y1],
    [x2, y2],
  ];
}

/** Moves each parameter to the nearest point of the curve (one Newton step), in order; the largest distance left. */
function nearestParameters(points: readonly Vec2[], curve: readonly Vec2[], ts: number[]): number {
  const [p0, p1, p2, p3] = curve;
  let worst = 0;
  for (let k = 1; k + 1 < points.length; k++) {
    const t = ts[k];
    const u = 1 - t;
    const at = cubicAt(curve, t);
    const slope = [0, 1].map(
      (i) => 3 * (u * u * (p1[i] - p0[i]) + 2 * u * t * (p2[i] - p1[i]) + t * t * (p3[i] - p2[i])),
    );
    const bend = [0, 1].map((i) => 6 * (u * (p2[i] - 2 * p1[i] + p0[i]) + t * (p3[i] - 2 * p2[i] + p1[i])));
    const off = [at[0] - points[k][0], at[1] - points[k][1]];
    const along = off[0] * slope[0] + off[1] * slope[1];
    const steep = slope[0] ** 2 + slope[1] ** 2 + off[0] * bend[0] + off[1] * bend[1];
    const next = steep > 0 ? t - along / steep : t;
    ts[k] = Math.min(1, Math.max(ts[k - 1], next));
    worst = Math.max(worst, dist2(cubicAt(curve, ts[k]), points[k]));
  }
  return worst;
}

/** Between neighbours the curve keeps to their chord, so that no corner is rounded and no loop is added. */
function keepsToChords(
  points: readonly Vec2[],
  curve: readonly Vec2[],
  ts: readonly number[],
  sagitta: number,
): boolean {
  return points.slice(1).every((b, k) =>
    [0.25, 0.5, 0.75].every((part) => {
      const p = cubicAt(curve, ts[k] + (ts[k + 1] - ts[k]) * part);
      return distToSegment(p, points[k], b) <= sagitta;
    }),
  );
}
