/**
 * Variants of a card, kept beside it in its file as differences only. A variant stays as it was kept: when the card is
 * changed, its differences are told anew against the card as it is then.
 */
import { deltaOf, withDelta, type Delta, type Json } from './delta';
import type { Design, Variant } from './design';
import { fieldOf, kindIn } from './fields';
import { inSentence, nameOfMechanism } from './words';

export const MOST_VARIANTS = 20;
export const variantsOf = (design: Design): readonly Variant[] => design.variants ?? [];

/** The card alone. */
export function bare(design: Design): Design {
  const { variants: _, ...card } = design;
  return card;
}
const json = (design: Design): Json => bare(design) as unknown as Json;

/** The design that a variant stands for, without variants of its own. Throws where its differences do not fit. */
export const resolved = (design: Design, { delta }: Variant): Design =>
  delta ? (withDelta(json(design), delta) as unknown as Design) : bare(design);

/** Steps from the whole card to a number of a mechanism. What lies deeper is told as the whole of that. */
const DEEPEST = 4;
/** How to get from a card to another, never nested deeper than a file may be. */
function differing(card: Design, other: Design): Delta | null {
  const delta = deltaOf(json(card), json(other));
  return delta && shallow(delta, json(other), DEEPEST);
}
function shallow(delta: Delta, there: Json, steps: number): Delta {
  if ('v' in delta || 's' in delta) return delta;
  if (steps === 0) return { v: there };
  const part = (key: string | number): Json => (there as Readonly<Record<string | number, Json>>)[key];
  const within = (parts: Readonly<Record<string, Delta>>): Record<string, Delta> =>
    Object.fromEntries(Object.entries(parts).map(([key, d]) => [key, shallow(d, part(key), steps - 1)]));
  return 'o' in delta ? { o: within(delta.o) } : { i: within(delta.i) };
}

const withVariants = (design: Design, variants: readonly Variant[]): Design =>
  variants.length > 0 ? { ...bare(design), variants } : bare(design);

/** The card as it is, kept under a name; one of that name is replaced. */
export function keptVariant(design: Design, name: string): Design {
  const others = variantsOf(design).filter((v) => v.name !== name);
  return withVariants(design, [...others, { id: freeId(others), name, delta: null }]);
}
function freeId(variants: readonly Variant[]): string {
  let n = variants.length + 1;
  while (variants.some((v) => v.id === `variant-${n}`)) n++;
  return `variant-${n}`;
}
export const withoutVariant = (design: Design, id: string): Design =>
  withVariants(
    design,
    variantsOf(design).filter((v) => v.id !== id),
  );

/** What a card is called among variants while another takes its place. */
const asItWas = (name: string): string => `before ${name}`.slice(0, 60);

/** The variant becomes the card, and the card is kept as a variant in its place. */
export function exchanged(design: Design, id: string): Design {
  const all = variantsOf(design);
  const chosen = all.find((v) => v.id === id);
  if (!chosen) return design;
  const card = resolved(design, chosen);
  const variants = all.map((v): Variant =>
    v === chosen
      ? { id, name: asItWas(v.name), delta: differing(card, design) }
      : { ...v, delta: differing(card, resolved(design, v)) },
  );
  return withVariants(card, variants);
}

/** A changed card, with its variants as they were before the change. */
export function rebased(before: Design, after: Design): Design {
  const kept = new Set(variantsOf(before));
  if (variantsOf(after).every((v) => !kept.has(v)) || json(before) === json(after)) return after;
  const variants = variantsOf(after).map((v) =>
    kept.has(v) ? { ...v, delta: differing(after, resolved(before, v)) } : v,
  );
  return { ...after, variants };
}

/** One thing in which a variant differs from the card. */
export interface Difference {
  /** Keys and places from the whole card to what differs. */
  readonly path: readonly (string | number)[];
  readonly words: string;
  readonly card: string;
  readonly variant: string;
}

