/**
 * Where the weight of a card lies and whether it stands: closed forms of statics, areas summed point by point, each
 * limit just below, at and just above.
 */
import fc from 'fast-check';
import { restOf, stateIn } from '../drives';
import { poseAt } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { checkDesign } from '../document/schema';
import { statesOf } from '../document/states';
import { blankDesign, type Design, type Layer } from '../document/design';
import type { NamedState, ParameterValues } from '../kinds';
import { gather } from '../proof/evidence';
import { prove } from '../proof/prove';
import { card, findings, layered, stand } from '../tests/cards';
import { edgeStop } from './edge-stop';
import { standings, weightAt } from './index';

const put = (d: Design, ...states: NamedState[]): Design => ({ ...d, states });
const shelf = (open: number, stance: NamedState['stance'] = 'upright'): NamedState => ({
  id: 'shelf',
  name: 'On the shelf',
  drives: { open },
  stance,
});
const top = (d: Design): Design => ({
  ...d,
  card: { ...d.card, parameters: { ...d.card.parameters, fold: 'top' } },
});
const margin = (d: Design): number => standings(gather(d, 'closed'))[0].marginMm;
const told = (d: Design): string[] => findings(d, 'tip').map((f) => `${f.severity} ${f.aspect}`);

describe('what a card weighs', () => {
  test('a plain card is its area by its grammage, its middle half way up each leaf (ISO 536)', () => {
    const evidence = gather(card(200, 120, 80), 'closed');
    const { grams, at } = weightAt(evidence, poseAt(evidence.assembly, { open: 90 }));
    expect(grams).toBeCloseTo((200 * 200 * 240) / 1e6, 9);
    // Leaf A weighs 120 parts and lies along y, leaf B 80 and stands along z.
    expect(at[0]).toBeCloseTo(0, 9);
    expect(at[1]).toBeCloseTo((120 * 60) / 200, 9);
    expect(at[2]).toBeCloseTo((80 * 40) / 200, 9);
  });

  test('layers, their foam and the second of a pair, summed over a grid of points', () => {
    const plain = card(160, 100);
    const disc = { shape: { circle: 60 }, facet: 'leafB', x: 20, y: 10, foamMm: 2, foamInsetMm: 5 };
    const one = gather(layered(plain, { ...disc }), 'closed');
    const two = gather(layered(plain, { ...disc, doubled: true }), 'closed');
    const bare = gather(plain, 'closed');
    const at = { open: 180 };
    const weigh = (e: typeof one) => weightAt(e, poseAt(e.assembly, at));
    // Points of the disc and of its foam on a grid of 0.1 mm.
    const points = (radius: number): number => {
      let n = 0;
      for (let x = -radius; x < radius; x += 0.1)
        for (let y = -radius; y < radius; y += 0.1) if (Math.hypot(x + 0.05, y + 0.05) < radius) n++;
      return n * 0.01;
    };
    const [paper, foam] = [points(30) * 160e-6, points(25) * 2 * 0.1e-3];
    const [w0, w1, w2] = [bare, one, two].map((e) => weigh(e).grams);
    const within = (found: number, wanted: number) => expect(Math.abs(found / wanted - 1)).toBeLessThan(1e-3);
    within(w1 - w0, paper + foam);
    within(w2 - w1, paper);
    // It lies over the paper: its foam's middle 0.15 + 1 mm, its own 0.15 + 2 + 0.1 mm.
    within(weigh(one).at[2], (foam * 1.15 + paper * 2.25) / w1);
  });

  test('rivets and what turns between sheets count', () => {
    const d = stand(card(200, 140), 'volvelle', {}, 'leafB');
    const evidence = gather(d, 'closed');
    const turned = (deg: number) =>
      weightAt(evidence, poseAt(evidence.assembly, { ...restOf(evidence.assembly.drives), open: 180, [turn]: deg }));
    const turn = evidence.assembly.drives[1].id;
    expect(turned(0).grams).toBeGreaterThan((200 * 280 * 240) / 1e6);
    // A round disc turns about its middle: nothing shifts.
    expect(Math.hypot(...turned(0).at.map((v, k) => v - turned(120).at[k]))).toBeLessThan(0.05);
    expect(turned(0).grams).toBe(turned(120).grams);
  });
});

