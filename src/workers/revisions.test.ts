import { blankDesign } from '@/core/document/design';
import { HeldDesigns, revisionOf, SentBefore } from './revisions';

const [a, b] = [blankDesign('a'), blankDesign('b')];

test('a design goes to each worker whole once, then by its number', () => {
  const sent = new SentBefore();
  const [first, second] = [{}, {}];
  expect(sent.wire(a, first, false)).toEqual({ revision: revisionOf(a), design: a });
  expect(sent.wire(a, first, false)).toEqual({ revision: revisionOf(a) });
  expect(sent.wire(b, first, false).design).toBe(b);
  expect(sent.wire(a, second, false).design).toBe(a);
  expect(sent.wire(a, first, true).design).toBe(a);
  expect(revisionOf(a)).not.toBe(revisionOf(b));
  expect(revisionOf({ ...a })).not.toBe(revisionOf(a));
});

test('a worker holds the newest few: what is used stays, what is not goes', () => {
  const held = new HeldDesigns(2);
  const [one, two, three] = [1, 2, 3].map((revision) => ({ revision, design: blankDesign(`${revision}`) }));
  expect(held.take(one)).toBe(one.design);
  held.take(two);
  expect(held.take({ revision: 1 })).toBe(one.design);
  held.take(three);
  expect(held.take({ revision: 2 })).toBeNull();
  expect(held.take({ revision: 1 })).toBe(one.design);
});
