/** The way a token runs: as points for what is cut along it, and as runs of a track for what moves on it. */
import { thicken, boxOf, type Region } from '../../plane/polygon';
import { add2, dist2, sub2, type Vec2 } from '../../plane/vec2';
import type { Track, TrackRun } from '../../linkage';
import { arcPoints } from '../../shapes/curve';
import { polylinesOf } from '../../shapes/path-data';
import { ShapeError } from '../../shapes/shape';
import { degToRad } from '../../units/angle';
import type { FaceContext, Path } from '../kind';

export interface Way {
  /** From its start to its end; of a ring the first point is not repeated. Its box is about the origin. */
  readonly points: readonly Vec2[];
  readonly ring: boolean;
  readonly lengthMm: number;
  readonly track: Track;
}

/** Steps of a drawn curve shorter than this say nothing of where it heads (mm). */
const LEAST_STEP_MM = 1e-6;

export function lengthOfPath(path: Path): number | null {
  return 'ring' in path ? null : wayOf(path, () => []).lengthMm;
}
export function wayOf(path: Path, outline: FaceContext['outline']): Way {
  if ('line' in path) {
    const half = path.line / 2;
    return way(
      [
        [-half, 0],
        [half, 0],
      ],
      false,
      [{ lengthMm: path.line, curvature: 0 }],
    );
  }
  if ('arc' in path) return arcWay(path.arc, degToRad(path.from), degToRad(path.to));
  const ring = 'ring' in path;
  const drawn = ring ? outline(path.ring)[0].outer : curvePoints(path.curve);
  const points = drawn.filter((p, i) => i === 0 || dist2(p, drawn[i - 1]) > LEAST_STEP_MM);
  if (ring && dist2(points[0], points[points.length - 1]) <= LEAST_STEP_MM) points.pop();
  return way(points, ring, polylineRuns(points, ring));
}

/** An arc turns about one centre: one run, exact. */
function arcWay(radius: number, from: number, to: number): Way {
  if (from === to) throw new ShapeError('the arc of the path begins where it ends; from and to must differ');
  const points = arcPoints([0, 0], radius, radius, from, to - from);
  const lengthMm = radius * Math.abs(to - from);
  return way(
    points,
    false,
    [{ lengthMm, curvature: Math.sign(to - from) / radius }],
    from + (Math.sign(to - from) * Math.PI) / 2,
  );
}

function curvePoints(data: string): Vec2[] {
  const [first] = polylinesOf(data);
  if (!first || first.points.length < 2) throw new ShapeError('the curve of the path has no length; draw it further');
  return first.points.map(([x, y]): Vec2 => [x, -y]);
}

const headingOf = (a: Vec2, b: Vec2): number => Math.atan2(b[1] - a[1], b[0] - a[0]);
/** The turn from one direction to another, within half a turn, rad. */
const turnBetween = (from: number, to: number): number =>
  to - from - 2 * Math.PI * Math.round((to - from) / (2 * Math.PI));

/** Straight runs from point to point, a corner before each. */
function polylineRuns(points: readonly Vec2[], ring: boolean): TrackRun[] {
  const ends = ring ? [...points, points[0]] : points;
  let heading = headingOf(ends[0], ends[1]);
  return ends.slice(1).map((p, i) => {
    const next = headingOf(ends[i], p);
    const corner = turnBetween(heading, next);
    heading = next;
    return { lengthMm: dist2(ends[i], p), curvature: 0, ...(corner === 0 ? {} : { corner }) };
  });
}

function way(drawn: readonly Vec2[], ring: boolean, runs: readonly TrackRun[], heading?: number): Way {
  const { min, max } = boxOf(drawn);
  const points = drawn.map((p) => sub2(p, [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2]));
  const first = heading ?? headingOf(points[0], points[1]);
  const track: Track = {
    kind: 'track',
    start: [...points[0], 0],
    heading: [Math.cos(first), Math.sin(first), 0],
    normal: [0, 0, 1],
    runs,
    ...(ring ? { ring: true as const } : {}),
  };
  return { points, ring, lengthMm: runs.reduce((sum, r) => sum + r.lengthMm, 0), track };
}

/** Everything within `by` of the way, its ends round. */
export const alongWay = ({ points, ring }: Way, by: number): Region =>
  thicken([ring ? [...points, points[0]] : points], by);

/** The part of a way between two places of it, mm from its start. */
export function partOfWay({ points, ring, lengthMm }: Way, from: number, to: number): Way['points'] {
  if (ring || (from <= 0 && to >= lengthMm)) return ring ? [...points, points[0]] : points;
  const out: Vec2[] = [];
  let at = 0;
  points.slice(1).forEach((b, i) => {
    const a = points[i];
    const length = dist2(a, b);
    const place = (s: number): Vec2 =>
      add2(a, [((b[0] - a[0]) * (s - at)) / length, ((b[1] - a[1]) * (s - at)) / length]);
    const [s0, s1] = [Math.max(from, at), Math.min(to, at + length)];
    if (s1 >= s0) {
      if (out.length === 0) out.push(place(s0));
      out.push(place(s1));
    }
    at += length;
  });
  return out;
}
