/** Sheets, envelopes and post formats, each with where its numbers come from. Lengths in mm. */
import { MM_PER_INCH } from '../units/length';

export interface FlatSize {
  readonly id: string;
  readonly name: string;
  /** Shorter and longer side, mm. */
  readonly shortMm: number;
  readonly longMm: number;
  readonly source: string;
}
const size = (id: string, a: number, b: number, source: string, name = id): FlatSize => ({
  id,
  name,
  shortMm: Math.min(a, b),
  longMm: Math.max(a, b),
  source,
});
const inches = (id: string, name: string, a: number, b: number, source: string): FlatSize =>
  size(id, a * MM_PER_INCH, b * MM_PER_INCH, source, name);

const ISO_216 = 'ISO 216 (from memory)';
const ISO_269 = 'ISO 269 (from memory)';
const TRADE = 'trade sizes, common practice (from memory)';
const US_TRADE = 'North American trade sizes (from memory)';

export const SHEETS: readonly FlatSize[] = [
  size('A3', 297, 420, ISO_216),
  size('A4', 210, 297, ISO_216),
  size('A5', 148, 210, ISO_216),
  inches('letter', 'US Letter', 8.5, 11, US_TRADE),
  inches('12x12', '12 x 12 in', 12, 12, US_TRADE),
  size('SRA3', 320, 450, 'ISO 217 (from memory)'),
  size('A2', 420, 594, ISO_216),
];

export const ENVELOPES: readonly FlatSize[] = [
  size('C4', 229, 324, ISO_269),
  size('C5', 162, 229, ISO_269),
  size('C6', 114, 162, ISO_269),
  size('C7', 81, 114, ISO_269),
  size('DL', 110, 220, ISO_269),
  inches('us-a1', 'A1 (US)', 3 + 5 / 8, 5 + 1 / 8, US_TRADE),
  inches('us-a2', 'A2 (US)', 4 + 3 / 8, 5 + 3 / 4, US_TRADE),
  inches('us-a6', 'A6 (US)', 4 + 3 / 4, 6.5, US_TRADE),
  inches('us-a7', 'A7 (US)', 5.25, 7.25, US_TRADE),
  inches('us-a8', 'A8 (US)', 5.5, 8 + 1 / 8, US_TRADE),
  inches('us-a9', 'A9 (US)', 5.75, 8.75, US_TRADE),
  inches('us-10', 'No. 10 (US)', 4 + 1 / 8, 9.5, US_TRADE),
  size('square-130', 130, 130, TRADE, 'Square 130'),
  size('square-155', 155, 155, TRADE, 'Square 155'),
  size('square-170', 170, 170, TRADE, 'Square 170'),
  inches('us-square-5', 'Square 5 (US)', 5, 5, US_TRADE),
  inches('us-square-6', 'Square 6 (US)', 6, 6, US_TRADE),
  inches('us-square-6-5', 'Square 6 1/2 (US)', 6.5, 6.5, US_TRADE),
  size('slim-c6-5', 114, 229, ISO_269, 'C6/C5, slim'),
  inches('us-slim', 'Slim (US)', 3 + 7 / 8, 8 + 7 / 8, US_TRADE),
];

/** Room left round a card in its envelope, each way (mm); common practice, no source. */
export const ENVELOPE_EASE_MM = 3;

export interface PostFormat {
  readonly id: string;
  readonly name: string;
  readonly least?: { readonly shortMm: number; readonly longMm: number; readonly thickMm: number };
  readonly most: { readonly shortMm: number; readonly longMm: number; readonly thickMm: number };
  /** Longer over shorter side, within which machines take it at the plain rate. */
  readonly aspect?: readonly [least: number, most: number];
  readonly source: string;
}

export const POST_FORMATS: readonly PostFormat[] = [
  {
    id: 'usps-letter',
    name: 'USPS letter',
    least: { shortMm: 3.5 * MM_PER_INCH, longMm: 5 * MM_PER_INCH, thickMm: 0.007 * MM_PER_INCH },
    most: { shortMm: 6.125 * MM_PER_INCH, longMm: 11.5 * MM_PER_INCH, thickMm: 0.25 * MM_PER_INCH },
    aspect: [1.3, 2.5],
    source: 'USPS Domestic Mail Manual 101 (from memory)',
  },
  {
    id: 'uk-letter',
    name: 'Royal Mail Letter',
    most: { shortMm: 165, longMm: 240, thickMm: 5 },
    source: 'Royal Mail size guide (from memory)',
  },
  {
    id: 'uk-large-letter',
    name: 'Royal Mail Large Letter',
    most: { shortMm: 250, longMm: 353, thickMm: 25 },
    source: 'Royal Mail size guide (from memory)',
  },
];

export const sheetById = (id: string): FlatSize | undefined => SHEETS.find((s) => s.id === id);
export const envelopeById = (id: string): FlatSize | undefined => ENVELOPES.find((s) => s.id === id);
export const postById = (id: string): PostFormat | undefined => POST_FORMATS.find((s) => s.id === id);
