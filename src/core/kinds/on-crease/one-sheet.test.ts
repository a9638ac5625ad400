/** The kinds cut from one sheet, against the closed forms and check values of docs/mechanisms.md. */
import fc from 'fast-check';
import { allMeasures, foldDeg, landmarksOf, onFacet, poseOpen } from '../../assembly/pose';
import type { Assembly } from '../../assembly/assembly';
import { norm3, sub3, type Vec3 } from '../../linkage';
import { regionArea, regionBox } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { buildAssembly } from '../../build/build';
import { addMechanism } from '../../document/standing';
import { blankDesign, type Design } from '../../document/design';
import { prove } from '../../proof/prove';
import { degToRad } from '../../units/angle';
import { widthOfAll, type Interval } from '../../shapes/level';
import { shelveFonts } from '../../../fonts/shelve';
import type { ParameterValues } from '../kind';
import { strutTrade } from './strut-figure';
import { outlineOf } from '../../shapes/outline';

beforeAll(shelveFonts);

const card = (gutter = 240, reach = 160): Design => blankDesign('test', gutter, reach);
const design = (kind: string, parameters: ParameterValues, base = card(), on = 'card.gutter'): Design =>
  addMechanism(base, kind, on, parameters).design;
const built = (kind: string, parameters: ParameterValues, base = card(), on = 'card.gutter'): Assembly =>
  buildAssembly(design(kind, parameters, base, on));
const measures = (a: Assembly, open = 90): Record<string, number> => {
  const closed = poseOpen(a, 0);
  return allMeasures(a, poseOpen(a, open), closed.stop ? null : closed)[a.mechanisms.at(-1)!.id];
};
const mark = (a: Assembly, open: number, name: string): Vec3 =>
  landmarksOf(a, poseOpen(a, open), a.mechanisms.at(-1)!)[name];
/** d uA + s uB of the docs/mechanisms.md. */
const stands = (x: number, d: number, s: number, open: number): Vec3 => [
  x,
  d + s * Math.cos(degToRad(open)),
  s * Math.sin(degToRad(open)),
];
const near = (p: Vec3, q: Vec3, mm = 1e-5): void => p.forEach((v, i) => expect(Math.abs(v - q[i])).toBeLessThan(mm));

function expectRigidAndFlat(a: Assembly, open: number): void {
  const pose = poseOpen(a, open);
  expect(pose.stop).toBeUndefined();
  expect(pose.folds.residualMm).toBeLessThan(1e-9);
  a.facets.forEach((f, i) =>
    f.polygon.outer.forEach((p, k) => {
      const q = f.polygon.outer[(k + 1) % f.polygon.outer.length];
      expect(
        Math.abs(norm3(sub3(onFacet(pose, i, p), onFacet(pose, i, q))) - Math.hypot(p[0] - q[0], p[1] - q[1])),
      ).toBeLessThan(1e-8);
    }),
  );
  for (const end of [0, 180]) {
    const flat = poseOpen(a, end);
    expect(flat.stop).toBeUndefined();
    a.facets.forEach((f, i) =>
      f.polygon.outer.forEach((p) => expect(Math.abs(onFacet(flat, i, p)[2])).toBeLessThan(1e-8)),
    );
  }
}
const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A star-shaped outline with bays and points, as a designer might draw one: radii at even angles. */
const outline = fc
  .array(size(8, 40), { minLength: 5, maxLength: 28 })
  .map((radii): readonly Vec2[] =>
    radii.map((r, k): Vec2 => [
      r * Math.cos((2 * Math.PI * k) / radii.length),
      r * Math.sin((2 * Math.PI * k) / radii.length),
    ]),
  );

