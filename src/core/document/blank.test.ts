/** New cards for who measures in inches: every length on a mark of a ruler, sheets of Letter (ANSI A, 8.5 x 11 in). */
import { sheetById } from '../paper/sizes';
import { MM_PER_INCH } from '../units/length';
import { blankDesign, blankIn } from './design';
import { checkDesign } from './schema';

const marks = (mm: number): number => (mm / MM_PER_INCH) * 16;

test('a card in inches starts on sixteenths of an inch, near the one in mm', () => {
  const [inches, mm] = [blankIn('in', 'x'), blankDesign('x')];
  const lengths = [
    ...(['gutter', 'reachA', 'reachB'] as const).map((k) => [inches.card.parameters[k], mm.card.parameters[k]]),
    [inches.sheets.marginMm, mm.sheets.marginMm],
    [inches.sheets.spacingMm, mm.sheets.spacingMm],
    ...inches.stocks.map((s, k) => [s.leastWebMm, mm.stocks[k].leastWebMm]),
  ] as [number, number][];
  for (const [own, plain] of lengths) {
    expect(Math.abs(marks(own) - Math.round(marks(own)))).toBeLessThan(1e-9);
    expect(Math.abs(own - plain)).toBeLessThanOrEqual(MM_PER_INCH / 32);
  }
  // 1/8 in for 3 mm.
  expect(inches.sheets.spacingMm).toBeCloseTo(MM_PER_INCH / 8, 9);
  for (const { sheet } of inches.stocks) {
    expect(sheetById(sheet)!.shortMm).toBeCloseTo(8.5 * MM_PER_INCH, 9);
    expect(sheetById(sheet)!.longMm).toBeCloseTo(11 * MM_PER_INCH, 9);
  }
  expect(checkDesign(JSON.parse(JSON.stringify(inches)))).toEqual({ ok: true, design: inches });
});

test('in mm it is the plain one', () => expect(blankIn('mm', 'x')).toEqual(blankDesign('x')));
