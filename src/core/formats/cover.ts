/** The closed card as it lies in front of its reader: what is on its outside, and what shows through windows. */
import { CLOSED, openTo } from '../drives';
import type { Side } from '../side';
import type { Assembly } from '../assembly/assembly';
import { carrierOf } from '../assembly/carrier';
import { poseAt, type Pose } from '../assembly/pose';
import { readingUp } from '../build/faces';
import { naturalFace } from '../document/standing';
import { isBase } from '../rules';
import type { Design } from '../document/design';
import { rotateOnly, type Vec3 } from '../linkage';
import { drawPicture, type Picture } from './picture';

/** The card as it is sent: its dressed cover, or its inside where it goes open flat; null where it does not lie so. */
export function sentPicture(design: Design, assembly: Assembly): Picture | null {
  if (design.post.sent !== 'open') return coverPicture(design, assembly);
  const open = poseAt(assembly, openTo(assembly.drives[0].to));
  if (open.stop) return null;
  const up = upOf(design, assembly, open, assembly.lead.still, 'inside');
  return drawPicture(design, assembly, open, { from: [0, 0, 1], up });
}

/** Its box is in mm as the card lies there; null where it does not close. */
export function coverPicture(design: Design, assembly: Assembly): Picture | null {
  const closed = poseAt(assembly, CLOSED);
  if (closed.stop) return null;
  const { on } = naturalFace(design, 'outside');
  // What is read first on the outside lies over all else of the card.
  const rank = (facet: number): number => (assembly.facets[facet].id === on ? FRONT : rankOf(assembly, facet));
  return drawPicture(design, assembly, closed, {
    from: [0, 0, 1],
    up: upOf(design, assembly, closed, on, 'outside'),
    rank,
  });
}

/** The way a face is read, up, as it lies there. */
function upOf(design: Design, assembly: Assembly, pose: Pose, on: string, side: Side): Vec3 {
  const facet = assembly.facets.findIndex((f) => f.id === on);
  const piece = assembly.pieces.find((p) => p.id === assembly.facets[facet]?.piece);
  if (!piece) return [0, 1, 0];
  const [x, y] = readingUp(design, piece, on, side);
  return rotateOnly(pose.placed[facet], [x, y, 0]);
}

/** From behind: the back and what is on it, the leaf that lies still, what is between, the cover, what is on that. */
function rankOf(assembly: Assembly, facet: number): number {
  const { body, piece } = assembly.facets[facet];
  const ofBase = isBase(assembly, assembly.pieces.find((p) => p.id === piece)!.mechanism);
  const onLeaf = ofBase && assembly.leafBodies.has(body);
  const carrier = carrierOf(assembly, facet);
  if (carrier?.side === 'outside') {
    const under = assembly.facets.find((f) => f.id === carrier.facet);
    return under?.body === STILL ? -1 : 4;
  }
  if (carrier) return 2;
  return onLeaf ? (body === STILL ? 1 : 3) : 2;
}
const STILL = 0;
/** Over the cover, under what is fixed on it. */
const FRONT = 3.5;
