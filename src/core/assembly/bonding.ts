/** Facets joined by bonds move as one body. */
import { ownerOfId } from '../ids';
import type { Bond } from '../kinds';
import { applyRigid, compose, identity, invert, norm3, sub3, type Rigid } from '../linkage';
import type { Polygon } from '../plane/polygon';
import { LENGTH_EQUAL_MM } from '../tolerance';
import type { Misfit } from './misfit';
import type { Bodies } from './parts';

interface Link {
  readonly to: number;
  readonly placement: Rigid;
  readonly bond: Bond;
}

/** Body 0 holds the facet `still`. `indexOf` finds a facet by `PIECE|FACET`. */
export function mergeBonded(
  facets: readonly { readonly polygon: Polygon }[],
  still: number,
  bonds: readonly Bond[],
  indexOf: ReadonlyMap<string, number>,
): Bodies {
  const links = linksOf(facets.length, bonds, indexOf);
  const bodyOf = new Array<number>(facets.length).fill(-1);
  const toBody = facets.map(identity);
  const contradictions = new Map<string, Misfit>();
  let count = 0;
  for (const seed of [still, ...facets.keys()]) {
    if (facets.length === 0 || bodyOf[seed] >= 0) continue;
    bodyOf[seed] = count;
    const queue = [seed];
    for (let h = 0; h < queue.length; h++) {
      for (const { to, placement, bond } of links[queue[h]]) {
        const asked = compose(toBody[queue[h]], placement);
        if (bodyOf[to] < 0) {
          bodyOf[to] = count;
          toBody[to] = asked;
          queue.push(to);
          continue;
        }
        const apartMm = apart(facets[to].polygon, asked, toBody[to]);
        if (apartMm > LENGTH_EQUAL_MM && !contradictions.has(bond.id))
          contradictions.set(bond.id, disagreement(bond, apartMm));
      }
    }
    count++;
  }
  return { bodyOf, toBody, count, contradictions: [...contradictions.values()] };
}

function linksOf(count: number, bonds: readonly Bond[], indexOf: ReadonlyMap<string, number>): Link[][] {
  const links: Link[][] = Array.from({ length: count }, () => []);
  for (const bond of bonds) {
    const a = indexOf.get(`${bond.a.piece}|${bond.a.facet}`);
    const b = indexOf.get(`${bond.b.piece}|${bond.b.facet}`);
    if (a === undefined || b === undefined) continue;
    links[a].push({ to: b, placement: bond.placement, bond });
    links[b].push({ to: a, placement: invert(bond.placement), bond });
  }
  return links;
}

/** How far apart two placements put a facet's corners, mm. */
const apart = ({ outer }: Polygon, p: Rigid, q: Rigid): number =>
  outer.reduce((m, [x, y]) => Math.max(m, norm3(sub3(applyRigid(p, [x, y, 0]), applyRigid(q, [x, y, 0])))), 0);

const disagreement = ({ id, b }: Bond, sizeMm: number): Misfit => ({
  kind: 'contradiction',
  mechanism: ownerOfId(id),
  piece: b.piece,
  what: 'it is glued to one place in two ways, which do not agree.',
  key: id,
  at: [0, 0],
  sizeMm,
});
