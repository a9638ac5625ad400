/**
 * Posed paper as triangles: each facet a thin slab with its two faces and its edge. Shared by the GLB export and the
 * posed view.
 */
import earcut from 'earcut';
import type { Facet } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { applyRigid, type Vec3 } from '../linkage';
import { ringsOf, type Ring } from '../plane/polygon';

export interface Slab {
  /** Corners of triangles, 9 numbers each, mm. */
  readonly inside: Float32Array;
  readonly outside: Float32Array;
  readonly edge: Float32Array;
}

/** Flat triangles of a facet, as corner points of its piece. */
export function triangulate(rings: readonly Ring[]): Ring {
  const flat = rings.flatMap((r) => r.flatMap(([x, y]) => [x, y]));
  const holes = rings.slice(1).map((_, i) => rings.slice(0, i + 1).reduce((n, r) => n + r.length, 0));
  return earcut(flat, holes).map((k) => [flat[2 * k], flat[2 * k + 1]] as const);
}

/**
 * A slab over rings in their own plane (mm): its inside face at `topMm`, its outside face a caliper below it, its edge
 * between them all round.
 */
export function slab(rings: readonly Ring[], topMm: number, caliperMm: number): Slab {
  const top = ([x, y]: P): Vec3 => [x, y, topMm];
  const bottom = ([x, y]: P): Vec3 => [x, y, topMm - caliperMm];
  const corners = triangulate(rings);
  const inside: number[] = [];
  const outside: number[] = [];
  for (let k = 0; k < corners.length; k += 3) {
    const [a, b, c] = counterClockwise(corners[k], corners[k + 1], corners[k + 2]);
    inside.push(...top(a), ...top(b), ...top(c));
    outside.push(...bottom(a), ...bottom(c), ...bottom(b));
  }
  const edge = rings.flatMap((ring) =>
    ring.flatMap((p, k) => {
      const q = ring[(k + 1) % ring.length];
      return [top(p), bottom(p), top(q), top(q), bottom(p), bottom(q)].flat();
    }),
  );
  return { inside: Float32Array.from(inside), outside: Float32Array.from(outside), edge: Float32Array.from(edge) };
}

/** The slab of a posed facet in world axes: its inside face lies in the facet's plane. */
export function posedSlab(facets: readonly Facet[], pose: Pose, i: number, caliperMm: number): Slab {
  const moved = (corners: Float32Array): Float32Array => {
    const out = new Float32Array(corners.length);
    for (let k = 0; k < corners.length; k += 3)
      out.set(applyRigid(pose.placed[i], [corners[k], corners[k + 1], corners[k + 2]]), k);
    return out;
  };
  const { inside, outside, edge } = slab(ringsOf(facets[i].polygon), 0, caliperMm);
  return { inside: moved(inside), outside: moved(outside), edge: moved(edge) };
}

type P = readonly [number, number];
const counterClockwise = (a: P, b: P, c: P): [P, P, P] =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) >= 0 ? [a, b, c] : [a, c, b];
