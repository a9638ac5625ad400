/** What a step of the work takes beside paper. */
import type { Hardware } from '../kinds';
import { inSentence } from '../document/words';
import { adhesive, type AdhesiveId } from '../paper/adhesives';
import { formatSaid, trimNumber, type LengthUnit } from '../units/length';

type Bought = Omit<Hardware, 'mechanism'>;
export type Taken =
  | { readonly of: 'adhesive'; readonly id: AdhesiveId }
  | { readonly of: 'foam'; readonly thickMm: number }
  | ({ readonly of: 'bought' } & Bought);

export const bought = ({ what, sizesMm, count }: Bought): Taken => ({
  of: 'bought',
  what,
  ...(sizesMm ? { sizesMm } : {}),
  count,
});

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
      return `foam, ${lengthSaid(taken.thickMm, units)}`;
    case 'bought': {
      const name = inSentence(hardwareTitle(taken, units));
      return taken.count === 1 ? name : `${taken.count} × ${name}`;
    }
  }
}

/** "Spacer 3 mm"; what is the same thing has the same title. */
export function hardwareTitle({ what, sizesMm = [] }: Pick<Bought, 'what' | 'sizesMm'>, units: LengthUnit): string {
  if (sizesMm.length === 0) return what;
  const said = units === 'mm' ? `${sizesMm.map((mm) => trimNumber(mm, 4)).join(' x ')} mm` : inInches(sizesMm);
  return `${what} ${said}`;
}
const inInches = (sizesMm: readonly number[]): string => sizesMm.map((mm) => formatSaid(mm, 'in')).join(' x ');

/** A length of the work as its maker reads it: round millimetres without a decimal. */
export const lengthSaid = (mm: number, units: LengthUnit): string =>
  units === 'mm' ? `${trimNumber(mm, 4)} mm` : formatSaid(mm, units);
