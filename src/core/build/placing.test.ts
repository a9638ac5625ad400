/** Snapping and moving of layers: plain geometry, checked against itself by its definition. */
import fc from 'fast-check';
import { blankDesign } from '../document/design';
import { layered } from '../tests/cards';
import { moveLayers, snapShift, type Guide } from './placing';

const box = (x0: number, y0: number, w: number, h: number) => ({
  min: [x0, y0] as const,
  max: [x0 + w, y0 + h] as const,
});
const guides: readonly Guide[] = [
  { axis: 'y', at: 0, name: 'the gutter' },
  { axis: 'x', at: 0, name: 'the middle of leafA' },
  { axis: 'x', at: 50, name: 'the edge of leafA' },
];

test('a middle snaps to the gutter, an edge to an edge, and each says so', () => {
  const s = snapShift(box(-10, 20, 20, 10), 0.6, -24.4, guides, 1.5);
  expect([s.dx, s.dy]).toEqual([0, -25]);
  expect(s.names).toEqual(['middle on the middle of leafA', 'middle on the gutter']);
  expect(snapShift(box(0, 20, 20, 10), 29.2, 10, guides, 1.5)).toEqual({
    dx: expect.closeTo(30, 9),
    dy: 10,
    names: ['edge on the edge of leafA'],
  });
});
test('a snap never pulls further than it may, and ends on a guide', () => {
  const n = fc.double({ min: -80, max: 80, noNaN: true });
  fc.assert(
    fc.property(n, n, (dx, dy) => {
      const b = box(3, 4, 17, 9);
      const s = snapShift(b, dx, dy, guides, 1.5);
      expect(Math.abs(s.dx - dx)).toBeLessThanOrEqual(1.5 + 1e-9);
      expect(Math.abs(s.dy - dy)).toBeLessThanOrEqual(1.5 + 1e-9);
      if (s.dx !== dx) expect([3, 11.5, 20].some((x) => [0, 50].some((g) => Math.abs(x + s.dx - g) < 1e-9))).toBe(true);
    }),
  );
});
test('several move together, others stay', () => {
  const three = layered(
    blankDesign('t'),
    ...['a', 'b', 'c'].map((id) => ({ id, from: { x: 'low', y: 'high' } as const, x: 1, y: 2 })),
  );
  const d = moveLayers(three, ['a', 'c'], 0.1, -3);
  expect(d.layers.map((l) => [l.x, l.y])).toEqual([
    [1.1, -1],
    [1, 2],
    [1.1, -1],
  ]);
});
