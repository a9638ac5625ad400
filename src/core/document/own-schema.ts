/** Lines of one's own, and the parts of a kind that was turned into plain lines, at the door. */
import Joi from 'joi';
import {
  BOX_PLACES,
  LINE_PLACES,
  LONGEST_AMOUNT,
  MIRRORS,
  MOST_CORNERS,
  MOST_OWN_LINES,
  MOST_REPEATS,
  OWN_NAME,
  OWN_ROLES,
  type GlueArea,
  type Parts,
  type Piece,
} from '../kinds';
import { ADHESIVE_IDS } from '../paper/adhesives';
import { SIDES } from '../side';
import { shapeSchema } from '../shapes/schema';
import { far, length, point } from './schema-parts';

/** A number of mm, or a sum over named numbers. */
const amount = Joi.alternatives(far, Joi.string().max(LONGEST_AMOUNT)).messages({
  'alternatives.match': '{{#label}} must be a number of mm, or a sum such as "depth / 2 + 3"',
});
const name = Joi.string()
  .pattern(OWN_NAME)
  .messages({ 'string.pattern.base': '{{#label}} must begin with a letter and hold letters, digits and hyphens' });
/** A name or id, or a placeholder for one (`~` is the mechanism itself). */
const held = Joi.string()
  .max(120)
  .pattern(/^[~A-Za-z0-9][A-Za-z0-9.-]*$/);
const place = Joi.valid(...BOX_PLACES).required();
const spot = Joi.object({
  of: held,
  at: Joi.alternatives(
    Joi.valid(...LINE_PLACES),
    Joi.number().min(-10).max(10),
    Joi.object({ x: place, y: place }),
  ).messages({
    'alternatives.match': '{{#label}} must be start, middle, end, a fraction, or x and y of low, middle, high',
  }),
  x: amount,
  y: amount,
}).with('at', 'of');

const WAYS = ['from', 'beside', 'facet', 'shape', 'corners'] as const;
const ownLine = Joi.object({
  name: name.required(),
  role: Joi.valid(...OWN_ROLES).required(),
  side: Joi.valid(...SIDES),
  piece: Joi.string()
    .max(40)
    .pattern(/^[A-Za-z][A-Za-z0-9-]*$/),
  from: spot,
  to: spot,
  beside: held,
  mm: amount,
  start: amount,
  end: amount,
  facet: held,
  part: amount,
  way: Joi.valid('along', 'across'),
  shape: shapeSchema.optional(),
  middle: spot,
  turnDeg: amount,
  corners: Joi.array().items(spot).min(2).max(MOST_CORNERS),
  closed: Joi.boolean(),
  mirror: Joi.valid(...MIRRORS),
  repeat: Joi.object({
    times: Joi.number().integer().min(2).max(MOST_REPEATS).required(),
    x: amount.required(),
    y: amount.required(),
  }),
  partOf: name,
  lies: Joi.array().ordered(fold(), fold()).length(2),
  standsOn: held.allow(null),
  drive: Joi.object({ id: held.required(), at: far.required(), rate: far.required() }),
})
  .xor(...WAYS)
  .and('from', 'to')
  .and('beside', 'mm')
  .with('start', 'beside')
  .with('end', 'beside')
  .and('facet', 'part', 'way')
  .and('shape', 'middle')
  .with('turnDeg', 'shape')
  .with('closed', 'corners')
  .messages({
    'object.missing': `{{#label}} says no way to run; it has one of ${WAYS.join(', ')}`,
    'object.xor': `{{#label}} runs in several ways; it has one of ${WAYS.join(', ')}`,
  });
function fold() {
  return Joi.number().min(-180).max(180).allow(null).required();
}

export const ownLinesSchema = Joi.array().items(ownLine).max(MOST_OWN_LINES).unique('name');

