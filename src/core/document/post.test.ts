/** Sizes of cards, envelopes and sheets of one’s own, against the rule that proves them and what they are made of. */
import { CARD_SIZES, largestFor } from '../paper/card-sizes';
import { ENVELOPE_EASE_MM, ENVELOPES, SHEETS } from '../paper/sizes';
import { findings, card } from '../tests/cards';
import { buildAssembly } from '../build/build';
import { layOut } from '../sheets/lay-out';
import { blankDesign, type Design } from './design';
import { sizeOfBase } from './fields';
import { atSize, envelopeOf, envelopesFor, formatOf, sheetOf } from './post';
import { checkDesign } from './schema';

const posted = (d: Design, post: Partial<Design['post']>): Design => ({ ...d, post: { ...d.post, ...post } });

test.each(ENVELOPES.map((e) => [e.name, e] as const))(
  'the largest card for %s passes, a little more does not',
  (_, e) => {
    const size = largestFor(e);
    expect(size.longMm).toBeGreaterThan(e.longMm - ENVELOPE_EASE_MM - 0.1);
    const fits = atSize(posted(card(), { envelope: e.id }), size);
    expect(findings(fits, 'post-size', 2)).toEqual([]);
    for (const side of ['shortMm', 'longMm'] as const) {
      const more = { ...size, [side]: size[side] + 0.2 };
      const large = { shortMm: Math.min(more.shortMm, more.longMm), longMm: Math.max(more.shortMm, more.longMm) };
      expect(findings(atSize(fits, large), 'post-size', 2).length).toBeGreaterThan(0);
    }
  },
);

test('square and slim envelopes are among the listed ones', () => {
  expect(ENVELOPES.filter((e) => e.shortMm === e.longMm).length).toBeGreaterThanOrEqual(4);
  expect(ENVELOPES.filter((e) => e.longMm / e.shortMm >= 1.95).length).toBeGreaterThanOrEqual(3);
});

test('common sizes: A sizes halve (ISO 216), each goes into some listed envelope', () => {
  const size = (id: string) => CARD_SIZES.find((s) => s.id === id)!;
  expect([size('a6').longMm, size('a6').shortMm]).toEqual([size('a5').shortMm, Math.floor(size('a5').longMm / 2)]);
  const a5 = SHEETS.find((s) => s.id === 'A5')!;
  expect([size('a5').shortMm, size('a5').longMm]).toEqual([a5.shortMm, a5.longMm]);
  for (const s of CARD_SIZES) {
    const fits = ENVELOPES.some((e) => largestFor(e).shortMm >= s.shortMm && largestFor(e).longMm >= s.longMm);
    expect([s.name, fits]).toEqual([s.name, true]);
  }
});

test('a card keeps its way up, its fold and its liner at another size', () => {
  const upright = { ...blankDesign('x', 200, 140) };
  const lined = {
    ...upright,
    card: { ...upright.card, parameters: { ...upright.card.parameters, fold: 'top', liner: 3 } },
  };
  const next = atSize(lined, { shortMm: 105, longMm: 148 });
  expect(sizeOfBase(next)).toEqual({ gutter: 148, reach: 105 });
  expect(next.card.parameters).toMatchObject({ fold: 'top', liner: 3 });
  const lying = atSize(blankDesign('x', 100, 180), { shortMm: 105, longMm: 148 });
  expect(sizeOfBase(lying)).toEqual({ gutter: 105, reach: 148 });
});

describe('one’s own', () => {
  const envelopes = [{ id: 'own-long', name: 'Long one', shortMm: 300, longMm: 90 }];
  const formats = [{ id: 'own-post', name: 'Parcel', most: { shortMm: 100, longMm: 150, thickMm: 2 } }];
  test('envelope is held against the card like a listed one', () => {
    const d = posted(card(290, 80), { envelope: 'own-long', own: { envelopes, formats } });
    expect(checkDesign(d).ok).toBe(true);
    expect(envelopeOf(d)).toMatchObject({ shortMm: 90, longMm: 300 });
    expect(findings(d, 'post-size', 2)).toEqual([]);
    expect(findings(posted(card(298, 80), d.post), 'post-size', 2)[0].measured).toBe(298);
  });
  test('post limit too', () => {
    const d = posted(card(120, 80), { format: 'own-post', own: { envelopes, formats } });
    expect(formatOf(d)?.most.thickMm).toBe(2);
    expect(findings(posted(card(151, 80), d.post), 'post-size', 2).length).toBeGreaterThan(0);
    expect(findings(d, 'post-size', 2)).toEqual([]);
  });
  test('what is not there is refused by its place', () => {
    const read = checkDesign(posted(card(), { envelope: 'own-nowhere' }));
    expect(read.ok ? '' : read.why).toMatch(/post\.envelope is "own-nowhere", which is no envelope/);
    const format = checkDesign(posted(card(), { format: 'nowhere' }));
    expect(format.ok ? '' : format.why).toMatch(/post\.format is "nowhere"/);
  });
  test('sheet is what pieces are laid on', () => {
    const d = card(200, 150);
    const own = { ...d, stocks: d.stocks.map((s) => ({ ...s, ownSheet: { shortMm: 320, longMm: 450 } })) };
    expect(checkDesign(own).ok).toBe(true);
    expect(sheetOf(own.stocks[0])).toMatchObject({ shortMm: 320, longMm: 450 });
    const laid = (x: Design) => layOut(x, buildAssembly(x));
    expect(laid(own).unplaced).toEqual([]);
    expect(laid(d).unplaced.length).toBeGreaterThan(0);
  });
});

test('envelopes that take a card are those its proof does not call too tight: just below, at and just above', () => {
  for (const by of [-0.01, 0, 0.01])
    for (const { shortMm, longMm } of ENVELOPES) {
      const [reach, gutter] = [shortMm - ENVELOPE_EASE_MM + by, longMm - ENVELOPE_EASE_MM + by];
      const fitting = envelopesFor(card(gutter, reach), [gutter, reach]).map((e) => e.id);
      const proved = ENVELOPES.filter(({ id }) => {
        const d: Design = { ...card(gutter, reach), post: { envelope: id, format: null } };
        return findings(d, 'post-size').length === 0;
      });
      expect([...fitting].sort()).toEqual(proved.map((e) => e.id).sort());
    }
});
