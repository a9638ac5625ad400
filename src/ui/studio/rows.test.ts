/** The build list: each mechanism once, under what it stands on. */
import { removeMechanism } from '@/core/document/standing';
import { card, stand } from '@/core/tests/cards';
import { offeredOn } from '../build/offered';
import { withToyKind } from '@/core/tests/toy-kind';
import { rowsOf } from './rows';

withToyKind();

const step = { depth: 30, height: 30, width: 40 };

test('what stands on a crease of another comes under it, one deeper, with the crease named', () => {
  let d = stand(card(), 'step-fold', step);
  d = stand(d, 'v-fold', { size: 20, offset: 60 });
  d = stand(d, 'step-fold', { depth: 8, height: 8, width: 10 }, 'step-fold-1.ridge');
  expect(rowsOf(d).map((r) => [r.id, r.depth, r.title])).toEqual([
    ['card', 0, 'Base card'],
    ['step-fold-1', 1, 'Step'],
    ['step-fold-2', 2, 'ridge: Step'],
    ['v-fold-1', 1, 'V-fold'],
  ]);
  expect(rowsOf(removeMechanism(d, 'step-fold-1')).map((r) => r.id)).toEqual(['card', 'v-fold-1']);
});

test('sizes follow the unit of the card', () => {
  const d = stand(card(200, 130), 'step-fold', { depth: 31.75, height: 25.4, width: 40 });
  expect(rowsOf(d)[1].size).toBe('31.8 × 25.4');
  expect(rowsOf({ ...d, units: 'in' })[1].size).toBe('1 1/4 × 1');
});

test('a kind that no file names has its own line', () => {
  const d = stand(card(), 'toy-box', { deep: 12 });
  expect(rowsOf(d)[1]).toMatchObject({ id: 'toy-box-1', kind: 'toy-box', title: 'Toy box', size: 'toy of 12' });
  expect(offeredOn('crease').map((k) => k.id)).toContain('toy-box');
  expect(offeredOn('face').map((k) => k.id)).not.toContain('toy-box');
});
