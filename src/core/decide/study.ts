/**
 * The tolerance study: hundreds of cards made with scatter, each posed; how often they come out well, and which step
 * of the making matters most. Card number k of a seed is the same whoever makes it, so a study can be made in parts.
 */
import { quantileSorted } from 'd3-array';
import { randomNormal } from 'd3-random';
import { seeded } from '../linkage/random';
import type { Design } from '../document/design';
import { binds, closes, Maker, pokesOut, shows, type Fitness } from './fitness';
import { USUAL_SCATTER, type MakingStep, type Scatter } from './scatter';

export const USUAL_MADE = 400;
export const MOST_MADE = 100_000;
/** Cards of one seed are this far apart in its numbers, so that no two are alike. */
const SEED_STRIDE = 0x9e3779b1;

export interface StudyAsk {
  readonly made: number;
  readonly seed: number;
  readonly scatter: Scatter;
  /** One of so many parts, counted from 1. */
  readonly part?: readonly [k: number, n: number];
}
export const USUAL_ASK: StudyAsk = { made: USUAL_MADE, seed: 1, scatter: USUAL_SCATTER };

/** One card of a study. */
export interface Sample extends Fitness {
  readonly card: number;
}
export interface Share {
  readonly kind: MakingStep['kind'];
  readonly id: string;
  /** Of the variance, percent. */
  readonly sharePct: number;
}
export interface Study {
  readonly made: number;
  readonly seed: number;
  readonly scatter: Scatter;
  readonly samples: readonly Sample[];
  readonly asDrawn: Fitness;
  /** What pokes out no further than this is no fault, mm. */
  readonly mayOverhangMm: number;
  /** Of the variance of what pokes out, and of what does not close, greatest first. */
  readonly overhangShares: readonly Share[];
  readonly closingShares: readonly Share[];
}

/** How far each step of a card of a seed goes astray, mm or degrees. */
export function amountsOf(steps: readonly MakingStep[], seed: number, card: number): number[] {
  const random = seeded((Math.imul(card + 1, SEED_STRIDE) ^ Math.imul(seed, 0x85ebca6b)) >>> 0);
  const normal = randomNormal.source(random)(0, 1);
  return steps.map(({ sigma }) => sigma * normal());
}

/** Numbers of the cards that a part makes. */
export const cardsOf = ({ made, part = [1, 1] }: Pick<StudyAsk, 'made' | 'part'>): number[] =>
  Array.from({ length: made }, (_, k) => k).filter((k) => k % part[1] === part[0] - 1);

/** The study as it grows, card by card; every value is all that is known so far. Throws DesignError. */
export function* studySteps(design: Design, ask: StudyAsk = USUAL_ASK): Generator<Study, Study> {
  const maker = new Maker(design, ask.scatter);
  const { asDrawn } = maker;
  const shares = sharesOf(maker, asDrawn);
  const samples: Sample[] = [];
  const { made, seed, scatter } = ask;
  const { mayOverhangMm } = maker;
  const study = (): Study => ({ made, seed, scatter, samples: [...samples], asDrawn, mayOverhangMm, ...shares });
  for (const card of cardsOf(ask)) {
    samples.push({ card, ...maker.make(amountsOf(maker.steps, ask.seed, card)) });
    if (samples.length % 16 === 0) yield study();
  }
  return study();
}
export function studied(design: Design, ask: StudyAsk = USUAL_ASK): Study {
  const steps = studySteps(design, ask);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

/** What each step does by itself, one standard deviation to either side. */
function sharesOf(maker: Maker, asDrawn: Fitness): Pick<Study, 'overhangShares' | 'closingShares'> {
  const alone = (k: number, by: number): Fitness =>
    maker.make(
      maker.steps.map(({ sigma }, i) => (i === k ? by * sigma : 0)),
      false,
    );
  const both = maker.steps.map((_, k) => [alone(k, 1), alone(k, -1)] as const);
  const slope = ([plus, minus]: (typeof both)[number]): number =>
    plus.overhangMm === null || minus.overhangMm === null ? 0 : (plus.overhangMm - minus.overhangMm) / 2;
  const opened = ([plus, minus]: (typeof both)[number]): number =>
    ((plus.closedGapMm ?? 0) + (minus.closedGapMm ?? 0)) / 2 - (asDrawn.closedGapMm ?? 0);
  return { overhangShares: shared(maker.steps, both.map(slope)), closingShares: shared(maker.steps, both.map(opened)) };
}
/** Shares smaller than this are not told, percent. */
const LEAST_SHARE = 0.5;
function shared(steps: readonly MakingStep[], effects: readonly number[]): Share[] {
  const whole = effects.reduce((sum, e) => sum + e * e, 0);
  if (whole < 1e-12) return [];
  return steps
    .map(({ kind, id }, k): Share => ({ kind, id, sharePct: round((100 * effects[k] ** 2) / whole) }))
    .filter((s) => s.sharePct >= LEAST_SHARE)
    .sort((a, b) => b.sharePct - a.sharePct);
}

/** Percent of the cards, and how what pokes out is spread. */
export interface Summary {
  readonly made: number;
  readonly goodPct: number;
  readonly closesPct: number;
  readonly bindsPct: number;
  readonly pokesOutPct: number;
  readonly showsPct: number;
  readonly overhangMm: { readonly p50: number; readonly p95: number } | null;
  readonly closedGapMm: { readonly p50: number; readonly p95: number } | null;
}
export const isGood = (f: Fitness, mayMm: number): boolean =>
  closes(f) && !binds(f) && !pokesOut(f, mayMm) && !shows(f);

export function summaryOf({ samples, mayOverhangMm }: Pick<Study, 'samples' | 'mayOverhangMm'>): Summary {
  const pct = (is: (s: Sample) => boolean): number =>
    samples.length === 0 ? 0 : round((100 * samples.filter(is).length) / samples.length);
  return {
    made: samples.length,
    goodPct: pct((s) => isGood(s, mayOverhangMm)),
    closesPct: pct(closes),
    bindsPct: pct(binds),
    pokesOutPct: pct((s) => pokesOut(s, mayOverhangMm)),
    showsPct: pct(shows),
    overhangMm: spread(samples.map((s) => s.overhangMm)),
    closedGapMm: spread(samples.map((s) => s.closedGapMm)),
  };
}
function spread(values: readonly (number | null)[]): { p50: number; p95: number } | null {
  const sorted = values.filter((v) => v !== null).sort((a, b) => a - b);
  if (sorted.length === 0) return null;
  return { p50: round(quantileSorted(sorted, 0.5)!), p95: round(quantileSorted(sorted, 0.95)!) };
}
const round = (v: number): number => Number(v.toFixed(3));

/** Studies of parts as one; null where they are of different asks or do not make all its cards once. */
export function joinedStudy(parts: readonly Study[]): Study | null {
  const [first] = parts;
  const samples = parts.flatMap((p) => p.samples).sort((a, b) => a.card - b.card);
  const alike = (s: Study): string => JSON.stringify([s.made, s.seed, s.scatter, s.asDrawn, s.overhangShares]);
  if (!first || parts.some((p) => alike(p) !== alike(first))) return null;
  if (samples.length !== first.made || samples.some((s, k) => s.card !== k)) return null;
  return { ...first, samples };
}
