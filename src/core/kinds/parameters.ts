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
