/** The door: text in, a checked design out, or one line that says what is wrong and where. */
import Joi from 'joi';
import { BASES, faceMounting, GUTTER, KINDS, SIDES, type BaseKind } from '../kinds';
import { ADHESIVE_IDS } from '../paper/adhesives';
import { ENVELOPES } from '../paper/sizes';
import { MOST_GROUPS, MOST_LINES, MOST_TEMPLATE_POINTS } from '../pattern/mending';
import { TEMPLATE_ROLES } from '../pattern/pattern';
import { assetsNamed, type ShapeStep } from '../shapes/shape';
import { assetSchema, shapeSchema, textSchema } from '../shapes/schema';
import { CARD, ownerOfId } from '../ids';
import { PROGRAM_VERSION } from '../version';
import { baseKindOf, isBase, valuesOf } from './fields';
import { DESIGN_VERSION, type Design } from './design';
import { JOIN_KINDS, type Template, type TemplateJoin } from './template';
import { isTooDeep, LARGEST_DESIGN, LARGEST_FILE, readJson, TOO_DEEP } from './json';
import { migrate } from './migrate';
import { MOST_VARIANTS, resolved, variantsOf } from './variants';
import { MOST_PICTURES, pictureSchema } from './pictures';
import { envelopeOf, envelopesOf, formatOf, formatsOf } from './post';
import { profileSchema } from './profile';
import { colour, facetId, id, length, point } from './schema-parts';
import { sheetsSchema, stockSchema } from './sheet-schema';
import { JOI_OPTIONS, oneLine, parameterSchema } from './parameters';

export { LARGEST_DESIGN, LARGEST_FILE, readJson };

const MOST_MECHANISMS = 400;

export type Read = { readonly ok: true; readonly design: Design } | { readonly ok: false; readonly why: string };

const creaseId = Joi.string()
  .max(100)
  .pattern(/^[a-z0-9][a-z0-9-]{0,39}\.[A-Za-z][A-Za-z0-9-]{0,39}$/)
  .messages({ 'string.pattern.base': '{{#label}} must be a crease such as card.gutter or step-fold-1.ridge' });
const making = Joi.alternatives(
  Joi.object({ way: Joi.valid('score').required() }),
  Joi.object({
    way: Joi.valid('perforate').required(),
    cutMm: Joi.number().min(0.2).max(50).required(),
    gapMm: Joi.number().min(0.2).max(50).required(),
  }),
).messages({
  'alternatives.match': '{{#label}} must have way "score", or way "perforate" with cutMm and gapMm from 0.2 to 50',
});

const onId = Joi.string()
  .max(100)
  .pattern(/^([a-z0-9][a-z0-9-]{0,39}\.)?[A-Za-z][A-Za-z0-9-]{0,39}$/)
  .messages({
    'string.pattern.base': '{{#label}} must be a crease such as card.gutter or step-fold-1.ridge, or a facet as leafB',
  });
const side = Joi.valid(...SIDES);
const mount = Joi.object({
  side: side.required(),
  x: Joi.number().min(-5000).max(5000).required(),
  y: Joi.number().min(-5000).max(5000).required(),
  turnDeg: Joi.number().min(-3600).max(3600).required(),
});

/** An id of a list of kinds, as the list is when it is asked. */
const known = (what: string, kinds: ReadonlyMap<string, unknown>): Joi.StringSchema =>
  Joi.string().custom((value: string, { message }: Joi.CustomHelpers) =>
    kinds.has(value)
      ? value
      : message({ custom: `{{#label}} is not a kind of ${what}; known are ${[...kinds.keys()].join(', ')}` }),
  );

const mechanism = Joi.object({
  id: id.invalid(CARD).required(),
  kind: known('mechanism', KINDS).required(),
  name: Joi.string().max(80).required(),
  on: onId.required(),
  mount,
  stock: id.required(),
  parameters: Joi.object().required(),
});

