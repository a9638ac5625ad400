/** Closing a block: Newton on its loops, least change, then least crease energy along what is left free. */
import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { ENERGY_CAP_RAD, ENERGY_SETTLED, LOOP_ACCEPT_MM, LOOP_AIM_MM, NEWTON_CAP_RAD } from '../tolerance';
import type { Block } from './blocks';
import { jointLength, type Linkage } from './joint';
import { cross3, type Vec3 } from './rigid';
import { buildSystem, leastChange, type System } from './system';

export interface Closing {
  /** Loops closed (within LOOP_ACCEPT_MM), or for an overdetermined block: settled at the least misfit. */
  readonly ok: boolean;
  readonly closed: boolean;
  readonly iterations: number;
  readonly errorMm: number;
  /** Largest change of an unknown from where it started, rad (tracks: mm over the loop's radius). */
  readonly correction: number;
  /** Smallest over largest singular value at the end; near 0 the block is at a singular pose. */
  readonly condition: number;
}

const MOST_ITERATIONS = 40;
/** Steps without an error smaller than before, after which Newton has ended. */
const STALE = 4;
/** A determinate block that needs more from a good prediction is on its way elsewhere. */
export const FOLLOW_ITERATIONS = 14;

/** Solve `block` by changing its unknowns in `q`, in place; everything else in `q` is taken as known. */
export function closeBlock(linkage: Linkage, block: Block, q: Float64Array, rest: (joint: number) => number, most = MOST_ITERATIONS): Closing {
  const start = block.unknowns.map((j) => q[j]);
  const newton = closeLoops(linkage, block, q, block.overdetermined || block.freedoms > 0 ? MOST_ITERATIONS : most, block.freedoms > 0);
  let iterations = newton.iterations;
  if (newton.ok && block.freedoms > 0) iterations += settleEnergy(linkage, block, q, rest);
  const correction = block.unknowns.reduce((m, j, k) => Math.max(m, Math.abs(q[j] - start[k]) / newton.scale[k]), 0);
  return { ...newton, iterations, correction };
}

/** `keepSigns`: change is measured against each fold's own size, and no fold is carried through flat. Where folds are free there is room for that. */
function closeLoops(linkage: Linkage, block: Block, q: Float64Array, most = MOST_ITERATIONS, keepSigns = false): Omit<Closing, 'correction'> & { scale: Float64Array } {
  let system = buildSystem(linkage, block.loops, block.unknowns, q);
  let condition = 1;
  let last = Infinity;
  let best = Infinity;
  let stale = 0;
  let iterations = 0;
  for (; iterations < most && system.sizeMm > LOOP_AIM_MM; iterations++) {
    // At the floor of double precision the error no longer falls: enough when it is below what is accepted.
    if (system.sizeMm < LOOP_ACCEPT_MM && system.sizeMm > last / 4) break;
    last = system.sizeMm;
    // What is left lies across directions that the rank cut took for free: more of the same steps will not close it.
    if (system.sizeMm < 0.99 * best) [best, stale] = [system.sizeMm, 0];
    else if (++stale >= STALE) break;
    const step = leastChange(keepSigns ? relative(system, block, q) : system);
    condition = step.condition;
    if (keepSigns) block.unknowns.forEach((j, k) => (step.delta[k] *= sizeOfFold(q[j])));
    const size = step.delta.reduce((m, d) => Math.max(m, Math.abs(d)), 0);
    if (block.overdetermined && size < 1e-10) break;
    const toward = keepSigns ? block.unknowns.reduce((m, j, k) => (step.delta[k] * q[j] < 0 ? Math.max(m, Math.abs(step.delta[k] / q[j]) / 0.7) : m), 1) : 1;
    const cut = 1 / Math.max(1, size / NEWTON_CAP_RAD, toward);
    block.unknowns.forEach((j, k) => (q[j] += step.delta[k] * cut * system.scale[k]));
    system = buildSystem(linkage, block.loops, block.unknowns, q);
    if (!Number.isFinite(system.sizeMm)) break;
  }
  const closed = system.sizeMm < LOOP_ACCEPT_MM;
  return { ok: closed || (block.overdetermined && iterations < MOST_ITERATIONS), closed, iterations, errorMm: system.sizeMm, condition, scale: system.scale };
}

