/**
 * A card as a list of cards shows it. It takes a solved pose to make, so a list keeps it as text for the next time;
 * what was kept is read here, and not trusted.
 */
import Joi from 'joi';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import type { Design } from '../document/design';
import { baseKindOf } from '../document/fields';
import { colour, far, length, point } from '../document/schema-parts';
import { PLAIN_BASE } from '../kinds';
import { FARTHEST_MM } from '../pattern/mending';
import { closedAsRead } from '../proof/closed-size';
import { drawPicture, type Picture } from './picture';

export interface Glance {
  readonly picture: Picture;
  /** Width and height as it is read. */
  readonly closedMm: readonly [wide: number, high: number];
  /** Of its base, where that is no plain one. */
  readonly builtAs: string | null;
}

/** How a card looks in a pose, how large it is shut, and what it is built as. */
export function glanceOf(design: Design, assembly: Assembly, pose: Pose): Glance {
  const base = baseKindOf(design);
  return {
    picture: drawPicture(design, assembly, pose),
    closedMm: closedAsRead(design, assembly),
    builtAs: design.card.template ? TEMPLATE : base.id === PLAIN_BASE ? null : base.title,
  };
}

/** What a card is said to be that was brought in as lines. */
const TEMPLATE = 'Template';

const size = length(FARTHEST_MM).required();
const ring = Joi.array().items(point).max(100_000);
const name = Joi.string().max(400).required();
const part = Joi.object({
  ...{ id: name, mechanism: name, fill: colour.required() },
  points: ring.required(),
  holes: Joi.array().items(ring).max(10_000).required(),
  goesOn: true,
});
const glance = Joi.object({
  picture: Joi.object({
    parts: Joi.array().items(part).max(20_000).required(),
    box: Joi.object({ x: far.required(), y: far.required(), width: size, height: size }).required(),
  }).required(),
  closedMm: Joi.array().ordered(size, size).length(2).required(),
  builtAs: Joi.string().max(200).allow(null).required(),
});

/** A glance that was kept as JSON; null where it is none. */
export function readGlance(text: string): Glance | null {
  try {
    const { value, error } = glance.validate(JSON.parse(text), { convert: false });
    return error ? null : (value as Glance);
  } catch {
    return null;
  }
}