/** Every single difference of a variant, in the order of the file. */
export function differencesOf(design: Design, variant: Variant): Difference[] {
  const other = resolved(design, variant);
  return variant.delta === null ? [] : leavesOf(variant.delta, []).map((path) => toldAt(design, other, path));
}
function leavesOf(delta: Delta, path: readonly (string | number)[]): (readonly (string | number)[])[] {
  if ('o' in delta) return Object.entries(delta.o).flatMap(([key, d]) => leavesOf(d, [...path, key]));
  if ('i' in delta) return Object.entries(delta.i).flatMap(([k, d]) => leavesOf(d, [...path, Number(k)]));
  return [path];
}

/** The card with one difference of a variant taken over. */
export function takenOver(design: Design, variant: Variant, path: readonly (string | number)[]): Design {
  if (!variant.delta) return design;
  const delta = onlyAt(variant.delta, path);
  return delta ? { ...design, ...(withDelta(json(design), delta) as unknown as Design) } : design;
}
function onlyAt(delta: Delta, path: readonly (string | number)[]): Delta | null {
  if (path.length === 0) return delta;
  const [key, ...rest] = path;
  const within = 'o' in delta ? delta.o[key] : 'i' in delta ? delta.i[key] : undefined;
  const inner = within && onlyAt(within, rest);
  if (!inner) return null;
  return 'o' in delta ? { o: { [key]: inner } } : { i: { [key]: inner } };
}

const at = (value: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>((v, key) => (v as Record<string | number, unknown> | undefined)?.[key], value);

const PARTS: Readonly<Record<string, string>> = {
  name: 'Name',
  units: 'Units',
  card: 'Base card',
  stocks: 'Stocks',
  post: 'Post',
  mechanisms: 'Mechanisms',
  dressing: 'Mats and colours',
  layers: 'Layers',
  shapes: 'Shapes',
  making: 'Making of creases',
  sheets: 'Sheets',
  pictures: 'Pictures',
  artwork: 'Print',
  machine: 'Machine',
  done: 'Steps done',
  gluing: 'Gluing',
  cutFrom: 'Stocks of pieces',
  meantOut: 'Meant to stick out',
  names: 'Names of parts',
  states: 'States by name',
  notes: 'Notes',
};

function toldAt(card: Design, variant: Design, path: readonly (string | number)[]): Difference {
  const [part, place, what, key] = path;
  const values = { card: shown(at(card, path)), variant: shown(at(variant, path)) };
  if (part === 'mechanisms' && typeof place === 'number') {
    const { id } = card.mechanisms[place];
    const name = nameOfMechanism(card, id);
    const label = what === 'parameters' ? fieldOf(kindIn(card, id) ?? '', String(key))?.label : undefined;
    return { path, words: label ? `${label} of ${name}` : `${name}: ${plainWords(what ?? 'all')}`, ...values };
  }
  if (part === 'card' && place === 'parameters') {
    const label = fieldOf(kindIn(card, 'card') ?? '', String(what))?.label;
    return { path, words: label ? `${label} of the base card` : 'Base card', ...values };
  }
  const named = (at(card, [part, place]) as { name?: unknown } | undefined)?.name;
  const head = PARTS[String(part)] ?? plainWords(part);
  return { path, words: typeof named === 'string' ? `${head}: ${inSentence(named)}` : head, ...values };
}
const plainWords = (key: string | number): string =>
  String(key)
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/[_-]/g, ' ')
    .toLowerCase();
/** A value in a few words: numbers and short texts as they are, the rest by how much there is of it. */
function shown(value: unknown): string {
  if (value === undefined) return 'none';
  if (Array.isArray(value)) return value.length === 1 ? 'one' : `${value.length}`;
  if (typeof value === 'object' && value !== null) return 'another';
  return typeof value === 'number' ? String(Number(value.toFixed(3))) : String(value).slice(0, 40);
}
