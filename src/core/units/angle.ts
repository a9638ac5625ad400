/** Angles: degrees at every public edge, radians inside. This is the one place where they change over. */
import type { Parsed } from './length';
import { readSum } from './sum';

export const degToRad = (deg: number): number => (deg * Math.PI) / 180;
export const radToDeg = (rad: number): number => (rad * 180) / Math.PI;

/** A whole turn, degrees: angles that lie are no greater. */
const TURN = 360;
/** What goes round may be counted on: so many degrees are read of it. */
export const ROUND_AND_ROUND = 36_000;

const WORTH = { deg: 1, degrees: 1, '°': 1 };
const LONGEST_TEXT = 60;

/** Read an angle in degrees: `45`, `45°`, `45 deg`, or a sum such as `360 / 7`; no further than `most` either way. */
export function parseAngle(text: string, most = TURN): Parsed {
  const sum = text.length <= LONGEST_TEXT ? readSum(text, { worth: WORTH, bare: 1 }) : null;
  if (!sum?.ok) return { ok: false, why: `"${text.slice(0, 20)}" is not an angle; type degrees such as 45` };
  if (Math.abs(sum.value) > most)
    return { ok: false, why: `${sum.value} is not an angle between -${most} and ${most} degrees` };
  return { ok: true, value: sum.value };
}
