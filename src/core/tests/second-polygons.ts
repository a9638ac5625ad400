/** Areas by a second polygon library (polygon-clipping), and distances by brute force: for checks of the first. */
import * as clipping from 'polygon-clipping';
import { distToSegment, type Vec2 } from '../plane/vec2';
import type { Polygon, Region } from '../plane/polygon';

type Lib = typeof clipping;
/** Its CommonJS build puts everything on `default`. */
const lib = ((clipping as unknown as { default?: Lib }).default ?? clipping) as Lib;
const multi = (region: Region) =>
  region.map((p) => [p.outer, ...p.holes].map((ring) => ring.map(([x, y]): [number, number] => [x, y])));
const shoelace = (ring: readonly (readonly [number, number])[]): number =>
  Math.abs(
    ring.reduce((s, [x, y], i) => s + x * ring[(i + 1) % ring.length][1] - ring[(i + 1) % ring.length][0] * y, 0),
  ) / 2;
const areaOf = (polygons: ReturnType<Lib['union']>): number =>
  polygons.reduce(
    (sum, [outer, ...holes]) => sum + shoelace(outer) - holes.reduce((h, ring) => h + shoelace(ring), 0),
    0,
  );

/** Area that two regions have in common, mm². */
export const commonArea = (a: Region, b: Region): number => areaOf(lib.intersection(multi(a), multi(b)));
/** Area of all of them together, what they have in common once, mm². */
export const jointArea = (regions: readonly Region[]): number => {
  const [first, ...rest] = regions.map(multi);
  return areaOf(lib.union(first, ...rest));
};

const ringsOf = (region: Region): readonly (readonly Vec2[])[] => region.flatMap((p: Polygon) => [p.outer, ...p.holes]);
/** Least distance between the outlines of two regions, every corner against every edge, mm. */
export function leastGap(a: Region, b: Region): number {
  const one = (from: Region, to: Region): number =>
    ringsOf(from)
      .flat()
      .reduce(
        (least, p) =>
          ringsOf(to).reduce(
            (m, ring) => ring.reduce((n, q, i) => Math.min(n, distToSegment(p, q, ring[(i + 1) % ring.length])), m),
            least,
          ),
        Infinity,
      );
  return Math.min(one(a, b), one(b, a));
}
