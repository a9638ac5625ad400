/** Remedies that lie in another stage: applied, and proved in full. A4 is 210 x 297 mm (ISO 216). */
import { remedyWords } from '../document/remedy-words';
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { statesOf } from '../document/states';
import { buildAssembly } from '../build/build';
import { regionBox } from '../plane/polygon';
import { checkDesign } from '../document/schema';
import { ENVELOPES } from '../paper/sizes';
import { card, layered, stand } from '../tests/cards';
import { gather, leverValue, prove, seek, setLever } from './prove';
import { overhang } from '../rules/overhang';
import type { Finding } from '../rules';

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

test('a stock with a margin of its own: that is the one asked, and the one that is offered less', () => {
  // 12 x 12 in is 304.8 mm: a card of 300 mm fits with up to 2.4 mm of margin.
  const square = (marginMm: number): Design => {
    const d = card(300, 100);
    const stocks = d.stocks.map((s) => (s.id === d.card.stock ? { ...s, sheet: '12x12', marginMm } : s));
    return { ...d, stocks };
  };
  const blocked = (d: Design) => prove(d, 6).findings.filter((f) => f.rule === 'sheet-fit');
  expect([2.39, 2.4, 2.41].map((mm) => blocked(square(mm)).length)).toEqual([0, 0, 1]);
  // The margin of all sheets, 5 mm, says nothing of it.
  expect(blocked(square(0))).toEqual([]);
  const d = square(4);
  const [finding] = blocked(d);
  const remedy = finding.remedies!.find((r) => r.parameter === 'marginMm')!;
  expect(remedyWords(d, remedy, 4)).toBe('Sheets, margin of Smooth card, cream: 4.0 → 2.4 mm');
  const mended = setLever(d, remedy.mechanism, remedy.parameter, remedy.value);
  expect([blocked(mended), mended.sheets]).toEqual([[], d.sheets]);
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

/** A card with a step that reaches 10 mm past leaves of 100 mm when shut. */
const past = stand(card(200, 100), 'step-fold', { depth: 60, height: 50, width: 40 });
const remedyOf = (d: Design, rule: Finding['rule'], parameter: string) => {
  const finding = prove(d, 6).findings.find((f) => f.rule === rule)!;
  const { remedies } = finding.unsought ? seek(d, finding, [finding], 6) : finding;
  return remedies?.find((r) => r.parameter === parameter);
};
const wordsOf = (d: Design, r: NonNullable<ReturnType<typeof remedyOf>>): string =>
  remedyWords(d, r, leverValue(d, r.mechanism, r.parameter)!);

describe('choices of other stages', () => {
  test('a piece too large for its sheet: the next larger sheet that takes it, and everything else as it was', () => {
    // 320 x 200 mm: no A4, no Letter (215.9 x 279.4) and no 12 x 12 in (304.8); A3 is 297 x 420 (ISO 216).
    const d = card(320, 100);
    const remedy = remedyOf(d, 'sheet-fit', 'sheet')!;
    expect(wordsOf(d, remedy)).toBe('Brief, sheet of Smooth card, cream: A4 → A3');
    const mended = setLever(d, remedy.mechanism, remedy.parameter, remedy.value);
    expect(checkDesign(mended).ok).toBe(true);
    expect(prove(mended, 6).findings.filter((f) => f.rule === 'sheet-fit')).toEqual([]);
    expect({ ...mended, stocks: d.stocks }).toEqual(d);
    expect(remedyOf(card(900, 700), 'sheet-fit', 'sheet')).toBeUndefined();
  });
  test('a crease across the grain: paper with its grain the other way, once it is asked for', () => {
    const d = card(180, 120);
    const before = prove(d, 6).findings.find((f) => f.rule === 'grain')!;
    expect([before.unsought, before.remedies]).toEqual([true, undefined]);
    const remedy = remedyOf(d, 'grain', 'grain')!;
    expect(wordsOf(d, remedy)).toMatch(/grain of Smooth card, cream: long → short$/);
  });
  test('a card too large for its envelope: the smallest of those listed that takes it', () => {
    const d: Design = { ...card(150, 120), post: { envelope: 'C6', format: null } };
    const remedy = remedyOf(d, 'post-size', 'envelope')!;
    // By brute force: 3 mm of ease each way, common practice.
    const takes = ENVELOPES.filter((e) => e.shortMm >= 123 && e.longMm >= 153);
    const [least] = takes.sort((a, b) => a.shortMm * a.longMm - b.shortMm * b.longMm);
    const mended = setLever(d, remedy.mechanism, remedy.parameter, remedy.value);
    expect(mended.post.envelope).toBe(least.id);
    expect(prove(mended, 6).findings.filter((f) => f.rule === 'post-size')).toEqual([]);
  });
  test('what reaches past the shut card: sent open flat it matters to nobody', () => {
    const remedy = remedyOf(past, 'overhang', 'sent')!;
    expect(wordsOf(past, remedy)).toBe('Brief, sent: shut → open flat');
    const mended = setLever(past, remedy.mechanism, remedy.parameter, remedy.value);
    expect(prove(mended, 6).verdict).not.toBe('blocked');
    expect(setLever(mended, remedy.mechanism, remedy.parameter, 0)).toEqual(past);
  });
  test('what holds a ridge flat is stuck to its own side alone', () => {
    const lifted = stand(card(200, 140), 'lift-tab', {
      lower: 24,
      upper: 24,
      width: 50,
      strip: 14,
      glueTab: 10,
      notch: 12,
    });
    const d = layered(lifted, {
      facet: 'lift-tab-1.upper',
      shape: { rect: { width: 20, height: 12 } },
      from: { x: 'middle', y: 'low' },
      y: -5,
    });
    const remedy = remedyOf(d, 'collision', 'onFacet')!;
    expect(wordsOf(d, remedy)).toBe('Moon, stuck: all over → on its own facet');
  });
});

describe('a layer cut off where its facet ends', () => {
  /** 40 x 20 mm, its upper edge so far past the fore edge of a leaf of 100 mm. */
  const patch = (pastMm: number, trimmed?: boolean): Design =>
    layered(card(180, 100), {
      ...{ shape: { rect: { width: 40, height: 20 } }, from: { x: 'middle', y: 'high' }, y: pastMm },
      ...(trimmed === undefined ? {} : { trimmed }),
    });
  const paper = (d: Design) => regionBox(buildAssembly(d).layers[0].region);
  test('is offered for what reaches past the card, and takes away what reaches past, and nothing else', () => {
    const d = patch(6);
    const remedy = remedyOf(d, 'overhang', 'trimmed')!;
    expect(wordsOf(d, remedy)).toBe('Moon, cut: whole → up to the edge of its facet');
    const mended = setLever(d, remedy.mechanism, remedy.parameter, remedy.value);
    expect(checkDesign(mended).ok).toBe(true);
    expect(prove(mended, 6).findings.filter((f) => f.severity === 'blocks')).toEqual([]);
    expect(paper(mended)).toEqual({ min: [-20, expect.closeTo(86, 6)], max: [20, expect.closeTo(100, 6)] });
  });
  test('past the edge by a hair, at it, and inside: its height is that of its shape less what is past', () => {
    const heights = [0.01, 0, -0.01, 19.9].map((past) => {
      const { min, max } = paper(patch(past, true));
      return max[1] - min[1];
    });
    [19.99, 20, 20, 0.1].forEach((mm, k) => expect(heights[k]).toBeCloseTo(mm, 6));
  });
  test('one that lies beside its facet altogether stays whole, and is told as it was', () => {
    expect(paper(patch(30, true))).toEqual(paper(patch(30)));
    expect(prove(patch(30, true), 6).findings.map((f) => f.rule)).toContain('overhang');
  });
});

describe('a state that is named', () => {
  const shelf = (open: number, stance: 'upright' | 'tent'): Design => ({
    ...card(150, 100),
    states: [{ id: 'shelf', name: 'On the shelf', drives: { open }, stance }],
  });
  test('a card that falls over flat is opened less, or laid down, and nothing else of it changes', () => {
    const d = shelf(180, 'upright');
    expect(wordsOf(d, remedyOf(d, 'tip', 'stance')!)).toMatch(/^Brief, On the shelf: standing as it is read → lying/);
    const opened = remedyOf(d, 'tip', 'open')!;
    expect(wordsOf(d, opened)).toMatch(/^Brief, On the shelf, opening: 180° → 1\d\d(\.\d)?°$/);
    for (const parameter of ['open', 'stance']) {
      const remedy = remedyOf(d, 'tip', parameter)!;
      const mended = setLever(d, remedy.mechanism, remedy.parameter, remedy.value);
      expect(checkDesign(mended).ok).toBe(true);
      expect(prove(mended, 6).findings.filter((f) => f.rule === 'tip')).toEqual([]);
      expect({ ...mended, states: d.states }).toEqual(d);
    }
  });
  test('states that come with the base become the card’s own once one is changed', () => {
    const easel: Design = {
      ...card(150, 100),
      card: { ...card(150, 100).card, construction: 'easel', parameters: {} },
    };
    const changed = setLever(easel, 'card.state-shelf', 'stance', 2);
    expect(changed.states!.find((s) => s.id === 'shelf')!.stance).toBe('lying');
    expect(changed.states!.map((s) => s.id)).toEqual(statesOf(easel).map((s) => s.id));
  });
});

describe('numbers within lists, and stops', () => {
  test('a strut of one’s own that is too narrow is widened by itself', () => {
    const struts = (width: number): Design =>
      stand(card(200, 140), 'strut-figure', {
        ...{ shape: { rect: { width: 60, height: 40 } }, depth: 25 },
        struts: [
          { x: -20, width: 12 },
          { x: 15, width },
        ],
      });
    const remedy = remedyOf(struts(1.5), 'web', 'struts[1].width')!;
    expect(remedy.value).toBeGreaterThanOrEqual(4);
    expect(remedy.value).toBeLessThan(4.2);
    const width = (d: Design): unknown => (d.mechanisms[0].parameters.struts as { width: number }[])[1].width;
    const mended = setLever(struts(1.5), remedy.mechanism, remedy.parameter, remedy.value);
    expect([width(mended), mended.mechanisms[0].parameters.depth]).toEqual([remedy.value, 25]);
  });
  test('a carrier that would run into a bar is stopped before it: as far as plane geometry says', () => {
    // 20 mm across, it runs 60 mm from -30; the bar is 6 mm wide about 20: its near edge is met at 7, 37 mm on.
    const page = card(190, 140);
    const slid = addMechanism(
      { ...page, card: { ...page.card, stock: 'card-240' } },
      'track-slider',
      { on: 'leafB', mount: { ...CENTRE, side: 'inside' } },
      { width: 100, height: 50, path: { line: 60 } },
    ).design;
    const d = layered(slid, {
      ...{ facet: 'track-slider-1.front', shape: { rect: { width: 6, height: 30 } }, x: 20, side: 'inside' },
    });
    expect(leverValue(d, 'track-slider-1', 'end')).toBeCloseTo(60, 9);
    const remedy = remedyOf(d, 'collision', 'end')!;
    expect(remedy.value).toBeLessThanOrEqual(37);
    expect(remedy.value).toBeGreaterThan(36);
    const mended = setLever(d, 'track-slider-1', 'end', remedy.value);
    expect(prove(mended).findings.filter((f) => f.severity === 'blocks')).toEqual([]);
  });
});

describe('meant to stick out', () => {
  const told = (mm: number, d = past) => {
    const meant = mm > 0 ? { ...d, meantOut: [{ of: 'step-fold-1', mm }] } : d;
    return overhang.check(gather(meant, 'closed')).map((f) => `${f.severity} ${f.aspect}`);
  };
  test('just below what is meant, at it and just above', () => {
    expect(told(0)).toEqual(['blocks fore']);
    expect(told(9.99)).toEqual(['blocks fore']);
    expect(told(10)).toEqual(['note fore as meant']);
    expect(told(10.01)).toEqual(['note fore as meant']);
  });
  test('it is meant of that part alone', () => {
    const two = stand(past, 'step-fold', { depth: 62, height: 50, width: 30, offset: 60 });
    expect(told(20, two).sort()).toEqual(['blocks fore', 'note fore as meant']);
  });
  test('the envelope is asked for all of it', () => {
    // 200 mm long, 100 and 10 mm high, with 3 mm of ease: DL is 110 x 220 mm (ISO 269).
    const posted = (mm: number, reach: number): Design => ({
      ...stand(card(200, reach), 'step-fold', { depth: 60, height: 50, width: 40 }),
      post: { envelope: 'DL', format: null },
      meantOut: [{ of: 'step-fold-1', mm }],
    });
    const blocked = (d: Design) =>
      prove(d, 6)
        .findings.filter((f) => f.severity === 'blocks')
        .map((f) => f.rule);
    expect(blocked(posted(30, 100))).toEqual(['post-size']);
    expect(blocked(posted(1, 110))).toEqual(['post-size']);
  });
  test('the remedy means as much as there is', () => {
    const remedy = remedyOf(past, 'overhang', 'step-fold-1')!;
    expect(wordsOf(past, remedy)).toBe('Step, meant to stick out by: 0.0 → 10.0 mm');
    const mended = setLever(past, remedy.mechanism, remedy.parameter, remedy.value);
    expect(mended.meantOut).toEqual([{ of: 'step-fold-1', mm: 10 }]);
    expect(setLever(mended, remedy.mechanism, remedy.parameter, 0)).toEqual(past);
  });
});
