/** Curves to polylines. Tolerance is the largest distance between the two, in the units of the points. */
import type { Ring } from '../plane/polygon';
import { add2, distToSegment, lerp2, scale2, type Vec2 } from '../plane/vec2';

/** Curves of a shape are drawn by lines that keep this close (mm): a third of the width of a knife's tip. */
export const CURVE_TOLERANCE_MM = 0.01;
const MOST_STEPS = 2000;

/** Chords of equal turn that stay within the tolerance of a circle: sagitta r (1 - cos(turn / 2)). */
export function arcSteps(radius: number, turn: number, tolerance: number): number {
  const half = Math.acos(Math.max(0, 1 - tolerance / Math.max(radius, tolerance)));
  return Math.min(MOST_STEPS, Math.max(1, Math.ceil(Math.abs(turn) / (2 * half))));
}

/** Points of an ellipse's arc, both ends included. Angles in rad. */
export function arcPoints(
  centre: Vec2,
  rx: number,
  ry: number,
  from: number,
  turn: number,
  tolerance = CURVE_TOLERANCE_MM,
): Vec2[] {
  const n = arcSteps(Math.max(rx, ry), turn, tolerance);
  return Array.from({ length: n + 1 }, (_, k): Vec2 => {
    const t = from + (turn * k) / n;
    return [centre[0] + rx * Math.cos(t), centre[1] + ry * Math.sin(t)];
  });
}

/** A whole ellipse, counter-clockwise, cut into a multiple of four so that its extremes are corners. */
export function ellipse(rx: number, ry: number, centre: Vec2 = [0, 0], tolerance = CURVE_TOLERANCE_MM): Ring {
  const n = 4 * Math.max(2, Math.ceil(arcSteps(Math.max(rx, ry), 2 * Math.PI, tolerance) / 4));
  return Array.from({ length: n }, (_, k): Vec2 => [
    centre[0] + rx * Math.cos((2 * Math.PI * k) / n),
    centre[1] + ry * Math.sin((2 * Math.PI * k) / n),
  ]);
}

/**
 * A Bézier curve of any degree without its first point. Steps by Wang's bound: n² = d (d - 1) / 8 · largest second
 * difference / tolerance.
 */
export function bezierPoints(points: readonly Vec2[], tolerance: number): Vec2[] {
  const degree = points.length - 1;
  let bend = 0;
  for (let i = 0; i + 2 <= degree; i++)
    bend = Math.max(
      bend,
      Math.hypot(
        points[i][0] - 2 * points[i + 1][0] + points[i + 2][0],
        points[i][1] - 2 * points[i + 1][1] + points[i + 2][1],
      ),
    );
  const n = Math.min(MOST_STEPS, Math.max(1, Math.ceil(Math.sqrt((degree * (degree - 1) * bend) / (8 * tolerance)))));
  return Array.from({ length: n }, (_, k) => casteljau(points, (k + 1) / n));
}

function casteljau(points: readonly Vec2[], t: number): Vec2 {
  let level = points;
  while (level.length > 1) level = level.slice(1).map((p, i) => lerp2(level[i], p, t));
  return level[0];
}

/**
 * SVG's elliptical arc without its first point. The standard's implementation notes (SVG 1.1, F.6.5 and F.6.6) give the
 * centre, and say what radii of zero or too small mean.
 */
export function svgArcPoints(
  from: Vec2,
  to: Vec2,
  radii: Vec2,
  tiltDeg: number,
  large: boolean,
  sweep: boolean,
  tolerance: number,
): Vec2[] {
  let [rx, ry] = [Math.abs(radii[0]), Math.abs(radii[1])];
  if (from[0] === to[0] && from[1] === to[1]) return [];
  if (rx === 0 || ry === 0) return [to];
  const tilt = (tiltDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(tilt), Math.sin(tilt)];
  const half = scale2([from[0] - to[0], from[1] - to[1]], 0.5);
  const [x1, y1] = [c * half[0] + s * half[1], -s * half[0] + c * half[1]];
  const over = (x1 / rx) ** 2 + (y1 / ry) ** 2;
  if (over > 1) [rx, ry] = [rx * Math.sqrt(over), ry * Math.sqrt(over)];
  const root =
    Math.sqrt(
      Math.max(
        0,
        (rx * rx * ry * ry - rx * rx * y1 * y1 - ry * ry * x1 * x1) / (rx * rx * y1 * y1 + ry * ry * x1 * x1),
      ),
    ) * (large === sweep ? -1 : 1);
  const [cx, cy] = [(root * rx * y1) / ry, (-root * ry * x1) / rx];
  const centre = add2([c * cx - s * cy, s * cx + c * cy], scale2([from[0] + to[0], from[1] + to[1]], 0.5));
  const start = Math.atan2((y1 - cy) / ry, (x1 - cx) / rx);
  let turn = Math.atan2((-y1 - cy) / ry, (-x1 - cx) / rx) - start;
  if (sweep && turn < 0) turn += 2 * Math.PI;
  if (!sweep && turn > 0) turn -= 2 * Math.PI;
  const points = arcPoints([0, 0], rx, ry, start, turn, tolerance)
    .slice(1)
    .map(([x, y]): Vec2 => add2(centre, [c * x - s * y, s * x + c * y]));
  points[points.length - 1] = to;
  return points;
}

/**
 * A curve given by its parameter, without its first point, halved until chords keep to it at their middles and
 * quarters. Give it smooth stretches only: between the knots of a spline.
 */
export function halvedPoints(at: (t: number) => Vec2, from: number, to: number, tolerance: number, depth = 0): Vec2[] {
  const [a, b] = [at(from), at(to)];
  const close =
    depth >= 2 && [0.25, 0.5, 0.75].every((part) => distToSegment(at(from + (to - from) * part), a, b) <= tolerance);
  if (close || depth >= 11) return [b];
  const middle = (from + to) / 2;
  return [
    ...halvedPoints(at, from, middle, tolerance, depth + 1),
    ...halvedPoints(at, middle, to, tolerance, depth + 1),
  ];
}