type Item<K extends keyof Parts> = Parts[K][number];
const MOST_PARTS = 300;
const MOST_POINTS = 20_000;
const text = Joi.string().max(200);
const point3 = Joi.array().ordered(far.required(), far.required(), far.required()).length(3);
const ring = Joi.array().items(point).min(3).max(MOST_POINTS);
const polygon = Joi.object({ outer: ring.required(), holes: Joi.array().items(ring).max(2000).required() });
const region = Joi.array().items(polygon).max(2000);
const placement = Joi.array().items(far).length(12).required();
const ends = Joi.array().items(Joi.number().min(-1e6).max(1e6).allow(null)).length(2);
/** A record of which the door knows every field: one that a kind gains and the door does not is an error of types. */
const record = <T extends object>(fields: { readonly [K in keyof T]-?: Joi.Schema }) => Joi.object(fields);
const list = (item: Joi.Schema) => Joi.array().items(item).max(MOST_PARTS).required();
const mechanism = held.required();
const carried = Joi.alternatives(
  Joi.object({ piece: held.required(), facet: held.required() }),
  Joi.object({ carriage: held.required() }),
).required();
const label = record<Item<'labels'>>({ name: held.required(), at: point.required(), mechanism });
const owned = record<Item<'owned'>>({ name: held.required(), mechanism, polygon: polygon.required() });
const motion = Joi.alternatives(
  Joi.object({ kind: Joi.valid('hinge', 'pivot').required(), point: point3.required(), axis: point3.required() }),
  Joi.object({
    kind: Joi.valid('track').required(),
    start: point3.required(),
    heading: point3.required(),
    normal: point3.required(),
    ring: Joi.valid(true),
    runs: Joi.array()
      .items(Joi.object({ lengthMm: far.min(0).required(), curvature: far.required(), corner: far }))
      .min(1)
      .max(5000)
      .required(),
  }),
).required();
const host = record<Item<'hosts'>>({
  crease: held.required(),
  piece: held.required(),
  frame: Joi.object({ origin: point.required(), along: point.required() }).required(),
  lengthMm: far.min(0).required(),
  sideA: held.required(),
  sideB: held.required(),
  sign: Joi.valid(1, -1).required(),
  ends: ends.required(),
  reachA: far.required(),
  reachB: far.required(),
  stock: held.required(),
});
const glue = record<GlueArea>({
  id: held.required(),
  mechanism,
  outline: ring.required(),
  facet: held.required(),
  onto: Joi.object({ piece: held.required(), facet: held.required(), outline: ring.required() }).required(),
  adhesive: Joi.valid(...ADHESIVE_IDS),
  thickMm: length(50),
});
const mark = record<Piece['lines'][number]>({
  role: Joi.valid('mark').required(),
  side: Joi.valid(...SIDES),
  a: point.required(),
  b: point.required(),
  mechanism,
});
const piece = record<Piece>({
  id: held.required(),
  title: text.required(),
  mechanism,
  stock: held.required(),
  outline: polygon.required(),
  levelMm: far,
  shares: Joi.valid('front', 'backing'),
  cutWith: held,
  behindFold: Joi.valid(true),
  apart: Joi.boolean(),
  times: Joi.number().integer().min(1).max(100),
  openings: Joi.forbidden(),
  islands: region,
  lines: Joi.array().items(mark).max(MOST_POINTS).required(),
  drawn: list(Joi.object({ side: Joi.valid(...SIDES).required(), region: region.required() })).optional(),
  creases: Joi.array().max(0).required(),
  glue: list(glue),
  labels: list(label),
  owned: list(owned).optional(),
});
const driven = Joi.object({
  drive: held.required(),
  at: far.required(),
  rate: far.required(),
  between: point,
});
const lever = Joi.string().max(60);
type List = Exclude<keyof Parts, 'waste' | 'claims'>;
const PARTS: Readonly<Record<List, Joi.Schema>> = {
  labels: label,
  owned,
  interruptions: record<Item<'interruptions'>>({ crease: held.required(), from: far.required(), to: far.required() }),
  hosts: host,
  landmarks: record<Item<'landmarks'>>({
    name: Joi.string().max(60).required(),
    piece: held.required(),
    facet: held.required(),
    at: point.required(),
  }),
  pieces: piece,
  bonds: record<Item<'bonds'>>({
    id: held.required(),
    a: Joi.object({ piece: held.required(), facet: held.required() }).required(),
    b: Joi.object({ piece: held.required(), facet: held.required() }).required(),
    placement,
  }),
  joints: record<Item<'joints'>>({
    id: held.required(),
    a: carried,
    b: carried,
    motion,
    placement,
    role: Joi.valid(-1, 0, 1).required(),
    driven,
    ends: ends.required(),
    span: Joi.array().ordered(point3.required(), point3.required()).length(2).required(),
    patch: Joi.array().items(point3).max(200),
  }),
  drives: record<Item<'drives'>>({
    id: held.required(),
    label: text.required(),
    unit: Joi.valid('deg', 'mm').required(),
    from: far.required(),
    to: far.required(),
    rest: far.required(),
    until: held,
    needs: held,
    round: Joi.valid(true),
  }),
  bends: record<Item<'bends'>>({
    id: held.required(),
    piece: held.required(),
    facet: held.required(),
    ends: Joi.array().items(held).length(2).required(),
    creases: Joi.array().items(held).length(2).required(),
    lengthMm: far.greater(0).required(),
    from: far.required(),
  }),
  foam: record<Item<'foam'>>({
    id: held.required(),
    piece: held.required(),
    facet: held.required(),
    region: region.required(),
    thickMm: length(50).required(),
    lever: lever.required(),
    keepOff: region.required(),
    leftOut: region.required(),
  }),
  fillers: record<Item<'fillers'>>({
    name: text.required(),
    piece: held.required(),
    facet: held.required(),
    region: region.required(),
    fromMm: far.required(),
    thickMm: length(50).required(),
    look: Joi.valid('spacer', 'rivet', 'token').required(),
    lever,
  }),
  // Whose it is, is whose parts they are.
  hardware: record<Omit<Item<'hardware'>, 'mechanism'>>({
    what: text.required(),
    sizesMm: Joi.array().items(far).max(3),
    count: Joi.number().integer().min(0).max(1000).required(),
  }),
  demands: record<Item<'demands'>>({
    rule: Joi.valid('captive', 'bind', 'grip', 'covered', 'web', 'stands').required(),
    aspect: text.required(),
    says: text.required(),
    measured: Joi.number().min(-1e6).max(1e6).required(),
    unit: Joi.valid('mm', 'deg').required(),
    ofRivet: Joi.valid(true),
    offPaper: Joi.valid(true),
    least: far.required(),
    blocksUnder: Joi.number().min(-1e6).max(1e6).required(),
    levers: Joi.array().items(lever).max(30).required(),
    subjects: Joi.array().items(held).max(MOST_PARTS).required(),
    at: Joi.object({ drive: held.required(), value: far.required() }),
  }),
};
export const partsSchema = Joi.object({
  ...Object.fromEntries(Object.entries(PARTS).map(([key, item]) => [key, list(item)])),
  waste: region.required(),
  claims: region.required(),
}).allow(null);
