/** A walk from the start toward one end of the range, in steps that are as long as the loops allow. */
import { AT_END_RAD, BOUND_SLACK_RAD, LEAST_STEP_PART } from '../tolerance';
import type { BlockSolver, Failure, Folds, Reached, Stop } from './block-solver';
import { attempt } from './step';

/** Steps in parts of the drive's range, 180 of them: degrees of the opening. */
const FIRST_STEP = 1;
const LARGEST_STEP = 5;
/** Leaving a singular start depends on the direction, not on the size of the step: halving is soon given up. */
const LEAST_LEAVING_STEP = 0.2;
/** The walk keeps this far from the end itself, which is singular. */
export const END_WINDOW = 1;

export class Walk {
  readonly nodes: Folds[];
  stop: Stop | undefined;
  /** The pose at the end, once it is known. */
  finish: Reached | undefined;

  constructor(
    private readonly solver: BlockSolver,
    start: Folds,
    readonly end: number,
  ) {
    this.nodes = [start];
  }

  get start(): Folds {
    return this.nodes[0];
  }
  get last(): Folds {
    return this.nodes[this.nodes.length - 1];
  }
  get direction(): number {
    return Math.sign(this.end - this.start.drive);
  }
  get toward(): 'closed' | 'open' {
    return this.end === this.solver.range[0] ? 'closed' : 'open';
  }
  private get leaving(): boolean {
    return this.nodes.length === 1;
  }

  /** Whether `drive` lies further on than the place where the walk stopped. */
  isPast(drive: number): boolean {
    const beyond = (drive - this.last.drive) * this.direction;
    return this.stop !== undefined && beyond > AT_END_RAD;
  }

  /** Go on until a node lies at or past `target`, or the walk stops. */
  extend(target: number): void {
    const { nodes, direction } = this;
    const { parts } = this.solver;
    const limit = this.end - direction * parts(END_WINDOW);
    const largest = parts(LARGEST_STEP);
    let step = this.leaving ? parts(FIRST_STEP) : largest;
    while (!this.stop) {
      const { last } = this;
      if ((last.drive - target) * direction >= 0 || (last.drive - limit) * direction >= -BOUND_SLACK_RAD) return;
      const next = direction > 0 ? Math.min(last.drive + step, limit) : Math.max(last.drive - step, limit);
      const tried = attempt(this.solver, last, nodes[nodes.length - 2], next);
      if (tried.ok) {
        nodes.push(tried.folds);
        step = Math.min(step * 2, largest);
      } else if (
        tried.failure.reason === 'given-up' ||
        step / 2 < parts(this.leaving ? LEAST_LEAVING_STEP : LEAST_STEP_PART)
      ) {
        this.stop = this.stopAt(last, tried.failure);
      } else step /= 2;
    }
  }

  private stopAt(last: Folds, { reason, block }: Failure): Stop {
    return { lead: this.solver.lead.drive, drive: last.drive, reason, joints: block.unknowns, toward: this.toward };
  }

  /** A pose between two nodes of the walk, or just past the last one. */
  between(target: number): Folds | null {
    const { nodes, direction } = this;
    const after = nodes.findIndex((n) => (n.drive - target) * direction >= 0);
    if (after > 0) {
      if (Math.abs(nodes[after].drive - target) < AT_END_RAD) return nodes[after];
      const tried = attempt(this.solver, nodes[after - 1], nodes[after], target);
      if (tried.ok) return tried.folds;
    }
    const from = after > 0 ? after - 1 : nodes.length - 1;
    let last = nodes[from];
    let before: Folds | undefined = nodes[from - 1];
    for (let step = Math.abs(target - last.drive); step > this.solver.parts(LEAST_STEP_PART) / 2;) {
      const next = Math.abs(target - last.drive) <= step ? target : last.drive + direction * step;
      const tried = attempt(this.solver, last, before, next);
      if (!tried.ok) {
        step /= 2;
        continue;
      }
      [before, last] = [last, tried.folds];
      if (next === target) return last;
    }
    return null;
  }
}
