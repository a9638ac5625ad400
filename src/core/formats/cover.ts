/** The closed card as it lies in front of its reader: what is on its outside, and what shows through windows. */
import { CLOSED } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { carrierOf } from '../assembly/carrier';
import { poseAt, type Pose } from '../assembly/pose';
import { readingUp } from '../build/faces';
import { naturalFace } from '../document/standing';
import { isBase } from '../rules';
import type { Design } from '../document/design';
import { rotateOnly, type Vec3 } from '../linkage';
import { drawPicture, type Picture } from './picture';

/** Its box is in mm as the card lies there; null where it does not close. */
export function coverPicture(design: Design, assembly: Assembly): Picture | null {
  const closed = poseAt(assembly, CLOSED);
  if (closed.stop) return null;
  const { on } = naturalFace(design, 'outside');
  // What is read first on the outside lies over all else of the card.
  const rank = (facet: number): number => (assembly.facets[facet].id === on ? FRONT : rankOf(assembly, facet));
  return drawPicture(design, assembly, closed, { from: [0, 0, 1], up: upOfCover(design, assembly, closed), rank });
}

/** The way the cover is read, up, as it lies there. */
function upOfCover(design: Design, assembly: Assembly, closed: Pose): Vec3 {
  const { on } = naturalFace(design, 'outside');
  const facet = assembly.facets.findIndex((f) => f.id === on);
  const piece = assembly.pieces.find((p) => p.id === assembly.facets[facet]?.piece);
  if (!piece) return [0, 1, 0];
  const [x, y] = readingUp(design, piece, on, 'outside');
  return rotateOnly(closed.placed[facet], [x, y, 0]);
}

/** From behind: the back and what is on it, the leaf that lies still, what is between, the cover, what is on that. */
function rankOf(assembly: Assembly, facet: number): number {
  const { body, piece } = assembly.facets[facet];
  const ofBase = isBase(assembly, assembly.pieces.find((p) => p.id === piece)!.mechanism);
  const onLeaf = ofBase && assembly.leafBodies.has(body);
  const carrier = carrierOf(assembly, facet);
  if (carrier?.endsWith(' outside')) {
    const under = assembly.facets.find((f) => carrier === `${f.id} outside`);
    return under?.body === STILL ? -1 : 4;
  }
  if (carrier) return 2;
  return onLeaf ? (body === STILL ? 1 : 3) : 2;
}
const STILL = 0;
/** Over the cover, under what is fixed on it. */
const FRONT = 3.5;
