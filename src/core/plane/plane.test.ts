import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import { arrange, meetMoreThan, type Segment } from './arrangement';
import {
  areaWithin,
  intersect,
  offset,
  polygonArea,
  rectangle,
  regionArea,
  regionFromRings,
  ringArea,
  subtract,
  thicken,
  unite,
  type Region,
  type Ring,
  mapRegion,
  ringsOf,
} from './polygon';
import { outlineGap } from './gap';
import { narrowestNeck } from './web';
import { distToSegment, frameAt, sideOf, type Vec2 } from './vec2';

const star = fc
  .tuple(
    fc.double({ min: -20, max: 20, noNaN: true }),
    fc.double({ min: -20, max: 20, noNaN: true }),
    fc.array(fc.double({ min: 5, max: 30, noNaN: true }), { minLength: 5, maxLength: 24 }),
  )
  .map(([cx, cy, radii]): Ring =>
    radii.map((r, i): Vec2 => [
      cx + r * Math.cos((2 * Math.PI * i) / radii.length),
      cy + r * Math.sin((2 * Math.PI * i) / radii.length),
    ]),
  );
const region = (ring: Ring): Region => [{ outer: ring, holes: [] }];

// Outside check: the polygon-clipping package, an independent implementation (Martinez-Rueda).
const theirs = (op: 'union' | 'intersection' | 'difference', a: Ring, b: Ring): number =>
  polygonClipping[op](
    [a.map(([x, y]): [number, number] => [x, y])],
    [b.map(([x, y]): [number, number] => [x, y])],
  ).reduce(
    (sum, poly) => sum + poly.reduce((s, ring, k) => s + (k === 0 ? 1 : -1) * Math.abs(ringArea(ring.slice(0, -1))), 0),
    0,
  );

test.each([
  ['union', unite],
  ['intersection', intersect],
  ['difference', subtract],
] as const)('%s has the area a second library finds', (op, ours) => {
  fc.assert(
    fc.property(star, star, (a, b) => {
      const scale = Math.abs(ringArea(a)) + Math.abs(ringArea(b));
      expect(Math.abs(regionArea(ours(region(a), region(b))) - theirs(op, a, b)) / scale).toBeLessThan(1e-6);
    }),
    { numRuns: 60 },
  );
});

test('offsets of a rectangle and a ring have their closed-form areas', () => {
  const sheet = region(rectangle(0, 0, 40, 30));
  expect(regionArea(offset(sheet, 5, 'sharp'))).toBeCloseTo(50 * 40, 6);
  expect(regionArea(offset(sheet, -5, 'sharp'))).toBeCloseTo(30 * 20, 6);
  // Steiner: area + perimeter r + pi r² for round corners (Steiner's formula, convex sets). Arcs are drawn within
  // 0.01 mm, inside.
  const short = (found: number, exact: number, radius: number): void => {
    expect(exact - found).toBeGreaterThan(0);
    expect(exact - found).toBeLessThan(2 * Math.PI * radius * 0.01);
  };
  short(regionArea(offset(sheet, 5, 'round')), 1200 + 140 * 5 + Math.PI * 25, 5);
  short(
    regionArea(
      thicken(
        [
          [
            [0, 0],
            [10, 0],
          ],
        ],
        2,
      ),
    ),
    40 + Math.PI * 4,
    2,
  );
  const holed = subtract(sheet, region(rectangle(10, 10, 20, 20)));
  expect(holed).toHaveLength(1);
  expect(polygonArea(holed[0])).toBeCloseTo(1100, 6);
  expect(regionArea(offset(holed, -1, 'sharp'))).toBeCloseTo(38 * 28 - 12 * 12, 6);
});

const edgesOf = (ring: Ring): Segment[] => ring.map((a, i) => ({ a, b: ring[(i + 1) % ring.length] }));

test('faces of an arrangement of lines satisfy Euler’s formula and fill the sheet', () => {
  // Theorem: V - E + F = 1 + C for a plane graph, counting bounded faces only (Euler).
  const line = fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 }));
  fc.assert(
    fc.property(fc.array(line, { minLength: 0, maxLength: 12 }), (lines) => {
      const cuts: Segment[] = lines.map(([l, r]) => ({ a: [0, l], b: [100, r] }));
      const { vertices, edges, faces } = arrange([...edgesOf(rectangle(0, 0, 100, 100)), ...cuts]);
      expect(vertices.length - edges.length + faces.length).toBe(1);
      expect(faces.reduce((s, f) => s + polygonArea(f), 0)).toBeCloseTo(10_000, 4);
    }),
  );
});

