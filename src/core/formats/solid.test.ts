import fc from 'fast-check';
import { poseOpen } from '../assembly/pose';
import { polygonArea } from '../plane/polygon';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { blankDesign } from '../document/design';
import { drawPieces } from '../sheets/drawing';
import { sheetById } from '../paper/sizes';
import { plateOfPieces, type Plate } from '../sheets/plate';
import { tilesOf } from './tiles';
import { posedSlab, triangulate } from './solid';

const design = addMechanism(
  addMechanism(blankDesign('x', 180, 120), 'step-fold', 'card.gutter', { depth: 30, height: 20, width: 60 }).design,
  'v-fold',
  'card.gutter',
  { offset: 50, size: 30 },
).design;
const assembly = buildAssembly(design);

type Corner = [number, number, number];
const triangles = (flat: Float32Array): [Corner, Corner, Corner][] =>
  Array.from(
    { length: flat.length / 9 },
    (_, k) =>
      [0, 3, 6].map((c) => [flat[9 * k + c], flat[9 * k + c + 1], flat[9 * k + c + 2]] as Corner) as [
        Corner,
        Corner,
        Corner,
      ],
  );
const signedVolume = (list: [Corner, Corner, Corner][]): number =>
  list.reduce(
    (sum, [a, b, c]) =>
      sum +
      (a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0])) /
        6,
    0,
  );

test('triangles of a polygon with a hole fill it and no more', () => {
  const outer = [
    [0, 0],
    [30, 0],
    [30, 20],
    [0, 20],
  ] as const;
  const hole = [
    [10, 5],
    [10, 15],
    [20, 15],
    [20, 5],
  ] as const;
  const corners = triangulate([outer, hole]);
  let area = 0;
  for (let k = 0; k < corners.length; k += 3) {
    const [a, b, c] = [corners[k], corners[k + 1], corners[k + 2]];
    area += Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
  }
  expect(area).toBeCloseTo(polygonArea({ outer, holes: [hole] }), 9);
});

test('the slab of every facet is closed and holds area times caliper (divergence theorem)', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 180 }), (open) => {
      const pose = poseOpen(assembly, open);
      assembly.facets.forEach((facet, i) => {
        const slab = posedSlab(assembly.facets, pose, i, 0.5);
        const volume = signedVolume([...triangles(slab.inside), ...triangles(slab.outside), ...triangles(slab.edge)]);
        expect(Math.abs(volume)).toBeCloseTo(polygonArea(facet.polygon) * 0.5, 0);
      });
    }),
    { numRuns: 8 },
  );
});

describe('tiles of a plate over pages', () => {
  const plate = (widthMm: number, heightMm: number): Plate => ({ title: 'x', widthMm, heightMm, items: [] });
  const side = fc.integer({ min: 20, max: 1500 });

  test('cover all of it', () => {
    fc.assert(
      fc.property(side, side, fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 }), (w, h, px, py) => {
        const tiles = tilesOf(plate(w, h), sheetById('A4')!);
        const [x, y] = [(w * px) / 100, (h * py) / 100];
        expect(
          tiles.some(
            (t) => x >= t.x - 1e-6 && x <= t.x + t.widthMm + 1e-6 && y >= t.y - 1e-6 && y <= t.y + t.heightMm + 1e-6,
          ),
        ).toBe(true);
      }),
    );
  });

  test('lie inside their page, and use one page where one is enough', () => {
    fc.assert(
      fc.property(side, side, (w, h) => {
        for (const t of tilesOf(plate(w, h), sheetById('A4')!)) {
          expect(t.widthMm).toBeLessThanOrEqual(t.pageWidthMm - 20 + 1e-6);
          expect(t.heightMm).toBeLessThanOrEqual(t.pageHeightMm - 28 + 1e-6);
        }
      }),
    );
    expect(tilesOf(plate(277, 180), sheetById('A4')!)).toHaveLength(1);
    expect(tilesOf(plate(180, 260), sheetById('A4')!)).toHaveLength(1);
    expect(tilesOf(plate(300, 180), sheetById('A4')!)).toHaveLength(2);
  });
});

test('pieces on a plate keep their size and do not overlap', () => {
  const drawings = drawPieces(design, assembly);
  const { items, widthMm, heightMm } = plateOfPieces('x', drawings);
  let top = 0;
  for (const { drawing, place } of items) {
    const [low, high] = [place(drawing.box.min), place(drawing.box.max)];
    expect(high[0] - low[0]).toBeCloseTo(drawing.box.max[0] - drawing.box.min[0], 9);
    expect(low[1]).toBeGreaterThan(top);
    top = high[1];
    expect(high[0]).toBeLessThan(widthMm);
  }
  expect(top).toBeLessThan(heightMm);
});
