/** Closed sizes that cards are made in, and the largest that suits an envelope. Lengths in mm. */
import { MM_PER_INCH } from '../units/length';
import { ENVELOPE_EASE_MM, type FlatSize } from './sizes';

export interface CardSize {
  readonly id: string;
  readonly name: string;
  /** Shorter and longer side, closed. */
  readonly shortMm: number;
  readonly longMm: number;
  /** Unit that it is sold by. */
  readonly unit: 'mm' | 'in';
}
const mm = (id: string, name: string, shortMm: number, longMm: number): CardSize => ({
  id,
  name,
  shortMm,
  longMm,
  unit: 'mm',
});
const inches = (id: string, name: string, a: number, b: number): CardSize => ({
  id,
  name,
  shortMm: a * MM_PER_INCH,
  longMm: b * MM_PER_INCH,
  unit: 'in',
});

/** ISO 216 sizes, and squares and trade sizes that are common practice, no source. */
export const CARD_SIZES: readonly CardSize[] = [
  mm('a7', 'A7', 74, 105),
  mm('a6', 'A6', 105, 148),
  mm('a5', 'A5', 148, 210),
  mm('sq-130', 'Square 130', 130, 130),
  mm('sq-145', 'Square 145', 145, 145),
  mm('slim', 'Slim', 99, 210),
  inches('in-a2', 'A2 card', 4.25, 5.5),
  inches('in-5x7', '5 × 7', 5, 7),
  inches('in-sq-5', 'Square 5', 5, 5),
  inches('in-sq-6', 'Square 6', 6, 6),
  inches('in-slim', 'Slim 3 1/2 × 8 1/2', 3.5, 8.5),
];

/** A tenth of a millimetre less is no loss, and reads as a number one can cut by. */
const STEP_MM = 0.1;
const down = (v: number): number => Number((Math.floor(v / STEP_MM + 1e-6) * STEP_MM).toFixed(1));
/** The largest card that goes into an envelope with its ease. */
export const largestFor = ({ shortMm, longMm }: Pick<FlatSize, 'shortMm' | 'longMm'>) => ({
  shortMm: down(shortMm - ENVELOPE_EASE_MM),
  longMm: down(longMm - ENVELOPE_EASE_MM),
});
