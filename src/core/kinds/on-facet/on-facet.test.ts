/**
 * What is moved by hand, against closed forms (docs/mechanisms.md) and brute force of the test's own: lengths kept,
 * loops closed, rest flat; every limit just below, at and just above.
 */
import fc from 'fast-check';
import { svgPathProperties } from 'svg-path-properties';
import polygonClipping from 'polygon-clipping';
import { openTo, restOf } from '../../drives';
import type { Assembly } from '../../assembly/assembly';
import { allMeasures, landmarksOf, onFacet, poseAt, type Pose } from '../../assembly/pose';
import { buildAssembly, DesignError } from '../../build/build';
import { addMechanism } from '../../document/standing';
import { blankDesign, CENTRE, type Design, type Mount } from '../../document/design';
import { dist3, type Vec3 } from '../../linkage';
import { gather, prove } from '../../proof/prove';
import { regionArea } from '../../plane/polygon';
import { RULES, type Finding } from '../../rules';
import { shelveFonts } from '../../../fonts/shelve';
import { KINDS, SIDES, type Parameter, type ParameterValues, type Side } from '..';

beforeAll(shelveFonts);

const FACE_KINDS = [...KINDS.values()].filter((k) => k.mount === 'face').map((k) => k.id);
const card = (gutter = 260, reach = 200): Design => blankDesign('test', gutter, reach);
const made = (kind: string, parameters: ParameterValues = {}, mount: Partial<Mount> = {}, on = 'leafB'): Design =>
  addMechanism(card(), kind, { on, mount: { ...CENTRE, ...mount } }, parameters).design;
const built = (...of: Parameters<typeof made>): Assembly => buildAssembly(made(...of));
const drivesOf = (a: Assembly) => a.drives.slice(1);
const moved = (a: Assembly, values: Record<string, number>, open = 180): Pose =>
  poseAt(a, { ...restOf(a.drives), ...openTo(open), ...values });
const measures = (a: Assembly, pose = moved(a, {})): Record<string, number> =>
  allMeasures(a, pose, null)[a.mechanisms[1].id];
const mark = (a: Assembly, pose: Pose, name: string): Vec3 => landmarksOf(a, pose, a.mechanisms[1])[name];
const found = (d: Design, rule: string): Finding[] => {
  const evidence = gather(d, 'pattern', 0);
  return RULES.filter((r) => r.id === rule).flatMap((r) => r.check(evidence));
};

/** What goes behind the cover goes inside only. */
const sidesOf = (kind: string): readonly Side[] => {
  const known = KINDS.get(kind)!;
  return known.mount === 'face' && known.behindCover ? ['inside'] : SIDES;
};

const leavesOf = (kind: string): readonly string[] => (sidesOf(kind).length === 1 ? ['leafA'] : ['leafA', 'leafB']);

describe.each(FACE_KINDS)('%s', (kind) => {
  test('on every side of every leaf: clear as it starts, flat at rest, rigid wherever it is moved', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...leavesOf(kind)),
        fc.constantFrom(...sidesOf(kind)),
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 179, noNaN: true }),
        (on, side, x, part, open) => {
          const a = built(kind, {}, { side, x }, on);
          expect(a.misfits).toEqual([]);
          const values = Object.fromEntries(drivesOf(a).map((d) => [d.id, d.from + (d.to - d.from) * part]));
          const pose = moved(a, values, open);
          expect(pose.stop).toBeUndefined();
          expect(pose.folds.residualMm).toBeLessThan(1e-9);
          a.facets.forEach((f, i) =>
            f.polygon.outer.forEach((p, k) => {
              const q = f.polygon.outer[(k + 1) % f.polygon.outer.length];
              const apart = dist3(onFacet(pose, i, p), onFacet(pose, i, q));
              expect(Math.abs(apart - Math.hypot(p[0] - q[0], p[1] - q[1]))).toBeLessThan(1e-8);
            }),
          );
          // At rest everything lies parallel to its leaf, as high as its sheets are thick.
          const rest = poseAt(a, restOf(a.drives));
          a.facets.forEach((f, i) =>
            f.polygon.outer.forEach((p) =>
              expect(Math.abs(Math.abs(onFacet(rest, i, p)[2]) - f.levelMm)).toBeLessThan(1e-6),
            ),
          );
        },
      ),
      { numRuns: 12 },
    );
  });
  test('the same state by two ways is the same pose; its drives move nothing else', () => {
    const a = built(kind);
    const b = built(kind);
    const end = Object.fromEntries(drivesOf(a).map((d) => [d.id, d.from + (d.to - d.from) * 0.3]));
    moved(a, Object.fromEntries(drivesOf(a).map((d) => [d.id, d.to])), 20);
    moved(a, {}, 170);
    expect([...moved(a, end, 77).folds.q]).toEqual([...moved(b, end, 77).folds.q]);
    const leaf = a.facets.findIndex((f) => f.id === 'leafA');
    expect([...moved(a, end).placed[leaf]]).toEqual([...moved(a, {}).placed[leaf]]);
  });
  test('fitted to a face it is clear', () => {
    const d = addMechanism(card(200, 140), kind, undefined, {}).design;
    const worst = prove(d, 6).findings.filter((f) => f.severity === 'blocks' && f.rule !== 'sheet-fit');
    expect(worst).toEqual([]);
  });
});

