/** The sides of a layer that may be left free of glue, as it is seen. */
import { mm } from '../common/asked';

export const FREE = {
  left: mm('layer-free-left', 'Free on the left', 0, 5000),
  right: mm('layer-free-right', 'Free on the right', 0, 5000),
  top: mm('layer-free-top', 'Free above', 0, 5000),
  bottom: mm('layer-free-bottom', 'Free below', 0, 5000),
};
export type FreeSide = keyof typeof FREE;
export const NOTHING_FREE: Readonly<Record<FreeSide, number>> = { left: 0, right: 0, top: 0, bottom: 0 };
