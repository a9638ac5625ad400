/** Curves again where a line is made of the chords of one: cutters then move smoothly, and files stay small. */
import { ARC_FIT_MM, ARC_SAGITTA_MM, PARALLEL_PART } from '../tolerance';
import { cubicOver } from './cubic';
import { cross2, dist2, lerp2, sub2, type Vec2 } from './vec2';

export interface Arc {
  readonly kind: 'arc';
  readonly to: Vec2;
  readonly centre: Vec2;
  readonly radiusMm: number;
  /** Angle swept, rad; counter-clockwise positive, never a full turn. */
  readonly sweepRad: number;
}
export interface Cubic {
  readonly kind: 'cubic';
  /** The two control points between its ends. */
  readonly c1: Vec2;
  readonly c2: Vec2;
  readonly to: Vec2;
}
export type Stroke = { readonly kind: 'line'; readonly to: Vec2 } | Arc | Cubic;

/** Chords an arc must replace to be worth it, and a cubic, which has more to choose from. */
const LEAST_ARC_CHORDS = 4;
const LEAST_CUBIC_CHORDS = 6;
/** A cubic must replace this many times the chords an arc would: arcs are what cutters know best. */
const CUBIC_GAIN = 1.5;
/** An arc goes at most this far round, so that every format can say which way. */
const MOST_SWEEP = (Math.PI * 3) / 2;
/** Flatter than this an arc is a line (mm of radius). */
const MOST_RADIUS_MM = 1e4;

/**
 * A line as strokes from its first point; a closed one comes back to it. An arc or a cubic passes within ARC_FIT_MM of
 * every point it replaces and leaves no chord by more than curves are drawn with, so that a polygon with corners stays
 * one. `joins`: points that other lines meet, which stay ends of strokes.
 */
export function strokesOf(points: readonly Vec2[], closed: boolean, joins: Joins = NO_JOINS): Stroke[] {
  const run = closed ? [...points, points[0]] : points;
  const out: Stroke[] = [];
  for (let i = 0, last = 0; i + 1 < run.length;) {
    if (i >= last) for (last = i + 1; last + 1 < run.length && !joins.has(joinKey(run[last]));) last++;
    const arc = longest(run, i, last, LEAST_ARC_CHORDS, arcOver);
    const cubic = longest(run, i, last, LEAST_CUBIC_CHORDS, cubicStroke);
    const best = cubic && cubic.end - i > CUBIC_GAIN * (arc ? arc.end - i : 1) ? cubic : arc;
    out.push(best?.stroke ?? { kind: 'line', to: run[i + 1] });
    i = best?.end ?? i + 1;
  }
  return out;
}

/** Points where lines end on others, by `joinKey`. */
export type Joins = ReadonlySet<string>;
const NO_JOINS: Joins = new Set();
export const joinKey = ([x, y]: Vec2): string => `${x.toFixed(5)} ${y.toFixed(5)}`;

type Fit = (run: readonly Vec2[], i: number, end: number) => Stroke | null;

/** The stroke from point `i` to `last` at most that replaces most chords: the reach is doubled, then closed in on. */
function longest(
  run: readonly Vec2[],
  i: number,
  last: number,
  least: number,
  fit: Fit,
): { stroke: Stroke; end: number } | null {
  if (i + least > last) return null;
  let good = fit(run, i, i + least);
  if (!good) return null;
  let [end, step] = [i + least, least];
  for (; step >= 1;) {
    const trial = end + step <= last ? fit(run, i, end + step) : null;
    if (trial) [good, end, step] = [trial, end + step, step * 2];
    else step = Math.floor(step / 2);
  }
  return { stroke: good, end };
}

const cubicStroke: Fit = (run, i, end) => {
  const inner = cubicOver(run.slice(i, end + 1), ARC_FIT_MM, ARC_SAGITTA_MM);
  return inner && { kind: 'cubic', c1: inner[0], c2: inner[1], to: run[end] };
};

function arcOver(run: readonly Vec2[], i: number, end: number): Stroke | null {
  const [a, m, b] = [run[i], run[(i + end) >> 1], run[end]];
  const centre = circumcentre(a, m, b);
  if (!centre) return null;
  const radiusMm = dist2(centre, a);
  if (radiusMm > MOST_RADIUS_MM) return null;
  let sweepRad = 0;
  for (let k = i; k < end; k++) {
    if (Math.abs(dist2(centre, run[k + 1]) - radiusMm) > ARC_FIT_MM) return null;
    const [u, v] = [sub2(run[k], centre), sub2(run[k + 1], centre)];
    const turn = Math.atan2(cross2(u, v), u[0] * v[0] + u[1] * v[1]);
    if (turn * sweepRad < 0 || radiusMm * (1 - Math.cos(turn / 2)) > ARC_SAGITTA_MM) return null;
    sweepRad += turn;
  }
  return Math.abs(sweepRad) <= MOST_SWEEP ? { kind: 'arc', to: b, centre, radiusMm, sweepRad } : null;
}

function circumcentre(a: Vec2, b: Vec2, c: Vec2): Vec2 | null {
  const [u, v] = [sub2(b, a), sub2(c, a)];
  const turn = 2 * cross2(u, v);
  const [uu, vv] = [u[0] * u[0] + u[1] * u[1], v[0] * v[0] + v[1] * v[1]];
  if (Math.abs(turn) < PARALLEL_PART * Math.max(uu, vv)) return null;
  return [a[0] + (v[1] * uu - u[1] * vv) / turn, a[1] + (u[0] * vv - v[0] * uu) / turn];
}

/** A cubic over a quarter turn leaves its circle by this part of the radius; it falls with the turn's sixth power. */
const QUARTER_ERROR = 2.73e-4;

/** A stroke as cubic Bézier curves, each its two control points and its end, within ARC_FIT_MM of it. */
export function bezierOf(from: Vec2, stroke: Stroke): [Vec2, Vec2, Vec2][] {
  if (stroke.kind === 'cubic') return [[stroke.c1, stroke.c2, stroke.to]];
  if (stroke.kind === 'line') return [[lerp2(from, stroke.to, 1 / 3), lerp2(from, stroke.to, 2 / 3), stroke.to]];
  const { centre: c, radiusMm: r, sweepRad } = stroke;
  const most = (Math.PI / 2) * Math.min(1, (ARC_FIT_MM / (QUARTER_ERROR * r)) ** (1 / 6));
  const parts = Math.max(1, Math.ceil(Math.abs(sweepRad) / most));
  const part = sweepRad / parts;
  const reach = (4 / 3) * Math.tan(part / 4);
  const start = Math.atan2(from[1] - c[1], from[0] - c[0]);
  return Array.from({ length: parts }, (_, k): [Vec2, Vec2, Vec2] => {
    const [t0, t1] = [start + k * part, start + (k + 1) * part];
    const at = (t: number, along: number): Vec2 => [
      c[0] + r * (Math.cos(t) - along * Math.sin(t)),
      c[1] + r * (Math.sin(t) + along * Math.cos(t)),
    ];
    return [at(t0, reach), at(t1, -reach), k === parts - 1 ? stroke.to : at(t1, 0)];
  });
}
