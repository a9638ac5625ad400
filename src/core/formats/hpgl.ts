/**
 * HP-GL/2 for plotters and cutters: moves with the tool up and down in units of 1/40 mm, one pen for each pass. Only
 * IN, SP, PU, PD are used, so that every reader knows them; curves are the chords they are drawn with.
 */
import type { Vec2 } from '../plane/vec2';
import { PASSES, toolPaths } from './passes';
import type { Plate } from './plate';

/** Plotter units in a millimetre (HP-GL/2: 0.025 mm each). */
export const UNITS_PER_MM = 40;

const at = ([x, y]: Vec2): string => `${Math.round(x * UNITS_PER_MM)},${Math.round(y * UNITS_PER_MM)}`;

/** @returns text; pens count from 1 in the order of the passes */
export function toHpgl(plate: Plate): string {
  const out = ['IN;'];
  let pen = 0;
  for (const { pass, points } of toolPaths(plate)) {
    const own = PASSES.indexOf(pass) + 1;
    if (own !== pen) out.push(`SP${(pen = own)};`);
    const [first, ...rest] = steps(points.map(at));
    if (rest.length > 0) out.push(`PU${first};PD${rest.join(',')};`);
  }
  return `${[...out, 'PU0,0;', 'SP0;'].join('\n')}\n`;
}

/** Points that fall on one unit are one. */
const steps = (places: readonly string[]): string[] => places.filter((p, i) => i === 0 || p !== places[i - 1]);
