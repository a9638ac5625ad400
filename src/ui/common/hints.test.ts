/** Hints: one at a time, of the stage that is open, for what is there; never again once put away. */
import { prove } from '@/core/proof/prove';
import { CARD } from '@/core/ids';
import { idsIn } from '@/core/tests/id-like';
import { card, stand } from '@/core/tests/cards';
import { STAGES } from '@/store/studio';
import { HINTS, hintFor } from './hints';

const seen = (design = card(), selected: string = CARD, proof = prove(design)) => ({
  design,
  selected,
  proof,
  proving: false,
});
const step = { depth: 30, height: 30, width: 40 };

test('an empty card is helped on every stage, and no hint has ids in it', () => {
  const bare = seen();
  const found = STAGES.map((stage) => hintFor(stage, bare, [])?.id);
  expect(found).toEqual(['envelope', 'empty', 'facet', undefined, 'tighter', 'measure-print']);
  expect(new Set(HINTS.map((h) => h.id)).size).toBe(HINTS.length);
  expect(idsIn(HINTS.map((h) => h.says))).toEqual([]);
});

test('what is put away makes way for the next, until none is left', () => {
  const d = stand(card(), 'step-fold', step);
  const told: string[] = [];
  for (let hint = hintFor('build', seen(d, 'step-fold-1'), told); hint;) {
    told.push(hint.id);
    hint = hintFor('build', seen(d, 'step-fold-1'), told);
  }
  expect(told).toEqual(['held', 'travel', 'proved']);
});

test('what blocks is said only where the proof says so', () => {
  const high = stand(card(), 'step-fold', { depth: 60, height: 60, width: 40 });
  expect(hintFor('build', seen(high), ['travel'])?.id).toBe('blocked');
  expect(hintFor('build', { ...seen(high), proving: true }, ['travel'])).toBeUndefined();
  expect(hintFor('prove', seen(high), [])?.id).toBe('mend');
  expect(hintFor('prove', seen(stand(card(), 'step-fold', step)), [])?.id).toBe('what-if');
});
