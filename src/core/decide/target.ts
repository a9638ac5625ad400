/**
 * The search for numbers that make a card as it is wanted. The optimiser divides boxes (DIRECT): it asks for no
 * derivative of rules, and gives the same answer on every machine. The range of the first number is cut into slabs that
 * are searched one by one, so that a search can be done in parts.
 */
import { measureWords } from '../document/words';
import type { Design } from '../document/design';
import { tryBuild } from '../build/build';
import { gather } from '../proof/evidence';
import { leverValue, rangeAround, setLever } from '../proof/levers';
import { examine, type Verdict } from '../proof/prove';
import { RULES, type Evidence, type Finding, type RuleId } from '../rules';
import { lowestIn, type Lowest, type Span } from './direct';
import { straightTo, totalOf, type Misses } from './straight';
import { nameOfMeasure, saidAt } from './words';
import { MeasureReader, missOf, offBy, type Want } from './wants';

/** A number that may be changed. */
export interface Free {
  readonly mechanism: string;
  readonly key: string;
  readonly from: number;
  readonly to: number;
}
export interface TargetAsk {
  readonly wants: readonly Want[];
  readonly free: readonly Free[];
}
/** Values of the free numbers, in their order, and what the card is like then. */
export interface Candidate {
  readonly slab: number;
  readonly values: readonly number[];
  /** Of each want, in their order; null where the card does not come there. */
  readonly measures: readonly (number | null)[];
  /** How far it is from what is wanted, all in all; 0 where all is met. */
  readonly miss: number;
  readonly verdict: Verdict;
  /** What stands against it. */
  readonly against: readonly string[];
}
export interface TargetResult {
  /** Proved, all wants met, nothing blocks; nearest to the card as it is first, or by what is to be large or small. */
  readonly found: readonly Candidate[];
  /** Where nothing is found: that which comes nearest. */
  readonly nearest: Candidate | null;
}

/** Slabs that the range of the first number is searched in. */
export const SLABS = 4;
/** Half the width of the boxes that an answer is looked for in again, in parts of the ranges. */
const ZOOMS = { near: 0.03, exact: 0.001 } as const;
/** Answers nearer to each other than this, in parts of the ranges, are one. */
const SAME_PART = 0.05;
const MOST_FROM_SLAB = 2;
const MOST_FOUND = 6;
/** A second place of a slab is looked into where it is as good as the first within this, in the unit of the wants. */
const AS_GOOD = 0.5;
/** A want is met within this, in its unit. */
export const MET_WITHIN = 0.02;
/** Weight of what blocks against what is missed: an answer that is blocked is never worth it. */
const BLOCK_WEIGHT = 20;
/** What misses by more than this, in the unit of the wants, once it was looked for again is not made exact. */
const HOPELESS = 1;
const NO_CARD = 1e6;

/** A number with the range that it is searched in unless it is said: what its bar shows in Build. Null without one. */
export function freeNumber(design: Design, mechanism: string, key: string): Free | null {
  const range = rangeAround(design, mechanism, key);
  return range && { mechanism, key, from: range.from, to: range.to };
}

export const withValues = (design: Design, free: readonly Free[], values: readonly number[]): Design =>
  free.reduce((d, { mechanism, key }, k) => setLever(d, mechanism, key, values[k]), design);

interface Trial {
  readonly measures: readonly (number | null)[];
  readonly miss: number;
  /** To be made small: misses, what blocks, and then what is to be large or small. */
  readonly cost: number;
}
const isEnd = ({ is }: Want): boolean => is === 'most' || is === 'least';
/** What is to be large or small, to be made small. */
const goalOf = (wants: readonly Want[], measures: readonly (number | null)[]): number =>
  wants.reduce((sum, w, k) => sum + (isEnd(w) ? (w.is === 'most' ? -1 : 1) * (measures[k] ?? 0) : 0), 0);

/** Rules that take as long as all others: a trial goes without them until an answer is blocked by one. */
const COSTLY: ReadonlySet<RuleId> = new Set(['web', 'tip', 'thickness']);

