/** What paper is stuck with. Thicknesses and uses: docs/mechanisms.md, adhesives; common practice, no source. */

export const ADHESIVE_IDS = ['wet', 'tape', 'strong-tape', 'foam'] as const;
export type AdhesiveId = (typeof ADHESIVE_IDS)[number];

export interface Adhesive {
  readonly id: AdhesiveId;
  readonly name: string;
  /** Of foam as it is bought, unless its maker says another; mm. */
  readonly thickMm: number;
  /** Narrower areas do not hold, mm. */
  readonly leastWideMm: number;
  readonly says: string;
}

export const ADHESIVES: readonly Adhesive[] = [
  { id: 'wet', name: 'wet glue', thickMm: 0, leastWideMm: 6, says: 'Can be slid into place; sets under weight.' },
  { id: 'tape', name: 'tape', thickMm: 0.1, leastWideMm: 3, says: 'Holds at once; lets go where something pulls.' },
  { id: 'strong-tape', name: 'strong tape', thickMm: 0.1, leastWideMm: 3, says: 'Holds at once, and under load.' },
  { id: 'foam', name: 'foam', thickMm: 1, leastWideMm: 6, says: 'Raises what it carries; not where anything folds.' },
];

export const adhesive = (id: AdhesiveId): Adhesive => ADHESIVES.find((a) => a.id === id)!;
