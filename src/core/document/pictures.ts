/** Pictures that a card carries for printing: PNG or JPEG, in the document as base64. */
import Joi from 'joi';

export const PICTURE_TYPES = ['image/png', 'image/jpeg'] as const;
export interface PrintedPicture {
  readonly id: string;
  readonly name: string;
  readonly mime: (typeof PICTURE_TYPES)[number];
  readonly widthPx: number;
  readonly heightPx: number;
  readonly data: string;
}

/** Characters of one picture; a card has several. */
export const LARGEST_PICTURE = 1_200_000;
export const MOST_PICTURES = 12;
const MOST_PX = 8000;

/** How each kind of file begins, as base64 has it: bytes 89 50 4E 47, and FF D8 FF (PNG and JPEG, their standards). */
const BEGINS: Readonly<Record<PrintedPicture['mime'], RegExp>> = {
  'image/png': /^iVBORw0KGgo/,
  'image/jpeg': /^\/9j\//,
};

export const pictureSchema = (id: Joi.StringSchema): Joi.ObjectSchema =>
  Joi.object({
    id: id.required(),
    name: Joi.string().max(120).required(),
    mime: Joi.valid(...PICTURE_TYPES).required(),
    widthPx: Joi.number().integer().min(1).max(MOST_PX).required(),
    heightPx: Joi.number().integer().min(1).max(MOST_PX).required(),
    data: Joi.string().base64().max(LARGEST_PICTURE).required(),
  }).custom((picture: PrintedPicture, { message }) =>
    BEGINS[picture.mime].test(picture.data)
      ? picture
      : message({ custom: `{{#label}} is not ${picture.mime} as it says; its bytes begin otherwise` }),
  );

export function pictureBytes({ data }: Pick<PrintedPicture, 'data'>): Uint8Array {
  return Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
}