const mat = Joi.object({
  insetMm: length(500).required(),
  stock: id.required(),
  colour,
  sides: Joi.object({
    left: length(500).required(),
    right: length(500).required(),
    top: length(500).required(),
    bottom: length(500).required(),
  }),
  corners: Joi.valid('sharp', 'round'),
  foamMm: length(10),
  foamInsetMm: length(100),
  doubled: Joi.boolean(),
});
const layer = Joi.object({
  id: id.invalid(CARD).required(),
  name: Joi.string().max(80).required(),
  facet: facetId.required(),
  side,
  shape: shapeSchema,
  as: Joi.valid('layer', 'window', 'drawn').required(),
  from: Joi.object({
    x: Joi.valid('low', 'middle', 'high').required(),
    y: Joi.valid('low', 'middle', 'high').required(),
  }).required(),
  x: Joi.number().min(-5000).max(5000).required(),
  y: Joi.number().min(-5000).max(5000).required(),
  turnDeg: Joi.number().min(-3600).max(3600).required(),
  width: length(5000).greater(0).allow(null).required(),
  height: length(5000).greater(0).allow(null).required(),
  stock: id.required(),
  colour,
  foamMm: length(10).required(),
  foamInsetMm: length(100).required(),
  doubled: Joi.boolean(),
  trimmed: Joi.boolean(),
  stops: Joi.boolean(),
  glued: Joi.object({
    onFacet: Joi.boolean(),
    insetMm: length(100),
    free: Joi.object({
      left: length(5000).required(),
      right: length(5000).required(),
      top: length(5000).required(),
      bottom: length(5000).required(),
    }),
  }),
});

const MOST_STATES = 12;
const driveId = Joi.string()
  .max(100)
  .pattern(/^(open|[a-z0-9][a-z0-9-]{0,39}(\.[A-Za-z][A-Za-z0-9-]{0,39}){1,2})$/);
const namedState = Joi.object({
  id: id.required(),
  name: Joi.string().max(60).required(),
  drives: Joi.object().pattern(driveId, Joi.number().min(-1e5).max(1e5)).max(100).required(),
  stance: Joi.valid('lying', 'upright', 'tent'),
});

const role = Joi.valid(...TEMPLATE_ROLES);
const key = Joi.string().max(300);
const place = point.required();
const joinEnd = Joi.object({ inside: place, from: place, to: place }).required();
/** More joins than this are not a card. */
const MOST_JOINS = 200;
const joinsSchema = Joi.array()
  .max(MOST_JOINS)
  .unique('id')
  .items(
    Joi.object({
      id: id.required(),
      kind: Joi.valid(...JOIN_KINDS).required(),
      a: joinEnd,
      b: joinEnd,
      turned: Joi.boolean().required(),
    }),
  );
/** More pieces than this are not a card. */
const MOST_PIECES = 200;
const template = Joi.object({
  name: Joi.string().max(120).required(),
  pieces: Joi.array()
    .max(MOST_PIECES)
    .items(Joi.object({ at: place, name: Joi.string().max(60).required() })),
  scale: Joi.number().greater(0).max(1000).required(),
  mended: Joi.boolean().required(),
  lead: key.allow(null).required(),
  joins: joinsSchema,
  lines: Joi.array()
    .min(1)
    .max(MOST_LINES)
    .items(
      Joi.object({
        id: key.required(),
        group: key.required(),
        closed: Joi.boolean().required(),
        points: Joi.array().min(2).max(60_000).items(point).required(),
      }),
    )
    .unique('id')
    .required(),
  groups: Joi.array()
    .max(2 * MOST_GROUPS)
    .items(
      Joi.object({
        key: key.required(),
        layer: key.allow('').required(),
        colour: key.allow('').required(),
        dashed: Joi.boolean().required(),
        role: role.required(),
      }),
    )
    .unique('key')
    .required(),
  picked: Joi.object().pattern(key, role).required(),
});

const artwork = Joi.object({
  id: id.required(),
  name: Joi.string().max(120).required(),
  on: facetId.required(),
  side,
  what: Joi.alternatives(
    Joi.object({ picture: id.required() }),
    Joi.object({ text: textSchema.required(), colour: colour.required() }),
  )
    .required()
    .messages({ 'alternatives.match': '{{#label}} must name a picture, or have a text and its colour' }),
  x: Joi.number().min(-5000).max(5000).required(),
  y: Joi.number().min(-5000).max(5000).required(),
  turnDeg: Joi.number().min(-3600).max(3600).required(),
  widthMm: Joi.number().min(0.5).max(5000).required(),
  bleedMm: length(20).required(),
});

const ownSide = Joi.number().min(10).max(5000).required();
const MOST_OWN = 24;
const ownNamed = { id: id.required(), name: Joi.string().trim().min(1).max(60).required() };
const ownPost = Joi.object({
  envelopes: Joi.array()
    .items(Joi.object({ ...ownNamed, shortMm: ownSide, longMm: ownSide }))
    .max(MOST_OWN)
    .unique('id')
    .required(),
  formats: Joi.array()
    .items(
      Joi.object({
        ...ownNamed,
        most: Joi.object({
          shortMm: ownSide,
          longMm: ownSide,
          thickMm: Joi.number().greater(0).max(500).required(),
        }).required(),
      }),
    )
    .max(MOST_OWN)
    .unique('id')
    .required(),
});

