/** What is laid, dressed or made on facets and creases that the design does not have: named, never dropped. */
import type { Assembly } from '../assembly/assembly';
import type { Misfit } from '../assembly/misfit';
import type { Design } from '../document/design';
import { nameOfPart } from '../document/words';
import { CARD } from '../ids';

export function laidNowhere(design: Design, assembly: Pick<Assembly, 'facets' | 'pieces'>): Misfit[] {
  const pieces = new Set(assembly.pieces.map((p) => p.id));
  const facets = new Set(assembly.facets.map((f) => f.id));
  const glue = new Set(assembly.pieces.flatMap((p) => p.glue.map((g) => g.id)));
  const creases = new Set(assembly.pieces.flatMap((p) => p.creases.map((c) => c.id)));
  const lost = (what: string, key: string): Misfit => ({
    kind: 'nowhere',
    mechanism: CARD,
    piece: CARD,
    what,
    key,
    at: [0, 0],
    sizeMm: 0,
  });
  return [
    ...design.layers
      .filter((l) => !facets.has(l.facet))
      .map((l) => lost(`${l.name} lies on the ${nameOfPart(design, l.facet)}`, `layer ${l.id}`)),
    ...design.dressing
      .filter((d) => !facets.has(d.facet))
      .map((d) => lost(`Colour or mats are on the ${nameOfPart(design, d.facet)}`, `dressing ${d.facet}`)),
    ...(design.gluing ?? [])
      .filter((g) => !glue.has(g.glue))
      .map((g) => lost(`An adhesive is set for the ${nameOfPart(design, g.glue)}`, `gluing ${g.glue}`)),
    ...(design.cutFrom ?? [])
      .filter((c) => !pieces.has(c.piece))
      .map((c) => lost(`A stock is set for the ${nameOfPart(design, c.piece)}`, `cutFrom ${c.piece}`)),
    ...Object.keys(design.making.creases)
      .filter((c) => !creases.has(c))
      .map((c) => lost(`A way of making is set for the ${nameOfPart(design, c)}`, `making ${c}`)),
  ];
}
