/** Closing a block: Newton on its loops, least change, then least crease energy along what is left free. */
import {
  ARRIVED_RAD,
  BOUND_SLACK_RAD,
  ENERGY_CAP_RAD,
  ENERGY_SETTLED,
  LEAST_SIZE_RAD,
  LOOP_ACCEPT_MM,
  LOOP_AIM_MM,
  NEWTON_CAP_RAD,
  SETTLED_RAD,
} from '../tolerance';
import { algebraOf, approachFor, isLarge } from './block-algebra';
import { denseAlgebra } from './dense-algebra';
import type { Block } from './block';
import { boundsOf, jointLength, type Linkage } from './joint';

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
/** A fold goes at most this part of the way to flat in one step, where folds keep their signs. */
const TOWARD_FLAT = 0.7;
/** Armijo's condition: part of the promised fall of the energy that a step must bring. */
const ARMIJO = 1e-4;
/** Below this part of a full energy step the search along it ends; a bound nearer than that is met. */
const LEAST_PART = 1e-4;
const AT_BOUND = 1e-3;

const NONE: ReadonlySet<number> = new Set();

/** Solve `block` by changing its unknowns in `q`, in place; everything else in `q` is taken as known. */
export function closeBlock(
  linkage: Linkage,
  block: Block,
  q: Float64Array,
  rest: (joint: number) => number,
  most = MOST_ITERATIONS,
): Closing {
  // Only its own: a sheet has hundreds of blocks and a thousand joints.
  const start = block.unknowns.map((j) => q[j]);
  const done =
    block.freedoms > 0
      ? closeFree(linkage, block, q, rest)
      : (closeBySymmetry(linkage, block, q, rest) ?? closeDeterminate(linkage, block, q, most));
  const correction = block.unknowns.reduce((m, j, k) => Math.max(m, Math.abs(q[j] - start[k]) / done.scale[k]), 0);
  return { ...done, correction };
}

type Closed = Omit<Closing, 'correction'> & { readonly scale: Float64Array };

const closeDeterminate = (linkage: Linkage, block: Block, q: Float64Array, most: number): Closed =>
  closeLoops(linkage, block, q, NONE, block.overdetermined ? MOST_ITERATIONS : most);

/**
 * A large pattern may ask more of its folds than they can give and still move, because it is even: then its even pose
 * is the one of least energy. Null where that way does not close.
 */
function closeBySymmetry(
  linkage: Linkage,
  block: Block,
  q: Float64Array,
  rest: (joint: number) => number,
): Closed | null {
  if (!block.overdetermined || !isLarge(block)) return null;
  const start = q.slice();
  const done = approachEnergy(linkage, block, q, rest);
  if (done.closed) return done;
  q.set(start);
  return null;
}

/**
 * Loops first, then the energy along what they leave free; and where that way does not close, both at once. Large
 * blocks go the second way at once.
 */
function closeFree(linkage: Linkage, block: Block, q: Float64Array, rest: (joint: number) => number): Closed {
  const start = q.slice();
  let spent = 0;
  if (!isLarge(block)) {
    const newton = closeLoops(linkage, block, q, NONE, MOST_ITERATIONS, true);
    spent = newton.iterations;
    if (newton.ok) return { ...newton, iterations: spent + settleEnergy(linkage, block, q, rest) };
    q.set(start);
  }
  const done = approachEnergy(linkage, block, q, rest);
  return { ...done, iterations: spent + done.iterations };
}

/** Steps of both at once, at most. */
const MOST_APPROACHES = 40;
/** A step of the approach is at most this part of the largest fold, so that a start near flat stays near it. */
const APPROACH_PART = 0.3;

