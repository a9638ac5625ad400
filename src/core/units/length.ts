/** Lengths in text: millimetres and inches, decimals and fractions. */
import { FRACTION_IN, SIZE_ROUNDING_MM } from '../tolerance';
import { readSum, type NoSum } from './sum';

export type LengthUnit = 'mm' | 'in';

/** Exact by definition (international inch, 1959). */
export const MM_PER_INCH = 25.4;

/** Lengths past this are a slip of the keyboard, not a card (mm). */
export const LARGEST_LENGTH_MM = 10_000;

export type Parsed = { readonly ok: true; readonly value: number } | { readonly ok: false; readonly why: string };

const UNIT_MM: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
  '″': MM_PER_INCH,
};

/** Longer texts are no length. */
const LONGEST_TEXT = 60;

/**
 * Read a length. Accepts mm, cm, m and inches (`in`, `"`), decimals with point or comma, fractions, and sums of those
 * (`sum.ts`).
 * @param text what was typed, for instance `4 1/8"`, `10 cm`, `104.775`, `29.7cm / 2`
 * @param unitless the unit of a bare number
 * @returns millimetres, or a sentence that says what would be right
 */
export function parseLength(text: string, unitless: LengthUnit = 'mm'): Parsed {
  const tidy = text.trim();
  if (tidy === '') return { ok: false, why: 'a length is missing; type a number such as 25 or 4 1/8 in' };
  if (tidy.length > LONGEST_TEXT) return { ok: false, why: `"${tidy.slice(0, 20)}…" is too long for a length` };
  const sum = readSum(tidy, { worth: UNIT_MM, bare: UNIT_MM[unitless] });
  if (!sum.ok) return { ok: false, why: notALength(tidy, sum.reason, sum.at) };
  if (!Number.isFinite(sum.value) || Math.abs(sum.value) > LARGEST_LENGTH_MM) {
    return { ok: false, why: `"${tidy}" is too large; lengths go up to ${LARGEST_LENGTH_MM} mm` };
  }
  return { ok: true, value: sum.value };
}

function notALength(text: string, reason: NoSum, at: string): string {
  if (reason === 'unit') return `"${at}" is not a unit of length; use mm, cm or in`;
  if (reason === 'of two sizes')
    return `"${text}" is not a length; multiply and divide by plain numbers, as in 29.7 cm / 2`;
  if (reason === 'by nothing') return `"${text}" is not a length; nothing is divided by 0`;
  return `"${text}" is not a length; type a number such as 25, 10 cm or 4 1/8 in, or a sum such as 29.7 cm / 2`;
}

/** Nearest fraction with a denominator of 2, 4 … 64, or null when `inches` is not one. */
function asFraction(inches: number): string | null {
  const size = Math.abs(inches);
  for (let denominator = 1; denominator <= 64; denominator *= 2) {
    const parts = Math.round(size * denominator);
    if (Math.abs(parts / denominator - size) > FRACTION_IN) continue;
    const whole = Math.floor(parts / denominator);
    const rest = parts - whole * denominator;
    const sign = inches < 0 && parts > 0 ? '-' : '';
    if (rest === 0) return `${sign}${whole}`;
    return `${sign}${whole > 0 ? `${whole} ` : ''}${rest}/${denominator}`;
  }
  return null;
}

/** `digits` decimals at the most, no trailing zeros, no minus zero. */
export function trimNumber(value: number, digits: number): string {
  const text = value.toFixed(digits).replace(/\.?0+$/, '');
  return text === '-0' || text === '' ? '0' : text;
}

/**
 * A length for reading: mm to 0.1, or inches as a fraction where it is one and to 0.001 where not. No unit appended.
 */
export function formatLength(mm: number, unit: LengthUnit): string {
  if (unit === 'mm') return trimNumber(mm, 1);
  const inches = mm / MM_PER_INCH;
  return asFraction(inches) ?? trimNumber(inches, 3);
}

/** Inches are said by the marks people cut by. */
const SAID_IN = 1 / 16;
/** An inch figure this near to a mark is that mark for whoever cuts it (in): a twentieth of a millimetre. */
const SAID_ON_MARK_IN = 0.002;

/**
 * A length in a sentence, with its unit: mm to 0.1 (small ones to 0.01), inches as a fraction where they lie on a mark
 * of 1/16 and to 0.01 (small ones to 0.001) where not.
 */
