/**
 * Where paper must bend there may be several poses of least gap, and which is found depends on where it is looked for.
 * A person folds the card shut and opens it again, and paper does not pass through the leaves: so the poses are
 * followed from the shut card, step by step, in front of both leaves (docs/architecture.md). The steps do not depend on
 * what was asked before.
 *
 *     shut ──●──●──●──●── … ──● open      each from the one before; only where the card does not
 *            └─ held in front of both     shut, from the open end
 */
import { applyRigid, carriedOn, largestGap, leastBending, placeBodies, type Bent, type Folds } from '../linkage';
import type { Rigid, Wall } from '../linkage';
import { carrierOf } from './carrier';
import type { Assembly } from './parts';

/** Steps of the opening's range, as fine as the walk of the linkage at its coarsest. */
const STEPS = 36;
/** What so nearly closes has no other pose to be looked for, mm. */
const NEARLY_CLOSED_MM = 0.5;
/** Larger designs are bent from their rigid pose alone. */
const MOST_BODIES = 60;

type Way = (readonly Rigid[] | null)[];
interface Known {
  readonly walls: readonly Wall[];
  readonly fromShut: Way;
  readonly fromOpen: Way;
}
const known = new WeakMap<Assembly, Known>();
function knownOf(assembly: Assembly): Known {
  const found = known.get(assembly) ?? { walls: wallsOf(assembly), fromShut: [], fromOpen: [] };
  known.set(assembly, found);
  return found;
}

/** @param values of every drive, in the unit of its joints */
export function leastBent(assembly: Assembly, folds: Folds, values: readonly number[]): Bent {
  const { linkage } = assembly;
  const { walls } = knownOf(assembly);
  const rigid = placeBodies(linkage, folds.q);
  if (largestGap(linkage, rigid).mm <= NEARLY_CLOSED_MM) return leastBending(linkage, rigid, folds.q, walls);
  const before = nodeBefore(assembly, values);
  return leastBending(linkage, before ? carriedOn(linkage, folds.q, before, rigid) : rigid, folds.q, walls);
}

/**
 * A sheet that folds rigidly in no way, its creases folded evenly by their roles: bent from the flat sheet on, step by
 * step, since far from flat the nearest pose without a gap may be one that leaves most of its creases flat.
 * @param value of the opening, in the unit of its joints
 */
export function bentFromFlat(assembly: Assembly, value: number): { readonly folds: Folds; readonly bent: Bent } {
  const { linkage, travel } = assembly;
  const { flat, range } = linkage.drives[0];
  const whole = Math.abs(range[1] - range[0]) / STEPS;
  const count = linkage.bodies > MOST_BODIES ? 1 : Math.max(1, Math.ceil(Math.abs(value - flat) / whole));
  let before: readonly Rigid[] | null = null;
  for (let k = 1; ; k++) {
    const folds = travel.evenFolds(flat + ((value - flat) * k) / count);
    const rigid = placeBodies(linkage, folds.q);
    const bent = leastBending(linkage, before ? carriedOn(linkage, folds.q, before, rigid) : rigid, folds.q);
    if (k === count) return { folds, bent };
    before = bent.bodies;
  }
}

/** The pose of the way just before where the opening is; none while a hand has moved something else. */
function nodeBefore(assembly: Assembly, values: readonly number[]): readonly Rigid[] | null {
  const { linkage } = assembly;
  const [{ range }, ...hand] = linkage.drives;
  if (linkage.bodies > MOST_BODIES || hand.some((d, k) => values[k + 1] !== d.rest)) return null;
  const { fromShut, fromOpen } = knownOf(assembly);
  const part = ((values[0] - range[0]) / (range[1] - range[0])) * STEPS;
  const at = Math.min(STEPS, Math.max(0, part));
  return (
    follow(assembly, fromShut, Math.floor(at), (k) => k) ??
    follow(assembly, fromOpen, STEPS - Math.ceil(at), (k) => STEPS - k)
  );
}

/** The pose after so many steps of a way; null where the travel does not go so far. */
function follow(assembly: Assembly, way: Way, count: number, place: (k: number) => number): readonly Rigid[] | null {
  const { linkage, travel } = assembly;
  const { walls } = knownOf(assembly);
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
    way.push(folds.bentLoops.length === 0 ? rigid : leastBending(linkage, from, folds.q, walls).bodies);
  }
  return way[count];
}

/** Corners of what stands between the leaves, each in front of both; what is fixed on a face may lie behind them. */
function wallsOf(assembly: Assembly): Wall[] {
  const { facets, leafBodies, base } = assembly;
  const leaves = [...leafBodies].flatMap((body) => facets.find((f) => f.body === body) ?? []);
  const standing = facets.filter(
    (f, k) => !leafBodies.has(f.body) && f.mechanism !== base.mechanism && carrierOf(assembly, k) === null,
  );
  return standing.flatMap(({ body, toBody, polygon }) =>
    polygon.outer.flatMap(([x, y]) =>
      leaves.map((leaf): Wall => ({
        wall: { body: leaf.body, plane: leaf.toBody },
        point: { body, at: applyRigid(toBody, [x, y, 0]) },
      })),
    ),
  );
}
