/**
 * Layouts of whole cards: against packing by boxes (package maxrects-packer), areas and overlaps by a second polygon
 * library (package polygon-clipping), distances by brute force.
 */
import fc from 'fast-check';
import { shelveFonts } from '../../fonts/shelve';
import { buildAssembly } from '../build/build';
import { blankDesign, type Design, type Place } from '../document/design';
import { checkDesign } from '../document/schema';
import type { Stock } from '../paper/stocks';
import { regionArea, type Region } from '../plane/polygon';
import { packBoxes } from '../tests/box-packer';
import { card, layered, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { commonArea, jointArea, leastGap } from '../tests/second-polygons';
import { layOnBeds, onBed } from './beds';
import { layingOut, layOut } from './lay-out';
import { paperOnSheet, type Layout, type SheetLayout } from './layout';
import { troubleOfPiece, type SheetRoom } from './trouble';

beforeAll(shelveFonts);

const laid = (d: Design): Layout => layOut(d, buildAssembly(d));
const papers = (s: SheetLayout): Region[] => s.placed.map(paperOnSheet);

/** No overlap, room between pieces and to the edges as asked, use as a second library has it. */
function expectSound({ sheets }: Layout, { sheets: { marginMm, spacingMm } }: Design): void {
  for (const sheet of sheets) {
    const regions = papers(sheet);
    regions.forEach((a, i) =>
      regions.slice(0, i).forEach((b) => {
        expect(commonArea(a, b)).toBeLessThan(1e-6);
        expect(leastGap(a, b)).toBeGreaterThan(spacingMm - 1e-4);
      }),
    );
    for (const [x, y] of regions.flatMap((r) => r.flatMap((p) => p.outer)))
      expect(Math.min(x, y, sheet.widthMm - x, sheet.heightMm - y)).toBeGreaterThan(marginMm - 1e-4);
    const use = (100 * jointArea(regions)) / (sheet.widthMm * sheet.heightMm);
    expect(sheet.usePercent).toBeCloseTo(use, 4);
  }
}

/** Area of the sheets that is spent when the rest is cut off straight, mm². */
const spent = ({ sheets }: Layout): number =>
  sheets.reduce((sum, { widthMm: w, heightMm: h, left }) => sum + w * h - left.widthMm * left.heightMm, 0);

describe('the demo set', () => {
  const found = demoCards().map(([name, design]): [string, Design] => [name, design]);
  const gains: string[] = [];
  test.each(found)('%s lies sound, on no more sheets and no more of them than boxes take', (name, design) => {
    const assembly = buildAssembly(design);
    const layout = layOut(design, assembly);
    expect(layout.unplaced).toEqual([]);
    expectSound(layout, design);
    const boxes = packBoxes(design, assembly);
    expect(layout.sheets.length).toBeLessThanOrEqual(boxes.length);
    const byBoxes = boxes.reduce((sum, b) => sum + Math.min(b.rightMm * b.heightMm, b.topMm * b.widthMm), 0);
    expect(spent(layout)).toBeLessThanOrEqual(byBoxes + 1);
    if (spent(layout) < 0.999 * byBoxes) gains.push(name);
  });
  test('less paper is spent wherever outlines leave room that boxes do not see', () => {
    // Elsewhere a sheet holds one piece, or rectangles only: boxes are as good there.
    expect(gains).toEqual([
      'comet-at-the-window',
      'dome-on-the-shelf',
      'meteor-night',
      'moon-before-the-dome',
      'moon-phases',
      'orrery',
      'planet-on-its-axis',
      'refractor-evening',
      'terraces-in-tiers',
    ]);
  });
});

test('whatever the card: each piece as often as it is asked for, apart by the spacing, inside the margins', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 20, max: 60 }), fc.integer({ min: 30, max: 80 })), {
        minLength: 1,
        maxLength: 4,
      }),
      fc.integer({ min: 1, max: 3 }),
      fc.constantFrom(0, 1, 3, 7),
      (list, copies, spacingMm) => {
        const d = list.reduce<Design>((x, [size, lean], k) => stand(x, 'v-fold', { size, lean, offset: 8 * k }), {
          ...blankDesign('x', 150, 100),
          sheets: { marginMm: 5, spacingMm, copies, spares: { 'v-fold-1.panels': 2 } },
        });
        const layout = laid(d);
        expect(layout.unplaced).toEqual([]);
        const counts = new Map<string, number[]>();
        for (const p of layout.sheets.flatMap((s) => s.placed))
          counts.set(p.drawing.id, [...(counts.get(p.drawing.id) ?? []), p.copy]);
        for (const [id, own] of counts) {
          const wanted = copies + (id === 'v-fold-1.panels' ? 2 : 0);
          expect(own.sort((a, b) => a - b)).toEqual(Array.from({ length: wanted }, (_, k) => k + 1));
        }
        expect(counts.size).toBe(list.length + 1);
        expectSound(layout, d);
      },
    ),
    { numRuns: 12 },
  );
});