/** A strut ends where the outline rises by 1 in 1,000: welded to it, its crease was not parallel to the gutter. */
const ALMOST_LEVEL: [readonly Vec2[], number, number, number, number] = [
  [
    [14.391193628739988, 0],
    [24.42057867790562, 20.491298561766353],
    [5.395706643521537, 30.600572991394177],
    [-17.679540388765627, 30.621862207808103],
    [-32.58789479362011, 11.861023702276274],
    [-13.000652595303247, -4.731850570726033],
    [-4.591001797950564, -7.951848371690432],
    [1.5429197535744503, -8.750332747575836],
    [21.663068536740163, -18.17747281934682],
  ],
  6.371558018502871,
  84.99999999999983,
  0,
  159.99999999999986,
];

describe('strut-figure', () => {
  test('any outline, any depth inside the limit: one sheet, held and free, flat at both ends', () => {
    fc.assert(
      fc.property(
        outline,
        size(6, 70),
        size(20, 85),
        size(-30, 30),
        size(20, 160),
        (polygon, depth, figureHeight, offset, open) => {
          // On its paper: what runs past the ends of the gutter is another test's.
          const [xs, ys] = [0, 1].map((k) => polygon.map((p) => p[k]));
          const width = ((Math.max(...xs) - Math.min(...xs)) * figureHeight) / (Math.max(...ys) - Math.min(...ys));
          fc.pre(width / 2 + Math.abs(offset) < 119);
          const a = built('strut-figure', { shape: { polygon }, depth, figureHeight, offset });
          expect(a.misfits).toEqual([]);
          const facet = (name: string): number => a.facets.findIndex((f) => f.id === `strut-figure-1.${name}`);
          // Free: its only joints are feet and struts; held: at least one of each.
          const joints = a.creases.filter((c) => c.a === facet('figure') || c.b === facet('figure'));
          expect(joints.length).toBeGreaterThanOrEqual(2);
          for (const c of joints) expect(c.id).toMatch(/\.(foot|ridge)-\d+$/);
          for (const kind of ['foot', 'ridge']) expect(joints.some((c) => c.id.includes(`.${kind}-`))).toBe(true);
          // One connected sheet: every facet is reached over creases.
          const seen = new Set([0]);
          for (const f of seen)
            for (const c of a.creases)
              for (const [u, v] of [
                [c.a, c.b],
                [c.b, c.a],
              ])
                if (u === f) seen.add(v);
          expect(seen.size).toBe(a.facets.length);
          const m = measures(a, open);
          expect(m.room_mm).toBeCloseTo(160 - depth - figureHeight, 6);
          expect(m.strut_narrowest_mm).toBeGreaterThanOrEqual(4 - 1e-9);
          expect(m.foot_mm).toBeGreaterThanOrEqual(8 - 1e-5);
          const tip = mark(a, open, 'tip');
          near(tip, stands(tip[0], depth, figureHeight, open));
          expectRigidAndFlat(a, open);
        },
      ),
      { numRuns: 60, examples: [ALMOST_LEVEL] },
    );
  });

  test("all folds of its feet and walls are the gutter's, its ridges the opposite", () => {
    const a = built('strut-figure', { shape: { arch: { width: 70, height: 60 } }, depth: 22 });
    const pose = poseOpen(a, 71);
    for (const c of a.creases) expect(foldDeg(pose, c)).toBeCloseTo(c.id.includes('ridge') ? -109 : 109, 8);
  });

  test('a plain rectangle loses nothing and is joined along its whole foot', () => {
    const a = built('strut-figure', { shape: { width: 60, height: 50 }, depth: 20 });
    const m = measures(a);
    expect(m.shape_loss_pct).toBeCloseTo(0, 9);
    expect(m.foot_mm).toBeCloseTo(60, 9);
    expect(m.strut_count).toBe(2);
    near(mark(a, 90, 'tip'), [0, 20, 50]);
  });

  test('seen from its front, how far it reaches past its struts, and how wide the narrowest is for its depth', () => {
    const struts = [
      { x: -20, width: 8 },
      { x: 5, width: 6 },
    ];
    const m = measures(built('strut-figure', { shape: { width: 60, height: 50 }, depth: 20, struts }));
    // From the front the page's x runs to the left: its left end is at 30, its right one at -30.
    expect([m.beyond_struts_left_mm, m.beyond_struts_right_mm]).toEqual(
      [30 - 8, 30 - 24].map((mm) => expect.closeTo(mm, 6)),
    );
    expect(m.strut_width_per_depth).toBeCloseTo(6 / 20, 9);
  });

  test('a disc: the loss is the segment its level contacts fill, no more', () => {
    const m = measures(
      built('strut-figure', {
        shape: { circle: 70 },
        depth: 20,
        strutMin: 6,
        footMin: 10,
        struts: [{ x: 0, width: 6 }],
      }),
    );
    // Closed form: under a chord c of a circle of radius r lies c (r - r cos) less the segment; both contacts add
    // that much.
    const added = (c: number): number => {
      const half = Math.asin(c / 70);
      const segment = 35 * 35 * (half - Math.sin(half) * Math.cos(half));
      return c * 35 * (1 - Math.cos(half)) - segment;
    };
    // The disc is drawn by chords within 0.01 mm: over both contacts up to 0.16 mm² of 3848.
    expect(Math.abs(m.shape_loss_pct - (100 * (added(6) + added(10))) / (Math.PI * 35 * 35))).toBeLessThan(0.0042);
  });

  test('struts and feet by hand: where they were put, and said when they miss', () => {
    const shape = {
      polygon: [
        [0, 0],
        [80, 0],
        [80, 30],
        [60, 30],
        [60, 55],
        [20, 55],
        [20, 30],
        [0, 30],
      ],
    } as const;
    const a = built('strut-figure', {
      shape,
      depth: 18,
      struts: [
        { x: -30, width: 8 },
        { x: 2, width: 12 },
      ],
      feet: [
        { x: -25, width: 20 },
        { x: 30, width: 15 },
      ],
    });
    expect(a.misfits).toEqual([]);
    const at = (id: string): [number, number, number] => {
      const c = a.pieces[0].creases.find((k) => k.id === `strut-figure-1.${id}`)!;
      return [(c.a[0] + c.b[0]) / 2, c.a[1], Math.abs(c.b[0] - c.a[0])];
    };
    // A strut is level where it is held: 30 up on the shoulder, 55 on the top; its wall is as far up side B.
    expect(at('ridge-1')).toEqual([expect.closeTo(-30, 6), expect.closeTo(18 - 30, 6), expect.closeTo(8, 6)]);
    expect(at('wall-1')[1]).toBeCloseTo(-30, 6);
    expect(at('wall-2')).toEqual([expect.closeTo(2, 6), expect.closeTo(-55, 6), expect.closeTo(12, 6)]);
    expect(measures(a).foot_mm).toBeCloseTo(35, 6);
    expectRigidAndFlat(a, 100);
    const missed = built('strut-figure', { shape, depth: 18, struts: [{ x: 90, width: 8 }] });
    expect(missed.misfits.map((m) => m.what).join()).toMatch(/strut 1 does not meet/);
    const loose = prove(design('strut-figure', { shape, depth: 18, struts: [] }), 4);
    expect(loose.findings.find((f) => f.rule === 'loose-part')?.message).toMatch(/held by nothing from its top/);
    expect(loose.verdict).toBe('blocked');
  });

  test('letters of a word stand each on feet of their own; the middle of an O falls out as waste, not as paper', () => {
    const a = built('strut-figure', {
      shape: { text: { string: 'MOON', font: 'alfa-slab-one', size: 48 } },
      depth: 20,
    });
    expect(a.misfits).toEqual([]);
    expect(a.facets.filter((f) => /figure-\d$/.test(f.id))).toHaveLength(4);
    expectRigidAndFlat(a, 60);
  });

  test('pockets of the page that only the gutter would hold are cut out', () => {
    // A gateway: the page between its posts passes the gutter and ends under the lintel.
    const gateway = {
      polygon: [
        [-30, 0],
        [-20, 0],
        [-20, 45],
        [20, 45],
        [20, 0],
        [30, 0],
        [30, 60],
        [-30, 60],
      ],
    } as const;
    const a = built('strut-figure', { shape: gateway, depth: 20 });
    expect(a.misfits).toEqual([]);
    expect(a.facets).toHaveLength(3 + measures(a).strut_count);
    const hole = a.pieces[0].outline.holes;
    expect(hole).toHaveLength(1);
    // Past the gutter the pocket is 40 wide and 45 - 20 high.
    expect(regionArea([{ outer: [...hole[0]].reverse(), holes: [] }])).toBeCloseTo(40 * 25, 4);
  });

  test('more, narrower struts follow the outline better', () => {
    const values = {
      shape: { star: { points: 7, outer: 80, inner: 50 } },
      figureHeight: 70,
      depth: 20,
      offset: 0,
      strutMin: 4,
      footMin: 8,
      struts: 'auto',
      feet: 'auto',
    };
    const trade = strutTrade(values, (s) => outlineOf(s), [4, 8, 14]);
    expect(trade[0].lossPct).toBeLessThan(trade[1].lossPct);
    expect(trade[1].lossPct).toBeLessThan(trade[2].lossPct);
    for (const t of trade) expect(t.narrowestMm).toBeGreaterThanOrEqual(t.strutMin - 1e-9);
    expect(trade[0].count).toBeGreaterThanOrEqual(trade[2].count);
  });

  test('narrow struts, and two figures on the same paper, are found', () => {
    const narrow = prove(design('strut-figure', { shape: { circle: 50 }, depth: 20, strutMin: 2.5 }), 4).findings.find(
      (f) => f.rule === 'web' && f.aspect === 'strut',
    )!;
    // docs/mechanisms.md 3: struts 4 mm.
    expect([narrow.measured, narrow.limit, narrow.severity]).toEqual([expect.closeTo(2.5, 6), 4, 'risk']);
    expect(narrow.remedies).toContainEqual(expect.objectContaining({ parameter: 'strutMin', value: 4 }));
    const both = design(
      'strut-figure',
      { shape: { circle: 50 }, depth: 30 },
      design('strut-figure', { shape: { circle: 50 }, depth: 20, offset: 10 }),
    );
    const clash = prove(both, 4).findings.filter((f) => f.rule === 'loose-part');
    expect(clash).toHaveLength(1);
    expect(clash[0].message).toMatch(/same paper/);
  });

  test('a mirrored shape gives a mirrored pose', () => {
    fc.assert(
      fc.property(outline, size(10, 40), size(20, 160), (polygon, depth, open) => {
        const values = { depth, figureHeight: 60, struts: [{ x: 0, width: 6 }], feet: [{ x: 0, width: 10 }] };
        const [a, b] = [
          built('strut-figure', { ...values, shape: { polygon } }),
          built('strut-figure', { ...values, shape: { polygon: polygon.map(([x, y]): Vec2 => [-x, y]) } }),
        ];
        const [p, q] = [mark(a, open, 'tip'), mark(b, open, 'tip')];
        // Of several highest points the first is taken: compare heights, and sides where there is one.
        expect(p[1]).toBeCloseTo(q[1], 5);
        expect(p[2]).toBeCloseTo(q[2], 5);
        expect(a.facets.length).toBe(b.facets.length);
      }),
      { numRuns: 20 },
    );
  });
});

