/** What many parts of the document's schema are made of. */
import Joi from 'joi';
import { FARTHEST_MM } from '../pattern/mending';

export const id = Joi.string()
  .pattern(/^[a-z0-9][a-z0-9-]{0,39}$/)
  .messages({ 'string.pattern.base': '{{#label}} must be small letters, digits and hyphens' });
export const facetId = Joi.string()
  .max(100)
  .pattern(/^[A-Za-z0-9][A-Za-z0-9.-]{0,99}$/);
export const colour = Joi.string()
  .pattern(/^#[0-9a-f]{6}$/i)
  .messages({ 'string.pattern.base': '{{#label}} must be a colour such as #c8d0e0' });
export const length = (max: number) => Joi.number().min(0).max(max);
export const far = Joi.number().min(-FARTHEST_MM).max(FARTHEST_MM);
/** Of a plane, mm. */
export const point = Joi.array().ordered(far.required(), far.required()).length(2);
