/**
 * PDF at true scale: a page per sheet, tiled over several pages where the sheet is larger, with a 50 mm check bar on
 * each.
 */
import {
  appendBezierCurve,
  clip,
  closePath,
  endPath,
  lineTo,
  moveTo,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  rgb,
  setDashPattern,
  setLineWidth,
  setStrokingColor,
  StandardFonts,
  stroke,
  type PDFFont,
  type PDFOperator,
  type PDFPage,
} from 'pdf-lib';
import type { FlatSize } from '../paper/sizes';
import type { Vec2 } from '../plane/vec2';
import { bezierOf, type Stroke } from '../plane/arcs';
import { boxOf } from '../plane/polygon';
import { ROLE_STYLE, walkPlate, type Plate } from './plate';
import { SIZE_ROUNDING_MM } from '../tolerance';

/** PDF user space: 1/72 in. */
const POINT_PER_MM = 72 / 25.4;
const MARGIN_MM = 10;
/** Neighbouring tiles repeat this much, so that they can be laid over each other. */
const OVERLAP_MM = 10;
const CHECK_MM = 50;
const FOOT_MM = 8;

export async function toPdf(plates: readonly Plate[], paper: FlatSize): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  // No clock in the core: the same design gives the same file.
  pdf.setCreationDate(new Date(0));
  pdf.setModificationDate(new Date(0));
  pdf.setTitle(plates[0]?.title ?? '');
  pdf.setProducer('Rhabdoplex');
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  for (const plate of plates) for (const tile of tilesOf(plate, paper)) drawTile(pdf, font, plate, tile);
  return pdf.save();
}

interface Tile {
  readonly pageWidthMm: number;
  readonly pageHeightMm: number;
  /** Lower left corner of what it shows, in plate axes. */
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly label: string;
}

/** Tiles of a plate, in rows from the top; the page is turned the way that needs fewer. */
export function tilesOf(plate: Plate, paper: FlatSize): Tile[] {
  const layouts = (
    [
      [paper.longMm, paper.shortMm],
      [paper.shortMm, paper.longMm],
    ] as const
  ).map(([pw, ph]) => {
    const [roomX, roomY] = [pw - 2 * MARGIN_MM, ph - 2 * MARGIN_MM - FOOT_MM];
    const count = (size: number, room: number): number =>
      size <= room + SIZE_ROUNDING_MM ? 1 : Math.ceil((size - OVERLAP_MM) / (room - OVERLAP_MM));
    return { pw, ph, roomX, roomY, nx: count(plate.widthMm, roomX), ny: count(plate.heightMm, roomY) };
  });
  const { pw, ph, roomX, roomY, nx, ny } = layouts.reduce((a, b) => (b.nx * b.ny < a.nx * a.ny ? b : a));
  const tiles: Tile[] = [];
  for (let row = 0; row < ny; row++) {
    for (let col = 0; col < nx; col++) {
      const x = col * (roomX - OVERLAP_MM);
      const top = plate.heightMm - row * (roomY - OVERLAP_MM);
      const heightMm = Math.min(roomY, top);
      tiles.push({
        pageWidthMm: pw,
        pageHeightMm: ph,
        x,
        y: top - heightMm,
        widthMm: Math.min(roomX, plate.widthMm - x),
        heightMm,
        label: nx * ny === 1 ? '' : `row ${row + 1} of ${ny}, column ${col + 1} of ${nx}`,
      });
    }
  }
  return tiles;
}

const pt = (mm: number): number => mm * POINT_PER_MM;
const colourOf = (hex: string) =>
  rgb(parseInt(hex.slice(1, 3), 16) / 255, parseInt(hex.slice(3, 5), 16) / 255, parseInt(hex.slice(5, 7), 16) / 255);

