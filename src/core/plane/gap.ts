/** Distance between outlines. */
import Flatbush from 'flatbush';
import { ringsOf, type Region } from './polygon';
import { distToSegment, sideOf, type Vec2 } from './vec2';

/** Edges looked at first round a corner; more where they are all nearer than the best. */
const FIRST_EDGES = 8;

export type Edge = readonly [Vec2, Vec2];
export const edgesOf = (region: Region): Edge[] =>
  region.flatMap(ringsOf).flatMap((ring) => ring.map((p, i): Edge => [p, ring[(i + 1) % ring.length]]));

/** Least distance between the outlines of two regions that do not overlap, mm; Infinity where one is empty. */
export const outlineGap = (a: Region, b: Region): number => nearestEnds(edgesOf(a), edgesOf(b));

/** Least distance between two sets of edges, mm; 0 where they cross, Infinity where one is empty. */
export const edgesGap = (a: readonly Edge[], b: readonly Edge[]): number => (cross(a, b) ? 0 : nearestEnds(a, b));

/** Edges that do not cross are nearest to each other at an end of one of them. */
function nearestEnds(a: readonly Edge[], b: readonly Edge[]): number {
  if (a.length === 0 || b.length === 0) return Infinity;
  return fromEnds(b, a, fromEnds(a, b, Infinity));
}

function indexOf(edges: readonly Edge[]): Flatbush {
  const index = new Flatbush(edges.length);
  for (const [p, q] of edges)
    index.add(Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1]));
  index.finish();
  return index;
}

function fromEnds(ends: readonly Edge[], edges: readonly Edge[], bound: number): number {
  const index = indexOf(edges);
  let least = bound;
  for (const [x, y] of new Set(ends.flat())) {
    for (let count = FIRST_EDGES; ; count *= 2) {
      const near = index.neighbors(x, y, count, least);
      for (const k of near) least = Math.min(least, distToSegment([x, y], ...edges[k]));
      if (near.length < count) break;
    }
  }
  return least;
}

function cross(a: readonly Edge[], b: readonly Edge[]): boolean {
  if (a.length === 0 || b.length === 0) return false;
  const index = indexOf(b);
  return a.some(([p, q]) =>
    index.search(Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1])).some((k) => {
      const [r, s] = b[k];
      return sideOf(p, q, r) * sideOf(p, q, s) < 0 && sideOf(r, s, p) * sideOf(r, s, q) < 0;
    }),
  );
}
