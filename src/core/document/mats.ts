/** Mats on every panel at once. */
import { parametersOf, setParameter, baseKindOf } from './fields';
import { CARD } from '../ids';
import { sideOf, type Design, type Mat } from './design';
import type { Side } from '../side';

/** The number of a base that says how much smaller its mats are, mm in each direction, where it has one. */
const MAT = 'mat';

/**
 * A mat on a side of each facet, so much smaller in each direction: half of it inside every edge. What lies over it
 * stays; the Brief's own number follows, where the base has one.
 * @param smallerMm of width and of height, 0 and more
 */
export function matsOnAll(
  design: Design,
  facets: readonly string[],
  side: Side,
  smallerMm: number,
  stock: string,
): Design {
  const insetMm = smallerMm / 2;
  const isOurs = (d: Design['dressing'][number]): boolean => facets.includes(d.facet) && sideOf(d) === side;
  const matted = facets.map((facet): Design['dressing'][number] => {
    const now = design.dressing.find((d) => d.facet === facet && sideOf(d) === side);
    const [first, ...over] = now?.mats ?? [];
    const mat: Mat = first ? withInset(first, insetMm) : { insetMm, stock };
    return { ...(now ?? { facet, ...(side === 'outside' ? { side } : {}) }), mats: [mat, ...over] };
  });
  const dressed = { ...design, dressing: [...design.dressing.filter((d) => !isOurs(d)), ...matted] };
  const hasNumber = parametersOf(baseKindOf(design).id).some((p) => p.key === MAT);
  return hasNumber ? setParameter(dressed, CARD, MAT, smallerMm) : dressed;
}

/** Inset alike on all sides. */
function withInset({ sides: _, ...mat }: Mat, insetMm: number): Mat {
  return { ...mat, insetMm };
}
