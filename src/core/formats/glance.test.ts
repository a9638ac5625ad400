/** What a list keeps of a card is read as it was written, for every demo card. */
import { poseAt } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { openTo } from '../drives';
import { shelveFonts } from '../../fonts/shelve';
import { demoCards } from '../tests/demo';
import { glanceOf, readGlance } from './glance';

beforeAll(shelveFonts);

test.each(demoCards())('%s', (_, design) => {
  const assembly = buildAssembly(design);
  const glance = glanceOf(design, assembly, poseAt(assembly, openTo(100)));
  expect(glance.picture.parts.length).toBeGreaterThan(1);
  expect(readGlance(JSON.stringify(glance))).toEqual(JSON.parse(JSON.stringify(glance)));
});