describe('standing', () => {
  test('a corner of two leaves: the middle of its weight over the triangle they span (statics of lines)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 160, noNaN: true }),
        fc.double({ min: 30, max: 160, noNaN: true }),
        fc.double({ min: 20, max: 160, noNaN: true }),
        (a, b, open) => {
          const turn = (open * Math.PI) / 180;
          const [u, v] = [
            [1, 0],
            [Math.cos(turn), Math.sin(turn)],
          ];
          const at = [0, 1].map((k) => (a * (a / 2) * u[k] + b * (b / 2) * v[k]) / (a + b));
          const corners = [
            [0, 0],
            [a, 0],
            [b * v[0], b * v[1]],
          ];
          const inside = corners.map(([x, y], k) => {
            const [x2, y2] = corners[(k + 1) % 3];
            return ((x2 - x) * (at[1] - y) - (y2 - y) * (at[0] - x)) / Math.hypot(x2 - x, y2 - y);
          });
          expect(margin(put(card(150, a, b), shelf(open)))).toBeCloseTo(Math.min(...inside), 6);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('5 mm inside is enough, less is a risk: at 90° that is a quarter of a leaf', () => {
    expect(told(put(card(150, 20.02), shelf(90)))).toEqual([]);
    expect(told(put(card(150, 20), shelf(90)))).toEqual([]);
    expect(told(put(card(150, 19.98), shelf(90)))).toEqual(['risk standing shelf']);
  });

  test('flat open it stands on one line and falls, and says so', () => {
    const [f] = findings(put(card(150, 100), shelf(180)), 'tip');
    expect(f).toMatchObject({ severity: 'blocks', drive: { open: 180 } });
    expect(f.message).toMatch(/^On the shelf: .*falls over/);
  });

  test('what is heavy on one leaf and reaches past the other tips it; a shorter reach is said to clear it', () => {
    // A board that hangs out over the fore edge of leaf A, ten times as heavy as the card.
    const heavy = (away: number): Design => {
      const d = layered(card(150, 60), { shape: { rect: { width: 40, height: 200 } }, y: away });
      const stocks = d.stocks.map((s) => (s.id === 'card-160' ? { ...s, gsm: 2000 } : s));
      return put({ ...d, stocks }, shelf(90));
    };
    const light = margin(heavy(0));
    expect(margin(heavy(40))).toBeLessThan(light);
    expect(told(heavy(70))).toEqual(['blocks standing shelf']);
  });

  test('a tent stands on both fore edges, its middle half way between them', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 150, noNaN: true }),
        fc.double({ min: 20, max: 140, noNaN: true }),
        (r, open) => {
          const foot = 2 * r * Math.sin((open * Math.PI) / 360);
          const side = 150 / 2;
          expect(margin(put(top(card(150, r)), shelf(open, 'tent')))).toBeCloseTo(Math.min(foot / 2, side), 6);
        },
      ),
      { numRuns: 25 },
    );
  });

  test('a tent of unequal leaves leans until both fore edges are down (law of cosines)', () => {
    const [a, b, open] = [120, 90, 50];
    const turn = (open * Math.PI) / 180;
    const base = Math.sqrt(a * a + b * b - 2 * a * b * Math.cos(turn));
    // Along the table from the foot of leaf A: the fold stands over `a cos(angle at that foot)`.
    const fold = (a * a + base * base - b * b) / (2 * base);
    const middle = (a * (fold / 2) + b * ((fold + base) / 2)) / (a + b);
    expect(margin(put(top(card(400, a, b)), shelf(open, 'tent')))).toBeCloseTo(Math.min(middle, base - middle), 6);
  });

  test('a tent that is opened flat lies on the table, on all of its paper', () => {
    expect(margin(put(top(card(150, 100)), shelf(180, 'tent')))).toBeCloseTo(75, 6);
  });

  test('lying on its back leaf it stands on the whole of that', () => {
    // Leaf B stands upright at 90: the weight is half way along a leaf of 80, less what leans on the gutter.
    expect(margin(put(card(150, 80), shelf(90, 'lying')))).toBeCloseTo(20, 6);
  });

  test('mirrored along the gutter it stands alike', () => {
    const at = (offset: number): number =>
      margin(put(stand(card(200, 100), 'step-fold', { depth: 30, height: 20, width: 40, offset }), shelf(70)));
    expect(at(35)).toBeCloseTo(at(-35), 6);
  });

  test('a waterfall on the shelf is weighed as far as it is drawn', () => {
    const d = stand(card(200, 140), 'waterfall', { count: 4 }, 'leafB');
    const travel = buildAssembly(d).drives[1];
    const drawn = (pull: number): NamedState => ({
      ...shelf(90),
      id: `drawn-${pull}`,
      drives: { open: 90, [travel.id]: pull },
    });
    const both = put(d, drawn(0), drawn(travel.to));
    const [rest, out] = standings(gather(both, 'closed'));
    expect(out.state[travel.id]).toBe(travel.to);
    expect(out.grams).toBeCloseTo(rest.grams, 9);
    expect(out.marginMm).not.toBeCloseTo(rest.marginMm, 1);
  });
});

