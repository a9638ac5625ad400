import { GUTTER } from '../kinds';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import { setParameter } from '../document/fields';
import { prove } from './prove';
import { roomOf } from './room';
import { onlyWith, workSteps } from '../build/steps';
import { buildAssembly } from '../build/build';
import { whatIf } from './what-if';

const step = (parameters: object, design = blankDesign('x', 200, 100)): Design =>
  addMechanism(design, 'step-fold', GUTTER, parameters as never).design;

describe('room of a number', () => {
  const design = step({ depth: 30, height: 40, width: 60 });

  test.each([
    ['depth', 60, 'fore edge'],
    ['height', 70, 'fore edge'],
  ])('%s ends at %d, by the %s', (key, value, by) => {
    const { high } = roomOf(design, 'step-fold-1', key)!.clear!;
    expect(Math.abs(high.value - value)).toBeLessThan(0.1);
    expect(high.by).toBe(by);
  });

  test('inside its room a value blocks nothing, outside it does', () => {
    const { clear } = roomOf(design, 'step-fold-1', 'depth')!;
    const blocked = (value: number): boolean =>
      prove(setParameter(design, 'step-fold-1', 'depth', value), 4).findings.some((f) => f.severity === 'blocks');
    expect(blocked(clear!.high.value - 0.1)).toBe(false);
    expect(blocked(clear!.high.value + 0.2)).toBe(true);
  });

  test('a value outside its room is shown the nearest room', () => {
    const outside = step({ depth: 75, height: 40, width: 60 });
    const { clear } = roomOf(outside, 'step-fold-1', 'depth')!;
    expect(clear!.high.value).toBeLessThan(60.1);
    expect(clear!.high.by).toBe('fore edge');
  });

  test('choices and numbers that follow have none', () => {
    expect(roomOf(design, 'step-fold-1', 'edge')).toBeNull();
    expect(roomOf(design, 'step-fold-1', 'riser')).toBeNull();
    expect(roomOf(design, 'gone', 'depth')).toBeNull();
  });

  test('the base has room too: its reach may not go below what stands on it', () => {
    const { low } = roomOf(design, 'card', 'reachA')!.clear!;
    expect(low.value).toBeLessThan(100);
  });
});

test('what-if is the proof’s own numbers, value by value', () => {
  const design = step({ depth: 30, height: 40, width: 60 });
  for (const depth of [20, 45, 70]) {
    const point = whatIf(design, 'step-fold-1', 'depth', depth);
    const proof = prove(setParameter(design, 'step-fold-1', 'depth', depth), 12);
    expect(point.reachMm).toBeCloseTo(proof.travel[0].reach_mm!, 9);
    expect(point.liftMm).toBeCloseTo(proof.travel[6].lift_mm, 9);
    expect(point.measures['ridge_z']).toBeGreaterThan(0);
    expect(point.thicknessMm).toBeCloseTo(proof.closed!.thickness_mm, 3);
  }
});

describe('work steps', () => {
  const nested = addMechanism(step({ depth: 40, height: 30, width: 80 }), 'v-fold', 'step-fold-1.base', {
    size: 16,
    tab: 8,
  }).design;

  test('every mechanism has its step, and pictures show only what is there by then', () => {
    const steps = workSteps(nested, buildAssembly(nested));
    const worked = steps.filter((s) => s.title.startsWith('Fold ') || s.title.startsWith('Glue '));
    expect(worked.map((s) => s.title)).toEqual(['Fold the base', 'Fold Step', 'Glue V-fold']);
    for (const s of steps) expect(() => buildAssembly(onlyWith(nested, s.shown))).not.toThrow();
    const glue = steps.findIndex((s) => s.title === 'Glue V-fold');
    expect(steps[glue - 1].shown).not.toContain('v-fold-1');
    expect(steps[glue].shown).toContain('v-fold-1');
  });

  test('mats are stuck before anything is folded, the liner before it too', () => {
    const lined: Design = {
      ...nested,
      card: { ...nested.card, parameters: { ...nested.card.parameters, liner: 5 } },
      dressing: [{ facet: 'leafA', mats: [{ insetMm: 4, stock: 'card-160' }] }],
    };
    const titles = workSteps(lined, buildAssembly(lined)).map((s) => s.title);
    const first = ['Score and cut', 'Stick the mats', 'Fold the base', 'Glue the liner in', 'Fold Step'];
    expect(titles.slice(0, 5)).toEqual(first);
  });
});

test.each([
  ['twist-fold', {}, 'arm', 'low', 'nothing holds it'],
  ['twist-fold', {}, 'arm', 'high', 'fore edge'],
  ['v-fold', { size: 40, offset: 30, tab: 10 }, 'size', 'low', 'past the spine'],
  ['v-fold', { size: 40, offset: 30, tab: 10 }, 'size', 'high', 'head edge'],
  ['step-fold', { depth: 30, height: 40, width: 60 }, 'width', 'low', 'thin strip'],
] as const)('%s %j: what ends the room of %s, %s, is said from what was found', (kind, numbers, key, end, by) => {
  const { design } = addMechanism(blankDesign('x', 200, 100), kind, GUTTER, numbers as never);
  expect(roomOf(design, `${kind}-1`, key)!.clear![end].by).toBe(by);
});
