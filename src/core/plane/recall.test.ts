/** What is recalled is what was worked out, for the same question only; held against asking anew. */
import fc from 'fast-check';
import { offset, rectangle, subtract, unite, type Polygon, type Ring } from './polygon';
import { Recall } from './recall';

const ring = (...ys: number[]): Ring => ys.map((y, k) => [k, y] as const);
/** How often a recall works for a row of questions. */
function worked(recall: Recall<string>, questions: readonly (readonly [readonly Ring[], readonly number[]])[]): number {
  let times = 0;
  for (const [rings, numbers] of questions)
    expect(recall.of(rings, numbers, () => `${++times && JSON.stringify([rings, numbers])}`)).toBe(
      JSON.stringify([rings, numbers]),
    );
  return times;
}

test('the same question is answered again without work, one that differs in its last bit is not', () => {
  const same = (): Ring => ring(1, 2.5, -3);
  expect(
    worked(new Recall(() => 0), [
      [[same()], [1]],
      [[same()], [1]],
      [[same()], [1]],
    ]),
  ).toBe(1);
  const bit = 1 + Number.EPSILON;
  expect(
    worked(new Recall(() => 0), [
      [[ring(1)], [1]],
      [[ring(bit)], [1]],
    ]),
  ).toBe(2);
  expect(
    worked(new Recall(() => 0), [
      [[ring(1)], [1]],
      [[ring(1)], [bit]],
    ]),
  ).toBe(2);
});

test('corners are told apart by the ring they are in, and by their order', () => {
  const [a, b, c] = [ring(1, 2), ring(3), ring(1)];
  expect(
    worked(new Recall(() => 0), [
      [[a, b], []],
      [[c, ring(2, 3)], []],
      [[b, a], []],
      [[[...a, ...b]], []],
    ]),
  ).toBe(4);
});

test('questions that share their hash are told apart by what they ask', () => {
  const few = fc.array(fc.array(fc.constantFrom(0, 1, 2), { maxLength: 3 }), { maxLength: 2 });
  fc.assert(
    fc.property(fc.array(few, { maxLength: 60 }), (asked) => {
      const recall = new Recall<string>(() => 0);
      for (const rows of asked) {
        const rings = rows.map((ys) => ring(...ys));
        expect(recall.of(rings, [], () => JSON.stringify(rings))).toBe(JSON.stringify(rings));
      }
    }),
  );
});

test('so much is kept and no more: what was asked longest ago is worked out again, what is too long always', () => {
  const long = (k: number): Ring => Array.from({ length: 4999 }, (_, i) => [k, i] as const);
  const recall = new Recall<number>(() => 0);
  let times = 0;
  const ask = (k: number): number => recall.of([long(k)], [], () => ++times);
  for (let k = 0; k < 12; k++) ask(k);
  // 60 000 corners, and each question counts for one itself: twelve of them fit.
  expect([ask(0), times]).toEqual([1, 12]);
  ask(12);
  expect([ask(0), times, ask(1), times]).toEqual([1, 13, 14, 14]);
  const tooLong: Ring = Array.from({ length: 6000 }, (_, i) => [i, 0] as const);
  const again = (): number => recall.of([tooLong], [], () => ++times);
  expect([again(), again()]).toEqual([15, 16]);
});

test('outlines come out the same, asked first or again', () => {
  const box = fc.tuple(...Array.from({ length: 4 }, () => fc.integer({ min: -40, max: 40 })));
  const polygon = ([x, y, w, h]: readonly number[]): Polygon => ({
    outer: rectangle(x, y, x + 1 + Math.abs(w), y + 1 + Math.abs(h)),
    holes: [],
  });
  fc.assert(
    fc.property(box, box, (p, q) => {
      const work = () => {
        const [a, b] = [[polygon(p)], [polygon(q)]];
        return JSON.stringify([unite(a, b), subtract(a, b), offset(a, 2, 'round'), offset(a, 2), offset(a, -0.5)]);
      };
      const first = work();
      expect(work()).toBe(first);
      // A union covers both: nothing of either is left beside it.
      expect(subtract([polygon(p)], unite([polygon(p)], [polygon(q)]))).toEqual([]);
    }),
  );
});

test('an answer counts as what it holds: one of too many corners is not kept, many push out others', () => {
  const recall = new Recall<number>((corners) => corners);
  let times = 0;
  const ask = (k: number, corners: number): number => {
    recall.of([ring(k)], [], () => (times++, corners));
    return times;
  };
  // Two are the question's own: its corner, and itself.
  expect([ask(1, 5998), ask(1, 5998), ask(2, 5999), ask(2, 5999)]).toEqual([1, 1, 2, 3]);
  for (let k = 10; k < 20; k++) ask(k, 5998);
  const before = times;
  expect(ask(19, 5998)).toBe(before);
  expect(ask(1, 5998)).toBe(before + 1);
});
