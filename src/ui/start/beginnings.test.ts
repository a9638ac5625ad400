import { prove } from '@/core/proof/prove';
import { KINDS } from '@/core/kinds';
import { checkDesign } from '@/core/document/schema';
import { shelveFonts } from '@/fonts/shelve';
import { beginning } from './Beginnings';

beforeAll(shelveFonts);

test.each([...KINDS.values()].map((k) => [k.title, k] as const))('a card begun from %s can be cut', (_, kind) => {
  const design = beginning(kind);
  expect(checkDesign(design).ok).toBe(true);
  const { verdict, findings } = prove(design, 12);
  expect(findings.filter((f) => f.severity === 'blocks').map((f) => f.message)).toEqual([]);
  expect(verdict).not.toBe('blocked');
});