/** What the flat pieces and the shut card say of a trial; the whole proof comes for those that are told. */
function tried(design: Design, { wants, free }: TargetAsk, values: readonly number[], thorough: boolean): Trial {
  const { evidence, measures } = measured(design, { wants, free }, values);
  if (!evidence) return { measures, miss: NO_CARD, cost: NO_CARD };
  const miss = missOfAll(wants, measures);
  const asked = RULES.filter((r) => r.needs !== 'travel' && !r.neverBlocks && (thorough || !COSTLY.has(r.id)));
  const blocks = asked.flatMap((r) => r.check(evidence)).filter((f) => f.severity === 'blocks');
  const blocked = blocks.reduce((sum, f) => sum + 0.05 + excess(f), 0);
  return { measures, miss, cost: BLOCK_WEIGHT * (miss + blocked) + goalOf(wants, measures) };
}
const missOfAll = (wants: readonly Want[], measures: readonly (number | null)[]): number =>
  wants.reduce((sum, w, k) => sum + (measures[k] === null ? NO_CARD : missOf(w, measures[k])), 0);

/** The card with these values, and its measures; no evidence where it cannot be put together. */
function measured(
  design: Design,
  { wants, free }: TargetAsk,
  values: readonly number[],
): { readonly evidence: Evidence | null; readonly measures: readonly (number | null)[] } {
  const changed = withValues(design, free, values);
  const assembly = tryBuild(changed);
  if (!assembly) return { evidence: null, measures: wants.map(() => null) };
  const evidence = { ...gather(changed, 'closed', 0, assembly), rough: true };
  const reader = new MeasureReader(assembly, evidence);
  return { evidence, measures: wants.map((w) => reader.read(w)) };
}

/** What is missed, with its sign; null where the card cannot be put together so or does not come there. */
function missesOf(design: Design, ask: TargetAsk, values: readonly number[]): number[] | null {
  const { measures } = measured(design, ask, values);
  return measures.some((m) => m === null) ? null : ask.wants.map((w, k) => offBy(w, measures[k]!));
}

const excess = ({ measured, limit }: Finding): number => {
  const off = Math.abs((measured ?? 0) - (limit ?? 0));
  return Number.isFinite(off) ? Math.min(off, 1000) : 1;
};

type Values = readonly number[];

/** Searches the slabs that are named; `onTrial` is told how much is done, 0 to 1. Throws DesignError, RangeError. */
export function searchSlabs(
  design: Design,
  ask: TargetAsk,
  slabs: readonly number[],
  onTrial: (part: number) => void = () => undefined,
): Candidate[] {
  return slabs.flatMap((slab, k) => searchSlab(design, ask, slab, (part) => onTrial((k + part) / slabs.length)));
}
export const ALL_SLABS: readonly number[] = Array.from({ length: SLABS }, (_, k) => k);

/** The whole search. */
export const searchTarget = (design: Design, ask: TargetAsk, onTrial?: (part: number) => void): TargetResult =>
  chosenOf(ask, valuesNow(design, ask), searchSlabs(design, ask, ALL_SLABS, onTrial));

function searchSlab(design: Design, ask: TargetAsk, slab: number, onTrial: (part: number) => void): Candidate[] {
  const first = lookedInto(design, ask, slab, false, onTrial);
  // More rules cost a place no less: where even without them the wants are missed, they lead to no answer.
  // Where one does, it is as good as any of the slab.
  const blocked =
    !first.some((f) => isFound(f.candidate)) &&
    first.some(
      ({ candidate, findings }) =>
        candidate.miss <= MET_WITHIN && findings.some((x) => x.severity === 'blocks' && COSTLY.has(x.rule)),
    );
  return (blocked ? lookedInto(design, ask, slab, true, onTrial) : first).map((f) => f.candidate);
}