/** Least energy on the closed loops from a pose that is neither, by sequential quadratic programming. */
function approachEnergy(linkage: Linkage, block: Block, q: Float64Array, rest: (joint: number) => number): Closed {
  const step = approachFor(linkage, block);
  const held = new Set<number>();
  const { scale } = algebraOf(linkage, block)(q);
  let multipliers: Float64Array | null = null;
  let iterations = 0;
  for (; iterations < MOST_APPROACHES; iterations++) {
    const { gradient, diagonal } = energyAt(linkage, block, q, rest, scale);
    const next = step(q, held, gradient, diagonal, multipliers);
    if (!next) break;
    const size = next.delta.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
    const largest = block.unknowns.reduce((m, j) => Math.max(m, Math.abs(q[j])), 0);
    const most = Math.min(ENERGY_CAP_RAD, Math.max(APPROACH_PART * largest, LEAST_SIZE_RAD));
    const part = Math.min(1, most / size);
    block.unknowns.forEach((j, k) => (q[j] += part * next.delta[k] * scale[k]));
    // Multipliers of a step that was cut short say little.
    multipliers = part === 1 ? next.multipliers : null;
    if (holdBounds(linkage, block, held, q)) multipliers = null;
    else if (size < ARRIVED_RAD) break;
  }
  const closed = closeLoops(linkage, block, q, held);
  return { ...closed, iterations: iterations + closed.iterations };
}

/** Gradient and second derivatives of the energy, in scaled units. */
function energyAt(
  linkage: Linkage,
  block: Block,
  q: Float64Array,
  rest: (joint: number) => number,
  scale: Float64Array,
): { gradient: Float64Array; diagonal: Float64Array } {
  const weights = Float64Array.from(block.unknowns, (j) => energyWeight(linkage, j));
  return {
    gradient: weights.map((w, k) => 2 * w * (q[block.unknowns[k]] - rest(block.unknowns[k])) * scale[k]),
    diagonal: weights.map((w, k) => 2 * w * scale[k] ** 2),
  };
}

/**
 * `keepSigns`: change is measured against each fold's own size, and no fold is carried through flat. Where folds are
 * free there is room for that. Held joints stay.
 */
function closeLoops(
  linkage: Linkage,
  block: Block,
  q: Float64Array,
  held: ReadonlySet<number>,
  most = MOST_ITERATIONS,
  keepSigns = false,
): Closed {
  const at = algebraOf(linkage, block);
  let state = at(q);
  let condition = 1;
  let last = Infinity;
  let best = Infinity;
  let stale = 0;
  let iterations = 0;
  for (; iterations < most && state.sizeMm > LOOP_AIM_MM; iterations++) {
    // At the floor of double precision the error no longer falls: enough when it is below what is accepted.
    if (state.sizeMm < LOOP_ACCEPT_MM && state.sizeMm > last / 4) break;
    last = state.sizeMm;
    // What is left lies across directions that the rank cut took for free: more of the same steps will not close it.
    if (state.sizeMm < 0.99 * best) [best, stale] = [state.sizeMm, 0];
    else if (++stale >= STALE) break;
    const sizes = keepSigns ? Float64Array.from(block.unknowns, (j) => sizeOfFold(q[j])) : undefined;
    const step = state.newton(held, sizes);
    condition = step.condition;
    const size = step.delta.reduce((m, d) => Math.max(m, Math.abs(d)), 0);
    if (block.overdetermined && size < SETTLED_RAD) break;
    const cut = 1 / Math.max(1, size / NEWTON_CAP_RAD, keepSigns ? towardFlat(block, q, step.delta) : 1);
    block.unknowns.forEach((j, k) => (q[j] += step.delta[k] * cut * state.scale[k]));
    state = at(q);
    if (!Number.isFinite(state.sizeMm)) break;
  }
  const closed = state.sizeMm < LOOP_ACCEPT_MM;
  return {
    ok: closed || (block.overdetermined && iterations < MOST_ITERATIONS),
    closed,
    iterations,
    errorMm: state.sizeMm,
    condition,
    scale: state.scale,
  };
}

/** Least change, measured against each fold's own size, that closes the loops; folds at a bound stay there. */
export function closeKeepingSigns(linkage: Linkage, block: Block, q: Float64Array): Closed {
  const held = new Set<number>();
  let iterations = 0;
  for (;;) {
    const closed = closeLoops(linkage, block, q, held, MOST_ITERATIONS, true);
    iterations += closed.iterations;
    if (!closed.ok || !holdBounds(linkage, block, held, q)) return { ...closed, iterations };
  }
}

const sizeOfFold = (fold: number): number => Math.max(Math.abs(fold), LEAST_SIZE_RAD);

