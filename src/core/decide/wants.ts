/** What a card should be like: measures of its mechanisms, or of the card, in a state. */
import { OPEN, openTo, restOf } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { allMeasures, poseAt, type Pose } from '../assembly/pose';
import { CARD } from '../ids';
import { closedSize, closedStack, overhangOf, type Evidence } from '../rules';
import { travelPoint } from '../proof/travel-chart';

export const WANT_KINDS = ['equal', 'atLeast', 'atMost', 'most', 'least'] as const;
export type WantKind = (typeof WANT_KINDS)[number];
export interface Want {
  readonly mechanism: string;
  readonly measure: string;
  readonly is: WantKind;
  /** In the unit of the measure; for `most` and `least` there is none. */
  readonly value?: number;
  /** The card so far open, degrees; measures of the shut card need none. */
  readonly open: number;
}
/** Where a measure is looked at unless it is said otherwise, degrees open. */
export const USUAL_OPEN = 90;

/** Measures of the card as a whole, beside those of its base. */
export const CARD_MEASURES = ['width_mm', 'height_mm', 'thickness_mm', 'overhang_mm', 'lift_mm'] as const;
type CardMeasure = (typeof CARD_MEASURES)[number];
const isCardMeasure = (key: string): key is CardMeasure => (CARD_MEASURES as readonly string[]).includes(key);

/** Reads measures of one put-together card; each pose is solved once. */
export class MeasureReader {
  private readonly poses = new Map<number, Pose>();
  private readonly all = new Map<number, Record<string, Record<string, number>>>();
  constructor(
    private readonly assembly: Assembly,
    private readonly evidence: Evidence,
  ) {}

  /** Null where the card does not come there, or has no such measure. */
  read({ mechanism, measure, open }: Pick<Want, 'mechanism' | 'measure' | 'open'>): number | null {
    if (mechanism === CARD && isCardMeasure(measure)) return this.ofCard(measure, open);
    const value = this.measuresAt(open)?.[mechanism]?.[measure];
    return value !== undefined && Number.isFinite(value) ? value : null;
  }

  /** Names of the measures that each mechanism has there. */
  namesAt(open: number): Record<string, readonly string[]> {
    return Object.fromEntries(Object.entries(this.measuresAt(open) ?? {}).map(([id, m]) => [id, Object.keys(m)]));
  }

  private ofCard(measure: CardMeasure, open: number): number | null {
    const { closed } = this.evidence;
    if (measure === 'lift_mm') {
      const pose = this.poseOf(open);
      return pose && travelPoint(this.assembly, pose).lift_mm;
    }
    if (!closed) return null;
    if (measure === 'thickness_mm') return closedStack(this.evidence)?.greatest.mm ?? null;
    if (measure === 'overhang_mm') return Math.max(...Object.values(overhangOf(this.assembly, closed)));
    const { awayMm, alongMm } = closedSize(this.evidence);
    return measure === 'width_mm' ? awayMm : alongMm;
  }
  private poseOf(open: number): Pose | null {
    const state = { ...restOf(this.assembly.drives), [OPEN]: openTo(open)[OPEN] };
    const pose = this.poses.get(open) ?? poseAt(this.assembly, state);
    this.poses.set(open, pose);
    return pose.stop ? null : pose;
  }
  private measuresAt(open: number): Record<string, Record<string, number>> | null {
    const pose = this.poseOf(open);
    if (!pose) return null;
    const known = this.all.get(open) ?? allMeasures(this.assembly, pose, this.evidence.closed);
    this.all.set(open, known);
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