/** Folds below this count as this large when change is measured against size (rad). */
const sizeOfFold = (fold: number): number => Math.max(Math.abs(fold), 1e-7);
const relative = ({ columns, error }: System, block: Block, q: Float64Array): Pick<System, 'columns' | 'error'> => ({ error, columns: columns.map((c, k) => c.map((x) => x * sizeOfFold(q[block.unknowns[k]]))) });

const energyWeight = (linkage: Linkage, j: number): number => Math.max(jointLength(linkage.joints[j]), 1);

const energyOf = (linkage: Linkage, block: Block, q: Float64Array, rest: (j: number) => number): number =>
  block.unknowns.reduce((sum, j) => sum + energyWeight(linkage, j) * (q[j] - rest(j)) ** 2, 0);

/**
 * Least `sum length (fold - rest)²` under closure, from a closed pose, in place. Fold bounds by an active set.
 * The Hessian carries the loops' curvature: C_ij = ½ [X_i, X_j] of the loop's twists (second derivative of a product of exponentials).
 * @returns iterations
 */
function settleEnergy(linkage: Linkage, block: Block, q: Float64Array, rest: (j: number) => number): number {
  const held = new Set<number>();
  let iterations = 0;
  while (iterations < MOST_ITERATIONS) {
    const free = block.unknowns.filter((j) => !held.has(j));
    const lastClosed = q.slice();
    const sub = { ...block, unknowns: free };
    const system = buildSystem(linkage, block.loops, free, q);
    const { free: directions } = leastChange(system);
    if (directions.length === 0) break;
    const Z = new Matrix(directions.map((d) => [...d])).transpose();
    const g = free.map((j, k) => 2 * energyWeight(linkage, j) * (q[j] - rest(j)) * system.scale[k]);
    const along = Z.transpose().mmul(Matrix.columnVector(g));
    const gradient = Math.hypot(...g);
    if (gradient === 0 || along.norm() <= ENERGY_SETTLED * gradient) break;
    const direction = energyStep(linkage, sub, system, Z, along, g);
    const before = energyOf(linkage, block, q, rest);
    const slope = direction.reduce((s, d, k) => s + d * g[k], 0);
    let moved = false;
    // A bound in the way: go up to it; already at it, hold that fold there and look again.
    const room = boundRoom(linkage, free, q, direction.map((d, k) => d * system.scale[k]));
    if (room.t < 1e-3) {
      held.add(room.joint);
      continue;
    }
    for (let t = Math.min(1, room.t); t > 1e-4 && !moved; t /= 2) {
      const trial = q.slice();
      free.forEach((j, k) => (trial[j] += t * direction[k] * system.scale[k]));
      iterations++;
      if (!closeLoops(linkage, sub, trial).ok) continue;
      if (energyOf(linkage, block, trial, rest) > before + 1e-4 * t * slope) continue;
      q.set(trial);
      moved = true;
    }
    const out = free.filter((j) => outOfBounds(linkage, j, q[j]));
    for (const j of out) {
      held.add(j);
      q[j] = nearestBound(linkage, j, q[j]);
    }
    if (out.length > 0) {
      // Held at its bound the rest must still close; if it cannot, the pose before was the last legal one.
      if (!closeLoops(linkage, { ...block, unknowns: free.filter((j) => !held.has(j)) }, q).closed) {
        q.set(lastClosed);
        break;
      }
    } else if (!moved) break;
  }
  return iterations;
}

