/** Outlines thinned, mapped and chained; points well inside; parts of facets known by whose paper they are. */
import fc from 'fast-check';
import { findFacets } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import {
  distanceToEdge,
  contains,
  exclude,
  insidePoint,
  mapRegion,
  polygonArea,
  rectangle,
  regionArea,
  regionBox,
  ringArea,
  thinLine,
  thinOut,
  type Region,
} from './polygon';
import { distToSegment, type Vec2 } from './vec2';
import { chains, narrowestNeck } from './web';

const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const wavy = fc
  .tuple(fc.integer({ min: 12, max: 160 }), size(0, 4), fc.integer({ min: 2, max: 9 }))
  .map(([n, wave, k]): Region => [
    {
      outer: Array.from({ length: n }, (_, i): Vec2 => {
        const t = (2 * Math.PI * i) / n;
        const r = 30 + wave * Math.sin(k * t);
        return [r * Math.cos(t), r * Math.sin(t)];
      }),
      holes: [],
    },
  ]);

test(
  'thinned: no point that is dropped lies further than the tolerance from what is left (Ramer ' +
    '1972, Douglas and Peucker 1973)',
  () => {
    fc.assert(
      fc.property(wavy, size(0.01, 2), (region, tolerance) => {
        const thin = thinOut(region, tolerance);
        const ring = thin[0].outer;
        for (const p of region[0].outer)
          expect(Math.min(...ring.map((a, i) => distToSegment(p, a, ring[(i + 1) % ring.length])))).toBeLessThanOrEqual(
            tolerance + 1e-6,
          );
        expect(ring.length).toBeLessThanOrEqual(region[0].outer.length);
      }),
      { numRuns: 40 },
    );
    // The library leaves lines of fewer than five points as they are.
    expect(
      thinLine(
        [
          [0, 0],
          [2, 0.001],
          [5, -0.001],
          [7, 0.001],
          [9, 0],
          [10, 0],
        ],
        0.01,
      ),
    ).toEqual([
      [0, 0],
      [10, 0],
    ]);
    expect(
      thinLine(
        [
          [0, 0],
          [1, 1],
        ],
        5,
      ),
    ).toHaveLength(2);
  },
);
test('mapped by a mirror rings keep their sense: outer ones counter-clockwise', () => {
  fc.assert(
    fc.property(wavy, (region) => {
      const mirrored = mapRegion(region, ([x, y]) => [-x, y], true);
      expect(ringArea(mirrored[0].outer)).toBeGreaterThan(0);
      expect(regionArea(mirrored)).toBeCloseTo(regionArea(region), 9);
      expect(regionBox(mirrored).min[0]).toBeCloseTo(-regionBox(region).max[0], 12);
    }),
    { numRuns: 20 },
  );
});
test('what lies in one of two only: |A| + |B| - 2 |A and B|, by the inclusion of areas', () => {
  const [a, b] = [rectangle(0, 0, 10, 10), rectangle(4, 5, 20, 9)].map((outer): Region => [{ outer, holes: [] }]);
  expect(regionArea(exclude(a, b))).toBeCloseTo(100 + 64 - 2 * 6 * 4, 6);
});
test('an inside point is inside, and away from every edge', () => {
  fc.assert(
    fc.property(wavy, ([p]) => {
      const at = insidePoint(p);
      expect(contains(p, at)).toBe(true);
      expect(distanceToEdge(p, at)).toBeGreaterThan(0);
    }),
    { numRuns: 40 },
  );
});
test('cuts that follow on each other are one line; necks are found the same', () => {
  const outline = Array.from({ length: 30 }, (_, i): Vec2 => [
    20 + 15 * Math.cos((Math.PI * i) / 29),
    15 * Math.sin((Math.PI * i) / 29),
  ]);
  const cuts = outline.slice(1).map((b, i) => ({ a: outline[i], b }));
  const joined = chains([...cuts, { a: [60, 1], b: [60, 9] }]);
  expect(joined).toHaveLength(2);
  const paper: Region = [{ outer: rectangle(0, -20, 80, 17), holes: [] }];
  const [one, many] = [joined, [...cuts, { a: [60, 1] as const, b: [60, 9] as const }].map(({ a, b }) => [a, b])].map(
    (c) => narrowestNeck({ paper, cuts: c }, 3.2)!,
  );
  // Between the top of the arc at 15 and the edge at 17.
  expect(one.widthMm).toBeCloseTo(2, 1);
  expect(many.widthMm).toBeCloseTo(one.widthMm, 1);
});
test("a part cut off a named facet is still known as its owner's", () => {
  const piece: Piece = {
    id: 'card',
    title: 'Card',
    mechanism: 'card',
    stock: 's',
    outline: { outer: rectangle(0, 0, 100, 50), holes: [] },
    glue: [],
    creases: [],
    lines: [20, 50, 80].map((x) => ({ role: 'cut', a: [x, 0], b: [x, 50], mechanism: 'm' })),
    labels: [{ name: 'm.figure', at: [21, 1], mechanism: 'm' }],
    owned: [{ name: 'm.figure', mechanism: 'm', polygon: { outer: rectangle(20, 0, 80, 50), holes: [] } }],
  };
  const facets = findFacets(piece, []).facets.map((f) => [f.id, f.mechanism, Math.round(polygonArea(f.polygon))]);
  expect(facets).toEqual(
    expect.arrayContaining([
      ['m.figure', 'm', 1500],
      ['m.figure-part-2', 'm', 1500],
    ]),
  );
  expect(facets.filter(([id]) => String(id).startsWith('card.facet'))).toHaveLength(2);
});
