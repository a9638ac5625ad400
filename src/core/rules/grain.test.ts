/** How grain, sheets, envelopes and thickness decide, case by case. */
import { gather } from '../proof/prove';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import type { Stock } from '../paper/stocks';
import { RULES, type Finding, type RuleId } from './index';

const check = (design: Design, id: RuleId): Finding[] => {
  const rule = RULES.find((r) => r.id === id)!;
  return rule.check(gather(design, rule.needs, 6));
};
const withStock = (design: Design, change: Partial<Stock>): Design => ({
  ...design,
  stocks: design.stocks.map((s) => ({ ...s, ...change })),
});

describe('sheet-fit and grain, on A4 with margins of 5 mm', () => {
  // Inside the margins A4 has 200 x 287 mm. A card of gutter g and reach r is g along the crease and 2r across it.
  test.each<[grain: Stock['grain'], gutter: number, reach: number, expected: string]>([
    ['long', 280, 95, 'fits'],
    ['long', 190, 140, 'note'],
    ['short', 190, 140, 'fits'],
    ['short', 280, 95, 'note'],
    ['none', 190, 140, 'fits'],
    ['none', 280, 95, 'fits'],
    ['long', 290, 95, 'blocks'],
    ['none', 210, 145, 'blocks'],
  ])('grain %s, gutter %d, reach %d: %s', (grain, gutter, reach, expected) => {
    const design = withStock(blankDesign('x', gutter, reach), { grain });
    const [finding] = [...check(design, 'sheet-fit'), ...check(design, 'grain')];
    expect(finding?.severity ?? 'fits').toBe(expected);
  });

  test('a larger sheet clears it', () => {
    expect(check(withStock(blankDesign('x', 290, 95), { sheet: 'A3' }), 'sheet-fit')).toHaveLength(0);
  });

  test('a crease of 75 mm that crosses the grain of its piece is noted, a shorter one is not', () => {
    // The spine of a V-fold lies square to its glue lines; all three are as long.
    const spine = (size: number): Finding[] => {
      const { design } = addMechanism(blankDesign('x', 280, 95), 'v-fold', 'card.gutter', { size, fold: 90, lean: 20 });
      return check(design, 'grain').filter((f) => f.mechanism === 'v-fold-1');
    };
    expect(spine(74.9)).toEqual([]);
    expect(spine(75)).toHaveLength(1);
    expect(spine(75)[0]).toMatchObject({
      severity: 'note',
      measured: expect.closeTo(75, 9),
      subjects: expect.arrayContaining(['v-fold-1.spine']),
    });
    const { design } = addMechanism(blankDesign('x', 280, 95), 'v-fold', 'card.gutter', { size: 90 });
    expect(check(withStock(design, { grain: 'none' }), 'grain')).toEqual([]);
  });

  test('margins count', () => {
    const design = blankDesign('x', 286, 95);
    expect(check(design, 'sheet-fit')).toHaveLength(0);
    expect(check({ ...design, sheets: { ...design.sheets, marginMm: 10 } }, 'sheet-fit')[0].severity).toBe('blocks');
  });
});

describe('post-size, either way up', () => {
  test.each([
    ['C6', 159, 111, 0],
    ['C6', 111, 159, 0],
    ['C6', 162, 114, 2],
    ['DL', 217, 107, 0],
    ['DL', 217, 108, 1],
    ['us-a7', 180, 130, 0],
    ['us-a7', 182, 130, 1],
  ])('%s with a card of %d x %d: %d findings', (envelope, gutter, reach, count) => {
    const design = { ...blankDesign('x', gutter, reach), post: { envelope, format: null } };
    expect(check(design, 'post-size')).toHaveLength(count);
  });

  test('what sticks out when closed counts with it', () => {
    const plain = { ...blankDesign('x', 150, 100), post: { envelope: 'C6', format: null } };
    const out = addMechanism(plain, 'step-fold', 'card.gutter', { depth: 60, height: 55, width: 40 }).design;
    expect(check(plain, 'post-size')).toHaveLength(0);
    const [finding] = check(out, 'post-size');
    expect(finding.measured).toBeCloseTo(115, 6);
  });
});

describe('thickness against the post', () => {
  const stacked = (caliperMm: number, format: string): Finding[] => {
    const design = addMechanism(withStock(blankDesign('x', 200, 100), { caliperMm }), 'step-fold', 'card.gutter', {
      depth: 30,
      height: 20,
      width: 40,
    }).design;
    return check({ ...design, post: { envelope: null, format } }, 'thickness');
  };

  test.each([
    [1.2, 'uk-letter', 0],
    [1.3, 'uk-letter', 1],
    [6.2, 'uk-large-letter', 0],
    [6.3, 'uk-large-letter', 1],
    [1.5, 'usps-letter', 0],
    [1.6, 'usps-letter', 1],
  ])('four layers of %d mm as %s: %d findings', (caliper, format, count) => {
    expect(stacked(caliper, format)).toHaveLength(count);
  });

  test('too thin is a finding as well', () => {
    expect(stacked(0.04, 'usps-letter')[0].aspect).toBe('least');
  });

  test('without a post format the rule is absent', () => {
    expect(check(blankDesign('x'), 'thickness')).toHaveLength(0);
  });
});

describe('web against the stock’s own limit', () => {
  const pair = (gap: number, leastWebMm: number): Finding[] => {
    const base = withStock(blankDesign('x', 200, 100), { leastWebMm });
    const one = addMechanism(base, 'step-fold', 'card.gutter', {
      depth: 30,
      height: 30,
      width: 30,
      offset: -20,
    }).design;
    return check(
      addMechanism(one, 'step-fold', 'card.gutter', { depth: 25, height: 25, width: 30, offset: 10 + gap }).design,
      'web',
    );
  };

  test.each([
    [3, 3.2, 1],
    [3.3, 3.2, 0],
    [3, 2.5, 0],
    [3.3, 4, 1],
  ])('a strip of %d mm on stock that needs %d: %d findings', (gap, least, count) => {
    const findings = pair(gap, least);
    expect(findings).toHaveLength(count);
    if (count > 0) expect(Math.abs(findings[0].measured - gap)).toBeLessThan(0.03);
  });

  test('a step close to the edge leaves a narrow strip beside it', () => {
    const design = addMechanism(blankDesign('x', 100, 80), 'step-fold', 'card.gutter', {
      depth: 30,
      height: 30,
      width: 96,
    }).design;
    expect(check(design, 'web')[0].measured).toBeCloseTo(2, 1);
  });
});