const designSchema = Joi.object<Design & { readonly writtenBy?: string }>({
  rhabdoplex: Joi.valid(DESIGN_VERSION).required(),
  // Told of a file that is newer than this program; a card that is open has been read by this one.
  writtenBy: Joi.string().max(40).strip(),
  name: Joi.string().max(120).required(),
  units: Joi.valid('mm', 'in').required(),
  card: Joi.object({
    construction: known('base', BASES),
    parameters: Joi.object().required(),
    stock: id.required(),
    pageStock: id.required(),
    stayInside: Joi.boolean().required(),
    template,
  }).required(),
  stocks: Joi.array().items(stockSchema).min(1).max(40).unique('id').required(),
  post: Joi.object({
    envelope: id.allow(null, ...ENVELOPES.map((e) => e.id)).required(),
    format: id.allow(null).required(),
    own: ownPost,
    sent: Joi.valid('open'),
  }).required(),
  mechanisms: Joi.array().items(mechanism).max(MOST_MECHANISMS).unique('id').required(),
  dressing: Joi.array()
    .items(Joi.object({ facet: facetId.required(), side, colour, mats: Joi.array().max(8).items(mat).required() }))
    .max(1000)
    .required(),
  making: Joi.object({
    all: making.required(),
    roles: Joi.object({ valley: making, mountain: making }),
    creases: Joi.object().pattern(creaseId, making).required(),
  }).required(),
  sheets: sheetsSchema.required(),
  shapes: Joi.array().items(assetSchema).max(200).unique('id').required(),
  layers: Joi.array().items(layer).max(300).unique('id').required(),
  gluing: Joi.array()
    .items(
      Joi.object({
        glue: facetId.required(),
        adhesive: Joi.valid(...ADHESIVE_IDS).required(),
        foamMm: Joi.number().min(0.1).max(10),
        insetMm: Joi.number().min(-10).max(100),
      }),
    )
    .max(1000)
    .unique('glue'),
  names: Joi.array()
    .items(Joi.object({ of: facetId.required(), name: Joi.string().trim().min(1).max(40).required() }))
    .max(1000)
    .unique('of'),
  meantOut: Joi.array()
    .items(Joi.object({ of: facetId.required(), mm: length(500).greater(0).required() }))
    .max(400)
    .unique('of'),
  cutFrom: Joi.array()
    .items(Joi.object({ piece: facetId.required(), stock: id.required() }))
    .max(1000)
    .unique('piece'),
  states: Joi.array().items(namedState).max(MOST_STATES).unique('id'),
  pictures: Joi.array().items(pictureSchema(id)).max(MOST_PICTURES).unique('id'),
  artwork: Joi.array().items(artwork).max(200).unique('id'),
  machine: profileSchema,
  done: Joi.array().items(Joi.string().max(160)).max(1000).unique(),
  variants: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        name: Joi.string().trim().min(1).max(60).required(),
        delta: Joi.object().allow(null).required(),
      }),
    )
    .max(MOST_VARIANTS)
    .unique('id')
    .unique('name'),
  notes: Joi.string().max(20_000).allow('').required(),
});

/** Read a design from text, whatever it is. */
export function readDesign(text: string): Read {
  const json = readJson(text, 'a design');
  return json.ok ? checkDesign(json.value) : json;
}

/** Check a value that is already parsed: an entry of the browser's database, the body of a request. */
export function checkDesign(value: unknown): Read {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return no(`a design is a JSON object with "rhabdoplex": ${DESIGN_VERSION}`);
  if (isTooDeep(value)) return no(TOO_DEEP);
  const { rhabdoplex: version, writtenBy } = value as { rhabdoplex?: unknown; writtenBy?: unknown };
  if (version === undefined) return no(`"rhabdoplex" is missing; a design starts with "rhabdoplex": ${DESIGN_VERSION}`);
  if (typeof version === 'number' && Number.isInteger(version) && version > DESIGN_VERSION) {
    const by =
      typeof writtenBy === 'string' ? ` (written by ${writtenBy.slice(0, 40)}; this is ${PROGRAM_VERSION})` : '';
    return no(
      `the design is of version ${version}, newer than this program reads (${DESIGN_VERSION})${by}; open ` +
        `it with a newer Rhabdoplex`,
    );
  }
  const result = designSchema.validate(migrate(value as Record<string, unknown>), JOI_OPTIONS);
  if (result.error) return no(oneLine(result.error.message));
  const why = checkReferences(result.value) ?? checkSize(result.value) ?? checkVariants(result.value);
  return why ? no(why) : { ok: true, design: result.value };
}

