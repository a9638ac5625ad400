/**
 * Cutting a figure from the page: what is cut, what is creased and what falls out, by lengths and areas that can be
 * worked out.
 */
import fc from 'fast-check';
import { contains, regionArea, regionBox, ringsOf, type Region } from '../../plane/polygon';
import { dist2, type Vec2 } from '../../plane/vec2';
import { ringLength } from '../../shapes/along';
import { outlineOf, standing } from '../../shapes/outline';
import type { Host } from '../kind';
import { cutFigure, strandedPaper, type Hold } from './page-figure';

const host = (change: Partial<Host> = {}): Host => ({
  crease: 'card.gutter',
  piece: 'card',
  frame: { origin: [0, 0], along: [1, 0] },
  lengthMm: 240,
  sideA: 'leafA',
  sideB: 'leafB',
  sign: 1,
  ends: [Math.PI, 0],
  reachA: 160,
  reachB: 160,
  stock: 's',
  ...change,
});
const names = {
  part: (k: number) => `figure-${k + 1}`,
  hold: (k: number) => `strut-${k + 1}`,
  foot: (k: number) => `foot-${k + 1}`,
  ridge: (k: number) => `ridge-${k + 1}`,
  wall: (k: number) => `wall-${k + 1}`,
};
const box = (w: number, h: number): Region => [
  {
    outer: [
      [-w / 2, 0],
      [w / 2, 0],
      [w / 2, h],
      [-w / 2, h],
    ],
    holes: [],
  },
];
const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });

test('a box on one foot and one strut: cuts are its outline without the contacts, and both sides of the strut', () => {
  fc.assert(
    fc.property(size(20, 80), size(15, 80), size(5, 60), size(4, 15), size(5, 18), (w, h, depth, strut, foot) => {
      const holds: Hold[] = [{ from: -strut / 2, to: strut / 2, level: h }];
      const c = cutFigure({
        id: 'f',
        host: host(),
        region: box(w, h),
        depth,
        feet: [{ from: -foot / 2, to: foot / 2 }],
        holds,
        names,
      });
      const cut = c.lines.reduce((s, l) => s + dist2(l.a, l.b), 0);
      expect(cut).toBeCloseTo(2 * (w + h) - foot - strut + 2 * depth, 6);
      expect(c.hostCreases.map((k) => [k.id, k.role, Math.round(dist2(k.a, k.b) * 1e6) / 1e6])).toEqual([
        ['f.foot-1', 'valley', expect.closeTo(foot, 5)],
        ['f.ridge-1', 'mountain', expect.closeTo(strut, 5)],
        ['f.wall-1', 'valley', expect.closeTo(strut, 5)],
      ]);
      // Foot d in front of the fold, ridge h above it, wall as far up side B as the figure is high.
      expect(c.hostCreases.map((k) => k.a[1])).toEqual([
        expect.closeTo(depth, 9),
        expect.closeTo(depth - h, 9),
        expect.closeTo(-h, 9),
      ]);
      expect(c.waste).toEqual([]);
      expect(c.unheld).toEqual([]);
      // The gutter is interrupted over the figure where it reaches it, else over the strut.
      const gap = c.interruptions.reduce((s, i) => s + i.to - i.from, 0);
      expect(gap).toBeCloseTo(h > depth + 1e-4 ? w : strut, 4);
      expect(regionArea(c.claims)).toBeCloseTo(w * h + strut * depth, 3);
    }),
    { numRuns: 40 },
  );
});

test('on a mountain crease every role is the opposite', () => {
  const at = (sign: 1 | -1) =>
    cutFigure({
      id: 'f',
      host: host({ sign }),
      region: box(30, 30),
      depth: 12,
      feet: [{ from: -15, to: 15 }],
      holds: [{ from: -4, to: 4, level: 30 }],
      names,
    }).hostCreases.map((c) => c.role);
  expect(at(1)).toEqual(['valley', 'mountain', 'valley']);
  expect(at(-1)).toEqual(['mountain', 'valley', 'mountain']);
});

