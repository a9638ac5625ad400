/** Posed paper as triangles: each facet a thin slab with its two faces and its edge. Shared by the GLB export and the posed view. */
import earcut from 'earcut';
import type { Facet } from '../assembly/assembly';
import { onFacet, type Pose } from '../assembly/pose';
import { rotateOnly, type Vec3 } from '../linkage';
import { ringsOf, type Ring } from '../plane/polygon';

export interface Slab {
  /** Corners of triangles, 9 numbers each, mm, world axes. */
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

/** The slab of one facet: its inside face lies in the facet's plane, its outside face a caliper behind it. */
export function slabOf(facets: readonly Facet[], pose: Pose, i: number, caliperMm: number): Slab {
  const rings = ringsOf(facets[i].polygon);
  const down = rotateOnly(pose.placed[i], [0, 0, -caliperMm]);
  const top = (p: readonly [number, number]): Vec3 => onFacet(pose, i, p);
  const bottom = (p: readonly [number, number]): Vec3 => {
    const [x, y, z] = top(p);
    return [x + down[0], y + down[1], z + down[2]];
  };
  const corners = triangulate(rings);
  const inside: number[] = [];
  const outside: number[] = [];
  for (let k = 0; k < corners.length; k += 3) {
    const [a, b, c] = counterClockwise(corners[k], corners[k + 1], corners[k + 2]);
    inside.push(...top(a), ...top(b), ...top(c));
    outside.push(...bottom(a), ...bottom(c), ...bottom(b));
  }
  const edge: number[] = [];
  for (const ring of rings) {
    ring.forEach((p, k) => {
      const q = ring[(k + 1) % ring.length];
      edge.push(...top(p), ...bottom(p), ...top(q), ...top(q), ...bottom(p), ...bottom(q));
    });
  }
  return { inside: Float32Array.from(inside), outside: Float32Array.from(outside), edge: Float32Array.from(edge) };
}

type P = readonly [number, number];
const counterClockwise = (a: P, b: P, c: P): [P, P, P] => ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) >= 0 ? [a, b, c] : [a, c, b]);
