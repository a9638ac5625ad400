/**
 * What is moved by hand and what is in its way: limits from plane geometry on sizes of the test's own, just below, at
 * and just above, and points strewn over solids by a judge that shares nothing with the rules (`truth/`).
 */
import { addMechanism } from '../document/standing';
import { CENTRE, newLayer, type Design, type Layer, type Mount } from '../document/design';
import { buildAssembly } from '../build/build';
import { poseAt } from '../assembly/pose';
import { gather } from '../proof/evidence';
import type { ParameterValues } from '../kinds';
import { card } from '../tests/cards';
import { byHandOf, RULES, type Finding, type RuleId } from './index';
import { looksAlong, movedFacets, movingPairs, pathsOf } from './looks';
import { LOOK_DEG, LOOK_MM, turnBetween } from './seen-from';
import { solidsOf } from './solids';
import { onFacet } from '../assembly/pose';

const thick = (d: Design): Design => ({ ...d, card: { ...d.card, stock: 'card-240' } });
const put = (d: Design, kind: string, parameters: ParameterValues, at: Partial<Mount> = {}, on = 'leafB'): Design =>
  addMechanism(d, kind, { on, mount: { ...CENTRE, side: 'inside', ...at } }, parameters).design;
const stick = (d: Design, ...layers: Partial<Layer>[]): Design => ({
  ...d,
  layers: layers.map((own, k) => ({
    ...newLayer({
      ...{ id: `l${k + 1}`, name: 'Bar', facet: 'leafA', as: 'layer', stock: 'card-240' },
      shape: { width: 6, height: 30 },
    }),
    ...own,
  })),
});
/** Everything under a rule's name. */
const found = (d: Design, rule: RuleId): Finding[] => {
  const evidence = gather(d, 'travel', 8);
  return RULES.filter((r) => r.id === rule).flatMap((r) => r.check(evidence));
};
const told = (d: Design, rule: RuleId): string[] => found(d, rule).map((f) => `${f.severity} ${f.aspect}`);
const byHand = (d: Design): string[] =>
  found(d, 'collision').flatMap((f) => (f.severity === 'blocks' && f.aspect.endsWith('by hand') ? [f.aspect] : []));

const page = thick(card(190, 140));
// The token of 19.05 mm and the carrier of 20 run 60 mm along a line; the slot is 6 mm wide.
const SLIDER = { width: 100, height: 50, path: { line: 60 } };
const slider = put(page, 'track-slider', SLIDER);
const on = (part: string, own: Partial<Layer>): Design => stick(slider, { facet: `track-slider-1.${part}`, ...own });

describe('what a maker sticks on in the way of a token and its carrier', () => {
  test('clear as it is, and with a bar beside the way', () => {
    expect(byHand(slider)).toEqual([]);
    expect(byHand(on('front', { shape: { width: 60, height: 4 }, y: 20 }))).toEqual([]);
  });
  test.each([
    ['over the way in front', 'front', 'inside', 0],
    ['in front, on foam', 'front', 'inside', 1],
    ['on the backing, under the token', 'backing', 'inside', 0],
    ['on the backing, on foam', 'backing', 'inside', 1],
    ['behind the front, on foam', 'front', 'outside', 1],
  ] as const)('a bar %s', (_, part, side, foamMm) => {
    expect(byHand(on(part, { side, foamMm, foamInsetMm: 0 }))).toEqual(['layer.l1 track-slider-1 by hand']);
  });
  test('beside the way: as near as the carrier reaches, 10 mm, just below, at and just above', () => {
    const at = (edge: number) => byHand(on('front', { shape: { width: 16, height: 6 }, y: edge + 3 })).length;
    expect([10.05, 10, 9.9].map(at)).toEqual([0, 0, 1]);
  });
  test('at the end of the way: the carrier comes to 40 mm from the middle', () => {
    const at = (edge: number) => byHand(on('front', { shape: { width: 6, height: 20 }, x: edge + 3 })).length;
    expect([40.05, 40, 39.9].map(at)).toEqual([0, 0, 1]);
  });
  test('a remedy moves the bar off the way, and is proved', () => {
    const d = on('front', {});
    const [hit] = found(d, 'collision').filter((f) => f.severity === 'blocks');
    expect(hit.levers.some((l) => l.mechanism === 'layer.l1')).toBe(true);
    expect(byHand(on('front', { x: -44 }))).toEqual([]);
  });
  test('what lies under the carrier all the way only lifts it: as far as the token has play', () => {
    const caliper = page.stocks.find((s) => s.id === 'card-240')!.caliperMm;
    // Between backing and front are 2 mm of foam; a strip as long as the way, beside the slot, lifts the carrier.
    const lifted = (roomMm: number): Design =>
      stick(put(page, 'track-slider', { ...SLIDER, token: { diameter: 19.05, thickness: 2 - caliper - roomMm } }), {
        facet: 'track-slider-1.front',
        shape: { width: 90, height: 4 },
        y: 6,
      });
    expect(byHand(lifted(0.3))).toEqual([]);
    const room = (mm: number): string[] =>
      found(lifted(mm), 'bind').flatMap((f) =>
        f.aspect.endsWith('under layer.l1') ? [`${f.severity} ${f.measured.toFixed(2)}`] : [],
      );
    // 0.2 mm is enough, less is a risk, below nothing it is held.
    expect([0.21, 0.2, 0.19, 0, -0.05].map(room)).toEqual([[], [], ['risk 0.19'], ['risk 0.00'], ['blocks -0.05']]);
  });
});

