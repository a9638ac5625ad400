/** What a card should be like: measures of its mechanisms, or of the card, in a state. */
import { moved, OPEN, restOf, within, type Drive, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { allMeasures, poseAt, type Pose } from '../assembly/pose';
import { CARD } from '../ids';
import { closedSize, closedStack, overhangOf, type Evidence } from '../rules';
import { travelPoint } from '../proof/travel-chart';

export const WANT_KINDS = ['equal', 'atLeast', 'atMost', 'most', 'least'] as const;
export type WantKind = (typeof WANT_KINDS)[number];
/** The state that a measure is looked at in; measures of the shut card need none. */
export interface At {
  /** The card so far open, degrees. */
  readonly open: number;
  /** What else is moved, by drive; all others are at rest. */
  readonly drives?: State;
}
/** A measure of a mechanism, or of the card, in a state. */
export interface Measured extends At {
  readonly mechanism: string;
  readonly measure: string;
}
export interface Want extends Measured {
  readonly is: WantKind;
  /** In the unit of the measure; for `most` and `least` there is none. */
  readonly value?: number;
}
/** Where a measure is looked at unless it is said otherwise, degrees open. */
export const USUAL_OPEN = 90;

/** A value for every drive; where a way has become shorter, what is moved goes to its end. */
export const stateAt = (drives: readonly Drive[], { open, drives: others = {} }: At): State =>
  moved(within(drives, others), OPEN, open);
/** What a state says beside the opening: only what is not at rest. */
export function asAt(drives: readonly Drive[], state: State): At {
  const rest = restOf(drives);
  const others = Object.entries(state).filter(([id, value]) => id !== OPEN && value !== rest[id]);
  return { open: state[OPEN], ...(others.length > 0 ? { drives: Object.fromEntries(others) } : {}) };
}

/** Measures of the card as a whole, beside those of its base. */
export const CARD_MEASURES = ['width_mm', 'height_mm', 'thickness_mm', 'overhang_mm', 'lift_mm'] as const;
type CardMeasure = (typeof CARD_MEASURES)[number];
const isCardMeasure = (key: string): key is CardMeasure => (CARD_MEASURES as readonly string[]).includes(key);

/** Reads measures of one put-together card; each pose is solved once. */
export class MeasureReader {
  private readonly poses = new Map<string, Pose>();
  private readonly all = new Map<Pose, Record<string, Record<string, number>>>();
  constructor(
    private readonly assembly: Assembly,
    private readonly evidence: Evidence,
  ) {}

  /** Null where the card does not come there, or has no such measure. */
  read({ mechanism, measure, ...at }: Measured): number | null {
    if (mechanism === CARD && isCardMeasure(measure)) return this.ofCard(measure, at);
    const value = this.measuresAt(at)?.[mechanism]?.[measure];
    return value !== undefined && Number.isFinite(value) ? value : null;
  }

  /** Names of the measures that each mechanism has there. */
  namesAt(at: At): Record<string, readonly string[]> {
    return Object.fromEntries(Object.entries(this.measuresAt(at) ?? {}).map(([id, m]) => [id, Object.keys(m)]));
  }

  private ofCard(measure: CardMeasure, at: At): number | null {
    const { closed } = this.evidence;
    if (measure === 'lift_mm') {
      const pose = this.poseOf(at);
      return pose && travelPoint(this.assembly, pose).lift_mm;
    }
    if (!closed) return null;
    if (measure === 'thickness_mm') return closedStack(this.evidence)?.greatest.mm ?? null;
    if (measure === 'overhang_mm') return Math.max(...Object.values(overhangOf(this.assembly, closed)));
    const { awayMm, alongMm } = closedSize(this.evidence);
    return measure === 'width_mm' ? awayMm : alongMm;
  }
  private poseOf(at: At): Pose | null {
    const state = stateAt(this.assembly.drives, at);
    const key = JSON.stringify(state);
    const pose = this.poses.get(key) ?? poseAt(this.assembly, state);
    this.poses.set(key, pose);
    return pose.stop ? null : pose;
  }
  private measuresAt(at: At): Record<string, Record<string, number>> | null {
    const pose = this.poseOf(at);
    if (!pose) return null;
    const known = this.all.get(pose) ?? allMeasures(this.assembly, pose, this.evidence.closed);
    this.all.set(pose, known);
    return known;
  }
}

/** How much more a value is than what is wanted, in its unit, below 0 where it is less; 0 where it is met. */
export function offBy({ is, value = 0 }: Want, found: number): number {
  if (is === 'equal') return found - value;
  if (is === 'atLeast') return Math.min(0, found - value);
  if (is === 'atMost') return Math.max(0, found - value);
  return 0;
}
/** How far a value is from what is wanted, in its unit; 0 where it is met. */
export const missOf = (want: Want, found: number): number => Math.abs(offBy(want, found));
