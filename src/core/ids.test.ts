/** Ids are made and taken apart in one place, so what is made is what is recognised. */
import fc from 'fast-check';
import { cutOffId, isCutOff, isPartNamed, partId, sharedName } from './ids';

const name = fc.stringMatching(/^[a-z]{1,8}(-[a-z]{1,6})?$/);
const number = fc.integer({ min: 1, max: 99 });

test('parts that a number tells apart share a name, others have none', () => {
  fc.assert(
    fc.property(name, name, number, (owner, part, k) => {
      expect(sharedName(partId(`${owner}-${k}`, `${part}-${k}`))).toBe(part);
      expect(isPartNamed(partId(`${owner}-${k}`, `${part}-${k}`), part)).toBe(true);
      expect(sharedName(partId(`${owner}-${k}`, part))).toBeNull();
    }),
  );
});

test('paper that was cut off is known by its id, and nothing else is', () => {
  fc.assert(
    fc.property(name, name, number, (owner, part, k) => {
      expect(isCutOff(cutOffId(partId(owner, part), k))).toBe(true);
      expect(isCutOff(partId(owner, `${part}-${k}`))).toBe(part.endsWith('-part'));
      expect(isCutOff(partId(owner, `part-${part}`))).toBe(false);
    }),
  );
});
