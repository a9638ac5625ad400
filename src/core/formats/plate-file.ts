/** A plate as a file for a cutter, in any of its languages. */
import type { MachineProfile } from '../paper/machine';
import type { Plate } from '../sheets/plate';
import { toDxf } from './dxf';
import { toGcode } from './gcode';
import { toHpgl } from './hpgl';
import { toSvg } from './svg';

export const CUT_FORMATS = ['svg', 'dxf', 'plt', 'gcode'] as const;
export type CutFormat = (typeof CUT_FORMATS)[number];

const WRITERS: Readonly<Record<CutFormat, (plate: Plate, machine: MachineProfile | null) => string>> = {
  svg: toSvg,
  dxf: toDxf,
  plt: toHpgl,
  gcode: toGcode,
};

export const plateFile = (plate: Plate, format: CutFormat, machine: MachineProfile | null): Uint8Array =>
  new TextEncoder().encode(WRITERS[format](plate, machine));
