/**
 * Whole templates: our own exports come back exactly, roles are guessed from what files say, faults are found and
 * mended.
 */
import interpolate from 'b-spline';
import { openTo } from '../drives';
import fc from 'fast-check';
import { foldDeg, poseOpen } from '../assembly/pose';
import { findFaults, mend, type TemplateLine } from '../pattern/mending';
import { joinPerforations } from '../pattern/perforations';
import { polygonArea } from '../plane/polygon';
import { distToSegment } from '../plane/vec2';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import { prove } from '../proof/prove';
import { checkDesign } from '../document/schema';
import { withTemplate } from '../build/bring';
import { buildTemplate, templateLines } from '../build/template';
import type { Template } from '../document/template';
import type { Vec2 } from '../plane/vec2';
import { drawPieces } from '../sheets/drawing';
import { exportDesign } from './export';
import { guessRole, readTemplate } from './template-read';

const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
const templateOf = (svg: string, name = 'card.svg', change: Partial<Template> = {}): Template => {
  const read = readTemplate(svg, name);
  return {
    name: 'card',
    scale: 1,
    mended: false,
    lines: read.lines,
    groups: read.groups.map(({ key, layer, colour, dashed, role }) => ({ key, layer, colour, dashed, role })),
    picked: {},
    lead: null,
    ...change,
  };
};
const as = (template: Template): Design => {
  const d = blankDesign('t');
  return { ...d, card: { ...d.card, template } };
};
const stepAnd = (shape: { circle: number } | { path: string }): Design =>
  addMechanism(
    addMechanism(blankDesign('t', 200, 120), 'step-fold', 'card.gutter', {
      depth: 31.7,
      height: 22.3,
      width: 60,
      offset: 7,
    }).design,
    'strut-figure',
    'card.gutter',
    { shape, depth: 18, offset: -60 },
  ).design;
const step = stepAnd({ circle: 40 });

describe.each(['svg', 'dxf'] as const)('round trip by %s', (format) => {
  test('paper, creases and pose are the same', async () => {
    const own = buildAssembly(step);
    const back = buildAssembly(
      as(templateOf(text(await exportDesign(step, { format, state: openTo(90) }, own)), `card.${format}`)),
    );
    expect(back.misfits).toEqual([]);
    expect(back.facets.length).toBe(own.facets.length);
    const areas = (a: typeof own): number[] => a.facets.map((f) => polygonArea(f.polygon)).sort((x, y) => x - y);
    // The file has the true curve, which leaves the chords on either side by at most what curves are drawn with: 0.01
    // mm along the 126 mm round the disc.
    areas(back).forEach((v, i) => expect(Math.abs(v - areas(own)[i])).toBeLessThan(Math.max(1e-6 * v, 2 * 0.01 * 126)));
    const folds = (a: typeof own): number[] => a.creases.map((c) => foldDeg(poseOpen(a, 70), c)).sort((x, y) => x - y);
    folds(back).forEach((v, i) => expect(v).toBeCloseTo(folds(own)[i], 5));
    expect(
      prove(
        as(templateOf(text(await exportDesign(step, { format, state: openTo(90) }, own)), `card.${format}`)),
        6,
      ).findings.map((f) => f.rule),
    ).toEqual(expect.not.arrayContaining(['flat-fold', 'collision', 'loose-part', 'overhang']));
  });
});

