/**
 * HP-GL/2 for plotters and cutters: moves with the tool up and down in units of 1/40 mm, one pen for each pass. Only
 * IN, SP, PU, PD are used, so that every reader knows them; curves are the chords they are drawn with.
 */
import { bladePaths } from '../cutting/blade';
import { toolPaths } from '../cutting/passes';
import { type Pass } from '../paper/machine';
import { PLAIN_PASSES, type MachineProfile } from '../paper/machine';
import type { Vec2 } from '../plane/vec2';
import type { Plate } from '../sheets/plate';

/** Plotter units in a millimetre (HP-GL/2: 0.025 mm each). */
export const UNITS_PER_MM = 40;

const at = ([x, y]: Vec2): string => `${Math.round(x * UNITS_PER_MM)},${Math.round(y * UNITS_PER_MM)}`;

/**
 * Text; pens as the machine counts its tools, from 1 in the order of the passes without one. What its blade needs is
 * included where the profile says so.
 */
export function toHpgl(plate: Plate, profile: MachineProfile | null = null): string {
  const out = ['IN;'];
  let pen = 0;
  for (const { pass, points } of machinePaths(plate, profile)) {
    const { tool: own } = (profile?.passes ?? PLAIN_PASSES)[pass];
    if (own !== pen) out.push(`SP${(pen = own)};`);
    const [first, ...rest] = steps(points.map(at));
    if (rest.length > 0) out.push(`PU${first};PD${rest.join(',')};`);
  }
  return `${[...out, 'PU0,0;', 'SP0;'].join('\n')}\n`;
}

/** The ways of the tools as they are written for a machine. */
export function machinePaths(plate: Plate, profile: MachineProfile | null): { pass: Pass; points: readonly Vec2[] }[] {
  const paths = toolPaths(plate);
  return profile ? bladePaths(paths, profile, profile.blade.madeUpBy === 'file') : paths;
}

/** Points that fall on one unit are one. */
const steps = (places: readonly string[]): string[] => places.filter((p, i) => i === 0 || p !== places[i - 1]);
