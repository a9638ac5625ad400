/** Whether two flat sheets of paper pass through each other in space, and how far. */
import { cross3, norm3, rotateOnly, sub3, type Rigid, type Vec3 } from '../linkage';
import { commonStretches, reachBeside, stretchesInside, type Stretch } from '../plane/chord';
import type { Polygon } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { PARALLEL_SINE } from '../tolerance';

/** A flat sheet where it lies: its outline in its own plane, the plane in the world, and its corners there. */
export interface Slab {
  readonly polygon: Polygon;
  readonly placed: Rigid;
  readonly points: readonly Vec3[];
}

/** Places along the line of crossing at which the sheets' reach beside it is asked. */
const SAMPLES = 12;
const REFINEMENTS = 12;

/**
 * How far two sheets pass through each other, mm; 0 where they do not, or by no more than `beyond` (what their
 * thickness takes up). Their planes meet in a line; where both have paper on it they cross, and the depth is how far
 * they would have to be drawn apart: the least of what each reaches past the other on both sides, and of the length
 * along which they cross. What ends on the other sheet only touches it.
 */
export function crossingDepth(a: Slab, b: Slab, beyond: number): number {
  const [na, nb] = [normalOf(a.placed), normalOf(b.placed)];
  // The sheet of fewer corners is asked first: a leaf with a hundred openings is not gone through for each of them.
  const [fewer, more] = a.points.length <= b.points.length ? [a, b] : [b, a];
  if (!standsThrough(fewer, more, beyond) || !standsThrough(more, fewer, beyond)) return 0;
  const line = cross3(na, nb);
  const sine = norm3(line);
  if (sine < PARALLEL_SINE) return 0;
  const along: Vec3 = [line[0] / sine, line[1] / sine, line[2] / sine];
  const origin = commonPoint(a.placed, na, b.placed, nb, along);
  const [onA, onB] = [lineIn(a.placed, origin, along), lineIn(b.placed, origin, along)];
  const common = commonStretches(
    stretchesInside(a.polygon, onA.origin, onA.along),
    stretchesInside(b.polygon, onB.origin, onB.along),
  );
  const reach = (t: number): number => sine * Math.min(reachOf(a.polygon, onA, t), reachOf(b.polygon, onB, t));
  let deepest = 0;
  for (const stretch of common) {
    const room = stretch.to - stretch.from;
    if (room > Math.max(beyond, deepest)) deepest = Math.max(deepest, Math.min(room, greatestIn(stretch, reach)));
  }
  return deepest > beyond ? deepest : 0;
}

const normalOf = (m: Rigid): Vec3 => [m[2], m[6], m[10]];

/** Whether a sheet has corners on both sides of another's plane, further from it than `beyond`. */
function standsThrough({ points }: Slab, { placed: plane }: Slab, beyond: number): boolean {
  const normal = normalOf(plane);
  const level = normal[0] * plane[3] + normal[1] * plane[7] + normal[2] * plane[11];
  let [above, below] = [false, false];
  for (const [x, y, z] of points) {
    const height = normal[0] * x + normal[1] * y + normal[2] * z - level;
    if (height > beyond) above = true;
    else if (height < -beyond) below = true;
    if (above && below) return true;
  }
  return false;
}

/** A point on both planes: the foot of the world's origin on their common line. */
function commonPoint(a: Rigid, na: Vec3, b: Rigid, nb: Vec3, along: Vec3): Vec3 {
  const ha = na[0] * a[3] + na[1] * a[7] + na[2] * a[11];
  const hb = nb[0] * b[3] + nb[1] * b[7] + nb[2] * b[11];
  const dot = na[0] * nb[0] + na[1] * nb[1] + na[2] * nb[2];
  const free = cross3(na, nb);
  const size = norm3(free) ** 2;
  const [ca, cb] = [(ha - hb * dot) / size, (hb - ha * dot) / size];
  const foot: Vec3 = [ca * na[0] + cb * nb[0], ca * na[1] + cb * nb[1], ca * na[2] + cb * nb[2]];
  // Near the first sheet, so that ways along the line stay small and exact.
  const there = sub3([a[3], a[7], a[11]], foot);
  const t = there[0] * along[0] + there[1] * along[1] + there[2] * along[2];
  return [foot[0] + along[0] * t, foot[1] + along[1] * t, foot[2] + along[2] * t];
}

interface Line2 {
  readonly origin: Vec2;
  readonly along: Vec2;
}
/** The line as it lies in a sheet's own plane. */
function lineIn(placed: Rigid, origin: Vec3, along: Vec3): Line2 {
  const inverse = (v: Vec3): Vec2 => [
    placed[0] * v[0] + placed[4] * v[1] + placed[8] * v[2],
    placed[1] * v[0] + placed[5] * v[1] + placed[9] * v[2],
  ];
  return { origin: inverse(sub3(origin, [placed[3], placed[7], placed[11]])), along: inverse(along) };
}

function reachOf(polygon: Polygon, { origin, along }: Line2, t: number): number {
  return reachBeside(polygon, [origin[0] + along[0] * t, origin[1] + along[1] * t], [-along[1], along[0]]);
}

/** The greatest value of `f` on a stretch: by sampling, then closing in beside the best (it is concave in pieces). */
function greatestIn({ from, to }: Stretch, f: (t: number) => number): number {
  const step = (to - from) / (SAMPLES + 1);
  let best = { t: from, value: -1 };
  for (let k = 1; k <= SAMPLES; k++) {
    const t = from + k * step;
    const value = f(t);
    if (value > best.value) best = { t, value };
  }
  let [low, high] = [best.t - step, best.t + step];
  for (let k = 0; k < REFINEMENTS; k++) {
    const [p, q] = [low + (high - low) / 3, high - (high - low) / 3];
    const [fp, fq] = [f(p), f(q)];
    best.value = Math.max(best.value, fp, fq);
    if (fp < fq) low = p;
    else high = q;
  }
  return best.value;
}

/** A polygon's corners in the world. */
export const slabOf = (polygon: Polygon, placed: Rigid): Slab => ({
  polygon,
  placed,
  points: polygon.outer.map(([x, y]): Vec3 => {
    const [u, v, w] = rotateOnly(placed, [x, y, 0]);
    return [u + placed[3], v + placed[7], w + placed[11]];
  }),
});