describe('sheets at one height on one face', () => {
  const disc = { width: 62, height: 62, radius: 38, notch: 0 };
  const pocket = { width: 60, height: 40, insertWidth: 40, insertHeight: 36 };
  /** A disc that passes its panel by 7 mm on every side, and a pocket so far below the panel's edge. */
  const beside = (gap: number): Design =>
    put(put(page, 'volvelle', disc, { y: -40 }), 'pocket', pocket, { y: -40 + 31 + gap + 20 });
  test('a disc runs into a pocket that stands nearer than it reaches, not into one further off', () => {
    expect([1, 6.9].map((gap) => byHand(beside(gap)).length)).toEqual([1, 1]);
    expect([7, 7.1].map((gap) => byHand(beside(gap)).length)).toEqual([0, 0]);
  });
  test('a strip that runs under the glued back of a wheel is in its way', () => {
    const wheel = { spokes: 3, arm: 12, hub: 8, carrier: { width: 6, height: 9, hang: 3 } };
    const belt = { count: 3, panelHeight: 30, panelWidth: 30, pitch: 8, beltWidth: 14, rivetGap: 20, strap: 10 };
    const at = (y: number): string[] =>
      byHand(put(put(page, 'waterfall', belt, { y: 40 }), 'carrier-wheel', wheel, { y: -50, x: y }));
    expect(at(0)).toEqual(['carrier-wheel-1 by hand']);
    expect(at(38)).toEqual([]);
  });
});

