/**
 * Walking a linkage through its travel. Poses are reached in steps from a start that is known exactly, and the walk is the
 * same whatever was asked before: the nodes of the walk do not depend on the queries.
 */
import { AT_END_RAD, LEAST_STEP_RAD, LOOP_ACCEPT_MM, ROLE_SLACK_RAD, SNAP_WINDOW_RAD } from '../tolerance';
import { degToRad } from '../units/angle';
import { solveOrder, type Block, type SolveOrder } from './blocks';
import { closeBlock, FOLLOW_ITERATIONS, type Closing } from './close';
import type { Linkage } from './joint';
import { loopState } from './loop-error';
import type { Loop } from './loops';
import { seeded } from './random';

export interface Folds {
  /** Lead drive, rad. */
  readonly drive: number;
  /** Value of every joint, rad (tracks: mm). */
  readonly q: Float64Array;
  readonly iterations: number;
  /** Greatest loop error, mm. */
  readonly residualMm: number;
  /** Loops that do not close as rigid facets here. */
  readonly bentLoops: readonly Loop[];
}
export type StopReason = 'taut' | 'reversed' | 'past-180' | 'wrong-branch' | 'no-start';
export interface Stop {
  /** Last drive value reached, rad. */
  readonly drive: number;
  readonly reason: StopReason;
  /** Joints of the block that could not go on. */
  readonly joints: readonly number[];
}
export type Reached = { readonly folds: Folds; readonly stop?: Stop };

const FIRST_STEP = degToRad(1);
const LARGEST_STEP = degToRad(5);
/** Leaving a singular start depends on the direction, not on the size of the step: halving is soon given up. */
const LEAST_LEAVING_STEP = degToRad(0.2);
/** Start directions tried for a block at a singular pose; slow and fast creases of one vertex differ by up to about 12 to 1. */
const START_TRIES = 40;
/** Uniform sizes tried before random ones, in units of the drive's step. */
const START_SIZES = [1, 0, 4, 11, 0.3];
const START_SPREAD = 12;
/** Random poses tried for a block when no end of the travel is known. */
const SEARCH_TRIES = 40;
/** Windows before an end from which its exact folds are extrapolated: wide first, narrower where slow folds lag. */
const END_WINDOWS = [degToRad(1), degToRad(0.1), degToRad(0.01)];
/** Folds at an end further than this from where the travel heads are another branch. */
const END_DRIFT = degToRad(25);

interface Failure {
  readonly reason: StopReason;
  readonly block: Block;
}
type Attempt = { readonly ok: true; readonly folds: Folds } | { readonly ok: false; readonly failure: Failure };

export class Travel {
  readonly order: SolveOrder;
  private readonly start: Folds | null;
  private readonly walks: Walk[];
  private work = 0;

  constructor(private readonly linkage: Linkage) {
    this.order = solveOrder(linkage);
    this.start = this.findStart();
    this.walks = this.start ? linkage.range.map((end) => ({ end, nodes: [this.start!], stop: undefined, finish: undefined })) : [];
  }

  /** What has been spent on poses so far: Newton steps times the squares of the unknowns they were taken in. The same for the same questions. */
  get spent(): number {
    return this.work;
  }
  private close(block: Block, q: Float64Array, rest: (joint: number) => number, most?: number): Closing {
    const closing = closeBlock(this.linkage, block, q, rest, most);
    this.work += closing.iterations * block.unknowns.length ** 2;
    return closing;
  }

  /** The pose at `drive` (rad), or the last one before the travel stops. */
  at(drive: number): Reached {
    const [closed, open] = this.linkage.range;
    const target = Math.min(Math.max(drive, Math.min(closed, open)), Math.max(closed, open));
    if (!this.start) return { folds: this.stillFolds(target), stop: { drive: target, reason: 'no-start', joints: this.order.blocks.flatMap((b) => b.unknowns) } };
    if (Math.abs(target - this.start.drive) < AT_END_RAD) return { folds: this.start };
    const walk = this.walks.find((w) => (w.end - this.start!.drive) * (target - this.start!.drive) > 0)!;
    if (Math.abs(target - walk.end) < AT_END_RAD) return this.finish(walk);
    this.extend(walk, target);
    const last = walk.nodes[walk.nodes.length - 1];
    // Past the place where the walk stopped nothing is tried again: a longer leap might land on another branch.
    const past = walk.stop !== undefined && (target - last.drive) * (walk.end - last.drive) > 0 && Math.abs(target - last.drive) > AT_END_RAD;
    const reached = past ? null : this.between(walk, target);
    if (reached) return { folds: reached };
    return { folds: last, stop: walk.stop ?? { drive: last.drive, reason: 'wrong-branch', joints: [] } };
  }