describe('plane-stack', () => {
  test('check value: on a leaf of 6 in a plane 1/2 in out may be 5 1/2 in tall, on a 1 in platform 4 1/2', () => {
    const inch = 25.4;
    const limit = (planes: readonly Record<string, number>[]): number =>
      measures(built('plane-stack', { planes }, card(240, 6 * inch)))[`planes[${planes.length - 1}].room_mm`];
    expect(limit([{ depth: inch / 2, base: 0, height: 5.5 * inch, width: 60, offset: 0 }])).toBeCloseTo(0, 9);
    expect(
      limit([
        { depth: inch / 2, base: 0, height: inch, width: 80, offset: 0 },
        { depth: inch / 2, base: inch, height: 4.5 * inch, width: 40, offset: 0 },
      ]),
    ).toBeCloseTo(0, 9);
  });

  test('every top is d uA + h uB, over random stacks of planes on platforms', () => {
    fc.assert(
      fc.property(
        size(30, 60),
        size(15, 35),
        size(10, 29),
        size(10, 30),
        size(-8, 8),
        size(10, 170),
        (depth, height, depth2, height2, offset, open) => {
          const a = built('plane-stack', {
            planes: [
              { depth, base: 0, height, width: 90, offset: 4 },
              { depth: depth2, base: height, height: height2, width: 40, offset },
            ],
          });
          expect(a.misfits).toEqual([]);
          near(mark(a, open, 'planes[0].top'), stands(4, depth, height, open));
          near(mark(a, open, 'planes[1].top'), stands(offset, depth2, height + height2, open));
          expect(measures(a).room_mm).toBeCloseTo(160 - Math.max(depth + height, depth2 + height + height2), 9);
          expect(measures(a).contacts_mm).toBeCloseTo(130, 6);
          expectRigidAndFlat(a, open);
        },
      ),
      { numRuns: 25 },
    );
  });

  test('a platform may end on the plane behind', () => {
    const a = built('plane-stack', {
      planes: [
        { depth: 15, base: 0, height: 70, width: 100, offset: 0 },
        { depth: 45, base: 0, height: 30, width: 50, offset: 5, joins: 0 },
      ],
    });
    expect(a.misfits).toEqual([]);
    near(mark(a, 55, 'planes[1].top'), stands(5, 45, 30, 55));
    expectRigidAndFlat(a, 130);
  });

  test('a shape without straight contacts is trimmed by the least that gives them, and keeps its height', () => {
    const shape = { circle: 40 };
    const planes = [{ depth: 30, base: 0, height: 50, offset: 0, shape }];
    const without = prove(design('plane-stack', { planes }), 4).findings.find((f) => f.rule === 'loose-part')!;
    expect(without.message).toMatch(/no straight contact at its top/);
    expect(without.remedies?.[0].parameter).toBe('contact');
    const a = built('plane-stack', { planes, contact: 14 });
    expect(a.misfits).toEqual([]);
    expect(measures(a).contacts_mm).toBeCloseTo(14, 2);
    near(mark(a, 90, 'planes[0].top'), [0, 30, 50]);
    expectRigidAndFlat(a, 90);
  });

  test('planes that stand on nothing say so', () => {
    const what = (planes: readonly Record<string, number>[]): string =>
      built('plane-stack', { planes })
        .misfits.map((m) => m.what)
        .join();
    const first = { depth: 30, base: 0, height: 20, width: 80, offset: 0 };
    expect(what([first, { depth: 10, base: 21, height: 20, width: 30, offset: 0 }])).toMatch(
      /no plane has its top there/,
    );
    expect(what([first, { depth: 31, base: 20, height: 20, width: 30, offset: 0 }])).toMatch(/only 30\.0 mm deep/);
    expect(what([first, { depth: 10, base: 20, height: 20, width: 30, offset: 70 }])).toMatch(/beside the platform/);
  });
});

