/** Stretches of the opening at which something is wrong, as they are shown along the travel. */
import { OPEN } from '@/core/drives';
import type { Finding } from '@/core/rules';
import type { Proof } from '@/core/proof/prove';

export interface Band {
  /** Degrees open. */
  readonly from: number;
  readonly to: number;
  readonly name: string;
  readonly bad: boolean;
}

/**
 * What lies on a leaf lies higher than that, and so is further from the gutter by less than this, mm: 3 mm of layers
 * over 100 mm of leaf reach 0.045 mm further.
 */
const PAST_MM = 0.05;
/** A bend is shown so far to either side of where it is worst, degrees. */
const BEND_DEG = 5;

export function bandsOf(proof: Proof | null): Band[] {
  if (!proof) return [];
  const past = proof.travel.filter((t) => (t.reach_mm ?? -1) > PAST_MM);
  const out = past.length > 0 ? [{ from: past[0].open, to: past.at(-1)!.open, name: 'pokes out', bad: true }] : [];
  return [...out, ...proof.findings.flatMap(bandOf)];
}

function bandOf({ rule, severity, unit, drive, span, limit, measured }: Finding): Band[] {
  // A note says what was not looked at, or where a hand stops by itself: nothing is wrong there.
  if (severity === 'note') return [];
  // What only a hand can bring about belongs to the drive it moves.
  const byOpening = Object.entries(drive).every(([id, v]) => id === OPEN || v === 0);
  if (rule === 'collision' && byOpening)
    return [{ from: span?.from ?? drive.open, to: span?.to ?? drive.open, name: 'passes through', bad: true }];
  if (rule !== 'flex') return [];
  if (unit === 'mm') {
    const [from, to] = [Math.max(0, drive.open - BEND_DEG), Math.min(180, drive.open + BEND_DEG)];
    return [{ from, to, name: 'bends', bad: false }];
  }
  if (unit !== 'deg') return [];
  const [from, to] = limit === 180 ? [measured, 180] : [0, measured];
  return [{ from, to, name: 'out of reach', bad: true }];
}
