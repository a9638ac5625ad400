/** Card and paper: what a sheet weighs, how thick it is, how thin a strip of it may get. */
export interface Stock {
  readonly id: string;
  readonly name: string;
  /** g/m² (ISO 536). */
  readonly gsm: number;
  readonly caliperMm: number;
  readonly insideColour: string;
  readonly outsideColour: string;
  /** Way the fibres run on the sheet; `none` where it does not matter. */
  readonly grain: 'long' | 'short' | 'none';
  /** Narrowest strip that does not tear (mm); 3.2 is common practice, no source. */
  readonly leastWebMm: number;
  /** Id of the sheet size it is bought in. */
  readonly sheet: string;
  /** Its own size in place of a listed one, mm. */
  readonly ownSheet?: { readonly shortMm: number; readonly longMm: number };
  /** Edge of its sheets that is not cut, mm: 0 where a machine cuts to it. That of all sheets unless said. */
  readonly marginMm?: number;
  /** Its pattern has an up: no piece is laid upside down. */
  readonly oneWay?: boolean;
  /** Of one whole sheet, in the maker's money. */
  readonly price?: number;
  /** Whole sheets at hand; as many as are wanted unless said. */
  readonly wholes?: number;
  readonly offcuts?: readonly Offcut[];
}
/** A rest of a sheet, as wide as it is along the longer side of the sheet it is from. */
export interface Offcut {
  readonly id: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** One unless said. */
  readonly count?: number;
  /** Of another colour than the inside of its stock. */
  readonly colour?: string;
}

/**
 * 1 lb of US cover weight in g/m²: basis size 20 x 26 in, 500 sheets (ISO 536; the basis is a US trade standard, from
 * memory).
 */
export const GSM_PER_LB_COVER = 453.59237 / (500 * 20 * 26 * 0.0254 * 0.0254);

/**
 * Starter stocks. Calipers are typical of smooth boards of that weight (about 1.25 µm per g/m²); common practice, no
 * source: measure your own.
 */
export const STARTER_STOCKS: readonly Stock[] = [
  {
    id: 'card-240',
    name: 'Smooth card, cream',
    gsm: 240,
    caliperMm: 0.3,
    insideColour: '#fbf6e9',
    outsideColour: '#efe6cf',
    grain: 'long',
    leastWebMm: 3.2,
    sheet: 'A4',
  },
  {
    id: 'card-160',
    name: 'Light card, white',
    gsm: 160,
    caliperMm: 0.2,
    insideColour: '#ffffff',
    outsideColour: '#f3f3ef',
    grain: 'long',
    leastWebMm: 3.2,
    sheet: 'A4',
  },
  {
    id: 'night-216',
    name: 'Night card, slate',
    gsm: 216,
    caliperMm: 0.27,
    insideColour: '#5c6b85',
    outsideColour: '#46536b',
    grain: 'long',
    leastWebMm: 3.2,
    sheet: 'A4',
  },
  {
    id: 'brass-120',
    name: 'Text paper, brass',
    gsm: 120,
    caliperMm: 0.15,
    insideColour: '#e3c37a',
    outsideColour: '#d7b261',
    grain: 'long',
    leastWebMm: 3.2,
    sheet: 'A4',
  },
];
