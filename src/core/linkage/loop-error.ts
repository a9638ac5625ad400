/** How far a loop is from closing, and how each joint changes that. Rows are in mm (theory: product of exponentials, screw Jacobian). */
import { carry, jointTransform, twistAt, type Linkage } from './joint';
import type { Loop } from './loops';
import { applyRigid, compose, cross3, identity, invert, rotationLog, type Rigid, type Vec3 } from './rigid';

export interface LoopState {
  /** 6 rows: turning error times the loop's radius, then the shift at its centre, mm. */
  readonly error: Float64Array;
  /** 6 values for each step of the loop: change of the error per unit of that joint (mm/rad, or mm/mm). */
  readonly columns: readonly Float64Array[];
  /** Largest of turning and shifting error, mm. */
  readonly sizeMm: number;
  /** Radius of the loop's joints about its centre, mm; scales turning to mm. */
  readonly radiusMm: number;
}

/** Loops smaller than this are measured as if they were this large (mm), so a tiny vertex does not hide its angle error. */
const LEAST_RADIUS_MM = 1;

/** @param q value of every joint, rad or mm */
export function loopState(linkage: Linkage, loop: Loop, q: Float64Array): LoopState {
  const n = loop.steps.length;
  const w: Vec3[] = new Array<Vec3>(n);
  const v: Vec3[] = new Array<Vec3>(n);
  const points: Vec3[] = [];
  let path: Rigid = identity();
  loop.steps.forEach(({ joint, forward }, i) => {
    const j = linkage.joints[joint];
    const step = jointTransform(j, q[joint]);
    // Going back through a joint, its line is met after the step: in the frame of a.
    const after = compose(path, forward ? step : invert(step));
    const frame = forward ? path : after;
    const twist = carry(frame, twistAt(j.motion, q[joint]));
    const sign = forward ? 1 : -1;
    w[i] = [sign * twist.w[0], sign * twist.w[1], sign * twist.w[2]];
    v[i] = [sign * twist.v[0], sign * twist.v[1], sign * twist.v[2]];
    points.push(applyRigid(frame, j.span[0]), applyRigid(frame, j.span[1]));
    path = after;
  });
  const centre = mean(points);
  const radiusMm = points.reduce((r, p) => Math.max(r, Math.hypot(p[0] - centre[0], p[1] - centre[1], p[2] - centre[2])), LEAST_RADIUS_MM);
  const turn = rotationLog(path);
  const moved = applyRigid(path, centre);
  const error = Float64Array.of(
    radiusMm * turn[0], radiusMm * turn[1], radiusMm * turn[2],
    moved[0] - centre[0], moved[1] - centre[1], moved[2] - centre[2],
  );
  const columns = w.map((wi, i) => {
    const lever = cross3(wi, centre);
    return Float64Array.of(
      radiusMm * wi[0], radiusMm * wi[1], radiusMm * wi[2],
      v[i][0] + lever[0], v[i][1] + lever[1], v[i][2] + lever[2],
    );
  });
  const sizeMm = Math.max(Math.hypot(error[0], error[1], error[2]), Math.hypot(error[3], error[4], error[5]));
  return { error, columns, sizeMm, radiusMm };
}

function mean(points: readonly Vec3[]): Vec3 {
  let [x, y, z] = [0, 0, 0];
  for (const p of points) { x += p[0]; y += p[1]; z += p[2]; }
  return [x / points.length, y / points.length, z / points.length];
}
