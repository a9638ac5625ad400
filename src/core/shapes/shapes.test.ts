/** Outlines and what is done to them: closed forms, a second polygon library, the fonts' own metrics. */
import fc from 'fast-check';
import polygonClipping, { type MultiPolygon } from 'polygon-clipping';
import {
  contains,
  exclude,
  intersect,
  offset,
  regionArea,
  rectangle,
  regionBox,
  ringArea,
  ringsOf,
  subtract,
  unite,
  type Region,
} from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { shelveFonts } from '../../fonts/shelve';
import { countFor, ringLength, stations } from './along';
import { centreOfArea, foldAxis } from './axis';
import { bezierPoints, svgArcPoints } from './curve';
import { FONTS, fontOf } from './fonts';
import { contactsAt, leastTrim, levelAt, trimmed, widthOfAll, withoutIntervals } from './level';
import { assetOutline, outlineOf, standing } from './outline';
import { pathDataOf } from './path-data';
import type { Shape, ShapeStep } from './shape';
import { deviation, doubled } from './steps';
import { STARTER_SHAPES } from './starter';
import { letters, textRegion } from './text';
import { islandsOf, looseParts, tieIslands, tieParts } from './ties';

beforeAll(shelveFonts);
const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const worked = (source: Shape, ...steps: ShapeStep[]): Region =>
  assetOutline({ id: 'x', name: 'X', source, steps }, new Map());
const blob = fc.array(size(6, 30), { minLength: 4, maxLength: 20 }).chain((radii) =>
  fc.tuple(size(-25, 25), size(-25, 25)).map(([cx, cy]): Region => [
    {
      outer: radii.map((r, k): Vec2 => [
        cx + r * Math.cos((2 * Math.PI * k) / radii.length),
        cy + r * Math.sin((2 * Math.PI * k) / radii.length),
      ]),
      holes: [],
    },
  ]),
);

describe('exact basics', () => {
  // Closed forms. Round outlines are drawn by chords within 0.01 mm, so their area is short by at most perimeter x
  // 0.01 x 2/3.
  test.each<[string, Shape, number, number]>([
    ['circle', { circle: 50 }, Math.PI * 625, 0.67 * 0.01 * Math.PI * 50],
    ['ellipse', { ellipse: { width: 60, height: 20 } }, Math.PI * 300, 1],
    ['rectangle', { rect: { width: 40, height: 20 } }, 800, 1e-9],
    ['rounded rectangle', { rect: { width: 40, height: 20, corner: 5 } }, 800 - (4 - Math.PI) * 25, 0.3],
    ['hexagon', { regular: { sides: 6, diameter: 40 } }, (3 * Math.sqrt(3) * 400) / 2, 1e-9],
    ['star', { star: { points: 5, outer: 40, inner: 16 } }, 5 * 20 * 8 * Math.sin(Math.PI / 5), 1e-9],
    ['half ring', { arc: { radius: 20, width: 10, from: 0, to: 180 } }, (Math.PI * (625 - 225)) / 2, 0.6],
    ['whole ring', { arc: { radius: 20, width: 10, from: 0, to: 360 } }, Math.PI * (625 - 225), 1.2],
    ['arch', { arch: { width: 40, height: 60 } }, 40 * 40 + (Math.PI * 400) / 2, 0.5],
    ['bare size', { width: 30, height: 12 }, 360, 1e-9],
  ])('%s', (_, shape, area, within) => expect(Math.abs(regionArea(outlineOf(shape)) - area)).toBeLessThan(within));
  test('scallops are as wide and high as asked, to the last micrometre, however many', () => {
    fc.assert(
      fc.property(size(20, 200), size(20, 200), fc.integer({ min: 4, max: 60 }), (width, height, bumps) => {
        const { min, max } = regionBox(outlineOf({ cloud: { width, height, bumps } }));
        [max[0] - min[0] - width, max[1] - min[1] - height, max[0] + min[0], max[1] + min[1]].forEach((mm) =>
          expect(Math.abs(mm)).toBeLessThan(1e-3),
        );
      }),
      { numRuns: 40 },
    );
  });
});

