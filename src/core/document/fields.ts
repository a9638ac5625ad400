/** Parameters of a design by key, defaults filled in; entries of lists are addressed as `planes[0].height`. */
import {
  BASES,
  kindById,
  KINDS,
  listOf,
  PLAIN_BASE,
  type BaseKind,
  type BaseSize,
  type ListItem,
  type Parameter,
  type ParameterValue,
  type ParameterValues,
  type Group,
} from '../kinds';
import { CARD } from '../ids';
import type { Design, Mechanism } from './design';

const defaultsOf = (parameters: readonly Parameter[]): ParameterValues =>
  Object.fromEntries(parameters.map((p) => [p.key, p.default]));

/** Every parameter of a mechanism, defaults filled in. */
export const valuesOf = (m: Mechanism): ParameterValues => ({
  ...defaultsOf(KINDS.get(m.kind)!.parameters),
  ...m.parameters,
});
/** The same, with the defaults of what an entry of a list leaves out: what a kind is built from. */
export const wholeValues = (m: Mechanism): ParameterValues => withEntries(KINDS.get(m.kind)!.parameters, valuesOf(m));
function withEntries(parameters: readonly Parameter[], values: ParameterValues): ParameterValues {
  const lists = parameters.filter((p) => p.unit === 'list' && Array.isArray(values[p.key]));
  if (lists.length === 0) return values;
  const whole = lists.map((p) => {
    const defaults = defaultsOf(p.fields!) as ListItem;
    return [p.key, listOf(values, p.key).map((item) => ({ ...defaults, ...item }))] as const;
  });
  return { ...values, ...Object.fromEntries(whole) };
}
/** The kind of the base, whatever it is put together from: a template takes the place of its pieces only. */
export const baseKindOf = (d: Design): BaseKind => BASES.get(d.card.construction ?? PLAIN_BASE)!;
export function cardValues(d: Design): ParameterValues {
  const { parameters } = baseKindOf(d);
  return withEntries(parameters, { ...defaultsOf(parameters), ...d.card.parameters });
}
export const sizeOfBase = (d: Design): BaseSize => baseKindOf(d).sizes(cardValues(d));
/** The base has one id in every document. */
export const isBase = (mechanism: string): boolean => mechanism === CARD;
/** Kind of a mechanism, or of the base, by id; undefined for what is not in the design. */
export const kindIn = (d: Design, mechanism: string): string | undefined =>
  isBase(mechanism) ? baseKindOf(d).id : d.mechanisms.find((m) => m.id === mechanism)?.kind;
/** Every parameter of a mechanism, or of the base, by id. */
export function valuesIn(d: Design, mechanism: string): ParameterValues | undefined {
  if (isBase(mechanism)) return cardValues(d);
  const m = d.mechanisms.find((x) => x.id === mechanism);
  return m && valuesOf(m);
}

export const parametersOf = (kind: string): readonly Parameter[] => kindById(kind)?.parameters ?? [];

/** `at.x`, `at.y`: where a mechanism is fixed on its face; null for other keys. */
export const mountKey = (key: string): 'x' | 'y' | null => (key === 'at.x' ? 'x' : key === 'at.y' ? 'y' : null);

/** `planes[0].height`: a field of an entry of a list. */
const ENTRY = /^(\w+)\[(\d+)\]\.(\w+)$/;
/** `pivot.x`: one number of a group. */
const OF_GROUP = /^(\w+)\.(\w+)$/;

export function setParameter(design: Design, mechanism: string, key: string, value: ParameterValue): Design {
  const entry = ENTRY.exec(key);
  if (entry) {
    const [, list, index, field] = entry;
    const items = listOf(valuesIn(design, mechanism)!, list);
    return setParameter(
      design,
      mechanism,
      list,
      items.map((item, i) => (i === Number(index) ? ({ ...item, [field]: value } as ListItem) : item)),
    );
  }
  const part = OF_GROUP.exec(key);
  if (part) {
    const group = parameterOf(design, mechanism, part[1]) as Group;
    return setParameter(design, mechanism, part[1], { ...group, [part[2]]: value as number });
  }
  if (isBase(mechanism))
    return { ...design, card: { ...design.card, parameters: { ...design.card.parameters, [key]: value } } };
  return {
    ...design,
    mechanisms: design.mechanisms.map((m) =>
      m.id === mechanism ? { ...m, parameters: { ...m.parameters, [key]: value } } : m,
    ),
  };
}

export function parameterOf(design: Design, mechanism: string, key: string): ParameterValue | undefined {
  const values = valuesIn(design, mechanism);
  const entry = ENTRY.exec(key);
  const part = OF_GROUP.exec(key);
  if (values && part) return (values[part[1]] as Group | undefined)?.[part[2]];
  if (!values || !entry) return values?.[key];
  const [, list, index, field] = entry;
  const item = listOf(values, list)[Number(index)];
  return item && (item[field] ?? fieldOf(kindIn(design, mechanism)!, key)?.default);
}

/** The parameter behind a key, entries of lists included. */
export function fieldOf(kind: string, key: string): Parameter | undefined {
  const entry = ENTRY.exec(key);
  const part = OF_GROUP.exec(key);
  if (part)
    return parametersOf(kind)
      .find((p) => p.key === part[1])
      ?.fields?.find((f) => f.key === part[2]);
  if (!entry) return parametersOf(kind).find((p) => p.key === key);
  const field = parametersOf(kind)
    .find((p) => p.key === entry[1])
    ?.fields?.find((f) => f.key === entry[3]);
  return field && { ...field, label: `${field.label}, ${Number(entry[2]) + 1}` };
}
