/** A base is a kind like others: one that is added while the program runs is known on every floor. */
import { buildAssembly } from '../build/build';
import { poseOpen } from '../assembly/pose';
import { cardValues } from '../document/fields';
import { checkDesign } from '../document/schema';
import { labelOfLever } from '../document/words';
import type { Design } from '../document/design';
import { gather } from '../proof/evidence';
import { leverValue, setLever } from '../proof/levers';
import { prove } from '../proof/prove';
import { closedSize } from '../rules';
import { baseExtent } from '../rules/rule';
import { card, findings, layered, stand } from '../tests/cards';
import { withToyBase } from '../tests/toy-base';

withToyBase();
const eared = (far: number, ear: number): Design => {
  const plain = card();
  return { ...plain, card: { ...plain.card, construction: 'toy-ear', parameters: { far, ear } } };
};

test('it passes the door with its own numbers, and others are refused by name', () => {
  expect(checkDesign(JSON.parse(JSON.stringify(eared(70, 12)))).ok).toBe(true);
  const wrong = checkDesign({ ...eared(70, 12), card: { ...eared(70, 12).card, parameters: { gutter: 100 } } });
  expect(wrong.ok ? '' : wrong.why).toMatch(/card\.parameters.*gutter/);
  const unknown = checkDesign({ ...eared(70, 12), card: { ...eared(70, 12).card, construction: 'toy-tail' } });
  expect(unknown.ok ? '' : unknown.why).toMatch(/card\.construction/);
  expect(cardValues({ ...eared(70, 12), card: { ...eared(70, 12).card, parameters: {} } })).toEqual({
    far: 100,
    ear: 15,
  });
});

test('it reaches as far as it does, on each side by itself', () => {
  const a = buildAssembly(eared(70, 12));
  const extent = baseExtent(a);
  expect(extent.foot).toBeCloseTo(-60, 9);
  expect(extent.head).toBeCloseTo(60, 9);
  expect(extent.spine).toBeCloseTo(-12, 9);
  expect(extent.fore).toBeCloseTo(70, 9);
  const closed = poseOpen(a, 0);
  expect(closedSize({ assembly: a, closed }).awayMm).toBeCloseTo(82, 9);
  expect(gather(eared(70, 12), 'closed', 2).closed).not.toBeNull();
});

test('what stays beside the ear shows behind, inside what an envelope sees; what passes it is outside that', () => {
  const flag = (y: number) =>
    findings(
      layered(eared(70, 12), { shape: { rect: { width: 10, height: 10 } }, from: { x: 'middle', y: 'low' }, y }),
      'overhang',
    ).map((f) => [f.severity, f.aspect, Number(f.measured.toFixed(6))]);
  // From the low edge of leaf A, which is that of the ear, 12 mm behind the fold.
  expect(flag(0)).toEqual([['risk', 'layer.l1 spine', 12]]);
  expect(flag(-0.01)).toEqual([['blocks', 'layer.l1 spine', 12.01]]);
});

test('mechanisms stand on it, and remedies turn its numbers', () => {
  const tall = stand(eared(60, 8), 'step-fold', { depth: 40, height: 30, width: 30 });
  const [finding] = prove(tall, 6).findings.filter((f) => f.rule === 'overhang');
  expect([finding.aspect, finding.measured]).toEqual(['fore', expect.closeTo(10, 9)]);
  expect(finding.remedies).toContainEqual({ mechanism: 'card', parameter: 'far', value: 70 });
  expect(labelOfLever(tall, 'card', 'far')).toBe('Far');
  expect(leverValue(setLever(tall, 'card', 'ear', 9), 'card', 'ear')).toBe(9);
});
