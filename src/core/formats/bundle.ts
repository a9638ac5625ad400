/**
 * Everything for the bench in one archive: the card, its lists, its sheets in every language, booklet and test strip.
 */
import { strToU8, zipSync } from 'fflate';
import type { Assembly } from '../assembly/assembly';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import { designText } from '../document/design-text';
import { PASSES, type MachineProfile } from '../paper/machine';
import { cutList } from '../sheets/cutlist';
import { onlyPass } from '../cutting/passes';
import { plateOfPieces, type Plate } from '../sheets/plate';
import { testStrip } from '../sheets/test-strip';
import { layOutCards } from '../sheets/lay-out';
import type { CardOnSheets } from '../sheets/slots';
import { sheetTitle } from './sheet-title';
import { toBooklet } from './booklet';
import { cutListCsv } from './csv';
import { pageOf, sheetPlates } from './export';
import { toPdf } from './pdf';
import { CUT_FORMATS, plateFile } from './plate-file';
import { toPrint } from './print';

/** A file of the archive, by its path there. */
export interface BundleFile {
  readonly path: string;
  readonly bytes: Uint8Array;
}
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
  const [{ design }] = cards;
  const machine = design.machine ?? null;
  // Laid out once: every file of a sheet is of the same layout.
  const plates = sheetPlates(cards);
  yield { path: 'sheets.pdf', bytes: await toPdf(plates, pageOf(design, {})) };
  if (machine) yield { path: 'machine.json', bytes: json(machine) };
  const { sheets } = layOutCards(cards);
  for (const [k, plate] of plates.entries()) yield* filesOfPlate(`sheets/${sheetTitle(k, sheets[k])}`, plate, machine);
  const strip = plateOfPieces(`${design.name}, test strip`, testStrip(design.card.stock));
  for (const format of CUT_FORMATS) yield { path: `test-strip.${format}`, bytes: plateFile(strip, format, machine) };
}

/** In every language, and pass by pass as drawings. */
function* filesOfPlate(path: string, plate: Plate, machine: MachineProfile | null): Generator<BundleFile> {
  for (const format of CUT_FORMATS) yield { path: `${path}.${format}`, bytes: plateFile(plate, format, machine) };
  for (const pass of PASSES) {
    const worked = onlyPass(plate, pass);
    if (worked.items.length === 0) continue;
    for (const format of PASS_FORMATS) {
      const file = `${path}/${PASSES.indexOf(pass) + 1}-${pass}.${format}`;
      yield { path: file, bytes: plateFile(worked, format, machine) };
    }
  }
}

/** The card itself, what is cut for it, how it is made and what is printed on it. */
async function* filesOfCard({ design, assembly }: CardOnSheets, number: string): AsyncGenerator<BundleFile> {
  yield { path: `card${number}.json`, bytes: strToU8(designText(design)) };
  const rows = cutList(design, assembly);
  yield { path: `cut-list${number}.json`, bytes: json(rows) };
  yield { path: `cut-list${number}.csv`, bytes: strToU8(cutListCsv(rows)) };
  yield { path: `booklet${number}.pdf`, bytes: await toBooklet(design, assembly) };
  if (design.artwork?.length) {
    yield { path: `print${number}.pdf`, bytes: await toPrint(design, assembly) };
  }
}
