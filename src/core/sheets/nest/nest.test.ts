/**
 * Nesting against sets whose best layout is published, against brute force, and against itself: the same seed the same
 * layout, longer never worse.
 */
import fc from 'fast-check';
import { rectangle, regionArea, type Polygon, type Ring } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { commonArea } from '../../tests/second-polygons';
import { convexParts, convexSum, isConvex } from './convex';
import { compareCosts, nesting, type Nesting, type NestItem } from './nest';
import { noFit, overlapsAt, turnedShape } from './no-fit';
import { thinOutward } from './thin-outward';
import { rotated, turnPoint } from '../../plane/turning';

const solid = (outer: Ring): Polygon => ({ outer, holes: [] });
const item = (key: string, outer: Ring, turns: readonly number[] = [0]): NestItem => ({
  key,
  region: [solid(outer)],
  turns,
});
const box = (w: number, h: number, turns?: readonly number[]): NestItem =>
  item(`${w}x${h}`, rectangle(0, 0, w, h), turns);

/** Shapes as they lie, in sheet axes. */
const lying = (items: readonly NestItem[], { placed }: Nesting) =>
  placed.map(({ item: i, at, turnDeg }) =>
    rotated(items[i].region, turnDeg).map(({ outer, holes }) => {
      const move = (r: Ring): Ring => r.map(([x, y]): Vec2 => [x + at[0], y + at[1]]);
      return { outer: move(outer), holes: holes.map(move) };
    }),
  );
const reach = (items: readonly NestItem[], found: Nesting): number =>
  Math.max(...lying(items, found).flatMap((r) => r.flatMap((p) => p.outer.map(([x]) => x))));

function after(items: readonly NestItem[], width: number, height: number, seed: number, rounds: number): Nesting {
  let last: Nesting | undefined;
  for (const found of nesting(items, [{ widthMm: width, heightMm: height, cost: 1 }], seed)) {
    last = found;
    if (found.rounds >= rounds) break;
  }
  return last!;
}

const S = 10;
const Q = S / 4;
/** The seven pieces of the tangram, which make a square of 10 (a puzzle of the early 19th century; its cuts halve). */
const TANGRAM: readonly Ring[] = [
  [[0, 0], [S, 0], [S / 2, S / 2]],
  [[0, 0], [S, 0], [S / 2, S / 2]],
  [[0, 0], [S / 2, 0], [0, S / 2]],
  [[0, 0], [S / 2, 0], [Q, Q]],
  [[0, 0], [S / 2, 0], [Q, Q]],
  [[0, 0], [Q, -Q], [2 * Q, 0], [Q, Q]],
  [[0, 0], [S / 2, 0], [S / 2 + Q, Q], [Q, Q]],
]; // prettier-ignore
const EIGHTHS = [0, 45, 90, 135, 180, 225, 270, 315];
/** Sixteen rectangles that fill 20 x 20: problem C1P1 of Hopper and Turton (2001), from memory; areas add up to 400. */
const C1P1: readonly (readonly [number, number])[] = [
  [2, 12], [7, 12], [8, 6], [3, 6], [3, 5], [5, 5], [3, 12], [3, 7],
  [5, 7], [2, 6], [3, 2], [4, 2], [3, 4], [4, 4], [9, 2], [11, 2],
]; // prettier-ignore

describe('published sets: within 5 % of the best length known', () => {
  test.each<[string, NestItem[], number, number, number, number]>([
    // Nine squares that fill 33 x 32 (Moroń 1925).
    ['a squared rectangle', [18, 15, 14, 10, 9, 8, 7, 4, 1].map((s) => box(s, s)), 32, 33, 8, 80],
    ['C1P1', C1P1.map(([w, h]) => box(w, h, [0, 90])), 20, 20, 3, 100],
    ['a tangram', TANGRAM.map((r, k) => item(`t${k}`, r, EIGHTHS)), 10, 10, 1, 600],
  ])('%s', (_, items, height, best, seed, rounds) => {
    expect(items.reduce((sum, i) => sum + regionArea(i.region), 0)).toBeCloseTo(height * best, 9);
    const found = after(items, 1.5 * best, height, seed, rounds);
    expect(found.unplaced).toEqual([]);
    expect(reach(items, found)).toBeLessThanOrEqual(1.05 * best + 1e-6);
    const shapes = lying(items, found);
    shapes.forEach((a, i) => shapes.slice(0, i).forEach((b) => expect(commonArea(a, b)).toBeLessThan(1e-4)));
  });
});

const star = fc
  .record({
    points: fc.integer({ min: 3, max: 9 }),
    inner: fc.double({ min: 0.25, max: 0.9, noNaN: true }),
    size: fc.double({ min: 5, max: 25, noNaN: true }),
    turn: fc.double({ min: 0, max: 6, noNaN: true }),
  })
  .map(({ points, inner, size, turn }): Ring =>
    Array.from({ length: 2 * points }, (_, k): Vec2 => {
      const [r, a] = [k % 2 ? size * inner : size, turn + (Math.PI * k) / points];
      return [r * Math.cos(a), r * Math.sin(a)];
    }),
  );