/** Any value a parameter takes, its limits too. */
function anyOf(p: Parameter): fc.Arbitrary<unknown> {
  const within = fc.double({ min: p.min ?? -50, max: Math.min(p.max ?? 100, 150), noNaN: true });
  const or = (value: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
    p.default === null ? fc.option(value, { nil: null }) : value;
  const fields = (): fc.Arbitrary<unknown> => fc.record(Object.fromEntries(p.fields!.map((f) => [f.key, anyOf(f)])));
  const circle = fc.double({ min: 1, max: 60, noNaN: true }).map((d) => ({ circle: d }));
  switch (p.unit) {
    case 'count':
      return fc.integer({ min: p.min, max: Math.min(p.max!, 8) });
    case 'shape':
      return or(circle);
    case 'choice':
      return fc.constantFrom(...p.choices!);
    case 'text':
      return fc.constantFrom('', 'new');
    case 'group':
      return fields();
    case 'list':
      return fc.array(fields(), { minLength: 1, maxLength: 2 });
    case 'path':
      return fc.oneof(
        fc.double({ min: 0.5, max: 150, noNaN: true }).map((line) => ({ line })),
        fc.record({ arc: fc.constantFrom(3, 40), from: fc.constantFrom(0, 90), to: fc.constantFrom(10, 400) }),
        circle.map((ring) => ({ ring })),
      );
    default:
      return or(within);
  }
}
test.each(FACE_KINDS)('%s: whatever its numbers, it is put together or refused with a reason', (kind) => {
  const { parameters } = KINDS.get(kind)!;
  const values = fc.record(Object.fromEntries(parameters.map((p) => [p.key, anyOf(p)])), { requiredKeys: [] });
  fc.assert(
    fc.property(values, (some) => {
      try {
        const a = built(kind, some as ParameterValues);
        const pose = moved(a, Object.fromEntries(drivesOf(a).map((d) => [d.id, (d.from + d.to) / 2])), 120);
        expect(pose.folds.residualMm).toBeLessThan(1e-6);
      } catch (error) {
        if (!(error instanceof DesignError)) throw error;
        expect(error.message).toMatch(new RegExp(`^${kind}-1: .{20,}`));
      }
    }),
    { numRuns: 20 },
  );
});

test('the outside of leaf B is the cover: up is away from the low end of the gutter, the spine at its left', () => {
  const a = built('volvelle', {}, { side: 'outside', x: 10, y: 20 });
  // Flat open, inside up: the cover's reader looks from below.
  const [x, y, z] = mark(a, moved(a, {}), 'pivot');
  expect([x, y]).toEqual([expect.closeTo(-20, 9), expect.closeTo(-100 - 10, 9)]);
  expect(z).toBeLessThan(0);
});
test('turned by a quarter it reads sideways, counter-clockwise', () => {
  const upright = built('volvelle', {}, { side: 'inside' });
  const turned = built('volvelle', {}, { side: 'inside', turnDeg: 90 });
  const rim = (a: Assembly): Vec3 => mark(a, moved(a, {}), 'rim');
  const middle = mark(upright, moved(upright, {}), 'pivot');
  const [u, v] = [rim(upright), rim(turned)].map((p) => [p[0] - middle[0], p[1] - middle[1]]);
  // Seen from inside, z towards the reader: a quarter to the left of u.
  expect([v[0], v[1]]).toEqual([expect.closeTo(-u[1], 6), expect.closeTo(u[0], 6)]);
});

describe('volvelle', () => {
  test('turning carries its rim round the pivot, counter-clockwise for the reader; 370 degrees are 10', () => {
    const a = built('volvelle', { radius: 40, pivot: { x: 5, y: -3 } }, { side: 'inside' });
    const { id } = drivesOf(a)[0];
    for (const deg of [0, 45, 120, 359]) {
      const pose = moved(a, { [id]: deg });
      const [p, r] = ['pivot', 'rim'].map((n) => mark(a, pose, n));
      // Up, as leaf B is read, is towards the low end of the gutter.
      const t = (deg * Math.PI) / 180;
      expect([r[0] - p[0], r[1] - p[1]]).toEqual([
        expect.closeTo(-40 * Math.cos(t), 6),
        expect.closeTo(-40 * Math.sin(t), 6),
      ]);
    }
  });
  test('sectors, bleed, cover and foam by their own sums', () => {
    const a = built('volvelle', {
      radius: 40,
      sectors: 8,
      foamInner: 43,
      hole: 3,
      windows: [
        { inner: 15, outer: 36, span: 50, at: 90 },
        { shape: { circle: 10 }, x: 20, y: 0 },
      ],
    });
    expect(measures(a)).toMatchObject({
      sector_deg: 45,
      bleed_deg: 5,
      cover_mm: expect.closeTo(4, 6),
      foam_gap_mm: 3,
    });
  });
  test('what a window or a content leaves out is as it starts: upright, 6 mm', () => {
    const some = { windows: [{ inner: 15, outer: 32, span: 30 }], contents: [{ text: 'new' }] };
    const all = { windows: [{ inner: 15, outer: 32, span: 30, at: 90 }], contents: [{ text: 'new', size: 6 }] };
    const [a, b] = [some, all].map((v) => built('volvelle', v));
    expect(a.pieces).toEqual(b.pieces);
    const front = a.pieces.find((p) => p.id.endsWith('.front'))!;
    // The window, and the hole of the rivet.
    expect(front.outline.holes).toHaveLength(2);
    expect(a.pieces.find((p) => p.id.endsWith('.disc'))!.lines.length).toBeGreaterThan(20);
  });
  test.each([
    [34.98, 0],
    [35, 0],
    [35.02, 1],
  ])('a window out to %d under a disc of 36 has %d findings: 1 mm is asked for all round', (outer, count) => {
    const d = made('volvelle', { radius: 36, windows: [{ inner: 15, outer, span: 40, at: 90 }] });
    expect(found(d, 'covered')).toHaveLength(count);
  });
  test.each([
    [44.9, 0],
    [45, 0],
    [45.1, 1],
  ])('a window of %d degrees before eight contents has %d findings', (span, count) => {
    const contents = [{ text: 'new', size: 5 }];
    const d = made('volvelle', { contents, windows: [{ inner: 15, outer: 32, span, at: 90 }] });
    expect(found(d, 'covered')).toHaveLength(count);
  });
  test.each([
    [38.9, 'risk'],
    [39, undefined],
    [37.9, 'blocks'],
  ])('foam free to %d round a disc of 38: %s', (foamInner, severity) => {
    expect(found(made('volvelle', { radius: 38, foamInner }), 'bind')[0]?.severity).toBe(severity);
  });
  test.each([
    [5.9, 1],
    [6, 0],
    [6.1, 0],
  ])('a finger edge of %d has %d findings, and its remedy clears it', (notch, count) => {
    const d = made('volvelle', { notch }, { side: 'outside' });
    expect(found(d, 'grip')).toHaveLength(count);
    if (count === 0) return;
    const grip = prove(d, 6).findings.find((f) => f.rule === 'grip')!;
    const [{ parameter, value }] = grip.remedies!;
    expect(parameter).toBe('notch');
    expect(found(made('volvelle', { notch: value }), 'grip')).toEqual([]);
  });
  test.each([
    [6.9, 1],
    [7, 0],
  ])('a rivet head of %d over a hole of 3 has %d findings', (rivet, count) => {
    expect(found(made('volvelle', { rivet }), 'captive')).toHaveLength(count);
  });
  test('foam is the panel inside by its inset, less the disc: area by another polygon library', () => {
    const values = { width: 100, height: 90, corner: 0, radius: 30, notch: 0, foamInset: 2, clearance: 1, foam: 1 };
    const pad = built('volvelle', values).foam[0];
    const box = [
      [-48, -43],
      [48, -43],
      [48, 43],
      [-48, 43],
    ] as [number, number][];
    const disc = Array.from({ length: 720 }, (_, k): [number, number] => [
      31 * Math.cos((k * Math.PI) / 360),
      31 * Math.sin((k * Math.PI) / 360),
    ]);
    const area = polygonClipping
      .difference([box], [disc])
      .flat()
      .reduce(
        (sum, ring) =>
          sum +
          ring.reduce((s, [x, y], i) => {
            const [u, v] = ring[(i + 1) % ring.length];
            return s + (x * v - u * y) / 2;
          }, 0),
        0,
      );
    // Corners of 90 degrees lose what a knife of 1.5 mm radius leaves: foam is cut no narrower than 3 mm.
    expect(Math.abs(regionArea(pad.region) - area)).toBeLessThan((4 - Math.PI) * 1.5 ** 2 + 1);
  });
});

describe('track-slider', () => {
  const at = (a: Assembly, s: number): Vec3 => mark(a, moved(a, { [drivesOf(a)[0].id]: s }), 'token');
  test('a straight way, an arc and a ring carry the token by their closed forms', () => {
    const line = built('track-slider', { path: { line: 80 } }, { side: 'inside' });
    expect(dist3(at(line, 0), at(line, 80))).toBeCloseTo(80, 9);
    expect(dist3(at(line, 0), at(line, 31))).toBeCloseTo(31, 9);
    const arc = built('track-slider', { path: { arc: 35, from: 20, to: 140 } }, { side: 'inside' });
    expect(measures(arc).travel_mm).toBeCloseTo((35 * 120 * Math.PI) / 180, 9);
    // A chord over 60 degrees of the arc is as long as its radius.
    expect(dist3(at(arc, 0), at(arc, (35 * Math.PI) / 3))).toBeCloseTo(35, 6);
    const ring = built('track-slider', { path: { ring: { circle: 60 } }, width: 110, height: 110 }, { side: 'inside' });
    const round = measures(ring).travel_mm;
    expect(Math.abs(round - 60 * Math.PI)).toBeLessThan(0.05);
    expect(dist3(at(ring, 0), at(ring, round))).toBeLessThan(1e-6);
    expect(dist3(at(ring, 0), at(ring, round / 2))).toBeCloseTo(60, 1);
    expect(ring.pieces.some((p) => p.id.endsWith('.island-1'))).toBe(true);
  });
  test('a drawn curve is as long, and runs as far, as a general package says (svg-path-properties)', () => {
    const number = fc.integer({ min: -60, max: 60 });
    fc.assert(
      fc.property(
        number,
        number,
        number,
        number,
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (a, b, c, d, part) => {
          const curve = `M0 0 C ${20 + a / 4} ${b} ${60 + c / 4} ${d} 80 0`;
          const own = new svgPathProperties(curve);
          const card = built('track-slider', { width: 160, height: 160, path: { curve } });
          const length = measures(card).travel_mm;
          expect(Math.abs(length - own.getTotalLength())).toBeLessThan(0.02);
          const [from, to] = [own.getPointAtLength(0), own.getPointAtLength(part * length)];
          const away = dist3(at(card, 0), at(card, part * length));
          // The package seeks the place by halving, to some hundredths of a mm.
          expect(Math.abs(away - Math.hypot(to.x - from.x, to.y - from.y))).toBeLessThan(0.1);
        },
      ),
      { numRuns: 25 },
    );
  });
  test('a coin of the list fits as it is', () => {
    const token = KINDS.get('track-slider')!.parameters.find((p) => p.key === 'token')!;
    expect(token.presets).toContainEqual({ name: 'US cent', values: token.default });
    for (const { values } of token.presets!) {
      const card = built('track-slider', { token: values, slot: values.diameter - 5, foamThickness: 3 });
      expect(measures(card).retain_mm).toBeCloseTo(2.5, 9);
    }
  });
  test.each([
    [15.0, 0],
    [15.05, 0],
    [15.1, 1],
  ])('a token of 19.05 behind a slot of %d has %d findings: 2 mm each side', (slot, count) => {
    expect(found(made('track-slider', { slot, spacer: 4 }), 'captive')).toHaveLength(count);
  });
  test.each([
    [1.71, 'risk'],
    [1.73, undefined],
    [1.5, 'blocks'],
  ])('foam of %d over a cent: %s', (foamThickness, severity) => {
    expect(found(made('track-slider', { foamThickness }), 'bind')[0]?.severity).toBe(severity);
  });
  test('foam keeps clear of wherever the token goes: every corner against every place, by brute force', () => {
    const a = built('track-slider', { path: { arc: 40, from: 30, to: 150 }, width: 130, height: 80, clearance: 1.5 });
    const { foam_gap_mm } = measures(a);
    const [pad] = a.foam;
    const { id, to } = drivesOf(a)[0];
    let least = Infinity;
    const backing = a.facets.findIndex((f) => f.id.endsWith('.backing'));
    for (let s = 0; s <= to; s += to / 60) {
      const pose = moved(a, { [id]: s });
      const token = mark(a, pose, 'token');
      for (const p of pad.region.flatMap((r) => [r.outer, ...r.holes]).flat()) {
        const q = onFacet(pose, backing, p);
        least = Math.min(least, Math.hypot(q[0] - token[0], q[1] - token[1]) - 19.05 / 2);
      }
    }
    // Curves are drawn by lines that keep within 0.01 mm.
    expect(foam_gap_mm).toBeGreaterThan(1.5 - 0.01);
    expect(foam_gap_mm).toBeLessThanOrEqual(least + 0.01);
    expect(least).toBeLessThan(1.6);
  });
});

describe('lift-tab', () => {
  // Reference values: sides 30 and 40, pulled 5, 15 and 25.
  test.each([5, 15, 25])('pulled %d mm it lifts by the closed form', (pulled) => {
    const a = built('lift-tab', { lower: 30, upper: 40, pull: 30 }, { side: 'inside' });
    const D = 70 - pulled;
    const x = (D * D + 900 - 1600) / (2 * D);
    const { lift_mm, max_pull_mm, tab_out_mm } = measures(a, moved(a, { [drivesOf(a)[0].id]: pulled }));
    expect(lift_mm).toBeCloseTo(Math.sqrt(900 - x * x), 6);
    expect([max_pull_mm, tab_out_mm]).toEqual([60, expect.closeTo(pulled, 6)]);
  });
  test('left to itself it is pulled until its ridge stands highest: the shorter side upright', () => {
    const a = built('lift-tab', { lower: 30, upper: 45 });
    const [drive] = drivesOf(a);
    expect(measures(a, moved(a, { [drive.id]: drive.to })).lift_mm).toBeCloseTo(30, 6);
  });
  test.each([
    [7.9, 1],
    [8, 0],
  ])('a notch of %d before a tab at the edge has %d findings', (notch, count) => {
    expect(found(made('lift-tab', { notch }), 'grip')).toHaveLength(count);
  });
});

describe('waterfall', () => {
  test('panel k turns from 0 to 180 while the pull goes from k to k + 1 pitches', () => {
    const a = built('waterfall', { count: 4, pitch: 10 });
    const { id, to } = drivesOf(a)[0];
    expect(to).toBe(40);
    for (const pulled of [0, 5, 10, 17, 33, 40])
      for (let k = 0; k < 4; k++)
        expect(measures(a, moved(a, { [id]: pulled }))[`panel_deg[${k}]`]).toBeCloseTo(
          180 * Math.min(1, Math.max(0, (pulled - k * 10) / 10)),
          6,
        );
  });
  test('the belt draws a panel down to the strap, and on from it once it has turned', () => {
    const a = built('waterfall', { count: 4, pitch: 10, panelHeight: 40 });
    const { id } = drivesOf(a)[0];
    // Up, as the leaf of a card folded at the side is read, is against the world's x.
    const foot = (k: number, pulled: number): number => -mark(a, moved(a, { [id]: pulled }), `panel_${k + 1}_low`)[0];
    const edge = foot(0, 0);
    for (const pulled of [0, 10, 20, 30, 40])
      for (let k = 0; k < 4; k++) {
        // Way still to go before the strap, or gone beyond it: what the belt has moved, less where it was glued.
        const wanted = Math.max(0, k * 10 - pulled) - Math.max(0, pulled - (k + 1) * 10);
        expect(foot(k, pulled) - edge).toBeCloseTo(wanted, 6);
      }
  });
  test.each([
    [21.9, 1],
    [22, 0],
    [22.1, 0],
  ])('a belt of 20 between rivets %d apart has %d findings: 1 mm each side', (rivetGap, count) => {
    expect(found(made('waterfall', { beltWidth: 20, rivetGap }), 'bind')).toHaveLength(count);
  });
  test('belt and rivets: what is clear', () => {
    expect(measures(built('waterfall', { beltWidth: 20, rivetGap: 25, count: 3, pitch: 9 }))).toMatchObject({
      travel_mm: 27,
      belt_clear_mm: 5,
      grip_mm: 12,
    });
    // A tab that stands out is held by itself.
    expect(measures(built('waterfall', { tabOut: 20 })).grip_mm).toBe(20);
    expect(measures(built('waterfall', { tabOut: 20, notch: 5 })).grip_mm).toBe(25);
  });
});

describe('carrier-wheel', () => {
  test('carriers hang upright whatever the turn, on a circle about the axle', () => {
    const a = built('carrier-wheel', { spokes: 5, arm: 40 }, { side: 'inside' });
    const { id } = drivesOf(a)[0];
    for (const deg of [0, 33, 200]) {
      const pose = moved(a, { [id]: deg });
      const middle = mark(a, moved(a, {}), 'carrier_1');
      for (let k = 0; k < 5; k++) {
        const f = a.facets.findIndex((x) => x.id.endsWith(`.carrier-${k + 1}`));
        // Upright: its placement turns by nothing from where it was.
        expect([...pose.placed[f]].filter((_, i) => i % 4 !== 3)).toEqual(
          [...moved(a, {}).placed[f]].filter((_, i) => i % 4 !== 3).map((v) => expect.closeTo(v, 9)),
        );
      }
      expect(middle).toBeDefined();
    }
  });
  test('the least gap between neighbours over the turn, by brute force on the posed outlines', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 8 }),
        fc.double({ min: 25, max: 60, noNaN: true }),
        fc.double({ min: 8, max: 22, noNaN: true }),
        fc.double({ min: 8, max: 26, noNaN: true }),
        (spokes, arm, width, height) => {
          const a = built('carrier-wheel', { spokes, arm, carrier: { width, height, hang: 5 } }, { side: 'inside' });
          const { id } = drivesOf(a)[0];
          const facets = Array.from({ length: spokes }, (_, k) =>
            a.facets.findIndex((f) => f.id.endsWith(`.carrier-${k + 1}`)),
          );
          let least = Infinity;
          for (let deg = 0; deg < 360; deg += 4) {
            const boxes = facets.map((f) => {
              const pose = moved(a, { [id]: deg });
              const points = a.facets[f].polygon.outer.map((p) => onFacet(pose, f, p));
              return [0, 1].map((i) => [Math.min(...points.map((p) => p[i])), Math.max(...points.map((p) => p[i]))]);
            });
            boxes.forEach((p, i) =>
              boxes.slice(i + 1).forEach((q) => {
                const [dx, dy] = [0, 1].map((k) => Math.max(q[k][0] - p[k][1], p[k][0] - q[k][1]));
                least = Math.min(
                  least,
                  dx < 0 && dy < 0 ? Math.max(dx, dy) : Math.hypot(Math.max(0, dx), Math.max(0, dy)),
                );
              }),
            );
          }
          const { carrier_gap_mm } = measures(a);
          expect(carrier_gap_mm).toBeLessThanOrEqual(least + 1e-6);
          // In four degrees neighbours move by no more than this against each other.
          expect(carrier_gap_mm).toBeGreaterThan(least - (2 * arm * 4 * Math.PI) / 180);
          // Neighbours further apart than the diagonal never touch.
          if (2 * arm * Math.sin(Math.PI / spokes) >= Math.hypot(width, height))
            expect(carrier_gap_mm).toBeGreaterThan(-1e-9);
        },
      ),
      { numRuns: 10 },
    );
  });
  test('carriers that touch at some turn only are found there, and a longer arm clears it', () => {
    const d = made('carrier-wheel', { spokes: 6, arm: 24, carrier: { width: 22, height: 22, hang: 5 } });
    const bind = prove(d, 6).findings.find((f) => f.rule === 'bind' && f.aspect === 'carriers')!;
    expect(bind.measured).toBeLessThan(1);
    expect(bind.drive['carrier-wheel-1.turn']).toBeGreaterThan(0);
    const remedy = bind.remedies!.find((r) => r.parameter === 'arm')!;
    const cleared = { spokes: 6, arm: remedy.value, carrier: { width: 22, height: 22, hang: 5 } };
    expect(found(made('carrier-wheel', cleared), 'bind').filter((f) => f.aspect === 'carriers')).toEqual([]);
  });
});

