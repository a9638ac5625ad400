import fc from 'fast-check';
import { parseAngle } from './angle';
import {
  exactLength,
  formatArea,
  formatLength,
  formatSheetArea,
  MM_PER_INCH,
  parseLength,
  cutterSize,
  rulerInches,
} from './length';

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

test('every decimal of up to four places is shown as it was typed, in either unit', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 3900 }),
      fc.constantFrom(10, 100, 1000, 10_000),
      fc.constantFrom('mm' as const, 'in' as const),
      (n, part, unit) => {
        const typed = String(n / part);
        const text = exactLength(mm(typed, unit), unit);
        // In inches what is a fraction on the ruler is shown as that.
        if (!text.includes('/')) expect(text).toBe(typed);
        else expect(mm(text, unit)).toBe(mm(typed, unit));
      },
    ),
    { numRuns: 2000 },
  );
  expect(exactLength(1.9 * MM_PER_INCH, 'in')).toBe('1.9');
});

test.each([
  ['29.7cm/2', 148.5],
  ['10 1/4 / 2', 5.125],
  ['10 1/4 in / 2', 130.175],
  ['10 - 1/4', 9.75],
  ['(8.5 in - 2 x 1/4 in) / 3', 67.733333333333],
  ['2 × 35 + 5', 75],
  ['3/8 in + 2', 11.525],
  ['(3 + 1/8) in', 79.375],
  ['-(4 - 1)', -3],
  ['12/2/3', 2],
  ['½ in x 4', 50.8],
])('%s is %d mm', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 9));

test.each(['3 mm x 4 mm', '8 / (2 mm)', '5 /', '(3', '3)', '4 +', '2 x x 3', '3 mm in', '7 / (2 - 2)', '* 3'])(
  '%p is no length',
  (text) => expect(parseLength(text)).toMatchObject({ ok: false }),
);

/** A sum as text, and what it comes to by the arithmetic of the language. */
interface Told {
  readonly text: string;
  readonly value: number;
}
const sums: fc.Arbitrary<Told> = fc.letrec<{ whole: Told; part: Told }>((tie) => ({
  part: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.integer({ min: 1, max: 900 }).map((n) => ({ text: String(n / 10), value: n / 10 })),
    tie('whole').map(({ text, value }) => ({ text: `(${text})`, value })),
  ),
  whole: fc
    .tuple(tie('part'), fc.array(fc.tuple(fc.constantFrom(' + ', ' - ', ' x ', ' ÷ '), tie('part')), { maxLength: 3 }))
    .map(([first, rest]) => told(first, rest)),
})).whole;
function told(first: Told, rest: readonly (readonly [string, Told])[]): Told {
  // Products first, then sums, each from the left.
  const terms: { sign: number; value: number }[] = [{ sign: 1, value: first.value }];
  for (const [by, { value }] of rest) {
    const last = terms[terms.length - 1];
    if (by === ' x ') last.value *= value;
    else if (by === ' ÷ ') last.value /= value;
    else terms.push({ sign: by === ' + ' ? 1 : -1, value });
  }
  return {
    text: first.text + rest.map(([by, p]) => by + p.text).join(''),
    value: terms.reduce((sum, t) => sum + t.sign * t.value, 0),
  };
}

test('sums come to what arithmetic says, in brackets too', () => {
  fc.assert(
    fc.property(sums, ({ text, value }) => {
      fc.pre(text.length <= 60 && Number.isFinite(value) && Math.abs(value) < 10_000);
      expect(mm(text)).toBeCloseTo(value, 8);
    }),
    { numRuns: 1000 },
  );
});

test('angles are summed as well', () => {
  expect(parseAngle('360 / 8')).toEqual({ ok: true, value: 45 });
  expect(parseAngle('180° - 2 x 30°')).toEqual({ ok: true, value: 120 });
  expect(parseAngle('30° x 2°').ok).toBe(false);
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

test('off a ruler: the nearest 1/32 in, and said to be about there where it is beside the mark', () => {
  expect(['133.35', '98.2726', '25.4', '25.7', '25.1', '0'].map((mm) => rulerInches(Number(mm)))).toEqual([
    '5 1/4',
    'about 3 7/8',
    '1',
    'about 1',
    'about 1',
    '0',
  ]);
  fc.assert(
    fc.property(fc.double({ min: 0, max: 600, noNaN: true }), (mm) => {
      const read = parseLength(`${rulerInches(mm).replace('about ', '')}in`);
      expect(read.ok && Math.abs(read.value - mm)).toBeLessThanOrEqual(25.4 / 64 + 1e-9);
    }),
  );
  expect(cutterSize(101.6, 127)).toBe('101.6 × 127 mm · 4 × 5 in');
});

// Source: a square inch is 25.4 mm squared, 645.16 mm² exactly (1959 agreement).
test('areas in either unit', () => {
  expect([645.16, 6451.6, 0.4, 0].map((mm2) => formatArea(mm2, 'mm'))).toEqual([
    '645 mm²',
    '6452 mm²',
    '0.4 mm²',
    '0 mm²',
  ]);
  expect([645.16, 6451.6].map((mm2) => formatArea(mm2, 'in'))).toEqual(['1.00 in²', '10.00 in²']);
  expect(formatSheetArea(279.4 * 215.9, 'in')).toBe('93.5 in²');
  expect(formatSheetArea(210 * 297, 'mm')).toBe('624 cm²');
});
