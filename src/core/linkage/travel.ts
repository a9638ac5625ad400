/**
 * The poses of a linkage with any number of drives. Blocks that depend on the same drives are walked together, in the
 * space of those drives only: from rest along the first of them, then along the next, in the order of the list. That
 * way is the definition of the pose; turning a disc on the cover does not walk the opening again.
 */
import type { Folds, Reached, Stop } from './block-solver';
import type { SolveOrder } from './block';
import { solveOrder } from './blocks';
import { drivesOfOrder, type DrivesOrder } from './drive-classes';
import { drivenValue, type Linkage } from './joint';
import { Leg } from './leg';

export type { Folds, Reached, Stop, StopReason } from './block-solver';

/** Legs beyond the first start where the drives before them are held; so many are kept. */
const MOST_LEGS = 48;

/** Blocks that depend on the same drives, with their walks. */
interface DriveClass extends DrivesOrder {
  readonly first: Leg;
  readonly later: Map<string, Leg>;
}

export class Travel {
  readonly order: SolveOrder;
  private readonly classes: readonly DriveClass[];
  private ask: ((drive: number, lead: number) => boolean) | undefined;
  /** Of legs that are no longer kept. */
  private spentBefore = 0;

  constructor(private readonly linkage: Linkage) {
    this.order = solveOrder(linkage);
    const rest = linkage.drives.map((d) => d.rest);
    this.classes = drivesOfOrder(linkage, this.order).map((part) => ({
      ...part,
      first: new Leg(linkage, part.all, { drive: part.drives[0], held: rest }),
      later: new Map(),
    }));
  }

  /**
   * Called before every step with the value of the drive that is walked (rad or mm) and its index; a walk ends with the
   * reason `given-up` where it says no.
   */
  set watch(watch: ((drive: number, lead: number) => boolean) | undefined) {
    this.ask = watch;
    for (const { drives, first } of this.classes) this.tell(first, drives[0]);
  }
  private tell(leg: Leg, lead: number): void {
    const { ask } = this;
    leg.watch = ask && ((drive) => ask(drive, lead));
  }

  /** See `BlockSolver.spent`. */
  get spent(): number {
    const legs = this.classes.flatMap((c) => [c.first, ...c.later.values()]);
    return legs.reduce((sum, leg) => sum + leg.spent, this.spentBefore);
  }

  /**
   * The pose with the drives at `values` (rad or mm; those left out at rest). Where one cannot get there, the last pose
   * before it stops, with the others as asked.
   */
  at(...values: readonly number[]): Reached {
    const asked = this.linkage.drives.map((d, k) => values[k] ?? d.rest);
    const found = this.classes.map((c) => this.classAt(c, asked));
    const stop = found.find((f) => f.stop)?.stop;
    if (!stop) return { folds: this.together(found, asked) };
    const held = asked.with(stop.lead, stop.drive);
    return {
      folds: this.together(
        found.map((f, k) => (f.stop ? f : this.classAt(this.classes[k], held))),
        held,
      ),
      stop,
    };
  }

  private classAt({ drives, all, first, later }: DriveClass, values: readonly number[]): Reached {
    let reached = first.at(values[drives[0]]);
    for (let k = 1; k < drives.length && !reached.stop; k++) {
      const before = drives.slice(0, k).map((d) => values[d]);
      reached = this.legFrom(later, all, drives[k], before, reached.folds, values).at(values[drives[k]]);
    }
    return reached;
  }

  private legFrom(
    later: Map<string, Leg>,
    order: SolveOrder,
    drive: number,
    before: readonly number[],
    from: Folds,
    values: readonly number[],
  ): Leg {
    const key = [drive, ...before].join(' ');
    const known = later.get(key);
    if (known) return known;
    if (later.size >= MOST_LEGS) {
      for (const leg of later.values()) this.spentBefore += leg.spent;
      later.clear();
    }
    const held = this.linkage.drives.map((d, k) => (k < drive ? values[k] : d.rest));
    const leg = new Leg(this.linkage, order, { drive, held }, from);
    this.tell(leg, drive);
    later.set(key, leg);
    return leg;
  }

  /** One value for every joint, from what each class says of its own. */
  private together(found: readonly Reached[], values: readonly number[]): Folds {
    const [{ folds }] = found;
    if (this.linkage.drives.length === 1) return folds;
    const q = folds.q.slice();
    found.forEach((f, k) => {
      const { blocks, loose } = this.classes[k].own;
      for (const j of [...blocks.flatMap((b) => b.unknowns), ...loose]) q[j] = f.folds.q[j];
    });
    this.linkage.joints.forEach(({ driven }, j) => {
      if (driven) q[j] = drivenValue(driven, values[driven.drive]);
    });
    return {
      drive: folds.drive,
      q,
      iterations: Math.max(...found.map((f) => f.folds.iterations)),
      residualMm: Math.max(...found.map((f) => f.folds.residualMm)),
      bentLoops: [...new Set(found.flatMap((f) => f.folds.bentLoops))],
    };
  }

  /** Whether a stop lies at the very start of its leg: with its roles the sheet has no rigid motion at all. */
  neverLeaves = (stop: Stop): boolean =>
    this.classes.some((c) => c.drives[0] === stop.lead && c.first.neverLeaves(stop));
  /** See `Leg.evenFolds`; of the opening. */
  evenFolds = (drive: number): Folds => this.classes[0].first.evenFolds(drive);
  /** Values of the first drive of each class where its travel ends by itself before an end of its range. */
  stops = (): Stop[] => {
    const all = this.classes.flatMap((c) => c.first.stops());
    // What several classes depend on stops each of them.
    const same =
      (a: Stop) =>
      (b: Stop): boolean =>
        a.lead === b.lead && a.toward === b.toward && a.joints.join() === b.joints.join();
    return all.filter((stop, k) => all.findIndex(same(stop)) === k);
  };
  /** Blocks whose loops do not close with the folds the design states for the closed card at rest: by how much, mm. */
  closedGaps = (): { readonly mm: number; readonly joints: readonly number[] }[] =>
    this.classes.flatMap((c) => c.first.closedGaps());
}
