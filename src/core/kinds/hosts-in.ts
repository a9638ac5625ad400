/** The creases of a flat piece as what others can stand on. */
import type { FlatHinge, FlatPattern } from '../pattern/facets';
import { dist2, distToLine, lerp2, scale2, sub2 } from '../plane/vec2';
import type { Host } from './kind';

/** One host for each crease that `wanted` picks; of a crease in several stretches that between the first two facets. */
export function hostsIn(
  piece: string,
  { facets, hinges }: FlatPattern,
  nameOf: (facet: number) => string,
  stock: string,
  wanted: (hinge: FlatHinge) => boolean,
): Host[] {
  return hinges.filter(wanted).map(({ crease, a, b }): Host => {
    const long = dist2(crease.a, crease.b);
    const reach = (facet: number): number =>
      facets[facet].polygon.outer.reduce((far, p) => Math.max(far, distToLine(p, crease.a, crease.b)), 0);
    const size = (fold: number | undefined): number | undefined => (fold === undefined ? undefined : Math.abs(fold));
    return {
      crease: crease.id,
      piece,
      frame: { origin: lerp2(crease.a, crease.b, 0.5), along: scale2(sub2(crease.b, crease.a), 1 / long) },
      lengthMm: long,
      sideA: nameOf(b),
      sideB: nameOf(a),
      sign: crease.role === 'valley' ? 1 : -1,
      ends: [size(crease.ends[0]), size(crease.ends[1])],
      reachA: reach(b),
      reachB: reach(a),
      stock,
    };
  });
}
