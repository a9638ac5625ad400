/** A solved pose of an assembly: where every facet lies, what its creases do, what can be read off it. */
import { applyRigid, compose, dot3, largestGap, leastBending, placeBodies, rotateOnly, sub3, type Folds, type Rigid, type Stop, type Vec3 } from '../linkage';
import type { Vec2 } from '../plane/vec2';
import { FLEX_FROM_MM } from '../tolerance';
import { degToRad, radToDeg } from '../units/angle';
import type { Assembly, Crease, Facet, PlacedMechanism } from './assembly';
import type { PoseReader } from '../kinds';

export interface Pose {
  /** Angle between the inside faces of the leaves, degrees. */
  readonly openDeg: number;
  readonly folds: Folds;
  /** Placement of each facet's piece frame in world axes, by facet index. */
  readonly placed: readonly Rigid[];
  /** Largest gap that closing as rigid facets would leave (mm); 0 for a rigid design. */
  readonly flexMm: number;
  /** Crease where that gap is. */
  readonly flexAt: string | null;
  /** Set when the travel stops before the pose that was asked for. */
  readonly stop?: Stop;
}

/** Pose with the leaves `openDeg` apart: 0 closed, 180 flat. Where the travel stops earlier, the last pose and why. */
export function poseAt(assembly: Assembly, openDeg: number): Pose {
  const drive = degToRad(180 - openDeg);
  const { folds, stop } = assembly.travel.at(openDeg === 0 ? Math.PI : drive);
  let bodies = placeBodies(assembly.linkage, folds.q);
  let flexMm = 0;
  let flexAt: string | null = null;
  if (folds.bentLoops.length > 0) {
    const gap = largestGap(assembly.linkage, bodies);
    if (gap.mm > FLEX_FROM_MM) {
      const bent = leastBending(assembly.linkage, bodies);
      bodies = bent.bodies;
      if (bent.gap.mm > FLEX_FROM_MM) [flexMm, flexAt] = [bent.gap.mm, assembly.linkage.joints[bent.gap.joint].id];
    }
  }
  const placed = assembly.facets.map((f) => compose(bodies[f.body], f.toBody));
  return { openDeg: stop ? 180 - radToDeg(folds.drive) : openDeg, folds, placed, flexMm, flexAt, ...(stop ? { stop } : {}) };
}

export const onFacet = (pose: Pose, facet: number, [x, y]: Vec2): Vec3 => applyRigid(pose.placed[facet], [x, y, 0]);

/** Outer boundary of a facet in world axes. */
export const facetOutline = (pose: Pose, facets: readonly Facet[], i: number): Vec3[] => facets[i].polygon.outer.map((p) => onFacet(pose, i, p));

/** Fold of a crease, degrees: valley positive. */
export const foldDeg = (pose: Pose, crease: Crease): number => (crease.joint < 0 ? 0 : radToDeg(pose.folds.q[crease.joint]));

const facetIndex = (assembly: Assembly, piece: string, facet: string): number => assembly.facets.findIndex((f) => f.id === facet && f.piece === piece);

export function landmarksOf(assembly: Assembly, pose: Pose, mechanism: PlacedMechanism): Record<string, Vec3> {
  const out: Record<string, Vec3> = {};
  for (const { name, piece, facet, at } of mechanism.landmarks) {
    const i = facetIndex(assembly, piece, facet);
    if (i >= 0) out[name] = onFacet(pose, i, at);
  }
  return out;
}

/** Measures of one mechanism. `closed` is the closed pose, where the design closes. */
export function measuresOf(assembly: Assembly, pose: Pose, closed: Pose | null, mechanism: PlacedMechanism): Record<string, number> {
  const read = (at: Pose, name: string): Vec3 | undefined => {
    const host = mechanism.host;
    const mark = landmarksOf(assembly, at, mechanism)[name];
    if (!host || !mark) return mark;
    const side = facetIndex(assembly, host.piece, host.sideA);
    if (side < 0) return undefined;
    const frame = at.placed[side];
    const [ux, uy] = host.frame.along;
    const from = sub3(mark, applyRigid(frame, [host.frame.origin[0], host.frame.origin[1], 0]));
    const axis = (v: Vec3): number => dot3(from, rotateOnly(frame, v));
    return [axis([ux, uy, 0]), axis([-uy, ux, 0]), host.sign * axis([0, 0, 1])];
  };
  const reader: PoseReader = { local: (name) => read(pose, name), closed: (name) => (closed ? read(closed, name) : undefined) };
  return mechanism.measures(reader);
}

export const allMeasures = (assembly: Assembly, pose: Pose, closed: Pose | null): Record<string, Record<string, number>> =>
  Object.fromEntries(assembly.mechanisms.map((m) => [m.id, measuresOf(assembly, pose, closed, m)]));
