/**
 * G-code for cutters (RS-274, a small part of it): metric, absolute, straight moves with a tool that is lifted and
 * lowered, one tool for each pass. G0 lifted, G1 lowered; T and M6 change tools; M2 ends. Comments in parentheses.
 */
import { PASS_WORDS } from '../paper/machine';
import { PLAIN_PASSES, type MachineProfile } from '../paper/machine';
import type { Plate } from '../sheets/plate';
import { trimNumber } from '../units/length';
import { WRITTEN_BY } from '../version';
import { machinePaths } from './hpgl';

/** Lifted and lowered, mm: plain values, set anew at the machine. */
const LIFTED_MM = 3;
const LOWERED_MM = 0;

const xy = ([x, y]: readonly [number, number]): string => `X${trimNumber(x, 3)} Y${trimNumber(y, 3)}`;
/** Comments hold no parentheses and nothing that is not plain. */
const comment = (text: string): string => `(${text.replace(/[^\x20-\x7e]/g, '?').replace(/[()]/g, '')})`;

/** Feeds are those of the profile; the blade's needs are included where it says so. */
export function toGcode(plate: Plate, profile: MachineProfile | null = null): string {
  const out = [comment(plate.title), comment(WRITTEN_BY), 'G21', 'G90', `G0 Z${LIFTED_MM}`];
  let tool = 0;
  for (const { pass, points } of machinePaths(plate, profile)) {
    const { tool: own, speedMmS } = (profile?.passes ?? PLAIN_PASSES)[pass];
    if (own !== tool) out.push(`T${(tool = own)} M6 ${comment(PASS_WORDS[pass])}`);
    const [first, ...rest] = points;
    const feed = trimNumber(60 * speedMmS, 3);
    out.push(`G0 ${xy(first)}`, `G1 Z${LOWERED_MM} F${feed}`, ...rest.map((p) => `G1 ${xy(p)}`), `G0 Z${LIFTED_MM}`);
  }
  return `${[...out, 'G0 X0 Y0', 'M2'].join('\n')}\n`;
}
