import { card } from '../tests/cards';
import type { Design, Place } from './design';
import { lyingAcross } from './grain';
import { checkDesign } from './schema';

const place = (piece: string, locked: boolean): Place => ({
  ...{ piece, copy: 1, sheet: 'card-160/whole/1', x: 10, y: 10, turnDeg: 0, locked },
});
const plain = card();
const placed: Design = {
  ...plain,
  sheets: { ...plain.sheets, places: [place('card', true), place('dome.panels', false), place('lamp.panels', false)] },
};

test('let turn it loses its place, unless that is locked; the others keep theirs', () => {
  const turned = lyingAcross(lyingAcross(placed, 'dome.panels', true), 'card', true);
  expect(turned.sheets.anyGrain).toEqual(['dome.panels', 'card']);
  expect(turned.sheets.places!.map((p) => p.piece)).toEqual(['card', 'lamp.panels']);
  expect(checkDesign(turned).ok).toBe(true);
});

test('said twice it is said once, and taken back it is as before', () => {
  const twice = lyingAcross(lyingAcross(plain, 'card', true), 'card', true);
  expect(twice.sheets.anyGrain).toEqual(['card']);
  expect(lyingAcross(twice, 'card', false)).toEqual(plain);
  expect(lyingAcross(placed, 'card', false)).toEqual(placed);
});