const drawn = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="160mm" viewBox="0 0 200 160">
  <g id="Cut lines" fill="none" stroke="#000"><rect x="10" y="10" width="180" height="140"/><path d="M70 60V110M130 60V110"/></g>
  <g id="Folds" fill="none" stroke="#00f" stroke-dasharray="4 2"><path d="M10 80H70"/><path d="M130 80H190"/><path d="M70 60H130"/><path d="M70 110H130"/></g>
  <g id="Mountain" fill="none" stroke="#f00" stroke-dasharray="4 2"><path d="M70 90H130"/></g></svg>`;

test(
  'a drawing with its layers named becomes a card that poses as a step: |ridge| folds as ' + 'docs/mechanisms.md says',
  () => {
    const a = buildAssembly(as(templateOf(drawn)));
    expect(a.misfits).toEqual([]);
    expect(a.facets).toHaveLength(4);
    for (const open of [150, 90, 30]) {
      const pose = poseOpen(a, open);
      expect(pose.stop).toBeUndefined();
      // A parallelogram step: every valley folds as the gutter does, the ridge the other way.
      for (const c of a.creases) expect(foldDeg(pose, c)).toBeCloseTo(c.role === 'valley' ? 180 - open : open - 180, 6);
    }
    expect(prove(as(templateOf(drawn)), 6).findings.some((f) => f.rule === 'collision')).toBe(false);
  },
);
test('scaled as one; other mechanisms stand on it; the document is valid', () => {
  const big = as(templateOf(drawn, 'card.svg', { scale: 1.1 }));
  const [one, scaled] = [buildAssembly(as(templateOf(drawn))), buildAssembly(big)].map((a) =>
    polygonArea(a.pieces[0].outline),
  );
  expect(scaled / one).toBeCloseTo(1.21, 9);
  const more = addMechanism(big, 'step-fold', 'card.crease-1', { depth: 8, height: 8, width: 10 }).design;
  expect(checkDesign(JSON.parse(JSON.stringify(more))).ok).toBe(true);
  expect(buildAssembly(more).facets.length).toBeGreaterThan(buildAssembly(big).facets.length);
});
test('several pieces are told apart; a closed cut inside is a window', () => {
  const two = drawn.replace(
    '</svg>',
    '<circle cx="40" cy="120" r="8" fill="none" stroke="#000" id="eye"/><rect x="300" y="10" ' +
      'width="40" height="30" fill="none" stroke="#000"/></svg>',
  );
  const a = buildAssembly(as(templateOf(two)));
  expect(a.pieces.map((p) => p.id)).toEqual(['card', 'card-part-2']);
  expect(a.pieces[0].outline.holes).toHaveLength(1);
  expect(a.facets).toHaveLength(4);
});
test.each<[string, string, string, boolean, string]>([
  ['valley', '', '#000000', false, 'valley'],
  ['', 'Fold lines', '#000000', false, 'valley'],
  ['', 'mountain', '#000', true, 'mountain'],
  ['', 'outline', '#f00', false, 'cut'],
  ['', 'Layer 1', '#0000ff', false, 'valley'],
  ['', 'Layer 1', '#ff0000', false, 'mountain'],
  ['', 'Layer 1', '#000000', true, 'valley'],
  ['', 'Layer 1', '#333', false, 'cut'],
  ['', 'glue tabs', '#0f0', false, 'glue'],
  ['', 'Layer 1', 'rgb(0, 0, 255)', false, 'valley'],
  ['', 'Layer 1', 'crimson', false, 'mountain'],
  ['', 'Layer 1', 'hsl(0 0% 20%)', false, 'cut'],
  ['', 'Layer 1', 'lavender', false, 'cut'],
  ['', 'Layer 1', 'url(#g)', false, 'cut'],
  ['', 'Layer 1', 'red', true, 'mountain'],
  ['', 'Layer 1', '#00f', true, 'valley'],
])('role of "%s" on "%s", %s, dashed %s: %s', (said, layer, colour, dashed, role) =>
  expect(guessRole(said, layer, colour, dashed)).toBe(role),
);

test('dashes of two lengths are mountains, of one length valleys, however they are written', () => {
  const lines = [
    ['4 2', 'valley'],
    ['4,2,1,2', 'mountain'],
    ['4 2 1', 'mountain'],
    ['3', 'valley'],
    ['3 1 3 2', 'valley'],
    ['none', 'cut'],
  ].map(
    ([dash, want], k) =>
      [
        `<g id="Layer ${k}" fill="none" stroke="#000" stroke-dasharray="${dash}"><path d="M0 ${k}H90"/></g>`,
        want,
      ] as const,
  );
  const { groups } = readTemplate(
    `<svg xmlns="http://www.w3.org/2000/svg">${lines.map(([g]) => g).join('')}</svg>`,
    'x.svg',
  );
  expect(groups.map((g) => g.role)).toEqual(lines.map(([, want]) => want));
});

describe('DXF (reference of its ASCII form, group codes by entity)', () => {
  const file = (entities: string, blocks = ''): string =>
    `0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
  const codes = (...pairs: (number | string)[]): string => pairs.map((v) => `${v}\n`).join('');
  const spline = (
    degree: number,
    knots: readonly number[],
    points: readonly (readonly [number, number])[],
    flags = 8,
  ): string =>
    codes(
      0,
      'SPLINE',
      8,
      'cut',
      70,
      flags,
      71,
      degree,
      72,
      knots.length,
      73,
      points.length,
      ...knots.flatMap((u) => [40, u]),
      ...points.flatMap(([x, y]) => [10, x, 20, y, 30, 0]),
    );
  const read = (text: string) => readTemplate(text, 'x.dxf');
  test('a spline of many spans runs where it does as a whole (the package b-spline, all knots at once)', () => {
    const real = fc.double({ min: -40, max: 40, noNaN: true });
    fc.assert(
      fc.property(fc.array(real, { minLength: 6, maxLength: 14 }), fc.nat(3), (heights, repeated) => {
        const points = heights.map((y, k): [number, number] => [12 * k, y]);
        const inner = Array.from({ length: points.length - 4 }, (_, k) => k + 1);
        // One of them twice: a corner of its curvature.
        if (inner.length > repeated + 1) inner[repeated + 1] = inner[repeated];
        const last = points.length - 3;
        const knots = [0, 0, 0, 0, ...inner, last, last, last, last];
        const drawn = read(file(spline(3, knots, points))).lines[0].points;
        const whole = Array.from({ length: 4001 }, (_, k) => interpolate(k / 4000, 3, points, knots));
        for (const [x, y] of drawn) {
          const off = whole.reduce((least, [u, v]) => Math.min(least, Math.hypot(u - x, v - y)), Infinity);
          expect(off).toBeLessThan(0.2);
        }
        for (const [x, y] of whole.filter((_, k) => k % 97 === 0)) {
          // One that comes back to where it began is closed, its last point left out.
          const ends = [...drawn.slice(1), drawn[0]].map((b, k) => distToSegment([x, y], drawn[k], b));
          expect(Math.min(...ends)).toBeLessThan(0.02);
        }
      }),
      { numRuns: 20 },
    );
  });
  test(
    'a spline of one span is its Bézier curve: ends on the first and last point, half way at the ' + 'mean of thirds',
    () => {
      const [{ points }] = read(
        file(
          spline(
            3,
            [0, 0, 0, 0, 1, 1, 1, 1],
            [
              [0, 0],
              [0, 30],
              [40, 30],
              [40, 0],
            ],
          ),
        ),
      ).lines;
      expect([points[0], points.at(-1)]).toEqual([
        [0, 0],
        [40, 0],
      ]);
      // (0 + 3 * 30 + 3 * 30 + 0) / 8
      expect(Math.max(...points.map((p) => p[1]))).toBeCloseTo(22.5, 3);
    },
  );
  test(
    'a quadratic spline of several spans is made of parabolas that meet at the middles of its ' +
      'legs (uniform knots)',
    () => {
      const legs: [number, number][] = [
        [0, 0],
        [20, 0],
        [20, 20],
        [40, 20],
        [40, 0],
      ];
      const [{ points }] = read(file(spline(2, [0, 0, 0, 1, 2, 3, 3, 3], legs))).lines;
      for (const [x, y] of [
        [20, 10],
        [30, 20],
      ])
        expect(Math.min(...points.map((p) => Math.hypot(p[0] - x, p[1] - y)))).toBeLessThan(1e-6);
      expect(points.length).toBeGreaterThan(20);
    },
  );
  test('any affine image of a spline is the spline of the image of its points', () => {
    const knots = [0, 0, 0, 0, 1, 3, 4, 4, 4, 4];
    const place = fc.tuple(
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.double({ min: -50, max: 50, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(place, { minLength: 6, maxLength: 6 }), place, (points, [dx, dy]) => {
        const [a, b] = [points, points.map(([x, y]): [number, number] => [dx - y, dy + x])].map(
          (p) => read(file(spline(3, knots, p))).lines[0].points,
        );
        const far = (p: readonly [number, number], line: typeof a): number =>
          Math.min(...line.slice(1).map((q, i) => distToSegment(p, line[i], q)));
        for (const [x, y] of a) expect(far([dx - y, dy + x], b)).toBeLessThan(0.021);
      }),
      { numRuns: 25 },
    );
  });
  test('rational splines and knots that do not fit are left out and named', () => {
    const line = codes(0, 'LINE', 8, 'cut', 10, 0, 20, 0, 11, 9, 21, 0);
    for (const bad of [
      spline(
        3,
        [0, 0, 0, 0, 1, 1, 1, 1],
        [
          [0, 0],
          [1, 1],
          [2, 1],
          [3, 0],
        ],
        12,
      ),
      spline(
        3,
        [0, 1],
        [
          [0, 0],
          [1, 1],
          [2, 1],
          [3, 0],
        ],
      ),
    ]) {
      const t = read(file(line + bad));
      expect([t.lines.length, t.leftOut]).toEqual([1, ['spline']]);
    }
  });
  test('a block is drawn where it is inserted: scaled, then turned, then moved (INSERT, codes 41, 50, 10)', () => {
    const block = codes(
      0,
      'BLOCK',
      8,
      '0',
      2,
      'tab',
      70,
      0,
      10,
      1,
      20,
      0,
      0,
      'LINE',
      8,
      'folds',
      10,
      1,
      20,
      0,
      11,
      11,
      21,
      0,
      0,
      'ENDBLK',
    );
    const t = read(file(codes(0, 'INSERT', 8, '0', 2, 'tab', 10, 50, 20, 60, 41, 2, 42, 2, 50, 90), block));
    expect(t.lines[0].points.map((p) => p.map((v) => Number(v.toFixed(9))))).toEqual([
      [50, 60],
      [50, 80],
    ]);
    expect(t.groups[0].role).toBe('valley');
  });
  test('a block that holds itself ends, and is named', () => {
    const block = codes(
      0,
      'BLOCK',
      8,
      '0',
      2,
      'loop',
      70,
      0,
      10,
      0,
      20,
      0,
      0,
      'LINE',
      8,
      'cut',
      10,
      0,
      20,
      0,
      11,
      9,
      21,
      0,
      0,
      'INSERT',
      8,
      '0',
      2,
      'loop',
      10,
      1,
      20,
      1,
      0,
      'ENDBLK',
    );
    const t = read(file(codes(0, 'INSERT', 8, '0', 2, 'loop', 10, 0, 20, 0), block));
    expect(t.leftOut).toEqual(['insert']);
    expect(t.lines.length).toBeLessThan(20);
  });
});

