/** What lies low on a leaf, whatever holds it there. */
import type { Assembly } from '../src/core/assembly/assembly';
import type { Pose } from '../src/core/assembly/pose';
import type { Slab } from './solids';

const CARD = 'card';
/** What lies on a leaf lies this near to it. */
const LOW_MM = 6;

/** Whether a part that is none of a leaf lies on one, however it is held there. */
export function liesOnLeaf({ leafBodies, facets }: Assembly, pose: Pose, s: Slab): boolean {
  if (s.mechanism === CARD) return false;
  const own = pose.placed[s.facet];
  return facets.some(({ body }, leaf) => {
    if (!leafBodies.has(body)) return false;
    const on = pose.placed[leaf];
    const [up, apart] = [[2, 6, 10].map((k) => on[k]), [3, 7, 11].map((k) => own[k] - on[k])];
    const parallel = Math.abs(up.reduce((sum, u, k) => sum + u * own[2 + 4 * k], 0)) > 0.995;
    return parallel && Math.abs(up.reduce((sum, u, k) => sum + u * apart[k], 0)) < LOW_MM;
  });
}
