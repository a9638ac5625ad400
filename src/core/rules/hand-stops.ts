/**
 * Where a hand stops by itself. In a card that is hardly open whatever is turned up comes to the other leaf, in every
 * card, and so it does to what lies on that leaf.
 */
import { openOf, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { CONTACT_MM } from '../tolerance';
import { HAND_STOPS_DEG } from './hand-solids';
import type { Evidence } from './rule';

/** Whether one of two facets that meet at a state is a leaf, or lies on one, and the card is hardly open. */
export function handStops(
  { assembly, closed }: Pick<Evidence, 'assembly' | 'closed'>,
  facets: readonly number[],
  at: State,
): boolean {
  if (openOf(at) >= HAND_STOPS_DEG) return false;
  if (facets.some((f) => assembly.leafBodies.has(assembly.facets[f].body))) return true;
  if (!closed) return false;
  const pose = poseAt(assembly, at);
  return facets.some((f) => liesAsShut(assembly, closed, pose, f));
}

/**
 * Whether a facet lies on a leaf as it does in the shut card: parallel to it, at the same height. What rises as the
 * card is opened, or is moved up by a hand, does not.
 */
function liesAsShut({ facets, leafBodies }: Assembly, closed: Pose, pose: Pose, facet: number): boolean {
  return facets.some(({ body }, leaf) => {
    if (!leafBodies.has(body)) return false;
    const [shut, now] = [closed, pose].map((p) => overLeaf(p, leaf, facet));
    return now.square && shut.square && Math.abs(now.heightMm - shut.heightMm) <= CONTACT_MM;
  });
}

/** How square a facet stands over a leaf, and how high its origin lies over that. */
function overLeaf({ placed }: Pose, leaf: number, facet: number): { square: boolean; heightMm: number } {
  const [on, own] = [placed[leaf], placed[facet]];
  const up = [2, 6, 10];
  const cosine = up.reduce((sum, k) => sum + on[k] * own[k], 0);
  const heightMm = up.reduce((sum, k) => sum + on[k] * (own[k + 1] - on[k + 1]), 0);
  return { square: 1 - Math.abs(cosine) < 1e-6, heightMm };
}
