/** Remedies that lie in another stage: applied, and proved in full. A4 is 210 x 297 mm (ISO 216). */
import { remedyWords } from '../document/words';
import { card } from '../tests/cards';
import { leverValue, prove, setLever } from './prove';

const found = (gutter: number, reach: number) =>
  prove(card(gutter, reach), 6).findings.find((f) => f.rule === 'sheet-fit');

test.each([
  [290, 3.5],
  [296, 0.5],
])('a card %d mm long fits A4 with margins of %d mm', (gutter, mostMm) => {
  const d = card(gutter, 100);
  const remedy = found(gutter, 100)!.remedies!.find((r) => r.parameter === 'marginMm')!;
  expect(remedy.value).toBeLessThanOrEqual(mostMm);
  expect(remedy.value).toBeGreaterThan(mostMm - 0.15);
  const mended = setLever(d, remedy.mechanism, remedy.parameter, remedy.value);
  expect(mended.sheets.marginMm).toBe(remedy.value);
  expect({ ...mended, sheets: d.sheets }).toEqual(d);
  expect(prove(mended, 6).findings.filter((f) => f.severity === 'blocks')).toEqual([]);
  expect(remedyWords(d, remedy, leverValue(d, remedy.mechanism, remedy.parameter)!)).toMatch(
    /^Sheets, margin: 5\.0 → \d\.\d mm$/,
  );
});

test('what is larger than the sheet itself no margin makes fit', () => {
  expect(found(298, 100)!.remedies?.some((r) => r.parameter === 'marginMm') ?? false).toBe(false);
});

test('marks to register by keep their room: then no margin is offered', () => {
  const d = card(290, 100);
  const marked = { ...d, sheets: { ...d.sheets, print: { marks: true } } } as typeof d;
  const finding = prove(marked, 6).findings.find((f) => f.rule === 'sheet-fit')!;
  expect(finding.remedies?.some((r) => r.parameter === 'marginMm') ?? false).toBe(false);
});
