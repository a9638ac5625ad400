/** Reads HP-GL/2: IN, DF, SP, PU, PD, PA, PR with pairs of whole or decimal numbers; 40 units to a millimetre. */
import type { Vec2 } from '../plane/vec2';
import { CutFileError, StrokeCollector, type CutFile } from './cut-file';

const UNIT_MM = 0.025;
/** Words that change nothing a tool does on the sheet: speeds, forces, labels' ends, windows. */
const WITHOUT_MOVE = new Set([
  'VS',
  'FS',
  'AS',
  'LT',
  'PW',
  'PG',
  'WU',
  'TR',
  'CA',
  'CS',
  'DT',
  'IW',
  'IP',
  'SC',
  'PS',
]);

export function readHpgl(text: string): CutFile {
  const out = new StrokeCollector();
  let relative = false;
  for (const { word, numbers, where } of wordsOf(text)) {
    switch (word) {
      case 'IN':
      case 'DF':
        out.lift();
        relative = false;
        break;
      case 'SP':
        out.lift();
        out.tool = numbers[0] ?? 0;
        break;
      case 'PA':
      case 'PR':
      case 'PU':
      case 'PD':
        if (word === 'PA' || word === 'PR') relative = word === 'PR';
        if (word === 'PU') out.lift();
        if (word === 'PD') out.lower();
        for (const to of placesOf(numbers, where, relative, out)) out.move(to, where);
        break;
      default:
        if (!WITHOUT_MOVE.has(word)) out.skip(`${where}: ${word} is not read`);
    }
  }
  return out.finish();
}

function* wordsOf(text: string): Generator<{ word: string; numbers: number[]; where: string }> {
  let line = 1;
  for (const m of text.matchAll(/\n|([A-Za-z]{2})([^A-Za-z;]*);?|[^\s;]/g)) {
    if (m[0] === '\n') line++;
    else if (!m[1]) throw new CutFileError(`line ${line}: "${m[0]}" is no command of HP-GL, such as PU0,0;`);
    else {
      const where = `line ${line}`;
      const numbers = m[2]
        .split(/[\s,]+/)
        .filter((t) => t !== '')
        .map(Number);
      if (!numbers.every(Number.isFinite))
        throw new CutFileError(`${where}: ${m[0].slice(0, 30)} has what is no number`);
      line += (m[0].match(/\n/g) ?? []).length;
      yield { word: m[1].toUpperCase(), numbers, where };
    }
  }
}

function* placesOf(
  numbers: readonly number[],
  where: string,
  relative: boolean,
  { at }: StrokeCollector,
): Generator<Vec2> {
  if (numbers.length % 2 === 1) throw new CutFileError(`${where}: ${numbers.length} numbers are no pairs of x and y`);
  let from = at;
  for (let k = 0; k < numbers.length; k += 2) {
    const [x, y] = [numbers[k] * UNIT_MM, numbers[k + 1] * UNIT_MM];
    from = relative ? [from[0] + x, from[1] + y] : [x, y];
    yield from;
  }
}
