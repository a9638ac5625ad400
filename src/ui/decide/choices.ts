/** What can be searched and measured on a card, in words. */
import { numbersOf } from '@/core/build/grips';
import { CARD_MEASURES, USUAL_OPEN } from '@/core/decide/wants';
import { freeNumber, type Free } from '@/core/decide/target';
import { nameOfMeasure, nameOfOwner } from '@/core/decide/words';
import { labelOfLever, measureWords } from '@/core/document/words';
import type { Design } from '@/core/document/design';
import { CARD } from '@/core/ids';
import type { Proof, Verdict } from '@/core/proof/prove';
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

/** Where a mechanism is fixed on its face. */
const PLACE_KEYS = ['at.x', 'at.y'] as const;

/** Every number that has a range to be searched in; those of the base last. */
export function numbersToFree(design: Design): Named[] {
  return [...design.mechanisms.map((m) => m.id), CARD].flatMap((id) =>
    [...numbersOf(design, id), ...PLACE_KEYS]
      .filter((key) => freeNumber(design, id, key))
      .map((key) => ({ id: both(id, key), name: `${nameOfOwner(design, id)}: ${labelOfLever(design, id, key)}` })),
  );
}
export function freeOf(design: Design, id: string): Free | null {
  const { mechanism, key } = parted(id);
  return freeNumber(design, mechanism, key);
}
/** "Depth of Step". */
export const nameOfFree = (design: Design, { mechanism, key }: Pick<Free, 'mechanism' | 'key'>): string =>
  `${labelOfLever(design, mechanism, key)} of ${nameOfOwner(design, mechanism)}`;

/** Everything that can be measured. @param measures of a proof, by mechanism */
export function measuresToWant(
  design: Design,
  measures: Readonly<Record<string, Readonly<Record<string, number>>>>,
): Named[] {
  const named = (mechanism: string, measure: string): Named => ({
    id: both(mechanism, measure),
    name: nameOfMeasure(design, { mechanism, measure }),
  });
  return [
    ...CARD_MEASURES.map((key) => named(CARD, key)),
    ...Object.entries(measures).flatMap(([id, own]) => Object.keys(own).map((key) => named(id, key))),
  ];
}
/** A value of a measure with its unit. */
export function measureSaid(key: string, value: number | null, units: LengthUnit): string {
  return value === null ? 'not reached' : measureWords(key, value, units).value;
}

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = { clear: 'clear', risk: 'a risk', blocked: 'blocked' };

/** What a measure is as the card is, to a tenth; where it is not known, 0. */
export function valueNow(proof: Proof | null, mechanism: string, measure: string): number {
  const value = mechanism === CARD ? ofCardNow(proof, measure) : undefined;
  return Number((value ?? proof?.measures[mechanism]?.[measure] ?? 0).toFixed(1));
}
function ofCardNow(proof: Proof | null, measure: string): number | undefined {
  if (measure === 'lift_mm') return proof?.travel.find((t) => t.open >= USUAL_OPEN)?.lift_mm;
  const { closed } = proof ?? {};
  if (measure === 'overhang_mm') return closed ? Math.max(...Object.values(closed.overhang)) : undefined;
  return closed?.[measure as 'width_mm' | 'height_mm' | 'thickness_mm'];
}
