/** Mats on every panel: each smaller than its panel by what was asked, in both directions. */
import fc from 'fast-check';
import { buildAssembly } from '../build/build';
import { regionBox } from '../plane/polygon';
import { card } from '../tests/cards';
import { blankDesign, type Design } from './design';
import { matsOnAll } from './mats';
import { checkDesign } from './schema';

const LEAVES = ['leafA', 'leafB'];
const boxed = (design: Design) => {
  const a = buildAssembly(design);
  return a.layers.map((l) => {
    const [mat, panel] = [regionBox(l.region), regionBox([a.facets[l.facet].polygon])];
    return [0, 1].map((axis) => panel.max[axis] - panel.min[axis] - (mat.max[axis] - mat.min[axis]));
  });
};

test('of unequal leaves, by any amount, on either side', () => {
  const amount = fc.double({ min: 0.1, max: 30, noNaN: true });
  fc.assert(
    fc.property(amount, fc.constantFrom('inside', 'outside'), (smaller, side) => {
      const plain = card(150, 100);
      const uneven = { ...plain, card: { ...plain.card, parameters: { ...plain.card.parameters, reachB: 80 } } };
      const design = matsOnAll(uneven, LEAVES, side as 'inside', smaller, 'card-160');
      expect(checkDesign(design).ok).toBe(true);
      const less = boxed(design);
      expect(less).toHaveLength(2);
      for (const [wide, high] of less) {
        expect(wide).toBeCloseTo(smaller, 5);
        expect(high).toBeCloseTo(smaller, 5);
      }
    }),
    { numRuns: 20 },
  );
});

test('a sixteenth smaller: once more it changes them, and what lies over them stays', () => {
  const sixteenth = 25.4 / 16;
  const once = matsOnAll(card(150, 100), LEAVES, 'inside', 6, 'card-160');
  const over = {
    ...once,
    dressing: once.dressing.map((d) => ({ ...d, mats: [...d.mats, { insetMm: 9, stock: 'night-216' }] })),
  };
  const twice = matsOnAll(over, LEAVES, 'inside', sixteenth, 'card-160');
  expect(twice.dressing.map((d) => d.mats.map((m) => m.insetMm))).toEqual([
    [sixteenth / 2, 9],
    [sixteenth / 2, 9],
  ]);
});

test('a base that has a number for it is told', () => {
  const plain = blankDesign('Gate');
  const gate: Design = { ...plain, card: { ...plain.card, construction: 'gate-insert', parameters: {} } };
  const matted = matsOnAll(gate, LEAVES, 'inside', 4, 'card-160');
  expect(matted.card.parameters.mat).toBe(4);
  expect(checkDesign(matted).ok).toBe(true);
});
