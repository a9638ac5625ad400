/** A single piece turned so that it fits a page, where there is any turn at which it does. */
import type { FlatSize } from '../paper/sizes';
import { boxOf, type Box2 } from '../plane/polygon';
import { add2, type Vec2 } from '../plane/vec2';
import { turnPoint } from '../plane/turning';
import type { Plate } from '../sheets/plate';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { pagesOf } from './tiles';

/** Turns are tried this far apart, degrees. */
const TURN_STEP_DEG = 1;

/** The plate as it fits one page, itself where it does as it is; null where it does at no turn. */
export function onOnePage(plate: Plate, paper: FlatSize): Plate | null {
  const rooms = pagesOf(paper);
  const fits = (w: number, h: number): boolean =>
    rooms.some((r) => w <= r.roomX + SIZE_ROUNDING_MM && h <= r.roomY + SIZE_ROUNDING_MM);
  if (fits(plate.widthMm, plate.heightMm)) return plate;
  if (plate.items.length !== 1) return null;
  const outline = plate.items[0].drawing.region.flatMap((p) => p.outer).map(plate.items[0].place);
  for (let turn = 0; turn < 180; turn += TURN_STEP_DEG) {
    const box = boxOf(outline.map((p) => turnPoint(p, turn)));
    if (fits(box.max[0] - box.min[0], box.max[1] - box.min[1])) return turnedPlate(plate, turn, box);
  }
  return null;
}

function turnedPlate(plate: Plate, turnDeg: number, { min, max }: Box2): Plate {
  const shift: Vec2 = [-min[0], -min[1]];
  const items = plate.items.map(({ drawing, place }) => ({
    drawing,
    place: (p: Vec2): Vec2 => add2(turnPoint(place(p), turnDeg), shift),
  }));
  return { ...plate, widthMm: max[0] - min[0], heightMm: max[1] - min[1], items };
}
