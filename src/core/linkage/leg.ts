/**
 * Walking the blocks of a linkage along one drive, the others held. Poses are reached in steps from a start that is
 * known exactly, and the walk is the same whatever was asked before: its nodes do not depend on the queries.
 */
import { AT_END_RAD, LOOP_ACCEPT_MM } from '../tolerance';
import { BlockSolver, type Folds, type Lead, type Reached, type Stop } from './block-solver';
import type { SolveOrder } from './block';
import { findFinish } from './ends';
import type { Linkage } from './joint';
import { findStart } from './start';
import { Walk } from './walk';

/** Poses of a leg that are kept. */
const MOST_KNOWN = 64;

export class Leg {
  private readonly solver: BlockSolver;
  private readonly start: Folds | null;
  private readonly walks: Walk[];

  /** @param from the pose it goes on from, with its drive at rest; absent: found, from the folds the design states */
  constructor(
    private readonly linkage: Linkage,
    private readonly order: SolveOrder,
    lead: Lead,
    from?: Folds,
  ) {
    this.solver = new BlockSolver(linkage, order, lead);
    this.start = from ? { ...from, drive: linkage.drives[lead.drive].rest } : findStart(this.solver);
    this.walks = this.start ? this.range.map((end) => new Walk(this.solver, this.start!, end)) : [];
  }

  private get range(): readonly [number, number] {
    return this.solver.range;
  }

  /** Called before every step with the drive reached; a walk ends with the reason `given-up` where it says no. */
  set watch(watch: ((drive: number) => boolean) | undefined) {
    this.solver.watch = watch;
  }

  /** See `BlockSolver.spent`. */
  get spent(): number {
    return this.solver.spent;
  }

  /** The pose at `drive` (rad or mm), or the last one before the travel stops. */
  at(drive: number): Reached {
    // Asked for again and again while another drive is moved, and at a few places by turns over a grid of both.
    const known = this.known.get(drive);
    if (known) return known;
    const reached = this.reach(drive);
    if (reached.stop?.reason === 'given-up') return reached;
    if (this.known.size >= MOST_KNOWN) this.known.clear();
    this.known.set(drive, reached);
    return reached;
  }
  private readonly known = new Map<number, Reached>();

  private reach(drive: number): Reached {
    const [closed, open] = this.range;
    const target = Math.min(Math.max(drive, Math.min(closed, open)), Math.max(closed, open));
    if (!this.start) {
      const joints = this.order.blocks.flatMap((b) => b.unknowns);
      const { drive: lead } = this.solver.lead;
      return { folds: this.solver.still(target), stop: { lead, drive: target, reason: 'no-start', joints } };
    }
    const { start } = this;
    if (Math.abs(target - start.drive) < AT_END_RAD) return { folds: start };
    const walk = this.walks.find((w) => (w.end - start.drive) * (target - start.drive) > 0)!;
    return Math.abs(target - walk.end) < AT_END_RAD ? this.finish(walk) : this.onWay(walk, target);
  }

  private onWay(walk: Walk, target: number): Reached {
    const reached = this.onRoad(walk, target);
    const beyond = (target - walk.last.drive) * walk.direction > 0;
    return reached.stop && beyond && !this.finish(walk).stop ? { folds: this.given(walk, target) } : reached;
  }

  /** A pose of the walk itself, short of its end. */
  private onRoad(walk: Walk, target: number): Reached {
    walk.extend(target);
    // Past the place where the walk stopped nothing is tried again: a longer leap might land on another branch.
    const reached = walk.isPast(target) ? null : walk.between(target);
    if (reached) return { folds: reached };
    const { last, toward } = walk;
    return { folds: last, stop: walk.stop ?? this.stray(last.drive, toward) };
  }

  private stray(drive: number, toward: Stop['toward']): Stop {
    return { lead: this.solver.lead.drive, drive, reason: 'wrong-branch', joints: [], toward };
  }

  /**
   * Whether a stop lies at the very start though the sheet lies flat there: with its roles it has no rigid motion at
   * all.
   */
  neverLeaves(stop: Stop): boolean {
    const { start } = this;
    const flat = start !== null && start.q.every((x) => x === 0);
    return flat && stop.reason !== 'given-up' && Math.abs(stop.drive - start.drive) < AT_END_RAD;
  }
  /** Every crease folded as far as the lead, by its role: where a sheet that cannot fold rigidly is bent from. */
  evenFolds(drive: number): Folds {
    const { q } = this.solver.still(drive);
    const rest = this.solver.rest(q, drive);
    this.linkage.joints.forEach((j, k) => {
      if (!j.driven) q[k] = rest(k);
    });
    return this.solver.measured(q, drive, 0);
  }

  /** Drive values (rad) where the travel ends by itself before an end of its range. */
  stops(): Stop[] {
    if (!this.start) return [this.at(this.range[0]).stop!];
    return this.walks.flatMap((w) => {
      if (Math.abs(w.end - this.start!.drive) < AT_END_RAD) return [];
      const reached = this.finish(w);
      return reached.stop ? [reached.stop] : [];
    });
  }

  /** Blocks whose loops do not close with the folds the design states for the closed end: by how much, mm. */
  closedGaps(): { readonly mm: number; readonly joints: readonly number[] }[] {
    const { q } = this.solver.still(this.range[0]);
    this.linkage.joints.forEach((j, i) => {
      if (!j.driven) q[i] = j.ends[0] ?? Number.NaN;
    });
    return this.order.blocks.flatMap((b) => {
      const mm = this.solver.errorOf(b.loops, q);
      return Number.isFinite(mm) && mm > LOOP_ACCEPT_MM ? [{ mm, joints: b.unknowns }] : [];
    });
  }

  private finish(walk: Walk): Reached {
    if (walk.finish) return walk.finish;
    const found = findFinish(this.solver, walk, (drive) => this.onRoad(walk, drive));
    walk.finish = (found.stop && this.givenEnd(walk)) || found;
    return walk.finish;
  }
  /** Lengths that differ by no more than paper gives stop the rigid facets just short of an end that is reached. */
  private givenEnd(walk: Walk): Reached | null {
    const side = walk.toward === 'closed' ? 0 : 1;
    const q = this.solver.nearlyClosesAt(side);
    if (!q || this.order.blocks.some((b) => this.solver.roleFault(b, q))) return null;
    this.solver.setLoose(q, walk.end);
    return { folds: this.solver.measured(q, walk.end, 0) };
  }
  /** Between the last rigid pose and such an end: in proportion. */
  private given({ last, finish, end }: Walk, drive: number): Folds {
    const t = (drive - last.drive) / (end - last.drive);
    const q = last.q.map((x, j) => x + (finish!.folds.q[j] - x) * t);
    this.solver.setDriven(q, drive);
    return this.solver.measured(q, drive, 0);
  }
}
