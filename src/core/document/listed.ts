/** A card as a list of cards tells of it. */
import type { Design } from './design';
import { formatLength } from '../units/length';
import { baseKindOf, cardValues } from './fields';
import { repairDesign, type Repaired } from './repair';
import { checkDesign } from './schema';

/** What came of the check of a value that should be a card. */
export type Listed =
  | { readonly ok: true; readonly design: Design; readonly size: string }
  | { readonly ok: false; readonly why: string; readonly repaired: Repaired | null };

/** Checks it; where it does not read, says what it would be without what stands in the way. */
export function listedCard(value: unknown): Listed {
  const read = checkDesign(value);
  return read.ok
    ? { ...read, size: sizeOfCard(read.design) }
    : { ok: false, why: read.why, repaired: repairDesign(value) };
}

/** Its size in the card's own unit, without the unit's name. */
export const sizeOfCard = (design: Design): string =>
  baseKindOf(design).sizeOf(cardValues(design), (mm) => formatLength(mm, design.units));