describe('looks are as close as what moves needs', () => {
  const belt = { count: 3, panelHeight: 30, panelWidth: 30, pitch: 7, beltWidth: 12, rivetGap: 18, strap: 8 };
  const d = stick(put(page, 'waterfall', belt), {
    ...{ facet: 'leafB', shape: { width: 30, height: 60 }, foamMm: 3, foamInsetMm: 0, y: -20 },
  });
  const evidence = gather(d, 'travel', 4);
  const { assembly } = evidence;
  const solids = solidsOf(evidence);
  const path = pathsOf(assembly, evidence.byHand).find((p) => p.open === 180)!;
  const moved = movedFacets(path.poses);
  test('between two looks nothing that is near something turns by more than 5 degrees or goes more than 2 mm', () => {
    const pairs = movingPairs(assembly, solids, moved, path.poses);
    const purse = { left: 100_000 };
    const looks = [...looksAlong(assembly, solids, path.poses, { pairs, moved, purse })];
    expect(looks.length).toBeGreaterThan(2 * path.poses.length);
    const panel = assembly.facets.findIndex((f) => f.id === 'waterfall-1.panel-2');
    const values = looks.map((l) => l.pose.state['waterfall-1.pull']);
    expect(values).toEqual([...values].sort((a, b) => a - b));
    // The second panel turns between one pitch and two: there it is near the strap.
    const turning = looks.filter((_, k) => values[k] > 7 && values[k] < 14);
    for (const [k, look] of turning.entries()) {
      if (k === 0) continue;
      const [m, n] = [turning[k - 1].pose.placed[panel], look.pose.placed[panel]];
      expect(turnBetween(m, n)).toBeLessThanOrEqual(LOOK_DEG + 1e-6);
      for (const corner of assembly.facets[panel].polygon.outer) {
        const [p, q] = [turning[k - 1].pose, look.pose].map((pose) => onFacet(pose, panel, corner));
        expect(Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])).toBeLessThanOrEqual(LOOK_MM + 1e-6);
      }
    }
  });
  test('a panel that turns over within one pitch does not jump through what stands in its way', () => {
    // A plate on edge would be in the way between two steps of 5 mm only: the pose half way through the turn has it.
    const a = buildAssembly(put(page, 'waterfall', belt));
    const half = poseAt(a, {
      ...Object.fromEntries(a.drives.map((x) => [x.id, x.rest])),
      open: 180,
      'waterfall-1.pull': 10.5,
    });
    const panel = a.facets.findIndex((f) => f.id === 'waterfall-1.panel-2');
    const top = Math.max(...a.facets[panel].polygon.outer.map((p) => onFacet(half, panel, p)[2]));
    expect(top).toBeGreaterThan(25);
    // A step over the gutter reaches in under that height beside the strap, open flat it lies in the page: no hit.
    const flat = addMechanism(put(page, 'waterfall', belt), 'step-fold', undefined, { depth: 20, height: 20 }).design;
    expect(found(flat, 'collision').filter((f) => f.drive.open === 180 && f.severity === 'blocks')).toEqual([]);
  });
  test('what is not looked at closely enough is said', () => {
    expect(byHandOf(evidence).missed).toEqual([]);
  });
});

describe('parts that are to stay in', () => {
  test('a carrier that its slot lets through, just below, at and just above 2 mm on each side', () => {
    const at = (carrier: number) =>
      told(put(page, 'track-slider', { ...SLIDER, carrier }), 'captive').filter((t) => t.endsWith('carrier'));
    expect([5, 9.9, 10, 10.1].map(at)).toEqual([['blocks carrier'], ['risk carrier'], [], []]);
  });
  test('a token that leaves its panel at the side', () => {
    // It comes to 30 + 9.525 mm from the middle of a panel half as wide as this.
    const at = (width: number) =>
      told(put(page, 'track-slider', { ...SLIDER, width, corner: 0 }), 'captive').filter((t) => t.endsWith('panel'));
    const reach = 2 * (30 + 19.05 / 2);
    expect([reach - 0.1, reach + 3.9, reach + 4, reach + 4.1].map(at)).toEqual([
      ['blocks panel'],
      ['risk panel'],
      [],
      [],
    ]);
  });
  test('a rivet head that reaches into a window', () => {
    const at = (rivet: number) =>
      told(
        put(page, 'volvelle', { radius: 38, rivet, windows: [{ inner: 5, outer: 30, span: 40, at: 90 }] }),
        'covered',
      ).filter((t) => t.includes('rivet'));
    expect([9.9, 10, 10.1].map(at)).toEqual([[], [], ['risk rivet 1']]);
  });
});

describe('carriers hang by their weight', () => {
  const wheel = (hang: number, height = 24): Design =>
    put(page, 'carrier-wheel', {
      spokes: 4,
      arm: 34,
      hub: 16,
      carrier: { width: 16, height, hang },
      hole: 0.5,
      rivet: 0.5,
    });
  const tips = (d: Design) => told(d, 'tip').map((t) => t.split(' ')[0]);
  test('hung at or below the middle of its weight it turns over; from 1 mm above it hangs', () => {
    // A rectangle's middle is half its height down; its rivet, a hair of brass, is told with it.
    expect(tips(wheel(8))).toEqual([]);
    expect(tips(wheel(11.5))).toEqual(Array(4).fill('risk'));
    expect(tips(wheel(14))).toEqual(Array(4).fill('blocks'));
  });
  test('what is stuck on above the rivet turns it over', () => {
    const heavy = stick(wheel(8), {
      ...{ facet: 'carrier-wheel-1.carrier-1', shape: { width: 16, height: 6 }, doubled: true },
      ...{ from: { x: 'middle', y: 'high' } as const, y: 18, foamMm: 0 },
    });
    expect(tips(heavy)).toEqual(['blocks']);
  });
});

