/** What the walk, its start and its ends share: the joints that are known, closing a block, judging the result. */
import { FLAT_PLANE_MM, LOOP_ACCEPT_MM, LOOP_BENT_MM, ROLE_SLACK_RAD } from '../tolerance';
import type { Block, SolveOrder } from './block';
import { closeBySizes } from './by-sizes';
import { closeBlock, closeKeepingSigns, type Closing } from './close';
import { boundsOf, drivenValue, type DriveRange, type Driven, type Linkage } from './joint';
import { loopState } from './loop-error';
import type { Loop } from './loops';
import { buildSystem, leastChange } from './system';

export interface Folds {
  /** The drive that was walked, in the unit of its joints: rad or mm. */
  readonly drive: number;
  /** Value of every joint, rad (tracks: mm). */
  readonly q: Float64Array;
  readonly iterations: number;
  /** Greatest loop error, mm. */
  readonly residualMm: number;
  /** Loops that do not close as rigid facets here. */
  readonly bentLoops: readonly Loop[];
}
export type StopReason =
  'taut' | 'reversed' | 'past-180' | 'track-end' | 'wrong-branch' | 'no-start' | 'not-rigid' | 'given-up';
export interface Stop {
  /** The drive that was walked, by index, and its last value reached, rad or mm. */
  readonly lead: number;
  readonly drive: number;
  readonly reason: StopReason;
  /** Joints of the block that could not go on. */
  readonly joints: readonly number[];
  /** End of the range the walk was on its way to; absent where it never began. */
  readonly toward?: 'closed' | 'open';
}
export type Reached = { readonly folds: Folds; readonly stop?: Stop };

/** Why a step was not taken, and whose loops refused. */
export interface Failure {
  readonly reason: StopReason;
  readonly block: Block;
}

/** One drive that is walked, and where the others are held, by index. */
export interface Lead {
  readonly drive: number;
  readonly held: readonly number[];
}

export class BlockSolver {
  private work = 0;
  /** Asked again and again whether to go on; told where the walk is (rad or mm). */
  watch: ((drive: number) => boolean) | undefined;
  readonly range: DriveRange['range'];
  private readonly flat: number;
  private readonly isFold: boolean;
  /** Bounds of every joint: asked for at each step of a walk. */
  private readonly least: Float64Array;
  private readonly most: Float64Array;
  /** Half a turn over the drive's range: steps are parts of that, as if it were the opening's 180 degrees. */
  private readonly turnsPerUnit: number;

  constructor(
    readonly linkage: Linkage,
    readonly order: SolveOrder,
    readonly lead: Lead,
  ) {
    ({ range: this.range, flat: this.flat } = linkage.drives[lead.drive]);
    this.isFold = linkage.drives[lead.drive].isFold === true;
    const bounds = linkage.joints.map(boundsOf);
    this.least = Float64Array.from(bounds, (b) => b[0]);
    this.most = Float64Array.from(bounds, (b) => b[1]);
    this.turnsPerUnit = Math.PI / Math.abs(this.range[1] - this.range[0]);
  }

  /** A way of the drive as the part of half a turn that it is of its range, rad. */
  asTurn = (way: number): number => Math.abs(way) * this.turnsPerUnit;
  /** How far a crease folds that follows the drive evenly, rad. */
  evenFold = (drive: number): number => (this.isFold ? Math.abs(drive - this.flat) : this.asTurn(drive - this.flat));
  /** So many of the 180 parts of the range, in the drive's unit. */
  parts = (count: number): number => (count * (Math.PI / this.turnsPerUnit)) / 180;

  /**
   * What has been spent on poses so far: Newton steps times the squares of the unknowns they were taken in. The same
   * for the same questions.
   */
  get spent(): number {
    return this.work;
  }

  close(block: Block, q: Float64Array, drive: number, most?: number): Closing {
    const closing = closeBlock(this.linkage, block, q, this.rest(q, drive), most);
    this.work += closing.iterations * block.unknowns.length ** 2;
    return closing;
  }

  /** See `closeBySizes`. */
  closeBySizes(block: Block, q: Float64Array): boolean {
    const { ok, iterations } = closeBySizes(this.linkage, block, q);
    this.work += iterations * block.unknowns.length ** 2;
    return ok;
  }

  /** By least change, each fold measured against its own size: Newton steps, or null where the loops do not close. */
  closeKeepingSigns(block: Block, q: Float64Array): number | null {
    const { ok, iterations } = closeKeepingSigns(this.linkage, block, q);
    this.work += iterations * block.unknowns.length ** 2;
    return ok ? iterations : null;
  }

