/**
 * Searches whose answers are known: a step's ridge stands as high as its height with the card at 90 degrees, and closed
 * it reaches depth + height from the gutter (handbook 2); at an opening a it stands height x sin a (trigonometry).
 */
import { prove } from '../proof/prove';
import { buildAssembly } from '../build/build';
import { gather } from '../proof/evidence';
import { setParameter } from '../document/fields';
import { card, stand } from '../tests/cards';
import {
  ALL_SLABS,
  chosenOf,
  MET_WITHIN,
  searchSlabs,
  searchTarget,
  freeNumber,
  valuesNow,
  withValues,
  type TargetAsk,
} from './target';
import { asAt, MeasureReader, missOf, stateAt, type Want } from './wants';

const REACH_MM = 100;
const step = () => stand(card(160, REACH_MM), 'step-fold', { depth: 40, height: 25, width: 50 });
const free = (key: string, from: number, to: number) => ({ mechanism: 'step-fold-1', key, from, to });
const want = (change: Partial<Want>): Want => ({
  mechanism: 'step-fold-1',
  measure: 'ridge_z',
  is: 'equal',
  open: 90,
  ...change,
});
const lift = (change: Partial<Want>): Want => want({ mechanism: 'card', measure: 'lift_mm', ...change });

test('one number, one answer: the closed form', () => {
  const { found, nearest } = searchTarget(step(), { wants: [want({ value: 31.4 })], free: [free('height', 5, 90)] });
  expect(found).toHaveLength(1);
  expect(found[0].values[0]).toBeCloseTo(31.4, 2);
  expect(found[0].verdict).not.toBe('blocked');
  expect(nearest).toBeNull();
});

test('half open it stands as high as the sine says', () => {
  const { found } = searchTarget(step(), { wants: [lift({ value: 20, open: 50 })], free: [free('height', 5, 60)] });
  expect(found[0].values[0]).toBeCloseTo(20 / Math.sin((50 * Math.PI) / 180), 1);
});

test('several answers where there are several: what reaches as far may be deep or high', () => {
  const ask = {
    wants: [want({ measure: 'room_mm', value: 30 })],
    free: [free('depth', 15, 60), free('height', 8, 60)],
  };
  const { found } = searchTarget(step(), ask);
  expect(found.length).toBeGreaterThan(1);
  for (const { values } of found) {
    expect(Math.abs(REACH_MM - values[0] - values[1] - 30)).toBeLessThan(2 * MET_WITHIN);
    const changed = withValues(step(), ask.free, values);
    expect(prove(changed).verdict).not.toBe('blocked');
  }
});

/** The height over the third side of a triangle: Heron. */
function heron(a: number, b: number, base: number): number {
  const s = (a + b + base) / 2;
  return (2 / base) * Math.sqrt(s * (s - a) * (s - b) * (s - base));
}
const tab = () => stand(card(200, 140), 'lift-tab', { lower: 30, upper: 40, pull: 30 }, 'leafB');
const pulled = (pull: number, value: number): TargetAsk => ({
  wants: [
    { mechanism: 'lift-tab-1', measure: 'lift_mm', is: 'equal', value, open: 90, drives: { 'lift-tab-1.pull': pull } },
  ],
  free: [{ mechanism: 'lift-tab-1', key: 'lower', from: 22, to: 38 }],
});

test('wanted in a state that a hand makes: the ridge over a strip pulled so far is the height of a triangle', () => {
  const wanted = heron(33, 40, 33 + 40 - 18);
  const { found } = searchTarget(tab(), pulled(18, wanted));
  expect(found.length).toBeGreaterThan(0);
  for (const { values, measures } of found) {
    expect(Math.abs(heron(values[0], 40, values[0] + 40 - 18) - wanted)).toBeLessThanOrEqual(MET_WITHIN);
    expect(Math.abs(measures[0]! - wanted)).toBeLessThanOrEqual(MET_WITHIN);
  }
});

test('a state says only what is moved, and a way that is shorter ends at its end', () => {
  const { drives } = buildAssembly(tab());
  expect(asAt(drives, { open: 90, 'lift-tab-1.pull': 0 })).toEqual({ open: 90 });
  const at = asAt(drives, { open: 40, 'lift-tab-1.pull': 12 });
  expect(at).toEqual({ open: 40, drives: { 'lift-tab-1.pull': 12 } });
  expect(stateAt(drives, at)).toEqual({ open: 40, 'lift-tab-1.pull': 12 });
  const most = drives.find((d) => d.id === 'lift-tab-1.pull')!.to;
  expect(stateAt(drives, { open: 40, drives: { 'lift-tab-1.pull': 900 } })['lift-tab-1.pull']).toBe(most);
});

test('what none of the free numbers moves is said', () => {
  const ask = { wants: [lift({ value: 42 })], free: [free('width', 20, 60)] };
  expect(searchTarget(step(), ask).nearest!.against).toContain(
    'Card: highest point at 90° is 25.00 mm, wanted is 42.00 mm; none of the numbers that may change has a hand in it',
  );
  const moved = searchTarget(step(), { ...ask, free: [free('height', 20, 30)] }).nearest!.against.join();
  expect(moved).toMatch(/is 30.00 mm, wanted is 42.00 mm$/);
});

