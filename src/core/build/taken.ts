/** What a step of the work takes beside paper. */
import type { Hardware } from '../kinds';
import { adhesive, type AdhesiveId } from '../paper/adhesives';
import { formatSaid, type LengthUnit } from '../units/length';

export type Taken =
  | { readonly of: 'adhesive'; readonly id: AdhesiveId }
  | { readonly of: 'foam'; readonly thickMm: number }
  | { readonly of: 'bought'; readonly what: string; readonly count: number };

export const bought = ({ what, count }: Pick<Hardware, 'what' | 'count'>): Taken => ({ of: 'bought', what, count });

/** An adhesive, or foam where that has a thickness of its own. */
export const stuckWith = (id: AdhesiveId, thickMm: number | undefined): Taken =>
  id === 'foam' && thickMm ? { of: 'foam', thickMm } : { of: 'adhesive', id };

/** Each once. */
export const distinct = (taken: readonly Taken[]): Taken[] => [
  ...new Map(taken.map((t) => [JSON.stringify(t), t])).values(),
];

/** "wet glue", "foam, 2 mm", "6 × rivet". */
export function takenWords(taken: Taken, units: LengthUnit): string {
  switch (taken.of) {
    case 'adhesive':
      return adhesive(taken.id).name;
    case 'foam':
      return `foam, ${units === 'mm' ? `${taken.thickMm} mm` : formatSaid(taken.thickMm, units)}`;
    case 'bought': {
      const name = inUnits(`${taken.what.charAt(0).toLowerCase()}${taken.what.slice(1)}`, units);
      return taken.count === 1 ? name : `${taken.count} × ${name}`;
    }
  }
}

/** Kinds say their lengths in mm; who measures in inches reads inches. */
export const inUnits = (words: string, units: LengthUnit): string =>
  units === 'mm' ? words : words.replace(/(\d+(?:\.\d+)?) mm\b/g, (_, mm: string) => formatSaid(Number(mm), units));