  /** The pose as far as the drive alone knows it: everything that is solved for lies flat. */
  still(drive: number): Folds {
    const q = new Float64Array(this.linkage.joints.length);
    this.setDriven(q, drive);
    return { drive, q, iterations: 0, residualMm: 0, bentLoops: [] };
  }

  setDriven(q: Float64Array, drive: number): void {
    const { drive: lead, held } = this.lead;
    this.linkage.joints.forEach(({ driven }, j) => {
      if (driven) q[j] = drivenValue(driven, driven.drive === lead ? drive : held[driven.drive]);
    });
  }

  setLoose(q: Float64Array, drive: number): void {
    const rest = this.rest(q, drive);
    for (const j of this.order.loose) q[j] = rest(j);
  }

  /**
   * Fold a crease's stiffness asks for: its role times the local drive, so that an even pose costs nothing and cannot
   * snap.
   */
  rest(q: Float64Array, drive: number): (joint: number) => number {
    return (j) => {
      const { role, follows, motion } = this.linkage.joints[j];
      if (motion.kind !== 'hinge') return 0;
      return role * (follows === undefined ? this.evenFold(drive) : Math.abs(q[follows]));
    };
  }

  errorOf(loops: readonly Loop[], q: Float64Array): number {
    return loops.reduce((m, l) => Math.max(m, loopState(this.linkage, l, q).sizeMm), 0);
  }

  measured(q: Float64Array, drive: number, iterations: number): Folds {
    let residualMm = 0;
    const bentLoops: Loop[] = [];
    const look = (loop: Loop): void => {
      const { sizeMm } = loopState(this.linkage, loop, q);
      residualMm = Math.max(residualMm, sizeMm);
      if (sizeMm > LOOP_BENT_MM) bentLoops.push(loop);
    };
    this.order.blocks.forEach((b) => b.loops.forEach(look));
    this.order.checks.forEach(look);
    return { drive, q, iterations, residualMm, bentLoops };
  }

  roleFault(block: Block, q: Float64Array): StopReason | null {
    for (const j of block.unknowns) {
      if (q[j] >= this.least[j] - ROLE_SLACK_RAD && q[j] <= this.most[j] + ROLE_SLACK_RAD) continue;
      if (this.linkage.joints[j].motion.kind === 'track') return 'track-end';
      return Math.abs(q[j]) > Math.PI + ROLE_SLACK_RAD ? 'past-180' : 'reversed';
    }
    return null;
  }

  private rateOf({ drive: of, rate, between }: Driven, drive: number): number {
    return of === this.lead.drive && (!between || (drive > between[0] && drive < between[1])) ? rate : 0;
  }

  /** Change of every joint per unit of the drive at a regular pose; null where folds are free. */
  speedsAt({ q, drive }: Folds): Float64Array | null {
    const { joints } = this.linkage;
    const speed = Float64Array.from(joints, ({ driven }) => (driven ? this.rateOf(driven, drive) : 0));
    for (const { loops, unknowns, freedoms } of this.order.blocks) {
      if (freedoms > 0) return null;
      const known = [...new Set(loops.flatMap((l) => l.steps.map((s) => s.joint)))].filter((j) => speed[j] !== 0);
      const moving = buildSystem(this.linkage, loops, known, q);
      const system = buildSystem(this.linkage, loops, unknowns, q);
      const error = new Float64Array(system.error.length);
      moving.columns.forEach((column, k) =>
        column.forEach((x, r) => (error[r] += (x * speed[known[k]]) / moving.scale[k])),
      );
      const { delta } = leastChange({ columns: system.columns, error });
      unknowns.forEach((j, k) => (speed[j] = delta[k] * system.scale[k]));
    }
    return speed;
  }

  /** The folds a design states for an end of its range; null where some are not stated. */
  statedAt(side: 0 | 1): Float64Array | null {
    const q = this.still(this.range[side]).q;
    for (const j of this.order.blocks.flatMap((b) => b.unknowns)) {
      const stated = this.linkage.joints[j].ends[side];
      if (stated === undefined) return null;
      q[j] = stated;
    }
    return q;
  }

  /** Whether the stated folds of an end close every loop within what paper gives, though not exactly. */
  nearlyClosesAt(side: 0 | 1): Float64Array | null {
    const q = this.statedAt(side);
    return q && this.order.blocks.every((b) => this.errorOf(b.loops, q) <= FLAT_PLANE_MM) ? q : null;
  }

  closesExactly = (loops: readonly Loop[], q: Float64Array): boolean => this.errorOf(loops, q) < LOOP_ACCEPT_MM;
}
