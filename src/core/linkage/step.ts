/** One step of a walk: every block is closed near its prediction, or led out of a singular pose. */
import { degToRad } from '../units/angle';
import type { BlockSolver, Failure, Folds, StopReason } from './block-solver';
import type { Block } from './block';
import { isLarge } from './block-algebra';
import { FOLLOW_ITERATIONS } from './close';
import { seeded } from './random';
import { vertexSeeds } from './vertex';
import { ANGLE_ROUNDING_RAD, CORRECTION_SLACK_RAD, STAYED_FLAT_RAD, STAYED_PART } from '../tolerance';

export type Attempt = { readonly ok: true; readonly folds: Folds } | { readonly ok: false; readonly failure: Failure };

/** Start directions tried for a block at a singular pose; fewer where each costs much. */
const START_TRIES = 40;
const LARGE_START_TRIES = 10;
/** Uniform sizes tried before random ones, in units of the drive's step. */
const START_SIZES = [1, 0, 4, 11, 0.3];
/** Slow and fast creases of one vertex differ by up to about this much; larger ratios come from closed forms. */
const START_SPREAD = 12;
/** Further from where it started than this many times the spread, or this angle, a block closed on something else. */
const STRAYED = 1.5;
const STRAYED_RAD = degToRad(30);

/**
 * From `prev` to `drive`; `other` is a second known pose to predict from, absent at the start. Where folds run ever
 * faster, as before a card is pulled taut, the way between two poses says too little: then the speed at `prev` does.
 */
export function attempt(solver: BlockSolver, prev: Folds, other: Folds | undefined, drive: number): Attempt {
  const [block] = solver.order.blocks;
  if (block && goneOnTooLong(solver, prev)) return { ok: false, failure: { reason: 'given-up', block } };
  if (!other) return closeAll(solver, prev, prev.q.slice(), drive, false);
  const t = (drive - prev.drive) / (other.drive - prev.drive);
  const secant = prev.q.map((x, j) => x + (other.q[j] - x) * t);
  const tried = closeAll(solver, prev, secant, drive, true);
  if (tried.ok || tried.failure.reason !== 'wrong-branch') return tried;
  const speed = solver.speedsAt(prev);
  return speed
    ? closeAll(
        solver,
        prev,
        prev.q.map((x, j) => x + speed[j] * (drive - prev.drive)),
        drive,
        true,
      )
    : tried;
}

const goneOnTooLong = (solver: BlockSolver, { drive }: Folds): boolean => solver.watch?.(drive) === false;

/** Close every block from the prediction in `q`. */
function closeAll(solver: BlockSolver, prev: Folds, q: Float64Array, drive: number, following: boolean): Attempt {
  solver.setDriven(q, drive);
  let iterations = 0;
  for (const block of solver.order.blocks) {
    const done = following ? follow(solver, block, prev, q, drive) : leave(solver, block, prev, q, drive);
    if (typeof done === 'string') return { ok: false, failure: { reason: done, block } };
    iterations = Math.max(iterations, done);
  }
  solver.setLoose(q, drive);
  return { ok: true, folds: solver.measured(q, drive, iterations) };
}

/** Close a block near its prediction. Returns iterations, or why the result is not taken. */
function follow(solver: BlockSolver, block: Block, prev: Folds, q: Float64Array, drive: number): number | StopReason {
  const predicted = block.unknowns.reduce((m, j) => Math.max(m, Math.abs(q[j] - prev.q[j])), 0);
  // Kept only where it may be gone back to: a sheet has hundreds of blocks and a thousand joints.
  const from = block.freedoms > 0 && isLarge(block) ? q.slice() : null;
  const closing = solver.close(block, q, drive, FOLLOW_ITERATIONS);
  // Twice the step, or twice what the predictor moved where a crease runs faster than the drive; bending blocks
  // settle more slowly.
  const allowed = 2 * Math.max(solver.asTurn(drive - prev.drive), predicted) + CORRECTION_SLACK_RAD;
  const strayed = closing.correction > allowed && !block.overdetermined;
  const fault = !closing.ok ? 'taut' : (solver.roleFault(block, q) ?? (strayed ? 'wrong-branch' : null));
  if (!fault) return closing.iterations;
  return from ? heldBack(solver, block, from, q, allowed, fault) : fault;
}

/**
 * Where the evenest pose of a large sheet lies elsewhere of a sudden, paper that is folded slowly does not leap: it
 * goes on from where it is, by as little as its loops ask.
 */
