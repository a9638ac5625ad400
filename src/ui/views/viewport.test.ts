import fc from 'fast-check';
import { FIT, fittedTo, pannedBy, seenBox, zoomedAt, type Box } from './viewport';

const all: Box = { x: -2, y: -2, w: 300, h: 200 };
const inside = fc.tuple(fc.double({ min: 40, max: 260, noNaN: true }), fc.double({ min: 40, max: 160, noNaN: true }));
/** Where a point of the drawing is seen, as parts of the view. */
const seenAt = (box: Box, [x, y]: readonly [number, number]) => [(x - box.x) / box.w, (y - box.y) / box.h];

test('what fits is all of it', () => expect(seenBox(all, FIT)).toEqual(all));

test('the point zoomed about stays where it is seen', () =>
  fc.assert(
    fc.property(inside, fc.double({ min: 1, max: 8, noNaN: true }), (point, factor) => {
      const before = seenAt(seenBox(all, FIT), point);
      const after = seenAt(seenBox(all, zoomedAt(all, FIT, point, factor)), point);
      after.forEach((v, k) => expect(v).toBeCloseTo(before[k], 9));
    }),
  ));

test('in and out again is as before', () =>
  fc.assert(
    fc.property(inside, (point) => {
      const out = zoomedAt(all, zoomedAt(all, FIT, point, 4), point, 1 / 4);
      expect(out.zoom).toBeCloseTo(1, 12);
      expect(Math.hypot(out.x, out.y)).toBeLessThan(1e-9);
    }),
  ));

test('however far it is moved, some of the drawing stays in sight', () => {
  for (const [dx, dy] of [
    [1e6, 0],
    [0, -1e6],
    [-1e6, 1e6],
  ]) {
    const seen = seenBox(all, pannedBy(all, { zoom: 2, x: 0, y: 0 }, dx, dy));
    expect(seen.x).toBeLessThan(all.x + all.w);
    expect(seen.x + seen.w).toBeGreaterThan(all.x);
    expect(seen.y).toBeLessThan(all.y + all.h);
    expect(seen.y + seen.h).toBeGreaterThan(all.y);
  }
});

test('a part that is fitted lies in the middle, all of it in sight', () => {
  const part: Box = { x: 200, y: 30, w: 20, h: 40 };
  const seen = seenBox(all, fittedTo(all, part));
  expect(seen.x + seen.w / 2).toBeCloseTo(210, 9);
  expect(seen.y + seen.h / 2).toBeCloseTo(50, 9);
  expect(seen.w).toBeGreaterThanOrEqual(part.w);
  expect(seen.h).toBeGreaterThanOrEqual(part.h);
});