test('on a turned crease everything is turned with it', () => {
  const turned = host({ frame: { origin: [30, -10], along: [0.6, 0.8] } });
  const [flat, placed] = [host(), turned].map((h) =>
    cutFigure({
      id: 'f',
      host: h,
      region: box(30, 40),
      depth: 15,
      feet: [{ from: -15, to: 15 }],
      holds: [{ from: -5, to: 5, level: 40 }],
      names,
    }),
  );
  const move = ([x, y]: Vec2): Vec2 => [30 + 0.6 * x - 0.8 * y, -10 + 0.8 * x + 0.6 * y];
  flat.lines.forEach((l, i) =>
    [l.a, l.b].forEach((p, k) =>
      expect(dist2(move(p), k === 0 ? placed.lines[i].a : placed.lines[i].b)).toBeLessThan(1e-9),
    ),
  );
});

describe('paper that nothing but the fold would hold', () => {
  test('a hole falls out wherever it lies: below the fold, across it, above it', () => {
    for (const [low, high] of [
      [5, 12],
      [15, 28],
      [30, 42],
    ]) {
      const region: Region = [
        {
          outer: box(60, 50)[0].outer,
          holes: [
            [
              [-10, low],
              [-10, high],
              [10, high],
              [10, low],
            ],
          ],
        },
      ];
      const c = cutFigure({
        id: 'f',
        host: host(),
        region,
        depth: 20,
        feet: [{ from: -30, to: 30 }],
        holds: [{ from: -6, to: 6, level: 50 }],
        names,
      });
      expect(regionArea(c.waste)).toBeCloseTo(20 * (high - low), 4);
    }
  });
  test('an umbrella: the pocket under it goes as far as it is past the fold', () => {
    // Rim at 12, inside the fold 20 in front: under the cap from the fold (20) to the cap (30), on both sides of the
    // stem.
    const umbrella: Region = [
      {
        outer: [
          [-4, 0],
          [4, 0],
          [4, 30],
          [26, 30],
          [26, 12],
          [30, 12],
          [30, 40],
          [-30, 40],
          [-30, 12],
          [-26, 12],
          [-26, 30],
          [-4, 30],
        ],
        holes: [],
      },
    ];
    const pocket = strandedPaper(umbrella, host(), 20);
    expect(regionArea(pocket)).toBeCloseTo(2 * 22 * 10, 4);
  });
  test('open to a side or to the top, nothing is cut out', () => {
    const cup: Region = [
      {
        outer: [
          [-30, 0],
          [30, 0],
          [30, 50],
          [20, 50],
          [20, 25],
          [-20, 25],
          [-20, 50],
          [-30, 50],
        ],
        holes: [],
      },
    ];
    expect(strandedPaper(cup, host(), 20)).toEqual([]);
    const hook: Region = [
      {
        outer: [
          [-10, 0],
          [10, 0],
          [10, 50],
          [-40, 50],
          [-40, 40],
          [-10, 40],
        ],
        holes: [],
      },
    ];
    expect(strandedPaper(hook, host(), 20)).toEqual([]);
  });
});

test('labels lie in their own parts, areas know whose they are, the tip is the middle of a level top', () => {
  const region = [
    ...box(30, 40),
    ...standing(outlineOf({ star: { points: 5, outer: 40, inner: 18 } }), 36).map((p) => ({
      outer: p.outer.map(([x, y]): Vec2 => [x + 60, y]),
      holes: [],
    })),
  ];
  const c = cutFigure({
    id: 'f',
    host: host(),
    region,
    depth: 25,
    feet: [{ from: -15, to: 15 }],
    holds: [
      { from: -15, to: -5, level: 40 },
      { from: 5, to: 15, level: 40 },
    ],
    names,
  });
  expect(c.tip).toEqual({ facet: 'f.figure-1', at: [0, 40] });
  for (const l of c.labels) expect(contains(c.owned.find((o) => o.name === l.name)!.polygon, l.at)).toBe(true);
  expect(c.unheld).toHaveLength(2);
  expect(c.unheld.map((l) => l.what).join()).toMatch(/part 2 of it has no foot.*part 2 of it is held by nothing/);
  expect(regionBox(c.claims).min[1]).toBeCloseTo(-40, 9);
  expect(ringsOf(c.owned[0].polygon)[0].length).toBe(4);
  expect(ringLength(c.owned[2].polygon.outer)).toBeCloseTo(2 * (10 + 25), 6);
});