describe('states that are named', () => {
  test('those of the base unless its maker names others; the door keeps what it knows', () => {
    expect(statesOf(card()).map((s) => s.name)).toEqual(['For the post', 'As it is looked at']);
    const own = put(card(), { id: 'mine', name: 'Half way', drives: { open: 60 } });
    expect(checkDesign(JSON.parse(JSON.stringify(own)))).toEqual({ ok: true, design: own });
    const wrong = put(card(), { id: 'mine', name: 'x', drives: { 'no good': 4 } });
    expect(checkDesign(JSON.parse(JSON.stringify(wrong)))).toMatchObject({ ok: false, why: /states\[0\].drives/ });
  });

  test('whether it stands is asked of a base that is for standing, or where its maker says so', () => {
    // A wheel that nobody sets up, folded at the side or at the top: weights of it are nobody's business.
    const wheel = stand(card(200, 140), 'carrier-wheel', {}, 'leafB');
    for (const d of [wheel, top(wheel)]) {
      expect(standings(gather(d, 'closed'))).toEqual([]);
      expect(told(d)).toEqual([]);
      expect(statesOf(d).map((s) => s.drives.open ?? 0)).toEqual([0, 90]);
    }
    expect(standings(gather(put(wheel, shelf(90)), 'closed'))).toHaveLength(1);
    const easel = { ...card(), card: { ...card().card, construction: 'easel', parameters: {} } };
    expect(standings(gather(easel, 'closed'))).toHaveLength(1);
  });

  test('a drive that is gone is left out, a value past its range is at its end', () => {
    const { drives } = buildAssembly(stand(card(200, 140), 'lift-tab', {}, 'leafB'));
    expect(stateIn(drives, { drives: { open: 400, 'gone-1.pull': 3 } })).toEqual({ open: 180, 'lift-tab-1.pull': 0 });
  });

  test('the proof tells each, and looks for what meets only there', () => {
    const d = put(card(), shelf(90), { id: 'post', name: 'For the post', drives: {} });
    const { states } = prove(d, 6);
    expect(states).toEqual([
      expect.objectContaining({ id: 'shelf', reached: true, standing: expect.objectContaining({ stance: 'upright' }) }),
      { id: 'post', name: 'For the post', reached: true, state: { open: 0 } },
    ]);
    expect(states[0].standing!.tip_mm).toBeCloseTo(25, 3);
  });
});

