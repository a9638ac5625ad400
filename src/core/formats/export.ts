/** One door for every export: a design to bytes. Shared by the command line, the route handlers and the Make stage. */
import { openTo, type State } from '../drives';
import { poseAt } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { PASS_WORDS, type Pass } from '../paper/machine';
import { sheetOf } from '../document/post';
import { sheetById, SHEETS, type FlatSize } from '../paper/sizes';
import { buildAssembly } from '../build/build';
import { stockOf, type Design } from '../document/design';
import { onlyPass } from '../cutting/passes';
import { layOnBeds } from '../sheets/beds';
import { drawPieces } from '../sheets/drawing';
import { foamDrawings } from '../sheets/foam';
import { layOutCards } from '../sheets/lay-out';
import type { SheetLayout } from '../sheets/layout';
import type { CardOnSheets } from '../sheets/slots';
import { pagesOfPieces } from '../sheets/on-pages';
import { testStrip } from '../sheets/test-strip';
import { FOOT_MM, MARGIN_MM } from './tiles';
import { toFold } from './fold-write';
import { toGlb } from './glb';
import { ExportError } from './export-error';
import { toPdf } from './pdf';
import { toPrint } from './print';
import type { Side } from '../kinds';
import { plateOfBed, plateOfPieces, plateOfSheet, turnedOver, type Plate } from '../sheets/plate';
import { plateFile } from './plate-file';

export const EXPORT_FORMATS = ['svg', 'dxf', 'pdf', 'plt', 'gcode', 'fold', 'glb'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];
export const MIME: Readonly<Record<ExportFormat, string>> = {
  svg: 'image/svg+xml',
  dxf: 'image/vnd.dxf',
  pdf: 'application/pdf',
  plt: 'application/vnd.hp-hpgl',
  gcode: 'text/plain',
  fold: 'application/json',
  glb: 'model/gltf-binary',
};

export interface ExportChoice {
  readonly format: ExportFormat;
  /** One piece only. */
  readonly piece?: string;
  /** One sheet of the layout only, from 0. */
  readonly sheet?: number;
  /** One cutting bed only, with every sheet on it, from 0. */
  readonly bed?: number;
  /** The lines of one pass only. */
  readonly pass?: Pass;
  /** The strip that proves the settings, in place of the card. */
  readonly strip?: boolean;
  /** For a printer: artwork, marks and backs, in place of the lines. PDF only. */
  readonly print?: boolean;
  /** Further cards that share its sheets. */
  readonly with?: readonly Design[];
  /** A PDF on pages of this size, every piece whole where it fits one: by id. */
  readonly page?: string;
  /** What is drawn on the outside, mirrored as it is seen there; else all that is cut, and what is drawn inside. */
  readonly side?: Side;
  /** How the posed model stands; half open unless given. */
  readonly state?: State;
}

export { ExportError } from './export-error';

export async function exportDesign(
  design: Design,
  choice: ExportChoice,
  assembly: Assembly = buildAssembly(design),
): Promise<Uint8Array> {
  const text = (s: string): Uint8Array => new TextEncoder().encode(s);
  if (choice.side === 'outside' && !FLAT_FORMATS.includes(choice.format))
    throw new ExportError(
      `side outside is for drawings, which are written as ${FLAT_FORMATS.join(', ')}, not ${choice.format}`,
    );
  if (choice.format === 'glb') {
    checkPiece(
      assembly.pieces.map((p) => p.id),
      choice.piece,
    );
    const shown = choice.piece
      ? { ...assembly, pieces: assembly.pieces.filter((p) => p.id === choice.piece) }
      : assembly;
    return toGlb(design, shown, poseAt(assembly, choice.state ?? openTo(90)));
  }
  if (choice.format === 'fold') {
    const piece = choice.piece ? assembly.pieces.find((p) => p.id === choice.piece) : assembly.pieces[0];
    checkPiece(
      assembly.pieces.map((p) => p.id),
      choice.piece,
    );
    return text(toFold(assembly, piece!, design.name));
  }
  if (choice.print) {
    if (choice.format !== 'pdf') throw new ExportError(`pages to print are written as pdf, not ${choice.format}`);
    return toPrint(design, assembly);
  }
  const plates = choice.side === 'outside' ? outsideOf(design, assembly, choice) : platesOf(design, assembly, choice);
  const worked = choice.pass ? ofPass(plates, choice.pass) : plates;
  if (choice.format === 'pdf') return toPdf(worked, pageOf(design, choice));
  return plateFile(worked[0], choice.format, design.machine ?? null);
}

