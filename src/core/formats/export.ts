/** One door for every export: a design to bytes. Shared by the command line, the route handlers and the Make stage. */
import { openTo, type State } from '../drives';
import { poseAt } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { sheetById } from '../paper/sizes';
import { buildAssembly } from '../build/build';
import { stockOf, type Design } from '../document/design';
import { drawPieces } from '../sheets/drawing';
import { foamDrawings } from '../sheets/foam';
import { layOut } from '../sheets/pack';
import { toDxf } from './dxf';
import { toFold } from './fold-write';
import { toGcode } from './gcode';
import { toGlb } from './glb';
import { toHpgl } from './hpgl';
import { toPdf } from './pdf';
import type { Side } from '../kinds';
import { plateOfPieces, plateOfSheet, turnedOver, type Plate } from './plate';
import { toSvg } from './svg';

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
  /** What is drawn on the outside, mirrored as it is seen there; else all that is cut, and what is drawn inside. */
  readonly side?: Side;
  /** How the posed model stands; half open unless given. */
  readonly state?: State;
}

/** Thrown when the choice names what is not there. */
export class ExportError extends Error {}

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
  const plates = choice.side === 'outside' ? outsideOf(design, assembly, choice) : platesOf(design, assembly, choice);
  if (choice.format === 'svg') return text(toSvg(plates[0]));
  if (choice.format === 'dxf') return text(toDxf(plates[0]));
  if (choice.format === 'plt') return text(toHpgl(plates[0]));
  if (choice.format === 'gcode') return text(toGcode(plates[0]));
  return toPdf(plates, sheetById(stockOf(design, design.card.stock).sheet)!);
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

function platesOf(design: Design, assembly: Assembly, { piece, sheet }: ExportChoice): Plate[] {
  if (sheet !== undefined) {
    const { sheets } = layOut(design, assembly);
    if (!sheets[sheet]) throw new ExportError(`sheet ${sheet + 1} is not in the layout; it has ${sheets.length}`);
    return [
      plateOfSheet(
        `${design.name}, sheet ${sheet + 1} of ${sheets.length}, ${sheets[sheet].stock.name}`,
        sheets[sheet],
      ),
    ];
  }
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

function checkPiece(known: readonly string[], piece: string | undefined): void {
  if (piece !== undefined && !known.includes(piece))
    throw new ExportError(`piece "${piece}" is not in the design; pieces are ${known.slice(0, 20).join(', ')}`);
}