function heldBack(
  solver: BlockSolver,
  block: Block,
  predicted: Float64Array,
  q: Float64Array,
  allowed: number,
  fault: StopReason,
): number | StopReason {
  q.set(predicted);
  const iterations = solver.closeKeepingSigns(block, q);
  const strayed = block.unknowns.some((j) => Math.abs(q[j] - predicted[j]) > allowed);
  return iterations === null || strayed ? fault : (solver.roleFault(block, q) ?? iterations);
}

/** Leave a singular pose: the loops there fix only the direction, so directions are tried. */
function leave(solver: BlockSolver, block: Block, prev: Folds, q: Float64Array, drive: number): number | StopReason {
  const step = Math.max(solver.asTurn(drive - prev.drive), ANGLE_ROUNDING_RAD);
  for (const seed of vertexSeeds(solver.linkage, block, prev.q, q)) {
    block.unknowns.forEach((j, i) => (q[j] = seed[i]));
    const closing = solver.close(block, q, drive, FOLLOW_ITERATIONS);
    // A closed form needs no search: where it does not close as it stands it was not the right one.
    if (closing.ok && closing.correction < CORRECTION_SLACK_RAD && !solver.roleFault(block, q))
      return closing.iterations;
  }
  const leaving = { solver, block, prev, q, drive, step };
  return leaveBySizes(leaving) ?? leaveByTries(leaving);
}

/** A block at a singular pose, and how far its drive goes from there, as a turn. */
interface Leaving {
  readonly solver: BlockSolver;
  readonly block: Block;
  readonly prev: Folds;
  readonly q: Float64Array;
  readonly drive: number;
  readonly step: number;
}

/** A large flat sheet whose every crease has a role: all folds at once, as even as they go. Null where that fails. */
function leaveBySizes({ solver, block, prev, q, drive, step }: Leaving): number | null {
  const { joints } = solver.linkage;
  if (!isLarge(block) || block.freedoms === 0) return null;
  if (block.unknowns.some((j) => joints[j].role === 0 || joints[j].motion.kind === 'track' || prev.q[j] !== 0))
    return null;
  for (const j of block.unknowns) q[j] = joints[j].role * step;
  if (!solver.closeBySizes(block, q)) return null;
  const closing = solver.close(block, q, drive, FOLLOW_ITERATIONS);
  return closing.ok && !solver.roleFault(block, q) ? closing.iterations : null;
}

/** Directions tried from the singular pose, even ones first. */
function leaveByTries({ solver, block, prev, q, drive, step }: Leaving): number | StopReason {
  const { joints } = solver.linkage;
  const random = seeded(block.unknowns[0] + 1);
  const heading = block.unknowns.map((j) => {
    const from = prev.q[j];
    return Math.abs(from) > Math.PI - ANGLE_ROUNDING_RAD ? -Math.sign(from) : joints[j].role;
  });
  let reason: StopReason = 'no-start';
  const tries = isLarge(block) ? LARGE_START_TRIES : START_TRIES;
  for (let k = 0; k <= tries; k++) {
    if (goneOnTooLong(solver, prev)) return 'given-up';
    block.unknowns.forEach((j, i) => {
      const size = START_SIZES[k] ?? START_SPREAD ** (2 * random() - 1);
      const sign = heading[i] || (random() < 0.5 ? -1 : 1);
      q[j] = prev.q[j] + sign * size * step;
    });
    const closing = solver.close(block, q, drive, FOLLOW_ITERATIONS);
    if (!closing.ok) continue;
    const fault = solver.roleFault(block, q);
    const moved = block.unknowns.map((j) => Math.abs(q[j] - prev.q[j]));
    // Far from the start pose it closed on something else, however well the signs agree.
    const strayed = moved.some((m) => m > Math.max(START_SPREAD * STRAYED * step, STRAYED_RAD));
    const stayed = stayedFlat(solver, block, moved, step);
    if (!fault && !strayed && !stayed) return closing.iterations;
    reason = fault ?? (stayed ? 'not-rigid' : 'wrong-branch');
  }
  return reason;
}

/**
 * Whether what is to fold stays flat: the whole block, or any crease of one that asks more than it can give. There the
 * sheet has found a way to leave out what it cannot do, as one that folds across its diagonal alone.
 */
function stayedFlat({ linkage }: BlockSolver, block: Block, moved: readonly number[], step: number): boolean {
  const stays = (least: number) => (j: number, i: number) => linkage.joints[j].role !== 0 && moved[i] < least;
  return (
    (block.freedoms === 0 && block.unknowns.every(stays(STAYED_PART * step))) ||
    (block.overdetermined && block.unknowns.some(stays(STAYED_FLAT_RAD)))
  );
}
