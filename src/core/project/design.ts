/** The document: what a person edits and saves. Plain JSON; lengths in mm, angles in degrees. */
import { foldCardParameters, GUTTER, KINDS, listOf, type ListItem, type Parameter, type ParameterValue, type ParameterValues } from '../kinds';
import type { Making } from '../pattern/making';
import { STARTER_STOCKS, type Stock } from '../paper/stocks';
import type { Corners } from '../plane/polygon';
import type { Shape, ShapeAsset, ShapeShelf } from '../shapes/shape';
import type { Template } from './template';
import type { LengthUnit } from '../units/length';

export const DESIGN_VERSION = 2;

export interface Mechanism {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  /** Crease it stands on: `card.gutter` or `MECHANISM.CREASE`. */
  readonly on: string;
  /** Missing keys take the kind's defaults. */
  readonly parameters: ParameterValues;
  /** Stock of its own pieces. */
  readonly stock: string;
}

/** A mat: the outline of a facet, inset, from a stock, on it. The next one lies on the one before. */
export interface Mat {
  readonly insetMm: number;
  /** Inset by side instead of evenly, mm. */
  readonly sides?: { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
  /** Sharp unless said. */
  readonly corners?: Corners;
  readonly stock: string;
  /** Colour of its own; that of its stock unless said. */
  readonly colour?: string;
  /** Fixed on foam of this thickness, mm; flat unless said. */
  readonly foamMm?: number;
  /** How far the foam stays inside it, mm. */
  readonly foamInsetMm?: number;
  /** A second one like it lies under the inside. */
  readonly doubled?: boolean;
}
/**
 * A shape on a facet: a layer of paper, a window cut out of it, or a drawing. Placed from a corner, edge or the middle of the
 * facet, so that it stays there when sizes change.
 */
export interface Layer {
  readonly id: string;
  readonly name: string;
  readonly facet: string;
  readonly shape: Shape;
  readonly as: 'layer' | 'window' | 'drawn';
  readonly from: { readonly x: 'low' | 'middle' | 'high'; readonly y: 'low' | 'middle' | 'high' };
  /** From there to the same place of the shape, mm. */
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
  /** Scaled to these; null follows from the other, both null: as drawn. */
  readonly width: number | null;
  readonly height: number | null;
  readonly stock: string;
  readonly colour?: string;
  /** 0: bonded flat. */
  readonly foamMm: number;
  readonly foamInsetMm: number;
  readonly doubled?: boolean;
}
export interface Dressing {
  /** Facet, by id. */
  readonly facet: string;
  readonly colour?: string;
  readonly mats: readonly Mat[];
}

export interface Design {
  readonly rhabdoplex: typeof DESIGN_VERSION;
  readonly name: string;
  readonly units: LengthUnit;
  readonly card: {
    readonly parameters: ParameterValues;
    readonly stock: string;
    /** Stock of the liner, where there is one. */
    readonly pageStock: string;
    /** A brought-in template takes the place of the plain card. */
    readonly template?: Template;
    /** It may not stick out while it opens: for a card opened in a sleeve or beside a neighbour. */
    readonly stayInside: boolean;
  };
  readonly stocks: readonly Stock[];
  readonly post: { readonly envelope: string | null; readonly format: string | null };
  readonly mechanisms: readonly Mechanism[];
  readonly dressing: readonly Dressing[];
  readonly layers: readonly Layer[];
  /** Shapes kept for use anywhere in the card. */
  readonly shapes: readonly ShapeAsset[];
  readonly making: { readonly all: Making; readonly roles?: { readonly valley?: Making; readonly mountain?: Making }; readonly creases: Readonly<Record<string, Making>> };
  readonly sheets: { readonly marginMm: number; readonly spacingMm: number; readonly copies: number };
  readonly notes: string;
}

const defaultsOf = (parameters: readonly Parameter[]): ParameterValues => Object.fromEntries(parameters.map((p) => [p.key, p.default]));

/** Every parameter of a mechanism, defaults filled in. */
export const valuesOf = (m: Mechanism): ParameterValues => ({ ...defaultsOf(KINDS.get(m.kind)!.parameters), ...m.parameters });
export const cardValues = (d: Design): ParameterValues => ({ ...defaultsOf(foldCardParameters), ...d.card.parameters });

export const parametersOf = (kind: string): readonly Parameter[] => (kind === 'fold-card' ? foldCardParameters : KINDS.get(kind)?.parameters ?? []);

/** A plain card with nothing on it. */
export function blankDesign(name: string, gutter = 200, reach = 140): Design {
  return {
    rhabdoplex: DESIGN_VERSION,
    name,
    units: 'mm',
    card: { parameters: { gutter, reachA: reach, reachB: reach, fold: 'side', liner: 0 }, stock: 'card-240', pageStock: 'card-160', stayInside: false },
    stocks: STARTER_STOCKS,
    post: { envelope: null, format: null },
    mechanisms: [],
    dressing: [],
    layers: [],
    shapes: [],
    making: { all: { way: 'score' }, creases: {} },
    sheets: { marginMm: 5, spacingMm: 3, copies: 1 },
    notes: '',
  };
}

/** First free id of the form `step-fold-1`. */
export function freeId(design: Design, kind: string): string {
  const taken = new Set(design.mechanisms.map((m) => m.id));
  let n = 1;
  while (taken.has(`${kind}-${n}`)) n++;
  return `${kind}-${n}`;
}

export function addMechanism(design: Design, kind: string, on: string = GUTTER, parameters: ParameterValues = {}, id = freeId(design, kind)): { design: Design; id: string } {
  const mechanism: Mechanism = { id, kind, name: KINDS.get(kind)?.title ?? kind, on, parameters, stock: 'card-160' };
  const stock = design.stocks.some((s) => s.id === mechanism.stock) ? mechanism.stock : design.stocks[0].id;
  return { design: { ...design, mechanisms: [...design.mechanisms, { ...mechanism, stock }] }, id };
}

/** Starting sizes that suit the crease a new mechanism is put on. Lengths in mm, whole ones. */
export function fittingParameters(kind: string, host: { readonly lengthMm: number; readonly reachA: number; readonly reachB: number }): ParameterValues {
  const whole = (x: number, least: number): number => Math.max(least, Math.round(x));
  const reach = Math.min(host.reachA, host.reachB);
  const part = (k: number, least = 2): number => whole(reach * k, least);
  if (kind === 'step-fold') return { depth: whole(host.reachA * 0.3, 3), height: whole(host.reachB * 0.3, 3), width: whole(host.lengthMm * 0.4, 5) };
  if (kind === 'strut-figure') return { shape: { arch: { width: whole(Math.min(reach, host.lengthMm) * 0.4, 6), height: part(0.5, 6) } }, figureHeight: part(0.5, 6), depth: part(0.2, 2) };
  if (kind === 'plane-stack') {
    return { planes: [{ depth: part(0.35, 4), base: 0, height: part(0.3, 4), width: whole(host.lengthMm * 0.5, 8), offset: 0 }, { depth: part(0.2, 3), base: part(0.3, 4), height: part(0.25, 3), width: whole(host.lengthMm * 0.3, 6), offset: 0 }] };
  }
  if (kind === 'half-cut') return { shape: { circle: part(0.5, 6) }, figureHeight: part(0.5, 6), rise: part(0.2, 3) };
  if (kind === 'floating-band') return { slit: part(0.6, 8), width: whole(Math.min(host.lengthMm * 0.15, 24), 8), figure: { star: { points: 5, outer: part(0.5, 8), inner: part(0.2, 4) } } };
  const size = whole(Math.min(reach * 0.6, host.lengthMm * 0.5), 8);
  return { size, tab: Math.max(4, Math.min(12, whole(size * 0.3, 4))) };
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
    dressing: design.dressing.filter((d) => !gone.has(d.facet.split('.')[0])),
    layers: design.layers.filter((l) => !gone.has(l.facet.split('.')[0])),
    making: { ...design.making, creases: Object.fromEntries(Object.entries(design.making.creases).filter(([c]) => !gone.has(c.split('.')[0]))) },
  };
}

