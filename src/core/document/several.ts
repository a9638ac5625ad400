/** Several mechanisms at once: lined up, spread, set alike, mirrored, and carried from card to card as text. */
import { assetsNamed, type ShapeAsset, type ShapeStep } from '../shapes/shape';
import type { Stock } from '../paper/stocks';
import { GUTTER, parametersInCommon } from '../kinds';
import { CARD, ownerOfId } from '../ids';
import type { Design, Mechanism } from './design';
import { LISTS, saidOf, type Said } from './entries';
import { parameterOf, parametersOf, setParameter } from './fields';
import { readJson } from './json';
import { checkDesign } from './schema';
import { freeId, naturalCrease, naturalFace, standingOn } from './standing';

const OFFSET = 'offset';
const chosen = (design: Design, ids: readonly string[]): Mechanism[] =>
  design.mechanisms.filter((m) => ids.includes(m.id));
const has = (m: Mechanism, key: string): boolean => parametersOf(m.kind).some((p) => p.key === key);

/** Place along its crease, or to the right on its face, mm; null for what has neither. */
export const placeOf = (m: Mechanism): number | null =>
  m.mount ? m.mount.x : has(m, OFFSET) ? Number(m.parameters[OFFSET] ?? 0) : null;
const put = (m: Mechanism, at: number): Mechanism =>
  m.mount
    ? { ...m, mount: { ...m.mount, x: at } }
    : has(m, OFFSET)
      ? { ...m, parameters: { ...m.parameters, [OFFSET]: at } }
      : m;
const withMechanisms = (design: Design, change: (m: Mechanism) => Mechanism): Design => ({
  ...design,
  mechanisms: design.mechanisms.map(change),
});
const tidy = (mm: number): number => Number(mm.toFixed(4)) + 0;

/** All at the place of the first that is chosen. */
export function alignedAlong(design: Design, ids: readonly string[]): Design {
  const first = design.mechanisms.find((m) => m.id === ids[0]);
  const at = first && placeOf(first);
  return at === null || at === undefined
    ? design
    : withMechanisms(design, (m) => (ids.includes(m.id) ? put(m, at) : m));
}

/** Evenly between those that lie furthest apart, in their order. */
export function spreadAlong(design: Design, ids: readonly string[]): Design {
  const row = chosen(design, ids)
    .flatMap((m) => {
      const at = placeOf(m);
      return at === null ? [] : [{ id: m.id, at }];
    })
    .sort((a, b) => a.at - b.at);
  if (row.length < 3) return design;
  const [low, high] = [row[0].at, row[row.length - 1].at];
  const places = new Map(row.map(({ id }, k) => [id, tidy(low + ((high - low) * k) / (row.length - 1))]));
  return withMechanisms(design, (m) => (places.has(m.id) ? put(m, places.get(m.id)!) : m));
}

/** Keys of numbers that all of them have, of one unit. */
export function sharedNumbers(design: Design, ids: readonly string[]): string[] {
  const list = chosen(design, ids);
  return parametersInCommon(list.map((m) => m.kind))
    .filter((p) => p.unit === 'mm' || p.unit === 'deg' || p.unit === 'count')
    .filter((p) => list.every((m) => typeof parameterOf(design, m.id, p.key) === 'number'))
    .map((p) => p.key);
}
export const setForAll = (design: Design, ids: readonly string[], key: string, value: number): Design =>
  ids.reduce((d, id) => setParameter(d, id, key, value), design);

/** A copy of each on the other side of the middle of what it stands on. */
export function mirroredCopies(
  design: Design,
  ids: readonly string[],
): { readonly design: Design; readonly ids: readonly string[] } {
  const made: string[] = [];
  const next = chosen(design, ids).reduce((d, m) => {
    const at = placeOf(m);
    if (at === null) return d;
    const id = freeId(d, m.kind);
    made.push(id);
    return { ...d, mechanisms: [...d.mechanisms, put({ ...m, id }, tidy(-at))] };
  }, design);
  return { design: next, ids: made };
}

/** First key of what is copied: tells it from any other text. */
const MARK = 'rhabdoplexParts';
interface Copied extends Said {
  readonly mechanisms: readonly Mechanism[];
  readonly shapes: readonly ShapeAsset[];
  readonly stocks: readonly Stock[];
}

/** Chosen mechanisms with what stands on them, and the shapes and stocks that they use, as text. */
export function copiedText(design: Design, ids: readonly string[]): string {
  const all = new Set(ids.flatMap((id) => standingOn(design, id)));
  const mechanisms = chosen(design, [...all]);
  const shapes = shapesUsed(design, mechanisms);
  const said = saidOf(design, (id) => all.has(id));
  const stocks = design.stocks.filter((s) => [...mechanisms, ...(said.cutFrom ?? [])].some((x) => x.stock === s.id));
  return JSON.stringify({ [MARK]: 1, mechanisms, shapes, stocks, ...said });
}

function assetsIn(value: unknown): string[] {
  if (Array.isArray(value)) return value.flatMap(assetsIn);
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, v]) => (key === 'asset' && typeof v === 'string' ? [v] : assetsIn(v)));
}
function shapesUsed(design: Design, mechanisms: readonly Mechanism[]): ShapeAsset[] {
  const names = new Set(mechanisms.flatMap((m) => assetsIn(m.parameters)));
  for (const name of names) {
    const asset = design.shapes.find((s) => s.id === name);
    if (asset) for (const inner of assetsNamed(asset.source, asset.steps as ShapeStep[])) names.add(inner);
  }
  return design.shapes.filter((s) => names.has(s.id));
}

