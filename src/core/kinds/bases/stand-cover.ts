/**
 * Base and cover of a stand of any outline: a shape whose straight edge lies along the hinge, and its mirror image.
 *
 *        ╭───╮      ground, y > 0
 *       ╱     ╲
 *      ─┴─────┴─    hinge, y = 0: as long as the shape's straight edge
 *       ╲     ╱     strut
 *      ─ ─ ─ ─ ─    break
 *        ╰───╯      flap; the foot is its free end
 */
import { mapRegion, rectangle, regionBox, unite, type Polygon, type Region } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { levelAt, widthOfAll, type Interval } from '../../shapes/level';
import { standing } from '../../shapes/outline';
import type { Shape } from '../../shapes/shape';
import { SAME_LEVEL_MM } from '../../tolerance';
import type { BaseContext } from '../kind';

/** Base and cover hang together along no less of the hinge, mm; common practice, no source. */
const LEAST_HINGE_MM = 10;

/** The ground of a stand: its hinge along y = 0, its fore end at the greatest y; the middle of its width at x = 0. */
export interface Ground {
  readonly outline: Polygon;
  /** From the hinge to the fore end, and along the hinge, mm. */
  readonly wide: number;
  readonly along: number;
  /** A shape of its maker's, in place of a rectangle. */
  readonly drawn: boolean;
}

export const plainGround = (wide: number, along: number): Ground => ({
  outline: { outer: rectangle(-along / 2, 0, along / 2, wide), holes: [] },
  wide,
  along,
  drawn: false,
});

/** A shape as large as it is drawn; it has one part, and a straight edge at its foot. */
export function drawnGround(shape: Shape, { outline, refuse }: Pick<BaseContext, 'outline' | 'refuse'>): Ground {
  const drawn = outline(shape);
  if (drawn.length !== 1) refuse(`the shape of its base falls into ${drawn.length} parts; choose a shape of one`);
  const [stood] = standing(drawn, null);
  const { min, max } = regionBox([stood]);
  const ground: Ground = { outline: stood, wide: max[1] - min[1], along: max[0] - min[0], drawn: true };
  const joined = widthOfAll(levelAt([stood], SAME_LEVEL_MM));
  if (joined < LEAST_HINGE_MM)
    refuse(
      `the shape of its base stands on ${joined.toFixed(1)} mm of straight edge, and ${LEAST_HINGE_MM} mm are joined ` +
        `along the hinge at least; choose another shape, or trim its foot`,
    );
  return ground;
}

/** Ground and cover in one sheet. */
export const bothOf = ({ outline, wide, along, drawn }: Ground): Polygon =>
  drawn
    ? unite([outline], turnedOver([outline]))[0]
    : { outer: rectangle(-along / 2, -wide, along / 2, wide), holes: [] };
const turnedOver = (region: Region): Region => mapRegion(region, ([x, y]): Vec2 => [x, -y], true);

/** The widest stretch of paper so far from the hinge. */
export function acrossAt({ outline, wide }: Ground, mm: number): Interval {
  const level = Math.min(Math.max(mm, SAME_LEVEL_MM), wide - SAME_LEVEL_MM);
  return levelAt([outline], level).reduce((most, i) => (i.to - i.from > most.to - most.from ? i : most), NOWHERE);
}
const NOWHERE: Interval = { from: 0, to: 0 };

/** Paper that two distances from the hinge have in common: where a straight strip between them may lie. */
export function acrossBetween(ground: Ground, fromMm: number, toMm: number): Interval {
  const [p, q] = [acrossAt(ground, fromMm), acrossAt(ground, toMm)];
  return { from: Math.max(p.from, q.from), to: Math.min(p.to, q.to) };
}

/** A place on the paper so far from the hinge, `inMm` from its end; in the middle where it is narrower. */
export function placeAt(ground: Ground, mm: number, inMm: number): Vec2 {
  const { from, to } = acrossAt(ground, mm);
  return [Math.min(from + inMm, (from + to) / 2), mm];
}

/** The ground as the plate over it is seen by its reader: its fore end at the foot. */
export const asPlate = ({ outline, wide }: Ground): Polygon =>
  mapRegion([outline], ([x, y]): Vec2 => [-x, wide - y])[0];
