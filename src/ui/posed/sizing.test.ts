import { meant, seenGrips } from './sizing';

const grips = [
  { parameter: 'depth', way: [0, 1, 0] as const },
  { parameter: 'height', way: [0, 0, 1] as const },
  { parameter: 'hidden', way: [1e-4, 0, 0] as const },
];
/** Seen from the end: y to the right, z up, two pixels a mm. */
const seen = ([, y, z]: readonly [number, number, number]) => [2 * y, -2 * z] as const;

test('what is seen to move can be meant, what is not cannot', () =>
  expect(seenGrips([0, 0, 0], grips, seen).map((g) => g.parameter)).toEqual(['depth', 'height']));
test('the way of the pointer says which number is meant, forwards and back', () => {
  const all = seenGrips([0, 5, 5], grips, seen);
  expect(meant(all, [8, 1])?.parameter).toBe('depth');
  expect(meant(all, [-8, 1])?.parameter).toBe('depth');
  expect(meant(all, [1, 9])?.parameter).toBe('height');
  expect(meant(all, [0, 0])).toBeNull();
  expect(meant([], [3, 3])).toBeNull();
});
test('an upward pull makes what stands up greater', () => {
  const up = meant(seenGrips([0, 0, 0], grips, seen), [0, -10])!;
  expect((0 * up.way[0] + -10 * up.way[1]) / (up.way[0] ** 2 + up.way[1] ** 2)).toBeCloseTo(5);
});
