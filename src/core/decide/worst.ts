/**
 * The worst cards that careful making still allows: every step at the limit of its scatter, to the side that makes it
 * worse. Sides are found by what each step does by itself, then turned one by one for as long as that makes it worse.
 */
import type { Design } from '../document/design';
import { Maker, type Fitness } from './fitness';
import type { MakingStep, Scatter } from './scatter';

/** Limit of a step, in standard deviations: nineteen of twenty lie within (normal distribution). */
export const WORST_SIGMAS = 1.96;
/** Sides are looked at again at most so often. */
const MOST_ROUNDS = 3;

export interface WorstCard {
  /** What is at its worst: what pokes out, or what does not close. */
  readonly of: 'overhang' | 'closing';
  readonly fitness: Fitness;
  /** How far each step of the card goes astray, mm or degrees. */
  readonly amounts: readonly number[];
  /** The same of those that matter. */
  readonly astray: readonly { readonly kind: MakingStep['kind']; readonly id: string; readonly by: number }[];
}

const WORSE = {
  overhang: (f: Fitness): number => f.overhangMm ?? -Infinity,
  closing: (f: Fitness): number => f.closedGapMm ?? 0,
} as const;

/** Throws DesignError. */
export function worstCards(design: Design, scatter: Scatter): WorstCard[] {
  const maker = new Maker(design, scatter);
  return (['overhang', 'closing'] as const).flatMap((of) => {
    const worse = WORSE[of];
    const limits = maker.steps.map(({ sigma }) => WORST_SIGMAS * sigma);
    const value = (amounts: readonly number[]): number => worse(maker.make(amounts, false));
    const amounts = turnedWorse(startOf(limits, value), value);
    const fitness = maker.make(amounts);
    if (worse(fitness) === -Infinity) return [];
    const astray = maker.steps.map(({ kind, id }, k) => ({ kind, id, by: amounts[k] }));
    return [{ of, fitness, amounts, astray: astray.filter((a) => a.by !== 0) }];
  });
}

/** Each step to the side that is worse by itself; what makes no difference stays. */
function startOf(limits: readonly number[], value: (amounts: readonly number[]) => number): number[] {
  return limits.map((limit, k) => {
    const alone = (by: number): number => value(limits.map((_, i) => (i === k ? by : 0)));
    const [up, down] = [alone(limit), alone(-limit)];
    return Math.abs(up - down) < NO_DIFFERENCE_MM && Math.abs(up - alone(0)) < NO_DIFFERENCE_MM
      ? 0
      : up >= down
        ? limit
        : -limit;
  });
}
const NO_DIFFERENCE_MM = 1e-6;

function turnedWorse(from: number[], value: (amounts: readonly number[]) => number): number[] {
  let [amounts, worst] = [from, value(from)];
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let turned = false;
    for (let k = 0; k < amounts.length; k++) {
      if (amounts[k] === 0) continue;
      const other = amounts.with(k, -amounts[k]);
      const there = value(other);
      if (there <= worst + NO_DIFFERENCE_MM) continue;
      [amounts, worst, turned] = [other, there, true];
    }
    if (!turned) break;
  }
  return amounts;
}
