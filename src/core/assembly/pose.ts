/** A solved pose of an assembly: where every facet lies, what its creases do, what can be read off it. */
import { fromJoint, moved, openTo, toJoint, within, type Drive, type State } from '../drives';
import {
  applyRigid,
  compose,
  dot3,
  invert,
  largestGap,
  leastBending,
  placeBodies,
  rotateOnly,
  sub3,
  type Bent as LeastBent,
  type Folds,
  type Linkage,
  type Rigid,
  type Stop,
  type Vec3,
} from '../linkage';
import type { Vec2 } from '../plane/vec2';
import { FLEX_FROM_MM } from '../tolerance';
import { radToDeg } from '../units/angle';
import type { Assembly, Crease, Facet, PlacedMechanism } from './assembly';
import { placeBends, type PosedBow } from './bends';
import { bentFromFlat, leastBent } from './bent-walk';
import type { Face, PoseReader } from '../kinds';

export interface Pose {
  /** Value of every drive. */
  readonly state: State;
  readonly folds: Folds;
  /** Placement of each facet's piece frame in world axes, by facet index. */
  readonly placed: readonly Rigid[];
  /** Largest gap that closing as rigid facets would leave (mm); 0 for a rigid design. */
  readonly flexMm: number;
  /** Curves of what bends, by id. */
  readonly bows: ReadonlyMap<string, PosedBow>;
  /** Crease where that gap is. */
  readonly flexAt: string | null;
  /** Set when the travel stops before the pose that was asked for. */
  readonly stop?: Stop;
}

/** Pose with the leaves `openDeg` apart, all else at rest: 0 closed, 180 flat. */
export const poseOpen = (assembly: Assembly, openDeg: number): Pose => poseAt(assembly, openTo(openDeg));

/** Pose in a state. Where the travel stops earlier, the last pose and why. */
export function poseAt(assembly: Assembly, state: State): Pose {
  const { drives, travel } = assembly;
  const asked = within(drives, state);
  const values = drives.map((d) => toJoint(d, asked[d.id]));
  const { folds, stop } = travel.at(...values);
  const unfolded = stop?.lead === OPENING && travel.neverLeaves(stop) ? unfoldedAt(assembly, values[stop.lead]) : null;
  // What can be bent into place without a gap folds some other way than its roles say: the stop tells why.
  if (unfolded && unfolded.flexMm > 0) return posed(assembly, asked, unfolded, { ...stop!, reason: 'not-rigid' });
  const { id, value } = stop ? stopped(assembly, stop) : { id: '', value: 0 };
  return posed(
    assembly,
    stop ? moved(asked, id, value) : asked,
    bentFrom(assembly, folds, stop ? undefined : values),
    stop,
  );
}

/** Which drive a stop is on, and where. */
export function stopped({ drives }: Assembly, { lead, drive }: Stop): Drive & { readonly value: number } {
  return { ...drives[lead], value: fromJoint(drives[lead], drive) };
}

/** Index of the opening among the drives: creases of a sheet that lies flat follow it. */
const OPENING = 0;

interface Bent {
  readonly folds: Folds;
  readonly bodies: readonly Rigid[];
  readonly flexMm: number;
  readonly flexAt: string | null;
}

/** Bodies at given folds; where loops do not close, at the least misfit. */
function bentFrom(assembly: Assembly, folds: Folds, values?: readonly number[]): Bent {
  const { linkage } = assembly;
  const bodies = placeBodies(linkage, folds.q);
  const rigid: Bent = { folds, bodies, flexMm: 0, flexAt: null };
  if (folds.bentLoops.length === 0 || largestGap(linkage, bodies).mm <= FLEX_FROM_MM) return rigid;
  return bentAs(linkage, folds, values ? leastBent(assembly, folds, values) : leastBending(linkage, bodies, folds.q));
}
const bentAs = ({ joints }: Linkage, folds: Folds, { bodies, gap }: LeastBent): Bent =>
  gap.mm <= FLEX_FROM_MM
    ? { folds, bodies, flexMm: 0, flexAt: null }
    : { folds, bodies, flexMm: gap.mm, flexAt: joints[gap.joint].id };

