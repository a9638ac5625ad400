/** Words of a document for people: names instead of ids, labels instead of keys. */
import { CARD, idOfLayer, matOfId, ownerOfId, wordsOfPart } from '../ids';
import type { Remedy } from '../rules';
import { formatSaid } from '../units/length';
import { fieldOf } from './fields';
import { type Design } from './design';

/** A mechanism's name; where several share one, with its number. */
export function nameOfMechanism(design: Design, id: string): string {
  const m = design.mechanisms.find((x) => x.id === id);
  if (!m) return id === CARD ? 'Base' : id;
  const alone = design.mechanisms.every((x) => x === m || x.name !== m.name);
  const number = /-(\d+)$/.exec(id)?.[1];
  return alone || !number ? m.name : `${m.name} ${number}`;
}

/** A facet, crease, glue area, mat or layer: "riser of Step", "gutter", "mat 1 on leaf A". */
export function nameOfPart(design: Design, id: string): string {
  const layer = idOfLayer(id);
  if (layer !== null) return design.layers.find((l) => l.id === layer)?.name ?? id;
  const mat = matOfId(id);
  if (mat) return `mat ${mat.k} on ${nameOfPart(design, mat.facet)}`;
  const owner = ownerOfId(id);
  const part = wordsOfPart(id);
  return owner === id || owner === CARD ? part : `${part} of ${nameOfMechanism(design, owner)}`;
}

/** Numbers of what is stuck on facets. */
const STUCK: Readonly<Record<string, string>> = {
  foamMm: 'Foam',
  foamInsetMm: 'Foam inside by',
  x: 'Across',
  y: 'Up',
  width: 'Width',
  height: 'Height',
};

/** What a remedy changes, as its field is labelled: "Depth", "Height, 2", "Moon: across". */
export function labelOfLever(design: Design, mechanism: string, parameter: string): string {
  const stuck = idOfLayer(mechanism) !== null || matOfId(mechanism) !== null;
  if (stuck) return `${nameOfPart(design, mechanism)}: ${(STUCK[parameter] ?? parameter).toLowerCase()}`;
  const kind = design.mechanisms.find((m) => m.id === mechanism)?.kind ?? 'fold-card';
  if (mechanism === CARD && parameter === 'reach') return 'Reach of both leaves';
  return fieldOf(kind, parameter)?.label ?? parameter;
}

/** "Depth 18 → 13.8 mm" */
export function remedyWords(design: Design, { mechanism, parameter, value }: Remedy, now: number): string {
  const kind = design.mechanisms.find((m) => m.id === mechanism)?.kind ?? 'fold-card';
  const degrees = fieldOf(kind, parameter)?.unit === 'deg';
  const say = (v: number): string => (degrees ? `${Number(v.toFixed(1))}°` : formatSaid(v, design.units));
  const from = degrees ? say(now) : say(now).replace(/ (mm|in)$/, '');
  return `${labelOfLever(design, mechanism, parameter)} ${from} → ${say(value)}`;
}