test(
  'a slit that ends inside paper leaves one face on both its sides, and a loose square becomes a ' + 'hole and a face',
  () => {
    const slit = arrange([...edgesOf(rectangle(0, 0, 10, 10)), { a: [2, 5], b: [8, 5] }]);
    expect(slit.faces).toHaveLength(1);
    const edge = slit.edges.find((e) => e.sources.includes(4))!;
    expect(edge.left).toBe(edge.right);
    const island = arrange([...edgesOf(rectangle(0, 0, 10, 10)), ...edgesOf(rectangle(4, 4, 6, 6))]);
    expect(island.faces.map(polygonArea).sort((a, b) => a - b)).toEqual([4, 96]);
  },
);

test('the narrowest neck of paper is found at its true width', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.4, max: 3, noNaN: true }), (gap) => {
      const neck = narrowestNeck(
        {
          paper: region(rectangle(0, 0, 60, 40)),
          cuts: [
            [
              [10, 10],
              [10, 30],
            ],
            [
              [10 + gap, 10],
              [10 + gap, 30],
            ],
          ],
        },
        3.2,
      );
      expect(neck).not.toBeNull();
      expect(Math.abs(neck!.widthMm - gap)).toBeLessThan(0.05);
    }),
    { numRuns: 8 },
  );
  expect(
    narrowestNeck(
      {
        paper: region(rectangle(0, 0, 60, 40)),
        cuts: [
          [
            [10, 10],
            [10, 30],
          ],
          [
            [16, 10],
            [16, 30],
          ],
        ],
      },
      3.2,
    ),
  ).toBeNull();
  expect(narrowestNeck({ paper: region(rectangle(0, 0, 2, 40)), cuts: [] }, 3.2)).not.toBeNull();
  expect(
    narrowestNeck(
      {
        paper: region([
          [0, 0],
          [30, 0],
          [0, 30],
        ]),
        cuts: [],
      },
      3.2,
    ),
  ).toBeNull();
});

test('sides are exact and frames are right-handed', () => {
  expect(sideOf([0, 0], [1, 0], [0.5, 1e-18])).toBeGreaterThan(0);
  expect(sideOf([0, 0], [1, 1], [2, 2])).toBe(0);
  expect(frameAt({ origin: [3, 4], along: [0, 1] }, 2, 1)).toEqual([2, 6]);
});

test('rings as they come, in either direction, become clean polygons by even-odd', () => {
  const outer = rectangle(0, 0, 20, 20);
  const inner = rectangle(5, 5, 15, 15);
  const core = rectangle(8, 8, 12, 12);
  for (const rings of [
    [outer, inner, core],
    [outer, [...inner].reverse(), core],
    [[...outer].reverse(), inner, [...core].reverse()],
  ]) {
    const found = regionFromRings(rings);
    expect(found).toHaveLength(2);
    expect(regionArea(found)).toBeCloseTo(400 - 100 + 16, 6);
    // Outer rings come out counter-clockwise, holes clockwise, whatever went in.
    found.forEach((p) => expect(ringArea(p.outer)).toBeGreaterThan(0));
    found.flatMap((p) => p.holes).forEach((h) => expect(ringArea(h)).toBeLessThan(0));
  }
  // A figure of eight: two triangles, not their difference.
  const eight = regionFromRings([
    [
      [0, 0],
      [10, 10],
      [10, 0],
      [0, 10],
    ],
  ]);
  expect(regionArea(eight)).toBeCloseTo(50, 6);
});

test('what lies apart does not touch: intersections of far rings are empty, unions keep both', () => {
  const [left, right] = [region(rectangle(0, 0, 5, 5)), region(rectangle(100, 0, 105, 5))];
  expect(intersect(left, right)).toEqual([]);
  expect(unite(left, right)).toHaveLength(2);
  expect(subtract(left, left)).toEqual([]);
});

