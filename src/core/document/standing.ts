/** Mechanisms put into a design and taken out of it, with what stands on them. */
import { ownerOfId } from '../ids';
import { GUTTER, KINDS, type ParameterValues } from '../kinds';
import type { Design, Mechanism } from './design';

/** First free id of the form `step-fold-1`. */
export function freeId(design: Design, kind: string): string {
  const taken = new Set(design.mechanisms.map((m) => m.id));
  let n = 1;
  while (taken.has(`${kind}-${n}`)) n++;
  return `${kind}-${n}`;
}

export function addMechanism(
  design: Design,
  kind: string,
  on: string = GUTTER,
  parameters: ParameterValues = {},
  id = freeId(design, kind),
): { design: Design; id: string } {
  const mechanism: Mechanism = { id, kind, name: KINDS.get(kind)?.title ?? kind, on, parameters, stock: 'card-160' };
  const stock = design.stocks.some((s) => s.id === mechanism.stock) ? mechanism.stock : design.stocks[0].id;
  return { design: { ...design, mechanisms: [...design.mechanisms, { ...mechanism, stock }] }, id };
}

/** Everything that stands on `id`, at any depth, itself first. */
export function standingOn(design: Design, id: string): string[] {
  const out = [id];
  for (let i = 0; i < out.length; i++) {
    for (const m of design.mechanisms) if (m.on.startsWith(`${out[i]}.`) && !out.includes(m.id)) out.push(m.id);
  }
  return out;
}

export function removeMechanism(design: Design, id: string): Design {
  const gone = new Set(standingOn(design, id));
  return {
    ...design,
    mechanisms: design.mechanisms.filter((m) => !gone.has(m.id)),
    dressing: design.dressing.filter((d) => !gone.has(ownerOfId(d.facet))),
    layers: design.layers.filter((l) => !gone.has(ownerOfId(l.facet))),
    making: {
      ...design.making,
      creases: Object.fromEntries(Object.entries(design.making.creases).filter(([c]) => !gone.has(ownerOfId(c)))),
    },
  };
}
