/** SVG path data to polylines and back. */
import { SVGPathData, SVGPathDataTransformer } from 'svg-pathdata';
import { ringsOf, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { trimNumber } from '../units/length';
import { bezierPoints, CURVE_TOLERANCE_MM, svgArcPoints } from './curve';
import { ShapeError } from './shape';
import { ROUNDING_MM } from '../tolerance';

export interface Polyline {
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}

/** Largest path data that is read, in characters. */
export const LONGEST_PATH = 2_000_000;
/** Most points of path data: those of the largest template. */
const MOST_POINTS = 200_000;
/** Coordinates past this are not of a card (mm, or user units). */
const FARTHEST = 1e6;

/**
 * Subpaths in the data's own units and axes. `tolerance` in the same units. Throws ShapeError where the data is not
 * path data, or draws more points than `most`: they are counted while curves are drawn, not after.
 */
export function polylinesOf(d: string, tolerance = CURVE_TOLERANCE_MM, most = MOST_POINTS): Polyline[] {
  const tooMany = (): ShapeError => new ShapeError(`the path has more than ${most} points; simplify it`);
  if (d.length > LONGEST_PATH)
    throw new ShapeError(`the path has ${d.length} characters; at most ${LONGEST_PATH} are read`);
  if ((d.match(/[\d.]+/g)?.length ?? 0) > 2 * MOST_POINTS) throw tooMany();
  let commands;
  try {
    commands = new SVGPathData(d)
      .toAbs()
      .transform(SVGPathDataTransformer.NORMALIZE_HVZ(false))
      .transform(SVGPathDataTransformer.NORMALIZE_ST()).commands;
  } catch (error) {
    throw new ShapeError(`not SVG path data (${(error as Error).message.slice(0, 120)}); it starts with M and a point`);
  }
  const out: Polyline[] = [];
  let points: Vec2[] = [];
  let start: Vec2 = [0, 0];
  const finish = (closed: boolean): void => {
    if (points.length > 1) out.push({ points: closed ? withoutRepeat(points) : points, closed });
    points = [];
  };
  let drawn = 0;
  for (const c of commands) {
    const before = points.length;
    const last = points[points.length - 1] ?? start;
    if (c.type === SVGPathData.CLOSE_PATH) {
      finish(true);
      continue;
    }
    // NORMALIZE_HVZ has turned these into lines; the types do not know.
    if (c.type === SVGPathData.HORIZ_LINE_TO || c.type === SVGPathData.VERT_LINE_TO) continue;
    if (![c.x, c.y].every((v) => Number.isFinite(v) && Math.abs(v) < FARTHEST))
      throw new ShapeError('the path has a coordinate that is not a number a card can have');
    const to: Vec2 = [c.x, c.y];
    if (c.type === SVGPathData.MOVE_TO) {
      finish(false);
      start = to;
      points = [to];
      continue;
    }
    // After Z the next subpath starts where the last one did.
    if (points.length === 0) points = [start];
    if (c.type === SVGPathData.LINE_TO) points.push(to);
    else if (c.type === SVGPathData.CURVE_TO)
      points.push(...bezierPoints([last, [c.x1, c.y1], [c.x2, c.y2], to], tolerance));
    else if (c.type === SVGPathData.QUAD_TO) points.push(...bezierPoints([last, [c.x1, c.y1], to], tolerance));
    else if (c.type === SVGPathData.ARC)
      points.push(
        ...svgArcPoints(last, to, [c.rX, c.rY], c.xRot, Boolean(c.lArcFlag), Boolean(c.sweepFlag), tolerance),
      );
    drawn += points.length - before;
    if (drawn > most) throw tooMany();
  }
  finish(false);
  return out;
}

const withoutRepeat = (points: readonly Vec2[]): readonly Vec2[] => {
  const [a, b] = [points[0], points[points.length - 1]];
  return points.length > 1 && Math.hypot(a[0] - b[0], a[1] - b[1]) < ROUNDING_MM ? points.slice(0, -1) : points;
};

/** A region (mm, y up) as path data (y down), to a millionth of a millimetre. */
export const pathDataOf = (region: Region): string =>
  region
    .flatMap(ringsOf)
    .map((ring) => `M${ring.map(([x, y]) => `${trimNumber(x, 6)} ${trimNumber(-y, 6)}`).join('L')}Z`)
    .join('');