export type Pasted =
  | { readonly ok: true; readonly design: Design; readonly ids: readonly string[] }
  | { readonly ok: false; readonly why: string };

/**
 * The design with what was copied put into it under names of its own. What it stood on is looked for; where it is not
 * there, the natural crease takes its place. The text may be anything.
 */
export function pasted(design: Design, text: string): Pasted {
  const json = readJson(text, 'what was copied');
  const value = json.ok ? (json.value as Partial<Copied> & { [MARK]?: unknown }) : null;
  if (!value || value[MARK] !== 1 || !Array.isArray(value.mechanisms))
    return { ok: false, why: 'what was copied is not a part of a card' };
  const { mechanisms, shapes = [], stocks = [], cutFrom, meantOut, names } = value as Copied;
  // Held against the schema by itself first: nothing of it is touched before that.
  const alone = checkDesign({
    ...design,
    mechanisms: mechanisms.map((m) => ({ ...m, ...(m?.mount ? { on: 'leafB' } : { on: GUTTER }) })),
    shapes,
    stocks: [...stocks, ...design.stocks.filter((s) => !stocks.some((t) => t?.id === s.id))],
    layers: [],
    ...{ cutFrom, meantOut, names },
    dressing: [],
    artwork: undefined,
    card: { ...design.card, parameters: {}, construction: undefined, template: undefined },
  });
  if (!alone.ok) return { ok: false, why: alone.why };
  return merged(design, { mechanisms, shapes, stocks, cutFrom, meantOut, names });
}

function merged(design: Design, copied: Copied): Pasted {
  const stockOf = named(copied.stocks, design.stocks);
  const shapeOf = named(copied.shapes, design.shapes);
  const ids = new Map<string, string>();
  let next: Design = {
    ...design,
    stocks: [
      ...design.stocks,
      ...copied.stocks.filter((s) => stockOf.isNew(s.id)).map((s) => ({ ...s, id: stockOf.name(s.id) })),
    ],
    shapes: [
      ...design.shapes,
      ...copied.shapes
        .filter((s) => shapeOf.isNew(s.id))
        .map((s) => renamedAssets({ ...s, id: shapeOf.name(s.id) }, shapeOf.name)),
    ],
  };
  let taken: Design = next;
  for (const m of copied.mechanisms) {
    const id = freeId(taken, m.kind);
    ids.set(m.id, id);
    taken = { ...taken, mechanisms: [...taken.mechanisms, { ...m, id }] };
  }
  for (const m of copied.mechanisms) {
    const fresh = renamedAssets({ ...m, id: ids.get(m.id)!, stock: stockOf.name(m.stock) }, shapeOf.name);
    next = { ...next, mechanisms: [...next.mechanisms, placedIn(next, fresh, ids)] };
  }
  /** What is said of a part under its new name; of what was not copied nothing. */
  const renamed = (part: string): string[] => {
    const owner = ownerOfId(part);
    const fresh = ids.get(owner);
    return fresh ? [`${fresh}${part.slice(owner.length)}`] : [];
  };
  const said: Said = {
    cutFrom: copied.cutFrom?.flatMap((c) => renamed(c.piece).map((piece) => ({ piece, stock: stockOf.name(c.stock) }))),
    meantOut: copied.meantOut?.flatMap((m) => renamed(m.of).map((of) => ({ ...m, of }))),
    names: copied.names?.flatMap((n) => renamed(n.of).map((of) => ({ ...n, of }))),
  };
  for (const list of LISTS) if (said[list]?.length) next = { ...next, [list]: [...(next[list] ?? []), ...said[list]] };
  return { ok: true, design: next, ids: [...ids.values()] };
}

/** On what it stood on, under the name that has here; else on the crease that is natural. */
function placedIn(design: Design, m: Mechanism, ids: ReadonlyMap<string, string>): Mechanism {
  const owner = ownerOfId(m.on);
  const fresh = ids.get(owner);
  if (fresh) return { ...m, on: `${fresh}${m.on.slice(owner.length)}` };
  const known = owner === CARD || owner === m.on || design.mechanisms.some((x) => x.id === owner);
  if (known) return m;
  if (!m.mount) return { ...m, on: naturalCrease(design) };
  return { ...m, ...naturalFace(design, m.mount.side) };
}

/** Names in a card for what is brought: that which is the same keeps its name, another of that name gets a new one. */
function named<T extends { readonly id: string }>(brought: readonly T[], here: readonly T[]) {
  const names = new Map<string, string>();
  const fresh = new Set<string>();
  const taken = new Set(here.map((x) => x.id));
  for (const one of brought) {
    const same = here.find((x) => x.id === one.id);
    if (same && JSON.stringify(same) === JSON.stringify(one)) {
      names.set(one.id, one.id);
      continue;
    }
    let id = one.id;
    for (let n = 2; taken.has(id); n++) id = `${one.id.slice(0, 34)}-${n}`;
    taken.add(id);
    names.set(one.id, id);
    fresh.add(one.id);
  }
  return { name: (id: string): string => names.get(id) ?? id, isNew: (id: string): boolean => fresh.has(id) };
}

const renamedAssets = <T>(value: T, name: (id: string) => string): T =>
  JSON.parse(JSON.stringify(value), (key, v: unknown) => (key === 'asset' && typeof v === 'string' ? name(v) : v)) as T;
