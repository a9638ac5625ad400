/** Published sizes against the tables of the docs/mechanisms.md 5 (from memory). */
import { ENVELOPES, envelopeById, POST_FORMATS, postById, SHEETS, sheetById } from './sizes';
import { STARTER_STOCKS } from './stocks';

const INCH = 25.4;

describe('ISO 216 sheets', () => {
  test.each([
    ['A2', 420, 594],
    ['A3', 297, 420],
    ['A4', 210, 297],
    ['A5', 148, 210],
  ])('%s is %d x %d mm', (id, short, long) => {
    const sheet = sheetById(id)!;
    expect([sheet.shortMm, sheet.longMm]).toEqual([short, long]);
  });

  test('an A0 has an area of one square metre, and each further size half of it', () => {
    // ISO 216: the A series starts at 1 m²; rounding to whole mm stays within 1 %.
    for (const [id, n] of [
      ['A2', 2],
      ['A3', 3],
      ['A4', 4],
      ['A5', 5],
    ] as const) {
      const { shortMm, longMm } = sheetById(id)!;
      expect(Math.abs((shortMm * longMm * 2 ** n) / 1e6 - 1)).toBeLessThan(0.01);
    }
  });

  test('sides keep 1 to the square root of two', () => {
    for (const id of ['A2', 'A3', 'A4', 'A5']) {
      const { shortMm, longMm } = sheetById(id)!;
      expect(Math.abs(longMm / shortMm - Math.SQRT2)).toBeLessThan(0.01);
    }
  });
});

describe('ISO 269 envelopes', () => {
  test.each([
    ['C4', 229, 324],
    ['C5', 162, 229],
    ['C6', 114, 162],
    ['C7', 81, 114],
    ['DL', 110, 220],
  ])('%s is %d x %d mm', (id, short, long) => {
    const envelope = envelopeById(id)!;
    expect([envelope.shortMm, envelope.longMm]).toEqual([short, long]);
  });

  test('each C size takes the next one folded in half', () => {
    for (const [large, small] of [
      ['C4', 'C5'],
      ['C5', 'C6'],
    ] as const) {
      expect(envelopeById(small)!.longMm).toBe(envelopeById(large)!.shortMm);
      expect(envelopeById(small)!.shortMm).toBe(Math.floor(envelopeById(large)!.longMm / 2));
    }
  });
});

describe('North American envelopes', () => {
  test.each([
    ['us-a1', 3.625, 5.125],
    ['us-a2', 4.375, 5.75],
    ['us-a6', 4.75, 6.5],
    ['us-a7', 5.25, 7.25],
    ['us-a8', 5.5, 8.125],
    ['us-a9', 5.75, 8.75],
    ['us-10', 4.125, 9.5],
  ])('%s is %d x %d in', (id, short, long) => {
    const envelope = envelopeById(id)!;
    expect(envelope.shortMm / INCH).toBeCloseTo(short, 12);
    expect(envelope.longMm / INCH).toBeCloseTo(long, 12);
  });

  test('US Letter is 8.5 x 11 in', () => {
    const sheet = sheetById('letter')!;
    expect([sheet.shortMm / INCH, sheet.longMm / INCH]).toEqual([expect.closeTo(8.5, 12), expect.closeTo(11, 12)]);
  });
});

describe('post formats', () => {
  test('USPS letter, DMM 101', () => {
    const letter = postById('usps-letter')!;
    expect(letter.least!.shortMm / INCH).toBeCloseTo(3.5, 12);
    expect(letter.least!.longMm / INCH).toBeCloseTo(5, 12);
    expect(letter.least!.thickMm / INCH).toBeCloseTo(0.007, 12);
    expect(letter.most.shortMm / INCH).toBeCloseTo(6.125, 12);
    expect(letter.most.longMm / INCH).toBeCloseTo(11.5, 12);
    expect(letter.most.thickMm / INCH).toBeCloseTo(0.25, 12);
    expect(letter.aspect).toEqual([1.3, 2.5]);
  });

  test.each([
    ['uk-letter', 165, 240, 5],
    ['uk-large-letter', 250, 353, 25],
  ])('%s is at most %d x %d x %d mm', (id, short, long, thick) => {
    expect(postById(id)!.most).toEqual({ shortMm: short, longMm: long, thickMm: thick });
  });
});

test('ids are unique, shorter sides come first, and nothing is found under a strange id', () => {
  for (const list of [SHEETS, ENVELOPES, POST_FORMATS]) {
    expect(new Set(list.map((x) => x.id)).size).toBe(list.length);
  }
  for (const { shortMm, longMm } of [...SHEETS, ...ENVELOPES]) expect(shortMm).toBeLessThanOrEqual(longMm);
  expect(sheetById('constructor')).toBeUndefined();
  expect(envelopeById('__proto__')).toBeUndefined();
});

test('starter stocks come on sheets that exist, and thicker stock is heavier', () => {
  for (const stock of STARTER_STOCKS) expect(sheetById(stock.sheet)).toBeDefined();
  const byWeight = [...STARTER_STOCKS].sort((a, b) => a.gsm - b.gsm);
  byWeight.slice(1).forEach((s, i) => expect(s.caliperMm).toBeGreaterThan(byWeight[i].caliperMm));
});
