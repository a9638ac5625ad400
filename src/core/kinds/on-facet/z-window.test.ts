/** A pleat behind a window: where it lies as it is drawn (closed form), what passes the window, what the limits are. */
import fc from 'fast-check';
import { restOf } from '../../drives';
import type { Assembly } from '../../assembly/assembly';
import { allMeasures, landmarksOf, onFacet, poseAt, type Pose } from '../../assembly/pose';
import { buildAssembly } from '../../build/build';
import { addMechanism } from '../../document/standing';
import { checkDesign } from '../../document/schema';
import { CENTRE, type Design } from '../../document/design';
import { prove } from '../../proof/prove';
import { card, findings, layered, stand } from '../../tests/cards';
import type { ParameterValues } from '..';

const INCH = 25.4;
const ID = 'z-window-1';
const SMALL = { z1: 60, z2: 30, z3: 30, stripHeight: 60, window: { circle: 20 }, piece: { circle: 16 } };
/** 8 1/2 x 5 1/2 in scored at 4 1/4; the strip 8 x 5 scored at 4 and 6 (handbook check value, practice). */
const trade = (parameters: ParameterValues = {}): Design =>
  addMechanism(card(5.5 * INCH, 4.25 * INCH), 'z-window', undefined, parameters).design;
const at = (a: Assembly, pull: number, open = 180): Pose =>
  poseAt(a, { ...restOf(a.drives), open, [`${ID}.pull`]: pull });
const measured = (a: Assembly): Record<string, number> => allMeasures(a, at(a, 0), null)[ID];

test('drawn, the second panel turns up about the first crease and the third stays level (closed form)', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 180, noNaN: true }),
      fc.double({ min: 20, max: 60, noNaN: true }),
      fc.double({ min: 15, max: 60, noNaN: true }),
      fc.double({ min: 0, max: 8, noNaN: true }),
      (pull, z2, z3, edgeGap) => {
        fc.pre(z3 <= z2);
        const small = { window: { circle: 12 }, piece: { circle: 10 } };
        const a = buildAssembly(trade({ z2, z3, edgeGap, ...small }));
        expect(a.misfits).toEqual([]);
        const pose = at(a, pull);
        expect(pose.stop).toBeUndefined();
        const turn = ((180 - pull) * Math.PI) / 180;
        const [x, y, z] = landmarksOf(a, pose, a.mechanisms[1]).piece;
        const crease = 4.25 * INCH - edgeGap;
        expect(x).toBeCloseTo(0, 8);
        expect(y).toBeCloseTo(crease + z2 * Math.cos(turn) + z3 / 2, 7);
        // The strip and the piece lie over the leaf by their own paper, 0.3 mm each.
        expect(z).toBeCloseTo(z2 * Math.sin(turn) + 0.6, 7);
      },
    ),
    { numRuns: 40 },
  );
});

test('the strip of the trade goes out by 4 in, and shut the window lies round the piece as it is measured', () => {
  const a = buildAssembly(trade({ windowY: 12 }));
  expect(measured(a)).toMatchObject({ extension_mm: 4 * INCH, pass_mm: expect.closeTo(2, 6), closed_layers: 4 });
  const shut = at(a, 0, 0);
  const leaf = a.facets.findIndex((f) => f.id === 'leafB');
  const [hole] = a.facets[leaf].polygon.holes;
  const window = hole.map((p) => onFacet(shut, leaf, p));
  const piece = a.facets.findIndex((f) => f.id === `${ID}.piece`);
  const edge = a.facets[piece].polygon.outer.map((p) => onFacet(shut, piece, p));
  // Two rectangles about one middle: 2 mm less on every side.
  for (const k of [0, 1] as const) {
    const ends = (points: typeof edge): number[] => [
      Math.min(...points.map((p) => p[k])),
      Math.max(...points.map((p) => p[k])),
    ];
    const [outer, inner] = [ends(window), ends(edge)];
    expect(inner[0] - outer[0]).toBeCloseTo(2, 6);
    expect(outer[1] - inner[1]).toBeCloseTo(2, 6);
  }
  expect(prove(trade(), 6).findings.filter((f) => f.severity !== 'note')).toEqual([]);
});