test.each<[string, ParameterValues, number]>([
  // Heights over the leaf that is not the figure's own, by the pose of section 2: a point at d uA + s uB lies s
  // sin(open) over leaf A.
  ['strut-figure', { shape: { width: 40, height: 50 }, figureHeight: 50, depth: 20 }, 50],
  [
    'plane-stack',
    {
      planes: [
        { depth: 40, base: 0, height: 30, width: 80 },
        { depth: 25, base: 30, height: 25, width: 40 },
      ],
    },
    55,
  ],
  ['half-cut', { shape: { circle: 50 }, figureHeight: 50, rise: 18 }, 18],
])('the travel strip follows the top of a %s', (kind, parameters, reach) => {
  for (const t of prove(design(kind, parameters, card(200, 140)), 12).travel)
    expect(t.tops[`${kind}-1`]).toBeCloseTo(reach * Math.sin((t.open * Math.PI) / 180), 6);
});

test(
  'a floating figure stands at least as high as the crease it floats on, and no higher than that ' + 'and its own half',
  () => {
    const d = design(
      'floating-band',
      { slit: 80, width: 20, figure: { circle: 30 }, figureHeight: 30 },
      card(200, 140),
    );
    for (const t of prove(d, 12).travel) {
      // The middle crease lies on the bisector, (S - 2q) cos(open / 2) from the gutter with even folds; over leaf A
      // that times sin(open / 2).
      const middle = 40 * Math.cos((t.open * Math.PI) / 360) * Math.sin((t.open * Math.PI) / 360);
      expect(t.tops['floating-band-1']).toBeGreaterThanOrEqual(middle - 1e-6);
      expect(t.tops['floating-band-1']).toBeLessThanOrEqual(middle + 20 + 1e-6);
    }
  },
);

