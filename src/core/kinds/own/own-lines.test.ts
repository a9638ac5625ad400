/** Lines of one's own against the kinds they rebuild, plane geometry worked out here, and the door they come in by. */
import fc from 'fast-check';
import { buildAssembly, DesignError, tryBuild } from '../../build/build';
import { ownHoldOf } from '../../build/own-ends';
import { ownRoleChoices } from '../../build/own-roles';
import { turnedPlain } from '../../build/plain';
import type { Design } from '../../document/design';
import { setParameter } from '../../document/fields';
import { labelOfLever } from '../../document/words';
import { checkDesign } from '../../document/schema';
import { restOf } from '../../drives';
import { shelveFonts } from '../../../fonts/shelve';
import { poseAt } from '../../assembly/pose';
import { findFacets } from '../../pattern/facets';
import { regionArea } from '../../plane/polygon';
import { applyRigid, type Vec3 } from '../../linkage';
import { WELD_MM } from '../../tolerance';
import { prove } from '../../proof/prove';
import { card, findings, stand } from '../../tests/cards';
import { demoCards } from '../../tests/demo';
import { apart } from '../../tests/poses';
import type { ParameterValues } from '../kind';
import { amountIn } from './amount';
import { withSpot, type OwnLine } from './own-line';

beforeAll(shelveFonts);

const own = (lines: readonly OwnLine[], numbers: Readonly<Record<string, number>> = {}, d = card(), on?: string) =>
  stand(
    d,
    'own-lines',
    { lines, numbers: Object.entries(numbers).map(([name, value]) => ({ name, value })) } as ParameterValues,
    on,
  );
/** Ends of an own crease as it lies on the piece; the gutter of the test card is its x axis. */
function creaseEnds(d: Design, id: string) {
  const { pieces } = buildAssembly(d);
  const crease = pieces.flatMap((p) => p.creases).find((c) => c.id === id);
  return crease && [crease.a, crease.b];
}
const near = (found: unknown, wanted: readonly (readonly [number, number])[]) => {
  const points = found as readonly (readonly [number, number])[];
  expect(points).toHaveLength(wanted.length);
  points.forEach((p, i) => p.forEach((v, k) => expect(v).toBeCloseTo(wanted[i][k], 9)));
};

/** A step drawn by hand: two slits, the fold between them ended, three creases (docs/mechanisms.md, `step-fold`). */
const STEP: readonly OwnLine[] = [
  { name: 'slit', role: 'cut', from: { x: 'w/2', y: '-b' }, to: { x: 'w/2', y: 'a' }, mirror: 'middle' },
  { name: 'gap', role: 'open', from: { x: '-w/2' }, to: { x: 'w/2' } },
  { name: 'base', role: 'valley', from: { x: '-w/2', y: 'a' }, to: { x: 'w/2', y: 'a' } },
  { name: 'ridge', role: 'mountain', from: { x: '-w/2', y: 'a-b' }, to: { x: 'w/2', y: 'a-b' } },
  { name: 'wall', role: 'valley', from: { x: '-w/2', y: '-b' }, to: { x: 'w/2', y: '-b' } },
];

describe('a step drawn by hand', () => {
  test('is where the kind has it, for any sizes and openings', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 45, noNaN: true }),
        fc.double({ min: 5, max: 45, noNaN: true }),
        fc.double({ min: 10, max: 80, noNaN: true }),
        fc.double({ min: 0, max: 180, noNaN: true }),
        (a, b, w, open) => {
          fc.pre(Math.abs(a - b) > 0.5);
          const kind = buildAssembly(stand(card(), 'step-fold', { depth: a, height: b, width: w }));
          const mine = buildAssembly(own(STEP, { a, b, w }));
          const corners = (assembly: typeof mine, facet: RegExp): Vec3[] => {
            const i = assembly.facets.findIndex((f) => facet.test(f.id));
            const { placed } = poseAt(assembly, { open });
            return assembly.facets[i].polygon.outer.map(([x, y]) => applyRigid(placed[i], [x, y, 0]));
          };
          const riser = corners(kind, /riser/);
          for (const p of corners(mine, /base-right/))
            expect(Math.min(...riser.map((q) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])))).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 40 },
    ));

  test('proves clear, carries others on its ridge, and goes with its named sizes', () => {
    const d = own(STEP, { a: 30, b: 20, w: 50 });
    const on = stand(d, 'step-fold', { depth: 6, height: 6, width: 20 }, 'own-lines-1.ridge');
    const assembly = buildAssembly(on);
    expect(assembly.misfits).toEqual([]);
    expect(poseAt(assembly, { open: 0 }).stop).toBeUndefined();
    const wider = setParameter(d, 'own-lines-1', 'numbers[2].value', 64);
    expect(labelOfLever(d, 'own-lines-1', 'numbers[2].value')).toBe('w');
    near(creaseEnds(wider, 'own-lines-1.wall'), [
      [-32, -20],
      [32, -20],
    ]);
    const measures = buildAssembly(d).mechanisms.find((m) => m.id === 'own-lines-1')!;
    expect(measures.landmarks.map((l) => l.name)).toEqual(['base', 'ridge', 'wall']);
  });

  test('that reaches past the fore edge is found by the same rule, with a remedy that turns a named size', () => {
    const d = own(STEP, { a: 60, b: 45, w: 50 });
    const found = prove(d).findings.find((f) => f.rule === 'overhang')!;
    expect(found.measured).toBeCloseTo(60 + 45 - 100, 6);
    const sizes = found.remedies!.filter((r) => r.parameter.startsWith('numbers['));
    expect(sizes.length).toBeGreaterThan(0);
    for (const { mechanism, parameter, value } of sizes)
      expect(findings(setParameter(d, mechanism, parameter, value), 'overhang')).toEqual([]);
  });
});

