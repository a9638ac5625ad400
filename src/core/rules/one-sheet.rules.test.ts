/** The rules on figures, planes, half-cuts and bands: numbers of docs/mechanisms.md, found and cleared. */
import { setLever } from '../proof/levers';
import { settingOf } from '../document/settings';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import { setParameter } from '../document/fields';
import { prove } from '../proof/prove';
import type { ParameterValues } from '../kinds';
import type { Finding, RuleId } from './rule';

const card = (change: Partial<Design['card']> = {}): Design => {
  const d = blankDesign('t', 180, 120);
  return { ...d, card: { ...d.card, ...change } };
};
const put = (kind: string, parameters: ParameterValues, base = card()): Design =>
  addMechanism(base, kind, 'card.gutter', parameters).design;
const found = (d: Design, rule: RuleId, steps = 12): Finding[] =>
  prove(d, steps).findings.filter((f) => f.rule === rule) as Finding[];

test('overhang: depth + height past the reach, and each remedy clears it', () => {
  const d = put('strut-figure', { shape: { width: 50, height: 60 }, figureHeight: 95, depth: 32 });
  const [f] = found(d, 'overhang');
  expect(f.measured).toBeCloseTo(32 + 95 - 120, 6);
  const own = f.remedies!.filter((r) => settingOf(d, r.mechanism, r.parameter) === null);
  expect(own.length).toBeGreaterThanOrEqual(2);
  for (const r of f.remedies!.filter((x) => !own.includes(x))) {
    const left = found(setLever(d, r.mechanism, r.parameter, r.value), 'overhang', 4);
    expect(left.map((x) => x.severity)).toEqual(['note']);
  }
  for (const r of own) {
    const cleared =
      r.mechanism === 'card'
        ? setParameter(setParameter(d, 'card', 'reachA', r.value), 'card', 'reachB', r.value)
        : setParameter(d, r.mechanism, r.parameter, r.value);
    expect(found(cleared, 'overhang', 4)).toEqual([]);
  }
});
test('overhang past the end of the gutter is told by its side', () => {
  const [f] = found(
    put('floating-band', { slit: 60, width: 16, figure: { rect: { width: 20, height: 90 } }, offset: 60 }),
    'overhang',
    4,
  );
  // The figure is 90 long on its axis, 45 to each side of 60: past the end at 90 by 15.
  expect([f.aspect, f.measured]).toEqual(['head', expect.closeTo(15, 3)]);
});
/**
 * Angle between a v-fold's spine and the gutter: the spine, the gutter and a lean crease make a spherical triangle,
 * whose law of cosines says cos fold = cos lean cos angle + sin lean sin angle cos(open / 2). Source: spherical
 * trigonometry.
 */