describe('half-cut', () => {
  test('without a gap one cut parts it from its leaf, with one there are two', () => {
    // A figure of straight sides 40 wide that rises 20: two sides and its top.
    const cutMm = (relief: number): number =>
      built('half-cut', { shape: { width: 40, height: 60 }, rise: 20, relief }, card(200, 100))
        .pieces[0].lines.filter((l) => l.role === 'cut')
        .reduce((sum, { a, b }) => sum + Math.hypot(a[0] - b[0], a[1] - b[1]), 0);
    expect(cutMm(0)).toBeCloseTo(80, 6);
    expect(cutMm(2)).toBeGreaterThan(160);
  });
  test('check value: a 4 in blank folded at 2 in with 1.062 in of rise is 3.062 in high', () => {
    const a = built('half-cut', { shape: { circle: 50 }, figureHeight: 50, rise: 1.062 * 25.4 }, card(150, 2 * 25.4));
    expect(measures(a).folded_height_mm).toBeCloseTo(3.062 * 25.4, 9);
    expect(
      prove(design('half-cut', { shape: { circle: 50 }, figureHeight: 50, rise: 26.9748 }, card(150, 50.8)), 4).closed!
        .width_mm,
    ).toBeCloseTo(3.062 * 25.4, 6);
  });

  test('the score stops at the outline on both sides; the figure stays with leaf A at every opening', () => {
    const a = built('half-cut', { shape: { width: 40, height: 60 }, rise: 20, offset: 12, relief: 0 }, card(200, 100));
    const m = measures(a);
    expect([m.fold_left_mm, m.fold_right_mm, m.joined_mm, m.rise_mm]).toEqual([
      expect.closeTo(100 + 12 - 20, 6),
      expect.closeTo(100 - 12 - 20, 6),
      expect.closeTo(40, 6),
      20,
    ]);
    for (const open of [0, 45, 180]) near(mark(a, open, 'tip'), [12, -20, 0]);
    expect(a.facets.map((f) => f.id).sort()).toEqual(['leafA', 'leafB']);
    expectRigidAndFlat(a, 45);
  });

  test('the gap round it is the offset outline: area by the closed form for a rectangle', () => {
    const a = built('half-cut', { shape: { width: 40, height: 60 }, rise: 20, relief: 2 }, card(200, 100));
    const area = a.facets.reduce((s, f) => s + regionArea([f.polygon]), 0);
    // Two sides 20 long and a top 40 long, 2 mm wide, and two quarter discs at the corners.
    expect(200 * 200 - area).toBeCloseTo(2 * 20 * 2 + 40 * 2 + (Math.PI * 4) / 2, 1);
  });

  describe('a separate figure over it', () => {
    const stuck = (figureMargin: number | null, more: ParameterValues = {}): Design =>
      design('half-cut', { shape: { circle: 50 }, figureHeight: 50, rise: 20, figureMargin, ...more }, card(200, 100));
    const figureOf = (a: Assembly) => a.pieces.find((p) => p.id === 'half-cut-1.figure');

    test('is larger or smaller by its margin all round: a disc of the radius and that', () => {
      for (const margin of [-3, 0, 0.5, 4]) {
        const { min, max } = regionBox([figureOf(buildAssembly(stuck(margin)))!.outline]);
        expect([max[0] - min[0], max[1] - min[1]]).toEqual([
          expect.closeTo(50 + 2 * margin, 2),
          expect.closeTo(50 + 2 * margin, 2),
        ]);
      }
      expect(figureOf(buildAssembly(stuck(null)))).toBeUndefined();
    });

    test('lies on the side that its fold turns away from, over its silhouette, and stays with leaf A', () => {
      for (const mountain of [false, true]) {
        const on = mountain ? 'step-fold-1.ridge' : 'card.gutter';
        const base = mountain ? design('step-fold', { depth: 60, height: 60, width: 160 }) : card(200, 100);
        const a = buildAssembly(
          design(
            'half-cut',
            { shape: { circle: 30 }, figureHeight: 30, rise: 9, figureMargin: 2, offset: 7 },
            base,
            on,
          ),
        );
        expect(a.misfits).toEqual([]);
        const [figure, host] = ['half-cut-1.figure', a.mechanisms.at(-1)!.host!.sideA].map((id) =>
          a.facets.findIndex((f) => f.id === id),
        );
        for (const open of [0, 70, 180]) {
          const pose = poseOpen(a, open);
          const [middle, over] = [
            landmarksOf(a, pose, a.mechanisms.at(-1)!).tip,
            onFacet(pose, figure, [...a.facets[figure].polygon.outer].sort((p, q) => p[1] - q[1])[0]),
          ];
          // The tip of the figure lies 2 mm past that of the silhouette, in the same plane.
          expect(norm3(sub3(over, middle))).toBeCloseTo(2, 2);
          expect(a.facets[figure].body).toBe(a.facets[host].body);
        }
        expectRigidAndFlat(a, 70);
      }
    });

    test('is glued where both are: on the silhouette, inside its own edge', () => {
      const { glue } = figureOf(buildAssembly(stuck(-5)))!;
      const { min, max } = regionBox([{ outer: glue[0].outline, holes: [] }]);
      // 5 mm smaller all round, and adhesive 1 mm inside that.
      expect(max[0] - min[0]).toBeCloseTo(50 - 2 * 5 - 2, 1);
      const wide = regionBox([{ outer: figureOf(buildAssembly(stuck(12)))!.glue[0].outline, holes: [] }]);
      // However large it is, there is only the silhouette to stick it to.
      expect(wide.max[0] - wide.min[0]).toBeCloseTo(50 - 2, 1);
    });

    test('is meant to stand out behind the fold; the envelope has to take it', () => {
      const { findings, closed } = prove(stuck(6), 4);
      expect(findings.map((f) => f.message)).toEqual([]);
      expect(closed!.width_mm).toBeCloseTo(100 + 20 + 6, 1);
      // Its top is followed as the silhouette's is, over the other leaf.
      for (const { open, tops } of prove(stuck(6), 4).travel)
        expect(tops['half-cut-1']).toBeCloseTo(26 * Math.sin(degToRad(open)), 1);
    });
  });

  test('a figure that does not reach the fold, or rises past its own height, is refused', () => {
    expect(built('half-cut', { shape: { circle: 20 }, rise: 30 }).misfits.map((m) => m.kind)).toContain(
      'contradiction',
    );
    const letters = built('half-cut', { shape: { text: { string: 'i', font: 'fredoka', size: 40 } }, rise: 12 });
    expect(letters.misfits.map((m) => m.what).join()).toMatch(/tied to nothing/);
  });
});

