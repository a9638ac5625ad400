/**
 * Sheets that lie at one height over the same face and run into each other as they are moved: a disc and the panel
 * beside it, two carriers. Planes that are parallel never cross, so `crossing` does not see these.
 */
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { applyRigid, compose, invert, rotateOnly } from '../linkage';
import { intersect, mapRegion, regionArea, regionBox } from '../plane/polygon';
import { CLASH_FROM_MM2, CONTACT_MM } from '../tolerance';
import type { Plate } from './plates';

/** Sine between two planes below which sheets lie flat over each other. */
export const FLAT_SINE = 1e-6;

/** How far two sheets lie in each other's paper, mm; 0 where they do not, or lie at other heights. */
export function besideDepth(assembly: Assembly, pose: Pose, p: Plate, q: Plate): number {
  const between = compose(invert(pose.placed[p.facet]), pose.placed[q.facet]);
  const normal = rotateOnly(between, [0, 0, 1]);
  const tilt = Math.hypot(normal[0], normal[1]);
  const apart = Math.abs(between[11]);
  if (tilt > FLAT_SINE || apart >= (p.caliperMm + q.caliperMm) / 2 - CONTACT_MM) return 0;
  const there = mapRegion(
    [q.polygon],
    ([x, y]) => {
      const [u, v] = applyRigid(between, [x, y, 0]);
      return [u, v];
    },
    normal[2] < 0,
  );
  const shared = intersect([p.polygon], there);
  if (regionArea(shared) < CLASH_FROM_MM2) return 0;
  const { min, max } = regionBox(shared);
  return Math.min(max[0] - min[0], max[1] - min[1]);
}
