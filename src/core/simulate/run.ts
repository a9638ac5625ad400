/**
 * The simulated cutter: it is given a file in a language of cutters, not our own data, moves its tool with
 * acceleration, and leaves the trace of the tip, which trails the axis where the blade has an offset.
 */
import { bladePaths, FIRST_HEADING, isCut } from '../cutting/blade';
import { PASSES, type Pass } from '../paper/machine';
import type { MachineProfile } from '../paper/machine';
import { dist2, lerp2, wayLength, type Vec2 } from '../plane/vec2';
import { CutFileError, type CutFile, type Stroke } from './cut-file';
import { legSeconds, speedsAt, type Leg } from './motion';

/** One stroke as it was worked. */
export interface Trace {
  readonly pass: Pass;
  readonly tool: number;
  /** Way of the tip, mm. */
  readonly tip: Vec2[];
}
/** A job as the machine sees it before it starts. */
export interface CutJob {
  readonly profile: MachineProfile;
  readonly strokes: readonly (Stroke & { readonly pass: Pass })[];
  readonly legs: readonly Leg[];
  /** By its own reckoning, s. */
  readonly estimateS: number;
}

/** The machine's clock ticks this often, s. */
const TICK_S = 0.001;
/** The blade is drawn after its axis in steps of this, mm. */
const DRAG_STEP_MM = 0.03;

export function cutJob(file: CutFile, profile: MachineProfile): CutJob {
  const named = file.strokes.map((s) => ({ ...s, pass: s.pass ?? passOfTool(s.tool, profile) }));
  // A machine that makes up for its blade does so with whatever it is given; ends that are gone over already stay.
  const led = profile.blade.madeUpBy === 'machine' ? bladePaths(named, profile, true) : named;
  const strokes = led.map((s, k) => ({ ...named[k], points: s.points }));
  const legs = legsOf(strokes, profile);
  const { liftS, accelerationMmS2 } = profile;
  const estimateS = legs.reduce((sum, leg) => sum + legSeconds(leg, accelerationMmS2) + (leg.down ? 2 * liftS : 0), 0);
  checkLength(estimateS, strokes);
  return { profile, strokes, legs, estimateS };
}

/** Longer jobs are no sheet of a card: hours of the machine, metres of lines. */
const MOST_HOURS = 6;
const MOST_METRES = 60;

function checkLength(seconds: number, strokes: CutJob['strokes']): void {
  const metres = strokes.reduce((sum, s) => sum + wayLength(s.points), 0) / 1000;
  if (metres > MOST_METRES)
    throw new CutFileError(`the file has ${Math.round(metres)} m of lines; at most ${MOST_METRES} m are cut here`);
  if (seconds > 3600 * MOST_HOURS)
    throw new CutFileError(`the file takes ${Math.round(seconds / 3600)} hours; at most ${MOST_HOURS} are cut here`);
}

/** A tool that the machine does not know cuts. */
const passOfTool = (tool: number, { passes }: MachineProfile): Pass =>
  PASSES.find((p) => passes[p].tool === tool) ?? 'outline';

function legsOf(strokes: CutJob['strokes'], { passes, travelMmS }: MachineProfile): Leg[] {
  let at: Vec2 = [0, 0];
  const legs = strokes.flatMap(({ points, pass }, stroke): Leg[] => {
    const way: Leg = { points: [at, points[0]], speedMmS: travelMmS, down: false, stroke };
    at = points[points.length - 1];
    return [way, { points, speedMmS: passes[pass].speedMmS, down: true, stroke }];
  });
  return [...legs, { points: [at, [0, 0]], speedMmS: travelMmS, down: false, stroke: strokes.length }];
}

/** Where the machine is. */
export interface CutState {
  readonly seconds: number;
  readonly axis: Vec2;
  readonly down: boolean;
  readonly stroke: number;
  readonly done: boolean;
}

/** One run of a job; it is moved on as far as is asked, and keeps what it has cut. */
export class CutRun {
  readonly traces: Trace[] = [];
  private seconds = 0;
  private axis: Vec2 = [0, 0];
  private heading = FIRST_HEADING;
  private readonly clock: Generator<void>;
  private leg: Leg | null = null;
  private done = false;

  constructor(readonly job: CutJob) {
    this.clock = this.working();
  }

  /** Runs until the machine's clock shows so much. */
  until(seconds: number): CutState {
    while (!this.done && this.seconds < seconds) this.done = this.clock.next().done === true;
    return this.state;
  }
  get state(): CutState {
    const { seconds, axis, leg, done } = this;
    return { seconds, axis, down: leg?.down ?? false, stroke: leg?.stroke ?? 0, done };
  }

  private *working(): Generator<void> {
    const { legs, profile, strokes } = this.job;
    for (const leg of legs) {
      this.leg = leg;
      if (leg.down) {
        const { pass, tool } = strokes[leg.stroke];
        yield* this.waiting(profile.liftS);
        this.traces.push({ pass, tool, tip: [this.tipAt(leg.points[0], pass)] });
      }
      yield* this.moving(leg);
      if (leg.down) yield* this.waiting(profile.liftS);
    }
  }

  private *waiting(seconds: number): Generator<void> {
    for (let left = seconds; left > 0; left -= TICK_S) {
      this.seconds += Math.min(TICK_S, left);
      yield;
    }
  }

  /** Tick by tick: faster while it can still brake for what comes next. */
  private *moving(leg: Leg): Generator<void> {
    const { accelerationMmS2: a } = this.job.profile;
    const speeds = speedsAt(leg, a);
    let speed = 0;
    for (let k = 1; k < leg.points.length; k++) {
      const [from, to] = [leg.points[k - 1], leg.points[k]];
      const mm = dist2(from, to);
      for (let gone = 0; gone < mm;) {
        const braking = Math.sqrt(speeds[k] ** 2 + 2 * a * (mm - gone));
        speed = Math.min(leg.speedMmS, braking, speed + a * TICK_S);
        const step = Math.min(mm - gone, Math.max(speed, a * TICK_S) * TICK_S);
        gone += step;
        this.seconds += step / Math.max(speed, a * TICK_S);
        this.moveAxis(lerp2(from, to, Math.min(1, gone / mm)), leg);
        yield;
      }
    }
  }

  private moveAxis(to: Vec2, leg: Leg): void {
    const from = this.axis;
    this.axis = to;
    if (!leg.down) return;
    const trace = this.traces[this.traces.length - 1];
    const steps = Math.max(1, Math.ceil(dist2(from, to) / DRAG_STEP_MM));
    for (let k = 1; k <= steps; k++) trace.tip.push(this.dragged(lerp2(from, to, k / steps), trace));
  }

  /** The tip is drawn straight towards its axis, from where it is. */
  private dragged(axis: Vec2, { pass, tip }: Trace): Vec2 {
    const r = this.trail(pass);
    if (r === 0) return axis;
    const last = tip[tip.length - 1];
    const mm = dist2(axis, last);
    if (mm > 0) this.heading = [(axis[0] - last[0]) / mm, (axis[1] - last[1]) / mm];
    return [axis[0] - this.heading[0] * r, axis[1] - this.heading[1] * r];
  }
  private tipAt(axis: Vec2, pass: Pass): Vec2 {
    const r = this.trail(pass);
    return [axis[0] - this.heading[0] * r, axis[1] - this.heading[1] * r];
  }
  private trail(pass: Pass): number {
    return isCut({ pass }) ? this.job.profile.blade.offsetMm : 0;
  }
}
