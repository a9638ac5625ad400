/**
 * What would make a card forgiving: one number of a mechanism changed so far that of a hundred made cards ninety-nine
 * stay inside, keep their play, stay covered. Each is proved in full, and made again with the same scatter.
 */
import { quantileSorted } from 'd3-array';
import { fieldOf, kindIn } from '../document/fields';
import type { Design } from '../document/design';
import { numbersOf } from '../build/grips';
import { leverValue, setLever } from '../proof/levers';
import { examine, type Verdict } from '../proof/prove';
import { tryBuild } from '../build/build';
import { Maker } from './fitness';
import { studied, summaryOf, type Sample, type Study } from './study';

export interface Forgiving {
  readonly mechanism: string;
  readonly parameter: string;
  readonly from: number;
  readonly value: number;
  /** Of the cards made so. */
  readonly goodPct: number;
  readonly verdict: Verdict;
}

/** Cards that each is tried with. */
const TRIED = 120;
/** So many of a hundred are to be well. */
const WELL = 0.99;
const NUDGE_MM = 0.5;
/** A number that does less than this for each of its own millimetres has no hand in it. */
const LEAST_SLOPE = 0.2;
const MOST_TOLD = 4;
const MOST_CHANGE_MM = 30;

/** Something that is short in too many cards: by how much, and how it is read off a design. Below 0 it fails. */
interface Short {
  readonly byMm: number;
  readonly mechanisms: readonly string[];
  readonly keysOf: (mechanism: string) => readonly string[];
  /** Spare as drawn, mm; null where it cannot be told. */
  readonly read: (maker: Maker) => number | null;
}

/** Changes that help, the smallest first; none where nothing is short. Throws DesignError. */
export function forgivingOf(design: Design, study: Study): Forgiving[] {
  const before = summaryOf(study);
  const maker = new Maker(design, study.scatter);
  const ways = shortOf(design, study, maker).flatMap((short) =>
    short.mechanisms.flatMap((id) =>
      short.keysOf(id).flatMap((key): Forgiving[] => {
        const value = shiftedTo(design, study, id, key, short, short.read(maker));
        return value === null ? [] : tried(design, study, id, key, value);
      }),
    ),
  );
  return ways
    .filter((w) => w.verdict !== 'blocked' && w.goodPct > before.goodPct)
    .sort((a, b) => Math.abs(a.value - a.from) - Math.abs(b.value - b.from))
    .slice(0, MOST_TOLD);
}

function shortOf(design: Design, study: Study, maker: Maker): Short[] {
  const isLength = (id: string) => (key: string) => fieldOf(kindIn(design, id) ?? '', key)?.unit === 'mm';
  const inside: Short = {
    byMm: missing(study.samples, (s) => (s.overhangMm === null ? null : study.mayOverhangMm - s.overhangMm)),
    mechanisms: design.mechanisms.map((m) => m.id),
    keysOf: (id) => numbersOf(design, id).filter(isLength(id)),
    read: (m) => negated(m.asDrawn.overhangMm),
  };
  const fitting = (read: (s: Sample) => number | null, covered: boolean): Short => {
    const fits = maker.fits.filter((f) => (f.rule === 'covered') === covered);
    return {
      byMm: missing(study.samples, read),
      mechanisms: [...new Set(fits.map((f) => f.mechanism))],
      keysOf: (id) => [...new Set(fits.filter((f) => f.mechanism === id).flatMap((f) => f.levers))],
      read: (m) => (covered ? m.asDrawn.coverMm : m.asDrawn.playMm),
    };
  };
  const all = [inside, fitting((s) => s.playMm, false), fitting((s) => s.coverMm, true)];
  return all.filter((s) => s.byMm > 0);
}
const negated = (v: number | null): number | null => (v === null ? null : -v);

/** How much more spare ninety-nine of a hundred cards would need; 0 or below where they have it. */
function missing(samples: readonly Sample[], spare: (s: Sample) => number | null): number {
  const sorted = samples.flatMap((s) => spare(s) ?? []).sort((a, b) => a - b);
  return sorted.length === 0 ? 0 : -quantileSorted(sorted, 1 - WELL)!;
}

/** Where a number must go so that there is so much more to spare; null where it has no hand in it. */
function shiftedTo(
  design: Design,
  study: Study,
  id: string,
  key: string,
  { byMm, read }: Short,
  now: number | null,
): number | null {
  const from = leverValue(design, id, key);
  if (from === null || now === null) return null;
  const nudged = setLever(design, id, key, from - NUDGE_MM);
  if (!tryBuild(nudged)) return null;
  const there = read(new Maker(nudged, study.scatter));
  const slope = there === null ? 0 : (now - there) / NUDGE_MM;
  if (Math.abs(slope) < LEAST_SLOPE) return null;
  const by = byMm / slope;
  if (Math.abs(by) > MOST_CHANGE_MM) return null;
  // To whole tenths, past the need rather than short of it.
  const value = (by < 0 ? Math.floor((from + by) * 10 + 1e-9) : Math.ceil((from + by) * 10 - 1e-9)) / 10;
  const { min = -Infinity, max = Infinity } = fieldOf(kindIn(design, id) ?? '', key) ?? {};
  return value < min || value > max ? null : value;
}

function tried(design: Design, study: Study, mechanism: string, parameter: string, value: number): Forgiving[] {
  const changed = setLever(design, mechanism, parameter, value);
  if (!tryBuild(changed)) return [];
  const { verdict } = examine(changed);
  const again = summaryOf(studied(changed, { made: TRIED, seed: study.seed, scatter: study.scatter }));
  return [
    { mechanism, parameter, from: leverValue(design, mechanism, parameter)!, value, goodPct: again.goodPct, verdict },
  ];
}