const withStock = (d: Design, id: string, change: Partial<Stock>): Design => ({
  ...d,
  stocks: d.stocks.map((s) => (s.id === id ? { ...s, ...change } : s)),
});
/** A card with a square layer of white card. */
const squared = (size = 60, more: Partial<Design['sheets']> = {}): Design => {
  const d = layered(card(120, 70), { shape: { rect: { width: size, height: size } } as never });
  return { ...d, sheets: { ...d.sheets, ...more } };
};
const sheetOf = (l: Layout, piece: string): SheetLayout =>
  l.sheets.find((s) => s.placed.some((p) => p.drawing.id === piece))!;

describe('what is at hand', () => {
  test('an offcut that is large enough is used before a sheet is begun, the smallest first', () => {
    const offcuts = [
      { id: 'long', widthMm: 200, heightMm: 80 },
      { id: 'small', widthMm: 50, heightMm: 50 },
      { id: 'fits', widthMm: 72, heightMm: 71 },
    ];
    const d = withStock(squared(), 'card-160', { offcuts });
    expect(checkDesign(d)).toMatchObject({ ok: true });
    expect(sheetOf(laid(d), 'layer.l1')).toMatchObject({ slot: 'card-160/fits/1', offcut: true, widthMm: 72 });
    // 60 and two margins of 5 are 70: a tenth more, and only the long one does.
    expect(sheetOf(laid(withStock(squared(62.1), 'card-160', { offcuts })), 'layer.l1').slot).toBe('card-160/long/1');
  });
  describe('an offcut refused for its grain', () => {
    /** A strip of 80 by 30 with 5 mm round it, along the grain where it is not turned. */
    const strip = (offcut: { widthMm: number; heightMm: number }, more: Partial<Design['sheets']> = {}): Design => {
      const d = layered(card(120, 70), { shape: { rect: { width: 80, height: 30 } } as never });
      const offcuts = [{ id: 'left', ...offcut }];
      return withStock({ ...d, sheets: { ...d.sheets, ...more } }, 'card-160', { offcuts, grain: 'long' });
    };
    const refusedIn = (d: Design): string[] => laid(d).refused.map((r) => r.drawing.id);

    test.each([
      [{ widthMm: 39.9, heightMm: 100 }, []],
      [{ widthMm: 40, heightMm: 100 }, ['layer.l1']],
      [{ widthMm: 40.1, heightMm: 90 }, ['layer.l1']],
      [{ widthMm: 40.1, heightMm: 89.9 }, []],
      // Along its grain it fits: nothing is refused.
      [{ widthMm: 90, heightMm: 40 }, []],
    ])('%p: %p', (offcut, expected) => {
      expect(refusedIn(strip(offcut))).toEqual(expected);
      expect(refusedIn(withStock(strip(offcut), 'card-160', { grain: 'none' }))).toEqual([]);
    });

    test('let turn it lies on that offcut, across the grain, and nothing is refused any more', () => {
      const d = strip({ widthMm: 45, heightMm: 100 });
      expect(sheetOf(laid(d), 'layer.l1').offcut).toBe(false);
      const turned = strip({ widthMm: 45, heightMm: 100 }, { anyGrain: ['layer.l1'] });
      expect(checkDesign(turned)).toMatchObject({ ok: true });
      const layout = laid(turned);
      expect(layout.refused).toEqual([]);
      expect(sheetOf(layout, 'layer.l1').slot).toBe('card-160/left/1');
      expect(sheetOf(layout, 'layer.l1').placed).toMatchObject([{ acrossGrain: true }]);
      expectSound(layout, turned);
    });
  });
  test('a colour is cut from its own offcut, and not from that of another', () => {
    const red = { id: 'red', widthMm: 100, heightMm: 100, colour: '#aa3311' };
    const d = withStock(squared(), 'card-160', { offcuts: [red] });
    expect(sheetOf(laid(d), 'layer.l1').slot).toBe('card-160/whole/1');
    const painted = { ...d, layers: d.layers.map((l) => ({ ...l, colour: '#AA3311' })) };
    expect(sheetOf(laid(painted), 'layer.l1')).toMatchObject({ slot: 'card-160#aa3311/red/1', colour: '#aa3311' });
  });
  test('no more sheets are used than there are, and what has no place says why', () => {
    const d = withStock(squared(120, { copies: 5 }), 'card-160', { wholes: 1, price: 0.4 });
    const layout = laid(d);
    const own = layout.sheets.filter((s) => s.stock.id === 'card-160');
    expect(own).toHaveLength(1);
    // Two squares of 120 lie on a sheet of 297 x 210, no third.
    expect(own[0].placed).toHaveLength(2);
    expect(layout.unplaced.map((u) => [u.drawing.id, u.why])).toEqual(
      Array.from({ length: 3 }, () => ['layer.l1', 'the sheets at hand are full']),
    );
    expect(layout.price).toBeCloseTo(0.4, 9);
    const large = laid(layered(card(120, 70), { shape: { rect: { width: 290, height: 20 } } as never }));
    expect(large.unplaced.map((u) => u.why)).toEqual(['larger than its sheet less the margins']);
  });
  test('grain and a pattern with an up decide how a piece may lie', () => {
    const turns = (change: Partial<Stock>): Set<number> => {
      const layout = laid(withStock(squared(30, { copies: 6 }), 'card-160', change));
      return new Set(sheetOf(layout, 'layer.l1').placed.map((p) => p.turnDeg));
    };
    for (const t of turns({ grain: 'long' })) expect(t % 180).toBe(0);
    for (const t of turns({ grain: 'short' })) expect(t % 180).toBe(90);
    expect([...turns({ grain: 'long', oneWay: true })]).toEqual([0]);
    expect([...turns({ grain: 'short', oneWay: true })]).toEqual([90]);
    // A card 260 across its gutter lies with the gutter across the grain where it fits no other way, and says so.
    const tall = { ...blankDesign('t', 150, 130), sheets: { marginMm: 5, spacingMm: 3, copies: 1 } };
    const across = withStock(tall, 'card-240', { grain: 'short' });
    expect(laid(across).sheets[0].placed[0].acrossGrain).toBe(false);
    const not = withStock(tall, 'card-240', { grain: 'long' });
    expect(laid(not).sheets[0].placed[0].acrossGrain).toBe(true);
  });
});

