/** Curves go out as curves and are read back by other people's readers: within 0.01 mm of what was drawn. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import interpolate from 'b-spline';
import DxfParser from 'dxf-parser';
import { SVGPathData } from 'svg-pathdata';
import { buildAssembly } from '../build/build';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { drawPieces } from '../sheets/drawing';
import { card, stand } from '../tests/cards';
import { exportDesign, type ExportFormat } from './export';

const SHAPES = {
  curves: { path: 'M-30 0C-60 -50 10 -90 30 -40S60 -10 20 0Z' },
  oval: { path: 'M-35 0A40 26 0 0 1 35 0Z' },
  // A quarter of a circle of 80 mm as one cubic would be 0.02 mm off.
  disc: { path: 'M-50 0A80 80 0 0 1 50 0Z' },
};
const design = (shape: { path: string }) => stand(card(180, 120), 'strut-figure', { shape, depth: 25 });

/** Points of a cubic Bézier curve by its Bernstein polynomials, first point left out. */
const along = (c: readonly Vec2[]): Vec2[] =>
  Array.from({ length: 50 }, (_, k): Vec2 => {
    const [t, u] = [(k + 1) / 50, 1 - (k + 1) / 50];
    const w = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    return [0, 1].map((i) => w.reduce((sum, wk, j) => sum + wk * c[j][i], 0)) as unknown as Vec2;
  });

type Read = { readonly points: Vec2[]; readonly curves: number };

function svgCurves(file: string): Read {
  const height = Number(/viewBox="0 0 \S+ (\S+)"/.exec(file)![1]);
  const points: Vec2[] = [];
  let curves = 0;
  for (const [, d] of file.matchAll(/<path d="([^"]*)"/g)) {
    let from: Vec2 = [0, 0];
    // Arcs are turned into cubics by the library, within 1e-4 of their radius at the turns used here.
    for (const c of new SVGPathData(d).toAbs().aToC().commands) {
      if (c.type === SVGPathData.CLOSE_PATH || !('x' in c) || !('y' in c)) continue;
      const to: Vec2 = [c.x, height - c.y];
      if (c.type === SVGPathData.CURVE_TO) {
        curves++;
        points.push(...along([from, [c.x1, height - c.y1], [c.x2, height - c.y2], to]));
      }
      from = to;
    }
  }
  return { points, curves };
}

function dxfCurves(file: string): Read {
  const points: Vec2[] = [];
  let curves = 0;
  for (const e of new DxfParser().parseSync(file)!.entities) {
    const s = e as unknown as { controlPoints?: { x: number; y: number }[]; knotValues: number[] };
    if (!s.controlPoints) continue;
    curves++;
    const control = s.controlPoints.map((p) => [p.x, p.y]);
    const parts = 20 * control.length;
    for (let k = 0; k <= parts; k++) points.push(interpolate(k / parts, 3, control, s.knotValues) as unknown as Vec2);
  }
  return { points, curves };
}

function pdfCurves(file: Uint8Array): Read {
  const path = join(mkdtempSync(join(tmpdir(), 'curves-')), 'a.pdf');
  writeFileSync(path, file);
  const [page] = JSON.parse(
    execFileSync('node', [join(process.cwd(), 'src/core/tests/read-pdf.mjs'), path], { encoding: 'utf8' }),
  ) as { curves: number[][]; height: number }[];
  const points = page.curves.flatMap((c) => along([0, 2, 4, 6].map((i): Vec2 => [c[i], c[i + 1]])));
  return { points, curves: page.curves.length };
}

/** Least distance of each point to the lines drawn, in one frame. */
function farthest(points: readonly Vec2[], lines: readonly { points: readonly Vec2[]; closed: boolean }[]): number {
  return Math.max(
    ...points.map((p) =>
      Math.min(
        ...lines.flatMap((l) =>
          (l.closed ? [...l.points, l.points[0]] : l.points).slice(1).map((q, i) => distToSegment(p, l.points[i], q)),
        ),
      ),
    ),
  );
}

describe.each(Object.entries(SHAPES))('%s', (_, shape) => {
  const d = design(shape);
  const [drawing] = drawPieces(d, buildAssembly(d));
  const write = (format: ExportFormat) => exportDesign(d, { format, piece: 'card' });
  /** The plate puts the piece 10 mm in from its lower left corner. */
  const shifted = (read: Read, dx: number, dy: number): Vec2[] =>
    read.points.map(([x, y]): Vec2 => [x - dx + drawing.box.min[0], y - dy + drawing.box.min[1]]);
  test('SVG', async () => {
    const read = svgCurves(new TextDecoder().decode(await write('svg')));
    expect(read.curves).toBeGreaterThan(0);
    expect(farthest(shifted(read, 10, 10), drawing.lines)).toBeLessThan(0.014);
  });
  test('DXF', async () => {
    const read = dxfCurves(new TextDecoder().decode(await write('dxf')));
    // A disc is drawn with bulges, which no reader has to fit.
    expect(read.curves > 0).toBe(shape !== SHAPES.disc);
    if (read.curves) expect(farthest(shifted(read, 10, 10), drawing.lines)).toBeLessThan(0.014);
  });
  test('PDF', async () => {
    const read = pdfCurves(await write('pdf'));
    expect(read.curves).toBeGreaterThan(0);
    // The page adds a margin: found from the least coordinates, which the SVG has too.
    const svg = shifted(svgCurves(new TextDecoder().decode(await write('svg'))), 10, 10);
    const [dx, dy] = [0, 1].map((i) => {
      const least = (points: readonly Vec2[]): number => Math.min(...points.map((p) => p[i]));
      return least(read.points) - least(svg) + drawing.box.min[i];
    });
    expect(farthest(shifted(read, dx, dy), drawing.lines)).toBeLessThan(0.014);
  });
});
