/** Marks of a ruler along a view, in the unit of the card. */
import { formatLength, MM_PER_INCH, type LengthUnit } from '@/core/units/length';

export interface RulerMark {
  /** Along the view, pixels. */
  readonly px: number;
  /** Absent for marks that carry no number. */
  readonly label?: string;
}

/** Numbers stand no closer than this, and marks without one no closer than that, pixels. */
const LABEL_PX = 44;
const MARK_PX = 5;
const STEPS_MM = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000];
const STEPS_IN = [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2, 4, 8, 16, 32, 64].map((s) => s * MM_PER_INCH);
const MOST_MARKS = 600;

/**
 * @param zero pixel at which the ruler begins to count
 * @param pxPerMm pixels for a millimetre; below 0 where it counts the other way
 */
export function rulerMarks(lengthPx: number, zero: number, pxPerMm: number, unit: LengthUnit): RulerMark[] {
  const size = Math.abs(pxPerMm);
  if (!(size > 0) || !Number.isFinite(zero)) return [];
  const steps = unit === 'mm' ? STEPS_MM : STEPS_IN;
  const numbered = steps.find((s) => s * size >= LABEL_PX) ?? steps[steps.length - 1];
  const plain = steps.find((s) => s * size >= MARK_PX && isWhole(numbered / s)) ?? numbered;
  const ends = [-zero / pxPerMm, (lengthPx - zero) / pxPerMm].sort((a, b) => a - b);
  const [first, last] = [Math.ceil(ends[0] / plain - 1e-9), Math.floor(ends[1] / plain + 1e-9)];
  if (last - first > MOST_MARKS) return [];
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, k): RulerMark => {
    const mm = (first + k) * plain;
    return {
      px: zero + mm * pxPerMm,
      ...(isWhole(mm / numbered) ? { label: formatLength(mm + 0, unit) } : {}),
    };
  });
}
const isWhole = (v: number): boolean => Math.abs(v - Math.round(v)) < 1e-6;
