/** A polygon readied for many questions: its edges by place. */
import Flatbush from 'flatbush';
import { ringsOf, type Polygon } from './polygon';
import { distToSegment, type Vec2 } from './vec2';

export interface PreparedPolygon {
  readonly polygon: Polygon;
  /** Even-odd, as `contains`. */
  contains(p: Vec2): boolean;
  /** Distance to the nearest edge, mm. */
  distanceToEdge(p: Vec2): number;
}

/** First reach of the search for the nearest edge (mm); doubled until it holds one. */
const FIRST_REACH_MM = 1;

export function preparePolygon(polygon: Polygon): PreparedPolygon {
  const edges = ringsOf(polygon).flatMap((ring) =>
    ring.map((a, i): readonly [Vec2, Vec2] => [a, ring[(i + 1) % ring.length]]),
  );
  const index = new Flatbush(edges.length);
  for (const [a, b] of edges)
    index.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
  index.finish();
  return {
    polygon,
    contains: ([x, y]) => {
      let inside = false;
      for (const k of index.search(x, y, Infinity, y)) {
        const [a, b] = edges[k];
        if (a[1] > y !== b[1] > y && x < ((a[0] - b[0]) * (y - b[1])) / (a[1] - b[1]) + b[0]) inside = !inside;
      }
      return inside;
    },
    distanceToEdge: ([x, y]) => {
      for (let reach = FIRST_REACH_MM; ; reach *= 2) {
        const near = index.search(x - reach, y - reach, x + reach, y + reach);
        const least = near.reduce((m, k) => Math.min(m, distToSegment([x, y], edges[k][0], edges[k][1])), Infinity);
        // What lies in the box is nearest only as far as the box reaches.
        if (least <= reach || near.length === edges.length) return least;
      }
    },
  };
}