test('nothing overlaps, nothing leaves its sheet, nothing is forgotten (polygon-clipping as second opinion)', () => {
  fc.assert(
    fc.property(fc.array(star, { minLength: 2, maxLength: 7 }), fc.integer({ min: 1, max: 99 }), (rings, seed) => {
      const items = rings.map((r, k) => item(`s${k}`, r, [0, 90, 180, 270]));
      const found = after(items, 90, 60, seed, 8);
      expect(found.placed.length + found.unplaced.length).toBe(items.length);
      const shapes = lying(items, found);
      for (const [x, y] of shapes.flatMap((r) => r.flatMap((p) => p.outer))) {
        expect(Math.min(x, y, 90 - x, 60 - y)).toBeGreaterThan(-1e-5);
      }
      shapes.forEach((a, i) => shapes.slice(0, i).forEach((b) => expect(commonArea(a, b)).toBeLessThan(1e-4)));
    }),
    { numRuns: 25 },
  );
});

test('a hole is used where nothing else is free, and the pieces in it do not overlap its edge', () => {
  const frame: NestItem = {
    key: 'frame',
    region: [{ outer: rectangle(0, 0, 98, 58), holes: [[...rectangle(10, 10, 60, 48)].reverse()] }],
    turns: [0],
  };
  const items = [frame, box(24, 37), box(24, 37)];
  const found = after(items, 100, 60, 1, 3);
  expect(found.unplaced).toEqual([]);
  const [outer, ...inside] = lying(items, found);
  for (const shape of inside) {
    expect(commonArea(outer, shape)).toBeLessThan(1e-6);
    for (const [x, y] of shape[0].outer) expect(Math.min(x - 10, 60 - x, y - 10, 48 - y)).toBeGreaterThan(-1e-5);
  }
  // A millimetre too wide together, and the second has no place.
  expect(after([frame, box(24, 37), box(27, 37)], 100, 60, 1, 3).unplaced).toHaveLength(1);
});

test('the same seed gives the same layout, longer is never worse, and what is fixed stays', () => {
  const items = TANGRAM.map((r, k) => item(`t${k}`, r, EIGHTHS));
  const run = (seed: number): Nesting[] => {
    const out: Nesting[] = [];
    for (const n of nesting(items, [{ widthMm: 18, heightMm: 10, cost: 1 }], seed)) if (out.push(n) > 60) break;
    return out;
  };
  const [one, same, other] = [run(5), run(5), run(6)];
  expect(same).toEqual(one);
  expect(other).not.toEqual(one);
  one.slice(1).forEach((n, k) => expect(compareCosts(n.cost, one[k].cost)).toBeLessThanOrEqual(0));
  const at: Vec2 = [7, 3];
  const held = [{ ...items[5], fixed: { sheet: 0, at, turnDeg: 0 } }, ...items.slice(0, 4)];
  const found = after(held, 30, 10, 1, 30);
  expect(found.placed.find((p) => p.item === 0)).toMatchObject({ at, turnDeg: 0 });
});

test('convex parts tile a polygon, and a sum with another turned by half tells just where they overlap', () => {
  fc.assert(
    fc.property(
      star,
      star,
      fc.double({ min: -40, max: 40, noNaN: true }),
      fc.double({ min: -40, max: 40, noNaN: true }),
      (a, b, x, y) => {
        const parts = convexParts(solid(a));
        expect(parts.every(isConvex)).toBe(true);
        expect(regionArea(parts.map(solid))).toBeCloseTo(regionArea([solid(a)]), 6);
        const [still, moving] = [turnedShape('a', [solid(a)]), turnedShape('b', [solid(b)])];
        const apart = (r: Ring): Vec2 => [Math.min(...r.map((p) => p[0])), Math.min(...r.map((p) => p[1]))];
        const [ca, cb] = [apart(a), apart(b)];
        // Both with the lower left of their boxes at the origin, the second then moved to (x, y).
        const here = [solid(a.map(([px, py]): Vec2 => [px - ca[0], py - ca[1]]))];
        const there = [solid(b.map(([px, py]): Vec2 => [px - cb[0] + x, py - cb[1] + y]))];
        const common = commonArea(here, there);
        const fit = noFit(still, moving);
        if (common > 1e-3) expect(overlapsAt(fit, [x, y], 1e-6)).toBe(true);
        if (common === 0) expect(overlapsAt(fit, [x, y], 1e-3)).toBe(false);
      },
    ),
    { numRuns: 60 },
  );
});

test('the sum of two convex rings has the area Minkowski gives: both, and twice the mixed one', () => {
  // Of two upright rectangles: (a + c)(b + d). Source: Minkowski sums of boxes are boxes.
  const sum = convexSum(rectangle(0, 0, 3, 5), rectangle(-1, -2, 6, 2));
  expect(regionArea([solid(sum)])).toBeCloseTo((3 + 7) * (5 + 4), 9);
});

test('fewer corners hold all of the paper, and lie at most as far out as they may', () => {
  fc.assert(
    fc.property(star, fc.double({ min: 0.05, max: 1, noNaN: true }), (ring, mm) => {
      const thin = thinOutward(solid(ring), mm);
      // What the clipping grid rounds off along the outline.
      expect(regionArea([solid(ring)]) - commonArea([solid(ring)], [thin])).toBeLessThan(1e-3);
    }),
  );
  const disc = Array.from({ length: 180 }, (_, k): Vec2 => turnPoint([30, 0], 2 * k));
  const thin = thinOutward(solid(disc), 0.25);
  expect(thin.outer.length).toBeLessThan(90);
  for (const p of thin.outer) expect(Math.hypot(...p)).toBeLessThan(30.26);
  // A straight edge stays where it is.
  const slab = thinOutward(solid([[0, 0], [50, 0], [50, 20], [25, 20.1], [0, 20]]), 0.25); // prettier-ignore
  expect(Math.min(...slab.outer.map((p) => p[1]))).toBe(0);
});
