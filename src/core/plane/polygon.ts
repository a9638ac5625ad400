/**
 * Polygons with holes: the one adapter over the clipping library.
 * Lengths in mm, y up. Outer rings run counter-clockwise (positive area), holes clockwise; no ring repeats its first
 * point.
 */
import {
  booleanOpDWithPolyTree,
  ClipType,
  EndType,
  FillRule,
  ClipperOffset,
  JoinType,
  type PathsD,
  type PolyPath64,
  type PolyPathD,
  PolyTree64,
  PolyTreeD,
  ramerDouglasPeuckerD,
  scalePaths64,
} from 'clipper2-ts';
import { CLIP_PRECISION_DIGITS, WELD_MM } from '../tolerance';
import { fewOrApart, uniteRings } from './many-rings';
import { Recall } from './recall';
import { boxOf, contains, ringArea, ringsOf, type Box2, type Polygon, type Region, type Ring } from './ring';
import { cross2, distToSegment, lerp2, sub2, type Vec2 } from './vec2';

export { boxOf, contains, ringArea, ringsOf } from './ring';
export type { Box2, Polygon, Region, Ring } from './ring';

export type Corners = 'sharp' | 'round';

/** Steps of the clipping library's whole numbers, per mm. */
const GRID = 10 ** CLIP_PRECISION_DIGITS;
/** Sharp corners are cut off where they would reach further than this many offsets. */
const MITRE_LIMIT = 20;
/** Largest distance between a round corner and the polyline drawn for it (mm). */
const ARC_STEP_MM = 0.01;

/** Mean of a ring's corners: well inside where the ring is convex. */
export const centreOf = (ring: Ring): Vec2 => [
  ring.reduce((s, p) => s + p[0], 0) / ring.length,
  ring.reduce((s, p) => s + p[1], 0) / ring.length,
];

/** Net area in mm². */
export const polygonArea = (p: Polygon): number =>
  Math.abs(ringArea(p.outer)) - p.holes.reduce((sum, h) => sum + Math.abs(ringArea(h)), 0);
export const regionArea = (r: Region): number => r.reduce((sum, p) => sum + polygonArea(p), 0);

/** The polygon of the greatest area. */
export const largest = (r: Region): Polygon | undefined => [...r].sort((a, b) => polygonArea(b) - polygonArea(a))[0];

export const rectangle = (x0: number, y0: number, x1: number, y1: number): Ring => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** Whether two boxes share some area. */
export const boxesMeet = (a: Box2, b: Box2): boolean =>
  a.min[0] < b.max[0] && b.min[0] < a.max[0] && a.min[1] < b.max[1] && b.min[1] < a.max[1];

const toPaths = (rings: readonly Ring[]): PathsD => rings.map((r) => r.map(([x, y]) => ({ x, y })));

/** @param scale units of the tree in a mm */
function fromTree(tree: PolyPathD | PolyPath64, out: Polygon[], scale = 1): Polygon[] {
  for (let i = 0; i < tree.count; i++) {
    const outer = tree.child(i);
    const holes: Ring[] = [];
    for (let k = 0; k < outer.count; k++) {
      const hole = outer.child(k);
      holes.push(toRing(hole.poly!, scale));
      fromTree(hole, out, scale);
    }
    out.push({ outer: toRing(outer.poly!, scale), holes });
  }
  return out;
}
const toRing = (path: readonly { x: number; y: number }[], scale = 1): Ring =>
  path.map(({ x, y }): Vec2 => [x / scale, y / scale]);

/** Corners of all outlines and holes. */
export const cornerCount = (region: Region): number => region.flatMap(ringsOf).reduce((n, ring) => n + ring.length, 0);

const combined = new Recall<Region>(cornerCount);
const combine = (op: ClipType, a: Region, b: Region): Region =>
  a.length === 0 && b.length === 0 ? [] : clip(op, a.flatMap(ringsOf), b.flatMap(ringsOf), FillRule.NonZero);
const clip = (op: ClipType, a: readonly Ring[], b: readonly Ring[], rule: FillRule): Region =>
  combined.of([...a, ...b], [op, rule, a.length], () => {
    const tree = new PolyTreeD();
    booleanOpDWithPolyTree(op, toPaths(a), toPaths(b), tree, rule, CLIP_PRECISION_DIGITS);
    return fromTree(tree, []);
  });
