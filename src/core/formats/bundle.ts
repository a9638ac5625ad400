/**
 * Everything for the bench in one archive: the card, its lists, its sheets in every language, booklet and test strip.
 */
import { strToU8, zipSync } from 'fflate';
import type { Assembly } from '../assembly/assembly';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import { PASSES, type Pass } from '../paper/machine';
import { cutList } from '../sheets/cutlist';
import { toolPaths } from '../cutting/passes';
import { plateOfSheet } from '../sheets/plate';
import { layOutCards } from '../sheets/lay-out';
import type { CardOnSheets } from '../sheets/slots';
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

/**
 * @param guests further cards that share its sheets
 * @param onFile told each file's path once it is written
 */
export async function toBundle(
  design: Design,
  assembly: Assembly,
  guests: readonly Design[] = [],
  onFile: (path: string) => Promise<void> | void = () => undefined,
): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {};
  const cards = [{ design, assembly }, ...guests.map((d) => ({ design: d, assembly: buildAssembly(d) }))];
  for await (const { path, bytes } of bundleFiles(cards)) {
    files[path] = bytes;
    await onFile(path);
  }
  return zipSync(files, { mtime: NO_TIME, level: 6 });
}

const json = (value: unknown): Uint8Array => strToU8(`${JSON.stringify(value, null, 1)}\n`);

/** Its files one after another, so that the way can be told. */
async function* bundleFiles(cards: readonly CardOnSheets[]): AsyncGenerator<BundleFile> {
  for (const [k, card] of cards.entries()) yield* filesOfCard(card, k === 0 ? '' : `-${k + 1}`);
  const [{ design, assembly }, ...rest] = cards;
  const guests = rest.map((c) => c.design);
  const write = (choice: ExportChoice): Promise<Uint8Array> =>
    exportDesign(design, { ...choice, ...(guests.length > 0 ? { with: guests } : {}) }, assembly);
  yield { path: 'sheets.pdf', bytes: await write({ format: 'pdf' }) };
  if (design.machine) yield { path: 'machine.json', bytes: json(design.machine) };
  const { sheets } = layOutCards(cards);
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

/** The card itself, what is cut for it, how it is made and what is printed on it. */
async function* filesOfCard({ design, assembly }: CardOnSheets, number: string): AsyncGenerator<BundleFile> {
  yield { path: `card${number}.json`, bytes: json(design) };
  const rows = cutList(design, assembly);
  yield { path: `cut-list${number}.json`, bytes: json(rows) };
  yield { path: `cut-list${number}.csv`, bytes: strToU8(cutListCsv(rows)) };
  yield { path: `booklet${number}.pdf`, bytes: await toBooklet(design, assembly) };
  if (design.artwork?.length) {
    const bytes = await exportDesign(design, { format: 'pdf', print: true }, assembly);
    yield { path: `print${number}.pdf`, bytes };
  }
}

const passPath = (folder: string, pass: Pass, format: ExportFormat): string =>
  `${folder}/${PASSES.indexOf(pass) + 1}-${pass}.${ENDINGS[format]}`;
