/** Two things in one place: found where their raised sheets lap, by the widths they were given. */
import { blankDesign, type Design } from '../document/design';
import type { ParameterValues } from '../kinds';
import { card, findings, stand } from '../tests/cards';

const twice = (kind: string, first: ParameterValues, second: ParameterValues): Design =>
  stand(stand(card(260, 120), kind, first), kind, second);
const hits = (d: Design): number[] =>
  findings(d, 'collision', 6).flatMap((f) => (f.severity === 'blocks' ? [f.measured] : []));

test.each([
  ['leaf-bundle', {}],
  ['step-strips', {}],
  ['v-fold', {}],
  ['step-fold', { build: 'glued' }],
] as [string, ParameterValues][])('two of %s in one place', (kind, values) => {
  expect(hits(twice(kind, values, values))).toHaveLength(1);
  expect(hits(stand(card(260, 120), kind, values))).toEqual([]);
});

test('glued steps 40 mm wide, side by side: apart, touching, and lapping by what counts', () => {
  const glued = { build: 'glued', width: 40, depth: 30, height: 30 };
  const at = (offset: number) => hits(twice('step-fold', glued, { ...glued, offset }));
  expect([41, 40, 39.1].map((offset) => at(offset).length)).toEqual([0, 0, 0]);
  expect(at(38.8)).toEqual([expect.closeTo(1.2, 6)]);
});

test('two panels of a box at one place between its sides, and not two that are apart', () => {
  const plain = blankDesign('box');
  const box = (...at: number[]): Design => ({
    ...plain,
    card: {
      ...plain.card,
      construction: 'box-frame',
      parameters: { depth: 60, panels: at.map((mm) => ({ between: 'back and panel', at: mm, height: 30 })) },
    },
  });
  expect(hits(box(12, 12))).toHaveLength(1);
  expect(hits(box(8, 18))).toEqual([]);
});
