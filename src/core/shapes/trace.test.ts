/** Tracing against pictures made here of shapes of known size. */
import fc from 'fast-check';
import { regionArea, regionBox } from '../plane/polygon';
import { darkness, fairThreshold, traceShape, type Raster, type TraceWishes } from './trace';

/** A picture whose darkness at a place is the share of a pixel that lies inside, by 4 x 4 samples. */
function picture(width: number, height: number, inside: (x: number, y: number) => boolean): Raster {
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      let n = 0;
      for (let a = 0; a < 4; a++) for (let b = 0; b < 4; b++) if (inside(i + (a + 0.5) / 4, j + (b + 0.5) / 4)) n++;
      const v = Math.round(255 * (1 - n / 16));
      rgba.set([v, v, v, 255], 4 * (j * width + i));
    }
  }
  return { width, height, rgba };
}
const disc = (r: number, hole = 0) =>
  picture(140, 140, (x, y) => {
    const d = Math.hypot(x - 70, y - 70);
    return d < r && d >= hole;
  });
const wishes = (heightMm: number, change: Partial<TraceWishes> = {}): TraceWishes => ({
  threshold: 0.5,
  smoothing: 0,
  specks: 4,
  inverted: false,
  keepHoles: true,
  heightMm,
  ...change,
});

test('discs of known size: the height exact, width and area within what half a pixel of the picture makes', () => {
  fc.assert(
    fc.property(fc.double({ min: 20, max: 60, noNaN: true }), (r) => {
      const region = traceShape(disc(r), wishes(50));
      expect(region).toHaveLength(1);
      const { min, max } = regionBox(region);
      expect(max[1] - min[1]).toBeCloseTo(50, 6);
      expect(min[1]).toBeCloseTo(0, 6);
      const halfPixel = 0.5 / (2 * r);
      expect(Math.abs((max[0] - min[0]) / 50 - 1)).toBeLessThan(halfPixel);
      expect(Math.abs(regionArea(region) / (Math.PI * 625) - 1)).toBeLessThan(2 * halfPixel);
      // 21.04: its topmost point is thinned away, and the height must hold all the same.
    }),
    { numRuns: 12, examples: [[21.039397567420984]] },
  );
});
test("a square of known size keeps its area; its pixels' corners are cut by half a pixel at most", () => {
  const region = traceShape(
    picture(120, 120, (x, y) => x > 20 && x < 100 && y > 20 && y < 100),
    wishes(40),
  );
  expect(Math.abs(regionArea(region) / 1600 - 1)).toBeLessThan(0.002);
});
test('holes are kept or filled, specks left out, light and dark exchanged', () => {
  const ring = disc(50, 25);
  expect(Math.abs(regionArea(traceShape(ring, wishes(100))) / (Math.PI * (2500 - 625)) - 1)).toBeLessThan(0.01);
  expect(Math.abs(regionArea(traceShape(ring, wishes(100, { keepHoles: false }))) / (Math.PI * 2500) - 1)).toBeLessThan(
    0.01,
  );
  const spotted = picture(140, 140, (x, y) => Math.hypot(x - 70, y - 70) < 40 || Math.hypot(x - 10, y - 10) < 3);
  expect(traceShape(spotted, wishes(50, { specks: 60 }))).toHaveLength(1);
  expect(traceShape(spotted, wishes(50, { specks: 1 }))).toHaveLength(2);
  const light = traceShape(ring, wishes(25, { inverted: true, specks: 0 }));
  expect(light.length).toBeGreaterThan(1);
});
test(
  'a picture of whole pixels is smoothed to the curve it shows: the way round a disc is 2πr, not ' +
    'that of its steps',
  () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 65 }), fc.double({ min: -0.5, max: 0.5, noNaN: true }), (r, shift) => {
        const steps: Raster = {
          width: 140,
          height: 140,
          rgba: new Uint8ClampedArray(4 * 140 * 140).map((_, k) =>
            k % 4 === 3
              ? 255
              : Math.hypot(((k >> 2) % 140) + 0.5 - 70 - shift, Math.floor((k >> 2) / 140) + 0.5 - 70) < r
                ? 0
                : 255,
          ),
        };
        const way = (smoothing: number): number => {
          const [{ outer }] = traceShape(steps, wishes(100, { smoothing }));
          return (
            outer.reduce(
              (s, [x, y], i) =>
                s + Math.hypot(x - outer[(i + 1) % outer.length][0], y - outer[(i + 1) % outer.length][1]),
              0,
            ) /
            (100 * Math.PI)
          );
        };
        // A staircase is longer than its curve, by up to 4 / π.
        expect(way(0)).toBeGreaterThan(1.03);
        expect(Math.abs(way(1.5) - 1)).toBeLessThan(0.01);
      }),
      { numRuns: 12 },
    );
  },
);
test('smoothing rounds corners and keeps the size', () => {
  const square = picture(120, 120, (x, y) => x > 20 && x < 100 && y > 20 && y < 100);
  const [rough, smooth] = [0, 4].map((smoothing) => traceShape(square, wishes(40, { smoothing })));
  expect(regionArea(smooth)).toBeLessThan(regionArea(rough));
  expect(regionArea(smooth)).toBeGreaterThan(0.95 * regionArea(rough));
});
test('the threshold offered parts the two greys of a picture (Otsu 1979)', () => {
  const grey: Raster = {
    width: 40,
    height: 40,
    rgba: new Uint8ClampedArray(6400).map((_, i) => (i % 4 === 3 ? 255 : (i >> 2) % 40 < 20 ? 60 : 190)),
  };
  const t = fairThreshold(grey);
  // Half way between the two, where it is furthest from both.
  expect(t).toBeCloseTo((1 - 190 / 255 + (1 - 60 / 255)) / 2, 2);
  // What is see-through counts as white.
  expect(darkness({ width: 1, height: 1, rgba: Uint8ClampedArray.of(0, 0, 0, 0) })[0]).toBe(0);
});
test('nothing to trace, and too much, are said', () => {
  expect(() =>
    traceShape(
      picture(20, 20, () => false),
      wishes(10),
    ),
  ).toThrow(/nothing is left/);
  expect(() => traceShape({ width: 3000, height: 3000, rgba: new Uint8ClampedArray(0) }, wishes(10))).toThrow(
    /million pixels/,
  );
});
