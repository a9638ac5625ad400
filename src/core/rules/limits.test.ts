/** Every limit just below, at and just above, with unequal leaves, layers and mats where they count. */
import { poseOpen } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { blankDesign, CENTRE, type Design, type Mat } from '../document/design';
import { CONTACT_MM } from '../tolerance';
import { addMechanism } from '../document/standing';
import { withTemplate } from '../build/bring';
import { readTemplate } from '../formats/template-read';
import { ENVELOPE_EASE_MM } from '../paper/sizes';
import { gather } from '../proof/evidence';
import { card, findings, layered, stand } from '../tests/cards';
import type { AttachedLayer } from '../assembly/assembly';
import { flatFold } from './flat-fold';
import { flex } from './flex';
import { overhangOf, reachPast, thicknessMap, type Evidence, type Finding } from './index';

const told = (list: readonly Finding[]): string[] => list.map((f) => `${f.severity} ${f.aspect}`);
const matted = (d: Design, facet: string, mats: readonly Partial<Mat>[]): Design => ({
  ...d,
  dressing: [{ facet, mats: mats.map((m) => ({ insetMm: 5, stock: 'card-160', ...m })) }],
});

describe('overhang: reach less depth less height, on the longer leaf', () => {
  test.each([
    [100, 100, 60, 39.99, []],
    [100, 100, 60, 40, []],
    [100, 100, 60, 40.01, ['blocks fore']],
    // Unequal leaves: the card is as long as its longer one, whichever that is.
    [100, 120, 60, 45, []],
    [120, 100, 60, 45, []],
    [120, 100, 60, 60.02, ['blocks fore']],
  ])('leaves of %d and %d, a step %d deep and %d high', (reachA, reachB, depth, height, expected) => {
    expect(
      told(findings(stand(card(200, reachA, reachB), 'step-fold', { depth, height, width: 40 }), 'overhang')),
    ).toEqual(expected);
  });
  test('each side by the same number, in its mirror image too', () => {
    const side = (point: string, offset: number) =>
      findings(stand(card(160), 'v-fold', { size: 60, offset, lean: 45, point }), 'overhang');
    const [low, high] = [side('toward', -60), side('away', 60)];
    expect([low[0].aspect, high[0].aspect].sort()).toEqual(['foot', 'head']);
    expect(low[0].measured).toBeCloseTo(high[0].measured, 6);
  });
  test('layers count: one that sticks 3 mm out of its leaf, on every side', () => {
    for (const [from, x, y, side] of [
      ['high', 3, 0, 'head'],
      ['low', -3, 0, 'foot'],
    ] as const) {
      const d = layered(card(), { shape: { width: 20, height: 10 }, from: { x: from, y: 'middle' }, x, y });
      const a = buildAssembly(d);
      expect(overhangOf(a, poseOpen(a, 0))[side]).toBeCloseTo(3, 6);
    }
  });
});

describe('sweep', () => {
  const inside = (d: Design): Design => ({ ...d, card: { ...d.card, stayInside: true } });
  test('only where it is asked for; the worst opening; unequal leaves sweep the longer circle', () => {
    const d = stand(card(200, 100), 'step-fold', { depth: 60, height: 40.05, width: 40 });
    expect(findings(d, 'sweep')).toEqual([]);
    expect(told(findings(inside(d), 'sweep'))).toEqual(['risk fore']);
    expect(
      findings(inside(stand(card(200, 100, 110), 'step-fold', { depth: 60, height: 40.05, width: 40 })), 'sweep'),
    ).toEqual([]);
    expect(findings(inside(stand(card(200, 100), 'step-fold', { depth: 60, height: 40, width: 40 })), 'sweep')).toEqual(
      [],
    );
  });
  test('layers on what moves count: 5 mm past the ridge are swept', () => {
    const step = inside(stand(card(200, 100), 'step-fold', { depth: 50, height: 50, width: 40 }));
    const flag = layered(step, {
      facet: 'step-fold-1.riser',
      shape: { width: 10, height: 10 },
      from: { x: 'middle', y: 'low' },
      y: -5,
    });
    const [found] = findings(flag, 'sweep');
    // Closed, the riser's ridge lies at 100 and the layer reaches 5 mm on.
    expect(found.measured).toBeCloseTo(5, 3);
    const a = buildAssembly(flag);
    expect(reachPast(a, poseOpen(a, 0), () => true)!.fore).toBeCloseTo(5, 6);
    expect(reachPast(buildAssembly(card()), poseOpen(buildAssembly(card()), 0), () => true)).toBeNull();
  });
  test('past an end of the gutter on the way', () => {
    const d = inside(stand(card(160), 'v-fold', { size: 60, offset: -60, lean: 45 }));
    expect(findings(d, 'sweep').map((f) => f.aspect)).toContain('ends');
  });
});