function spineDeg(lean: number, fold: number, open: number): number {
  const [l, f, half] = [lean, fold, open / 2].map((v) => (v * Math.PI) / 180);
  const [a, b] = [Math.cos(l), Math.sin(l) * Math.cos(half)];
  return ((Math.atan2(b, a) + Math.acos(Math.cos(f) / Math.hypot(a, b))) * 180) / Math.PI;
}
test('sweep: what stays inside closed may swing out on the way', () => {
  // Closed the spine lies at lean + fold = 135 degrees, its peak 104 sin 135 = 73.5 out; square to the gutter it
  // reaches all of 104.
  const d = put(
    'v-fold',
    { size: 104, lean: 60, fold: 75, tab: 10, offset: 60 },
    card({ stayInside: true, parameters: { ...card().card.parameters, gutter: 400, reachA: 100, reachB: 100 } }),
  );
  const square = (2 * Math.acos(Math.cos((75 * Math.PI) / 180) / Math.sin((60 * Math.PI) / 180)) * 180) / Math.PI;
  expect(spineDeg(60, 75, square)).toBeCloseTo(90, 9);
  const [f] = found(d, 'sweep', 90).filter((x) => x.aspect === 'fore');
  // Looked at every two degrees: at most 104 (1 - cos 1) short of it.
  expect(f.measured).toBeGreaterThan(4 - 0.017);
  expect(f.measured).toBeLessThan(4 + 1e-9);
  expect(Math.abs(f.drive.open - square)).toBeLessThan(2.1);
  expect(found(d, 'overhang', 4).map((x) => x.aspect)).not.toContain('fore');
});
test("collision: a V-fold's peak passes a figure's plane from the opening that spherical trigonometry gives", () => {
  const [size, lean, fold, depth] = [60, 60, 75, 56];
  const d = put(
    'v-fold',
    { size, lean, fold, tab: 6 },
    put(
      'strut-figure',
      { shape: { width: 120, height: 62 }, figureHeight: 62, depth },
      card({ parameters: { ...card().card.parameters, gutter: 300 } }),
    ),
  );
  // The peak lies at a (uA + uB) with 2 a cos(open / 2) = size sin(spine); it meets the plane where a is the figure's
  // depth.
  const out = (open: number): number =>
    (size * Math.sin((spineDeg(lean, fold, open) * Math.PI) / 180)) / (2 * Math.cos((open * Math.PI) / 360));
  let [low, high] = [10, 170];
  for (let k = 0; k < 60; k++)
    [low, high] = out((low + high) / 2) < depth ? [(low + high) / 2, high] : [low, (low + high) / 2];
  const hit = found(d, 'collision', 90).find(
    (f) => [f.mechanism, f.aspect].sort().join() === 'strut-figure-1,v-fold-1',
  )!;
  expect(hit.severity).toBe('blocks');
  // Found from the first pose at which it stands through by more than the papers are thick.
  expect(hit.span!.from).toBeGreaterThan(low - 0.1);
  expect(hit.span!.from).toBeLessThan(low + 4.1);
});
test('a half-cut stands out behind the fold as it is meant to: no overhang, but it counts for the envelope', () => {
  const d = { ...put('half-cut', { shape: { circle: 50 }, rise: 20 }), post: { envelope: 'C6', format: null } };
  expect(found(d, 'overhang', 4)).toEqual([]);
  const [f] = found(
    { ...d, card: { ...d.card, parameters: { ...d.card.parameters, gutter: 150, reachA: 100, reachB: 100 } } },
    'post-size',
    4,
  );
  // C6 is 114 on its short side (ISO 269), less 3 mm of ease; the note is 100 + 20 high.
  expect([f.measured, f.limit]).toEqual([expect.closeTo(120, 6), expect.closeTo(111, 6)]);
});
test("glue-room: a band too narrow for its figure's glue", () => {
  const [f] = found(put('floating-band', { slit: 40, width: 7, figure: { circle: 30 } }), 'glue-room', 4);
  // 7 mm less 1 mm set back on both sides.
  expect([f.measured, f.limit]).toEqual([expect.closeTo(5, 2), 6]);
});
test('tip: a figure far heavier on one side than its band is wide', () => {
  const lopsided = {
    polygon: [
      [0, 0],
      [60, 0],
      [60, 40],
      [50, 40],
      [50, 6],
      [0, 6],
    ],
  } as const;
  const [f] = found(put('floating-band', { slit: 60, width: 14, figure: lopsided, axis: 0 }), 'tip', 4);
  expect(f.limit).toBe(5);
  expect(f.measured).toBeLessThan(5);
  expect(f.remedies?.some((r) => r.parameter === 'width' && r.value > 14)).toBe(true);
});
test('web: a leg of a figure narrower than the stock holds', () => {
  const legs = {
    polygon: [
      [-20, 0],
      [-17.8, 0],
      [-17.8, 40],
      [17.8, 40],
      [17.8, 0],
      [20, 0],
      [20, 60],
      [-20, 60],
    ],
  } as const;
  const [f] = found(put('strut-figure', { shape: legs, depth: 20, footMin: 2 }), 'web', 4).filter(
    (x) => x.aspect !== 'strut',
  );
  expect(f.measured).toBeCloseTo(2.2, 1);
  expect(f.limit).toBeCloseTo(3.2, 9);
});
test('flat-fold and flex: figures of one sheet close and open rigid', () => {
  for (const d of [
    put('strut-figure', { shape: { star: { points: 7, outer: 70, inner: 45 } }, depth: 22 }),
    put('plane-stack', {
      planes: [
        { depth: 40, base: 0, height: 30, width: 80 },
        { depth: 25, base: 30, height: 25, width: 40 },
      ],
    }),
    put('floating-band', { slit: 70, width: 16 }),
  ]) {
    expect([...found(d, 'flat-fold'), ...found(d, 'flex'), ...found(d, 'collision')]).toEqual([]);
    expect(buildAssembly(d).travel.closedGaps()).toEqual([]);
  }
});