describe('curves', () => {
  test('a Bézier curve keeps within its tolerance of the true curve', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(size(-50, 50), size(-50, 50)), { minLength: 4, maxLength: 4 }),
        size(0.005, 1),
        (p, tolerance) => {
          const line = [p[0], ...bezierPoints(p as Vec2[], tolerance)];
          const at = (t: number): Vec2 =>
            [0, 1].map(
              (i) =>
                (1 - t) ** 3 * p[0][i] +
                3 * t * (1 - t) ** 2 * p[1][i] +
                3 * t * t * (1 - t) * p[2][i] +
                t ** 3 * p[3][i],
            ) as unknown as Vec2;
          for (let k = 0; k <= 40; k++) {
            const q = at(k / 40);
            const i = Math.min(line.length - 2, Math.floor((k / 40) * (line.length - 1)));
            const near = Math.min(
              ...[i - 1, i, i + 1]
                .filter((j) => j >= 0 && j + 1 < line.length)
                .map((j) => distance(q, line[j], line[j + 1])),
            );
            expect(near).toBeLessThan(tolerance + 1e-9);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
  test('an SVG arc lies on its circle and ends where it should; radii too small grow (SVG 1.1, F.6.6)', () => {
    for (const [large, sweep] of [
      [false, false],
      [true, true],
    ]) {
      const points = svgArcPoints([10, 0], [0, 10], [10, 10], 0, large, sweep, 0.01);
      const centre = large === sweep && sweep ? [10, 10] : [10, 10];
      const around = points.map((p) => [Math.hypot(p[0], p[1]), Math.hypot(p[0] - centre[0], p[1] - centre[1])]);
      expect(around.every(([a]) => Math.abs(a - 10) < 1e-9) || around.every(([, b]) => Math.abs(b - 10) < 1e-9)).toBe(
        true,
      );
      expect(points.at(-1)).toEqual([0, 10]);
    }
    const half = svgArcPoints([0, 0], [20, 0], [1, 1], 0, false, true, 0.01);
    expect(half.every((p) => Math.abs(Math.hypot(p[0] - 10, p[1]) - 10) < 1e-9)).toBe(true);
  });
});

describe('operations', () => {
  const other = (r: Region): MultiPolygon =>
    r.map((p) => ringsOf(p).map((ring) => [...ring, ring[0]].map(([x, y]): [number, number] => [x, y])));
  const area = (m: MultiPolygon): number =>
    m.reduce(
      (s, p) => s + p.reduce((t, ring, k) => t + (k === 0 ? 1 : -1) * Math.abs(ringArea(ring.slice(0, -1))), 0),
      0,
    );
  test('areas agree with a second library to 1e-6 (package polygon-clipping)', () => {
    fc.assert(
      fc.property(blob, blob, (a, b) => {
        const pairs: [Region, MultiPolygon][] = [
          [unite([...a], b), polygonClipping.union(other(a), other(b))],
          [subtract(a, b), polygonClipping.difference(other(a), other(b))],
          [intersect(a, b), polygonClipping.intersection(other(a), other(b))],
          [exclude(a, b), polygonClipping.xor(other(a), other(b))],
        ];
        for (const [mine, theirs] of pairs)
          expect(Math.abs(regionArea(mine) - area(theirs))).toBeLessThan(
            1e-6 * Math.max(1, regionArea(a) + regionArea(b)),
          );
      }),
      { numRuns: 60 },
    );
  });
  test("outset of a convex outline: Steiner's formula A + P d + π d²; sharp corners of a square (a + 2d)²", () => {
    fc.assert(
      fc.property(size(10, 60), fc.integer({ min: 3, max: 9 }), size(0.5, 8), (diameter, sides, d) => {
        const r = outlineOf({ regular: { sides, diameter } });
        const expected = regionArea(r) + ringLength(r[0].outer) * d + Math.PI * d * d;
        expect(Math.abs(regionArea(offset(r, d, 'round')) - expected)).toBeLessThan(2 * Math.PI * d * 0.011);
        expect(
          Math.abs(
            regionArea(offset(outlineOf({ width: diameter, height: diameter }), d, 'sharp')) / (diameter + 2 * d) ** 2 -
              1,
          ),
        ).toBeLessThan(1e-6);
      }),
      { numRuns: 30 },
    );
  });
  test('a line splits into two parts that together are the whole', () => {
    fc.assert(
      fc.property(blob, size(-10, 10), size(-10, 10), size(0, 360), (r, x, y, deg) => {
        const path = pathDataOf(r);
        const part = (keep: 'left' | 'right'): number => {
          try {
            return regionArea(worked({ path }, { do: 'split', x, y, deg, keep }));
          } catch {
            return 0; // nothing on that side
          }
        };
        expect(part('left') + part('right')).toBeCloseTo(regionArea(r), 3);
      }),
      { numRuns: 40 },
    );
  });
  test('a mirror twice, and a turn and back, give the shape back', () => {
    const star: Shape = { star: { points: 5, outer: 40, inner: 16 } };
    const same = (r: Region): number => regionArea(exclude(r, outlineOf(star)));
    expect(
      same(worked(star, { do: 'mirror', about: 'left', keep: false }, { do: 'mirror', about: 'right', keep: false })),
    ).toBeLessThan(1e-4);
    expect(same(worked(star, { do: 'turn', deg: 33 }, { do: 'turn', deg: -33 }))).toBeLessThan(1e-3);
    expect(regionArea(worked(star, { do: 'mirror', about: 'right', keep: true }))).toBeCloseTo(
      2 * regionArea(outlineOf(star)),
      4,
    );
  });
  test('doubled about an edge: both halves alike, joined over at least the hinge', () => {
    fc.assert(
      fc.property(size(20, 80), size(5, 18), (diameter, hinge) => {
        const { region, half, hingeMm } = doubled(outlineOf({ circle: diameter }), 'bottom', 0, hinge);
        expect(hingeMm).toBeGreaterThanOrEqual(hinge - 1e-3);
        expect(regionArea(region)).toBeCloseTo(2 * regionArea(half), 3);
        expect(region).toHaveLength(1);
      }),
      { numRuns: 20 },
    );
  });
  test('copies along an outline are evenly spaced; outside adds, inside takes away', () => {
    const square = outlineOf({ width: 40, height: 40 });
    const s = stations(square[0].outer, 16);
    expect(s).toHaveLength(16);
    s.forEach(({ at }, i) =>
      expect(Math.abs(at[0] - s[(i + 1) % 16].at[0]) + Math.abs(at[1] - s[(i + 1) % 16].at[1])).toBeCloseTo(10, 9),
    );
    expect(countFor(square[0].outer, 9.9)).toBe(16);
    const bite = (side: 'outside' | 'inside'): number =>
      regionArea(
        worked(
          { width: 40, height: 40 },
          { do: 'distribute', what: { circle: 10 }, size: 6, count: 16, spacing: null, side },
        ),
      );
    // Twelve discs of 3 mm radius lie half in, half out; four at corners lie a quarter in.
    const disc = regionArea(outlineOf({ circle: 10 })) * 0.36;
    expect(bite('outside')).toBeCloseTo(1600 + (12 * disc) / 2 + 4 * disc * 0.75, 1);
    expect(bite('inside')).toBeCloseTo(1600 - (12 * disc) / 2 - 4 * disc * 0.25, 1);
  });
  test('rows, holes, sizes and nudges', () => {
    expect(regionArea(worked({ width: 5, height: 5 }, { do: 'row', count: 4, pitch: 8, deg: 90 }))).toBeCloseTo(100, 6);
    expect(
      worked({ arc: { radius: 20, width: 6, from: 0, to: 360 } }, { do: 'drop-holes', below: null })[0].holes,
    ).toHaveLength(0);
    const sized = regionBox(worked({ width: 40, height: 10 }, { do: 'size', width: null, height: 30 }));
    expect(sized.max[0] - sized.min[0]).toBeCloseTo(120, 9);
    const square = [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ] as const;
    const nudged = worked(
      { polygon: square },
      {
        do: 'nudge',
        ring: 0,
        point: outlineOf({ polygon: square })[0].outer.findIndex((p) => p[0] === 0 && p[1] === 0),
        dx: -5,
        dy: 0,
      },
    );
    expect(regionArea(nudged)).toBeCloseTo(125, 6);
    expect(() => worked({ circle: 10 }, { do: 'offset', by: -6, corners: 'round' })).toThrow(
      /step 1 of "X" \(offset\) leaves nothing/,
    );
  });
  test('a shape as thin as a line is refused, at a thousandth of a mm it is not', () => {
    const high = (height: number) => worked({ circle: 10 }, { do: 'size', width: 20, height });
    expect(() => high(1e-320)).toThrow(/less than 0\.001 mm wide or high/);
    expect(() => high(0.00099)).toThrow(/less than 0\.001 mm/);
    expect(high(0.0011)).toHaveLength(1);
  });
  test('simplified within the tolerance, and the deviation is what was moved', () => {
    fc.assert(
      fc.property(size(0.05, 2), (tolerance) => {
        const before = outlineOf({ circle: 60 });
        const after = worked({ circle: 60 }, { do: 'simplify', tolerance });
        expect(after[0].outer.length).toBeLessThan(before[0].outer.length);
        expect(deviation(before, after)).toBeLessThanOrEqual(tolerance + 1e-6);
      }),
      { numRuns: 15 },
    );
  });
  test('the least trim of a disc for a contact c: its sagitta r - √(r² - c²/4)', () => {
    fc.assert(
      fc.property(size(20, 80), size(0.1, 0.8), (d, part) => {
        const c = d * part;
        const by = leastTrim(outlineOf({ circle: d }), 'top', c)!;
        expect(Math.abs(by - (d / 2 - Math.sqrt((d * d) / 4 - (c * c) / 4)))).toBeLessThan(0.02);
        expect(widthOfAll(contactsAt(trimmed(outlineOf({ circle: d }), 'top', by), d / 2 - by, 'top'))).toBeCloseTo(
          c,
          3,
        );
      }),
      { numRuns: 20 },
    );
    expect(leastTrim(outlineOf({ circle: 20 }), 'top', 30)).toBeNull();
    expect(
      withoutIntervals(
        [{ from: 0, to: 10 }],
        [
          { from: 2, to: 3 },
          { from: 9, to: 20 },
        ],
      ),
    ).toEqual([
      { from: 0, to: 2 },
      { from: 3, to: 9 },
    ]);
    expect(widthOfAll(levelAt(outlineOf({ arc: { radius: 20, width: 10, from: 0, to: 360 } }), 0))).toBeCloseTo(20, 9);
  });
  test('a figure folds on its axis of symmetry wherever it points', () => {
    fc.assert(
      fc.property(size(-80, 80), (deg) => {
        const axis = foldAxis(
          worked(
            {
              polygon: [
                [-30, 0],
                [0, -12],
                [30, 0],
                [0, 12],
              ],
            },
            { do: 'turn', deg },
            { do: 'subtract', with: { circle: 1 }, x: 0, y: 0, deg: 0 },
          ),
        );
        const off = Math.min(...[deg, deg + 90].map((a) => Math.abs(((axis.deg - a + 270) % 180) - 90)));
        expect(off).toBeLessThan(0.1);
        expect(axis.unlike).toBeLessThan(0.01);
      }),
      { numRuns: 12 },
    );
    expect(
      centreOfArea(
        outlineOf({
          polygon: [
            [0, 0],
            [30, 0],
            [0, 30],
          ],
        }),
      ),
    ).toEqual([expect.closeTo(10, 9), expect.closeTo(10, 9)]);
  });
});

describe('ties', () => {
  test('every island of every shipped alphabet is held, by ties of the width asked for', () => {
    for (const { id } of FONTS) {
      const region = textRegion({ string: 'ABDO 0468 &', font: id, size: 30 });
      const { region: tied, ties } = tieIslands(region, { width: 2, count: 2, turn: null });
      expect(islandsOf(tied)).toHaveLength(0);
      for (const t of ties) expect(t.lengthMm).toBeGreaterThan(0);
      expect(regionArea(tied)).toBeLessThanOrEqual(regionArea(region));
    }
  });
  test('stencil faces need none: their counters are open', () => {
    for (const { id, stencil } of FONTS)
      if (stencil) expect(islandsOf(textRegion({ string: 'OBAD', font: id, size: 30 }))).toHaveLength(0);
  });
  test('what hangs on nothing in a shape of paper is bridged, and nothing is cut out to its edge', () => {
    // A plate of 40 mm with a ring of 8 to 12 mm taken out of it: its eye, a disc of 8, hangs on nothing.
    const plate = [{ outer: rectangle(-20, -20, 20, 20), holes: [] }];
    const ring = subtract(outlineOf({ circle: 24 }), outlineOf({ circle: 16 }));
    const cut = subtract(plate, ring);
    const loose = looseParts(cut);
    expect(loose).toHaveLength(1);
    expect(regionArea(loose)).toBeCloseTo(Math.PI * 64, 0);
    const { region, ties } = tieParts(cut, { width: 3, count: 2, turn: 0 });
    expect(looseParts(region)).toEqual([]);
    expect(ties.map((t) => t.turnDeg)).toEqual([0, 180]);
    // Two bridges of 3 mm over a gap of 4 mm, a little more where the circles curve away.
    expect(regionArea(region) - regionArea(cut)).toBeGreaterThan(24);
    expect(regionArea(region) - regionArea(cut)).toBeLessThan(25);
    const { min, max } = regionBox(region);
    expect([min, max]).toEqual([
      [-20, -20],
      [20, 20],
    ]);
    expect(region).toHaveLength(1);
    expect(region[0].outer).toHaveLength(4);
    // Letters that stand side by side are parts of their own, and a ring holds together.
    expect(looseParts(outlineOf({ path: 'M0 0H5V5H0ZM20 0H25V5H20Z' }))).toEqual([]);
    expect(looseParts(ring)).toEqual([]);
  });
  test('a ring: ties of width w take w x (outer - inner radius) each, where they are put', () => {
    const ring = outlineOf({ arc: { radius: 30, width: 10, from: 0, to: 360 } });
    const { region, ties } = tieIslands(ring, { width: 3, count: 3, turn: 90, moved: [] });
    expect(ties.map((t) => t.turnDeg)).toEqual([90, 210, 330]);
    expect(regionArea(ring) - regionArea(region)).toBeCloseTo(3 * 3 * 10, 0);
    expect(tieIslands(ring, { width: 3, count: 1, turn: 0, moved: [{ island: 0, turn: 45 }] }).ties[0].turnDeg).toBe(
      45,
    );
  });
});

describe('text', () => {
  test.each(FONTS.map((f) => [f.id]))("%s: cap height, advance and size are the font's own", (id) => {
    const font = fontOf(id);
    const [size, em] = [50, font.unitsPerEm];
    const H = letters({ string: 'H', font: id, size })[0].region;
    const cap = font.tables.os2?.sCapHeight;
    // OS/2 sCapHeight of the font file (one of them gives it 3 % off its own H); an H stands on the base line and
    // reaches it.
    if (cap) expect(Math.abs(regionBox(H).max[1] - (cap * size) / em)).toBeLessThan(0.04 * size);
    expect(Math.abs(regionBox(H).min[1])).toBeLessThan(0.02 * size);
    const two = letters({ string: 'HH', font: id, size });
    const step = regionBox(two[1].region).min[0] - regionBox(two[0].region).min[0];
    expect(Math.abs(step - (font.charToGlyph('H').advanceWidth * size) / em)).toBeLessThan(0.05 * size);
    expect(regionArea(letters({ string: 'H', font: id, size: 100 })[0].region) / regionArea(H)).toBeCloseTo(4, 2);
  });
  test('at least eight faces, two of them stencils; a font or letter that is not there is named', () => {
    expect(FONTS.length).toBeGreaterThanOrEqual(8);
    expect(FONTS.filter((f) => f.stencil).length).toBeGreaterThanOrEqual(2);
    expect(() => outlineOf({ text: { string: 'A', font: 'nope', size: 9 } })).toThrow(/no font "nope"; known are/);
    expect(() => outlineOf({ text: { string: '日', font: 'lora', size: 9 } })).toThrow(/no letter "日"/);
    expect(() => outlineOf({ text: { string: ' ', font: 'lora', size: 9 } })).toThrow(/no area/);
  });
  test('spacing sets letters further apart, lines go down', () => {
    const gap = (spacing: number): number =>
      regionBox(textRegion({ string: 'HI', font: 'cinzel', size: 20, spacing })).max[0];
    expect(gap(7) - gap(0)).toBeCloseTo(7, 6);
    expect(regionBox(textRegion({ string: 'H\nH', font: 'cinzel', size: 20 })).min[1]).toBeCloseTo(-24, 1);
  });
});

test('the starter set: at least thirty clean silhouettes, each with area, one part where it stands', () => {
  expect(STARTER_SHAPES.length).toBeGreaterThanOrEqual(30);
  expect(new Set(STARTER_SHAPES.map((s) => s.id)).size).toBe(STARTER_SHAPES.length);
  for (const s of STARTER_SHAPES) {
    const r = standing(outlineOf(s.source), 60);
    expect(regionArea(r)).toBeGreaterThan(100);
    expect(r.every((p) => contains(p, p.outer[0]) !== undefined)).toBe(true);
    expect([s.id, r.length]).toEqual([s.id, 1]);
  }
});
test('a shape made of itself, or of one that is not there, says so', () => {
  const shelf = new Map([
    ['a', { id: 'a', name: 'A', source: { asset: 'b' }, steps: [] }],
    ['b', { id: 'b', name: 'B', source: { asset: 'a' }, steps: [] }],
  ]);
  expect(() => outlineOf({ asset: 'a' }, shelf)).toThrow(/made of itself/);
  expect(() => outlineOf({ asset: 'z' }, shelf)).toThrow(/no shape "z"/);
});

const distance = (p: Vec2, a: Vec2, b: Vec2): number => {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
};
