/** How the glue areas of a card are stuck, kept in the design where that is not as their kind has it. */
import type { Design, Gluing } from '@/core/document/design';

/** How far an area is set in from the edges that its kind gives it, mm; below 0 it goes past them. */
export const INSET = {
  key: 'inset',
  label: 'Set in further',
  unit: 'mm',
  default: 0,
  min: -10,
  max: 100,
  note: '',
} as const;

/** What an area is stuck with; as its kind has it where that says nothing else. */
export const gluingOf = (design: Design, glue: string): Gluing =>
  design.gluing?.find((g) => g.glue === glue) ?? { glue, adhesive: 'wet' };

/** A card with an area stuck another way; what is as its kind has it is not kept. */
export function putGluing(design: Design, glue: string, change: Partial<Gluing>): Design {
  const next = { ...gluingOf(design, glue), ...change };
  const others = (design.gluing ?? []).filter((g) => g.glue !== glue);
  const { gluing: _, ...rest } = design;
  const plain = next.adhesive === 'wet' && !next.insetMm;
  const all = plain ? others : [...others, next];
  return all.length > 0 ? { ...rest, gluing: all } : rest;
}