function drawTile(pdf: PDFDocument, font: PDFFont, plate: Plate, tile: Tile): void {
  const page = pdf.addPage([pt(tile.pageWidthMm), pt(tile.pageHeightMm)]);
  const base = tile.pageHeightMm - MARGIN_MM - tile.heightMm;
  const place = ([x, y]: Vec2): Vec2 => [MARGIN_MM + x - tile.x, base + y - tile.y];
  const window = { x0: MARGIN_MM, y0: base, x1: MARGIN_MM + tile.widthMm, y1: base + tile.heightMm };
  page.pushOperators(
    pushGraphicsState(),
    rectangle(pt(window.x0), pt(window.y0), pt(tile.widthMm), pt(tile.heightMm)),
    clip(),
    endPath(),
  );
  walkPlate(plate, {
    line(role, { points, closed, strokes }) {
      const { colour, dashMm, weightMm } = ROLE_STYLE[role];
      if (outside(points.map(place), window)) return;
      page.pushOperators(
        setStrokingColor(colourOf(colour)),
        setLineWidth(pt(weightMm)),
        setDashPattern(dashMm.map(pt), 0),
        ...pathOf(points[0], strokes, closed, place),
        stroke(),
      );
    },
    finish: () => undefined,
  });
  page.pushOperators(popGraphicsState());
  if (tile.label) cropMarks(page, window);
  checkBar(page, font, `${winAnsi(plate.title)}${tile.label ? ` - ${tile.label}` : ''}`);
}

interface Window {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}
/** Nothing of a line shows on this page. */
function outside(points: readonly Vec2[], { x0, y0, x1, y1 }: Window): boolean {
  const { min, max } = boxOf(points);
  return max[0] < x0 || min[0] > x1 || max[1] < y0 || min[1] > y1;
}

/** One path, its curves as Bézier curves. */
function pathOf(first: Vec2, strokes: readonly Stroke[], closed: boolean, place: (p: Vec2) => Vec2): PDFOperator[] {
  const at = (p: Vec2): [number, number] => {
    const [x, y] = place(p);
    return [pt(x), pt(y)];
  };
  let from = first;
  const out = [moveTo(...at(from))];
  for (const s of strokes) {
    const closes = closed && s === strokes[strokes.length - 1];
    if (s.kind === 'line' && !closes) out.push(lineTo(...at(s.to)));
    else if (s.kind === 'line') break;
    else for (const [p, q, r] of bezierOf(from, s)) out.push(appendBezierCurve(...at(p), ...at(q), ...at(r)));
    from = s.to;
  }
  return closed ? [...out, closePath()] : out;
}

function cropMarks(page: PDFPage, { x0, y0, x1, y1 }: Window): void {
  for (const [x, y, sx, sy] of [
    [x0, y0, -1, -1],
    [x1, y0, 1, -1],
    [x0, y1, -1, 1],
    [x1, y1, 1, 1],
  ]) {
    page.drawLine({ start: { x: pt(x), y: pt(y + 2 * sy) }, end: { x: pt(x), y: pt(y + 5 * sy) }, thickness: 0.4 });
    page.drawLine({ start: { x: pt(x + 2 * sx), y: pt(y) }, end: { x: pt(x + 5 * sx), y: pt(y) }, thickness: 0.4 });
  }
}

function checkBar(page: PDFPage, font: PDFFont, label: string): void {
  const y = pt(MARGIN_MM);
  const [x0, x1] = [pt(MARGIN_MM), pt(MARGIN_MM + CHECK_MM)];
  page.drawLine({ start: { x: x0, y }, end: { x: x1, y }, thickness: 0.6 });
  for (const x of [x0, x1]) page.drawLine({ start: { x, y: y - 4 }, end: { x, y: y + 4 }, thickness: 0.6 });
  page.drawText(`${CHECK_MM} mm - measure before cutting; print at 100 %`, { x: x1 + 8, y: y - 2.5, size: 7, font });
  page.drawText(label.slice(0, 110), { x: x0, y: y + 8, size: 7, font });
}

/** The standard fonts hold Latin letters only. */
const winAnsi = (text: string): string => text.replace(/[^\x20-\x7e\xa0-\xff]/g, '?');
