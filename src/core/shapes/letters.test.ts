/**
 * Letters on a line: each of them touches foot and top by the width that was asked for, measured here on the edges that
 * lie on those lines; what letters look like comes from the fonts that ship.
 */
import { shelveFonts } from '../../fonts/shelve';
import { LENGTH_EQUAL_MM } from '../tolerance';
import { regionBox, type Polygon } from '../plane/polygon';
import { findings, card, stand } from '../tests/cards';
import { fitWithContacts } from './contact';
import { leastTrim, trimmed } from './level';
import { outlineOf } from './outline';

shelveFonts();
const word = (string: string, font: string) => ({ text: { string, font, size: 40 } });

/** How wide a part lies on a level line, mm. */
const onLine = ({ outer }: Polygon, y: number): number =>
  outer.reduce((sum, a, i) => {
    const b = outer[(i + 1) % outer.length];
    const lies = Math.abs(a[1] - y) < 1e-6 && Math.abs(b[1] - y) < 1e-6;
    return lies ? sum + Math.abs(b[0] - a[0]) : sum;
  }, 0);

test.each([
  ['SOLSTICE', 'fredoka'],
  ['COMET', 'josefin-sans'],
  ['QUASAR', 'lora'],
  ['OOO', 'righteous'],
])('every letter of %s in %s touches both lines', (string, font) => {
  const drawn = outlineOf(word(string, font));
  const { region, missing } = fitWithContacts(drawn, 40, null, ['bottom', 'top'], 3);
  expect(missing).toEqual([]);
  expect(region.length).toBe(string.length);
  for (const letter of region) for (const y of [0, 40]) expect(onLine(letter, y)).toBeGreaterThan(3 - LENGTH_EQUAL_MM);
  // By the least: trimmed by a hair less, one of them lies on the line by less, or not at all.
  const least = leastTrim(drawn, 'bottom', 3)!;
  const line = regionBox(drawn).min[1] + least - 0.002;
  const short = trimmed(drawn, 'bottom', least - 0.002).map((l) => onLine(l, line));
  expect(Math.min(...short)).toBeLessThan(3);
});

test('a word that stands as a plane is held letter by letter', () => {
  const shape = word('SOLSTICE', 'fredoka');
  const planes = [{ depth: 20, base: 0, height: 30, offset: 0, shape }];
  const d = stand(card(260, 100), 'plane-stack', { contact: 3, planes });
  expect(findings(d, 'loose-part').map((f) => f.message)).toEqual([]);
});

test('the dot of a letter stands on nothing, and trims nothing off', () => {
  const { region } = fitWithContacts(outlineOf(word('ili', 'josefin-sans')), 40, null, ['bottom'], 3);
  expect(Math.min(...region.map((p) => onLine(p, 0)))).toBe(0);
  expect(region.filter((p) => onLine(p, 0) > 3 - LENGTH_EQUAL_MM)).toHaveLength(3);
});
