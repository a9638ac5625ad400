/** Against closed forms: the foot of the perpendicular, circles that cross, and what has no answer. */
import fc from 'fast-check';
import type { Span } from './direct';
import { straightTo } from './straight';

const wide: Span[] = [
  { from: -50, to: 50 },
  { from: -50, to: 50 },
];

test('of all places that meet one linear want it goes to the nearest: the foot of the perpendicular', () => {
  const slope = fc.double({ min: 0.5, max: 3, noNaN: true });
  const place = fc.double({ min: -8, max: 8, noNaN: true });
  fc.assert(
    fc.property(slope, slope, place, place, place, (a, b, c, x, y) => {
      const [fx, fy] = straightTo(wide, ([u, v]) => [a * u + b * v - c], [x, y]);
      const off = (a * x + b * y - c) / (a * a + b * b);
      expect(fx).toBeCloseTo(x - off * a, 4);
      expect(fy).toBeCloseTo(y - off * b, 4);
    }),
  );
});

test('two wants that bend: where two circles cross', () => {
  const circle = (cx: number, r: number) => (p: readonly number[]) => Math.hypot(p[0] - cx, p[1]) - r;
  const [one, two] = [circle(0, 5), circle(6, 5)];
  const [x, y] = straightTo(wide, (p) => [one(p), two(p)], [2, 3]);
  expect(x).toBeCloseTo(3, 5);
  expect(y).toBeCloseTo(4, 5);
});

test('a number that has no hand in it stays, and so does a want that is met', () => {
  expect(straightTo(wide, ([x]) => [x - 7], [1, 2])[1]).toBe(2);
  expect(straightTo(wide, ([x]) => [0 * x, 0], [1, 2])).toEqual([1, 2]);
});

test('it stays in the spans, at their end where the want lies beyond', () => {
  expect(straightTo(wide, ([x]) => [x - 900], [1, 2])).toEqual([50, 2]);
});

test('where the card cannot be put together, or nothing is gained, it is left where it was', () => {
  const start = [1, 2];
  expect(straightTo(wide, () => null, start)).toBe(start);
  expect(straightTo(wide, (p) => (p === start ? [5] : null), start)).toBe(start);
  expect(straightTo(wide, () => [5], start)).toBe(start);
  expect(straightTo(wide, ([x]) => [5 + Math.abs(x - 1)], start)).toBe(start);
});