describe('perforated creases', () => {
  // Of straight lines: where a crease ends on a curve, its length may change by what curves are drawn with.
  const plain = stepAnd({ path: 'M-20 0L-14 -38L9 -40L20 0Z' });
  const perforated: Design = {
    ...plain,
    making: {
      ...plain.making,
      roles: { valley: { way: 'perforate', cutMm: 3, gapMm: 2 }, mountain: { way: 'perforate', cutMm: 2.5, gapMm: 1 } },
    },
  };
  /** Lines to a hundredth of a millimetre; the corners of a closed one in any order, since it may start at any. */
  const dashes = (svg: string): string[] =>
    [...svg.matchAll(/ d="([^"]*)"/g)]
      .map(([, d]) => d.replace(/-?[\d.]+/g, (n) => Number(n).toFixed(2)))
      .map((d) =>
        d.endsWith('Z')
          ? d
              .split(/ ?[MLZ]/)
              .sort()
              .join()
          : d,
      )
      .sort();
  test.each(['svg', 'dxf'] as const)(
    'come back from %s as the creases they stand for, and are cut the same again',
    async (format) => {
      const template = templateOf(
        text(await exportDesign(perforated, { format, state: openTo(90) })),
        `card.${format}`,
      );
      expect(findFaults(templateLines(template))).toEqual([]);
      const back = withTemplate(blankDesign('back'), template);
      const [own, again] = [buildAssembly(plain), buildAssembly(back)];
      expect(again.facets).toHaveLength(own.facets.length);
      const folds = (a: typeof own): string[] => a.creases.map((c) => foldDeg(poseOpen(a, 70), c).toFixed(4)).sort();
      expect(folds(again)).toEqual(folds(own));
      const [first, second] = await Promise.all(
        [perforated, back].map(async (d) => dashes(text(await exportDesign(d, { format: 'svg', state: openTo(90) })))),
      );
      expect(second).toHaveLength(first.length);
      expect(second).toEqual(first);
      expect(checkDesign(JSON.parse(JSON.stringify(back))).ok).toBe(true);
    },
  );
  const line = (id: string, role: TemplateLine['role'], ...points: TemplateLine['points']): TemplateLine => ({
    id,
    role,
    points,
    closed: false,
  });
  const edge: TemplateLine = { ...line('edge', 'cut', [0, 0], [100, 0], [100, 80], [0, 80]), closed: true };
  test('any even row of dashes, at any turn, becomes one crease from edge to edge', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 12 }),
        fc.double({ min: 0.25, max: 0.8, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (count, share, deg) => {
          const pitch = 100 / count;
          fc.pre(pitch * (1 - share) < 6);
          const t = (deg * Math.PI) / 180;
          const turn = (l: TemplateLine): TemplateLine => ({
            ...l,
            points: l.points.map(
              ([x, y]) => [x * Math.cos(t) - y * Math.sin(t), x * Math.sin(t) + y * Math.cos(t)] as const,
            ),
          });
          const row = Array.from({ length: count }, (_, k) =>
            line(`d${k}`, 'perforation', [(k + (1 - share) / 2) * pitch, 40], [(k + (1 + share) / 2) * pitch, 40]),
          );
          const [, crease, ...more] = joinPerforations([edge, ...row].map(turn));
          expect(more).toEqual([]);
          expect(crease.joined).toHaveLength(count);
          expect(
            Math.hypot(crease.points[1][0] - crease.points[0][0], crease.points[1][1] - crease.points[0][1]),
          ).toBeCloseTo(100, 6);
          expect(crease.making).toEqual({
            way: 'perforate',
            cutMm: expect.closeTo(pitch * share, 2),
            gapMm: expect.closeTo(pitch * (1 - share), 2),
          });
        },
      ),
      { numRuns: 60 },
    );
  });
  test('a slit between two rows parts them; another role is another crease; whole lines stay whole', () => {
    const rows = (role: TemplateLine['role'], from: number, to: number): TemplateLine[] =>
      Array.from({ length: (to - from) / 5 }, (_, k) =>
        line(`${role}${from + 5 * k}`, role, [from + 5 * k + 1, 40], [from + 5 * k + 4, 40]),
      );
    const slit = line('slit', 'cut', [50, 20], [50, 60]);
    expect(
      joinPerforations([edge, slit, ...rows('perforation', 0, 100)])
        .slice(2)
        .map((l) => l.points.map((p) => p[0])),
    ).toEqual([
      [0, 50],
      [50, 100],
    ]);
    expect(
      joinPerforations([edge, ...rows('perforation', 0, 50), ...rows('perforation-mountain', 50, 100)])
        .slice(1)
        .map((l) => l.role),
    ).toEqual(['perforation', 'perforation-mountain']);
    const whole = [edge, line('fold', 'perforation', [0, 40], [100, 40])];
    expect(joinPerforations(whole)).toEqual(whole);
  });
  test('a crease too short for one dash is scored, so that it is not lost', () => {
    const short = buildAssembly(perforated);
    const tiny: Design = {
      ...perforated,
      making: { ...perforated.making, all: { way: 'perforate', cutMm: 50, gapMm: 50 }, roles: {} },
    };
    const lines = drawPieces(tiny, short).flatMap((d) => d.lines);
    for (const c of short.creases) expect(lines.some((l) => l.id === c.id)).toBe(true);
  });
});

