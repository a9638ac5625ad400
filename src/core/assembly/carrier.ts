/** What carries a facet that is fixed on a face, down to the base. */
import { ownerOfId } from '../ids';
import type { Side } from '../kinds';
import type { Assembly } from './parts';

/** One side of a facet. */
export interface FaceOf {
  readonly facet: string;
  readonly side: Side;
}

/** Whether two are one; both may be none. */
export const sameFace = (a: FaceOf | null, b: FaceOf | null): boolean =>
  a === b || (a !== null && b !== null && a.facet === b.facet && a.side === b.side);

/** The face of the base that a facet is carried by ; null for what is cut from the page. */
export function carrierOf(assembly: Assembly, facet: number): FaceOf | null {
  let carrier: FaceOf | null = null;
  let id = assembly.facets[facet].mechanism;
  for (let depth = 0; depth <= assembly.mechanisms.length; depth++) {
    const face = assembly.mechanisms.find((m) => m.id === id)?.face;
    if (!face) break;
    carrier = { facet: face.facet, side: face.side };
    id = ownerOfId(face.facet);
  }
  return carrier;
}
