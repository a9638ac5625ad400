/** Places of a map, against plane geometry: what is blocked is the half over a line. */
import fc from 'fast-check';
import type { MapCell } from '@/core/decide/map';
import { MapSquare, SIDE } from './map-place';

const [from, to, cells] = [10, 60, 25];
const free = { mechanism: 'm', key: 'k', from, to };
const size = (to - from) / cells;
const middle = (k: number): number => from + (k + 0.5) * size;
/** Depth and height of a step with 70 mm of room: blocked where both together are more. */
const square = new MapSquare(
  free,
  free,
  Array.from({ length: cells ** 2 }, (_, n): MapCell => {
    const [x, y] = [middle(n % cells), middle(Math.floor(n / cells))];
    return { x, y, w: size, h: size, verdict: x + y > 70 ? 'blocked' : 'clear', by: null, value: null };
  }),
);
const place = fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }));

test('a place of the square is that place of the map, also from beside it', () => {
  expect(square.at(0, 1)).toEqual([from, from]);
  expect(square.at(1, 0)).toEqual([to, to]);
  expect(square.at(2, -3)).toEqual([to, to]);
  fc.assert(
    fc.property(place, ([u, v]) => {
      const [x, y] = square.at(u, v);
      expect(square.px(x) / SIDE).toBeCloseTo(u, 2);
      expect(square.py(y) / SIDE).toBeCloseTo(v, 2);
    }),
  );
});

test('led into what is blocked it stays at its edge, nearest to the pointer; elsewhere it is where it was led', () =>
  fc.assert(
    fc.property(place, ([u, v]) => {
      const p = square.at(u, v);
      const [x, y] = square.alongEdge(p);
      if (square.cell(p)?.verdict !== 'blocked') return expect([x, y]).toEqual(p);
      expect(square.cell([x, y])?.verdict).toBe('clear');
      // No further than the line itself lies, but for the cells on either side of it; nor than its nearest end.
      const past = (p[0] + p[1] - 70) / Math.SQRT2;
      expect(Math.hypot(x - p[0], y - p[1])).toBeLessThan(past + 2 * size);
    }),
  ));
