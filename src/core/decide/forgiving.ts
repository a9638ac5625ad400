/**
 * What would make a card forgiving: one number of a mechanism changed so far that what pokes out of the made cards no
 * longer does. Each is proved in full, and made again with the same scatter.
 */
import { fieldOf, kindIn } from '../document/fields';
import type { Design } from '../document/design';
import { numbersOf } from '../build/grips';
import { leverValue, setLever } from '../proof/levers';
import { prove, type Verdict } from '../proof/prove';
import { quantileSorted } from 'd3-array';
import { tryBuild } from '../build/build';
import { Maker } from './fitness';
import { studied, summaryOf, type Study } from './study';

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
/** So many of a hundred are to stay inside. */
const STAYS_IN = 0.99;
const NUDGE_MM = 0.5;
const MOST_TOLD = 4;
const MOST_CHANGE_MM = 30;

/** Changes that help, the smallest first; none where nothing pokes out. Throws DesignError. */
export function forgivingOf(design: Design, study: Study): Forgiving[] {
  const before = summaryOf(study);
  const sorted = study.samples.flatMap((s) => s.overhangMm ?? []).sort((a, b) => a - b);
  const out = sorted.length === 0 ? -1 : quantileSorted(sorted, STAYS_IN)! - study.mayOverhangMm;
  if (out <= 0) return [];
  const now = study.asDrawn.overhangMm ?? 0;
  const ways = design.mechanisms.flatMap(({ id }) =>
    numbersOf(design, id)
      .filter((key) => fieldOf(kindIn(design, id) ?? '', key)?.unit === 'mm')
      .flatMap((key): Forgiving[] => {
        const value = shiftedTo(design, study, id, key, now, out);
        return value === null ? [] : tried(design, study, id, key, value);
      }),
  );
  return ways
    .filter((w) => w.verdict !== 'blocked' && w.goodPct > before.goodPct)
    .sort((a, b) => Math.abs(a.value - a.from) - Math.abs(b.value - b.from))
    .slice(0, MOST_TOLD);
}

/** Where a number must go so that what pokes out as drawn comes in by so much; null where it has no hand in it. */
function shiftedTo(design: Design, study: Study, id: string, key: string, now: number, out: number): number | null {
  const from = leverValue(design, id, key);
  if (from === null) return null;
  const nudged = setLever(design, id, key, from - NUDGE_MM);
  if (!tryBuild(nudged)) return null;
  const there = new Maker(nudged, study.scatter).asDrawn.overhangMm;
  const slope = there === null ? 0 : (now - there) / NUDGE_MM;
  if (Math.abs(slope) < 0.2) return null;
  const by = -out / slope;
  if (Math.abs(by) > MOST_CHANGE_MM) return null;
  // To whole tenths, past the need rather than short of it.
  const value = (by < 0 ? Math.floor((from + by) * 10 + 1e-9) : Math.ceil((from + by) * 10 - 1e-9)) / 10;
  const { min = -Infinity, max = Infinity } = fieldOf(kindIn(design, id) ?? '', key) ?? {};
  return value < min || value > max ? null : value;
}

function tried(design: Design, study: Study, mechanism: string, parameter: string, value: number): Forgiving[] {
  const changed = setLever(design, mechanism, parameter, value);
  if (!tryBuild(changed)) return [];
  const { verdict } = prove(changed);
  const again = summaryOf(studied(changed, { made: TRIED, seed: study.seed, scatter: study.scatter }));
  return [
    { mechanism, parameter, from: leverValue(design, mechanism, parameter)!, value, goodPct: again.goodPct, verdict },
  ];
}