function energyStep(linkage: Linkage, block: Block, system: System, Z: Matrix, along: Matrix, g: readonly number[]): number[] {
  const n = block.unknowns.length;
  const H = Matrix.diag(block.unknowns.map((j, k) => 2 * energyWeight(linkage, j) * system.scale[k] ** 2), n, n);
  const multipliers = leastChange({ columns: transposed(system.columns, system.error.length), error: Float64Array.from(g) }).delta;
  const column = new Map(block.unknowns.map((j, k) => [j, k]));
  block.loops.forEach((loop, l) => addCurvature(H, loop.steps.map((s) => column.get(s.joint)), system, l, multipliers));
  const reduced = Z.transpose().mmul(H).mmul(Z);
  const { realEigenvalues: values, eigenvectorMatrix: E } = new EigenvalueDecomposition(reduced, { assumeSymmetric: true });
  const floor = 1e-3 * Math.max(...values.map(Math.abs));
  const c = E.transpose().mmul(along).to1DArray().map((x, i) => -x / Math.max(Math.abs(values[i]), floor));
  const step = Z.mmul(E).mmul(Matrix.columnVector(c)).to1DArray();
  const size = Math.max(...step.map(Math.abs));
  return size > ENERGY_CAP_RAD ? step.map((x) => (x * ENERGY_CAP_RAD) / size) : step;
}

/** Adds λ·½[X_i, X_j] of one loop to H; twists are taken about the loop's centre, before the turning rows are scaled by its radius L. */
function addCurvature(H: Matrix, columns: readonly (number | undefined)[], { states, scale }: System, l: number, multipliers: Float64Array): void {
  const { columns: X, radiusMm: L } = states[l];
  const w = columns.map((_, i): Vec3 => [X[6 * i] / L, X[6 * i + 1] / L, X[6 * i + 2] / L]);
  const v = columns.map((_, i): Vec3 => [X[6 * i + 3], X[6 * i + 4], X[6 * i + 5]]);
  const λ = multipliers.subarray(6 * l, 6 * l + 6);
  for (let i = 0; i < columns.length; i++) {
    const a = columns[i];
    if (a === undefined) continue;
    for (let k = i + 1; k < columns.length; k++) {
      const b = columns[k];
      if (b === undefined || a === b) continue;
      const turn = cross3(w[i], w[k]);
      const left = cross3(w[i], v[k]);
      const right = cross3(w[k], v[i]);
      let bent = 0;
      for (let r = 0; r < 3; r++) bent += λ[r] * L * turn[r] + λ[3 + r] * (left[r] - right[r]);
      const add = 0.5 * bent * scale[a] * scale[b];
      H.set(a, b, H.get(a, b) + add);
      H.set(b, a, H.get(b, a) + add);
    }
  }
}

const transposed = (columns: readonly Float64Array[], rows: number): Float64Array[] =>
  Array.from({ length: rows }, (_, r) => Float64Array.from(columns, (c) => c[r]));

/** How far along a step the first fold meets its bound (flat, or 180), and which. */
function boundRoom(linkage: Linkage, free: readonly number[], q: Float64Array, step: readonly number[]): { t: number; joint: number } {
  let first = { t: Infinity, joint: -1 };
  free.forEach((j, k) => {
    const { motion, role } = linkage.joints[j];
    if (motion.kind !== 'turn' || step[k] === 0) return;
    const inward = role !== 0 && step[k] * role < 0;
    const room = inward ? Math.max(0, q[j] * role) : Math.max(0, Math.PI - Math.abs(q[j]));
    if (room / Math.abs(step[k]) < first.t) first = { t: room / Math.abs(step[k]), joint: j };
  });
  return first;
}

function outOfBounds(linkage: Linkage, j: number, value: number): boolean {
  const { motion, role } = linkage.joints[j];
  return motion.kind === 'turn' && (Math.abs(value) > Math.PI + 1e-12 || value * role < -1e-12);
}
function nearestBound(linkage: Linkage, j: number, value: number): number {
  return value * linkage.joints[j].role < 0 ? 0 : Math.sign(value) * Math.PI;
}