describe('web', () => {
  const between = (gap: number, least = 3.2): Finding[] => {
    const d = stand(stand(card(), 'step-fold', { depth: 40, height: 40, width: 40, offset: -21 - gap }), 'step-fold', {
      depth: 30,
      height: 30,
      width: 40,
      offset: 19,
    });
    return findings({ ...d, stocks: d.stocks.map((s) => ({ ...s, leastWebMm: least })) }, 'web');
  };
  test.each([
    [1.59, ['blocks narrow']],
    [1.61, ['risk narrow']],
    [3.19, ['risk narrow']],
    [3.2, []],
    [3.21, []],
  ])('a strip of %d mm', (gap, expected) => expect(told(between(gap))).toEqual(expected));
  test('the limit is the stock’s, and the width is exact', () => {
    expect(between(4, 5)[0]).toMatchObject({ measured: expect.closeTo(4, 6), limit: 5 });
  });
  test.each([
    [1.99, 'blocks strut'],
    [2.01, 'risk strut'],
    [3.99, 'risk strut'],
    [4, undefined],
  ])('struts of %d mm', (width, expected) => {
    const d = stand(card(200, 140), 'strut-figure', {
      shape: { width: 40, height: 50 },
      depth: 25,
      strutMin: 1,
      struts: [{ x: 0, width }],
    });
    expect(told(findings(d, 'web')).find((s) => s.endsWith('strut'))).toBe(expected);
  });
});

describe('glue-room', () => {
  const step = (tab: number): Design => stand(card(), 'step-fold', { depth: 40, height: 25, build: 'glued', tab });
  test('tabs less the set-back of 1 mm hold from 6 mm', () => {
    expect(told(findings(step(6.99), 'glue-room'))).toHaveLength(2);
    expect(findings(step(7), 'glue-room')).toEqual([]);
  });
  test('adhesive keeps 1 mm off creases and cuts', () => {
    const beside = (offset: number): Design =>
      stand(
        stand(card(), 'step-fold', { depth: 40, height: 25, build: 'glued', width: 30, offset: -30 }),
        'step-fold',
        { depth: 60, height: 60, width: 30, offset },
      );
    // Adhesive ends at -16; the other's slit lies at offset - 15.
    expect(told(findings(beside(-0.01), 'glue-room')).every((s) => s.endsWith('set-back'))).toBe(true);
    expect(findings(beside(-0.01), 'glue-room').length).toBeGreaterThan(0);
    expect(findings(beside(0.01), 'glue-room')).toEqual([]);
  });
  test('a leaf that ends under the tab leaves part of it in the air, on the shorter leaf only', () => {
    expect(
      findings(
        stand(card(200, 100, 36), 'step-fold', { depth: 40, height: 25, build: 'glued', tab: 10 }),
        'glue-room',
      ).map((f) => [f.severity, f.unit, f.subjects[0]]),
    ).toEqual([]);
    const short = findings(
      stand(card(200, 100, 33), 'step-fold', { depth: 40, height: 25, build: 'glued', tab: 10 }),
      'glue-room',
    );
    expect(short.map((f) => [f.severity, f.unit, f.subjects[0]])).toEqual([['blocks', 'mm2', 'step-fold-1.glueB']]);
    // 2 mm of a strip 38 wide.
    expect(short[0].measured).toBeCloseTo(2 * 38, 3);
  });
});

