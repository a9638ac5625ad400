/** Width and height typed as one: `5 3/8 x 4 1/8`, `8in x 5.5in`, `140 × 100`. */
import { exactLength, formatLength, parseLength, type LengthUnit } from './length';

export type Size = readonly [widthMm: number, heightMm: number];
export type ReadSize = { readonly ok: true; readonly value: Size } | { readonly ok: false; readonly why: string };

/** Between two lengths. What is multiplied has to be typed as one number first. */
const BETWEEN = /\s*[x×]\s*/i;

/**
 * @param unitless the unit of bare numbers
 * @returns millimetres, or a sentence that says what would be right
 */
export function parseSize(text: string, unitless: LengthUnit = 'mm'): ReadSize {
  const sides = text.trim().split(BETWEEN);
  if (sides.length !== 2)
    return { ok: false, why: `"${text.slice(0, 30)}" is not a size; type width x height, such as 5 3/8 x 4 1/8` };
  const [width, height] = sides.map((side) => parseLength(side, unitless));
  if (!width.ok) return width;
  if (!height.ok) return height;
  if (width.value <= 0 || height.value <= 0)
    return { ok: false, why: `"${text.slice(0, 30)}" is not a size; both are more than 0` };
  return { ok: true, value: [width.value, height.value] };
}

/** A size as it reads, and as a field starts from to the last digit. */
export const formatSize = ([width, height]: Size, unit: LengthUnit): string =>
  `${formatLength(width, unit)} × ${formatLength(height, unit)}`;
export const exactSize = ([width, height]: Size, unit: LengthUnit): string =>
  `${exactLength(width, unit)} × ${exactLength(height, unit)}`;
