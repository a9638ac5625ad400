/** What values a parameter takes, as a schema: numbers, choices, shapes, lists. */
import Joi from 'joi';
import type { Parameter } from '../kinds';
import { pathDataSchema, shapeSchema } from '../shapes/schema';
import { LONGEST_TEXT } from '../shapes/text';
import { ownLinesSchema, partsSchema } from './own-schema';

export const JOI_OPTIONS: Joi.ValidationOptions = {
  convert: false,
  abortEarly: true,
  errors: { wrap: { label: false } },
};
export const oneLine = (text: string): string => text.replace(/\s+/g, ' ').slice(0, 300);
/** Longest list a parameter takes. */
const MOST_ITEMS = 60;

const made = new WeakMap<readonly Parameter[], Joi.ObjectSchema>();

/** Schema of the values a kind takes; unknown keys name the known ones. Made once for each list. */
export function parameterSchema(parameters: readonly Parameter[]): Joi.ObjectSchema {
  let schema = made.get(parameters);
  if (!schema) made.set(parameters, (schema = makeSchema(parameters)));
  return schema;
}

function makeSchema(parameters: readonly Parameter[]): Joi.ObjectSchema {
  const known = parameters.map((p) => p.key).join(', ');
  return Joi.object(Object.fromEntries(parameters.map((p) => [p.key, valueSchema(p)]))).messages({
    'object.unknown': `{{#label}} is not a parameter here; known are ${known}`,
  });
}

function valueSchema(p: Parameter): Joi.Schema {
  if (p.unit === 'choice')
    return Joi.valid(...p.choices!).messages({ 'any.only': `{{#label}} must be one of ${p.choices!.join(', ')}` });
  if (p.unit === 'shape') return p.default === null ? shapeSchema.optional().allow(null) : shapeSchema.optional();
  if (p.unit === 'group') {
    const needed = p.fields!.filter((f) => !f.optional).map((f) => f.key);
    const group = parameterSchema(p.fields!).fork(needed, (s) => s.required());
    return p.default === null ? group.allow(null) : group;
  }
  if (p.unit === 'path') return pathSchema;
  if (p.unit === 'lines') return ownLinesSchema;
  if (p.unit === 'parts') return partsSchema;
  if (p.unit === 'text') return Joi.string().max(LONGEST_TEXT).allow('');
  if (p.unit === 'list') {
    // Fields without a plain default must be there.
    const needed = p.fields!.filter((f) => !f.optional && f.default !== null && f.default !== 0).map((f) => f.key);
    const list = Joi.array()
      .items(parameterSchema(p.fields!).fork(needed, (s) => s.required()))
      .max(MOST_ITEMS);
    return p.word
      ? Joi.alternatives().conditional(Joi.string(), {
          then: Joi.valid(p.word).messages({ 'any.only': `{{#label}} must be "${p.word}" or a list` }),
          otherwise: list,
        })
      : // One that begins empty may be left so.
        Array.isArray(p.default) && p.default.length === 0
        ? list
        : list.min(1);
  }
  let number = Joi.number()
    .min(p.min ?? -10_000)
    .max(p.max ?? 10_000);
  if (p.unit === 'count') number = number.integer();
  if (p.word)
    return Joi.alternatives().conditional(Joi.string(), {
      then: Joi.valid(p.word).messages({ 'any.only': `{{#label}} must be "${p.word}" or a number` }),
      otherwise: number,
    });
  return p.default === null ? number.allow(null) : number;
}

const way = Joi.number().greater(0).max(5000).required();
const turn = Joi.number().min(-3600).max(3600).required();
const pathSchema = Joi.alternatives(
  Joi.object({ line: way }),
  Joi.object({ arc: way, from: turn, to: turn }),
  Joi.object({ curve: pathDataSchema.required() }),
  Joi.object({ ring: shapeSchema.required() }),
).messages({
  'alternatives.match':
    '{{#label}} must hold "line" with a length, "arc" with a radius, from and to, "curve" with path data, or "ring"',
});

/** What is wrong with a value, in one line that names the place; null where nothing is. */
export function checkParameter(p: Parameter, value: unknown): string | null {
  const { error } = parameterSchema([p]).validate({ [p.key]: value }, JOI_OPTIONS);
  return error ? oneLine(error.message) : null;
}