describe('floating-band', () => {
  test(
    'check value: slits of 4 1/2 in have their inner creases 1 1/8 in from the gutter and float ' +
      'about a centimetre when nearly open',
    () => {
      const a = built('floating-band', { slit: 4.5 * 25.4, width: 20 });
      expect(a.pieces[0].creases.find((c) => c.id.endsWith('innerA'))!.a[1]).toBeCloseTo(1.125 * 25.4, 9);
      expect(measures(a, 160).float_mm).toBeCloseTo(9.92, 1);
    },
  );

  test('even folds: float is (S - 2q) cos(open / 2), the pose is symmetric, closed the middle lies at S - 2q', () => {
    fc.assert(
      fc.property(size(50, 120), size(0.15, 0.4), size(5, 175), (slit, part, open) => {
        const quarter = slit * part;
        const a = built('floating-band', { slit, quarter, width: 18, offset: 7 });
        expect(a.misfits).toEqual([]);
        expect(measures(a, open).float_mm).toBeCloseTo((slit - 2 * quarter) * Math.cos(degToRad(open) / 2), 6);
        expect(measures(a, open).inner_creases_mm).toBeCloseTo(quarter, 9);
        expect(measures(a, open).closed_middle_mm).toBeCloseTo(slit - 2 * quarter, 6);
        // On the bisector of the leaves: as far from leaf B as from leaf A.
        const [, y, z] = mark(a, open, 'middle');
        expect(Math.atan2(z, y)).toBeCloseTo(degToRad(open) / 2, 6);
        expectRigidAndFlat(a, open);
      }),
      { numRuns: 20 },
    );
  });

  test('the figure folds on its axis of symmetry, as its band does', () => {
    const shape = {
      polygon: [
        [0, 0],
        [40, 0],
        [40, 10],
        [20, 50],
        [0, 10],
      ],
    } as const;
    const a = built('floating-band', { slit: 80, width: 24, figure: shape });
    expect(measures(a).axis_deg).toBeCloseTo(90, 2);
    const pose = poseOpen(a, 50);
    const fold = (id: string): number =>
      foldDeg(
        pose,
        a.creases.find((c) => c.id === `floating-band-1.${id}`)!,
      );
    expect(fold('axis')).toBeCloseTo(fold('middle'), 8);
    const box = regionBox(a.facets.filter((f) => f.id.includes('half')).map((f) => f.polygon));
    expect(box.max[1]).toBeCloseTo(-box.min[1], 3);
    expectRigidAndFlat(a, 50);
  });
});