describe('faults', () => {
  const line = (
    id: string,
    role: TemplateLine['role'],
    points: TemplateLine['points'],
    closed = false,
  ): TemplateLine => ({ id, role, points, closed });
  const sheet = line(
    'edge',
    'cut',
    [
      [0, 0],
      [100, 0],
      [100, 80],
      [0, 80],
    ],
    true,
  );
  test('an open outline, a doubled line, a crease that ends in air: found, named, mended', () => {
    const lines = [
      line('open', 'cut', [
        [0, 0],
        [100, 0],
        [100, 80],
        [0, 80],
        [0, 0.8],
      ]),
      line('gutter', 'valley', [
        [0, 40],
        [97.5, 40],
      ]),
      line('again', 'cut', [
        [10, 40],
        [60, 40],
      ]),
    ];
    const faults = findFaults(lines);
    expect(faults.map((f) => f.kind).sort()).toEqual(['air', 'doubled', 'gap', 'gap']);
    expect(faults.find((f) => f.kind === 'air')!.mm).toBeCloseTo(2.5, 9);
    const mended = mend(lines);
    expect(findFaults(mended)).toEqual([]);
    expect(mended.map((l) => l.id)).toEqual(['open', 'gutter']);
    expect(mended[1].points[1][0]).toBeCloseTo(100, 9);
    expect(mended[0].closed).toBe(true);
  });
  test('a sound drawing has none, and mending leaves it as it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 75, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (y, deg) => {
          const t = (deg * Math.PI) / 180;
          const turned = [
            sheet,
            line('fold', 'valley', [
              [0, y],
              [100, y],
            ]),
          ].map((l) => ({
            ...l,
            points: l.points.map(
              ([a, b]) => [a * Math.cos(t) - b * Math.sin(t), a * Math.sin(t) + b * Math.cos(t)] as const,
            ),
          }));
          expect(findFaults(turned)).toEqual([]);
          expect(mend(turned)).toEqual(turned);
        },
      ),
      { numRuns: 30 },
    );
  });
  test('with its creases as plain cuts a file says what is missing; picked, it folds', () => {
    const plain = drawn
      .replaceAll('id="Folds"', 'id="a"')
      .replaceAll('id="Mountain"', 'id="b"')
      .replaceAll(' stroke="#00f" stroke-dasharray="4 2"', ' stroke="#000"')
      .replaceAll(' stroke="#f00" stroke-dasharray="4 2"', ' stroke="#000"');
    const t = templateOf(plain);
    expect(() => buildTemplate(t, 'card-240')).toThrow(/nothing to open/);
    const roles = Object.fromEntries(
      t.lines
        .filter((l) => /^(a|b)\|/.test(l.group))
        .map((l) => [l.id, l.group.startsWith('a|') ? ('valley' as const) : ('mountain' as const)]),
    );
    expect(buildAssembly(as({ ...t, picked: roles })).facets).toHaveLength(4);
  });
  test.each([
    ['binary', 'a\0b', /binary/],
    ['no lines', '<svg xmlns="http://www.w3.org/2000/svg"></svg>', /no lines/],
    ['not DXF', '0\nSECTION\nbroken', /not ASCII DXF|no lines/],
  ])('%s is refused', (_, content, why) => expect(() => readTemplate(content, 'x.svg')).toThrow(why));
});

test.each(['svg', 'dxf'] as const)(
  'creases drawn on without lifting come back from %s as creases of their own',
  async (format) => {
    // Glue lines and spine of a V-fold meet in its point, and are one path of valleys in the file.
    const own = addMechanism(blankDesign('v', 200, 120), 'v-fold', 'card.gutter', { fold: 70, lean: 50 }).design;
    const template = templateOf(
      text(await exportDesign(own, { format, piece: 'v-fold-1.panels' })),
      `panels.${format}`,
    );
    const back = buildAssembly(withTemplate(blankDesign('back'), template));
    const sizes = (list: readonly { readonly a: Vec2; readonly b: Vec2 }[]): string[] =>
      list.map(({ a, b }) => Math.hypot(b[0] - a[0], b[1] - a[1]).toFixed(3)).sort();
    // Scored where there is paper on both sides: past the ends of the tabs the glue lines are edges.
    const meant = buildAssembly(own).creases.filter((c) => c.piece === 'v-fold-1.panels');
    expect(sizes(back.pieces[0].creases)).toEqual(sizes(meant.flatMap((c) => c.segments)));
  },
);
