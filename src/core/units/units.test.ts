import fc from 'fast-check';
import { parseAngle } from './angle';
import { exactLength, formatLength, MM_PER_INCH, parseLength, cutterSize, rulerInches } from './length';

const mm = (text: string, unit: 'mm' | 'in' = 'mm'): number => {
  const read = parseLength(text, unit);
  if (!read.ok) throw new Error(read.why);
  return read.value;
};

// Source: the international inch is 25.4 mm exactly (1959 agreement).
test.each([
  ['25', 25],
  ['25.4 mm', 25.4],
  ['10 cm', 100],
  ['1in', 25.4],
  ['4 1/8 in', 104.775],
  ['4-1/8"', 104.775],
  ['3/8"', 9.525],
  ['4⅛ in', 104.775],
  ['2,5', 2.5],
  ['.5', 0.5],
  ['−3', -3],
  ['- 3'.replace(' ', ''), -3],
])('%s is %d mm', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 12));

test('a bare number takes the unit of the field', () => expect(mm('4 1/8', 'in')).toBeCloseTo(104.775, 12));

test.each(['', 'abc', '5kg', '1/0', '4 1/', '1e5', '--3', '1 2 3', '99999999', 'NaN', '0x10', `${'9'.repeat(60)}`])(
  '%p is refused with a sentence',
  (text) => {
    const read = parseLength(text);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.why).toMatch(/length|large|unit|long/);
  },
);

test('what a field shows reads back to the very same length, in either unit', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -2000, max: 2000, noNaN: true }),
      fc.constantFrom('mm' as const, 'in' as const),
      (value, unit) => {
        const length = Math.abs(value) < 1e-6 ? 0 : value;
        const text = exactLength(length, unit);
        // Numbers that print with an exponent are below anything a maker types.
        fc.pre(!/e/.test(text));
        expect(mm(text, unit)).toBe(length);
      },
    ),
  );
});

test('sixty-fourths of an inch are shown as fractions', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 64 * 20 }), (n) => {
      const text = formatLength((n / 64) * MM_PER_INCH, 'in');
      expect(text).not.toMatch(/\./);
      expect(mm(text, 'in')).toBeCloseTo((n / 64) * MM_PER_INCH, 9);
    }),
  );
});

test('angles', () => {
  expect(parseAngle('45°')).toEqual({ ok: true, value: 45 });
  expect(parseAngle('abc').ok).toBe(false);
  expect(parseAngle('400').ok).toBe(false);
});

test('off a ruler: the nearest 1/32 in, with a sign where it is a little over or under', () => {
  expect(['133.35', '98.2726', '25.4', '25.7', '25.1', '0'].map((mm) => rulerInches(Number(mm)))).toEqual([
    '5 1/4',
    '3 7/8-',
    '1',
    '1+',
    '1-',
    '0',
  ]);
  fc.assert(
    fc.property(fc.double({ min: 0, max: 600, noNaN: true }), (mm) => {
      const read = parseLength(`${rulerInches(mm).replace(/[+-]$/, '')}in`);
      expect(read.ok && Math.abs(read.value - mm)).toBeLessThanOrEqual(25.4 / 64 + 1e-9);
    }),
  );
  expect(cutterSize(101.6, 127)).toBe('101.6 × 127 mm · 4 × 5 in');
});