describe('foam', () => {
  const on = (change: Parameters<typeof layered>[1], base = card()): string[] =>
    told(findings(layered(base, { foamMm: 1, foamInsetMm: 3, y: 20, ...change }), 'foam'));
  test.each([
    [0.99, ['risk layer.l1 inset']],
    [1, []],
    [1.01, []],
  ])('set %d mm inside its edge', (foamInsetMm, expected) => expect(on({ foamInsetMm })).toEqual(expected));
  test('set in so far that none is left; past its facet; under what folds down', () => {
    expect(on({ foamInsetMm: 15 })).toEqual(['blocks layer.l1 none']);
    expect(on({ shape: { width: 30, height: 20 }, from: { x: 'high', y: 'middle' }, x: 8 })).toEqual([
      'risk layer.l1 beyond',
    ]);
    expect(on({ shape: { width: 30, height: 20 }, from: { x: 'high', y: 'middle' }, x: 3 })).toEqual([]);
    const step = stand(card(), 'step-fold', { depth: 30, height: 30, width: 60 });
    expect(on({ facet: 'step-fold-1.riser', shape: { width: 20, height: 10 }, y: 0 }, step)).toEqual([]);
    // Closed, the riser lies from 30 to 60 on leaf A, and keeps 1 mm off foam: 61 is free.
    expect(on({ shape: { width: 20, height: 10 }, from: { x: 'middle', y: 'low' }, y: 57 }, step)).toEqual([
      'risk layer.l1 under',
    ]);
    expect(on({ shape: { width: 20, height: 10 }, from: { x: 'middle', y: 'low' }, y: 58.2 }, step)).toEqual([]);
  });
});

test('the corner between a wider leaf and a longer one is no paper: what sticks out there shows', () => {
  // Leaf A is 100 mm wide and 60 deep, leaf B 60 wide and 90 deep: shut, 20 mm beside B's end there is nothing.
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">' +
    '<g id="cut"><path d="M50 40H150V100H130V190H70V100H50Z"/></g><g id="valley"><path d="M70 100H130"/></g></svg>';
  const raw = readTemplate(svg, 'corner.svg');
  const groups = raw.groups.map(({ key, layer, colour, dashed, role }) => ({ key, layer, colour, dashed, role }));
  const plain = withTemplate(card(), {
    ...{ name: 'corner', scale: 1, mended: false, lines: raw.lines, groups, picked: {}, lead: null },
  });
  const long = buildAssembly(plain).facets.find((f) => {
    const ys = f.polygon.outer.map((p) => Math.abs(p[1]));
    return Math.max(...ys) > 80;
  })!;
  const away = 20 * Math.sign(long.polygon.outer.reduce((sum, p) => sum + p[1], 0));
  const flag = (x: number) =>
    findings(
      layered(plain, {
        ...{ facet: long.id, shape: { width: 10, height: 8 }, from: { x: 'high', y: 'middle' } as const },
        ...{ x, y: away },
      }),
      'overhang',
    );
  expect(flag(0)).toEqual([]);
  // Inside the box that an envelope sees, past the outline that a reader sees.
  expect(new Set(flag(6).map((f) => f.severity))).toEqual(new Set(['risk']));
  expect(Math.max(...flag(6).map((f) => f.measured))).toBeCloseTo(6, 6);
});

describe('foam is as thick as it is', () => {
  // Of a box 20 mm deep front and panel stay parallel, 10 sin(open) apart: at 150 degrees 5 mm, less two half sheets.
  const plain = blankDesign('box');
  const box: Design = {
    ...plain,
    card: { ...plain.card, construction: 'box-frame', parameters: { depth: 20, displayWidth: 100 } },
  };
  const caliper = (id: string): number => plain.stocks.find((s) => s.id === id)!.caliperMm;
  const met = (foamMm: number): number =>
    (['inside', 'outside'] as const).filter((side) =>
      findings(
        layered(box, { facet: 'panel', side, shape: { circle: 12 }, from: { x: 'middle', y: 'low' }, y: 12, foamMm }),
        'foam',
      ).some((f) => f.severity === 'blocks'),
    ).length;
  test('just below the gap before it, at it, and just above', () => {
    const gap = 5 - (caliper(plain.card.stock) + caliper(plain.card.pageStock)) / 2;
    expect([gap - 0.1, gap + CONTACT_MM, gap + CONTACT_MM + 0.01].map((mm) => met(mm) > 0)).toEqual([
      false,
      false,
      true,
    ]);
  });
  test('between panels that lie on each other there is no room for any', () => {
    const d = addMechanism(card(), 'waterfall', { on: 'leafB', mount: { ...CENTRE, side: 'inside' } }, {}).design;
    const on = (panel: number) =>
      findings(layered(d, { facet: `waterfall-1.panel-${panel}`, shape: { circle: 12 }, foamMm: 1 }), 'foam').filter(
        (f) => f.severity === 'blocks',
      ).length;
    expect([on(1), on(2), on(3)]).toEqual([0, 1, 1]);
  });
  test('of a kind under what folds down: as that of a layer', () => {
    // A token's panel on leaf A, its foam 9 mm high, and a step whose riser lies from 30 to 60 there when shut.
    const slider = (y: number): Design =>
      addMechanism(
        stand(card(200, 120), 'step-fold', { depth: 30, height: 30, width: 60 }),
        'track-slider',
        { on: 'leafA', mount: { ...CENTRE, side: 'inside', x: y } },
        { width: 40, height: 60, path: { line: 15 }, foamThickness: 3, layers: 3 },
      ).design;
    const under = (d: Design) => findings(d, 'foam').filter((f) => f.aspect.endsWith('under step-fold-1')).length;
    expect(Math.max(under(slider(-15)), under(slider(15)))).toBe(1);
    expect(Math.min(under(slider(-35)), under(slider(35)))).toBe(0);
  });
});

