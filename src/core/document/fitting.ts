/** Sizes that new mechanisms start with. */
import { faceMounting, KINDS, type FaceSize, type HostSize, type ParameterValues, type Whole } from '../kinds';
import { roundedForCutting, type LengthUnit } from '../units/length';

const whole =
  (units: LengthUnit): Whole =>
  (mm, least) =>
    roundedForCutting(Math.max(least, mm), units);

/** Starting sizes that suit the crease a new mechanism is put on: on whole mm, or on sixteenths of an inch. */
export function fittingParameters(kind: string, host: HostSize, units: LengthUnit = 'mm'): ParameterValues {
  const known = KINDS.get(kind);
  return known?.mount === 'crease' ? known.fitting(host, whole(units)) : {};
}
/** The same for the face it is put on. */
export function fittingFace(kind: string, face: FaceSize, units: LengthUnit = 'mm'): ParameterValues {
  return faceMounting(KINDS.get(kind))?.fitting(face, whole(units)) ?? {};
}