describe('every kind', () => {
  const all = demoCards().flatMap(([file, d]) => d.mechanisms.map((m) => [`${file}, ${m.kind}`, d, m.id] as const));
  // Corners in line, closer than points are welded, are one line.
  test.each(all)('%s poses as plain lines as it did', (_, d, id) => {
    const read = checkDesign(JSON.parse(JSON.stringify(turnedPlain(d, id))));
    if (!read.ok) throw new Error(read.why);
    const [kind, plain] = [buildAssembly(d), buildAssembly(read.design)];
    expect(plain.misfits).toHaveLength(kind.misfits.length);
    const rest = restOf(kind.drives);
    for (const open of [0, 37, 180]) expect(apart(kind, plain, { ...rest, open })).toBeLessThan(WELD_MM);
    expect(restOf(plain.drives)).toEqual(rest);
  });

  test('of the house is among them', () => {
    const kinds = new Set(all.map(([, d, id]) => d.mechanisms.find((m) => m.id === id)!.kind));
    // What stands in no demo card is put on one here.
    for (const [kind, values] of [
      ['half-cut', { shape: { circle: 40 }, rise: 12 }],
      ['v-fold', {}],
      ['pocket', {}],
      ['z-window', {}],
      ['lift-tab', {}],
      ['waterfall', {}],
      ['carrier-wheel', {}],
      ['track-slider', {}],
      ['leaf-bundle', {}],
    ] as const) {
      if (kinds.has(kind)) continue;
      const d = stand(card(), kind, values);
      const [before, after] = [buildAssembly(d), buildAssembly(turnedPlain(d, `${kind}-1`))];
      expect(apart(before, after, restOf(before.drives))).toBeLessThan(1e-6);
    }
    expect(() => turnedPlain(card(), 'step-fold-1')).toThrow(DesignError);
  });
});

