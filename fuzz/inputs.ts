/** Inputs for the readers: files of the corpus, broken in seeded ways. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { assembleCreasePattern, PatternError } from '../src/core/assembly/crease-pattern';
import { buildAssembly, DesignError } from '../src/core/build/build';
import { withTemplate } from '../src/core/build/bring';
import { blankDesign } from '../src/core/document/design';
import { repairDesign } from '../src/core/document/repair';
import { readDesign } from '../src/core/document/schema';
import { readValue } from '../src/core/document/values';
import { readFold } from '../src/core/formats/fold-read';
import { readTemplate } from '../src/core/formats/template-read';
import { BASES } from '../src/core/kinds';
import { readSvg, shapeOfSvg } from '../src/core/shapes/svg-read';
import { ShapeError } from '../src/core/shapes/shape';
import { readProfile } from '../src/core/document/profile';
import { MACHINES } from '../src/core/paper/machine';
import { CutFileError } from '../src/core/simulate/cut-file';
import { readCutFile } from '../src/core/simulate/read';
import { simulate } from '../src/core/simulate/simulate';
import { parseLength } from '../src/core/units/length';

export interface Input {
  readonly kind: keyof typeof READERS;
  readonly text: string;
}

/** Errors with a reason for the person; every other one is a fault. */
const EXPECTED = [ShapeError, DesignError, PatternError, CutFileError];

/** What is done with an input of each kind. */
const READERS = {
  project: (text: string) => {
    const read = readDesign(text);
    if (read.ok) buildAssembly(read.design);
    else repairDesign(safeJson(text));
  },
  svg: (text: string) => void shapeOfSvg(readSvg(text)),
  'template.svg': (text: string) => bring(text, 'a.svg'),
  'template.dxf': (text: string) => bring(text, 'a.dxf'),
  'cut.svg': (text: string) => cut(text, 'a.svg'),
  'cut.dxf': (text: string) => cut(text, 'a.dxf'),
  'cut.plt': (text: string) => cut(text, 'a.plt'),
  'cut.gcode': (text: string) => cut(text, 'a.gcode'),
  machine: (text: string) => void readProfile(text),
  fold: (text: string) => {
    const read = readFold(text);
    if (read.ok) assembleCreasePattern(read.pattern);
  },
  value: (text: string) => {
    parseLength(text, 'in');
    for (const p of [...BASES.values()].flatMap((b) => b.parameters)) readValue(p, text, 'mm');
  },
};

const cut = (text: string, name: string): unknown => simulate(readCutFile(text, name), MACHINES[0]);

function bring(text: string, name: string): void {
  const { lines, groups } = readTemplate(text, name);
  withTemplate(blankDesign('fuzz'), { name, scale: 1, mended: true, picked: {}, lead: null, lines, groups });
}
function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Reads one input; what is thrown that is no reason for the person, else null. */
export function faultOf({ kind, text }: Input): Error | null {
  try {
    READERS[kind](text);
    return null;
  } catch (error) {
    return EXPECTED.some((E) => error instanceof E) ? null : (error as Error);
  }
}

const CORPUS = join('fuzz', 'corpus');
const kindsOf = (file: string): Input['kind'][] =>
  file.endsWith('machine.json')
    ? ['machine']
    : file.endsWith('.plt')
      ? ['cut.plt']
      : file.endsWith('.gcode')
        ? ['cut.gcode']
        : drawingsOf(file);
const drawingsOf = (file: string): Input['kind'][] =>
  file.endsWith('.json')
    ? ['project']
    : file.endsWith('.svg')
      ? ['svg', 'template.svg', 'cut.svg']
      : file.endsWith('.dxf')
        ? ['template.dxf', 'cut.dxf']
        : file.endsWith('.fold')
          ? ['fold']
          : ['value'];

export function corpus(): Input[] {
  const files = [
    ...readdirSync(CORPUS).map((f) => join(CORPUS, f)),
    ...readdirSync('examples').map((f) => join('examples', f)),
  ];
  return files.flatMap((f) => kindsOf(f).map((kind): Input => ({ kind, text: readFileSync(f, 'utf8') })));
}

const NUMBERS = ['1e308', '-1e308', '1e9', 'NaN', '-0', '0.0000001', '1e-320', '999999999999', '', 'null', 'x'];
const WORDS = [
  '__proto__',
  '<script>',
  '\u0000',
  '\uFEFF',
  '&a;',
  '{"a":',
  '9'.repeat(400),
  '\u202e',
  'Z',
  '0\nSECTION\n',
];

/** One to four edits: a stretch doubled, dropped or moved, a number or a word put in another's place. */
export function broken(input: Input, random: () => number): Input {
  let { text } = input;
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const edits = 1 + Math.floor(random() * 4);
  for (let k = 0; k < edits; k++) {
    const at = Math.floor(random() * text.length);
    const length = Math.floor(random() ** 3 * Math.min(2000, text.length));
    const dice = random();
    if (dice < 0.2) text = text.slice(0, at) + text.slice(at + length);
    else if (dice < 0.35) text = text.slice(0, at + length) + text.slice(at, at + length) + text.slice(at + length);
    else if (dice < 0.75) text = put(text, at, pick(NUMBERS));
    else if (dice < 0.9) text = text.slice(0, at) + pick(WORDS) + text.slice(at);
    else if (dice < 0.95) text = text.slice(0, at);
    else text = text.slice(0, at) + String.fromCharCode(Math.floor(random() * 0x3000)) + text.slice(at + 1);
  }
  return { ...input, text: text.slice(0, 400_000) };
}
/** The next number from `at` on, another one. */
const put = (text: string, at: number, number: string): string =>
  text.slice(0, at) + text.slice(at).replace(/-?\d+(\.\d+)?/, number);
