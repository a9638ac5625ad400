/** What is told of studies and comparisons: plain data that crosses from a worker. */
import type { Picture } from '@/core/formats/picture';
import type { Ring } from '@/core/plane/polygon';
import type { Vec2 } from '@/core/plane/vec2';
import type { Segment } from '@/core/plane/arrangement';
import type { Proof } from '@/core/proof/prove';
import type { Fitness } from '@/core/decide/fitness';
import type { Forgiving } from '@/core/decide/forgiving';
import type { Summary } from '@/core/decide/study';
import type { WorstOf } from '@/core/decide/worst';

/** A step of the making, in words, and its share of the variance. */
export interface ToldShare {
  readonly what: string;
  readonly sharePct: number;
}
/** A worst card: as it lies shut, seen from above; shut and on its way, posed; and where its steps went. */
export interface ToldWorst {
  readonly of: WorstOf;
  readonly fitness: Fitness;
  readonly rings: readonly { readonly mechanism: string; readonly ring: readonly Vec2[] }[];
  readonly stood: readonly { readonly openDeg: number; readonly picture: Picture }[];
  readonly astray: readonly { readonly what: string; readonly by: number; readonly unit: 'mm' | '°' }[];
}
/** A study as it is shown; cards are still being made while `done` is false. */
export interface ToldStudy {
  readonly done: boolean;
  readonly summary: Summary;
  readonly overhangs: readonly number[];
  readonly gaps: readonly number[];
  readonly overhangShares: readonly ToldShare[];
  readonly closingShares: readonly ToldShare[];
  readonly worst: readonly ToldWorst[];
  readonly forgiving: readonly Forgiving[];
}
/** A variant beside the card, as both stand in one state. */
export interface Judged {
  readonly proof: Proof;
  readonly picture: Picture | null;
  /** Its flat pieces: outlines and creases. */
  readonly pieces: readonly {
    readonly id: string;
    readonly rings: readonly Ring[];
    readonly folds: readonly Segment[];
  }[];
}
