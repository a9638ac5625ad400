import { prove } from '@/core/proof/prove';
import { BASES, KINDS, PLAIN_BASE } from '@/core/kinds';
import { checkDesign } from '@/core/document/schema';
import { shelveFonts } from '@/fonts/shelve';
import { beginning, beginningAs } from './Beginnings';

beforeAll(shelveFonts);

test.each([...KINDS.values()].map((k) => [k.title, k] as const))('a card begun from %s can be cut', (_, kind) => {
  const design = beginning(kind);
  expect(checkDesign(design).ok).toBe(true);
  const { verdict, findings } = prove(design, 12);
  expect(findings.filter((f) => f.severity === 'blocks').map((f) => f.message)).toEqual([]);
  expect(verdict).not.toBe('blocked');
});

test.each([...BASES.values()].filter((b) => b.id !== PLAIN_BASE).map((b) => [b.title, b] as const))(
  'a card begun as %s can be cut, in millimetres and in inches',
  (_, base) => {
    for (const units of ['mm', 'in'] as const) {
      const design = beginningAs(base, units);
      expect(checkDesign(design).ok).toBe(true);
      expect(design.card.construction).toBe(base.id);
      const { findings } = prove(design, 12);
      expect(findings.filter((f) => f.severity === 'blocks').map((f) => f.message)).toEqual([]);
    }
  },
);