test('no answer where there is none: the nearest, and what stands against it', () => {
  const { found, nearest } = searchTarget(step(), { wants: [lift({ value: 85 })], free: [free('height', 10, 90)] });
  expect(found).toEqual([]);
  // 60 is as high as it can be without reaching past the fore edge.
  expect(nearest!.against.join(' ')).toMatch(/wanted is 85|past the fore edge/);
});

test('what is far out of reach has an end too: the nearest, and what stands against it', () => {
  const { found, nearest } = searchTarget(step(), {
    wants: [lift({ value: 20_000 })],
    free: [free('height', 10, 90), free('depth', 10, 60)],
  });
  expect(found).toEqual([]);
  expect(nearest!.against.join(' ')).toMatch(/wanted is 20000/);
});

test('two wants in three numbers: both met, to the closed forms', () => {
  const ask = {
    wants: [lift({ value: 33 }), want({ measure: 'room_mm', value: 12.5 })],
    free: [free('height', 10, 60), free('depth', 10, 60), free('width', 20, 90)],
  };
  const { found } = searchTarget(step(), ask);
  expect(found.length).toBeGreaterThan(0);
  for (const { values } of found) {
    expect(Math.abs(values[0] - 33)).toBeLessThanOrEqual(MET_WITHIN);
    expect(Math.abs(REACH_MM - values[0] - values[1] - 12.5)).toBeLessThanOrEqual(MET_WITHIN);
  }
});

test('as little as possible, beside a want that is met: the end of the room, exactly', () => {
  const ask = {
    wants: [lift({ is: 'least' }), want({ measure: 'room_mm', is: 'atMost', value: 20 })],
    free: [free('height', 10, 90)],
  };
  // Depth 40 and height reach to 20 mm of the fore edge.
  expect(searchTarget(step(), ask).found[0].values[0]).toBeCloseTo(REACH_MM - 20 - 40, 1);
});

test('as large as possible is as large as brute force finds on a grid', () => {
  const ask = { wants: [lift({ is: 'most' })], free: [free('height', 10, 80)] };
  const { found } = searchTarget(step(), ask);
  const grid = Array.from({ length: 141 }, (_, k) => 10 + k / 2).filter((height) => {
    const d = setParameter(step(), 'step-fold-1', 'height', height);
    return prove(d, 12).verdict !== 'blocked';
  });
  expect(found[0].values[0]).toBeGreaterThanOrEqual(Math.max(...grid) - 0.02);
  expect(found[0].values[0]).toBeCloseTo(REACH_MM - 40, 1);
});

test('limits are kept: at most, and at least', () => {
  const d = step();
  const ask = {
    wants: [lift({ is: 'most' }), want({ measure: 'room_mm', is: 'atLeast', value: 12 })],
    free: [free('height', 10, 80)],
  };
  const { found } = searchTarget(d, ask);
  expect(found[0].values[0]).toBeCloseTo(REACH_MM - 40 - 12, 1);
});

test('the same answer however it is spread, to the byte', () => {
  const ask = { wants: [want({ value: 31.4 })], free: [free('height', 5, 90)] };
  const whole = JSON.stringify(searchTarget(step(), ask));
  const slabs = [...ALL_SLABS].reverse().map((s) => searchSlabs(step(), ask, [s]));
  expect(JSON.stringify(chosenOf(ask, valuesNow(step(), ask), slabs.reverse().flat()))).toBe(whole);
});

test.each<[Want['is'], number, number]>([
  ['equal', 9.5, 0.5],
  ['equal', 10, 0],
  ['equal', 10.5, 0.5],
  ['atLeast', 9.5, 0.5],
  ['atLeast', 10, 0],
  ['atLeast', 10.5, 0],
  ['atMost', 9.5, 0],
  ['atMost', 10, 0],
  ['atMost', 10.5, 0.5],
  ['most', 9.5, 0],
])('%s 10: of %d it is %d short', (is, found, miss) => {
  expect(missOf(want({ is, value: 10 }), found)).toBe(miss);
});

test('measures of the card are those of its proof', () => {
  const assembly = buildAssembly(step());
  const reader = new MeasureReader(assembly, gather(step(), 'closed', 0, assembly));
  const { closed } = prove(step());
  const read = (measure: string) => reader.read({ mechanism: 'card', measure, open: 90 })!;
  expect(read('width_mm')).toBeCloseTo(closed!.width_mm, 6);
  expect(read('height_mm')).toBeCloseTo(closed!.height_mm, 6);
  expect(read('thickness_mm')).toBeCloseTo(closed!.thickness_mm, 3);
  expect(read('lift_mm')).toBeCloseTo(25, 6);
  expect(reader.read({ mechanism: 'nobody', measure: 'ridge_z', open: 90 })).toBeNull();
});

test('a number is searched where its bar in Build shows it', () => {
  expect(freeNumber(step(), 'step-fold-1', 'depth')).toMatchObject({ from: 1, to: 120 });
  expect(freeNumber(step(), 'step-fold-1', 'nothing')).toBeNull();
  // Where it is fixed on its face, 40 mm to each side; on a crease there is no such place.
  expect(freeNumber(tab(), 'lift-tab-1', 'at.x')).toMatchObject({ from: -40, to: 40 });
  expect(freeNumber(step(), 'step-fold-1', 'at.x')).toBeNull();
});
