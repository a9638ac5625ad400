/** What is said follows the unit of the card, names instead of ids, labels instead of keys. */
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import { fittingFace, fittingParameters } from '../document/fitting';
import { labelOfLever, nameOfMechanism, nameOfPart } from '../document/words';
import { remedyWords } from '../document/remedy-words';
import { matId, matOfId, idOfLayer, layerId, ownerOfId, partId, partOfId, wordsOfPart } from '../ids';
import { KINDS, type ParameterValues } from '../kinds';
import { prove } from '../proof/prove';
import { card, layered, stand } from '../tests/cards';
import { formatFine, formatSaid, MM_PER_INCH, roundedForCutting } from '../units/length';
import { RULE_IDS, RULE_WORDS } from './index';

const faulty = (units: 'mm' | 'in'): Design => ({
  ...layered(
    stand(stand(card(200, 100), 'step-fold', { depth: 60, height: 63.6, width: 40 }), 'step-fold', {
      depth: 30,
      height: 30,
      width: 20,
      offset: 32,
    }),
    { foamMm: 1, foamInsetMm: 0.5, y: 30 },
  ),
  units,
  post: { envelope: 'C6', format: 'uk-letter' },
});

test('a card in inches is told everything in inches, one in mm in mm', () => {
  const said = (units: 'mm' | 'in'): string[] => prove(faulty(units), 6).findings.map((f) => f.message);
  expect(said('mm').length).toBeGreaterThan(4);
  for (const m of said('mm')) expect(m).not.toMatch(/\d (in|in²)\b/);
  for (const m of said('in')) expect(m).not.toMatch(/\d mm/);
  expect(said('mm').some((m) => m.includes('reaches 23.6 mm past'))).toBe(true);
  // 23.6 mm are 0.929 in.
  expect(said('in').some((m) => m.includes('reaches 0.93 in past'))).toBe(true);
});

test('no finding names an id, a key or a rule', () => {
  for (const { message } of prove(faulty('mm'), 6).findings)
    expect(message).not.toMatch(/step-fold-\d|leafA|leafB|card\.|layer\.|figureHeight|glueA/);
  expect(Object.keys(RULE_WORDS).sort()).toEqual([...RULE_IDS].sort());
});

test('two of one name are told apart, one alone is not numbered', () => {
  const d = stand(stand(card(), 'step-fold', {}), 'step-fold', { offset: 60 });
  expect([nameOfMechanism(d, 'step-fold-1'), nameOfMechanism(d, 'step-fold-2')]).toEqual(['Step 1', 'Step 2']);
  expect(nameOfMechanism(stand(card(), 'v-fold', {}), 'v-fold-1')).toBe('V-fold');
  expect(nameOfMechanism(d, 'card')).toBe('Base');
  expect(nameOfPart(d, 'step-fold-2.riser')).toBe('riser of Step 2');
  expect(nameOfPart(d, 'leafA')).toBe('back');
  expect(nameOfPart(d, 'card.gutter')).toBe('gutter');
  expect(nameOfPart(layered(d, {}), 'layer.l1')).toBe('Moon');
  expect(nameOfPart(d, 'leafA.mat-2')).toBe('mat 2 on the back');
});

test('remedies use the labels of their fields, entries of lists numbered', () => {
  const d = stand(card(200, 140), 'plane-stack', {
    planes: [{ depth: 30, base: 0, height: 100, width: 60, offset: 0 }],
  });
  const lever = { mechanism: 'plane-stack-1', parameter: 'planes[0].height', value: 76.2 };
  expect(labelOfLever(d, lever.mechanism, lever.parameter)).toBe('Height, 1');
  expect(remedyWords(d, lever, 100)).toBe('Height, 1: 100.0 → 76.2 mm');
  expect(remedyWords({ ...d, units: 'in' }, lever, 101.6)).toBe('Height, 1: 4 → 3 in');
  expect(remedyWords(stand(card(), 'v-fold', {}), { mechanism: 'v-fold-1', parameter: 'lean', value: 41.26 }, 45)).toBe(
    'Lean of the glue lines: 45° → 41.3°',
  );
  expect(labelOfLever(d, 'card', 'reach')).toBe('Reach of both leaves');
  expect(labelOfLever(layered(d, {}), 'layer.l1', 'x')).toBe('Moon, across');
});

