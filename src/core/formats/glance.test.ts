/** What a list keeps of a card is read as it was written, for every demo card. */
import { poseAt } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { openTo } from '../drives';
import { shelveFonts } from '../../fonts/shelve';
import { BASES } from '../kinds';
import { demoCards } from '../tests/demo';
import { glanceOf, readGlance } from './glance';

beforeAll(shelveFonts);

test.each(demoCards())('%s', (_, design) => {
  const assembly = buildAssembly(design);
  const glance = glanceOf(design, assembly, poseAt(assembly, openTo(100)));
  expect(glance.picture.parts.length).toBeGreaterThan(1);
  expect(readGlance(JSON.stringify(glance))).toEqual(JSON.parse(JSON.stringify(glance)));
});

test('a card is said to be what it is built as, where that is no plain one', () => {
  const built = demoCards().map(([, design]) => {
    const assembly = buildAssembly(design);
    return [design.card, glanceOf(design, assembly, poseAt(assembly, openTo(100))).builtAs] as const;
  });
  for (const [card, as] of built)
    if (card.template) expect(as).toBe('Template');
    else if (!card.construction || card.construction === 'fold-card') expect(as).toBeNull();
    else expect(as).toBe(BASES.get(card.construction)!.title);
  expect(new Set(built.map(([, as]) => as)).size).toBeGreaterThan(3);
});
