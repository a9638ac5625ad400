/**
 * G-code for cutters (RS-274, a small part of it): metric, absolute, straight moves with a tool that is lifted and
 * lowered, one tool for each pass. G0 lifted, G1 lowered; T and M6 change tools; M2 ends. Comments in parentheses.
 */
import { trimNumber } from '../units/length';
import { PASSES, PASS_WORDS, toolPaths } from './passes';
import type { Plate } from './plate';

/** Lifted and lowered, mm; and how fast, mm a minute: plain starting values, set anew at the machine. */
const LIFTED_MM = 3;
const LOWERED_MM = 0;
const FEED = 1200;

const xy = ([x, y]: readonly [number, number]): string => `X${trimNumber(x, 3)} Y${trimNumber(y, 3)}`;
/** Comments hold no parentheses and nothing that is not plain. */
const comment = (text: string): string => `(${text.replace(/[^\x20-\x7e]/g, '?').replace(/[()]/g, '')})`;

export function toGcode(plate: Plate): string {
  const out = [comment(plate.title), 'G21', 'G90', `G0 Z${LIFTED_MM}`];
  let tool = 0;
  for (const { pass, points } of toolPaths(plate)) {
    const own = PASSES.indexOf(pass) + 1;
    if (own !== tool) out.push(`T${(tool = own)} M6 ${comment(PASS_WORDS[pass])}`);
    const [first, ...rest] = points;
    out.push(`G0 ${xy(first)}`, `G1 Z${LOWERED_MM} F${FEED}`, ...rest.map((p) => `G1 ${xy(p)}`), `G0 Z${LIFTED_MM}`);
  }
  return `${[...out, 'G0 X0 Y0', 'M2'].join('\n')}\n`;
}
