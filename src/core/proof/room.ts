/** Room of a parameter: the range in which the design holds, and what ends it. For the bars under number fields. */
import { nameOfMechanism } from '../document/words';
import { RULES, RULE_WORDS, type Cause, type Finding, type RuleId } from '../rules';
import { tryBuild } from '../build/build';
import type { Design } from '../document/design';
import { rangeAround } from './levers';
import { gather, setLever } from './prove';

export interface RoomEnd {
  readonly value: number;
  /** What sets it, in a few words. */
  readonly by: string;
}
export interface Room {
  readonly key: string;
  /** What the bar shows. */
  readonly from: number;
  readonly to: number;
  /**
   * Range round the present value in which nothing blocks; null where the present value itself is blocked and none is
   * near.
   */
  readonly clear: { readonly low: RoomEnd; readonly high: RoomEnd } | null;
}

/** Rules that geometry alone decides, without a walk through the travel. */
const LIMITS: readonly RuleId[] = ['flat-fold', 'loose-part', 'overhang', 'glue-room', 'web'];
const SAMPLES = 14;
const MOST_CUTS = 400;
const CLOSE = 0.05;

/** First finding that `key` = `value` brings which the design does not have without it; null when it is fine. */
function obstacle(design: Design, mechanism: string, key: string, value: number): Finding | 'no shape' | null {
  const changed = setLever(design, mechanism, key, value);
  const assembly = tryBuild(changed);
  if (!assembly) return 'no shape';
  const evidence = { ...gather(changed, 'closed', 0, assembly), rough: true };
  // Necks along long outlines take too long to look for at every value: the proof names those.
  const cuts = assembly.pieces.reduce((n, p) => n + p.lines.length, 0);
  for (const rule of RULES) {
    if (!LIMITS.includes(rule.id) || (rule.id === 'web' && cuts > MOST_CUTS)) continue;
    const found = rule.check(evidence).find((f) => f.severity === 'blocks' || f.rule === 'web');
    if (found) return found;
  }
  return null;
}

const PAST = { fore: 'fore edge', head: 'head edge', foot: 'foot edge', spine: 'past the spine' } as const;
function causeWords(design: Design, cause: Cause): string {
  switch (cause.of) {
    case 'beside':
      return `beside ${nameOfMechanism(design, cause.mechanism)}`;
    case 'past':
      return PAST[cause.side];
    case 'unheld':
      return 'nothing holds it';
    case 'stays-open':
      return 'stays open';
    case 'contradiction':
      return 'cannot fold flat';
  }
}
/** Of what names no cause. */
const RULE_ENDS: Partial<Readonly<Record<RuleId, string>>> = {
  web: 'thin strip',
  'loose-part': 'paper ends',
  'glue-room': 'no room for glue',
};
function nameOf(design: Design, f: Finding | 'no shape'): string {
  if (f === 'no shape') return 'no shape left';
  return f.cause ? causeWords(design, f.cause) : (RULE_ENDS[f.rule] ?? RULE_WORDS[f.rule].toLowerCase());
}

/** The room of one number of a mechanism. Null for choices and for numbers that follow from others. */
export function roomOf(design: Design, mechanism: string, key: string): Room | null {
  const range = rangeAround(design, mechanism, key);
  if (!range) return null;
  const { now, from, to } = range;
  const at = (value: number): Finding | 'no shape' | null => obstacle(design, mechanism, key, value);
  const samples = Array.from({ length: SAMPLES + 1 }, (_, k) => from + ((to - from) * k) / SAMPLES);
  const seed =
    at(now) === null
      ? now
      : samples.filter((v) => at(v) === null).sort((a, b) => Math.abs(a - now) - Math.abs(b - now))[0];
  if (seed === undefined) return { key, from, to, clear: null };
  const end = (limit: number): RoomEnd => {
    let good = seed;
    let bad: number | null = null;
    let by: Finding | 'no shape' | null = null;
    for (const v of limit > seed ? samples.filter((s) => s > seed) : samples.filter((s) => s < seed).reverse()) {
      by = at(v);
      if (by) {
        bad = v;
        break;
      }
      good = v;
    }
    if (bad === null) return { value: limit, by: '' };
    while (Math.abs(bad - good) > CLOSE) {
      const middle: number = (bad + good) / 2;
      const found = at(middle);
      if (found) [bad, by] = [middle, found];
      else good = middle;
    }
    return { value: good, by: nameOf(design, by!) };
  };
  return { key, from, to, clear: { low: end(from), high: end(to) } };
}
