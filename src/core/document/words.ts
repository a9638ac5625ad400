/** Words of a document for people: names instead of ids, labels instead of keys. */
import { CARD, idOfLayer, matOfId, ownerOfId, partOfId, wordsOfPart } from '../ids';
import { kindById, type Side, type Stance } from '../kinds';
import { formatArea, formatFine, formatSaid, type LengthUnit } from '../units/length';
import { baseKindOf, fieldOf, isBase, kindIn, mountKey, valuesIn } from './fields';
import type { Design } from './design';
import { withEntry } from './entries';

/** A mechanism's name; where several share one, with its number. */
export function nameOfMechanism(design: Design, id: string): string {
  const m = design.mechanisms.find((x) => x.id === id);
  if (!m) return id === CARD ? 'Base' : id;
  const alone = design.mechanisms.every((x) => x === m || x.name !== m.name);
  const number = /-(\d+)$/.exec(id)?.[1];
  return alone || !number ? m.name : `${m.name} ${number}`;
}

/** A facet, crease, glue area, mat or layer: "riser of Step", "gutter", "mat 1 on the back". */
export function nameOfPart(design: Design, id: string): string {
  const layer = idOfLayer(id);
  if (layer !== null) return design.layers.find((l) => l.id === layer)?.name ?? id;
  const mat = matOfId(id);
  if (mat)
    return `mat ${mat.k} on ${mat.side === 'outside' ? 'the outside of ' : ''}the ${nameOfPart(design, mat.facet)}`;
  const owner = ownerOfId(id);
  const part = wordsOfOwnPart(design, id);
  return owner === id || owner === CARD ? part : `${part} of ${nameOfMechanism(design, owner)}`;
}

/** A part without whose it is: as its maker calls it, as its kind does, else its id as words. */
export function wordsOfOwnPart(design: Design, id: string): string {
  const own = design.names?.find((n) => n.of === id)?.name;
  const kind = kindById(kindIn(design, ownerOfPart(id)) ?? '');
  return own ?? kind?.words?.[partOfId(id)] ?? wordsOfPart(id);
}
/** A facet of the base stands without its owner. */
const ownerOfPart = (id: string): string => (ownerOfId(id) === id ? CARD : ownerOfId(id));

/** The design with a facet or crease called so; as before without a name. */
export const named = (design: Design, of: string, name: string): Design =>
  withEntry(design, 'names', of, name === '' ? null : { of, name });

/** A side of a facet: "back", "back, outside". */
export const nameOfFace = (design: Design, facet: string, side: Side): string =>
  `${nameOfPart(design, facet)}${side === 'outside' ? ', outside' : ''}`;

/** Numbers of what is stuck on facets. */
const STUCK: Readonly<Record<string, string>> = {
  foamMm: 'Foam',
  foamInsetMm: 'Foam inside by',
  x: 'Across',
  y: 'Up',
  width: 'Width',
  height: 'Height',
};

/** One lever that sets several numbers of a base. */
const LEVERS_OF_SEVERAL: Readonly<Record<string, string>> = { reach: 'Reach of both leaves' };
/** Where something is fixed on its face. */
const AT = { x: 'To the right', y: 'Up' } as const;

/** The name that its maker gave to an entry of a list. */
function entryName(design: Design, mechanism: string, parameter: string): string | undefined {
  const [, list, k] = /^(\w+)\[(\d+)\]\./.exec(parameter) ?? [];
  const values = valuesIn(design, mechanism);
  return list && values && kindById(kindIn(design, mechanism) ?? '')?.namedEntry?.(values, list, Number(k));
}

/** What a remedy changes, as its field is labelled: "Depth", "Height, 2", "Moon, across". */
export function labelOfLever(design: Design, mechanism: string, parameter: string): string {
  const stuck = idOfLayer(mechanism) !== null || matOfId(mechanism) !== null;
  if (stuck) return `${nameOfPart(design, mechanism)}, ${(STUCK[parameter] ?? parameter).toLowerCase()}`;
  if (isBase(mechanism) && baseKindOf(design).levers?.[parameter]) return LEVERS_OF_SEVERAL[parameter] ?? parameter;
  const at = mountKey(parameter);
  if (at) return AT[at];
  return (
    entryName(design, mechanism, parameter) ?? fieldOf(kindIn(design, mechanism) ?? '', parameter)?.label ?? parameter
  );
}

/** How a card that is left alone stands. */
export const STANCE_WORDS: Readonly<Record<Stance, string>> = {
  lying: 'lying on its back leaf',
  upright: 'standing as it is read',
  tent: 'as a tent on its fore edges',
};

/** Whether a number of a mechanism is an angle; all others that can be turned are lengths. */
export const isAngle = (design: Design, mechanism: string, parameter: string): boolean =>
  fieldOf(kindIn(design, mechanism) ?? '', parameter)?.unit === 'deg';
export const sayAngle = (deg: number): string => `${Number(deg.toFixed(1))}°`;
/** A value of a number with its unit: "13.8 mm", "56°". */
export const sayNumber = (design: Design, mechanism: string, parameter: string, value: number): string =>
  isAngle(design, mechanism, parameter) ? sayAngle(value) : formatSaid(value, design.units);

/** A label as it stands within a sentence: "Reach of B" begins small and keeps the rest. */
export const inSentence = (label: string): string => label.charAt(0).toLowerCase() + label.slice(1);

/** Words as they stand at the start of a sentence or a label. */
export const atStart = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** What the ends of a measure's key stand for. */
const MEASURED: readonly (readonly [end: string, words: string, say: (v: number, units: LengthUnit) => string])[] = [
  ['_mm2', '', formatArea],
  ['_deg', '', (v) => `${v.toFixed(1)}°`],
  ['_pct', '', (v) => `${v.toFixed(1)} %`],
  ['_count', ' in number', (v) => String(v)],
  ['_layers', ' in layers', (v) => String(v)],
  ['_y', ' from the crease it stands on', formatFine],
  ['_z', ' above side A', formatFine],
  ['_mm', '', formatFine],
];

const measuredAs = (key: string) => MEASURED.find(([end]) => key.replace(/\[\d+\]$/, '').endsWith(end));
/** Whether a measure is a length; others are angles, areas or numbers of things. */
export const isLengthMeasure = (key: string): boolean => measuredAs(key)?.[2] === formatFine;
/** Whether it is an angle. */
export const isAngleMeasure = (key: string): boolean => measuredAs(key)?.[0] === '_deg';

/** A measure for people: `ridge_z` 20 reads "Ridge above side A", "20.00 mm"; `planes[1].room_mm` "Room, planes 2". */
export function measureWords(key: string, value: number, units: LengthUnit): { name: string; value: string } {
  const item = /^([a-z]+)\[(\d+)\]\.(.+)$/i.exec(key);
  const numbered = /^(.+)\[(\d+)\]$/.exec(key);
  const own = item ? item[3] : numbered ? numbered[1] : key;
  const [end, words, say] = MEASURED.find(([e]) => own.endsWith(e)) ?? ['', '', (v: number) => v.toFixed(2)];
  const stem = own.slice(0, own.length - end.length).replace(/_/g, ' ');
  const of = item ? `, ${item[1]} ${Number(item[2]) + 1}` : numbered ? ` ${Number(numbered[2]) + 1}` : '';
  return { name: `${atStart(stem)}${words}${of}`, value: say(value, units) };
}
