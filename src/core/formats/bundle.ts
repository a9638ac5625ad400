/**
 * Everything for the bench in one archive: the card, its lists, its sheets in every language, booklet and test strip.
 */
import { strToU8, zipSync } from 'fflate';
import type { Assembly } from '../assembly/assembly';
import type { Design } from '../document/design';
import { PASSES, type Pass } from '../paper/machine';
import { cutList } from '../sheets/cutlist';
import { toolPaths } from '../cutting/passes';
import { plateOfSheet } from '../sheets/plate';
import { layOut } from '../sheets/lay-out';
import { sheetTitle } from './sheet-title';
import { toBooklet } from './booklet';
import { cutListCsv } from './csv';
import { ENDINGS, exportDesign, type ExportChoice, type ExportFormat } from './export';

/** A file of the archive, by its path there. */
export interface BundleFile {
  readonly path: string;
  readonly bytes: Uint8Array;
}
const CUT_FORMATS = ['svg', 'dxf', 'plt', 'gcode'] as const;
const PASS_FORMATS = ['svg', 'dxf'] as const;

/** Archives of the same card are the same, byte by byte: no clock in them. */
const NO_TIME = new Date(1980, 0, 1);

/** @param onFile told each file's path once it is written */
export async function toBundle(
  design: Design,
  assembly: Assembly,
  onFile: (path: string) => Promise<void> | void = () => undefined,
): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {};
  for await (const { path, bytes } of bundleFiles(design, assembly)) {
    files[path] = bytes;
    await onFile(path);
  }
  return zipSync(files, { mtime: NO_TIME, level: 6 });
}

/** Its files one after another, so that the way can be told. */
export async function* bundleFiles(design: Design, assembly: Assembly): AsyncGenerator<BundleFile> {
  const json = (value: unknown): Uint8Array => strToU8(`${JSON.stringify(value, null, 1)}\n`);
  const write = (choice: ExportChoice): Promise<Uint8Array> => exportDesign(design, choice, assembly);
  yield { path: 'card.json', bytes: json(design) };
  const rows = cutList(design, assembly);
  yield { path: 'cut-list.json', bytes: json(rows) };
  yield { path: 'cut-list.csv', bytes: strToU8(cutListCsv(rows)) };
  yield { path: 'booklet.pdf', bytes: await toBooklet(design, assembly) };
  yield { path: 'sheets.pdf', bytes: await write({ format: 'pdf' }) };
  if (design.artwork?.length) yield { path: 'print.pdf', bytes: await write({ format: 'pdf', print: true }) };
  if (design.machine) yield { path: 'machine.json', bytes: json(design.machine) };
  const { sheets } = layOut(design, assembly);
  for (const [sheet, own] of sheets.entries()) {
    const folder = `sheets/${sheetTitle(sheet, own)}`;
    for (const format of CUT_FORMATS)
      yield { path: `${folder}.${ENDINGS[format]}`, bytes: await write({ format, sheet }) };
    const used = new Set(toolPaths(plateOfSheet('', own)).map((p) => p.pass));
    for (const pass of PASSES.filter((p) => used.has(p)))
      for (const format of PASS_FORMATS)
        yield { path: passPath(folder, pass, format), bytes: await write({ format, sheet, pass }) };
  }
  for (const format of CUT_FORMATS)
    yield { path: `test-strip.${ENDINGS[format]}`, bytes: await write({ format, strip: true }) };
}

const passPath = (folder: string, pass: Pass, format: ExportFormat): string =>
  `${folder}/${PASSES.indexOf(pass) + 1}-${pass}.${ENDINGS[format]}`;