/** `planes[0].height`: a field of an entry of a list. */
const ENTRY = /^(\w+)\[(\d+)\]\.(\w+)$/;

export function setParameter(design: Design, mechanism: string, key: string, value: ParameterValue): Design {
  const entry = ENTRY.exec(key);
  if (entry) {
    const [, list, index, field] = entry;
    const items = listOf((mechanism === 'card' ? cardValues(design) : valuesOf(design.mechanisms.find((m) => m.id === mechanism)!)), list);
    return setParameter(design, mechanism, list, items.map((item, i) => (i === Number(index) ? { ...item, [field]: value } as ListItem : item)));
  }
  if (mechanism === 'card') return { ...design, card: { ...design.card, parameters: { ...design.card.parameters, [key]: value } } };
  return { ...design, mechanisms: design.mechanisms.map((m) => (m.id === mechanism ? { ...m, parameters: { ...m.parameters, [key]: value } } : m)) };
}

export function parameterOf(design: Design, mechanism: string, key: string): ParameterValue | undefined {
  const m = design.mechanisms.find((x) => x.id === mechanism);
  const values = mechanism === 'card' ? cardValues(design) : m && valuesOf(m);
  const entry = ENTRY.exec(key);
  if (!values || !entry) return values?.[key];
  const [, list, index, field] = entry;
  const item = listOf(values, list)[Number(index)];
  return item && (item[field] ?? fieldOf(m?.kind ?? 'fold-card', key)?.default);
}

/** The parameter behind a key, entries of lists included. */
export function fieldOf(kind: string, key: string): Parameter | undefined {
  const entry = ENTRY.exec(key);
  if (!entry) return parametersOf(kind).find((p) => p.key === key);
  const field = parametersOf(kind).find((p) => p.key === entry[1])?.fields?.find((f) => f.key === entry[3]);
  return field && { ...field, label: `${field.label}, ${Number(entry[2]) + 1}` };
}

/** Kept shapes by id. */
export const shelfOf = (design: Design): ShapeShelf => new Map(design.shapes.map((a) => [a.id, a]));

export const stockOf = (design: Design, id: string): Stock => design.stocks.find((s) => s.id === id) ?? design.stocks[0];
