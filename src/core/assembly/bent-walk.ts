/**
 * Where paper must bend there may be several poses of least gap, and which is found depends on where it is looked for.
 * So they are followed from both ends of the opening, step by step, and of all that are found the one of the least
 * misfit is taken (docs/architecture.md). The steps do not depend on what was asked before.
 */
import { carriedOn, largestGap, leastBending, placeBodies, type Bent, type Folds, type Rigid } from '../linkage';
import type { Assembly } from './parts';

/** Steps of the opening's range, as fine as the walk of the linkage at its coarsest. */
const STEPS = 36;
/** What so nearly closes has no other pose to be looked for, mm. */
const NEARLY_CLOSED_MM = 0.5;
/** Larger designs are bent from their rigid pose alone. */
const MOST_BODIES = 60;

interface Ways {
  readonly fromFirst: (readonly Rigid[] | null)[];
  readonly fromLast: (readonly Rigid[] | null)[];
}
const known = new WeakMap<Assembly, Ways>();

/** @param values of every drive, in the unit of its joints */
export function leastBent(assembly: Assembly, folds: Folds, values: readonly number[]): Bent {
  const { linkage } = assembly;
  const rigid = placeBodies(linkage, folds.q);
  if (largestGap(linkage, rigid).mm <= NEARLY_CLOSED_MM) return leastBending(linkage, rigid, folds.q);
  const beside = nodesBeside(assembly, values).map((node) => carriedOn(linkage, folds.q, node, rigid));
  const starts = beside.length > 0 ? beside : [rigid];
  return starts.map((from) => leastBending(linkage, from, folds.q)).reduce((a, b) => (b.cost < a.cost ? b : a));
}

/** Poses on both ways next to where the opening is; none while a hand has moved something else. */
function nodesBeside(assembly: Assembly, values: readonly number[]): (readonly Rigid[])[] {
  const { linkage } = assembly;
  const [{ range }, ...hand] = linkage.drives;
  if (linkage.bodies > MOST_BODIES || hand.some((d, k) => values[k + 1] !== d.rest)) return [];
  const ways = known.get(assembly) ?? { fromFirst: [], fromLast: [] };
  known.set(assembly, ways);
  const part = ((values[0] - range[0]) / (range[1] - range[0])) * STEPS;
  const at = Math.min(STEPS, Math.max(0, part));
  const [below, above] = [Math.floor(at), Math.ceil(at)];
  const found = [
    follow(assembly, ways.fromFirst, below, (k) => k),
    follow(assembly, ways.fromLast, STEPS - above, (k) => STEPS - k),
  ];
  return found.filter((node) => node !== null);
}

/** The pose after so many steps of a way; null where the travel does not go so far. */
function follow(
  assembly: Assembly,
  way: (readonly Rigid[] | null)[],
  count: number,
  place: (k: number) => number,
): readonly Rigid[] | null {
  const { linkage, travel } = assembly;
  const [{ range }] = linkage.drives;
  for (let k = way.length; k <= count; k++) {
    const before = k === 0 ? undefined : way[k - 1];
    const { folds, stop } = travel.at(range[0] + ((range[1] - range[0]) * place(k)) / STEPS);
    if (stop || before === null) {
      way.push(null);
      continue;
    }
    const rigid = placeBodies(linkage, folds.q);
    const from = before ? carriedOn(linkage, folds.q, before, rigid) : rigid;
    way.push(folds.bentLoops.length === 0 ? rigid : leastBending(linkage, from, folds.q).bodies);
  }
  return way[count];
}