test('a stock is laid to its own margin, to the very edge of 12 x 12 in, and not where that is too wide', () => {
  // 304.8 mm: a card of 300 x 300 leaves 2.4 mm on each side.
  const square = (marginMm: number): Layout => {
    const plain = { ...blankDesign('t', 300, 150), sheets: { marginMm: 20, spacingMm: 3, copies: 1 } };
    return laid(withStock(plain, 'card-240', { sheet: '12x12', marginMm, grain: 'none' }));
  };
  for (const mm of [0, 2.39]) {
    const { sheets, unplaced } = square(mm);
    expect([sheets.length, unplaced.length]).toEqual([1, 0]);
    expect(sheets[0].placed[0].x).toBeGreaterThan(mm - 1e-4);
  }
  expect(square(2.45).unplaced).toHaveLength(1);
});

describe('what was put by hand', () => {
  const at = (x: number, y: number, more: Partial<Place> = {}): Place => ({
    piece: 'layer.l1',
    copy: 1,
    sheet: 'card-160/whole/1',
    x,
    y,
    turnDeg: 0,
    ...more,
  });
  const placed = (d: Design) => laid(d).sheets.flatMap((s) => s.placed.map((p) => ({ ...p, slot: s.slot })));
  test('stays where it lies free, is laid anew where it does not, unless it is locked', () => {
    const free = placed(squared(60, { places: [at(150, 120)] })).find((p) => p.drawing.id === 'layer.l1')!;
    expect([free.x, free.y]).toEqual([150, 120]);
    // Its middle is its origin: at 20 it hangs over the edge.
    const [over] = placed(squared(60, { places: [at(20, 120)] })).filter((p) => p.drawing.id === 'layer.l1');
    expect(over.x).toBeGreaterThanOrEqual(35 - 1e-6);
    const [held] = placed(squared(60, { places: [at(20, 120, { locked: true })] })).filter((p) => p.locked);
    expect([held.x, held.y]).toEqual([20, 120]);
  });
  test('the rest is nested round what is locked, however long', () => {
    const d = squared(60, { copies: 4, places: [at(140, 100, { copy: 2, locked: true })] });
    const search = layingOut([{ design: d, assembly: buildAssembly(d) }], true);
    let last = search.next().value as Layout;
    for (let k = 0; k < 15; k++) last = (search.next().value as Layout | undefined) ?? last;
    expectSound(last, d);
    expect(sheetOf(last, 'layer.l1').placed.find((p) => p.copy === 2)).toMatchObject({ x: 140, y: 100, locked: true });
  });
  test('what is no longer there is left alone: pieces, copies, sheets', () => {
    const places = [at(1, 1, { piece: 'gone' }), at(100, 100, { copy: 9 }), at(100, 100, { sheet: 'card-160/old/1' })];
    expect(placed(squared(60, { places })).filter((p) => p.drawing.id === 'layer.l1')).toHaveLength(1);
    expect(checkDesign(squared(60, { places }))).toMatchObject({ ok: true });
    const wrong = checkDesign(squared(60, { places: [at(1, 1, { sheet: 'nowhere' })] }));
    expect(wrong).toMatchObject({
      ok: false,
      why: expect.stringMatching(/sheets\.places\[0\]\.sheet.*card-240\/whole\/1/),
    });
  });
  test('trouble is told at the limit: overlap, spacing, margin', () => {
    const room: SheetRoom = { widthMm: 200, heightMm: 100, marginMm: 5, spacingMm: 3 };
    const [one] = placed(squared(60)).filter((p) => p.drawing.id === 'layer.l1');
    // By its middle, 30 from every edge.
    const { min, max } = one.drawing.box;
    const put = (x: number, y: number) => ({ ...one, x: x - (min[0] + max[0]) / 2, y: y - (min[1] + max[1]) / 2 });
    const base = put(35, 35);
    expect(troubleOfPiece(base, [], room)).toBeNull();
    expect(troubleOfPiece(put(34.999, 35), [], room)).toBe('margin');
    expect(troubleOfPiece(put(200 - 35, 100 - 35), [], room)).toBeNull();
    expect(troubleOfPiece(put(165, 65.001), [], room)).toBe('margin');
    expect(troubleOfPiece(put(98, 35), [base], room)).toBeNull();
    expect(troubleOfPiece(put(97.999, 35), [base], room)).toBe('near');
    expect(troubleOfPiece(put(94.9, 35), [base], room)).toBe('overlap');
  });
});

