/** Sheets for a printer: artwork with its bleed and the marks to register by, in the axes of the cut files; backs. */
import {
  clip,
  closePath,
  concatTransformationMatrix,
  drawObject,
  endPath,
  fill,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  setFillingColor,
  type PDFImage,
  type PDFOperator,
  type PDFPage,
} from 'pdf-lib';
import type { Assembly } from '../assembly/assembly';
import { artOfDrawing, placedArtwork, type PlacedArt } from '../build/artwork';
import type { Backs, Design } from '../document/design';
import { pictureBytes } from '../document/pictures';
import type { Side } from '../kinds';
import { ringsOf, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { layOut } from '../sheets/lay-out';
import { onSheet, type SheetLayout } from '../sheets/layout';
import { MARK_MM, marksOf } from '../sheets/registration';
import { ExportError } from './export-error';
import { beginPdf, checkBar, CHECK_SIZE, colourOf, pt, write, type Paper } from './pdf-draw';

/** A page for each sheet that something is printed on, each back after its front. */
export async function toPrint(design: Design, assembly: Assembly): Promise<Uint8Array> {
  const all = placedArtwork(design, assembly);
  if (all.length === 0) throw new ExportError('nothing is printed on this card; put a picture or words on it in Dress');
  const out = await beginPdf(`${design.name}, to print`);
  const images = await imagesOf(out, design);
  const { marks = false, backs = 'none' } = design.sheets.print ?? {};
  const { sheets } = layOut(design, assembly);
  sheets.forEach((sheet, k) => {
    const title = `${design.name}, sheet ${k + 1} of ${sheets.length}, ${sheet.stock.name}`;
    const front = artOnSheet(all, sheet, 'inside', (p) => p);
    const back = backs === 'none' ? [] : artOnSheet(all, sheet, 'outside', backOf(backs, sheet));
    if (front.length === 0 && back.length === 0) return;
    addPage(out, images, sheet, front, marks ? marksOf(sheet) : [], title);
    const about = `${title}, back: turn about the ${backs} edge`;
    const backMarks = marks ? marksOf(sheet).map(backOf(backs === 'none' ? 'long' : backs, sheet)) : [];
    if (back.length > 0) addPage(out, images, sheet, back, backMarks, about);
  });
  return out.pdf.save();
}

/** Where a point of the front lies when the sheet is turned over about an edge; sheets lie with the long one across. */
export const backOf =
  (backs: Exclude<Backs, 'none'>, { widthMm, heightMm }: Pick<SheetLayout, 'widthMm' | 'heightMm'>) =>
  ([x, y]: Vec2): Vec2 =>
    // The long edge runs across only where the sheet is wider than it is high.
    (backs === 'long') === widthMm >= heightMm ? [x, heightMm - y] : [widthMm - x, y];

interface OnPage {
  readonly art: PlacedArt;
  readonly place: (p: Vec2) => Vec2;
}

const artOnSheet = (all: readonly PlacedArt[], sheet: SheetLayout, side: Side, turn: (p: Vec2) => Vec2): OnPage[] =>
  sheet.placed.flatMap((piece) =>
    artOfDrawing(all, piece.drawing.id, side).map((art) => ({ art, place: (p: Vec2) => turn(onSheet(piece, p)) })),
  );

async function imagesOf({ pdf }: Paper, design: Design): Promise<ReadonlyMap<string, PDFImage>> {
  const out = new Map<string, PDFImage>();
  for (const picture of design.pictures ?? []) {
    const bytes = pictureBytes(picture);
    try {
      out.set(picture.id, await (picture.mime === 'image/png' ? pdf.embedPng(bytes) : pdf.embedJpg(bytes)));
    } catch {
      throw new ExportError(`the picture "${picture.name}" does not read as ${picture.mime}; bring it in again`);
    }
  }
  return out;
}

function addPage(
  { pdf, font }: Paper,
  images: ReadonlyMap<string, PDFImage>,
  { widthMm, heightMm }: SheetLayout,
  arts: readonly OnPage[],
  marks: readonly Vec2[],
  title: string,
): void {
  const page = pdf.addPage([pt(widthMm), pt(heightMm)]);
  for (const { art, place } of arts) drawArt(page, images, art, place);
  for (const [x, y] of marks)
    page.drawCircle({ x: pt(x), y: pt(y), size: pt(MARK_MM / 2), color: colourOf('#000000') });
  // Between the lower marks, in the edge that nothing is laid on.
  const room = Math.max(0, widthMm - 2 * 10 - CHECK_SIZE[0]);
  if (room > 0) checkBar(page, font, title, [10 + Math.min(6, room), 1]);
  else write(page, font, title, [10, 1]);
}

function drawArt(page: PDFPage, images: ReadonlyMap<string, PDFImage>, art: PlacedArt, place: (p: Vec2) => Vec2): void {
  page.pushOperators(pushGraphicsState(), ...outlineOf(art.printed, place), clip(), endPath());
  if ('ink' in art) page.pushOperators(setFillingColor(colourOf(art.colour)), ...outlineOf(art.ink, place), fill());
  else {
    const image = images.get(art.picture)!;
    const { origin, right, up } = art.frame;
    const at = (u: number, v: number): Vec2 =>
      place([origin[0] + u * right[0] + v * up[0], origin[1] + u * right[1] + v * up[1]]);
    const [o, r, u] = [at(0, 0), at(1, 0), at(0, 1)];
    const name = page.node.newXObject('Art', image.ref);
    page.pushOperators(
      concatTransformationMatrix(...([r[0] - o[0], r[1] - o[1], u[0] - o[0], u[1] - o[1], o[0], o[1]].map(pt) as Six)),
      drawObject(name),
    );
  }
  page.pushOperators(popGraphicsState());
}
type Six = [number, number, number, number, number, number];

function outlineOf(region: Region, place: (p: Vec2) => Vec2): PDFOperator[] {
  return region.flatMap(ringsOf).flatMap((ring) => {
    const [first, ...rest] = ring.map(place).map(([x, y]): [number, number] => [pt(x), pt(y)]);
    return [moveTo(...first), ...rest.map((p) => lineTo(...p)), closePath()];
  });
}
