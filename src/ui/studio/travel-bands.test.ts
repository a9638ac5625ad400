/** What is marked along the travel: what is wrong, and nothing that is only noted. */
import type { Finding } from '@/core/rules';
import type { Proof } from '@/core/proof/prove';
import { prove } from '@/core/proof/prove';
import { CENTRE } from '@/core/document/design';
import { addMechanism } from '@/core/document/standing';
import { card, stand } from '@/core/tests/cards';
import { bandsOf } from './travel-bands';

const blocked = prove(
  stand(stand(card(200, 120), 'step-fold', { depth: 50, height: 50, width: 60 }), 'step-fold', {
    ...{ depth: 30, height: 70, width: 30, build: 'glued', offset: 0 },
  }),
  12,
);
const withFindings = (findings: readonly Finding[]): Proof => ({ ...blocked, travel: [], findings });
const collision = (severity: Finding['severity']): Finding => ({
  ...blocked.findings[0],
  rule: 'collision',
  severity,
  drive: { open: 90 },
  span: { from: 40, to: 90 },
});

test('what passes through something is marked where it does', () => {
  expect(bandsOf(withFindings([collision('blocks')]))).toEqual([
    { from: 40, to: 90, name: 'passes through', bad: true },
  ]);
});
test.each([
  [0.049, 0],
  [0.05, 0],
  [0.051, 1],
])('reaching %p mm past the fore edge marks %p stretches', (mm, bands) => {
  const [at] = blocked.travel;
  expect(bandsOf({ ...withFindings([]), travel: [{ ...at, reach_mm: mm }] })).toHaveLength(bands);
});
test('a pocket on the very edges of its leaf pokes out nowhere', () => {
  const mount = { ...CENTRE, side: 'inside' as const };
  const values = { outline: 'card', height: 60, insertWidth: 60, insertHeight: 50 };
  const d = addMechanism(card(190, 140), 'pocket', { on: 'leafB', mount }, values).design;
  expect(bandsOf(prove(d, 12))).toEqual([]);
});
test('a note marks nothing', () => expect(bandsOf(withFindings([collision('note')]))).toEqual([]));
test('what only a hand brings about is not of the opening', () => {
  expect(bandsOf(withFindings([{ ...collision('blocks'), drive: { open: 90, 'w.turn': 5 } }]))).toEqual([]);
});
