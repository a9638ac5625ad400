/** What carries a facet that is fixed on a face, down to the base. */
import { ownerOfId } from '../ids';
import type { Side } from '../kinds';
import type { Assembly } from './parts';

/** One name for a side of a facet: "leafB outside". */
export const faceName = (facet: string, side: Side): string => `${facet} ${side}`;

/** The side that a named face is on; inside where there is none. */
export const sideOfFace = (face: string | null): Side => (face?.endsWith(' outside') ? 'outside' : 'inside');

/** The face of the base that a facet is carried by (`faceName`); null for what is cut from the page. */
export function carrierOf(assembly: Assembly, facet: number): string | null {
  let carrier: string | null = null;
  let id = assembly.facets[facet].mechanism;
  for (let depth = 0; depth <= assembly.mechanisms.length; depth++) {
    const face = assembly.mechanisms.find((m) => m.id === id)?.face;
    if (!face) break;
    carrier = faceName(face.facet, face.side);
    id = ownerOfId(face.facet);
  }
  return carrier;
}