/** By how much a step must be shortened so that no fold goes too far towards flat. */
const towardFlat = (block: Block, q: Float64Array, delta: Float64Array): number =>
  block.unknowns.reduce(
    (m, j, k) => (delta[k] * q[j] < 0 ? Math.max(m, Math.abs(delta[k]) / sizeOfFold(q[j]) / TOWARD_FLAT) : m),
    1,
  );

const energyWeight = (linkage: Linkage, j: number): number => Math.max(jointLength(linkage.joints[j]), 1);

const energyOf = (linkage: Linkage, block: Block, q: Float64Array, rest: (j: number) => number): number =>
  block.unknowns.reduce((sum, j) => sum + energyWeight(linkage, j) * (q[j] - rest(j)) ** 2, 0);

/**
 * Least `sum length (fold - rest)²` under closure, from a closed pose, in place. Fold bounds by an active set.
 * @returns iterations
 */
function settleEnergy(linkage: Linkage, block: Block, q: Float64Array, rest: (j: number) => number): number {
  const held = new Set<number>();
  const at = denseAlgebra(linkage, block);
  let iterations = 0;
  while (iterations < MOST_ITERATIONS) {
    const lastClosed = q.slice();
    const state = at(q);
    const { gradient, diagonal } = energyAt(linkage, block, q, rest, state.scale);
    const full = state.descend(held, gradient, diagonal, ENERGY_SETTLED);
    if (!full) break;
    const direction = capped(full);
    // A bound in the way: go up to it; already at it, hold that fold there and look again.
    const room = boundRoom(linkage, block, held, q, direction, state.scale);
    if (room.t < AT_BOUND) {
      held.add(room.joint);
      continue;
    }
    const slope = direction.reduce((s, d, k) => s + d * gradient[k], 0);
    const before = energyOf(linkage, block, q, rest);
    let moved = false;
    for (let t = Math.min(1, room.t); t > LEAST_PART && !moved; t /= 2) {
      const trial = q.slice();
      block.unknowns.forEach((j, k) => (trial[j] += t * direction[k] * state.scale[k]));
      iterations++;
      if (!closeLoops(linkage, block, trial, held).ok) continue;
      if (energyOf(linkage, block, trial, rest) > before + ARMIJO * t * slope) continue;
      q.set(trial);
      moved = true;
    }
    if (!holdBounds(linkage, block, held, q)) {
      if (!moved) break;
      continue;
    }
    // Held at its bound the rest must still close; if it cannot, the pose before was the last legal one.
    if (!closeLoops(linkage, block, q, held).closed) {
      q.set(lastClosed);
      break;
    }
  }
  return iterations;
}

function capped(step: Float64Array): Float64Array {
  const size = step.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
  return size > ENERGY_CAP_RAD ? step.map((x) => (x * ENERGY_CAP_RAD) / size) : step;
}

/** How far along a step the first joint meets its bound (flat, 180, the end of its track), and which. */
function boundRoom(
  linkage: Linkage,
  block: Block,
  held: ReadonlySet<number>,
  q: Float64Array,
  step: Float64Array,
  scale: Float64Array,
): { t: number; joint: number } {
  let first = { t: Infinity, joint: -1 };
  block.unknowns.forEach((j, k) => {
    const way = step[k] * scale[k];
    if (way === 0 || held.has(j)) return;
    const [least, most] = boundsOf(linkage.joints[j]);
    const room = Math.max(0, way > 0 ? most - q[j] : q[j] - least);
    if (room / Math.abs(way) < first.t) first = { t: room / Math.abs(way), joint: j };
  });
  return first;
}

/** Folds past their bounds are put on them and held; whether there were any. */
function holdBounds(linkage: Linkage, block: Block, held: Set<number>, q: Float64Array): boolean {
  const out = block.unknowns.filter((j) => !held.has(j) && outOfBounds(linkage, j, q[j]));
  for (const j of out) {
    held.add(j);
    q[j] = nearestBound(linkage, j, q[j]);
  }
  return out.length > 0;
}

function outOfBounds(linkage: Linkage, j: number, value: number): boolean {
  const [least, most] = boundsOf(linkage.joints[j]);
  return value < least - BOUND_SLACK_RAD || value > most + BOUND_SLACK_RAD;
}
function nearestBound(linkage: Linkage, j: number, value: number): number {
  const [least, most] = boundsOf(linkage.joints[j]);
  return Math.min(most, Math.max(least, value));
}