test('inches are said by the marks people cut by, and read as decimals between them', () => {
  expect(formatSaid(4.125 * MM_PER_INCH, 'in')).toBe('4 1/8 in');
  expect(formatSaid((3 + 1 / 16) * MM_PER_INCH + 0.03, 'in')).toBe('3 1/16 in');
  expect(formatSaid(3.03 * MM_PER_INCH, 'in')).toBe('3.03 in');
  expect(formatSaid(0.5, 'in')).toBe('0.020 in');
  expect([formatSaid(12.34, 'mm'), formatSaid(0.004, 'mm'), formatSaid(0, 'mm'), formatSaid(0, 'in')]).toEqual([
    '12.3 mm',
    '0.00 mm',
    '0.0 mm',
    '0 in',
  ]);
  expect([formatFine(1.2, 'mm'), formatFine(1.2, 'in')]).toEqual(['1.20 mm', '0.047 in']);
});

test('new things start on whole mm, or on sixteenths of an inch', () => {
  const lengths = (values: ParameterValues): number[] =>
    Object.entries(values).flatMap(([key, v]): number[] =>
      // Angles are no lengths.
      key === 'span' || key === 'at'
        ? []
        : typeof v === 'number'
          ? [v]
          : Array.isArray(v)
            ? v.flatMap((item) => lengths(item as ParameterValues))
            : [],
    );
  const host = { lengthMm: 177.3, reachA: 131.7, reachB: 118.2 };
  for (const kind of KINDS.keys()) {
    const onFace = KINDS.get(kind)!.mount === 'face';
    const fitted = (units: 'mm' | 'in') =>
      onFace
        ? fittingFace(kind, { widthMm: 118.2, heightMm: 177.3 }, units)
        : fittingParameters(kind, { ...host, reachA: 118.2 }, units);
    const counted = KINDS.get(kind)!
      .parameters.filter((p) => p.unit === 'count')
      .map((p) => p.key);
    const sizes = (units: 'mm' | 'in') =>
      lengths(Object.fromEntries(Object.entries(fitted(units)).filter(([key]) => !counted.includes(key))));
    for (const x of sizes('in')) {
      const marks = (x / MM_PER_INCH) * 16;
      expect(Math.abs(marks - Math.round(marks))).toBeLessThan(1e-9);
    }
    for (const x of sizes('mm')) expect(Number.isInteger(x)).toBe(true);
    const made = addMechanism(blankDesign('new', 177.3, 118.2), kind, undefined, fitted('in'));
    expect(
      prove({ ...made.design, units: 'in' }, 6).findings.filter(
        (f) => f.severity === 'blocks' && f.rule !== 'sheet-fit',
      ),
    ).toEqual([]);
  }
  expect(roundedForCutting(2.087 * MM_PER_INCH, 'in')).toBeCloseTo(2.0625 * MM_PER_INCH, 9);
});

test('ids are taken apart as they were made', () => {
  expect([ownerOfId(partId('step-fold-1', 'base')), partOfId(partId('step-fold-1', 'base'))]).toEqual([
    'step-fold-1',
    'base',
  ]);
  expect([idOfLayer(layerId('l1')), idOfLayer('leafA')]).toEqual(['l1', null]);
  expect([matOfId(matId('step-fold-1.riser', 3)), matOfId('leafA')]).toEqual([
    { facet: 'step-fold-1.riser', k: 3, side: 'inside' },
    null,
  ]);
  expect(['leafA', 'x.plane-2', 'x.glueB', 'x.foot-1'].map(wordsOfPart)).toEqual([
    'leaf A',
    'plane 2',
    'glue B',
    'foot 1',
  ]);
});
