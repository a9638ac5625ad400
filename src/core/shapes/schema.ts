/** Shapes at the door: what a shape and its steps may hold. */
import Joi from 'joi';
import { FONTS } from './fonts';
import { LONGEST_PATH } from './path-data';
import { LONGEST_TEXT } from './text';
import type { Shape, ShapeAsset, ShapeStep } from './shape';

const size = Joi.number().greater(0).max(5000);
const place = Joi.number().min(-5000).max(5000);
const turn = Joi.number().min(-3600).max(3600);
const count = (most: number) => Joi.number().integer().min(1).max(most);
const point = Joi.array().ordered(place.required(), place.required()).length(2);
export const assetId = Joi.string()
  .pattern(/^[a-z0-9][a-z0-9-]{0,39}$/)
  .messages({ 'string.pattern.base': '{{#label}} must be small letters, digits and hyphens' });
const box = { width: size.required(), height: size.required() };

export const pathDataSchema = Joi.string()
  .max(LONGEST_PATH)
  .pattern(/^[\s]*[mM][\s\d,.eE+\-MmLlHhVvCcSsQqTtAaZz]*$/)
  .messages({ 'string.pattern.base': '{{#label}} must be SVG path data that starts with M' });

/** Words in a font that ships with the application. */
export const textSchema = Joi.object({
  string: Joi.string().max(LONGEST_TEXT).required(),
  font: Joi.valid(...FONTS.map((f) => f.id))
    .required()
    .messages({ 'any.only': `{{#label}} must be one of ${FONTS.map((f) => f.id).join(', ')}` }),
  size: size.required(),
  spacing: Joi.number().min(-20).max(200),
});

/** Shapes of one key, by that key. */
const SOURCES: Readonly<Record<string, Joi.Schema>> = {
  circle: size,
  ellipse: Joi.object(box),
  rect: Joi.object({ ...box, corner: Joi.number().min(0).max(2500) }),
  regular: Joi.object({ sides: Joi.number().integer().min(3).max(100).required(), diameter: size.required() }),
  star: Joi.object({
    points: Joi.number().integer().min(3).max(100).required(),
    outer: size.required(),
    inner: size.required(),
  }),
  arc: Joi.object({ radius: size.required(), width: size.required(), from: turn.required(), to: turn.required() }),
  arch: Joi.object(box),
  cloud: Joi.object({ ...box, bumps: Joi.number().integer().min(4).max(60).required() }),
  polygon: Joi.array().items(point).min(3).max(20_000),
  path: pathDataSchema,
  text: textSchema,
  asset: assetId,
};
const KEYS = Object.keys(SOURCES);

export const shapeSchema: Joi.Schema = Joi.object<Shape>({
  ...SOURCES,
  rule: Joi.valid('nonzero', 'evenodd'),
  width: size,
  height: size,
})
  .with('rule', 'path')
  .and('width', 'height')
  .xor(...KEYS, 'width')
  .required()
  .messages({
    'object.missing':
      `{{#label}} must be a shape: one of circle, path and so on with its size; ` + `known are ${KEYS.join(', ')}`,
    'object.xor': `{{#label}} must be one shape, not several; known are ${KEYS.join(', ')}`,
    'object.unknown': `{{#label}} is not part of a shape; known are ${KEYS.join(', ')}`,
    'object.base': `{{#label}} must be a shape, an object with one of ${KEYS.join(', ')}`,
  });

const edge = Joi.valid('left', 'right', 'top', 'bottom').required();
const other = { with: shapeSchema, x: place.required(), y: place.required(), deg: turn.required() };
const STEPS: Readonly<Record<ShapeStep['do'], Joi.SchemaMap>> = {
  unite: other,
  subtract: other,
  intersect: other,
  outside: other,
  split: {
    x: place.required(),
    y: place.required(),
    deg: turn.required(),
    keep: Joi.valid('left', 'right').required(),
  },
  offset: { by: Joi.number().min(-500).max(500).required(), corners: Joi.valid('sharp', 'round').required() },
  mirror: {
    about: Joi.valid('left', 'right', 'top', 'bottom', 'upright', 'level').required(),
    keep: Joi.boolean().required(),
  },
  double: { edge, overlap: Joi.number().min(0).max(2000).required(), hinge: size.required() },
  distribute: {
    what: shapeSchema,
    size: size.required(),
    count: count(500).allow(null).required(),
    spacing: size.allow(null).required(),
    side: Joi.valid('outside', 'inside').required(),
  },
  row: { count: count(200).required(), pitch: place.required(), deg: turn.required() },
  'drop-holes': { below: Joi.number().min(0).allow(null).required() },
  simplify: { tolerance: Joi.number().min(0).max(50).required() },
  nudge: {
    ring: Joi.number().integer().min(0).max(5000).required(),
    point: Joi.number().integer().min(0).max(60_000).required(),
    dx: place.required(),
    dy: place.required(),
  },
  trim: { edge: Joi.valid('top', 'bottom').required(), contact: size.required() },
  ties: {
    of: Joi.valid('window', 'paper'),
    width: Joi.number().min(0.2).max(100).required(),
    count: count(12).required(),
    turn: turn.allow(null).required(),
    moved: Joi.array()
      .max(500)
      .items(Joi.object({ island: Joi.number().integer().min(0).max(5000).required(), turn: turn.required() }))
      .required(),
  },
  size: { width: size.allow(null).required(), height: size.allow(null).required() },
  turn: { deg: turn.required() },
};
const step = Joi.alternatives().conditional('.do', {
  switch: Object.entries(STEPS).map(([name, keys]) => ({
    is: name,
    then: Joi.object({ do: Joi.valid(name).required(), ...keys }),
  })),
  otherwise: Joi.object({
    do: Joi.valid(...Object.keys(STEPS))
      .required()
      .messages({ 'any.only': `{{#label}} must be one of ${Object.keys(STEPS).join(', ')}` }),
  }).unknown(true),
});

export const MOST_STEPS_OF_A_SHAPE = 60;
export const assetSchema = Joi.object<ShapeAsset>({
  id: assetId.required(),
  name: Joi.string().max(80).required(),
  source: shapeSchema,
  steps: Joi.array().items(step).max(MOST_STEPS_OF_A_SHAPE).required(),
});