export const unite = (a: Region, b: Region = []): Region =>
  regionFromRings(b.length === 0 ? a.flatMap(ringsOf) : [...a, ...b].flatMap(ringsOf), 'nonzero');
export const subtract = (a: Region, b: Region): Region => combine(ClipType.Difference, a, b);
export const intersect = (a: Region, b: Region): Region => combine(ClipType.Intersection, a, b);

/**
 * Area of a region inside an upright rectangle, mm², without the rest of it being looked at twice (Sutherland and
 * Hodgman 1974).
 */
export function areaWithin(region: Region, x0: number, y0: number, x1: number, y1: number): number {
  const sides = [
    [0, x0, 1],
    [0, x1, -1],
    [1, y0, 1],
    [1, y1, -1],
  ] as const;
  return region
    .flatMap(ringsOf)
    .reduce(
      (sum, ring) =>
        sum + ringArea(sides.reduce((kept: Ring, [axis, at, sign]) => keepSide(kept, axis, at, sign), ring)),
      0,
    );
}
/**
 * The part of a ring on one side of an upright or level line; parts that part stay joined along the line, which adds
 * no area.
 */
function keepSide(ring: Ring, axis: 0 | 1, at: number, sign: 1 | -1): Ring {
  const kept: Vec2[] = [];
  ring.forEach((p, i) => {
    const q = ring[(i + 1) % ring.length];
    const [dp, dq] = [(p[axis] - at) * sign, (q[axis] - at) * sign];
    if (dp >= 0) kept.push(p);
    if (dp >= 0 !== dq >= 0) kept.push(lerp2(p, q, dp / (dp - dq)));
  });
  return kept;
}

/** What lies in one of the two only. */
export const exclude = (a: Region, b: Region): Region => combine(ClipType.Xor, a, b);

/**
 * Rings as they come (either direction, overlapping, crossing themselves) to clean polygons; inside counts by the
 * fill rule.
 */
export function regionFromRings(rings: readonly Ring[], rule: 'evenodd' | 'nonzero' = 'evenodd'): Region {
  const filled = rule === 'evenodd' ? FillRule.EvenOdd : FillRule.NonZero;
  const united = (some: readonly Ring[]): Region => (some.length === 0 ? [] : clip(ClipType.Union, some, [], filled));
  return uniteRings(rings, rule, GRID, united);
}

/** Every point moved. A map that mirrors turns the rings round, so that outer rings stay counter-clockwise. */
export function mapRegion(region: Region, move: (p: Vec2) => Vec2, mirrors = false): Region {
  const ring = (r: Ring): Ring => (mirrors ? r.map(move).reverse() : r.map(move));
  return region.map((p) => ({ outer: ring(p.outer), holes: p.holes.map(ring) }));
}
export const regionBox = (region: Region): Box2 => boxOf(region.flatMap((p) => p.outer));

/** Fewer points: none that is dropped lies further than the tolerance (mm) from the line that replaces it. */
export const thinOut = (region: Region, toleranceMm: number): Region =>
  unite(
    region
      .flatMap((p) => ringsOf(p).map((r): Polygon => ({ outer: thinRing(r, toleranceMm), holes: [] })))
      .filter((p) => p.outer.length > 2),
  );

/** The library thins open lines: a ring is parted at its first point and the one furthest from it. */
function thinRing(ring: Ring, toleranceMm: number): Ring {
  const far = ring.reduce(
    (best, p, i) =>
      Math.hypot(p[0] - ring[0][0], p[1] - ring[0][1]) >
      Math.hypot(ring[best][0] - ring[0][0], ring[best][1] - ring[0][1])
        ? i
        : best,
    0,
  );
  const thin = (line: Ring): Ring =>
    toRing(
      ramerDouglasPeuckerD(
        line.map(([x, y]) => ({ x, y })),
        toleranceMm,
      ),
    ).slice(0, -1);
  return [...thin(ring.slice(0, far + 1)), ...thin([...ring.slice(far), ring[0]])];
}

