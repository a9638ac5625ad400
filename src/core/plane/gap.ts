/** Distance between outlines. */
import Flatbush from 'flatbush';
import { ringsOf, type Region } from './polygon';
import { distToSegment, type Vec2 } from './vec2';

/** Edges looked at first round a corner; more where they are all nearer than the best. */
const FIRST_EDGES = 8;

/** Least distance between the outlines of two regions that do not overlap, mm; Infinity where one is empty. */
export function outlineGap(a: Region, b: Region): number {
  if (a.length === 0 || b.length === 0) return Infinity;
  // Outlines that do not cross are nearest to each other at a corner of one of them.
  return fromCorners(b, a, fromCorners(a, b, Infinity));
}

type Edge = readonly [Vec2, Vec2];
const edgesOf = (region: Region): Edge[] =>
  region.flatMap(ringsOf).flatMap((ring) => ring.map((p, i): Edge => [p, ring[(i + 1) % ring.length]]));

function fromCorners(corners: Region, outline: Region, bound: number): number {
  const edges = edgesOf(outline);
  const index = new Flatbush(edges.length);
  for (const [p, q] of edges)
    index.add(Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1]));
  index.finish();
  let least = bound;
  for (const [corner] of edgesOf(corners)) {
    for (let count = FIRST_EDGES; ; count *= 2) {
      const near = index.neighbors(corner[0], corner[1], count, least);
      for (const k of near) least = Math.min(least, distToSegment(corner, ...edges[k]));
      if (near.length < count) break;
    }
  }
  return least;
}