describe('thickness', () => {
  const posted = (caliperMm: number, format: string, mats = 0): Finding[] => {
    const d = stand(card(), 'step-fold', {});
    const thick = { ...d, stocks: d.stocks.map((s) => ({ ...s, caliperMm })), post: { envelope: null, format } };
    return findings(
      mats > 0
        ? matted(
            thick,
            'leafA',
            Array.from({ length: mats }, () => ({})),
          )
        : thick,
      'thickness',
    );
  };
  test('four layers of a letter of 5 mm, and of one of 6.35', () => {
    expect(posted(1.249, 'uk-letter')).toEqual([]);
    expect(posted(1.251, 'uk-letter')).toHaveLength(1);
    expect(posted(1.5874, 'usps-letter')).toEqual([]);
    expect(posted(1.5876, 'usps-letter').map((f) => f.aspect)).toEqual(['most']);
    // At least 0.007 in: four layers of 0.0444 mm.
    expect(posted(0.0443, 'usps-letter').map((f) => f.aspect)).toEqual(['least']);
    expect(posted(0.0446, 'usps-letter')).toEqual([]);
  });
  test('mats and foam lie on it', () => {
    expect(posted(1, 'uk-letter', 1)).toEqual([]);
    expect(posted(1, 'uk-letter', 2)).toHaveLength(1);
    const d = layered(card(), { shape: { width: 30, height: 30 }, foamMm: 2, foamInsetMm: 4 });
    const evidence = gather(d, 'closed', 0);
    const map = thicknessMap(evidence, evidence.closed!);
    const caliper = (id: string): number => evidence.brief.stock(id).caliperMm;
    expect(map.greatest.mm).toBeCloseTo(2 * caliper('card-240') + caliper('card-160') + 2, 5);
  });
});

describe('gutter-relief: what folds inside, at least half a mm', () => {
  test.each([
    [0.49, 1],
    [0.51, 0],
  ])('thin paper, %d mm off', (relief, found) => {
    const thin = stand(card(), 'v-fold', { relief, size: 50 });
    expect(
      findings({ ...thin, stocks: thin.stocks.map((s) => ({ ...s, caliperMm: 0.05 })) }, 'gutter-relief').length > 0,
    ).toBe(found > 0);
  });
  test('thick paper asks for its own stack', () => {
    const thick = (relief: number): Finding[] => {
      const d = stand(card(), 'v-fold', { relief, size: 50 });
      return findings({ ...d, stocks: d.stocks.map((s) => ({ ...s, caliperMm: 0.6 })) }, 'gutter-relief');
    };
    const [found] = thick(0.6);
    expect(found.limit).toBeGreaterThan(1.1);
    expect(thick(found.limit + 0.01)).toEqual([]);
  });
});