  /** Drive values (rad) where the travel ends by itself before an end of its range. */
  stops(): Stop[] {
    if (!this.start) return [this.at(this.linkage.range[0]).stop!];
    return this.walks.flatMap((w) => {
      if (Math.abs(w.end - this.start!.drive) < AT_END_RAD) return [];
      const reached = this.finish(w);
      return reached.stop ? [reached.stop] : [];
    });
  }

  /** Blocks whose loops do not close with the folds the design states for the closed end: by how much, mm. */
  closedGaps(): { readonly mm: number; readonly joints: readonly number[] }[] {
    const q = this.stillFolds(this.linkage.range[0]).q.slice();
    this.linkage.joints.forEach((j, i) => {
      if (!j.driven) q[i] = j.ends[0] ?? Number.NaN;
    });
    return this.order.blocks.flatMap((b) => {
      const mm = this.errorOf(b.loops, q);
      return Number.isFinite(mm) && mm > LOOP_ACCEPT_MM ? [{ mm, joints: b.unknowns }] : [];
    });
  }

  private extend(walk: Walk, target: number): void {
    const { nodes } = walk;
    const direction = Math.sign(walk.end - nodes[0].drive);
    // The walk keeps clear of the end itself, which is singular: `finish` goes there.
    const limit = walk.end - direction * END_WINDOWS[0];
    let step = nodes.length > 1 ? LARGEST_STEP : FIRST_STEP;
    while (!walk.stop) {
      const last = nodes[nodes.length - 1];
      if ((last.drive - target) * direction >= 0 || (last.drive - limit) * direction >= -1e-12) return;
      const next = direction > 0 ? Math.min(last.drive + step, limit) : Math.max(last.drive - step, limit);
      const attempt = this.attempt(last, nodes[nodes.length - 2], next);
      if (attempt.ok) {
        nodes.push(attempt.folds);
        step = Math.min(step * 2, LARGEST_STEP);
      } else if (step / 2 < (nodes.length > 1 ? LEAST_STEP_RAD : LEAST_LEAVING_STEP)) {
        walk.stop = { drive: last.drive, reason: attempt.failure.reason, joints: attempt.failure.block.unknowns };
      } else step /= 2;
    }
  }

  /** A pose between two nodes of the walk, or just past the last one. */
  private between(walk: Walk, target: number): Folds | null {
    const { nodes } = walk;
    const direction = Math.sign(walk.end - nodes[0].drive);
    const after = nodes.findIndex((n) => (n.drive - target) * direction >= 0);
    if (after > 0) {
      if (Math.abs(nodes[after].drive - target) < AT_END_RAD) return nodes[after];
      const attempt = this.attempt(nodes[after - 1], nodes[after], target);
      if (attempt.ok) return attempt.folds;
    }
    let last = nodes[after > 0 ? after - 1 : nodes.length - 1];
    let before: Folds | undefined = nodes[(after > 0 ? after - 1 : nodes.length - 1) - 1];
    for (let step = Math.abs(target - last.drive); step > LEAST_STEP_RAD / 2; ) {
      const next = Math.abs(target - last.drive) <= step ? target : last.drive + direction * step;
      const attempt = this.attempt(last, before, next);
      if (!attempt.ok) {
        step /= 2;
        continue;
      }
      [before, last] = [last, attempt.folds];
      if (next === target) return last;
    }
    return null;
  }

  private attempt(prev: Folds, other: Folds | undefined, drive: number): Attempt {
    const q = prev.q.slice();
    if (other) {
      const t = (drive - prev.drive) / (other.drive - prev.drive);
      for (let j = 0; j < q.length; j++) q[j] += (other.q[j] - prev.q[j]) * t;
    }
    this.setDriven(q, drive);
    let iterations = 0;
    for (const block of this.order.blocks) {
      const failure = other ? this.follow(block, prev, q, drive) : this.leave(block, prev, q, drive);
      if (typeof failure === 'string') return { ok: false, failure: { reason: failure, block } };
      iterations = Math.max(iterations, failure);
    }
    this.setLoose(q, drive);
    return { ok: true, folds: this.measured(q, drive, iterations) };
  }

  /** Close a block near its prediction. Returns iterations, or why the result is not taken. */
  private follow(block: Block, prev: Folds, q: Float64Array, drive: number): number | StopReason {
    const predicted = block.unknowns.reduce((m, j) => Math.max(m, Math.abs(q[j] - prev.q[j])), 0);
    const closing = this.close(block, q, this.rest(q, drive), FOLLOW_ITERATIONS);
    if (!closing.ok) return 'taut';
    const bad = this.roleFault(block, q);
    if (bad) return bad;
    // Twice the step, or twice what the predictor moved where a crease runs faster than the drive; bending blocks settle more slowly.
    const allowed = 2 * Math.max(Math.abs(drive - prev.drive), predicted) + 1e-6;
    if (closing.correction > allowed && !block.overdetermined) return 'wrong-branch';
    return closing.iterations;
  }

