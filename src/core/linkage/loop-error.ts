/**
 * How far a loop is from closing, and how each joint changes that. Rows are in mm (theory: product of exponentials,
 * screw Jacobian). This is the inner loop of every pose: it works in scratch arrays and is not re-entrant.
 */
import { motionAt, twistAt, type Joint, type Linkage } from './joint';
import type { Loop } from './loops';
import { composeInto, invertInto, rotationLog, turnInto, type Rigid } from './rigid';

export interface LoopState {
  /** 6 rows: turning error times the loop's radius, then the shift at its centre, mm. */
  readonly error: Float64Array;
  /**
   * 6 values for each step of the loop, one after another: change of the error per unit of that joint (mm/rad, or
   * mm/mm).
   */
  readonly columns: Float64Array;
  /** Largest of turning and shifting error, mm. */
  readonly sizeMm: number;
  /** Radius of the loop's joints about its centre, mm; scales turning to mm. */
  readonly radiusMm: number;
}

/**
 * Loops smaller than this are measured as if they were this large (mm), so a tiny vertex does not hide its angle
 * error.
 */
const LEAST_RADIUS_MM = 1;

const scratch = () => new Float64Array(12);
const [motion, placed, inverse] = [scratch(), scratch(), scratch()];
let [path, after] = [scratch(), scratch()];
let points = new Float64Array(0);

/** @param q value of every joint, rad or mm */
export function loopState(linkage: Linkage, loop: Loop, q: Float64Array): LoopState {
  const n = loop.steps.length;
  const columns = new Float64Array(6 * n);
  if (points.length < 6 * n) points = new Float64Array(12 * n);
  path.fill(0);
  path[0] = path[5] = path[10] = 1;
  for (let i = 0; i < n; i++) {
    const { joint, forward } = loop.steps[i];
    const j = linkage.joints[joint];
    const step = stepInto(j, q[joint]);
    composeInto(after, path, forward ? step : invertInto(inverse, step));
    // Going back through a joint, its line is met after the step: in the frame of a.
    const frame = forward ? path : after;
    writeTwist(columns, 6 * i, frame, j, q[joint], forward ? 1 : -1);
    writePoint(6 * i, frame, j.span[0]);
    writePoint(6 * i + 3, frame, j.span[1]);
    [path, after] = [after, path];
  }
  let [cx, cy, cz] = [0, 0, 0];
  for (let k = 0; k < 6 * n; k += 3) {
    cx += points[k];
    cy += points[k + 1];
    cz += points[k + 2];
  }
  cx /= 2 * n;
  cy /= 2 * n;
  cz /= 2 * n;
  let radius2 = LEAST_RADIUS_MM * LEAST_RADIUS_MM;
  for (let k = 0; k < 6 * n; k += 3)
    radius2 = Math.max(radius2, (points[k] - cx) ** 2 + (points[k + 1] - cy) ** 2 + (points[k + 2] - cz) ** 2);
  const L = Math.sqrt(radius2);
  // Twists about the centre: shift rows get w × c, turning rows the radius.
  for (let k = 0; k < 6 * n; k += 6) {
    const [wx, wy, wz] = [columns[k], columns[k + 1], columns[k + 2]];
    columns[k + 3] += wy * cz - wz * cy;
    columns[k + 4] += wz * cx - wx * cz;
    columns[k + 5] += wx * cy - wy * cx;
    columns[k] *= L;
    columns[k + 1] *= L;
    columns[k + 2] *= L;
  }
  const turn = rotationLog(path);
  const error = new Float64Array(6);
  error[0] = L * turn[0];
  error[1] = L * turn[1];
  error[2] = L * turn[2];
  error[3] = path[0] * cx + path[1] * cy + path[2] * cz + path[3] - cx;
  error[4] = path[4] * cx + path[5] * cy + path[6] * cz + path[7] - cy;
  error[5] = path[8] * cx + path[9] * cy + path[10] * cz + path[11] - cz;
  const sizeMm = Math.sqrt(
    Math.max(error[0] ** 2 + error[1] ** 2 + error[2] ** 2, error[3] ** 2 + error[4] ** 2 + error[5] ** 2),
  );
  return { error, columns, sizeMm, radiusMm: L };
}

function stepInto(j: Joint, q: number): Rigid {
  const moved = j.motion.kind !== 'track' ? turnInto(motion, j.motion.point, j.motion.axis, q) : motionAt(j.motion, q);
  return j.placement ? composeInto(placed, moved, j.placement) : moved;
}

/** The joint's twist carried into the loop's frame: w, then v about the frame's origin. */
function writeTwist(out: Float64Array, at: number, m: Rigid, j: Joint, q: number, sign: number): void {
  const { w, v } = twistAt(j.motion, q);
  for (let r = 0; r < 3; r++) {
    out[at + r] = sign * (m[4 * r] * w[0] + m[4 * r + 1] * w[1] + m[4 * r + 2] * w[2]);
    out[at + 3 + r] = sign * (m[4 * r] * v[0] + m[4 * r + 1] * v[1] + m[4 * r + 2] * v[2]);
  }
  const [x, y, z] = [out[at], out[at + 1], out[at + 2]];
  out[at + 3] += m[7] * z - m[11] * y;
  out[at + 4] += m[11] * x - m[3] * z;
  out[at + 5] += m[3] * y - m[7] * x;
}

function writePoint(at: number, m: Rigid, p: readonly [number, number, number]): void {
  for (let r = 0; r < 3; r++)
    points[at + r] = m[4 * r] * p[0] + m[4 * r + 1] * p[1] + m[4 * r + 2] * p[2] + m[4 * r + 3];
}
