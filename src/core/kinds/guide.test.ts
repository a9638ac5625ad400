import { BASES, GUIDES, KINDS } from './index';

test('every kind and base has its guide, and there is none for what is not there', () => {
  expect(Object.keys(GUIDES).sort()).toEqual([...KINDS.keys(), ...BASES.keys()].sort());
});
test.each(Object.entries(GUIDES))('%s is told in whole sentences', (_, g) => {
  for (const text of [g.goodFor, g.sizes, ...g.goesWrong]) expect(text).toMatch(/^[A-Z0-9].*\.$/);
  expect(g.goesWrong.length).toBeGreaterThan(0);
});