  /** Leave a singular pose: the loops there fix only the direction, so directions are tried. */
  private leave(block: Block, prev: Folds, q: Float64Array, drive: number): number | StopReason {
    const step = Math.max(Math.abs(drive - prev.drive), 1e-9);
    const random = seeded(block.unknowns[0] + 1);
    const heading = block.unknowns.map((j) => {
      const from = prev.q[j];
      return Math.abs(from) > Math.PI - 1e-9 ? -Math.sign(from) : this.linkage.joints[j].role;
    });
    let reason: StopReason = 'no-start';
    for (let k = 0; k <= START_TRIES; k++) {
      block.unknowns.forEach((j, i) => {
        const size = START_SIZES[k] ?? START_SPREAD ** (2 * random() - 1);
        const sign = heading[i] || (random() < 0.5 ? -1 : 1);
        q[j] = prev.q[j] + sign * size * step;
      });
      const closing = this.close(block, q, this.rest(q, drive), FOLLOW_ITERATIONS);
      if (!closing.ok) continue;
      const fault = this.roleFault(block, q);
      // Far from the start pose it closed on something else, however well the signs agree.
      const strayed = block.unknowns.some((j) => Math.abs(q[j] - prev.q[j]) > Math.max(START_SPREAD * 1.5 * step, degToRad(30)));
      const stayed = block.unknowns.every((j) => this.linkage.joints[j].role !== 0 && Math.abs(q[j] - prev.q[j]) < 1e-9 * step) && block.freedoms === 0;
      if (!fault && !strayed && !stayed) return closing.iterations;
      reason = fault ?? 'wrong-branch';
    }
    return reason;
  }

  private roleFault(block: Block, q: Float64Array): StopReason | null {
    for (const j of block.unknowns) {
      const { motion, role } = this.linkage.joints[j];
      if (motion.kind !== 'turn') continue;
      if (Math.abs(q[j]) > Math.PI + ROLE_SLACK_RAD) return 'past-180';
      if (q[j] * role < -ROLE_SLACK_RAD) return 'reversed';
    }
    return null;
  }

  /** The pose at an end of the range: exact folds where they can be told, Newton's where not. */
  private finish(walk: Walk): Reached {
    return (walk.finish ??= this.findFinish(walk));
  }
  private findFinish(walk: Walk): Reached {
    const direction = Math.sign(walk.end - walk.nodes[0].drive);
    this.extend(walk, walk.end);
    let best: Reached | undefined;
    for (const window of END_WINDOWS) {
      const far = this.at(walk.end - direction * window);
      const near = this.at(walk.end - direction * (window / 2));
      if (far.stop || near.stop) return best ?? { folds: (near.stop ? far : near).folds, stop: near.stop ?? far.stop };
      const end = this.snap(far.folds, near.folds, walk.end);
      if (typeof end === 'string') return { folds: near.folds, stop: { drive: near.folds.drive, reason: end, joints: this.order.blocks.flatMap((b) => b.unknowns) } };
      best = { folds: end.folds };
      if (end.exact) break;
    }
    return best!;
  }

  private snap(far: Folds, near: Folds, end: number): { folds: Folds; exact: boolean } | StopReason {
    const q = near.q.map((x, j) => x + ((x - far.q[j]) * (end - near.drive)) / (near.drive - far.drive));
    this.setDriven(q, end);
    const side = end === this.linkage.range[0] ? 0 : 1;
    let iterations = 0;
    let exact = true;
    for (const block of this.order.blocks) {
      if (this.takeExact(block, q, side)) continue;
      const before = q.slice();
      const closing = this.close(block, q, this.rest(q, end));
      iterations = Math.max(iterations, closing.iterations);
      const fault = closing.ok ? this.roleFault(block, q) : 'taut';
      const regular = closing.closed && closing.condition > 1e-4;
      if (!fault && (regular || block.overdetermined)) continue;
      exact = false;
      // Singular here: a reversed sign within the window's rounding is no fault of the design.
      if (fault) block.unknowns.forEach((j) => (q[j] = before[j]));
    }
    this.setLoose(q, end);
    return { folds: this.measured(q, end, iterations), exact };
  }

