/**
 * What is kept of a card that was built before is what building it anew gives: the same card as an object of its own,
 * of which nothing can be known, is the judge.
 */
import fc from 'fast-check';
import type { Design } from '../document/design';
import { leverValue, setLever } from '../proof/levers';
import { demoCards } from '../tests/demo';
import { card, stand } from '../tests/cards';
import { shelveFonts } from '../../fonts/shelve';
import { tryBuild } from './build';

beforeAll(shelveFonts);

const flat = (d: Design): string => {
  const built = tryBuild(d);
  return JSON.stringify(
    built && {
      pieces: built.pieces,
      mechanisms: built.mechanisms.map(({ measures: _, ...m }) => m),
      misfits: built.misfits,
      drives: built.drives,
      fillers: built.fillers,
    },
  );
};
const sameAsAnew = (d: Design): void => expect(flat(d)).toBe(flat(structuredClone(d)));

/** Demo cards of few points, with the numbers of their mechanisms that can be turned. */
const small = demoCards().filter(([name]) =>
  ['terrace-night', 'comet-watch', 'moon-phases', 'meteor-night'].includes(name),
);
const numbers = (d: Design): [string, string][] =>
  d.mechanisms.flatMap((m) =>
    [...Object.keys(m.parameters), 'at.x', 'at.y']
      .filter((key) => leverValue(d, m.id, key) !== null)
      .map((key): [string, string] => [m.id, key]),
  );

test('one number after another of a card turned and turned back', () => {
  const turn = fc.tuple(fc.nat(), fc.nat(), fc.double({ min: 0.8, max: 1.2, noNaN: true }));
  fc.assert(
    fc.property(fc.array(turn, { minLength: 1, maxLength: 4 }), (turns) => {
      const [, begun] = small[turns[0][0] % small.length];
      let d = begun;
      for (const [, which, by] of turns) {
        const all = numbers(d);
        const [m, key] = all[which % all.length];
        d = setLever(d, m, key, leverValue(d, m, key)! * by);
        sameAsAnew(d);
      }
      sameAsAnew(begun);
    }),
    { numRuns: 12 },
  );
});

test('what only lies beside the numbers: the unit, a stock, another card’s paper, a shape that is kept', () => {
  const [, disc] = small.find(([name]) => name === 'moon-phases')!;
  sameAsAnew({ ...disc, units: 'in' });
  sameAsAnew({ ...disc, mechanisms: disc.mechanisms.map((m) => ({ ...m, stock: disc.stocks[1].id })) });
  sameAsAnew({ ...disc, stocks: disc.stocks.map((s) => ({ ...s, caliperMm: s.caliperMm * 2 })) });
  // The same step, its numbers one object, on papers of two sizes: on the smaller it lacks paper, and says so.
  const wide = stand(card(200, 100), 'step-fold', { depth: 40, height: 30, width: 60, offset: 60 });
  const narrow = { ...wide, card: card(140, 100).card };
  [wide, narrow, wide].forEach(sameAsAnew);
  expect(flat(narrow)).not.toBe(flat(wide));
  const arch = (height: number): Design['shapes'] => [
    { id: 'a', name: 'Arch', source: { arch: { width: 40, height } }, steps: [] },
  ];
  const figure = stand(card(200, 140), 'strut-figure', { shape: { asset: 'a' }, depth: 20 });
  const [low, high] = [30, 50].map((height) => ({ ...figure, shapes: arch(height) }));
  [low, high, low].forEach(sameAsAnew);
  expect(flat(low)).not.toBe(flat(high));
});