describe('pocket', () => {
  test('inner width, play and what sticks out', () => {
    const a = built('pocket', { width: 104, tape: 8, height: 60, insertWidth: 85.6, insertHeight: 60 });
    expect(measures(a)).toEqual({
      inner_width_mm: 88,
      side_play_mm: expect.closeTo(1.2, 9),
      stick_out_mm: 8,
    });
  });
  test.each([
    [86.1, 'risk'],
    [86, undefined],
    [88.5, 'blocks'],
  ])('an insert of %d in a pocket of 88 inside: %s', (insertWidth, severity) => {
    expect(found(made('pocket', { width: 104, tape: 8, insertWidth }), 'bind')[0]?.severity).toBe(severity);
  });
  test('the insert is drawn out at the top, the flap turns out towards the reader', () => {
    const a = built('pocket', { flap: { rect: { width: 30, height: 20 } } }, { side: 'inside' });
    const flap = a.facets.findIndex((f) => f.id.endsWith('.flap'));
    const high = (values: Record<string, number>): number =>
      Math.max(...a.facets[flap].polygon.outer.map((p) => onFacet(moved(a, values), flap, p)[2]));
    expect(high({ 'pocket-1.flap': 90 })).toBeCloseTo(30 + a.facets[flap].levelMm, 6);
    const [before, after] = [0, 20].map((draw) => mark(a, moved(a, { 'pocket-1.draw': draw }), 'handle'));
    expect(dist3(before, after)).toBeCloseTo(20, 9);
  });
});

test('two things on one face that run into each other are found, at the drive that does it', () => {
  const one = made('volvelle', { width: 60, height: 60, radius: 40, notch: 0, hole: 3 }, { side: 'outside', x: -35 });
  const both = addMechanism(
    one,
    'volvelle',
    { on: 'leafB', mount: { ...CENTRE, side: 'outside', x: 35 } },
    {
      width: 60,
      height: 60,
      radius: 40,
      notch: 0,
    },
  ).design;
  // Discs of 40 about middles 70 apart lie 10 mm in each other.
  const hit = prove(both, 6).findings.find((f) => f.rule === 'collision')!;
  expect(hit.severity).toBe('blocks');
  const apart = {
    ...both,
    mechanisms: both.mechanisms.map((m, k) => ({ ...m, mount: { ...m.mount!, x: k === 0 ? -41 : 41 } })),
  };
  expect(prove(apart, 6).findings.filter((f) => f.rule === 'collision')).toEqual([]);
});
