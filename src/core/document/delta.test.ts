import fc from 'fast-check';
import { card, stand } from '../tests/cards';
import { deltaOf, withDelta, type Json } from './delta';
import { setParameter } from './fields';
import { removeMechanism } from './standing';

const json = fc.jsonValue({ maxDepth: 4 }) as fc.Arbitrary<Json>;
const bytes = (x: Json): string => JSON.stringify(x);

test('any two JSON values: the difference put to the one gives the other, to the byte', () => {
  fc.assert(
    fc.property(json, json, (a, b) => {
      const before = bytes(a);
      const delta = deltaOf(a, b);
      expect(bytes(delta ? withDelta(a, delta) : a)).toBe(bytes(b));
      expect(bytes(a)).toBe(before);
    }),
    { numRuns: 2000 },
  );
});

test('it survives being written down', () => {
  fc.assert(
    fc.property(json, json, (a, b) => {
      const delta = deltaOf(a, b);
      if (delta) expect(bytes(withDelta(a, JSON.parse(JSON.stringify(delta))))).toBe(bytes(b));
    }),
  );
});

test('keys in another order are another value', () => {
  expect(deltaOf({ a: 1, b: 2 }, { b: 2, a: 1 })).toEqual({ v: { b: 2, a: 1 } });
  expect(deltaOf({ a: 1, b: 2 }, { a: 1, b: 2 })).toBeNull();
});

test('one parameter of a large card is a small difference', () => {
  let design = card();
  for (let k = 0; k < 40; k++) design = stand(design, 'step-fold', { width: 20, depth: 10 + k / 10 });
  const next = setParameter(design, 'step-fold-17', 'depth', 12.5);
  const delta = deltaOf(design as unknown as Json, next as unknown as Json)!;
  expect(JSON.stringify(delta).length).toBeLessThan(200);
  const fewer = removeMechanism(design, 'step-fold-17');
  const removal = deltaOf(design as unknown as Json, fewer as unknown as Json)!;
  expect(JSON.stringify(removal).length).toBeLessThan(200);
});

test('a difference put to something else is refused, not guessed', () => {
  expect(() => withDelta(3, { o: { a: { v: 1 } } })).toThrow(/none/);
  expect(() => withDelta({ a: 1 }, { s: [0, 0, [1]] })).toThrow(/no list/);
  expect(() => withDelta('x', { i: { 0: { v: 1 } } })).toThrow(/no list/);
});