describe('the edge that stops a foot', () => {
  // Base and cover 100 mm long and 100 along the hinge, broken half way: the foot rests 70 mm from the hinge.
  const easelBy = (layers: Partial<Layer>[], parameters: ParameterValues = {}): Design => {
    const plain = blankDesign('stand');
    const sizes = { width: 100, height: 100, stop: 70, stopBy: 'edge', ...parameters };
    return layered({ ...plain, card: { ...plain.card, construction: 'easel', parameters: sizes } }, ...layers);
  };
  const found = (layers: Partial<Layer>[], parameters: ParameterValues = {}) =>
    edgeStop.check(gather(easelBy(layers, parameters), 'pattern'));
  /** A bar across the ground, its edge that looks to the hinge so far from that; the ground reaches from 0 to 100. */
  const bar = (edge: number, width = 60, more: Partial<Layer> = {}): Partial<Layer> => ({
    shape: { width, height: 10 },
    from: { x: 'middle', y: 'low' },
    y: edge,
    foamMm: 2,
    foamInsetMm: 0,
    ...more,
  });
  test('is looked for: with nothing there, or with a piece on the wrong side of the foot, nothing stands', () => {
    expect(found([])[0]).toMatchObject({ severity: 'blocks', measured: 0, limit: 25 });
    expect(found([bar(60)])[0].message).toMatch(/hinge side/);
    expect(found([bar(70)])).toEqual([]);
    expect(found([], { stopBy: 'strip' })).toEqual([]);
  });
  test('a layer that is chosen as the stop lies where the foot rests, and follows when that is moved', () => {
    for (const stop of [60, 70, 82]) {
      expect(found([bar(20)], { stop })).toHaveLength(1);
      expect(found([{ ...bar(20), stops: true }], { stop })).toEqual([]);
      const [layer] = buildAssembly(easelBy([{ ...bar(20), stops: true }], { stop })).layers;
      expect(Math.min(...layer.region[0].outer.map((p) => p[1]))).toBeCloseTo(stop, 9);
    }
    expect(checkDesign(easelBy([{ ...bar(20), stops: true }])).ok).toBe(true);
  });
  test('cut off at its facet it is so where it comes to lie: the ground ends at 100', () => {
    // Of 10 mm: from 85 to 95 it stays whole, and of what would reach from 94 to 104 there are 6.
    const reach = (stop: number): number => {
      const [layer] = buildAssembly(easelBy([{ ...bar(20), stops: true, trimmed: true }], { stop })).layers;
      const across = layer.region[0].outer.map((p) => p[1]);
      return Math.max(...across) - Math.min(...across);
    };
    expect(reach(85)).toBeCloseTo(10, 6);
    expect(reach(94)).toBeCloseTo(6, 6);
  });
  test('faces it within 0.5 mm, just below, at and just above', () => {
    expect([69.4, 69.6, 70, 70.4, 70.6].map((edge) => found([bar(edge)]).length)).toEqual([1, 0, 0, 0, 1]);
  });
  test('holds a quarter of its length, just below, at and just above', () => {
    expect([24, 25.3, 26].map((width) => found([bar(70, width)]).length)).toEqual([1, 0, 0]);
  });
  test('is as tall as the foot is thick: two sheets, the one of the cover and the one of the plate', () => {
    const d = easelBy([]);
    const caliper = (id: string): number => d.stocks.find((s) => s.id === id)!.caliperMm;
    const foot = caliper(d.card.stock) + caliper(d.card.pageStock);
    const onTop = caliper('card-160');
    const tall = (mm: number) => found([bar(70, 60, { foamMm: mm - onTop })]).length;
    expect([foot - 0.1, foot, foot + 0.1].map(tall)).toEqual([1, 0, 0]);
  });
  test('a lean under 30 or over 80 degrees is a risk, by the law of cosines', () => {
    const lean = (deg: number) => {
      // Strut and flap of 50 mm each: the foot's place is twice their projection.
      const stop = 100 * Math.cos((deg * Math.PI) / 180);
      return findings(easelBy([], { stop, stopBy: 'strip' }), 'stands').map((f) => f.severity);
    };
    expect([29.9, 30, 30.1].map((deg) => lean(deg).length)).toEqual([1, 0, 0]);
    expect([79.9, 80, 80.1].map((deg) => lean(deg).length)).toEqual([0, 0, 1]);
    expect(lean(29.9)).toEqual(['risk']);
  });
  test('the stop of a base that is made larger keeps its share', () => {
    const measure = (width: number): number => {
      const plain = blankDesign('stand');
      const d = { ...plain, card: { ...plain.card, construction: 'easel', parameters: { width } } };
      return prove(d, 4).measures.card.stop_most_mm;
    };
    expect(measure(120)).toBeCloseTo(120, 6);
    const at = (width: number): string[] =>
      findings(easelBy([], { width, stopBy: 'strip', stop: null }), 'stands').map((f) => f.aspect);
    expect([at(60), at(107.95), at(200)]).toEqual([[], [], []]);
  });
});
