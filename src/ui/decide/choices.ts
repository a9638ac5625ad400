/** What can be searched and measured on a card, in words. */
import { numbersOf } from '@/core/build/grips';
import { CARD_MEASURES } from '@/core/decide/wants';
import { freeNumber, type Free } from '@/core/decide/target';
import { labelOfLever, measureWords, nameOfMechanism } from '@/core/document/words';
import type { Design } from '@/core/document/design';
import { CARD } from '@/core/ids';
import type { LengthUnit } from '@/core/units/length';

export interface Named {
  readonly id: string;
  readonly name: string;
}
const SEP = ' ';
const both = (mechanism: string, key: string): string => `${mechanism}${SEP}${key}`;
export const parted = (id: string): { mechanism: string; key: string } => {
  const at = id.indexOf(SEP);
  return { mechanism: id.slice(0, at), key: id.slice(at + 1) };
};
const ownerName = (design: Design, id: string): string => (id === CARD ? 'base card' : nameOfMechanism(design, id));

/** Every number that has a range to be searched in; those of the base last. */
export function numbersToFree(design: Design): Named[] {
  return [...design.mechanisms.map((m) => m.id), CARD].flatMap((id) =>
    numbersOf(design, id)
      .filter((key) => freeNumber(design, id, key))
      .map((key) => ({ id: both(id, key), name: `${ownerName(design, id)}: ${labelOfLever(design, id, key)}` })),
  );
}
export function freeOf(design: Design, id: string): Free | null {
  const { mechanism, key } = parted(id);
  return freeNumber(design, mechanism, key);
}
/** "Depth of Step". */
export const nameOfFree = (design: Design, { mechanism, key }: Pick<Free, 'mechanism' | 'key'>): string =>
  `${labelOfLever(design, mechanism, key)} of ${ownerName(design, mechanism)}`;

const CARD_WORDS: Readonly<Record<(typeof CARD_MEASURES)[number], string>> = {
  width_mm: 'closed, across',
  height_mm: 'closed, along the gutter',
  thickness_mm: 'thickness closed',
  overhang_mm: 'past its edges, closed',
  lift_mm: 'highest point',
};
/** Everything that can be measured. @param measures of a proof, by mechanism */
export function measuresToWant(
  design: Design,
  measures: Readonly<Record<string, Readonly<Record<string, number>>>>,
): Named[] {
  const ofCard = CARD_MEASURES.map((key) => ({ id: both(CARD, key), name: `card: ${CARD_WORDS[key]}` }));
  const ofParts = Object.entries(measures).flatMap(([id, own]) =>
    Object.entries(own).map(([key, value]) => ({
      id: both(id, key),
      name: `${ownerName(design, id)}: ${measureWords(key, value, design.units).name.toLowerCase()}`,
    })),
  );
  return [...ofCard, ...ofParts];
}
/** A value of a measure with its unit. */
export function measureSaid(key: string, value: number | null, units: LengthUnit): string {
  return value === null ? 'not reached' : measureWords(key, value, units).value;
}