  /** Put a block's folds to values known exactly: those its design states, or 0 and ±180 where it heads there. */
  private takeExact(block: Block, q: Float64Array, side: 0 | 1): boolean {
    const before = block.unknowns.map((j) => q[j]);
    const candidates = [
      block.unknowns.map((j, k) => near(this.linkage.joints[j].ends[side], before[k], END_DRIFT)),
      before.map((x) => near(Math.round(x / Math.PI) * Math.PI, x, SNAP_WINDOW_RAD)),
    ];
    for (const values of candidates) {
      if (values.some((x) => x === null)) continue;
      block.unknowns.forEach((j, k) => (q[j] = values[k]! + 0));
      if (this.errorOf(block.loops, q) < LOOP_ACCEPT_MM && !this.roleFault(block, q)) return true;
    }
    block.unknowns.forEach((j, k) => (q[j] = before[k]));
    return false;
  }

  /** Where all folds are known exactly: closed, else open flat; else somewhere between, found by search. */
  private findStart(): Folds | null {
    for (const side of [0, 1] as const) {
      const q = this.stillFolds(this.linkage.range[side]).q.slice();
      const unknown = this.order.blocks.flatMap((b) => b.unknowns);
      if (unknown.some((j) => this.linkage.joints[j].ends[side] === undefined)) continue;
      unknown.forEach((j) => (q[j] = this.linkage.joints[j].ends[side]!));
      if (this.order.blocks.some((b) => !b.overdetermined && this.errorOf(b.loops, q) >= LOOP_ACCEPT_MM)) continue;
      if (this.order.blocks.some((b) => this.roleFault(b, q))) continue;
      this.setLoose(q, this.linkage.range[side]);
      return this.measured(q, this.linkage.range[side], 0);
    }
    const [closed, open] = this.linkage.range;
    for (const part of [0.5, 0.3, 0.7]) {
      const found = this.searchAt(closed + (open - closed) * part);
      if (found) return found;
    }
    return null;
  }

  /** Folds of any size with the roles' signs, until every block closes. */
  private searchAt(drive: number): Folds | null {
    const q = this.stillFolds(drive).q.slice();
    let iterations = 0;
    for (const block of this.order.blocks) {
      const random = seeded(block.unknowns[0] + 7);
      let found = false;
      for (let k = 0; k < SEARCH_TRIES && !found; k++) {
        block.unknowns.forEach((j) => {
          const { role, motion } = this.linkage.joints[j];
          const sign = role || (random() < 0.5 ? -1 : 1);
          const size = k === 0 ? Math.min(drive, 3) : 0.1 + 3 * random();
          q[j] = motion.kind === 'turn' ? sign * size : q[j];
        });
        const closing = this.close(block, q, this.rest(q, drive), FOLLOW_ITERATIONS);
        iterations = Math.max(iterations, closing.iterations);
        found = closing.ok && !this.roleFault(block, q);
      }
      if (!found) return null;
    }
    this.setLoose(q, drive);
    return this.measured(q, drive, iterations);
  }

  private stillFolds(drive: number): Folds {
    const q = new Float64Array(this.linkage.joints.length);
    this.setDriven(q, drive);
    return { drive, q, iterations: 0, residualMm: 0, bentLoops: [] };
  }

  private setDriven(q: Float64Array, drive: number): void {
    this.linkage.joints.forEach(({ driven }, j) => {
      if (driven) q[j] = driven.at + driven.rate * drive;
    });
  }
  private setLoose(q: Float64Array, drive: number): void {
    const rest = this.rest(q, drive);
    for (const j of this.order.loose) q[j] = rest(j);
  }
  /** Fold a crease's stiffness asks for: its role times the local drive, so that an even pose costs nothing and cannot snap. */
  private rest(q: Float64Array, drive: number): (joint: number) => number {
    return (j) => {
      const { role, follows, motion } = this.linkage.joints[j];
      if (motion.kind !== 'turn') return 0;
      return role * (follows === undefined ? Math.abs(drive) : Math.abs(q[follows]));
    };
  }

  private errorOf(loops: readonly Loop[], q: Float64Array): number {
    return loops.reduce((m, l) => Math.max(m, loopState(this.linkage, l, q).sizeMm), 0);
  }
  private measured(q: Float64Array, drive: number, iterations: number): Folds {
    let residualMm = 0;
    const bentLoops: Loop[] = [];
    const look = (loop: Loop): void => {
      const { sizeMm } = loopState(this.linkage, loop, q);
      residualMm = Math.max(residualMm, sizeMm);
      if (sizeMm > 1e3 * LOOP_ACCEPT_MM) bentLoops.push(loop);
    };
    this.order.blocks.forEach((b) => b.loops.forEach(look));
    this.order.checks.forEach(look);
    return { drive, q, iterations, residualMm, bentLoops };
  }
}

interface Walk {
  readonly end: number;
  readonly nodes: Folds[];
  stop: Stop | undefined;
  finish: Reached | undefined;
}

const near = (value: number | undefined, to: number, within: number): number | null =>
  value !== undefined && Math.abs(value - to) <= within ? value : null;