/** A line with fewer points, none further than the tolerance (mm) from it; what comes back to its start still does. */
export function thinLine(line: Ring, toleranceMm: number): Ring {
  if (line.length < 3) return line;
  const [first, last] = [line[0], line[line.length - 1]];
  // The library measures from the line through both ends, which are one here.
  if (first[0] === last[0] && first[1] === last[1])
    return line.length === 3 ? line : [...thinRing(line.slice(0, -1), toleranceMm), first];
  return toRing(
    ramerDouglasPeuckerD(
      line.map(([x, y]) => ({ x, y })),
      toleranceMm,
    ),
  );
}

/** Grow (`by` > 0) or shrink (`by` < 0) by a distance in mm. */
export function offset(region: Region, by: number, corners: Corners = 'sharp', arcStepMm = ARC_STEP_MM): Region {
  if (region.length === 0 || by === 0) return region;
  const join = corners === 'sharp' ? JoinType.Miter : JoinType.Round;
  return inflate(region.flatMap(ringsOf), by, join, EndType.Polygon, arcStepMm);
}

/**
 * Grown so that all within `by` mm is held: straight edges move by exactly that, corners run on to a point where it
 * stays near, and are cut off straight further out where it would not.
 */
export const grownAround = (region: Region, by: number): Region =>
  region.length === 0 || by <= 0
    ? region
    : inflate(region.flatMap(ringsOf), by, JoinType.Miter, EndType.Polygon, ARC_STEP_MM, NEAR_MITRE);
/** Corners sharper than 60 degrees are cut off. */
const NEAR_MITRE = 2;

/** Everything within `by` mm of the given open lines: round at the ends, union of all. */
export function thicken(lines: readonly Ring[], by: number, arcStepMm = ARC_STEP_MM): Region {
  const drawn = lines.filter((l) => l.length > 1);
  if (drawn.length === 0 || by <= 0) return [];
  // What grows by a hair more than is asked, by rounding, may not meet what is done by itself.
  const apart = fewOrApart(drawn, by + WELD_MM);
  return apart.flatMap((lines) => inflate(lines, by, JoinType.Round, EndType.Round, arcStepMm));
}

const inflated = new Recall<Region>(cornerCount);
/** The library's offset with its tree of outlines and holes; its short form gives rings to be sorted once more. */
const inflate = (
  rings: readonly Ring[],
  by: number,
  join: JoinType,
  end: EndType,
  arcStepMm: number,
  mitre = MITRE_LIMIT,
): Region =>
  inflated.of(rings, [by, join, end, arcStepMm, mitre], () => {
    const tree = new PolyTree64();
    const clip = new ClipperOffset(mitre, arcStepMm * GRID);
    clip.addPaths(scalePaths64(toPaths(rings), GRID), join, end);
    clip.execute(by * GRID, tree);
    return fromTree(tree, [], GRID);
  });

/** Distance from `p` to the nearest edge of the polygon, mm. Of one below `asked` only that it is so is certain. */
export function distanceToEdge(polygon: Polygon, p: Vec2, asked = 0): number {
  let least = Infinity;
  for (const ring of ringsOf(polygon)) {
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      least = Math.min(least, distToSegment(p, ring[j], ring[i]));
      if (least < asked) return least;
    }
  }
  return least;
}

/** A point well inside a polygon: the best of the middles of its corner triangles. */
export const insidePoint = (polygon: Polygon): Vec2 => insides.of(ringsOf(polygon), [], () => lookInside(polygon));
const insides = new Recall<Vec2>(() => 1);

function lookInside(polygon: Polygon): Vec2 {
  const ring = polygon.outer;
  let best = ring[0];
  let room = -1;
  const most = Math.max(1, Math.floor(ring.length / 24));
  for (let i = 0; i < ring.length; i += most) {
    const [a, b, c] = [ring[i], ring[(i + 1) % ring.length], ring[(i + 2) % ring.length]];
    if (Math.abs(cross2(sub2(b, a), sub2(c, b))) < WELD_MM * WELD_MM) continue;
    for (const [u, v, w] of [
      [1, 1, 1],
      [0.1, 0.8, 0.1],
      [0.02, 0.96, 0.02],
    ]) {
      const s = u + v + w;
      const p: Vec2 = [(a[0] * u + b[0] * v + c[0] * w) / s, (a[1] * u + b[1] * v + c[1] * w) / s];
      if (!contains(polygon, p)) continue;
      const d = distanceToEdge(polygon, p, room);
      if (d > room) [best, room] = [p, d];
    }
  }
  return best;
}
