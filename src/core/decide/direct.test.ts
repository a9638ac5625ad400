/**
 * DIRECT against the test functions of global optimisation (Dixon, Szegö 1978; lowest values as they are tabled there
 * and since), and against the numbers of evaluations that Jones, Perttunen, Stuckman 1993 report for it (table 3; from
 * memory).
 */
import fc from 'fast-check';
import { lowestIn, type Span } from './direct';

type At = (x: readonly number[]) => number;
const cube = (n: number, from: number, to: number): Span[] => Array.from({ length: n }, () => ({ from, to }));

const branin: At = ([x, y]) =>
  (y - (5.1 / (4 * Math.PI ** 2)) * x * x + (5 / Math.PI) * x - 6) ** 2 +
  10 * (1 - 1 / (8 * Math.PI)) * Math.cos(x) +
  10;
const goldsteinPrice: At = ([x, y]) =>
  (1 + (x + y + 1) ** 2 * (19 - 14 * x + 3 * x * x - 14 * y + 6 * x * y + 3 * y * y)) *
  (30 + (2 * x - 3 * y) ** 2 * (18 - 32 * x + 12 * x * x + 48 * y - 36 * x * y + 27 * y * y));
const camel: At = ([x, y]) => (4 - 2.1 * x * x + x ** 4 / 3) * x * x + x * y + (4 * y * y - 4) * y * y;

const weighed = (rows: readonly (readonly number[])[], at: readonly (readonly number[])[]): At => {
  const heights = [1, 1.2, 3, 3.2];
  return (x) =>
    -rows.reduce(
      (sum, row, i) => sum + heights[i] * Math.exp(-row.reduce((s, w, j) => s + w * (x[j] - at[i][j]) ** 2, 0)),
      0,
    );
};
const hartman3 = weighed(
  [
    [3, 10, 30],
    [0.1, 10, 35],
    [3, 10, 30],
    [0.1, 10, 35],
  ],
  [
    [0.3689, 0.117, 0.2673],
    [0.4699, 0.4387, 0.747],
    [0.1091, 0.8732, 0.5547],
    [0.03815, 0.5743, 0.8828],
  ],
);
const hartman6 = weighed(
  [
    [10, 3, 17, 3.5, 1.7, 8],
    [0.05, 10, 17, 0.1, 8, 14],
    [3, 3.5, 1.7, 10, 17, 8],
    [17, 8, 0.05, 10, 0.1, 14],
  ],
  [
    [0.1312, 0.1696, 0.5569, 0.0124, 0.8283, 0.5886],
    [0.2329, 0.4135, 0.8307, 0.3736, 0.1004, 0.9991],
    [0.2348, 0.1451, 0.3522, 0.2883, 0.3047, 0.665],
    [0.4047, 0.8828, 0.8732, 0.5743, 0.1091, 0.0381],
  ],
);
const shekel5: At = (x) =>
  -[
    [4, 4, 4, 4, 0.1],
    [1, 1, 1, 1, 0.2],
    [8, 8, 8, 8, 0.2],
    [6, 6, 6, 6, 0.4],
    [3, 7, 3, 7, 0.4],
  ].reduce(
    (sum, [a, b, c, d, width]) => sum + 1 / (width + [a, b, c, d].reduce((s, v, k) => s + (x[k] - v) ** 2, 0)),
    0,
  );

test.each<[string, Span[], At, number, number]>([
  [
    'Branin',
    [
      { from: -5, to: 10 },
      { from: 0, to: 15 },
    ],
    branin,
    0.397887,
    195,
  ],
  ['Goldstein and Price', cube(2, -2, 2), goldsteinPrice, 3, 191],
  [
    'six-hump camel',
    [
      { from: -3, to: 3 },
      { from: -2, to: 2 },
    ],
    camel,
    -1.0316285,
    285,
  ],
  ['Hartman, three numbers', cube(3, 0, 1), hartman3, -3.86278, 199],
  ['Hartman, six numbers', cube(6, 0, 1), hartman6, -3.32237, 571],
  ['Shekel, five wells', cube(4, 0, 10), shekel5, -10.1532, 155],
])('%s: within a ten-thousandth in no more trials than are reported', (_, spans, at, least, trials) => {
  const { cost } = lowestIn(spans, at, { trials, enough: least + 1e-4 * Math.abs(least) });
  expect(cost).toBeLessThanOrEqual(least + 1e-4 * Math.abs(least));
  expect(cost).toBeGreaterThan(least - 1e-4);
});

test('a parabola of any size and place: found within a hundredth, in the trials allowed', () => {
  const number = fc.double({ min: 0.05, max: 0.95, noNaN: true });
  fc.assert(
    fc.property(fc.array(number, { minLength: 1, maxLength: 4 }), fc.integer({ min: -6, max: 9 }), (at, power) => {
      let asked = 0;
      const { values } = lowestIn(
        cube(at.length, 0, 1),
        (x) => {
          asked++;
          return 10 ** power * x.reduce((s, v, k) => s + (v - at[k]) ** 2, 1);
        },
        { trials: 250 * at.length },
      );
      expect(asked).toBeLessThanOrEqual(250 * at.length);
      values.forEach((v, k) => expect(Math.abs(v - at[k])).toBeLessThan(0.01));
    }),
    { numRuns: 60 },
  );
});

test.each([1, 2, 3, 5])('a plain of %d numbers has an end, and its lowest place is the middle', (n) => {
  let asked = 0;
  const { values } = lowestIn(cube(n, -1, 1), () => (asked++, 1e7), { trials: 100 });
  expect(values).toEqual(new Array(n).fill(0));
  expect(asked).toBe(99);
});

test('every trial lies in the box, and none is asked twice', () => {
  const seen: string[] = [];
  const spans = [
    { from: 3, to: 4 },
    { from: -20, to: 5 },
    { from: 1, to: 1.5 },
  ];
  lowestIn(
    spans,
    (x) => {
      x.forEach((v, k) => expect(v > spans[k].from && v < spans[k].to).toBe(true));
      seen.push(x.join());
      return Math.sin(9 * x[0]) + x[1] ** 2 * x[2];
    },
    { trials: 400 },
  );
  expect(new Set(seen).size).toBe(seen.length);
  expect(seen.length).toBe(399);
});

test('the first that is good enough ends it; without a span there is nothing to search', () => {
  let asked = 0;
  const away: At = ([x]) => (asked++, Math.abs(x - 0.2));
  expect(lowestIn(cube(1, 0, 1), away, { trials: 500, enough: 0.05 }).cost).toBeLessThanOrEqual(0.05);
  expect(asked).toBeLessThan(20);
  expect(() => lowestIn([], () => 0, { trials: 5 })).toThrow(RangeError);
});
