/** Angles: degrees at every public edge, radians inside. This is the one place where they change over. */
import type { Parsed } from './length';

export const degToRad = (deg: number): number => (deg * Math.PI) / 180;
export const radToDeg = (rad: number): number => (rad * 180) / Math.PI;

/** Read an angle in degrees: `45`, `45°`, `45 deg`. */
export function parseAngle(text: string): Parsed {
  const tidy = text.trim().replace(/[−–]/g, '-');
  const match = /^([+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+))\s*(?:°|deg|degrees)?$/.exec(tidy);
  if (!match || text.length > 40)
    return { ok: false, why: `"${text.slice(0, 20)}" is not an angle; type degrees such as 45` };
  const value = Number(match[1].replace(',', '.'));
  if (Math.abs(value) > 360) return { ok: false, why: `${value} is not an angle between -360 and 360 degrees` };
  return { ok: true, value };
}
