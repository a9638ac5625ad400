/** What values a parameter takes, as a schema: numbers, choices, shapes, lists. */
import Joi from 'joi';
import type { Parameter } from '../kinds';
import { shapeSchema } from '../shapes/schema';

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
  if (p.unit === 'list') {
    // Fields without a plain default must be there.
    const needed = p.fields!.filter((f) => f.default !== null && f.default !== 0).map((f) => f.key);
    const list = Joi.array()
      .items(parameterSchema(p.fields!).fork(needed, (s) => s.required()))
      .max(MOST_ITEMS);
    return p.word
      ? Joi.alternatives().conditional(Joi.string(), {
          then: Joi.valid(p.word).messages({ 'any.only': `{{#label}} must be "${p.word}" or a list` }),
          otherwise: list,
        })
      : list.min(1);
  }
  let number = Joi.number()
    .min(p.min ?? -10_000)
    .max(p.max ?? 10_000);
  if (p.unit === 'count') number = number.integer();
  return p.default === null ? number.allow(null) : number;
}

/** What is wrong with a value, in one line that names the place; null where nothing is. */
export function checkParameter(p: Parameter, value: unknown): string | null {
  const { error } = parameterSchema([p]).validate({ [p.key]: value }, JOI_OPTIONS);
  return error ? oneLine(error.message) : null;
}
