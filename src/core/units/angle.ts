/** Angles: degrees at every public edge, radians inside. This is the one place where they change over. */
import type { Parsed } from './length';

export const degToRad = (deg: number): number => (deg * Math.PI) / 180;
export const radToDeg = (rad: number): number => (rad * 180) / Math.PI;

/** A whole turn, degrees: angles that lie are no greater. */
const TURN = 360;
/** What goes round may be counted on: so many degrees are read of it. */
export const ROUND_AND_ROUND = 36_000;

/** Read an angle in degrees: `45`, `45°`, `45 deg`; no further than `most` either way. */
export function parseAngle(text: string, most = TURN): Parsed {
  const tidy = text.trim().replace(/[−–]/g, '-');
  const match = /^([+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+))\s*(?:°|deg|degrees)?$/.exec(tidy);
  if (!match || text.length > 40)
    return { ok: false, why: `"${text.slice(0, 20)}" is not an angle; type degrees such as 45` };
  const value = Number(match[1].replace(',', '.'));
  if (Math.abs(value) > most)
    return { ok: false, why: `${value} is not an angle between -${most} and ${most} degrees` };
  return { ok: true, value };
}
