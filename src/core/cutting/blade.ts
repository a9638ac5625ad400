/**
 * The way of a tool for a line: begun early and gone on past its end where it closes, cut in one direction, and, for a
 * blade whose tip trails its axis, the way of the axis. mm, y up.
 */
import { ringArea } from '../plane/polygon';
import { dist2, lerp2, sub2, type Vec2 } from '../plane/vec2';
import { SAME_POINT_MM } from '../tolerance';
import type { ToolPath } from './passes';
import type { Blade, MachineProfile } from '../paper/machine';

/** A swivel is drawn in steps of this many degrees: the tip then stays within a hundredth of a millimetre. */
const SWIVEL_STEP_DEG = 4;
/** Turns of a line below this are curves, which the tip follows by itself (deg). */
const SWIVEL_FROM_DEG = 8;
/** Where a blade looks before its first line: along x. */
export const FIRST_HEADING: Vec2 = [1, 0];

const CUTS = new Set<ToolPath['pass']>(['perforate', 'inner', 'outline']);
export const isCut = ({ pass }: Pick<ToolPath, 'pass'>): boolean => CUTS.has(pass);
const isClosed = (points: readonly Vec2[]): boolean =>
  points.length > 3 && dist2(points[0], points[points.length - 1]) < SAME_POINT_MM;

/** Every way in the order of the paths; `makeUp`: the axis is led so that the tip follows the line. */
export function bladePaths(paths: readonly ToolPath[], { blade }: MachineProfile, makeUp: boolean): ToolPath[] {
  let heading = FIRST_HEADING;
  return paths.map((path) => {
    if (!isCut(path)) return path;
    const points = beyondEnds(inDirection(path.points, blade), blade);
    if (!makeUp || blade.offsetMm === 0) return { ...path, points };
    const led = ledAxis(points, blade.offsetMm, heading);
    heading = led.heading;
    return { ...path, points: led.points };
  });
}

/** Left: counter-clockwise. */
function inDirection(points: readonly Vec2[], { direction }: Blade): readonly Vec2[] {
  if (direction === 'either' || !isClosed(points)) return points;
  const left = ringArea(points.slice(0, -1)) > 0;
  return left === (direction === 'left') ? points : [...points].reverse();
}

/** A closed line, begun before its start and gone on past its end along itself. */
function beyondEnds(points: readonly Vec2[], { leadInMm, overcutMm }: Blade): readonly Vec2[] {
  if (!isClosed(points)) return points;
  const back = along([...points].reverse(), leadInMm);
  const on = along(points, overcutMm);
  return [...back.reverse().slice(0, -1), ...points, ...on.slice(1)];
}

/** The first part of a line, of a length; not all of it. */
function along(points: readonly Vec2[], mm: number): Vec2[] {
  const out: Vec2[] = [points[0]];
  for (let k = 1, left = mm; k < points.length && left > 0; k++) {
    const step = dist2(points[k - 1], points[k]);
    if (step > 0) out.push(step <= left ? points[k] : lerp2(points[k - 1], points[k], left / step));
    left -= step;
  }
  return out;
}

/** Where the axis goes while the tip follows a line: ahead of it by the offset, swivelling about each corner. */
function ledAxis(points: readonly Vec2[], offsetMm: number, before: Vec2): { points: Vec2[]; heading: Vec2 } {
  const out: Vec2[] = [ahead(points[0], before, offsetMm)];
  let heading = before;
  for (let k = 1; k < points.length; k++) {
    const [from, to] = [points[k - 1], points[k]];
    const mm = dist2(from, to);
    if (mm < SAME_POINT_MM) continue;
    const next: Vec2 = [(to[0] - from[0]) / mm, (to[1] - from[1]) / mm];
    out.push(...swivel(from, heading, next, offsetMm), ahead(to, next, offsetMm));
    heading = next;
  }
  return { points: out, heading };
}
const ahead = (p: Vec2, [x, y]: Vec2, mm: number): Vec2 => [p[0] + x * mm, p[1] + y * mm];

function swivel(at: Vec2, from: Vec2, to: Vec2, offsetMm: number): Vec2[] {
  const turn = Math.atan2(from[0] * to[1] - from[1] * to[0], from[0] * to[0] + from[1] * to[1]);
  const deg = (Math.abs(turn) * 180) / Math.PI;
  const steps = deg < SWIVEL_FROM_DEG ? 1 : Math.ceil(deg / SWIVEL_STEP_DEG);
  const start = Math.atan2(from[1], from[0]);
  return Array.from({ length: steps }, (_, k): Vec2 => {
    const a = start + (turn * (k + 1)) / steps;
    return [at[0] + offsetMm * Math.cos(a), at[1] + offsetMm * Math.sin(a)];
  });
}

/** A curve of a cut that is tighter than the blade can turn. */
export interface TightCurve {
  readonly at: Vec2;
  readonly radiusMm: number;
}
/** Curves are told from corners by how far they turn from chord to chord (deg). */
const CORNER_DEG = 40;

/** What a radius is off by when it is taken from chords that were written and read back, mm. */
const ROUNDED_MM = 0.005;

/** Where cuts curve more tightly than they may; each curve once, at its tightest. */
export function tightCurves(paths: readonly ToolPath[], leastRadiusMm: number): TightCurve[] {
  return paths.filter(isCut).flatMap(({ points }) => {
    const out: TightCurve[] = [];
    let [run, chords]: [TightCurve | null, number] = [null, 0];
    // Two chords alone are a corner that was cut off, not a curve.
    const end = (): void => {
      if (run && chords >= 3) out.push(run);
      [run, chords] = [null, 0];
    };
    for (let k = 1; k + 1 < points.length; k++) {
      const radiusMm = radiusAt(points[k - 1], points[k], points[k + 1]);
      if (radiusMm >= leastRadiusMm - ROUNDED_MM) end();
      else {
        chords++;
        if (!run || radiusMm < run.radiusMm) run = { at: points[k], radiusMm };
      }
    }
    end();
    return out;
  });
}

/** Radius of the circle through three points; Infinity at corners and on straight lines. */
function radiusAt(a: Vec2, b: Vec2, c: Vec2): number {
  const [u, v] = [sub2(b, a), sub2(c, b)];
  const turn = Math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]);
  if (turn === 0 || (Math.abs(turn) * 180) / Math.PI > CORNER_DEG) return Infinity;
  return dist2(a, c) / (2 * Math.abs(Math.sin(turn)));
}