interface Looked {
  readonly candidate: Candidate;
  readonly findings: readonly Finding[];
}
function lookedInto(
  design: Design,
  ask: TargetAsk,
  slab: number,
  thorough: boolean,
  onTrial: (part: number) => void,
): Looked[] {
  const [first, ...rest] = ask.free;
  const width = (first.to - first.from) / SLABS;
  const box = [{ from: first.from + slab * width, to: first.from + (slab + 1) * width }, ...rest];
  const points: Lowest[] = [];
  // What is to be as large or small as can be is never good enough.
  const enough = ask.wants.some(isEnd) ? -Infinity : (BLOCK_WEIGHT * MET_WITHIN) / 4;
  const cost = (values: Values): number => {
    const { cost: c } = tried(design, ask, values, thorough);
    points.push({ values: [...values], cost: c });
    return c;
  };
  minimise(cost, box, MOST_TRIALS.slab, -Infinity);
  onTrial(0.5);
  const starts = apartFrom(ask, points).slice(0, MOST_FROM_SLAB);
  return starts.map((start, k) => {
    const { values } = brought(ask, start, enough, cost, (v) => missesOf(design, ask, v));
    onTrial(0.5 + (0.5 * (k + 1)) / starts.length);
    return proved(design, ask, slab, tidied(design, ask, values, thorough));
  });
}

/** From a place that is as good as a coarse search finds it to the best near it. */
function brought(ask: TargetAsk, start: Lowest, enough: number, cost: (v: Values) => number, misses: Misses): Lowest {
  const straight = (at: Lowest): Lowest => {
    const values = straightTo(ask.free, misses, at.values);
    return values === at.values ? at : lower(at, { values, cost: cost(values) });
  };
  const searched = (at: Lowest, part: number): Lowest =>
    at.cost <= enough ? at : lower(at, minimise(cost, boxRound(ask, at.values, part), MOST_TRIALS.box, enough));
  const near = straight(searched(straight(start), ZOOMS.near));
  return totalOf(misses(near.values)) > HOPELESS ? near : searched(near, ZOOMS.exact);
}
const lower = (a: Lowest, b: Lowest): Lowest => (b.cost < a.cost ? b : a);

/** So many trials for each free number are looked at in a slab, and in a box round an answer. */
const MOST_TRIALS = { slab: 60, box: 36 } as const;
/** A number that may not move still needs a span to be searched in. */
const LEAST_SPAN = 1e-9;

/** The lowest of the points that are tried in a box; the first that costs no more than `enough` will do. */
const minimise = (cost: (v: Values) => number, box: readonly Span[], most: number, enough: number): Lowest =>
  lowestIn(
    box.map(({ from, to }) => ({ from, to: Math.max(to, from + LEAST_SPAN) })),
    cost,
    { trials: most * box.length, enough },
  );
const boxRound = ({ free }: TargetAsk, at: Values, part: number) =>
  free.map(({ from, to }, k) => ({
    from: Math.max(from, at[k] - part * (to - from)),
    to: Math.min(to, at[k] + part * (to - from)),
  }));

/** Distance in parts of the ranges. */
const partApart = ({ free }: TargetAsk, a: Values, b: Values): number =>
  Math.hypot(...free.map(({ from, to }, k) => (a[k] - b[k]) / Math.max(1e-9, to - from)));

/** The best points that are no neighbours of each other. */
function apartFrom(ask: TargetAsk, points: readonly Lowest[]): Lowest[] {
  const out: Lowest[] = [];
  const sorted = [...points].sort((a, b) => a.cost - b.cost);
  for (const point of sorted) {
    if (out.length >= MOST_FROM_SLAB || point.cost > sorted[0].cost + BLOCK_WEIGHT * AS_GOOD) break;
    if (out.every((o) => partApart(ask, o.values, point.values) > 2 * SAME_PART)) out.push(point);
  }
  return out;
}