describe('post-size', () => {
  const posted = (
    gutter: number,
    reach: number,
    reachB = reach,
    envelope: string | null = 'C6',
    format: string | null = null,
  ): Finding[] => findings({ ...card(gutter, reach, reachB), post: { envelope, format } }, 'post-size');
  const [short, long] = [114 - ENVELOPE_EASE_MM, 162 - ENVELOPE_EASE_MM];
  test('an envelope less its ease, either way round, by the longer leaf', () => {
    expect(posted(long, short)).toEqual([]);
    expect(posted(short, long)).toEqual([]);
    expect(told(posted(long + 0.01, short))).toEqual(['blocks envelope long']);
    expect(told(posted(long, short + 0.01))).toEqual(['blocks envelope short']);
    expect(told(posted(long, short - 9, short + 0.01))).toEqual(['blocks envelope short']);
  });
  // USPS Domestic Mail Manual 101 (from memory): letters from 3.5 x 5 in to 6.125 x 11.5 in, aspect 1.3 to 2.5.
  test.each([
    [5 * 25.4, 3.5 * 25.4, []],
    [5 * 25.4 - 0.01, 3.5 * 25.4, ['blocks least long']],
    [5 * 25.4, 3.5 * 25.4 - 0.01, ['blocks least short']],
    [11.5 * 25.4, 6.125 * 25.4, []],
    [11.5 * 25.4 + 0.01, 6.125 * 25.4, ['blocks most long']],
    [11.5 * 25.4, 6.125 * 25.4 + 0.01, ['blocks most short']],
    [130, 100, []],
    [129.9, 100, ['risk aspect']],
    [250, 100, []],
    [250.1, 100, ['risk aspect']],
  ])('a letter of %d x %d mm', (gutter, reach, expected) => {
    expect(told(posted(gutter, reach, reach, null, 'usps-letter'))).toEqual(expected);
  });
});

describe('sheet-fit', () => {
  test('inside the margins of A4, along and across the grain', () => {
    const margin = card().sheets.marginMm;
    const [short, long] = [210 - 2 * margin, 297 - 2 * margin];
    const at = (gutter: number, whole: number): string[] =>
      (['sheet-fit', 'grain'] as const).flatMap((rule) =>
        findings(card(gutter, whole / 2), rule).map((f) => f.severity),
      );
    expect(at(long, short)).toEqual([]);
    expect(at(long + 0.01, short)).toEqual(['blocks']);
    expect(at(long, short + 0.01)).toEqual(['blocks']);
    expect(at(short, long)).toEqual(['note']);
    expect(at(short, long + 0.01)).toEqual(['blocks']);
  });
});

describe('tip', () => {
  test('the middle of a figure’s weight, 5 mm inside the band that carries it', () => {
    // The band is `quarter` deep to each side: a disc on its own middle has that margin, or half the width.
    const at = (width: number): string[] =>
      told(findings(stand(card(), 'floating-band', { slit: 80, width, figure: { circle: 40 } }), 'tip'));
    expect(at(9.98)).toEqual(['risk weight']);
    expect(at(10)).toEqual([]);
    const shifted = stand(card(), 'floating-band', {
      slit: 20,
      width: 30,
      quarter: 5,
      figure: { circle: 40 },
      axisShift: 6,
    });
    expect(told(findings(shifted, 'tip'))).toEqual(['blocks weight']);
  });
});

describe('flex and flat-fold on poses of given misfit', () => {
  const base = gather(card(), 'travel', 4);
  const bent = (flexMm: number): Evidence => ({
    ...base,
    travel: base.travel.map((p, i) => (i === 2 ? { ...p, flexMm, flexAt: 'card.gutter' } : p)),
  });
  test.each([
    [0.99, []],
    [1, []],
    [1.01, ['risk bend']],
    [10, ['risk bend']],
    [10.01, ['blocks bend']],
  ])('%d mm of bending', (mm, expected) => expect(told(flex.check(bent(mm)))).toEqual(expected));
  test('a facet off the plane by more than 0.05 mm and its own paper', () => {
    const caliper = base.brief.stock('card-240').caliperMm;
    const raised = (mm: number): Finding[] => {
      const closed = {
        ...base.closed!,
        placed: base.closed!.placed.map((m, i) =>
          i === 0 ? Float64Array.from(m, (x, k) => (k === 11 ? x + mm : x)) : m,
        ),
      };
      return flatFold.check({ ...base, closed });
    };
    expect(raised(0.05 + caliper - 0.001)).toEqual([]);
    expect(raised(0.05 + caliper + 0.001)).toHaveLength(1);
  });
});

test('what lies across a crease is in the way from 5 degrees, and from more than paper', () => {
  const across = (y: number): Finding[] =>
    findings(layered(card(), { shape: { width: 60, height: 30 }, from: { x: 'middle', y: 'low' }, y }), 'collision');
  const layer = gather(layered(card(), {}), 'pattern', 0).assembly.layers[0] as AttachedLayer;
  const taken = card().stocks.find((s) => s.id === layer.stock)!.caliperMm + 0.05;
  expect(across(-taken + 0.01)).toEqual([]);
  expect(told(across(-taken - 0.01))).toEqual(['blocks layer.l1 card.gutter']);
});