test('of a comb of slits the narrowest tooth is found, wherever it is and whatever else is narrow', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 1, max: 6, noNaN: true }), { minLength: 3, maxLength: 14 }),
      fc.integer({ min: 0, max: 3 }),
      (teeth, turns) => {
        const xs = teeth.reduce<number[]>((at, w) => [...at, at[at.length - 1] + w], [10]);
        const turn = ([x, y]: Vec2): Vec2 =>
          (
            [
              [x, y],
              [-y, x],
              [-x, -y],
              [y, -x],
            ] as const
          )[turns];
        const width = xs[xs.length - 1] + 10;
        const neck = narrowestNeck(
          {
            paper: region(rectangle(0, 0, width, 40).map(turn)),
            cuts: xs.map((x) =>
              (
                [
                  [x, 8],
                  [x, 32],
                ] as const
              ).map(turn),
            ),
          },
          3.2,
        );
        const least = Math.min(...teeth);
        fc.pre(Math.abs(least - 3.2) > 0.03);
        if (least > 3.2) return expect(neck).toBeNull();
        expect(Math.abs(neck!.widthMm - least)).toBeLessThan(0.03);
        // It is named where it is: on the middle of the narrowest tooth.
        const middles = teeth.flatMap((w, k) => (w < least + 0.03 ? [turn([xs[k] + w / 2, 20])] : []));
        const across = turns % 2;
        expect(Math.min(...middles.map((m) => Math.abs(m[across] - neck!.at[across])))).toBeLessThan(0.2);
      },
    ),
    { numRuns: 40 },
  );
});

test('area inside an upright rectangle is that of the intersection, by two ways', () => {
  const point = fc.tuple(fc.double({ min: -20, max: 20, noNaN: true }), fc.double({ min: -20, max: 20, noNaN: true }));
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 3, maxLength: 9 }),
      point,
      fc.double({ min: 0.5, max: 25, noNaN: true }),
      fc.double({ min: 0.5, max: 25, noNaN: true }),
      (points, [x, y], w, h) => {
        const shape = regionFromRings([points]);
        const box = rectangle(x, y, x + w, y + h);
        const other = polygonClipping.intersection(
          shape.map((p) => [p.outer, ...p.holes].map((r) => r.map(([a, b]): [number, number] => [a, b]))),
          [box.map(([a, b]): [number, number] => [a, b])],
        );
        const area = other.reduce(
          (s, [outer, ...holes]) =>
            s + Math.abs(ringArea(outer)) - holes.reduce((t, r) => t + Math.abs(ringArea(r)), 0),
          0,
        );
        expect(Math.abs(areaWithin(shape, x, y, x + w, y + h) - area)).toBeLessThan(1e-4);
      },
    ),
    { numRuns: 80 },
  );
});

test('the gap between outlines, against every corner and edge by brute force', () => {
  fc.assert(
    fc.property(star, star, fc.double({ min: -40, max: 40, noNaN: true }), (a, b, up) => {
      // Set apart, or one inside the other's hole.
      const p = region(a);
      const q = mapRegion(region(b), ([x, y]) => [x + 400, y + up]);
      const ring = [{ outer: rectangle(-900, -900, 900, 900), holes: [rectangle(-800, -800, 800, 800).toReversed()] }];
      for (const [from, to] of [
        [p, q],
        [p, ring],
      ]) {
        const rings = (r: Region): Ring[] => r.flatMap(ringsOf);
        let least = Infinity;
        for (const [u, v] of [
          [from, to],
          [to, from],
        ])
          for (const corner of rings(u).flat())
            for (const r of rings(v))
              r.forEach((e, i) => (least = Math.min(least, distToSegment(corner, e, r[(i + 1) % r.length]))));
        expect(outlineGap(from, to)).toBeCloseTo(least, 9);
      }
    }),
    { numRuns: 40 },
  );
  expect(outlineGap([], region(rectangle(0, 0, 1, 1)))).toBe(Infinity);
});

test('places where lines cross are counted up to a number, those drawn twice once', () => {
  // Of n level and n upright lines each crosses each: n² places.
  const net = (n: number) =>
    Array.from({ length: n }, (_, k) => [
      { a: [-1, k], b: [n, k] } as const,
      { a: [k + 0.5, -1], b: [k + 0.5, n] } as const,
    ]).flat();
  expect([99, 100, 101].map((most) => meetMoreThan(net(10), most))).toEqual([true, false, false]);
  const twice = [...net(10), ...net(10).map(({ a, b }) => ({ a: b, b: a }))];
  expect([99, 100].map((most) => meetMoreThan(twice, most))).toEqual([true, false]);
  // A fan whose lines meet in one corner crosses nowhere; of its 780 pairs a hundred are asked for each place.
  const fan = Array.from({ length: 40 }, (_, k) => ({ a: [0, 0], b: [Math.cos(k / 30), Math.sin(k / 30)] }) as const);
  expect([7, 8].map((most) => meetMoreThan(fan, most))).toEqual([true, false]);
  expect(meetMoreThan([], 0)).toBe(false);
});
