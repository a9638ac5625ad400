/** Keys of files as words for people. */
import { allMeasures, poseOpen } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { KINDS } from '../kinds';
import { card, stand } from '../tests/cards';
import { inSentence, isLengthMeasure, measureWords } from './words';

test.each([
  ['ridge_z', 20, 'Ridge above side A', '20.00 mm', '0.787 in'],
  ['ridge_y', 12.5, 'Ridge from the crease it stands on', '12.50 mm', '0.492 in'],
  ['liner_width_mm', 25.4, 'Liner width', '25.40 mm', '1.000 in'],
  ['crease_deg', 54.321, 'Crease', '54.3°', '54.3°'],
  ['figure_area_mm2', 99.6, 'Figure area', '100 mm²', '0.15 in²'],
  ['shape_loss_pct', 0.52, 'Shape loss', '0.5 %', '0.5 %'],
  ['strut_count', 3, 'Strut in number', '3', '3'],
  ['planes[1].room_mm', 4, 'Room, planes 2', '4.00 mm', '0.157 in'],
])('%s', (key, value, name, mm, inch) => {
  expect(measureWords(key, value, 'mm')).toEqual({ name, value: mm });
  expect(measureWords(key, value, 'in')).toEqual({ name, value: inch });
});

test('no measure of any kind is shown by its key', () => {
  for (const kind of KINDS.keys()) {
    const a = buildAssembly(stand(card(), kind, {}));
    for (const of of Object.values(allMeasures(a, poseOpen(a, 90), null)))
      for (const [key, value] of Object.entries(of)) {
        const said = measureWords(key, value, 'mm');
        expect(said.name).toMatch(/^[A-Z][A-Za-z ]+((, [a-z]+)? [1-9][0-9]*)?$/);
        expect(said.value).toMatch(/^-?[0-9.]+( mm| mm²|°| %)?$/);
      }
  }
});

test('lengths among measures', () => {
  const keys = ['float_mm', 'ridge_z', 'planes[1].room_mm', 'panel_deg[2]', 'figure_area_mm2', 'strut_count'];
  expect(keys.map(isLengthMeasure)).toEqual([true, true, true, false, false, false]);
});

test('a label within a sentence keeps its names', () => {
  expect(inSentence('Reach of leaf B')).toBe('reach of leaf B');
});
