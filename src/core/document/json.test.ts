/** Values of any depth are looked at without calling oneself: rings, deep ones, and parts that are shared. */
import { isTooDeep } from './json';

const nested = (levels: number): unknown => Array.from({ length: levels - 1 }).reduce<unknown>((inner) => [inner], []);

test('32 levels are a design, 33 are none', () => {
  expect([isTooDeep(nested(32)), isTooDeep(nested(33))]).toEqual([false, true]);
});

test('a ring, and 100,000 levels, are told at once', () => {
  const ring: unknown[] = [];
  ring.push({ ring });
  expect(isTooDeep(ring)).toBe(true);
  expect(isTooDeep(nested(100_000))).toBe(true);
});

test('parts that are shared are looked at once a level, not once a way', () => {
  // 2^30 ways lead to the innermost.
  let shared: unknown = {};
  for (let k = 0; k < 30; k++) shared = { a: shared, b: shared };
  expect(isTooDeep(shared)).toBe(false);
});
