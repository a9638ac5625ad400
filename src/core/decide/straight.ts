/**
 * The straight way to what is wanted: from the differences of what is missed, the least change of all numbers together
 * that would meet it (Gauss-Newton steps by the pseudoinverse). It knows nothing of rules, and needs a place that is
 * near; where it gains nothing it stays.
 */
import { Matrix, pseudoInverse } from 'ml-matrix';
import type { Span } from './direct';

/** What is missed, each with its sign, 0 where it is met; null where the card cannot be put together so. */
export type Misses = (values: readonly number[]) => readonly number[] | null;

const STEPS = 6;
const HALVINGS = 4;
/** Numbers are nudged by so much of their spans. */
const NUDGE = 1e-3;
/** Slopes that are so much less than the steepest are taken for none: following them would lead far away. */
const FLAT = 1e-3;
/** What is missed by less than this in all is met. */
const MET = 1e-6;

/** A place in the spans where less is missed than at the start, or the start itself. */
export function straightTo(spans: readonly Span[], misses: Misses, start: readonly number[]): readonly number[] {
  let at = start;
  let missed = misses(at);
  for (let k = 0; k < STEPS && missed && totalOf(missed) > MET; k++) {
    const step = stepFrom(spans, misses, at, missed);
    const better = step && halvedUntilBetter(spans, misses, at, step, totalOf(missed));
    if (!better) break;
    at = better;
    missed = misses(at);
  }
  return at;
}
/** What is missed in all, in the unit of the wants; without end where the card cannot be put together. */
export const totalOf = (missed: readonly number[] | null): number =>
  missed ? missed.reduce((sum, m) => sum + Math.abs(m), 0) : Infinity;

/** The least change, in parts of the spans, that would meet all; null where it cannot be told. */
function stepFrom(
  spans: readonly Span[],
  misses: Misses,
  at: readonly number[],
  missed: readonly number[],
): readonly number[] | null {
  const open = [...missed.keys()].filter((k) => missed[k] !== 0);
  const columns = spans.map(({ from, to }, k) => {
    const forward = at[k] + NUDGE * (to - from) <= to;
    const there = misses(at.with(k, at[k] + (forward ? NUDGE : -NUDGE) * (to - from)));
    return there && open.map((row) => (there[row] - missed[row]) / (forward ? NUDGE : -NUDGE));
  });
  const known = columns.filter((c) => c !== null);
  if (known.length < columns.length) return null;
  const slopes = new Matrix(known).transpose();
  const step = pseudoInverse(slopes, FLAT).mmul(Matrix.columnVector(open.map((row) => -missed[row])));
  return step.to1DArray();
}

function halvedUntilBetter(
  spans: readonly Span[],
  misses: Misses,
  at: readonly number[],
  step: readonly number[],
  than: number,
): readonly number[] | null {
  for (let k = 0; k < HALVINGS; k++) {
    const there = at.map((v, i) => within(spans[i], v + (step[i] / 2 ** k) * (spans[i].to - spans[i].from)));
    const missed = misses(there);
    if (totalOf(missed) < than) return there;
  }
  return null;
}
const within = ({ from, to }: Span, value: number): number => Math.min(to, Math.max(from, value));
