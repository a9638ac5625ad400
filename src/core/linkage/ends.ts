/** The pose at an end of the range, where Newton's method cannot tell it: exact folds by extrapolation and rounding. */
import { REGULAR_POSE, SNAP_WINDOW_RAD } from '../tolerance';
import { degToRad } from '../units/angle';
import type { BlockSolver, Folds, Reached, StopReason } from './block-solver';
import type { Block } from './block';
import { END_WINDOW, type Walk } from './walk';

/**
 * Windows before an end from which its exact folds are extrapolated, in parts of the range (180 of them): wide first,
 * narrower where slow folds lag.
 */
const END_WINDOWS = [END_WINDOW, 0.1, 0.01];
/** Folds at an end further than this from where the travel heads are another branch. */
const END_DRIFT = degToRad(25);

/** @param at the pose at a drive value of the walk, short of its end */
export function findFinish(solver: BlockSolver, walk: Walk, at: (drive: number) => Reached): Reached {
  const { direction } = walk;
  walk.extend(walk.end);
  let best: Reached | undefined;
  for (const window of END_WINDOWS.map(solver.parts)) {
    const far = at(walk.end - direction * window);
    const near = at(walk.end - direction * (window / 2));
    if (far.stop || near.stop) return best ?? { folds: (near.stop ? far : near).folds, stop: near.stop ?? far.stop };
    const { drive } = near.folds;
    const end = snap(solver, far.folds, near.folds, walk.end);
    if (typeof end === 'string') {
      const joints = solver.order.blocks.flatMap((b) => b.unknowns);
      return { folds: near.folds, stop: { lead: solver.lead.drive, drive, reason: end, joints, toward: walk.toward } };
    }
    best = { folds: end.folds };
    if (end.exact) break;
  }
  return best!;
}

function snap(
  solver: BlockSolver,
  far: Folds,
  near: Folds,
  end: number,
): { folds: Folds; exact: boolean } | StopReason {
  const q = near.q.map((x, j) => x + ((x - far.q[j]) * (end - near.drive)) / (near.drive - far.drive));
  solver.setDriven(q, end);
  const side = end === solver.range[0] ? 0 : 1;
  let iterations = 0;
  let exact = true;
  for (const block of solver.order.blocks) {
    if (takeExact(solver, block, q, side)) continue;
    const before = q.slice();
    const closing = solver.close(block, q, end);
    iterations = Math.max(iterations, closing.iterations);
    const fault = closing.ok ? solver.roleFault(block, q) : 'taut';
    const regular = closing.closed && closing.condition > REGULAR_POSE;
    if (!fault && (regular || block.overdetermined)) continue;
    exact = false;
    // Singular here: a reversed sign within the window's rounding is no fault of the design.
    if (fault) block.unknowns.forEach((j) => (q[j] = before[j]));
  }
  solver.setLoose(q, end);
  return { folds: solver.measured(q, end, iterations), exact };
}

/** Put a block's folds to values known exactly: those its design states, or 0 and ±180 where it heads there. */
function takeExact(solver: BlockSolver, block: Block, q: Float64Array, side: 0 | 1): boolean {
  const before = block.unknowns.map((j) => q[j]);
  const candidates = [
    block.unknowns.map((j, k) => near(solver.linkage.joints[j].ends[side], before[k], END_DRIFT)),
    before.map((x) => near(Math.round(x / Math.PI) * Math.PI, x, SNAP_WINDOW_RAD)),
  ];
  for (const values of candidates) {
    if (values.some((x) => x === null)) continue;
    block.unknowns.forEach((j, k) => (q[j] = values[k]! + 0));
    if (solver.closesExactly(block.loops, q) && !solver.roleFault(block, q)) return true;
  }
  block.unknowns.forEach((j, k) => (q[j] = before[k]));
  return false;
}

const near = (value: number | undefined, to: number, within: number): number | null =>
  value !== undefined && Math.abs(value - to) <= within ? value : null;
