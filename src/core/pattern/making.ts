/** How creases are produced: a score line, or cuts and gaps along it. */
import { dist2, lerp2, type Vec2 } from '../plane/vec2';
import type { Segment } from '../plane/arrangement';
import { ROUNDING_MM } from '../tolerance';

export type Making =
  { readonly way: 'score' } | { readonly way: 'perforate'; readonly cutMm: number; readonly gapMm: number };

/**
 * Cuts of a perforation along a segment: whole cuts, evenly spread, with at least half a gap of paper at both ends.
 * None where the segment is too short for one.
 */
export function perforationCuts({ a, b }: Segment, cutMm: number, gapMm: number): Segment[] {
  const length = dist2(a, b);
  const count = Math.floor(length / (cutMm + gapMm) + ROUNDING_MM);
  if (count < 1) return [];
  const pitch = length / count;
  return Array.from({ length: count }, (_, k) => {
    const middle = (k + 0.5) * pitch;
    const at = (x: number): Vec2 => lerp2(a, b, x / length);
    return { a: at(middle - cutMm / 2), b: at(middle + cutMm / 2) };
  });
}
