/** Edges that meet, as the fewest lines drawn without lifting: closed where they close, straight on where they can. */
import { WELD_MM } from '../tolerance';
import { distToSegment, dot2, sub2, type Vec2 } from './vec2';

export interface Chain {
  readonly points: readonly Vec2[];
  readonly closed: boolean;
  /** Index of the first edge it is made of. */
  readonly first: number;
}

/**
 * Every edge once. A connected set of edges needs half as many lines as it has corners with an odd number of edges, or
 * one closed line (Euler 1736).
 * @param edges pairs of indices into `points`
 */
export function chainEdges(points: readonly Vec2[], edges: readonly (readonly [number, number])[]): Chain[] {
  const trails = splice(walkTrails(points, edges));
  return trails.map(({ corners, edge }): Chain => {
    const closed = corners.length > 2 && corners[0] === corners[corners.length - 1];
    const own = closed ? corners.slice(0, -1) : corners;
    return {
      points: withoutMiddles(
        own.map((v) => points[v]),
        closed,
      ),
      closed,
      first: edge,
    };
  });
}

interface Trail {
  readonly corners: number[];
  readonly edge: number;
}

/** Edges are paired at every corner, the straightest way on first; what is left over ends a line there. */
function walkTrails(points: readonly Vec2[], edges: readonly (readonly [number, number])[]): Trail[] {
  const at = new Map<number, number[]>();
  edges.forEach((e, k) => e.forEach((v) => at.set(v, [...(at.get(v) ?? []), k])));
  const next = new Map<string, number>();
  for (const [v, list] of at) {
    const away = (k: number): Vec2 => {
      const d = sub2(points[edges[k][0] === v ? edges[k][1] : edges[k][0]], points[v]);
      const length = Math.hypot(...d);
      return [d[0] / length, d[1] / length];
    };
    const pairs = list
      .flatMap((a, i) => list.slice(i + 1).map((b) => ({ a, b, bend: dot2(away(a), away(b)) })))
      .sort((p, q) => p.bend - q.bend || p.a - q.a || p.b - q.b);
    const taken = new Set<number>();
    for (const { a, b } of pairs) {
      if (taken.has(a) || taken.has(b)) continue;
      taken.add(a).add(b);
      next.set(`${v}|${a}`, b).set(`${v}|${b}`, a);
    }
  }
  const used = new Uint8Array(edges.length);
  const follow = (start: number, edge: number): Trail => {
    const corners = [start];
    for (let k: number | undefined = edge, v = start; k !== undefined && !used[k]; k = next.get(`${v}|${k}`)) {
      used[k] = 1;
      v = edges[k][0] === v ? edges[k][1] : edges[k][0];
      corners.push(v);
    }
    return { corners, edge };
  };
  const out: Trail[] = [];
  edges.forEach((e, k) => {
    for (const v of e) if (!used[k] && !next.has(`${v}|${k}`)) out.push(follow(v, k));
  });
  edges.forEach(([v], k) => {
    if (!used[k]) out.push(follow(v, k));
  });
  return out;
}

/** A closed trail that touches another is drawn on the way: one line fewer. */
function splice(trails: Trail[]): Trail[] {
  const isClosed = ({ corners }: Trail): boolean => corners[0] === corners[corners.length - 1];
  const out = trails.filter((t) => !isClosed(t));
  let waiting = trails.filter(isClosed);
  const takeIn = (host: Trail): boolean => {
    const place = new Map(host.corners.map((v, i) => [v, i]));
    const guest = waiting.find((t) => t !== host && t.corners.some((v) => place.has(v)));
    if (!guest) return false;
    const from = guest.corners.findIndex((v) => place.has(v));
    const ring = guest.corners.slice(0, -1);
    const round = [...ring.slice(from), ...ring.slice(0, from), ring[from]];
    host.corners.splice(place.get(guest.corners[from])!, 1, ...round);
    waiting = waiting.filter((t) => t !== guest);
    return true;
  };
  for (const host of out) while (takeIn(host));
  while (waiting.length > 0) {
    const [host] = waiting;
    waiting = waiting.slice(1);
    out.push(host);
    while (takeIn(host));
  }
  return out;
}

/** Points that a straight line runs through say nothing. */
function withoutMiddles(points: readonly Vec2[], closed: boolean): Vec2[] {
  return points.filter((p, i) => {
    if (!closed && (i === 0 || i === points.length - 1)) return true;
    const [before, after] = [points[(i + points.length - 1) % points.length], points[(i + 1) % points.length]];
    return distToSegment(p, before, after) > WELD_MM;
  });
}