function ofPass(plates: readonly Plate[], pass: Pass): Plate[] {
  const worked = plates.map((p) => onlyPass(p, pass)).filter((p) => p.items.length > 0);
  if (worked.length === 0) throw new ExportError(`nothing is worked in the pass ${pass} (${PASS_WORDS[pass]})`);
  return worked;
}

/** The page that was asked for, or the sheet of the card. */
export function pageOf(design: Design, { page }: Pick<ExportChoice, 'page'>): FlatSize {
  const size = page === undefined ? sheetOf(stockOf(design, design.card.stock)) : sheetById(page);
  if (size) return size;
  throw new ExportError(`page "${page}" is not known; pages are ${SHEETS.map((s) => s.id).join(', ')}`);
}

/** Formats that hold drawings. */
const FLAT_FORMATS: readonly ExportFormat[] = ['svg', 'dxf', 'pdf'];

function outsideOf(design: Design, assembly: Assembly, choice: ExportChoice): Plate[] {
  const plates = platesOf(design, assembly, choice)
    .map(turnedOver)
    .filter((p) => p.items.length > 0);
  if (plates.length === 0) throw new ExportError('nothing is drawn on the outside of what was asked for');
  return plates;
}

function platesOf(design: Design, assembly: Assembly, choice: ExportChoice): Plate[] {
  const { piece, sheet, bed, strip, format, page } = choice;
  if (strip) return [plateOfPieces(`${design.name}, test strip`, testStrip(design.card.stock))];
  if (bed !== undefined) return [bedPlate(design, sharing(design, assembly, choice), bed)];
  const whole = piece === undefined && format === 'pdf';
  if (whole && page !== undefined)
    return pagesOfPieces(design, assembly, pageOf(design, choice), { sideMm: MARGIN_MM, footMm: FOOT_MM });
  if (sheet !== undefined || whole) return sheetPlates(sharing(design, assembly, choice), sheet);
  const paper = drawPieces(design, assembly);
  const all = [...paper, ...foamDrawings(design, assembly)];
  checkPiece(
    all.map((d) => d.id),
    piece,
  );
  // Foam is cut from something else: it is on sheets of its own, and written by itself.
  const chosen = piece ? all.filter((d) => d.id === piece) : paper;
  return [plateOfPieces(piece ? `${design.name}, ${piece}` : design.name, chosen)];
}

/** Every sheet, or one of them. */
export function sheetPlates(cards: readonly CardOnSheets[], only?: number): Plate[] {
  const { sheets } = layOutCards(cards);
  const name = cards.map((c) => c.design.name).join(' + ');
  if (only !== undefined && !sheets[only])
    throw new ExportError(`sheet ${only + 1} is not in the layout; it has ${sheets.length}`);
  const title = (s: SheetLayout, k: number): string => `${name}, sheet ${k + 1} of ${sheets.length}, ${s.stock.name}`;
  return sheets.flatMap((s, k) => (only === undefined || k === only ? [plateOfSheet(title(s, k), s)] : []));
}

/** The card, and those that share its sheets. */
const sharing = (design: Design, assembly: Assembly, { with: guests = [] }: ExportChoice): CardOnSheets[] => [
  { design, assembly },
  ...guests.map((guest) => ({ design: guest, assembly: buildAssembly(guest) })),
];

function bedPlate(design: Design, cards: readonly CardOnSheets[], index: number): Plate {
  const { bed } = design.sheets;
  if (!bed) throw new ExportError('the card has no cutting bed; give it one in Sheets');
  const { beds } = layOnBeds(layOutCards(cards), bed);
  if (!beds[index]) throw new ExportError(`bed ${index + 1} is not in the layout; it has ${beds.length}`);
  return plateOfBed(`${design.name}, bed ${index + 1} of ${beds.length}`, beds[index]);
}

function checkPiece(known: readonly string[], piece: string | undefined): void {
  if (piece !== undefined && !known.includes(piece))
    throw new ExportError(`piece "${piece}" is not in the design; pieces are ${known.slice(0, 20).join(', ')}`);
}