function unfoldedAt(assembly: Assembly, value: number): Bent {
  const { folds, bent } = bentFromFlat(assembly, value);
  return bentAs(assembly.linkage, folds, bent);
}

function posed(assembly: Assembly, state: State, bent: Bent, stop: Stop | undefined): Pose {
  const { bodies, folds, flexMm, flexAt } = bent;
  const placed = assembly.facets.map((f) => compose(bodies[f.body], f.toBody));
  const bows = placeBends(assembly, placed);
  return { state, folds, placed, bows, flexMm, flexAt, ...(stop ? { stop } : {}) };
}

export const onFacet = (pose: Pose, facet: number, [x, y]: Vec2): Vec3 => applyRigid(pose.placed[facet], [x, y, 0]);

/** Outer boundary of a facet in world axes. */
export const facetOutline = (pose: Pose, facets: readonly Facet[], i: number): Vec3[] =>
  facets[i].polygon.outer.map((p) => onFacet(pose, i, p));

/** Fold of a crease, degrees: valley positive. */
export function foldDeg(pose: Pose, { joint, bend }: Crease): number {
  if (bend) return radToDeg(pose.bows.get(bend)?.foldRad ?? 0);
  return joint < 0 ? 0 : radToDeg(pose.folds.q[joint]);
}

export const facetIndex = (assembly: Assembly, piece: string, facet: string): number =>
  assembly.facets.findIndex((f) => f.id === facet && f.piece === piece);

export function landmarksOf(assembly: Assembly, pose: Pose, mechanism: PlacedMechanism): Record<string, Vec3> {
  const out: Record<string, Vec3> = {};
  for (const { name, piece, facet, at } of mechanism.landmarks) {
    const i = facetIndex(assembly, piece, facet);
    if (i >= 0 && assembly.tiedBodies.has(assembly.facets[i].body)) out[name] = onFacet(pose, i, at);
  }
  return out;
}

/** Measures of one mechanism. `closed` is the closed pose, where the design closes. */
export function measuresOf(
  assembly: Assembly,
  pose: Pose,
  closed: Pose | null,
  mechanism: PlacedMechanism,
): Record<string, number> {
  const read = (at: Pose, name: string): Vec3 | undefined => {
    const { host, face } = mechanism;
    const mark = landmarksOf(assembly, at, mechanism)[name];
    if (face && mark) return inFace(assembly, at, face, mark);
    if (!host || !mark) return mark;
    const side = facetIndex(assembly, host.piece, host.sideA);
    if (side < 0) return undefined;
    const frame = at.placed[side];
    const [ux, uy] = host.frame.along;
    const from = sub3(mark, applyRigid(frame, [host.frame.origin[0], host.frame.origin[1], 0]));
    const axis = (v: Vec3): number => dot3(from, rotateOnly(frame, v));
    return [axis([ux, uy, 0]), axis([-uy, ux, 0]), host.sign * axis([0, 0, 1])];
  };
  const reader: PoseReader = {
    local: (name) => read(pose, name),
    closed: (name) => (closed ? read(closed, name) : undefined),
    bow: (bend) => pose.bows.get(bend)?.bow,
  };
  return mechanism.measures(reader);
}

/** A point in the axes of the face that something is fixed on. */
function inFace(assembly: Assembly, pose: Pose, face: Face, point: Vec3): Vec3 | undefined {
  const facet = facetIndex(assembly, face.piece, face.facet);
  return facet < 0 ? undefined : applyRigid(invert(compose(pose.placed[facet], face.placement)), point);
}

export const allMeasures = (
  assembly: Assembly,
  pose: Pose,
  closed: Pose | null,
): Record<string, Record<string, number>> =>
  Object.fromEntries(assembly.mechanisms.map((m) => [m.id, measuresOf(assembly, pose, closed, m)]));
