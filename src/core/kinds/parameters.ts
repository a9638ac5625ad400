/** Parameters that several kinds have, said once so that they ask the same of the same limits. */
import type { Parameter } from './kind';

/** Where a mechanism's middle lies on its crease, mm. */
export const alongCrease = (note = 'Its middle, from the middle of the crease.'): Parameter => ({
  key: 'offset',
  label: 'Along the crease',
  unit: 'mm',
  default: 0,
  min: -1000,
  max: 1000,
  note,
});

/** Height a drawn shape is scaled to, mm; as drawn while it is null. */
export const scaledHeight = (label: string, what: string): Parameter => ({
  key: 'figureHeight',
  label,
  unit: 'mm',
  default: null,
  min: 1,
  max: 1000,
  note: `The ${what} is scaled to it, proportions kept; as drawn unless set.`,
});

/** Plain lengths within the same bounds, mm; null where one follows from others. */
export const lengths =
  (min: number, max: number) =>
  (key: string, label: string, value: number | null, note: string, least = min): Parameter => ({
    key,
    label,
    unit: 'mm',
    default: value,
    min: least,
    max,
    note,
  });