export const formatSaid = (mm: number, unit: LengthUnit): string => `${numberSaid(mm, unit)} ${unit}`;

/** The same where the unit is said beside it. */
export function numberSaid(mm: number, unit: LengthUnit): string {
  if (unit === 'mm') return Math.abs(mm) < 0.05 && mm !== 0 ? mm.toFixed(2) : mm.toFixed(1);
  const inches = mm / MM_PER_INCH;
  const mark = Math.round(inches / SAID_IN) * SAID_IN;
  if (Math.abs(mark - inches) <= SAID_ON_MARK_IN && (mark !== 0 || inches === 0)) return asFraction(mark)!;
  return inches.toFixed(Math.abs(inches) < 0.1 ? 3 : 2);
}

/** An area in a sentence, with its unit: whole mm² (one digit of less than one), or in² to 0.01. */
export const formatArea = (mm2: number, unit: LengthUnit): string =>
  unit === 'in'
    ? `${(mm2 / MM_PER_INCH ** 2).toFixed(2)} in²`
    : `${mm2 !== 0 && mm2 < 1 ? mm2.toPrecision(1) : mm2.toFixed(0)} mm²`;
/** The area of sheets of paper, with its unit: whole cm², or in² to 0.1. */
export const formatSheetArea = (mm2: number, unit: LengthUnit): string =>
  unit === 'in' ? `${(mm2 / MM_PER_INCH ** 2).toFixed(1)} in²` : `${(mm2 / 100).toFixed(0)} cm²`;

/** The thickness of paper, with its unit: to 0.01 mm, or 0.001 in. */
export const formatFine = (mm: number, unit: LengthUnit): string =>
  unit === 'in' ? `${(mm / MM_PER_INCH).toFixed(3)} in` : `${mm.toFixed(2)} mm`;

/** The nearest length on a mark people cut by: whole mm, or sixteenths of an inch. In mm. */
export const roundedForCutting = (mm: number, unit: LengthUnit): number =>
  unit === 'mm' ? Math.round(mm) : Math.round(mm / MM_PER_INCH / SAID_IN) * SAID_IN * MM_PER_INCH;

/** Marks on a cutter's ruler, inches. */
const RULER_IN = 1 / 32;
/** Further off a mark than this it is said to be about there (in). */
const ON_MARK_IN = 0.004;

/** Inches as a cutter reads them off a ruler: the nearest 1/32, and `about` where it lies beside the mark. */
export const rulerInches = (mm: number): string => `${isOnMark(mm) ? '' : 'about '}${onRuler(mm)}`;

const markOf = (mm: number): number => Math.round(mm / MM_PER_INCH / RULER_IN) * RULER_IN;
const isOnMark = (mm: number): boolean => Math.abs(mm / MM_PER_INCH - markOf(mm)) <= ON_MARK_IN;
const onRuler = (mm: number): string => asFraction(markOf(mm))!;

/** Width and height as a cutter reads them: mm, and inches off a ruler. */
export const cutterSize = (widthMm: number, heightMm: number): string => {
  const about = isOnMark(widthMm) && isOnMark(heightMm) ? '' : 'about ';
  const inches = `${about}${onRuler(widthMm)} × ${onRuler(heightMm)} in`;
  return `${formatLength(widthMm, 'mm')} × ${formatLength(heightMm, 'mm')} mm · ${inches}`;
};

/** A length for a field: parses back to the very same millimetres. */
export function exactLength(mm: number, unit: LengthUnit): string {
  if (unit === 'in') {
    const fraction = asFraction(mm / MM_PER_INCH);
    if (fraction !== null && sameWhenRead(fraction, 'in', mm)) return fraction;
    return shortest(mm / MM_PER_INCH, (text) => sameWhenRead(text, 'in', mm)) ?? `${mm} mm`;
  }
  return Math.abs(mm) < SIZE_ROUNDING_MM ? '0' : String(mm);
}

/** With as few decimals as read back the same: 1.9, not 1.9000000000000001. */
function shortest(value: number, holds: (text: string) => boolean): string | null {
  for (let digits = 0; digits <= MOST_DECIMALS; digits++) {
    const text = trimNumber(value, digits);
    if (holds(text)) return text;
  }
  const all = String(value);
  return holds(all) ? all : null;
}
const MOST_DECIMALS = 17;

function sameWhenRead(text: string, unit: LengthUnit, mm: number): boolean {
  const read = parseLength(text, unit);
  return read.ok && read.value === mm;
}