test('many copies: every piece once, sheets alike, and as many of them as areas allow', () => {
  const d = squared(60, { copies: 150 });
  const layout = laid(d);
  const own = layout.sheets.filter((s) => s.stock.id === 'card-160');
  const copies = own.flatMap((s) => s.placed.map((p) => p.copy)).sort((a, b) => a - b);
  expect(copies).toEqual(Array.from({ length: 150 }, (_, k) => k + 1));
  // Four across and three down: (297 - 10 + 3) / 63 and (210 - 10 + 3) / 63.
  expect(own).toHaveLength(Math.ceil(150 / 12));
  expectSound({ ...layout, sheets: own.slice(0, 2) }, d);
});

describe('a bed that takes several sheets', () => {
  const MM = 25.4;
  const strips = (): Design => {
    const d = layered(
      card(60, 30),
      { shape: { rect: { width: 240, height: 90 } } as never },
      { shape: { rect: { width: 190, height: 40 } } as never, colour: '#aa3311' },
    );
    return withStock(d, 'card-160', {
      offcuts: [
        { id: 'strip', widthMm: 10 * MM, heightMm: 4 * MM },
        { id: 'red', widthMm: 8 * MM, heightMm: 2 * MM, colour: '#aa3311' },
      ],
    });
  };
  test('a strip of 4 x 10 in lies above one of 2 x 8 in; nothing overlaps, all is on the bed', () => {
    const layout = laid(strips());
    const bed = { widthMm: 12 * MM, heightMm: 12 * MM, at: {} };
    const { beds, tooLarge } = layOnBeds({ ...layout, sheets: layout.sheets.filter((s) => s.offcut) }, bed);
    expect([beds.length, tooLarge]).toEqual([1, []]);
    const corners = beds[0].sheets.map((s) => [onBed(s, [0, 0]), onBed(s, [s.sheet.widthMm, s.sheet.heightMm])]);
    const boxes = corners.map(([a, b]) => [
      Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]),
    ]); // prettier-ignore
    for (const [x0, y0, x1, y1] of boxes)
      expect(Math.min(x0, y0, bed.widthMm - x1, bed.heightMm - y1)).toBeGreaterThan(-1e-6);
    const [[a0, b0, a1, b1], [c0, d0, c1, d1]] = boxes;
    expect(a1 < c0 || c1 < a0 || b1 < d0 || d1 < b0).toBe(true);
  });
  test('a sheet that was put stays put, turned if it was; what is larger than the bed is told', () => {
    const layout = laid(strips());
    const at = { 'card-160/strip/1': { bed: 0, x: 40, y: 7, turned: true } };
    const { beds, tooLarge } = layOnBeds(layout, { widthMm: 290, heightMm: 270, at });
    const put = beds[0].sheets.find((s) => s.sheet.slot === 'card-160/strip/1')!;
    expect(put).toMatchObject(at['card-160/strip/1']);
    expect(onBed(put, [0, 0])).toEqual([40 + 4 * MM, 7]);
    expect(onBed(put, [10 * MM, 4 * MM])).toEqual([40, 7 + 10 * MM]);
    // A4 is 297 long.
    expect(tooLarge.map((s) => s.slot)).toEqual(['card-240/whole/1']);
  });
});

test('layouts stay as they are kept: their areas are those of the pieces', () => {
  const layout = laid(squared(60, { copies: 3 }));
  for (const { drawing, ...p } of layout.sheets.flatMap((s) => s.placed))
    expect(regionArea(paperOnSheet({ drawing, ...p }))).toBeCloseTo(regionArea(drawing.region), 6);
});
