/** Polygons in convex parts, and what two convex rings cover when one is carried round the other. mm, y up. */
import earcut from 'earcut';
import { ringsOf, type Polygon, type Ring } from '../../plane/polygon';
import { cross2, sub2, type Vec2 } from '../../plane/vec2';
import { ROUNDING_MM } from '../../tolerance';

/**
 * Convex parts that tile a polygon, counter-clockwise: its triangles, merged over every diagonal that is not needed
 * (Hertel and Mehlhorn 1983, at most four times the fewest).
 */
export function convexParts(polygon: Polygon): Ring[] {
  const rings = ringsOf(polygon);
  const points = rings.flat();
  const starts = rings.slice(1).reduce<number[]>((at, _, i) => [...at, (at.at(-1) ?? 0) + rings[i].length], []);
  const corners = earcut(
    points.flatMap(([x, y]) => [x, y]),
    starts,
  );
  const parts: (number[] | null)[] = [];
  for (let k = 0; k < corners.length; k += 3) {
    const [a, b, c] = corners.slice(k, k + 3);
    const turn = cross2(sub2(points[b], points[a]), sub2(points[c], points[a]));
    if (turn !== 0) parts.push(turn > 0 ? [a, b, c] : [a, c, b]);
  }
  mergeOverDiagonals(parts, points);
  return parts.flatMap((part) => (part ? [part.map((i) => points[i])] : []));
}

function mergeOverDiagonals(parts: (number[] | null)[], points: readonly Vec2[]): void {
  const ownerOf = new Map<string, number>();
  const edgesOf = (part: readonly number[]): string[] => part.map((v, k) => `${v} ${part[(k + 1) % part.length]}`);
  parts.forEach((part, i) => edgesOf(part!).forEach((e) => ownerOf.set(e, i)));
  for (const edge of [...ownerOf.keys()]) {
    const [from, to] = edge.split(' ').map(Number);
    const [i, j] = [ownerOf.get(edge), ownerOf.get(`${to} ${from}`)];
    if (i === undefined || j === undefined || i === j) continue;
    const merged = joined(parts[i]!, parts[j]!, from, to);
    if (!isConvex(merged.map((v) => points[v]))) continue;
    parts[i] = merged;
    parts[j] = null;
    ownerOf.delete(edge);
    ownerOf.delete(`${to} ${from}`);
    for (const e of edgesOf(merged)) ownerOf.set(e, i);
  }
}

/** Two rings that share the edge from–to of the first, as one. */
function joined(a: readonly number[], b: readonly number[], from: number, to: number): number[] {
  const startingAt = (ring: readonly number[], v: number): number[] => {
    const k = ring.indexOf(v);
    return [...ring.slice(k), ...ring.slice(0, k)];
  };
  return [...startingAt(a, to), ...startingAt(b, from).slice(1, -1)];
}

export const isConvex = (ring: Ring): boolean =>
  ring.every((p, i) => {
    const [q, r] = [ring[(i + 1) % ring.length], ring[(i + 2) % ring.length]];
    return cross2(sub2(q, p), sub2(r, q)) >= -ROUNDING_MM;
  });

/** Minkowski sum of two convex rings, counter-clockwise both: their edges, merged by direction. */
export function convexSum(a: Ring, b: Ring): Ring {
  const [p, q] = [fromLowest(a), fromLowest(b)];
  const out: Vec2[] = [];
  for (let i = 0, j = 0; i < p.length || j < q.length;) {
    const [u, v] = [p[i % p.length], q[j % q.length]];
    out.push([u[0] + v[0], u[1] + v[1]]);
    const turn = cross2(sub2(p[(i + 1) % p.length], u), sub2(q[(j + 1) % q.length], v));
    const [first, second] = [turn >= 0 && i < p.length, turn <= 0 && j < q.length];
    if (first || j >= q.length) i++;
    if (second || (i >= p.length && !first)) j++;
  }
  return out;
}

const fromLowest = (ring: Ring): Ring => {
  const k = ring.reduce((best, [x, y], i) => {
    const [bx, by] = ring[best];
    return y < by || (y === by && x < bx) ? i : best;
  }, 0);
  return [...ring.slice(k), ...ring.slice(0, k)];
};

/** Turned by half: the ring whose sum with another tells where the two overlap. */
export const reflected = (ring: Ring): Ring => ring.map(([x, y]): Vec2 => [-x, -y]);
