/** Edges of a region by place: asked many times whether something lies on them. */
import Flatbush from 'flatbush';
import { ringsOf, type Region } from './polygon';
import { distToSegment, type Vec2 } from './vec2';

export interface EdgeIndex {
  /** Whether a place lies within `mm` of an edge. */
  near(p: Vec2, mm: number): boolean;
}

export function indexEdges(region: Region): EdgeIndex {
  const edges = region
    .flatMap(ringsOf)
    .flatMap((ring) => ring.map((a, i): readonly [Vec2, Vec2] => [a, ring[(i + 1) % ring.length]]));
  if (edges.length === 0) return { near: () => false };
  const index = new Flatbush(edges.length);
  for (const [a, b] of edges)
    index.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
  index.finish();
  return {
    near: ([x, y], mm) =>
      index.search(x - mm, y - mm, x + mm, y + mm).some((k) => distToSegment([x, y], edges[k][0], edges[k][1]) <= mm),
  };
}
