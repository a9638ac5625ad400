/** Mechanisms put into a design and taken out of it, with what stands on them. */
import { isPartOf, ownerOfId } from '../ids';
import { BASES, faceMounting, GUTTER, KINDS, PLAIN_BASE, type ParameterValues, type Side } from '../kinds';
import { CENTRE, type Design, type Mechanism, type Mount } from './design';
import { baseKindOf, cardValues, sizeOfBase } from './fields';

/** What a new mechanism is cut from; what is pulled and turned wants a stiffer one (docs/mechanisms.md, `stock`). */
const PAGE_STOCK = 'card-160';
const MOVING_STOCK = 'card-240';

/** First free id of the form `step-fold-1`. */
export function freeId(design: Design, kind: string): string {
  const taken = new Set(design.mechanisms.map((m) => m.id));
  let n = 1;
  while (taken.has(`${kind}-${n}`)) n++;
  return `${kind}-${n}`;
}

/** The leaf of a template that turns. */
const TEMPLATE_FACE = 'leafB';

/** What a new mechanism of a kind goes on, unless said: the gutter; or a face, outside that of the cover. */
export function naturalMount(design: Design, kind: string, wanted?: Side): Pick<Mechanism, 'on' | 'mount'> {
  const known = KINDS.get(kind);
  const onFace = faceMounting(known);
  if (!onFace || (known?.mount === 'crease' && wanted === undefined)) return { on: naturalCrease(design) };
  const face = naturalFace(design, wanted ?? onFace.natural);
  const { behind } = baseKindOf(design);
  return onFace.behindCover && behind && !design.card.template ? { ...face, on: behind } : face;
}
/** The crease that something stands on unless it is said. */
export const naturalCrease = (design: Design): string => (design.card.template ? GUTTER : baseKindOf(design).crease);
/** The face that is read first on a side: the cover, or the page under it. */
export function naturalFace(design: Design, side: Side): { readonly on: string; readonly mount: Mount } {
  const on = design.card.template ? TEMPLATE_FACE : baseKindOf(design).face(cardValues(design), side);
  return { on, mount: { ...CENTRE, side } };
}

export function addMechanism(
  design: Design,
  kind: string,
  on?: string | Pick<Mechanism, 'on' | 'mount'>,
  parameters: ParameterValues = {},
  id = freeId(design, kind),
): { design: Design; id: string } {
  const where = typeof on === 'string' ? { ...naturalMount(design, kind), on } : (on ?? naturalMount(design, kind));
  const name = KINDS.get(kind)?.title ?? kind;
  const mechanism: Mechanism = {
    id,
    kind,
    name,
    ...where,
    parameters,
    stock: KINDS.get(kind)?.mount === 'face' ? MOVING_STOCK : PAGE_STOCK,
  };
  const stock = design.stocks.some((s) => s.id === mechanism.stock) ? mechanism.stock : design.stocks[0].id;
  return { design: { ...design, mechanisms: [...design.mechanisms, { ...mechanism, stock }] }, id };
}

/** The card on another base of about the same size; what stands on creases that this does not have is found. */
export function rebuiltAs(design: Design, construction: string): Design {
  const base = BASES.get(construction);
  if (!base || base === baseKindOf(design)) return design;
  const { construction: _was, parameters: _old, ...card } = design.card;
  const said = construction === PLAIN_BASE ? {} : { construction };
  return { ...design, card: { ...card, ...said, parameters: base.fitting(sizeOfBase(design)) } };
}

/** Everything that stands on `id`, at any depth, itself first. */
export function standingOn(design: Design, id: string): string[] {
  const out = [id];
  for (let i = 0; i < out.length; i++) {
    for (const m of design.mechanisms) if (isPartOf(m.on, out[i]) && !out.includes(m.id)) out.push(m.id);
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
    ...(design.names ? { names: design.names.filter((n) => !gone.has(ownerOfId(n.of))) } : {}),
    ...(design.meantOut ? { meantOut: design.meantOut.filter((m) => !gone.has(ownerOfId(m.of))) } : {}),
    ...(design.cutFrom ? { cutFrom: design.cutFrom.filter((c) => !gone.has(ownerOfId(c.piece))) } : {}),
    ...(design.gluing ? { gluing: design.gluing.filter((g) => !gone.has(ownerOfId(g.glue))) } : {}),
    making: {
      ...design.making,
      creases: Object.fromEntries(Object.entries(design.making.creases).filter(([c]) => !gone.has(ownerOfId(c)))),
    },
  };
}
