import fc from 'fast-check';
import { rulerMarks } from './ruler';

test('a numbered mark lies where its number says, in either direction', () =>
  fc.assert(
    fc.property(
      fc.double({ min: 0.05, max: 40, noNaN: true }),
      fc.double({ min: -300, max: 900, noNaN: true }),
      fc.boolean(),
      (size, zero, back) => {
        const px = back ? -size : size;
        for (const m of rulerMarks(600, zero, px, 'mm'))
          if (m.label !== undefined) expect(m.px).toBeCloseTo(zero + Number(m.label) * px, 6);
      },
    ),
  ));
test('numbers have room, and marks are not a smear', () => {
  for (const size of [0.1, 0.7, 3, 20]) {
    const marks = rulerMarks(800, 10, size, 'mm');
    const labels = marks.filter((m) => m.label !== undefined);
    labels.slice(1).forEach((m, k) => expect(m.px - labels[k].px).toBeGreaterThanOrEqual(44));
    marks.slice(1).forEach((m, k) => expect(m.px - marks[k].px).toBeGreaterThanOrEqual(4.99));
  }
});
test('inches are counted in fractions', () => {
  const labels = rulerMarks(300, 0, 8, 'in').flatMap((m) => m.label ?? []);
  expect(labels.slice(0, 4)).toEqual(['0', '1/4', '1/2', '3/4']);
});
test('without a size there is nothing', () => expect(rulerMarks(300, 0, 0, 'mm')).toEqual([]));
