/** Pieces packed by their boxes with a general package (maxrects-packer): what nesting has to beat. */
import { MaxRectsPacker } from 'maxrects-packer';
import type { Assembly } from '../assembly/assembly';
import { marginOf, type Design } from '../document/design';
import { pieceSize } from '../rules';
import type { Drawing } from '../sheets/drawing';
import { batchesOf, type Batch } from '../sheets/slots';

export interface PackedSheet {
  readonly stock: string;
  readonly colour: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** What the boxes reach to, margins and all, mm. */
  readonly rightMm: number;
  readonly topMm: number;
}

/** Whole sheets of every stock and colour. */
export const packBoxes = (design: Design, assembly: Assembly): PackedSheet[] =>
  batchesOf([{ design, assembly }]).flatMap((batch) => packBatch(design, assembly, batch));

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

function packBatch(design: Design, assembly: Assembly, { stock, colour, drawings, whole }: Batch) {
  const { widthMm, heightMm } = whole(1);
  const { spacingMm } = design.sheets;
  const marginMm = marginOf(design, stock);
  const [width, height] = [widthMm - 2 * marginMm, heightMm - 2 * marginMm];
  // One spacing more than the room: the last piece in a row needs none beside it.
  const allowRotation = stock.grain === 'none';
  const packer = new MaxRectsPacker<Box>(width + spacingMm, height + spacingMm, 0, {
    smart: false,
    pot: false,
    square: false,
    allowRotation,
    border: 0,
  });
  const boxes = drawings.flatMap((drawing) => {
    const { min, max } = drawing.box;
    const size: [number, number] = [max[0] - min[0], max[1] - min[1]];
    const across = wantsTurn(drawing, assembly, stock.grain);
    const [w, h] =
      [size, [...size].reverse()].find(([w, h], k) => (across ? k === 1 : k === 0) && w <= width && h <= height) ??
      (across ? size : [...size].reverse());
    return Array.from({ length: drawing.count }, (): Box => ({
      x: 0,
      y: 0,
      width: w + spacingMm,
      height: h + spacingMm,
    }));
  });
  packer.addArray(boxes.sort((a, b) => b.width * b.height - a.width * a.height));
  return packer.bins.map(({ rects }): PackedSheet => ({
    stock: stock.id,
    colour,
    widthMm,
    heightMm,
    rightMm: marginMm + Math.max(...rects.map((r) => r.x + r.width)) - spacingMm,
    topMm: marginMm + Math.max(...rects.map((r) => r.y + r.height)) - spacingMm,
  }));
}

function wantsTurn(drawing: Drawing, assembly: Assembly, grain: 'long' | 'short' | 'none'): boolean {
  const piece = assembly.pieces.find((p) => p.id === drawing.id);
  return grain !== 'none' && (grain === 'long') !== (piece ? pieceSize(piece).creaseAlongX : true);
}