describe('what is stuck over openings', () => {
  const turning = put(page, 'volvelle', { radius: 38 });
  const over = (own: Partial<Layer>): Design => stick(turning, { facet: 'volvelle-1.front', ...own });
  test('over a window it hides what shows, and is glued to what turns behind', () => {
    const d = over({ shape: { circle: 10 }, y: 23 });
    expect(told(d, 'covered')).toContain('risk layer.l1 over');
    expect(told(d, 'bind')).toContain('blocks volvelle-1.turn glued to layer.l1');
  });
  test('an opening of which less than a square millimetre is lapped is not hidden', () => {
    const window = { shape: { rect: { width: 10, height: 10 } }, x: 0, y: 20 };
    const square = put(page, 'volvelle', { radius: 38, windows: [window] });
    // The window's lower edge lies 15 mm above the middle; the layer's upper edge so far over it, 10 mm wide.
    const lapping = (mm: number) =>
      told(
        stick(square, { facet: 'volvelle-1.front', shape: { width: 10, height: 6 }, y: 15 + mm - 3 }),
        'covered',
      ).filter((t) => t.endsWith('over')).length;
    expect([0.09, 0.1, 0.11].map(lapping)).toEqual([0, 0, 1]);
  });
  test('adhesive reaches 3 mm behind what it is on', () => {
    const caliper = page.stocks.find((s) => s.id === 'card-240')!.caliperMm;
    const far = (gapMm: number) =>
      told(
        stick(put(page, 'volvelle', { radius: 38, foam: gapMm + caliper }), {
          ...{ facet: 'volvelle-1.front', shape: { circle: 10 }, y: 23 },
        }),
        'bind',
      ).filter((t) => t.includes('glued')).length;
    expect([2.9, 3, 3.1].map(far)).toEqual([1, 1, 0]);
  });
  test('beside it neither', () => {
    const d = over({ shape: { circle: 10 }, y: -30 });
    expect(told(d, 'covered')).toEqual([]);
    expect(told(d, 'bind')).toEqual([]);
  });
});

test('a panel that has turned over and is drawn on runs into what is higher than it lies, as far as it goes', () => {
  const pitch = 8;
  const belt = { count: 3, panelHeight: 30, panelWidth: 30, pitch, beltWidth: 12, rivetGap: 18, strap: 8 };
  const plain = put(page, 'waterfall', belt);
  const a = buildAssembly(plain);
  const rest = Object.fromEntries(a.drives.map((x) => [x.id, x.rest]));
  const panel = a.facets.findIndex((f) => f.id === 'waterfall-1.panel-1');
  const middle = (pull: number): [number, number] => {
    const pose = poseAt(a, { ...rest, open: 180, 'waterfall-1.pull': pull });
    const [x, y] = onFacet(pose, panel, [0, 15]);
    return [x, y];
  };
  // Open flat the page lies as it is drawn. Turned over after one pitch, the first panel goes on for two more.
  const [from, to] = [middle(pitch), middle(3 * pitch)];
  const gone = Math.hypot(to[0] - from[0], to[1] - from[1]);
  expect(gone).toBeCloseTo(2 * pitch, 6);
  const [ux, uy] = [(to[0] - from[0]) / gone, (to[1] - from[1]) / gone];
  const before = (gap: number, foamMm: number): string[] =>
    byHand(
      stick(plain, {
        ...{ facet: 'leafB', shape: { width: 6, height: 6 }, foamMm, foamInsetMm: 0 },
        // Its near edge so far before that of the panel, which reaches 15 mm from its middle; leaf B is 140 mm deep.
        ...{ x: from[0] + ux * (15 + gap + 3), y: from[1] + uy * (15 + gap + 3) + 70 },
      }),
    );
  expect([1, 15.9, 16.1].map((gap) => before(gap, 2).length)).toEqual([1, 1, 0]);
  // Flat it is lower than the panel lies.
  expect(before(1, 0)).toEqual([]);
});