/** Every variant is a card by itself: its differences fit, and what they make reads. */
function checkVariants(design: Design): string | null {
  for (const [k, variant] of variantsOf(design).entries()) {
    try {
      const read = checkDesign(resolved(design, variant));
      if (!read.ok) return `variants[${k}] ("${variant.name}"): ${read.why}`;
    } catch (error) {
      return `variants[${k}] ("${variant.name}"): its differences do not fit the card (${(error as Error).message})`;
    }
  }
  return null;
}

/**
 * Whether a design that came from a checked one by a change may take its place; what is wrong with it in one line, else
 * null. A template that is still the same object is not looked at again.
 */
export function checkChange(design: Design, from: Design): string | null {
  const { template, ...card } = design.card;
  const same = template !== undefined && template === from.card.template;
  const { error } = designSchema.validate(same ? { ...design, card } : design, JOI_OPTIONS);
  return error ? oneLine(error.message) : (checkReferences(design) ?? checkSize(design));
}

/** Joins of a template's pieces from text, as a file of them has it. */
export function readJoins(
  text: string,
): { readonly ok: true; readonly joins: readonly TemplateJoin[] } | { readonly ok: false; readonly why: string } {
  const json = readJson(text, 'a list of joins');
  if (!json.ok) return json;
  const { error } = Joi.object({ joins: joinsSchema.required() }).validate({ joins: json.value }, JOI_OPTIONS);
  return error ? no(oneLine(error.message)) : { ok: true, joins: json.value as readonly TemplateJoin[] };
}

/** What is wrong with a template that was read from elsewhere, in one line; null where nothing is. */
export function checkTemplate(read: Template): string | null {
  const { error } = Joi.object({ template }).validate({ template: read }, JOI_OPTIONS);
  return error ? oneLine(error.message) : null;
}

const sizes = new WeakMap<Template, number>();
/** Characters of a design; those of its template, which may be most of them, are counted once. */
export function sizeOfDesign(design: Design): number {
  const { template, ...card } = design.card;
  const rest = JSON.stringify({ ...design, card }).length;
  if (!template) return rest;
  const known = sizes.get(template) ?? JSON.stringify(template).length;
  sizes.set(template, known);
  return rest + known;
}
function checkSize(design: Design): string | null {
  const points = design.card.template?.lines.reduce((n, l) => n + l.points.length, 0) ?? 0;
  if (points > MOST_TEMPLATE_POINTS)
    return `card.template has ${points} points; a template has at most ${MOST_TEMPLATE_POINTS}`;
  const size = sizeOfDesign(design);
  return size <= LARGEST_DESIGN
    ? null
    : `the design has ${(size / 1e6).toFixed(1)} MB; a design has at most ${LARGEST_DESIGN / 1e6} MB`;
}

/** The numbers of a base, named as they stand in the file. */
const baseSchema = ({ parameters }: BaseKind): Joi.ObjectSchema =>
  Joi.object({ card: Joi.object({ parameters: parameterSchema(parameters) }) });