describe('they nest', () => {
  test.each([
    [
      'strut-figure',
      { shape: { circle: 30 }, figureHeight: 24, depth: 8 },
      'step-fold',
      { depth: 50, height: 30, width: 90 },
      'base',
    ],
    [
      'plane-stack',
      { planes: [{ depth: 10, base: 0, height: 12, width: 30, offset: 0 }] },
      'strut-figure',
      { shape: { width: 90, height: 60 }, depth: 40 },
      'foot-1',
    ],
    [
      'step-fold',
      { depth: 8, height: 10, width: 12 },
      'plane-stack',
      { planes: [{ depth: 40, base: 0, height: 30, width: 90, offset: 0 }] },
      'wall-1',
    ],
    [
      'half-cut',
      { shape: { circle: 24 }, figureHeight: 24, rise: 8 },
      'step-fold',
      { depth: 50, height: 40, width: 90 },
      'ridge',
    ],
    ['floating-band', { slit: 24, width: 8 }, 'step-fold', { depth: 50, height: 40, width: 90 }, 'base'],
  ])('%s on a crease of another', (kind, parameters, below, belowParameters, crease) => {
    const base = design(below, belowParameters as ParameterValues);
    const a = built(kind, parameters as ParameterValues, base, `${below}-1.${crease}`);
    expect(a.misfits).toEqual([]);
    expectRigidAndFlat(a, 75);
  });

  test('several share one sheet', () => {
    let d = design('strut-figure', { shape: { circle: 40 }, depth: 20, offset: -80 });
    d = design('plane-stack', { planes: [{ depth: 25, base: 0, height: 30, width: 40, offset: 0 }] }, d);
    d = design('floating-band', { slit: 60, width: 14, offset: 60 }, d);
    d = design('half-cut', { shape: { circle: 20 }, rise: 8, offset: 95 }, d);
    const a = buildAssembly(d);
    expect(a.misfits).toEqual([]);
    expectRigidAndFlat(a, 110);
    const total = (list: readonly Interval[]): number => widthOfAll(list);
    expect(total(a.interruptions.map(({ from, to }) => ({ from, to })))).toBeGreaterThan(90);
  });
});
