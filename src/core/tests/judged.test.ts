/** A short run of `npm run truth`: the rules against a judge of the test's own, on the same designs each time. */
import { bench, ruledJam } from '../../../truth/bench';
import { draw, families } from '../../../truth/designs';
import { judgeHands } from '../../../truth/judge';
import { judgeBoth } from '../../../truth/judge-both';
import { depthIn, place, type Slab } from '../../../truth/solids';
import { CENTRE, newLayer, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { seeded } from '../linkage/random';
import { shiftBy } from '../linkage';
import type { Pose } from '../assembly/pose';
import { card } from './cards';

test('the judge measures how deep two solids lie in each other (plane geometry)', () => {
  const square = (half: number, facet: number): Slab => {
    const outer = [[-half, -half], [half, -half], [half, half], [-half, half]] as const; // prettier-ignore
    const points = Array.from({ length: 41 * 41 }, (_, k) => {
      const at = [((k % 41) / 20 - 1) * half * 0.999, (Math.floor(k / 41) / 20 - 1) * half * 0.999] as const;
      return { at, deep: half - Math.max(Math.abs(at[0]), Math.abs(at[1])) };
    });
    return { facet, poly: { outer, holes: [] }, low: -0.15, high: 0.15, mechanism: 'm', layer: null, points };
  };
  const apart = (x: number, z: number): number => {
    const pose = { placed: [shiftBy([0, 0, 0]), shiftBy([x, 0, z])] } as unknown as Pose;
    const [a, b] = [square(10, 0), square(10, 1)].map((s) => place(s, pose));
    return Math.max(depthIn(a, b, 0.1), depthIn(b, a, 0.1));
  };
  expect(apart(20.1, 0)).toBe(-1);
  expect(apart(0, 0.31)).toBe(-1);
  // Lapping by 4 mm, the deepest point is 2 mm from both edges.
  expect(apart(16, 0)).toBeGreaterThan(1.4);
  expect(apart(16, 0)).toBeLessThanOrEqual(2);
});

test('the judge tells a card that jams from one that moves, and so do the rules', () => {
  const plain = card(190, 140);
  const on = (y: number): Design => ({
    ...addMechanism(
      { ...plain, card: { ...plain.card, stock: 'card-240' } },
      'track-slider',
      { on: 'leafB', mount: { ...CENTRE, side: 'inside' } },
      { width: 100, height: 50, path: { line: 60 } },
    ).design,
    layers: [
      {
        ...newLayer({
          ...{ id: 'l1', name: 'Bar', facet: 'track-slider-1.front', as: 'layer', stock: 'card-240' },
          shape: { width: 6, height: 6 },
        }),
        y,
      },
    ],
  });
  expect([judgeHands(on(0)).answer, judgeHands(on(18)).answer]).toEqual(['jams', 'moves']);
  expect([ruledJam(on(0)) !== null, ruledJam(on(18)) !== null]).toEqual([true, false]);
});

describe('two tabs that are lifted from both leaves of a card half shut meet as they are', () => {
  const tabs = (y: number): Design => {
    const tab = { width: 48, upper: 22.5, strip: 20 };
    const at = { ...CENTRE, side: 'inside' } as const;
    const one = addMechanism(
      card(190, 130, 138),
      'lift-tab',
      { on: 'leafA', mount: { ...at, x: 9, y: 20 } },
      tab,
    ).design;
    const turned = { on: 'leafB', mount: { ...at, x: -3, y, turnDeg: 180 } };
    return addMechanism(one, 'lift-tab', turned, { ...tab, lower: 34, width: 51 }).design;
  };
  // Deeper than this the judge is sure; the rules allow what two sheets of 0.3 mm are thick.
  const SURE_MM = 0.8;
  test.each([4, 9.5, 12, 13.5, 22])('%p mm up', (y) => {
    const design = tabs(y);
    const { answer, why } = judgeBoth(design, [45], true);
    const blocked = ruledJam(design) !== null;
    const byMm = Number(/by ([\d.]+)$/.exec(why)?.[1] ?? 0);
    if (answer === 'moves') expect([y, blocked]).toEqual([y, false]);
    else if (answer === 'jams' && byMm > SURE_MM) expect([y, blocked]).toEqual([y, true]);
    if (y > 9 && y < 14) expect([y, answer]).toEqual([y, 'jams']);
    if (y > 20) expect([y, answer]).toEqual([y, 'moves']);
  });
});

test('the same seed draws the same designs, of every family', () => {
  for (const family of families) {
    const twice = [1, 2].map(() => JSON.stringify(draw(family, seeded(7)).design));
    expect(twice[0]).toBe(twice[1]);
    expect(twice[0]).not.toBe(JSON.stringify(draw(family, seeded(8)).design));
  }
});

test('three designs of each family: no jam is told clear', () => {
  const tallies = bench({ seed: 11, rounds: 3 });
  expect(tallies.map((t) => t.drawn)).toEqual(families.map(() => 3));
  expect(tallies.flatMap((t) => t.missed)).toEqual([]);
  expect(tallies.flatMap((t) => t.falseAlarms)).toEqual([]);
}, 180_000);
