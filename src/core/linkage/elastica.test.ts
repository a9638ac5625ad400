/**
 * The bowed strip: the reference table for a pinned strip (classical elastica, in Love's Mathematical Theory of
 * Elasticity; values computed from elliptic integrals by an independent prototype), the bending equation integrated
 * step by step, complete integrals by quadrature, and statics of a strip that comes to rest on what it is glued to.
 */
import fc from 'fast-check';
import { bowed, complete, type Bow } from './elastica';

const FREE = Math.PI;
const deg = (rad: number): number => (rad * 180) / Math.PI;
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** chord, bulge (both over the length), end angle in degrees. */
const TABLE = [
  [0.99, 0.063463, 11.4711],
  [0.95, 0.140111, 25.7586],
  [0.9, 0.194924, 36.6243],
  [0.8, 0.266319, 52.3716],
  [Math.SQRT1_2, 0.311415, 64.0613],
  [0.5, 0.373306, 85.8723],
  [0.3, 0.399731, 104.416],
  [0.1, 0.400416, 122.0176],
  [0, 0.391594, 130.7099],
] as const;

test.each(TABLE)('chord %f of the length: bulge %f, end angle %f', (chord, bulge, end) => {
  const bow = bowed(120, 120 * chord, FREE);
  expect(bow.bulgeMm / 120).toBeCloseTo(bulge, 6);
  expect(deg(bow.endRad)).toBeCloseTo(end, 4);
  expect(bow.liesMm).toBe(0);
});

test('complete integrals are those of a plain quadrature (theorem: midpoint sums of periodic functions)', () => {
  fc.assert(
    fc.property(real(0, 0.99), (k) => {
      const n = 400;
      const phi = Array.from({ length: n }, (_, i) => ((i + 0.5) * Math.PI) / (2 * n));
      const root = phi.map((p) => Math.sqrt(1 - (k * Math.sin(p)) ** 2));
      const { K, E } = complete(k);
      expect(K).toBeCloseTo((root.reduce((s, r) => s + 1 / r, 0) * Math.PI) / (2 * n), 9);
      expect(E).toBeCloseTo((root.reduce((s, r) => s + r, 0) * Math.PI) / (2 * n), 9);
    }),
  );
});

const lengthOf = (bow: Bow, length: number, steps = 4000): number => {
  let sum = 0;
  let [x, y] = bow.at(0);
  for (let k = 1; k <= steps; k++) {
    const [u, v] = bow.at((k * length) / steps);
    sum += Math.hypot(u - x, v - y);
    [x, y] = [u, v];
  }
  return sum;
};

test('it keeps its length, ends on its lines, is mirror symmetric', () => {
  fc.assert(
    fc.property(real(10, 300), real(0, 1), real(91, 180), (length, part, most) => {
      const bow = bowed(length, part * length, (most * Math.PI) / 180);
      expect(lengthOf(bow, length) / length).toBeCloseTo(1, 5);
      const [[x0, y0], [x1, y1]] = [bow.at(0), bow.at(length)];
      expect(x1 - x0).toBeCloseTo(part * length, 6);
      expect(Math.abs(y0) + Math.abs(y1)).toBeLessThan(1e-9 * length);
      const [[p, q], [r, s]] = [bow.at(0.3 * length), bow.at(0.7 * length)];
      expect(p + r).toBeCloseTo(0, 6);
      expect(q - s).toBeCloseTo(0, 6);
      expect(bow.at(length / 2)[1]).toBeCloseTo(bow.bulgeMm, 6);
    }),
    { numRuns: 60 },
  );
});

test('its curvature is proportional to its height over the lines: moment of the force that holds it (statics)', () => {
  const length = 100;
  const bow = bowed(length, 60, FREE);
  const h = 0.01;
  const curvature = (s: number): number => {
    const [[x0, y0], [x1, y1], [x2, y2]] = [bow.at(s - h), bow.at(s), bow.at(s + h)];
    return ((x1 - x0) * (y2 - y1) - (x2 - x1) * (y1 - y0)) / h ** 3;
  };
  const ratio = [10, 25, 40, 50, 66, 88].map((s) => curvature(s) / bow.at(s)[1]);
  for (const r of ratio) expect(r / ratio[0]).toBeCloseTo(1, 4);
});

test('past what it is glued to it comes to rest on that, lies flat, and lifts off without a bend', () => {
  fc.assert(
    fc.property(real(1, 60), real(1, 1.6), (open, long) => {
      const [p, half] = [40, (open * Math.PI) / 360];
      const length = 2 * p * long;
      const most = Math.PI / 2 + half;
      const chord = 2 * p * Math.sin(half);
      const bow = bowed(length, chord, most);
      if (bow.liesMm === 0) return expect(bow.endRad).toBeLessThanOrEqual(most + 1e-12);
      // What is free is a pinned strip of its own between the places where it lifts off.
      const free = bowed(length - 2 * bow.liesMm, 2 * (p + bow.liesMm) * Math.sin(half), FREE);
      expect(free.endRad).toBeCloseTo(most, 6);
      expect(bow.bulgeMm).toBeCloseTo(free.bulgeMm + bow.liesMm * Math.sin(most), 6);
      // Where it lies it runs on along the leaf.
      const [[x0, y0], [x1, y1]] = [bow.at(0), bow.at(bow.liesMm * 0.9)];
      expect(Math.atan2(y1 - y0, x1 - x0)).toBeCloseTo(most, 9);
    }),
    { numRuns: 100 },
  );
});

test('between two leaves that lie on each other it lies folded in its middle; too short it says by how much', () => {
  const shut = bowed(90, 0, Math.PI / 2);
  expect(shut.liesMm).toBeCloseTo(45, 9);
  expect(shut.at(45)[1]).toBeCloseTo(45, 9);
  expect(bowed(80, 80, FREE)).toMatchObject({ bulgeMm: 0, shortMm: 0 });
  expect(bowed(80, 82.5, FREE).shortMm).toBeCloseTo(2.5, 12);
});
