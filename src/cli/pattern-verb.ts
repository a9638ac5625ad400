/** `pattern`: the flat pieces, their sheets, their passes, or the posed model, as a file. */
import { buildAssembly } from '../core/build/build';
import { within } from '../core/drives';
import { EXPORT_FORMATS, exportDesign, type ExportChoice, type ExportFormat } from '../core/formats/export';
import { PASSES, type Pass } from '../core/paper/machine';
import {
  readArguments,
  readDesignFile,
  readNumber,
  readOpen,
  readSide,
  readState,
  UsageError,
  writeFile,
  type Verb,
} from './arguments';
import { readMachine } from './sheet-verbs';

/** Other names that a format is asked for by. */
const ALSO: Readonly<Record<string, ExportFormat>> = { hpgl: 'plt', 'hp-gl': 'plt', 'g-code': 'gcode' };
const MOST_SHEETS = 10_000;

export const pattern: Verb = async (args) => {
  const { files, options, many, flags } = readArguments(args, {
    ...{ as: 'one', out: 'one', piece: 'one', open: 'one', drive: 'many', side: 'one' },
    ...{ sheet: 'one', bed: 'one', pass: 'one', page: 'one', profile: 'one', strip: 'flag', print: 'flag' },
  });
  const format = readFormat(options.as);
  const side = options.side === undefined ? undefined : readSide(options.side);
  if (options.out === undefined) throw new UsageError('--out is missing; name the file to write');
  const read = readDesignFile(files);
  const design = options.profile === undefined ? read : { ...read, machine: readMachine(options.profile) };
  const { drives } = buildAssembly(design);
  const asked = readState(drives, String(readOpen(options.open, 90)), many.drive);
  const sheet = readCount(options.sheet, 'sheet');
  const bed = readCount(options.bed, 'bed');
  const choice: ExportChoice = {
    format,
    ...(options.piece !== undefined ? { piece: options.piece } : {}),
    ...(side ? { side } : {}),
    ...(sheet !== undefined ? { sheet } : {}),
    ...(bed !== undefined ? { bed } : {}),
    ...(options.pass !== undefined ? { pass: readPass(options.pass) } : {}),
    ...(options.page !== undefined ? { page: options.page } : {}),
    ...(flags.has('strip') ? { strip: true } : {}),
    ...(flags.has('print') ? { print: true } : {}),
    state: within(drives, asked),
  };
  const bytes = await exportDesign(design, choice);
  writeFile(options.out, bytes);
  return { result: { file: options.out, format, bytes: bytes.length } };
};

function readFormat(as: string | undefined): ExportFormat {
  const format = (as !== undefined && Object.hasOwn(ALSO, as) ? ALSO[as] : as) as ExportFormat | undefined;
  if (format && EXPORT_FORMATS.includes(format)) return format;
  const given = as === undefined ? 'missing' : `"${as.slice(0, 20)}"`;
  throw new UsageError(`--as is ${given}; it must be one of ${[...EXPORT_FORMATS, 'hpgl'].join(', ')}`);
}

/** Counted from 1 by people. */
const readCount = (text: string | undefined, name: string): number | undefined =>
  text === undefined ? undefined : readNumber(text, name, 1, MOST_SHEETS, 1, true) - 1;

function readPass(text: string): Pass {
  if ((PASSES as readonly string[]).includes(text)) return text as Pass;
  throw new UsageError(`--pass is "${text.slice(0, 20)}"; it must be one of ${PASSES.join(', ')}`);
}
