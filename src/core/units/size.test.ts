import fc from 'fast-check';
import { exactSize, formatSize, parseSize } from './size';

// Source: the international inch is 25.4 mm exactly (1959 agreement).
test.each([
  ['5 3/8 x 4 1/8', 'in', [136.525, 104.775]],
  ['140x100', 'mm', [140, 100]],
  ['8in × 5.5in', 'mm', [203.2, 139.7]],
  ['29.7cm/2 x 10cm', 'mm', [148.5, 100]],
  ['7inX5in', 'mm', [177.8, 127]],
] as const)('%s in %s', (text, unit, [w, h]) => {
  expect(parseSize(text, unit)).toEqual({ ok: true, value: [expect.closeTo(w, 9), expect.closeTo(h, 9)] });
});

test.each(['', '140', '140 x', 'x 100', '1 x 2 x 3', '140 x wide', '0 x 10', '-4 x 10'])('%p is no size', (text) =>
  expect(parseSize(text)).toMatchObject({ ok: false }),
);

test('what a field starts from reads back the very same', () => {
  const mm = fc.double({ min: 0.01, max: 2000, noNaN: true });
  fc.assert(
    fc.property(mm, mm, fc.constantFrom('mm' as const, 'in' as const), (w, h, unit) => {
      const text = exactSize([w, h], unit);
      fc.pre(!/e/.test(text));
      expect(parseSize(text, unit)).toEqual({ ok: true, value: [w, h] });
    }),
  );
  expect(formatSize([136.525, 104.775], 'in')).toBe('5 3/8 × 4 1/8');
});