describe('limits, just below, at and just above', () => {
  const told = (p: ParameterValues, rule: 'bind' | 'web' | 'captive' | 'flat-fold'): string[] =>
    findings(trade(p), rule)
      .filter((f) => f.mechanism === ID)
      .map((f) => `${f.severity} ${f.aspect}`);
  const rect = (width: number, height = 54) => ({ rect: { width, height } });
  test('0.5 mm all round the piece', () => {
    expect(told({ piece: rect(38.98) }, 'bind')).toEqual([]);
    expect(told({ piece: rect(39) }, 'bind')).toEqual([]);
    expect(told({ piece: rect(39.02) }, 'bind')).toEqual(['risk pass']);
    expect(told({ piece: rect(40.4) }, 'bind')).toEqual(['blocks pass']);
  });
  test('6 mm of cover round the window: it lies 26.4 mm from the fore edge in its middle', () => {
    expect(told({ window: rect(40.8, 58) }, 'web')).toEqual([]);
    expect(told({ window: rect(40.82, 58) }, 'web')).toEqual(['risk frame']);
    expect(told({ window: rect(47, 58), piece: rect(30) }, 'web')).toEqual(['blocks frame']);
  });
  test('6 mm of the third panel under the piece', () => {
    const narrow = (z3: number) => ({ z3, windowX: 5, window: rect(30, 58), piece: rect(26) });
    const width = (z3: number) => measured(buildAssembly(trade(narrow(z3)))).bond_width_mm;
    const enough = [50, 20, 10, 6.1, 6, 5.9, 4].map((z3) => [width(z3), told(narrow(z3), 'captive').length] as const);
    for (const [mm, count] of enough) expect(count).toBe(mm < 6 - 1e-6 ? 1 : 0);
    expect(new Set(enough.map(([, count]) => count))).toEqual(new Set([0, 1]));
  });
  test('no panel longer than the one under it', () => {
    expect(told({ z2: 50.8, z3: 50.8 }, 'flat-fold')).toEqual([]);
    expect(told({ z2: 50.8, z3: 51 }, 'flat-fold')).toEqual(['blocks contradiction third']);
    expect(told({ z1: 40, z2: 50.8 }, 'flat-fold')).toEqual(['blocks contradiction second']);
  });
  test('nothing raised inside the pleat', () => {
    const raised = layered(trade(), { facet: `${ID}.z2`, shape: { circle: 20 }, foamMm: 2, foamInsetMm: 3 });
    expect(findings(raised, 'foam').map((f) => f.severity)).toEqual(['blocks']);
  });
});

test('folded at the top it is drawn out along the fold or, turned, across it', () => {
  const plain = card(140, 108);
  const top = { ...plain, card: { ...plain.card, parameters: { ...plain.card.parameters, fold: 'top' } } };
  const mount = (turnDeg: number) => ({ on: 'leafA', mount: { ...CENTRE, turnDeg } });
  const way = (turnDeg: number): readonly number[] => {
    const a = buildAssembly(addMechanism(top, 'z-window', mount(turnDeg), SMALL).design);
    expect(a.misfits).toEqual([]);
    const [p, q] = [0, 180].map((pull) => landmarksOf(a, at(a, pull), a.mechanisms[1]).piece);
    return q.map((v, k) => v - p[k]);
  };
  expect(Math.abs(way(0)[0])).toBeCloseTo(60, 6);
  expect(Math.abs(way(0)[1])).toBeCloseTo(0, 6);
  expect(Math.abs(way(-90)[1])).toBeCloseTo(60, 6);
});

test('drawn toward the fold it is refused until it is turned', () => {
  const on = (turnDeg: number): number =>
    findings(
      addMechanism(card(140, 108), 'z-window', { on: 'leafB', mount: { ...CENTRE, turnDeg } }, SMALL).design,
      'loose-part',
    ).length;
  expect(on(0)).toBe(1);
  expect(on(180)).toBe(0);
});

test('it wants a card of one sheet with a cover, and says so; a step stands on its outer crease', () => {
  const lined = card(140, 108);
  const d = { ...lined, card: { ...lined.card, construction: 'box-frame', parameters: {} } };
  const onBox = addMechanism(d, 'z-window', { on: 'front', mount: CENTRE }).design;
  expect(findings(onBox, 'loose-part').some((f) => /no cover closes/.test(f.message))).toBe(true);
  const turned = addMechanism(
    trade(),
    'volvelle',
    { on: `${ID}.z3`, mount: CENTRE },
    { radius: 15, width: 40, height: 40 },
  );
  expect(checkDesign(JSON.parse(JSON.stringify(turned.design))).ok).toBe(true);
  const a = buildAssembly(turned.design);
  expect(poseAt(a, { open: 180, [`${ID}.pull`]: 120 }).stop).toBeUndefined();
  expect(() => buildAssembly(stand(trade(), 'step-fold', {}, `${ID}.nothing`))).toThrow(/not a crease/);
});

test.each([
  // On leaf A of 100 mm the window's middle lies so far from the gutter; the cover is shorter, as long, or longer.
  [70, 75],
  [100, 75],
  [120, 75],
])('its frame is what the cover keeps, a leaf of %d mm, not the one behind', (reachB, middle) => {
  const d = addMechanism(
    card(140, 100, reachB),
    'z-window',
    { on: 'leafA', mount: { ...CENTRE, side: 'inside' } },
    { ...SMALL, z1: 50, z2: 40, z3: 30, stripHeight: 50, edgeGap: 0, windowX: middle - 50, windowY: 0 },
  ).design;
  const a = buildAssembly(d);
  const shut = at(a, 0, 0);
  const [cover] = a.facets.filter((f) => f.id === 'leafB');
  const index = a.facets.indexOf(cover);
  // In the world, shut: a circle of 20 mm across, its middle from the gutter, and the cover's free edge.
  const ys = (cover.polygon.holes[0] ?? []).map((p) => onFacet(shut, index, p)[1]);
  const frame = allMeasures(a, shut, null)[ID].frame_mm;
  if (ys.length === 0) expect(frame).toBeLessThanOrEqual(0);
  else expect(frame).toBeCloseTo(Math.min(reachB - Math.max(...ys), Math.min(...ys)), 2);
});
