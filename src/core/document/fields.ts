/** Parameters of a design by key, defaults filled in; entries of lists are addressed as `planes[0].height`. */
import {
  foldCardParameters,
  KINDS,
  listOf,
  type ListItem,
  type Parameter,
  type ParameterValue,
  type ParameterValues,
  type Group,
} from '../kinds';
import type { Design, Mechanism } from './design';

const defaultsOf = (parameters: readonly Parameter[]): ParameterValues =>
  Object.fromEntries(parameters.map((p) => [p.key, p.default]));

/** Every parameter of a mechanism, defaults filled in. */
export const valuesOf = (m: Mechanism): ParameterValues => ({
  ...defaultsOf(KINDS.get(m.kind)!.parameters),
  ...m.parameters,
});
/** The same, with the defaults of what an entry of a list leaves out: what a kind is built from. */
export function wholeValues(m: Mechanism): ParameterValues {
  const values = valuesOf(m);
  const lists = KINDS.get(m.kind)!.parameters.filter((p) => p.unit === 'list' && Array.isArray(values[p.key]));
  if (lists.length === 0) return values;
  const whole = lists.map((p) => {
    const defaults = defaultsOf(p.fields!) as ListItem;
    return [p.key, listOf(values, p.key).map((item) => ({ ...defaults, ...item }))] as const;
  });
  return { ...values, ...Object.fromEntries(whole) };
}
export const cardValues = (d: Design): ParameterValues => ({ ...defaultsOf(foldCardParameters), ...d.card.parameters });

export const parametersOf = (kind: string): readonly Parameter[] =>
  kind === 'fold-card' ? foldCardParameters : (KINDS.get(kind)?.parameters ?? []);

/** `planes[0].height`: a field of an entry of a list. */
const ENTRY = /^(\w+)\[(\d+)\]\.(\w+)$/;
/** `pivot.x`: one number of a group. */
const OF_GROUP = /^(\w+)\.(\w+)$/;

export function setParameter(design: Design, mechanism: string, key: string, value: ParameterValue): Design {
  const entry = ENTRY.exec(key);
  if (entry) {
    const [, list, index, field] = entry;
    const items = listOf(
      mechanism === 'card' ? cardValues(design) : valuesOf(design.mechanisms.find((m) => m.id === mechanism)!),
      list,
    );
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
  if (mechanism === 'card')
    return { ...design, card: { ...design.card, parameters: { ...design.card.parameters, [key]: value } } };
  return {
    ...design,
    mechanisms: design.mechanisms.map((m) =>
      m.id === mechanism ? { ...m, parameters: { ...m.parameters, [key]: value } } : m,
    ),
  };
}

export function parameterOf(design: Design, mechanism: string, key: string): ParameterValue | undefined {
  const m = design.mechanisms.find((x) => x.id === mechanism);
  const values = mechanism === 'card' ? cardValues(design) : m && valuesOf(m);
  const entry = ENTRY.exec(key);
  const part = OF_GROUP.exec(key);
  if (values && part) return (values[part[1]] as Group | undefined)?.[part[2]];
  if (!values || !entry) return values?.[key];
  const [, list, index, field] = entry;
  const item = listOf(values, list)[Number(index)];
  return item && (item[field] ?? fieldOf(m?.kind ?? 'fold-card', key)?.default);
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
