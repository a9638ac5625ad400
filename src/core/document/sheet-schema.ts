/** The schema of what is cut from, and of where pieces and sheets lie. */
import Joi from 'joi';
import { SHEETS } from '../paper/sizes';
import { colour, facetId, far, id, length } from './schema-parts';

export const stockSchema = Joi.object({
  id: id.required(),
  name: Joi.string().max(80).required(),
  gsm: Joi.number().min(20).max(2000).required(),
  caliperMm: Joi.number().min(0.02).max(10).required(),
  insideColour: colour.required(),
  outsideColour: colour.required(),
  grain: Joi.valid('long', 'short', 'none').required(),
  leastWebMm: Joi.number().min(0.1).max(50).required(),
  sheet: Joi.valid(...SHEETS.map((s) => s.id)).required(),
  ownSheet: Joi.object({
    shortMm: Joi.number().min(20).max(5000).required(),
    longMm: Joi.number().min(Joi.ref('shortMm')).max(5000).required(),
  }),
  marginMm: length(100),
  oneWay: Joi.boolean(),
  price: Joi.number().min(0).max(1e6),
  wholes: Joi.number().integer().min(0).max(10_000),
  offcuts: Joi.array()
    .max(60)
    .unique('id')
    .items(
      Joi.object({
        id: id.invalid('whole').required(),
        widthMm: Joi.number().min(5).max(5000).required(),
        heightMm: Joi.number().min(5).max(5000).required(),
        count: Joi.number().integer().min(1).max(100),
        colour,
      }),
    ),
});

/** More pieces than this are laid out anew each time. */
export const MOST_PLACES = 2000;
const slotId = Joi.string()
  .max(120)
  .pattern(/^[a-z0-9][a-z0-9.-]{0,39}(#[0-9a-f]{6})?\/[a-z0-9-]{1,40}\/[0-9]{1,5}$/i)
  .messages({ 'string.pattern.base': '{{#label}} must be a sheet such as card-240/whole/1' });
const onBed = Joi.object({
  bed: Joi.number().integer().min(0).max(1000).required(),
  x: far.required(),
  y: far.required(),
  turned: Joi.boolean(),
});
const sheetPlace = Joi.object({
  piece: facetId.required(),
  copy: Joi.number().integer().min(1).max(100_000).required(),
  sheet: slotId.required(),
  x: far.required(),
  y: far.required(),
  turnDeg: Joi.number().min(-3600).max(3600).required(),
  locked: Joi.boolean(),
});

export const sheetsSchema = Joi.object({
  marginMm: length(100).required(),
  spacingMm: length(100).required(),
  copies: Joi.number().integer().min(1).max(1000).required(),
  spares: Joi.object().pattern(facetId, Joi.number().integer().min(1).max(100)).max(1000),
  anyGrain: Joi.array().items(facetId).unique().max(1000),
  seed: Joi.number().integer().min(1).max(1e6),
  places: Joi.array().items(sheetPlace).max(MOST_PLACES),
  print: Joi.object({ marks: Joi.boolean().required(), backs: Joi.valid('none', 'long', 'short').required() }),
  bed: Joi.object({
    widthMm: Joi.number().min(20).max(5000).required(),
    heightMm: Joi.number().min(20).max(5000).required(),
    at: Joi.object().pattern(slotId, onBed).max(MOST_PLACES).required(),
  }),
});
