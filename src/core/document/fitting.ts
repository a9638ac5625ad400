/** Sizes that new mechanisms start with. */
import type { ParameterValues } from '../kinds';
import { roundedForCutting, type LengthUnit } from '../units/length';

/** Starting sizes that suit the crease a new mechanism is put on: on whole mm, or on sixteenths of an inch. */
export function fittingParameters(
  kind: string,
  host: { readonly lengthMm: number; readonly reachA: number; readonly reachB: number },
  units: LengthUnit = 'mm',
): ParameterValues {
  const whole = (x: number, least: number): number => roundedForCutting(Math.max(least, x), units);
  const reach = Math.min(host.reachA, host.reachB);
  const part = (k: number, least = 2): number => whole(reach * k, least);
  if (kind === 'step-fold')
    return {
      depth: whole(host.reachA * 0.3, 3),
      height: whole(host.reachB * 0.3, 3),
      width: whole(host.lengthMm * 0.4, 5),
    };
  if (kind === 'strut-figure')
    return {
      shape: { arch: { width: whole(Math.min(reach, host.lengthMm) * 0.4, 6), height: part(0.5, 6) } },
      figureHeight: part(0.5, 6),
      depth: part(0.2, 2),
    };
  if (kind === 'plane-stack') {
    return {
      planes: [
        { depth: part(0.35, 4), base: 0, height: part(0.3, 4), width: whole(host.lengthMm * 0.5, 8), offset: 0 },
        {
          depth: part(0.2, 3),
          base: part(0.3, 4),
          height: part(0.25, 3),
          width: whole(host.lengthMm * 0.3, 6),
          offset: 0,
        },
      ],
    };
  }
  if (kind === 'half-cut') return { shape: { circle: part(0.5, 6) }, figureHeight: part(0.5, 6), rise: part(0.2, 3) };
  if (kind === 'floating-band')
    return {
      slit: part(0.6, 8),
      width: whole(Math.min(host.lengthMm * 0.15, 24), 8),
      figure: { star: { points: 5, outer: part(0.5, 8), inner: part(0.2, 4) } },
    };
  const size = whole(Math.min(reach * 0.6, host.lengthMm * 0.5), 8);
  return { size, tab: whole(Math.min(12, size * 0.3), 4) };
}