/** Ids that other ids point to, and the values of each kind. */
function checkReferences(design: Design): string | null {
  const stocks = new Set(design.stocks.map((s) => s.id));
  const used = [
    ['card.stock', design.card.stock],
    ['card.pageStock', design.card.pageStock],
    ...design.mechanisms.map((m, i) => [`mechanisms[${i}].stock`, m.stock]),
    ...design.layers.map((l, i) => [`layers[${i}].stock`, l.stock]),
    ...(design.cutFrom ?? []).map((c, i) => [`cutFrom[${i}].stock`, c.stock]),
    ...design.dressing.flatMap((d, i) => d.mats.map((m, k) => [`dressing[${i}].mats[${k}].stock`, m.stock])),
  ];
  for (const [where, name] of used)
    if (!stocks.has(name)) return `${where} is "${name}", which is not among the stocks (${[...stocks].join(', ')})`;
  const { envelope, format } = design.post;
  if (envelope !== null && !envelopeOf(design))
    return `post.envelope is "${envelope}", which is no envelope; known are ${envelopesOf(design)
      .map((e) => e.id)
      .join(', ')}`;
  if (format !== null && !formatOf(design))
    return `post.format is "${format}", which the post does not know; known are ${formatsOf(design)
      .map((f) => f.id)
      .join(', ')}`;
  const { parameters } = design.card;
  const ofBase = baseSchema(baseKindOf(design)).validate({ card: { parameters } }, JOI_OPTIONS);
  if (ofBase.error) return oneLine(ofBase.error.message);
  const ids = new Set(design.mechanisms.map((m) => m.id));
  const pictures = new Set(design.pictures?.map((p) => p.id));
  for (const [i, { what }] of (design.artwork ?? []).entries())
    if ('picture' in what && !pictures.has(what.picture))
      return `artwork[${i}].what.picture is "${what.picture}", which is not among the pictures`;
  const missing = missingAsset(design);
  if (missing) return missing;
  for (const [i, m] of design.mechanisms.entries()) {
    const checked = parameterSchema(KINDS.get(m.kind)!.parameters).validate(m.parameters, JOI_OPTIONS);
    if (checked.error) return `mechanisms[${i}].parameters (${m.id}): ${oneLine(checked.error.message)}`;
    const wrongValues = KINDS.get(m.kind)!.wrong?.(valuesOf(m));
    if (wrongValues) return `mechanisms[${i}].parameters (${m.id}): ${wrongValues}`;
    const host = ownerOfId(m.on);
    const onBase = m.on === GUTTER || isBase(host) || host === m.on;
    if (!onBase && !ids.has(host)) return `mechanisms[${i}].on is "${m.on}", but there is no mechanism "${host}"`;
    const wrong = wrongMount(m, i);
    if (wrong) return wrong;
  }
  const hostOf = new Map(design.mechanisms.map((m) => [m.id, ownerOfId(m.on)]));
  for (const m of design.mechanisms) {
    let at: string | undefined = m.id;
    for (let k = 0; at !== undefined && !isBase(at); k++, at = hostOf.get(at)) {
      if (k > design.mechanisms.length) return `mechanism "${m.id}" stands on itself by way of others`;
    }
  }
  return null;
}

/** What is fixed on a facet says where; what stands on a crease is where that is. */
function wrongMount({ id, kind, on, mount }: Design['mechanisms'][number], i: number): string | null {
  const known = KINDS.get(kind)!;
  if (mount !== undefined)
    return faceMounting(known)
      ? null
      : `mechanisms[${i}].mount (${id}): a ${kind} stands on a crease, which says where it is`;
  if (known.mount === 'face')
    return `mechanisms[${i}].mount (${id}) is missing: a ${kind} is fixed on a facet, with side, x, y and turnDeg`;
  return ownerOfId(on) === on ? `mechanisms[${i}].on is "${on}"; a ${kind} stands on a crease such as ${GUTTER}` : null;
}

const no = (why: string): { ok: false; why: string } => ({ ok: false, why });

/** A shape that names one which is not in the document, or itself by way of others. */
function missingAsset(design: Design): string | null {
  const known = new Map(design.shapes.map((a) => [a.id, a]));
  const named = (value: unknown): string[] => {
    if (Array.isArray(value)) return value.flatMap(named);
    if (typeof value !== 'object' || value === null) return [];
    return Object.entries(value).flatMap(([key, v]) => (key === 'asset' && typeof v === 'string' ? [v] : named(v)));
  };
  for (const [i, m] of design.mechanisms.entries())
    for (const a of named(m.parameters))
      if (!known.has(a))
        return `mechanisms[${i}].parameters (${m.id}) names the shape "${a}", which is not in the document`;
  for (const a of named(design.card.parameters))
    if (!known.has(a)) return `card.parameters names the shape "${a}", which is not in the document`;
  for (const [i, l] of design.layers.entries())
    for (const a of named(l.shape))
      if (!known.has(a)) return `layers[${i}].shape names the shape "${a}", which is not in the document`;
  for (const [i, s] of design.shapes.entries()) {
    const seen = new Set<string>([s.id]);
    const queue = assetsNamed(s.source, s.steps as ShapeStep[]);
    for (const a of queue) {
      if (!known.has(a)) return `shapes[${i}] (${s.id}) names the shape "${a}", which is not in the document`;
      if (a === s.id) return `shape "${s.id}" is made of itself by way of others`;
      if (seen.has(a)) continue;
      seen.add(a);
      queue.push(...assetsNamed(known.get(a)!.source, known.get(a)!.steps));
    }
  }
  return null;
}
