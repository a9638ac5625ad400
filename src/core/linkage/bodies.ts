/** From joint values to where each body lies, over a spanning tree. */
import { jointTransform, type Joint, type Linkage } from './joint';
import { jointsAt } from './loops';
import { applyRigid, compose, identity, invert, norm3, sub3, type Rigid, type Vec3 } from './rigid';

/**
 * Placement of every body in the frame of body 0, over the tree of shortest paths. What nothing ties to body 0 folds
 * about the first body of its own.
 */
export function placeBodies(linkage: Linkage, q: Float64Array): Rigid[] {
  const at = jointsAt(linkage);
  const placed = Array.from({ length: linkage.bodies }, (): Rigid | undefined => undefined);
  for (let root = 0; root < linkage.bodies; root++) {
    if (placed[root]) continue;
    placed[root] = identity();
    const queue = [root];
    for (let h = 0; h < queue.length; h++) {
      for (const k of at[queue[h]]) {
        const j = linkage.joints[k];
        const next = j.a === queue[h] ? j.b : j.a;
        if (placed[next]) continue;
        const step = jointTransform(j, q[k]);
        placed[next] = compose(placed[queue[h]]!, j.a === queue[h] ? step : invert(step));
        queue.push(next);
      }
    }
  }
  return placed.map((p) => p!);
}

/** Bodies that joints tie to body 0: only of these is the pose known. */
export function tiedBodies(linkage: Linkage): ReadonlySet<number> {
  const at = jointsAt(linkage);
  const tied = new Set([0]);
  for (const body of tied) for (const k of at[body] ?? []) tied.add(linkage.joints[k].a).add(linkage.joints[k].b);
  return tied;
}

/** Points of a joint in the frames of its two bodies; they coincide when the joint holds. */
export function pointPairs(j: Joint): readonly [Vec3, Vec3][] {
  const back = j.placement && invert(j.placement);
  return (j.patch ?? j.span).map((p): [Vec3, Vec3] => [p, back ? applyRigid(back, p) : p]);
}

/** How far apart the two sides of every crease have each of its points, mm along each axis. */
export const gapsOf = (linkage: Linkage, bodies: readonly Rigid[]): Vec3[] =>
  linkage.joints.flatMap((j) =>
    j.motion.kind === 'hinge'
      ? pointPairs(j).map(([p, r]) => sub3(applyRigid(bodies[j.a], p), applyRigid(bodies[j.b], r)))
      : [],
  );

export interface Gap {
  readonly mm: number;
  readonly joint: number;
}
/** Largest distance between the two sides of a crease's ends. */
export function largestGap(linkage: Linkage, bodies: readonly Rigid[]): Gap {
  let worst: Gap = { mm: 0, joint: -1 };
  linkage.joints.forEach((j, k) => {
    if (j.motion.kind !== 'hinge') return;
    for (const [p, r] of pointPairs(j)) {
      const mm = norm3(sub3(applyRigid(bodies[j.a], p), applyRigid(bodies[j.b], r)));
      if (mm > worst.mm) worst = { mm, joint: k };
    }
  });
  return worst;
}
