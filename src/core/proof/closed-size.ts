/** How large a shut card is for whoever holds it: width first, as its cover is read. */
import type { Assembly } from '../assembly/assembly';
import { baseKindOf, cardValues } from '../document/fields';
import type { Design } from '../document/design';
import { closedSize } from '../rules';
import { closedPose } from './evidence';

/** Whether the gutter lies upright as the cover is read: a card folded at its side. */
export function gutterUpright(design: Design): boolean {
  const base = baseKindOf(design);
  const values = cardValues(design);
  return Math.abs(base.up(values, base.face(values, 'outside'), 'outside')[0]) > 0.5;
}

/** Width and height of the cover as it is read, from lengths along the gutter and away from it, mm. */
export const asRead = (design: Design, alongMm: number, awayMm: number): readonly [wideMm: number, highMm: number] =>
  gutterUpright(design) ? [awayMm, alongMm] : [alongMm, awayMm];

/** Size of the shut card as it is read, with what reaches past it, mm. */
export function closedAsRead(design: Design, assembly: Assembly): readonly [wideMm: number, highMm: number] {
  const { alongMm, awayMm } = closedSize({ assembly, closed: closedPose(assembly) });
  return asRead(design, alongMm, awayMm);
}
