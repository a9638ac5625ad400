/**
 * The worst cards that careful making still allows: every step at the limit of its scatter, to the side that makes it
 * worse. Which sides those are is read from the solver's derivatives at the card as drawn, for every place that could
 * be the worst; the likeliest are made, and from the worst of these it is read again for as long as that finds a worse.
 */
import type { Design } from '../document/design';
import type { Vec3 } from '../linkage';
import { Maker, meanOf, type Fitness, type Marks, type When } from './fitness';
import type { MakingStep, Scatter } from './scatter';

/** Limit of a step, in standard deviations: nineteen of twenty lie within (normal distribution). */
export const WORST_SIGMAS = 1.96;
/** So many cards are made of each sort before the worst is chosen. */
const MOST_MADE = 16;
/** Derivatives are taken again at most so often, and a gap's own direction gone after. */
const MOST_ROUNDS = 3;
/** Derivatives are taken over this part of a limit. */
const NEXT_TO_NOTHING = 1e-3;
const NO_DIFFERENCE_MM = 1e-6;

/** What is at its worst: what pokes out, does not close, binds on its way, or shows an edge. */
export type WorstOf = 'overhang' | 'closing' | 'binding' | 'edges';
export interface WorstCard {
  readonly of: WorstOf;
  readonly fitness: Fitness;
  /** How far each step of the card goes astray, mm or degrees. */
  readonly amounts: readonly number[];
  /** The same of those that matter. */
  readonly astray: readonly { readonly kind: MakingStep['kind']; readonly id: string; readonly by: number }[];
}

/** A number, or a gap, whose length counts. */
type Mark = readonly [number] | Vec3;
/** Every place past the middle of the edges of every side: an edge turns about its middle, a corner says little. */
function pokes({ places, edges }: Marks): Mark[] {
  const middle = edges.map((list) => meanOf(list.map(meanOf)));
  return places.flatMap((list, side) => list.map((out): Mark => [out - middle[side]]));
}
/** Every corner of an edge past the middle of every other that it should meet. */
const apart = ({ edges }: Marks): Mark[] =>
  edges.flatMap((list) =>
    list.flatMap((edge, i) =>
      list.filter((_, k) => k !== i).flatMap((other) => edge.map((out): Mark => [out - meanOf(other)])),
    ),
  );

interface Sort {
  readonly when: When;
  /** How bad a card is, mm. */
  readonly worse: (f: Fitness) => number;
  /** What this is the greatest of. */
  readonly marks: (m: Marks) => readonly Mark[];
}
const SORTS: Readonly<Record<WorstOf, Sort>> = {
  overhang: { when: 'shut', worse: (f) => f.overhangMm ?? -Infinity, marks: pokes },
  closing: { when: 'shut', worse: (f) => f.closedGapMm ?? 0, marks: (m) => m.gaps },
  binding: { when: 'on its way', worse: (f) => f.wayGapMm, marks: (m) => m.gaps },
  edges: { when: 'shut', worse: (f) => f.edgesMm, marks: apart },
};

/** The worst card of each sort in which its steps matter. Throws DesignError. */
export function worstCards(design: Design, scatter: Scatter): WorstCard[] {
  const maker = new Maker(design, scatter);
  const limits = maker.steps.map(({ sigma }) => WORST_SIGMAS * sigma);
  const none = limits.map(() => 0);
  const slopesAt = (amounts: readonly number[], when: When): Slopes => new Slopes(maker, limits, amounts, when);
  const drawn = { shut: slopesAt(none, 'shut'), 'on its way': slopesAt(none, 'on its way') };
  return (Object.keys(SORTS) as WorstOf[]).flatMap((of) => {
    const { when, worse, marks } = SORTS[of];
    const worstOf = (slopes: Slopes): Made | undefined =>
      likelyWorst(slopes, marks, limits)
        .map((amounts) => ({ amounts, by: worse(maker.make(amounts, when === 'on its way')) }))
        .sort((a, b) => b.by - a.by)[0];
    let worst = worstOf(drawn[when]);
    if (!worst) return [];
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const next = worstOf(slopesAt(worst.amounts, when));
      if (!next || next.by <= worst.by + NO_DIFFERENCE_MM) break;
      worst = next;
    }
    const { amounts } = worst;
    const astray = maker.steps.map(({ kind, id }, k) => ({ kind, id, by: amounts[k] })).filter((a) => a.by !== 0);
    return [{ of, fitness: maker.make(amounts), amounts, astray }];
  });
}
interface Made {
  readonly amounts: readonly number[];
  readonly by: number;
}

/** The solver's derivatives at a made card: its marks, and what they are with each step a little further. */
class Slopes {
  readonly here: Marks;
  readonly near: readonly Marks[];
  constructor(
    maker: Maker,
    limits: readonly number[],
    readonly amounts: readonly number[],
    when: When,
  ) {
    const bodies = maker.bodies(amounts, when);
    this.here = maker.marks(amounts, when, bodies);
    this.near = limits.map((limit, k) =>
      maker.marks(amounts.with(k, amounts[k] + NEXT_TO_NOTHING * limit), when, bodies),
    );
  }
}

/** How far each step should go to make a mark greatest, for the few marks that promise most. */
function likelyWorst(slopes: Slopes, marks: (m: Marks) => readonly Mark[], limits: readonly number[]): number[][] {
  const near = slopes.near.map(marks);
  const promised = marks(slopes.here).map((here, m) => {
    // What each step brings by itself at its limit, and what would be left with every step as drawn.
    const brings = near.map((list) => list[m].map((x, axis) => (x - here[axis]) / NEXT_TO_NOTHING));
    const now = here.map((x, axis) =>
      brings.reduce((left, b, k) => left - (slopes.amounts[k] / limits[k]) * b[axis], x as number),
    );
    return greatest(now, brings);
  });
  const kept = new Map<string, readonly number[]>();
  for (const { sides } of promised.sort((a, b) => b.size - a.size)) {
    if (kept.size === MOST_MADE) break;
    if (sides.some((s) => s !== 0)) kept.set(sides.join(), sides);
  }
  return [...kept.values()].map((sides) => sides.map((s, k) => s * limits[k]));
}

/** The side of every step with which a mark is greatest: a number as it is, a gap by its length. */
function greatest(now: readonly number[], brings: readonly (readonly number[])[]): { sides: number[]; size: number } {
  if (now.length === 1) return toward(now, brings, [1]);
  const ways = [0, 1, 2].flatMap((axis) => [1, -1].map((s) => climbed(now, brings, [0, 0, 0].with(axis, s))));
  return ways.reduce((a, b) => (b.size > a.size ? b : a));
}
/** The sum is longest along its own direction: that is gone after until it is met. */
function climbed(now: readonly number[], brings: readonly (readonly number[])[], along: readonly number[]) {
  let best = toward(now, brings, along);
  if (best.size < NO_DIFFERENCE_MM) return best;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const next = toward(
      now,
      brings,
      best.sum.map((x) => x / best.size),
    );
    if (!(next.size > best.size + NO_DIFFERENCE_MM)) break;
    best = next;
  }
  return best;
}
function toward(now: readonly number[], brings: readonly (readonly number[])[], along: readonly number[]) {
  const sides = brings.map((b) => {
    const by = b.reduce((sum, x, axis) => sum + x * along[axis], 0);
    return Math.abs(by) < NO_DIFFERENCE_MM ? 0 : Math.sign(by);
  });
  const sum = now.map((x, axis) => brings.reduce((all, b, k) => all + sides[k] * b[axis], x));
  return { sides, sum, size: sum.length === 1 ? sum[0] : Math.hypot(...sum) };
}
