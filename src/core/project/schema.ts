/** The door: text in, a checked design out, or one line that says what is wrong and where. */
import Joi from 'joi';
import { foldCardParameters, GUTTER, KINDS, type Parameter } from '../kinds';
import { ENVELOPES, POST_FORMATS, SHEETS } from '../paper/sizes';
import { DESIGN_VERSION, type Design } from './design';

/** Larger files are not designs (bytes of text). */
export const LARGEST_FILE = 5_000_000;
const DEEPEST = 24;
const MOST_MECHANISMS = 400;

export type Read = { readonly ok: true; readonly design: Design } | { readonly ok: false; readonly why: string };

const id = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,39}$/).messages({ 'string.pattern.base': '{{#label}} must be small letters, digits and hyphens' });
const creaseId = Joi.string().max(100).pattern(/^[a-z0-9][a-z0-9-]{0,39}\.[A-Za-z][A-Za-z0-9-]{0,39}$/).messages({ 'string.pattern.base': '{{#label}} must be a crease such as card.gutter or step-fold-1.ridge' });
const facetId = Joi.string().max(100).pattern(/^[A-Za-z0-9][A-Za-z0-9.-]{0,99}$/);
const colour = Joi.string().pattern(/^#[0-9a-f]{6}$/i).messages({ 'string.pattern.base': '{{#label}} must be a colour such as #c8d0e0' });
const length = (max: number) => Joi.number().min(0).max(max);
const making = Joi.alternatives(
  Joi.object({ way: Joi.valid('score').required() }),
  Joi.object({ way: Joi.valid('perforate').required(), cutMm: Joi.number().min(0.2).max(50).required(), gapMm: Joi.number().min(0.2).max(50).required() }),
).messages({ 'alternatives.match': '{{#label}} must have way "score", or way "perforate" with cutMm and gapMm from 0.2 to 50' });

/** Schema of the values a kind takes; unknown keys name the known ones. */
export function parameterSchema(parameters: readonly Parameter[]): Joi.ObjectSchema {
  const known = parameters.map((p) => p.key).join(', ');
  return Joi.object(Object.fromEntries(parameters.map((p) => [p.key, valueSchema(p)]))).messages({ 'object.unknown': `{{#label}} is not a parameter here; known are ${known}` });
}
function valueSchema(p: Parameter): Joi.Schema {
  if (p.unit === 'choice') return Joi.valid(...p.choices!).messages({ 'any.only': `{{#label}} must be one of ${p.choices!.join(', ')}` });
  let number = Joi.number().min(p.min ?? -10_000).max(p.max ?? 10_000);
  if (p.unit === 'count') number = number.integer();
  return p.default === null ? number.allow(null) : number;
}

const stock = Joi.object({
  id: id.required(), name: Joi.string().max(80).required(), gsm: Joi.number().min(20).max(2000).required(), caliperMm: Joi.number().min(0.02).max(10).required(),
  insideColour: colour.required(), outsideColour: colour.required(), grain: Joi.valid('long', 'short', 'none').required(),
  leastWebMm: Joi.number().min(0.1).max(50).required(), sheet: Joi.valid(...SHEETS.map((s) => s.id)).required(),
});

const mechanism = Joi.object({
  id: id.invalid('card').required(), kind: Joi.valid(...KINDS.keys()).required().messages({ 'any.only': `{{#label}} is not a kind that stands on a crease; known are ${[...KINDS.keys()].join(', ')}` }),
  name: Joi.string().max(80).required(), on: creaseId.required(), stock: id.required(),
  parameters: Joi.object().required(),
});

const designSchema = Joi.object<Design>({
  rhabdoplex: Joi.valid(DESIGN_VERSION).required(),
  name: Joi.string().max(120).required(),
  units: Joi.valid('mm', 'in').required(),
  card: Joi.object({ parameters: parameterSchema(foldCardParameters).required(), stock: id.required(), pageStock: id.required(), stayInside: Joi.boolean().required() }).required(),
  stocks: Joi.array().items(stock).min(1).max(40).unique('id').required(),
  post: Joi.object({ envelope: Joi.valid(null, ...ENVELOPES.map((e) => e.id)).required(), format: Joi.valid(null, ...POST_FORMATS.map((p) => p.id)).required() }).required(),
  mechanisms: Joi.array().items(mechanism).max(MOST_MECHANISMS).unique('id').required(),
  dressing: Joi.array().items(Joi.object({ facet: facetId.required(), colour, mats: Joi.array().max(8).items(Joi.object({ insetMm: length(500).required(), stock: id.required() })).required() })).max(1000).required(),
  making: Joi.object({ all: making.required(), creases: Joi.object().pattern(creaseId, making).required() }).required(),
  sheets: Joi.object({ marginMm: length(100).required(), spacingMm: length(100).required(), copies: Joi.number().integer().min(1).max(1000).required() }).required(),
  notes: Joi.string().max(20_000).allow('').required(),
});

const OPTIONS: Joi.ValidationOptions = { convert: false, abortEarly: true, errors: { wrap: { label: false } } };

/** Read a design from text, whatever it is. */
export function readDesign(text: string): Read {
  const json = readJson(text, 'a design');
  return json.ok ? checkDesign(json.value) : json;
}

/** JSON that is safe to look at: bounded size and depth, no keys that reach into prototypes. */
export function readJson(text: string, what: string): { ok: true; value: unknown } | { ok: false; why: string } {
  if (text.length > LARGEST_FILE) return no(`the file has ${Math.round(text.length / 1e6)} MB; ${what} has at most ${LARGEST_FILE / 1e6} MB`);
  if (text.includes('\0')) return no(`the file is binary; ${what} is JSON text`);
  if (nesting(text) > DEEPEST) return no(`the file is nested deeper than ${DEEPEST} levels; ${what} never is`);
  try {
    return { ok: true, value: JSON.parse(text.replace(/^\uFEFF/, ''), guardKeys) as unknown };
  } catch (error) {
    if (error instanceof KeyError) return no(error.message);
    return no(`the file is not JSON (${oneLine((error as Error).message)}); it may be cut short`);
  }
}

/** Check a value that is already parsed: an entry of the browser's database, the body of a request. */
export function checkDesign(value: unknown): Read {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return no('a design is a JSON object with "rhabdoplex": 1');
  const version = (value as { rhabdoplex?: unknown }).rhabdoplex;
  if (version === undefined) return no('"rhabdoplex" is missing; a design starts with "rhabdoplex": 1');
  if (typeof version === 'number' && Number.isInteger(version) && version > DESIGN_VERSION) {
    return no(`the design is of version ${version}, newer than this program reads (${DESIGN_VERSION}); open it with a newer Rhabdoplex`);
  }
  const result = designSchema.validate(value, OPTIONS);
  if (result.error) return no(oneLine(result.error.message));
  const why = checkReferences(result.value);
  return why ? no(why) : { ok: true, design: result.value };
}

/** Ids that other ids point to, and the values of each kind. */
function checkReferences(design: Design): string | null {
  const stocks = new Set(design.stocks.map((s) => s.id));
  const used = [['card.stock', design.card.stock], ['card.pageStock', design.card.pageStock], ...design.mechanisms.map((m, i) => [`mechanisms[${i}].stock`, m.stock]), ...design.dressing.flatMap((d, i) => d.mats.map((m, k) => [`dressing[${i}].mats[${k}].stock`, m.stock]))];
  for (const [where, name] of used) if (!stocks.has(name)) return `${where} is "${name}", which is not among the stocks (${[...stocks].join(', ')})`;
  const ids = new Set(design.mechanisms.map((m) => m.id));
  for (const [i, m] of design.mechanisms.entries()) {
    const checked = parameterSchema(KINDS.get(m.kind)!.parameters).validate(m.parameters, OPTIONS);
    if (checked.error) return `mechanisms[${i}].parameters (${m.id}): ${oneLine(checked.error.message)}`;
    const host = m.on.split('.')[0];
    if (m.on !== GUTTER && !ids.has(host)) return `mechanisms[${i}].on is "${m.on}", but there is no mechanism "${host}"`;
  }
  const hostOf = new Map(design.mechanisms.map((m) => [m.id, m.on.split('.')[0]]));
  for (const m of design.mechanisms) {
    let at: string | undefined = m.id;
    for (let k = 0; at !== undefined && at !== 'card'; k++, at = hostOf.get(at)) {
      if (k > design.mechanisms.length) return `mechanism "${m.id}" stands on itself by way of others`;
    }
  }
  return null;
}

class KeyError extends Error {}
function guardKeys(key: string, value: unknown): unknown {
  if (key === '__proto__' || key === 'constructor' || key === 'prototype') throw new KeyError(`"${key}" is not a key of a design`);
  return value;
}

/** Deepest bracket outside strings. */
function nesting(text: string): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (quoted) {
      if (c === '\\') i++;
      else if (c === '"') quoted = false;
    } else if (c === '"') quoted = true;
    else if (c === '{' || c === '[') deepest = Math.max(deepest, ++depth);
    else if (c === '}' || c === ']') depth--;
  }
  return deepest;
}

const no = (why: string): { ok: false; why: string } => ({ ok: false, why });
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').slice(0, 300);