describe('where a line runs', () => {
  const base: OwnLine = { name: 'l', role: 'valley', from: { x: -20, y: 30 }, to: { x: 40, y: 30 } };
  const ends = (line: OwnLine, d?: Design) => creaseEnds(own([base, line], { n: 7 }, d), 'own-lines-1.t');

  test('between a fraction of a line and a corner of a facet', () =>
    near(
      ends({
        name: 't',
        role: 'valley',
        from: { of: 'l', at: 0.25, y: 'n' },
        to: { of: 'leafA', at: { x: 'high', y: 'high' } },
      }),
      [
        [-5, 37],
        [100, 100],
      ],
    ));
  test('beside another, to its left, inside of its ends', () =>
    near(ends({ name: 't', role: 'mountain', beside: 'l', mm: 'n*2', start: 5, end: -3 }), [
      [-15, 44],
      [43, 44],
    ]));
  test('beside a crease of the card', () =>
    near(ends({ name: 't', role: 'valley', beside: 'card.gutter', mm: -12 }), [
      [-100, -12],
      [100, -12],
    ]));
  test('right across a facet at a part of it', () =>
    near(ends({ name: 't', role: 'valley', facet: 'leafB', part: 0.25, way: 'across' }), [
      [-50, -100],
      [-50, 0],
    ]));
  test('along corners, one crease a stretch', () => {
    const d = own([{ name: 'z', role: 'valley', corners: [{ x: -100, y: 40 }, { y: 50 }, { x: 100, y: 40 }] }]);
    near(creaseEnds(d, 'own-lines-1.z'), [
      [-100, 40],
      [0, 50],
    ]);
    near(creaseEnds(d, 'own-lines-1.z-s2'), [
      [0, 50],
      [100, 40],
    ]);
  });
  test('again in a row, and mirrored about the fold and its middle', () => {
    const line: OwnLine = { name: 't', role: 'cut', from: { x: 10, y: 10 }, to: { x: 20, y: 15 } };
    const d = own([{ ...line, mirror: 'both', repeat: { times: 3, x: 'n', y: 1 } }], { n: 20 });
    const cuts = buildAssembly(d)
      .pieces.find((p) => p.id === 'card')!
      .lines.filter((l) => l.role === 'cut');
    const wanted = [0, 1, 2].flatMap((k) =>
      [1, -1].flatMap((u) => [1, -1].map((v) => [u * (10 + 20 * k), v * (10 + k), u * (20 + 20 * k), v * (15 + k)])),
    );
    const sorted = (rows: readonly (readonly number[])[]) => rows.map((r) => r.map((x) => x.toFixed(6)).join()).sort();
    expect(sorted(cuts.map((c) => [...c.a, ...c.b]))).toEqual(sorted(wanted));
  });
  test('a window takes its own area out of the paper, wherever it lies', () =>
    fc.assert(
      fc.property(
        fc.double({ min: -60, max: 60, noNaN: true }),
        fc.double({ min: 25, max: 75, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (x, y, turnDeg) => {
          const d = own([
            { name: 'w', role: 'window', shape: { rect: { width: 20, height: 12 } }, middle: { x, y }, turnDeg },
          ]);
          const { outline } = buildAssembly(d).pieces.find((p) => p.id === 'card')!;
          expect(regionArea([outline])).toBeCloseTo(200 * 200 - 20 * 12, 6);
        },
      ),
      { numRuns: 20 },
    ));
});

describe('what a line hangs on', () => {
  const hung = (depth: number): Design =>
    own(
      [
        {
          name: 't',
          role: 'valley',
          from: { of: 'step-fold-1.base', at: 'end' },
          to: { of: 'leafA', at: { x: 'high', y: 'high' } },
        },
      ],
      {},
      stand(card(), 'step-fold', { depth, height: 10, width: 30 }),
    );

  test('moves it when it moves', () => {
    for (const depth of [20, 31.5])
      near(creaseEnds(hung(depth), 'own-lines-1.t'), [
        [15, depth],
        [100, 100],
      ]);
  });
  test('is built before it, whatever the order in the document', () => {
    const d = hung(20);
    const turned = { ...d, mechanisms: [...d.mechanisms].reverse() };
    expect(creaseEnds(turned, 'own-lines-1.t')).toEqual(creaseEnds(d, 'own-lines-1.t'));
  });
  test('that is gone is said, and the rest of the card stays', () => {
    const d = hung(20);
    const alone = buildAssembly({ ...d, mechanisms: d.mechanisms.slice(1) });
    expect(alone.misfits).toHaveLength(1);
    expect(alone.misfits[0]).toMatchObject({ kind: 'unheld', mechanism: 'own-lines-1' });
  });
  test('may not be itself', () => {
    const ring: OwnLine[] = [
      { name: 'p', role: 'valley', from: { of: 'q', at: 'end' }, to: { x: 5, y: 5 } },
      { name: 'q', role: 'valley', from: { of: 'p', at: 'end' }, to: { x: 9, y: 5 } },
    ];
    expect(() => buildAssembly(own(ring))).toThrow(/measured from itself/);
    expect(tryBuild(own([{ name: 'p', role: 'cut', from: { x: 4 }, to: { x: 4 } }]))).toBeNull();
  });
  test('an end of a fold where none runs is said', () => {
    const [lost] = buildAssembly(own([{ name: 'g', role: 'open', from: { y: 7 }, to: { x: 9, y: 7 } }])).misfits;
    expect(lost.what).toMatch(/ends no fold/);
  });
});

test('on the outside a valley is what its reader sees, and is drawn as they see it', () => {
  // Three corners, counter-clockwise to the reader.
  const corners = [
    { x: 0, y: 0 },
    { x: 20, y: 0 },
    { x: 0, y: 10 },
  ];
  const d = own([{ name: 't', role: 'valley', corners }]);
  const seen = (side: 'inside' | 'outside') => {
    const mount = { side, x: 0, y: 0, turnDeg: 0 };
    const on = { ...d, mechanisms: d.mechanisms.map((m) => ({ ...m, on: 'leafA', mount })) };
    const [p, q] = buildAssembly(on).pieces[0].creases.filter((c) => c.mechanism === 'own-lines-1');
    const turn = (p.b[0] - p.a[0]) * (q.b[1] - q.a[1]) - (p.b[1] - p.a[1]) * (q.b[0] - q.a[0]);
    return [p.role, Math.sign(turn)];
  };
  expect(seen('inside')).toEqual(['valley', 1]);
  expect(seen('outside')).toEqual(['mountain', -1]);
});

describe('roles', () => {
  // A single vertex with four creases folds flat with three of one kind (Maekawa) where opposite sectors add up to
  // half a turn (Kawasaki): here a fold across the gutter that runs straight through.
  const across: readonly OwnLine[] = [
    { name: 'up', role: 'valley', from: { x: 0, y: 0 }, to: { x: 0, y: 100 } },
    { name: 'down', role: 'valley', from: { x: 0, y: 0 }, to: { x: 0, y: -100 } },
  ];
  test('are proposed as flat folding has them: one of the two goes the other way', () => {
    const choices = ownRoleChoices(own(across), 'own-lines-1');
    expect(choices.length).toBeGreaterThan(0);
    for (const c of choices) expect(c.up).not.toBe(c.down);
  });
  test('none are where nothing fixes them', () => {
    expect(
      ownRoleChoices(own([{ name: 'up', role: 'valley', facet: 'leafA', part: 0.5, way: 'along' }]), 'own-lines-1'),
    ).toEqual([]);
    expect(ownRoleChoices(card(), 'own-lines-1')).toEqual([]);
  });
});

describe('amounts', () => {
  type Sum = { readonly text: string; readonly value: number };
  const { sum } = fc.letrec<{ sum: Sum; leaf: Sum; node: Sum }>((tie) => ({
    sum: fc.oneof({ depthSize: 'small' }, tie('leaf'), tie('node')),
    leaf: fc.oneof(
      fc.integer({ min: 1, max: 99 }).map((n) => ({ text: String(n), value: n })),
      fc.constantFrom({ text: 'deep', value: 12.5 }, { text: 'wide', value: 40 }),
    ),
    node: fc.tuple(tie('sum'), fc.constantFrom('+', '-', '*'), tie('sum')).map(([a, op, b]) => ({
      text: `(${a.text} ${op} ${b.text})`,
      value: op === '+' ? a.value + b.value : op === '-' ? a.value - b.value : a.value * b.value,
    })),
  }));
  const numbers = new Map([
    ['deep', 12.5],
    ['wide', 40],
  ]);
  test('are worth what arithmetic says', () =>
    fc.assert(
      fc.property(sum, ({ text, value }) => {
        fc.pre(text.length <= 120);
        expect(amountIn(text, numbers)).toBeCloseTo(value, 6);
      }),
    ));
  test.each([
    ['deep +', /not an amount/],
    ['tall / 2', /asks for the number "tall"; known are deep, wide/],
    ['1 / (wide - 40)', /divides by nothing/],
    ['deep.length', /only numbers/],
    ['alert(1)', /only numbers/],
    ['"a"', /only numbers/],
  ])('%s is refused', (text, why) => expect(() => amountIn(text, numbers)).toThrow(why));
});

describe('the door', () => {
  const read = (line: object): string => {
    const d = own([line as OwnLine], { n: 3 });
    const out = checkDesign(JSON.parse(JSON.stringify(d)));
    return out.ok ? '' : out.why;
  };
  test.each([
    [{ name: 't', role: 'valley', from: { x: 0 }, to: { x: 'n*4', y: 3 } }, /^$/],
    [
      { name: 't', role: 'valley', from: { x: 0 } },
      /"?lines\[0\]"? contains \[from\] without its required peers \[to\]/,
    ],
    [{ name: 't', role: 'fold', from: { x: 0 }, to: { x: 4 } }, /lines\[0\]\.role must be one of/],
    [{ name: 't', role: 'cut' }, /says no way to run/],
    [{ name: 't', role: 'cut', from: {}, to: { x: 3 }, beside: 'l', mm: 3 }, /runs in several ways/],
    [{ name: 't', role: 'cut', from: {}, to: { x: 'm' } }, /line t is measured by "m", which is no size/],
    [{ name: '1', role: 'cut', from: {}, to: { x: 3 } }, /must begin with a letter/],
    [{ name: 't', role: 'cut', from: {}, to: { x: 3 }, repeat: { times: 1e9, x: 1, y: 0 } }, /times must be less than/],
  ])('%j', (line, why) => expect(read(line)).toMatch(why));

  test('parts of strangers are refused by their place', () => {
    const plain = turnedPlain(stand(card(), 'twist-fold', {}), 'twist-fold-1');
    const text = JSON.stringify(plain);
    const ok = checkDesign(JSON.parse(text));
    expect(ok.ok).toBe(true);
    const broken = checkDesign(JSON.parse(text.replace(/"placement":\[/, '"placement":["x",')));
    expect(broken.ok ? '' : broken.why).toMatch(/parts\.bonds\[0\]\.placement/);
  });
});

test('facets beside new creases are called by them', () => {
  const d = own(STEP, { a: 30, b: 20, w: 50 });
  const { pieces, interruptions } = buildAssembly(d);
  const names = findFacets(
    pieces.find((p) => p.id === 'card')!,
    interruptions,
  ).facets.map((f) => f.id);
  expect(names.sort()).toEqual(['leafA', 'leafB', 'own-lines-1.base-right', 'own-lines-1.ridge-right']);
});

describe('ends that a hand drags', () => {
  test('lie where the lines do, and change what they are told', () => {
    const d = own(
      [
        { name: 't', role: 'valley', from: { of: 'leafA', at: { x: 'low', y: 'high' } }, to: { x: 'n', y: 30 } },
        {
          name: 'c',
          role: 'cut',
          corners: [
            { x: 1, y: 2 },
            { of: 't', at: 'end', x: 4 },
          ],
        },
      ],
      { n: 12 },
    );
    const found = ownHoldOf(d, 'own-lines-1').ends;
    expect(found.map(({ line, end, at }) => [line, end, ...at.map((v) => Number(v.toFixed(6)))])).toEqual([
      ['t', 'from', -100, 100],
      ['t', 'to', 12, 30],
      ['c', 0, 1, 2],
      ['c', 1, 16, 30],
    ]);
    const lines = d.mechanisms[0].parameters.lines as readonly OwnLine[];
    expect(withSpot(lines[0], 'to', { x: 5 })).toMatchObject({ to: { x: 5 } });
    expect(withSpot(lines[1], 1, { x: 5 })).toMatchObject({ corners: [{ x: 1, y: 2 }, { x: 5 }] });
    expect(withSpot(lines[1], 'from', { x: 5 })).toBe(lines[1]);
  });
  test('of a kind turned plain are those of its creases, on its own pieces too', () => {
    const plain = turnedPlain(stand(card(), 'twist-fold', {}), 'twist-fold-1');
    const creases = buildAssembly(plain).pieces.flatMap((p) => p.creases.map((c) => ({ ...c, piece: p.id })));
    for (const { line, end, piece, at } of ownHoldOf(plain, 'twist-fold-1').ends) {
      const crease = creases.find((c) => c.id === `twist-fold-1.${line}` && c.piece === piece);
      if (!crease || typeof end === 'number') continue;
      near([at], [end === 'from' ? crease.a : crease.b]);
    }
    expect(ownHoldOf(card(), 'own-lines-1').ends).toEqual([]);
  });

  test('lines beside another and across a facet are led by their middles, as far as their amount says', () => {
    const lines = [
      { name: 'off', role: 'mountain', beside: 'card.gutter', mm: 12 },
      { name: 'half', role: 'valley', facet: 'leafB', part: 0.5, way: 'along' },
      { name: 'sized', role: 'mark', beside: 'card.gutter', mm: 'tall' },
    ] as unknown as OwnLine[];
    const d = own(lines, { tall: 20 });
    const { slides } = ownHoldOf(d, 'own-lines-1');
    // What follows a named size is led by that, not by itself.
    expect(slides.map((s) => [s.line, s.key, s.value])).toEqual([
      ['off', 'mm', 12],
      ['half', 'part', 0.5],
    ]);
    const [off, half] = slides;
    // A line beside another goes a millimetre for each; across a facet as far as that is high.
    expect(Math.hypot(...off.way)).toBeCloseTo(1, 9);
    const leaf = buildAssembly(card())
      .facets.find((f) => f.id === 'leafB')!
      .polygon.outer.map((p) => p[1]);
    expect(Math.hypot(...half.way)).toBeCloseTo(Math.max(...leaf) - Math.min(...leaf), 6);
    for (const { line, at } of slides) {
      const crease = buildAssembly(d)
        .pieces.flatMap((p) => p.creases)
        .find((c) => c.id === `own-lines-1.${line}`)!;
      near([at], [[(crease.a[0] + crease.b[0]) / 2, (crease.a[1] + crease.b[1]) / 2]]);
    }
  });
});
