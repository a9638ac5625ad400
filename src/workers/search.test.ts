/** A search that is dealt out finds what one worker finds. */
import { ALL_SLABS, searchSlabs, searchTarget, freeNumber, type TargetAsk } from '@/core/decide/target';
import { card, stand } from '@/core/tests/cards';
import { dealt, searchOn } from './search';

const design = stand(card(), 'step-fold', { depth: 40, height: 30, width: 50 });
const ask: TargetAsk = {
  wants: [{ mechanism: 'card', measure: 'lift_mm', is: 'equal', value: 42, open: 90 }],
  free: [freeNumber(design, 'step-fold-1', 'height')!],
};
const hand = {
  slabs: (...given: Parameters<typeof searchSlabs>) =>
    Promise.resolve({ ok: true as const, value: searchSlabs(...given) }),
};

/** What one worker finds. */
const alone = (): ReturnType<typeof searchTarget> => (found ??= searchTarget(design, ask));
let found: ReturnType<typeof searchTarget> | undefined;

test('every slab is dealt once, and a processor is left over', () => {
  for (const processors of [1, 2, 3, 4, 5, 64]) {
    const hands = dealt(processors);
    expect(hands.flat().sort()).toEqual(ALL_SLABS);
    expect(hands.length).toBe(Math.min(4, Math.max(1, processors - 1)));
  }
});

test.each([3, 5])('on %s processors the answer is the same, and progress runs to its end', async (processors) => {
  const parts: number[] = [];
  const answer = await searchOn(
    dealt(processors),
    () => hand,
    design,
    ask,
    (part) => parts.push(part),
  );
  expect(answer).toEqual({ ok: true, value: alone() });
  // The lift at 90 degrees is the height of a step (handbook 2).
  expect(answer.ok && answer.value.found[0].values).toEqual([42]);
  expect(parts.every((p, k) => k === 0 || p >= parts[k - 1])).toBe(true);
  expect(parts.at(-1)).toBeCloseTo(1, 9);
});

test('where a hand fails, that is the answer', async () => {
  const failing = { slabs: () => Promise.resolve({ ok: false as const, why: 'no worker' }) };
  const answer = await searchOn(
    dealt(3),
    (k) => (k === 1 ? failing : hand),
    design,
    ask,
    () => undefined,
  );
  expect(answer).toEqual({ ok: false, why: 'no worker' });
});