/** The roundest numbers near an answer that are as good: tenths, then hundredths, then as they are. */
function tidied(design: Design, ask: TargetAsk, values: Values, thorough: boolean): Values {
  const { cost, miss } = tried(design, ask, values, thorough);
  const ends = ask.wants.some(isEnd);
  for (const digits of [1, 2, 3]) {
    const round = values.map((v, k) => {
      const { from, to } = ask.free[k];
      return Math.min(to, Math.max(from, Number(v.toFixed(digits))));
    });
    const there = tried(design, ask, round, thorough);
    const allowed = ends ? 10 ** -digits : BLOCK_WEIGHT * 0.5 * MET_WITHIN;
    if (there.cost <= cost + allowed && there.miss <= Math.max(MET_WITHIN / 2, miss)) return round;
  }
  return values;
}

/** The whole proof of an answer. */
function proved(design: Design, ask: TargetAsk, slab: number, values: Values): Looked {
  const { evidence, measures } = measured(design, ask, values);
  const miss = missOfAll(ask.wants, measures);
  if (!evidence)
    return {
      candidate: { slab, values, measures, miss, verdict: 'blocked', against: ['the card cannot be put together so'] },
      findings: [],
    };
  const { verdict, findings } = examine(withValues(design, ask.free, values));
  const against = [
    ...ask.wants.flatMap((w, k) => missed(design, ask, values, k, measures[k])),
    ...findings.filter((f) => f.severity === 'blocks').map((f) => f.message),
  ];
  return { candidate: { slab, values, measures, miss, verdict, against }, findings };
}
function missed(design: Design, ask: TargetAsk, values: Values, k: number, found: number | null): string[] {
  const want = ask.wants[k];
  const { measure, value = 0 } = want;
  const said = (v: number): string => measureWords(measure, v, design.units).value;
  const name = nameAt(design, want);
  if (found === null) return [`${name}: the card does not come there`];
  if (missOf(want, found) <= MET_WITHIN) return [];
  const why = isHeld(design, ask, values, k, found) ? '; none of the numbers that may change has a hand in it' : '';
  return [`${name} is ${said(found)}, wanted is ${said(value)}${why}`];
}

/** Whether a measure stays as it is whichever of the free numbers is moved. */
const isHeld = (design: Design, ask: TargetAsk, values: Values, k: number, now: number): boolean =>
  ask.free.every(({ from, to }, i) =>
    [-0.01, 0.01].every((part) => {
      const there = Math.min(to, Math.max(from, values[i] + part * (to - from)));
      const value = measured(design, ask, values.with(i, there)).measures[k];
      return value === null || Math.abs(value - now) < 1e-6;
    }),
  );

const nameAt = (design: Design, want: Want): string => `${nameOfMeasure(design, want)} ${saidAt(design, want)}`;

const isFound = (c: Candidate): boolean =>
  c.miss <= MET_WITHIN && c.verdict !== 'blocked' && c.measures.every((m) => m !== null);

/** The free numbers as they are. */
export const valuesNow = (design: Design, { free }: TargetAsk): number[] =>
  free.map(({ mechanism, key }) => leverValue(design, mechanism, key) ?? 0);

/** Of all candidates those that do, each once; or the nearest. */
export function chosenOf(ask: TargetAsk, now: readonly number[], candidates: readonly Candidate[]): TargetResult {
  const goal = (c: Candidate): number => goalOf(ask.wants, c.measures);
  const byWorth = [...candidates]
    .filter(isFound)
    .sort((a, b) => goal(a) - goal(b) || partApart(ask, a.values, now) - partApart(ask, b.values, now));
  const found = byWorth.reduce<Candidate[]>(
    (out, c) => (out.some((o) => partApart(ask, o.values, c.values) < SAME_PART) ? out : [...out, c]),
    [],
  );
  const worth = (c: Candidate): number => c.miss + (c.verdict === 'blocked' ? 0.5 * c.against.length : 0);
  const nearest = candidates.reduce<Candidate | null>((best, c) => (best && worth(best) <= worth(c) ? best : c), null);
  // What is to be as large as can be has one answer; others of the list are as good within a hair.
  const best = found.length > 0 ? goal(found[0]) : 0;
  const told = ask.wants.some(isEnd) ? found.filter((c) => goal(c) - best < MET_WITHIN) : found;
  return { found: told.slice(0, MOST_FOUND), nearest: found.length > 0 ? null : nearest };
}
