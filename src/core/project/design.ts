/** The document: what a person edits and saves. Plain JSON; lengths in mm, angles in degrees. */
import { foldCardParameters, GUTTER, KINDS, type Parameter, type ParameterValues } from '../kinds';
import type { Making } from '../pattern/making';
import { STARTER_STOCKS, type Stock } from '../paper/stocks';
import type { LengthUnit } from '../units/length';

export const DESIGN_VERSION = 1;

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

/** A mat: the outline of a facet, inset, from a stock, glued flat on it. The next one lies on the one before. */
export interface Mat {
  readonly insetMm: number;
  readonly stock: string;
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
    /** It may not stick out while it opens: for a card opened in a sleeve or beside a neighbour. */
    readonly stayInside: boolean;
  };
  readonly stocks: readonly Stock[];
  readonly post: { readonly envelope: string | null; readonly format: string | null };
  readonly mechanisms: readonly Mechanism[];
  readonly dressing: readonly Dressing[];
  readonly making: { readonly all: Making; readonly creases: Readonly<Record<string, Making>> };
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
  if (kind === 'step-fold') return { depth: whole(host.reachA * 0.3, 3), height: whole(host.reachB * 0.3, 3), width: whole(host.lengthMm * 0.4, 5) };
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
    making: { ...design.making, creases: Object.fromEntries(Object.entries(design.making.creases).filter(([c]) => !gone.has(c.split('.')[0]))) },
  };
}

export function setParameter(design: Design, mechanism: string, key: string, value: number | string | null): Design {
  if (mechanism === 'card') return { ...design, card: { ...design.card, parameters: { ...design.card.parameters, [key]: value } } };
  return { ...design, mechanisms: design.mechanisms.map((m) => (m.id === mechanism ? { ...m, parameters: { ...m.parameters, [key]: value } } : m)) };
}

export const parameterOf = (design: Design, mechanism: string, key: string): number | string | null | undefined => {
  if (mechanism === 'card') return cardValues(design)[key];
  const m = design.mechanisms.find((x) => x.id === mechanism);
  return m && valuesOf(m)[key];
};

export const stockOf = (design: Design, id: string): Stock => design.stocks.find((s) => s.id === id) ?? design.stocks[0];
