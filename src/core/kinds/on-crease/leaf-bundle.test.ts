/**
 * Shapes folded and glued back to back: even angles whatever the opening (the whole over the number), halves that are
 * glued lie on each other, heights and widths of the drawings, limits of the card it stands on.
 */
import fc from 'fast-check';
import { allMeasures, foldDeg, landmarksOf, onFacet, poseAt, type Pose } from '../../assembly/pose';
import type { Assembly } from '../../assembly/assembly';
import { buildAssembly } from '../../build/build';
import { checkDesign } from '../../document/schema';
import { addMechanism, naturalMount } from '../../document/standing';
import { readValue } from '../../document/values';
import type { Design } from '../../document/design';
import { exclude, mapRegion, regionArea, regionBox, type Region } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { prove } from '../../proof/prove';
import { card, findings, stand } from '../../tests/cards';
import { KINDS, type ParameterValues } from '..';

const bundle = (parameters: ParameterValues, d = card(200, 100)): Design => stand(d, 'leaf-bundle', parameters);
const measured = (a: Assembly, pose: Pose): Record<string, number> => allMeasures(a, pose, null)['leaf-bundle-1'];
const pieceOf = (a: Assembly, id: string) => a.pieces.find((p) => p.id === `leaf-bundle-1.${id}`)!;
const LEANING = {
  polygon: [
    [0, 0],
    [30, 5],
    [24, 40],
    [8, 60],
    [-10, 30],
  ] as [number, number][],
};

test('neighbours enclose the opening over their number, each fold what that leaves (closed form)', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9 }), fc.double({ min: 0, max: 180, noNaN: true }), (count, open) => {
      const a = buildAssembly(bundle({ count }));
      expect(a.misfits).toEqual([]);
      const pose = poseAt(a, { open });
      expect(pose.stop).toBeUndefined();
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
      expect(measured(a, pose).pitch_deg).toBeCloseTo(open / count, 6);
      for (const c of a.creases.filter((x) => x.mechanism === 'leaf-bundle-1'))
        expect(foldDeg(pose, c)).toBeCloseTo(180 - open / count, 6);
      // The edge of leaf k stands at k times the pitch from side A, 25 mm from the axis.
      const marks = landmarksOf(a, pose, a.mechanisms[1]);
      for (let k = 1; k <= count; k++) {
        const [, y, z] = marks[`edge_${k}`];
        const at = ((k * open) / count) * (Math.PI / 180);
        expect(y).toBeCloseTo(25 * Math.cos(at), 6);
        expect(z).toBeCloseTo(25 * Math.sin(at), 6);
      }
    }),
    { numRuns: 40 },
  );
});

test('five flat open enclose 36 degrees each (handbook value), ten layers shut', () => {
  const d = bundle({ count: 5 });
  const a = buildAssembly(d);
  const flat = measured(a, poseAt(a, { open: 180 }));
  expect(flat).toMatchObject({ pitch_deg: expect.closeTo(36, 9), layers: 10, total_height_mm: 60, half_width_mm: 25 });
  // Two leaves of 0.3 and ten of the stock of its pieces.
  const proof = prove(d, 6);
  const { caliperMm } = d.stocks.find((s) => s.id === d.mechanisms[0].stock)!;
  expect(proof.closed!.thickness_mm).toBeCloseTo(0.6 + 10 * caliperMm, 4);
  expect(proof.verdict).toBe('clear');
});

test('halves that are glued to each other are alike and lie on each other, whatever the shape', () => {
  const a = buildAssembly(bundle({ shape: LEANING, count: 4, height: 70 }));
  const half = (id: string, sign: 1 | -1): Region => {
    const facet = a.facets.find((f) => f.piece === `leaf-bundle-1.${id}` && f.id.endsWith(sign > 0 ? 'A' : 'B'))!;
    return [facet.polygon];
  };
  for (const k of [1, 2, 3]) {
    const [below, above] = [half(`leaf-${k}`, -1), half(`leaf-${k + 1}`, 1)];
    const turned = mapRegion(above, ([x, y]): Vec2 => [x, -y], true);
    expect(regionArea(exclude(below, turned))).toBeLessThan(1e-3);
  }
  for (const open of [20, 110]) {
    const pose = poseAt(a, { open });
    const at = (id: string, p: Vec2) =>
      onFacet(
        pose,
        a.facets.findIndex((f) => f.id === `leaf-bundle-1.${id}`),
        p,
      );
    const [p, q] = [at('leaf-1B', [3, -9]), at('leaf-2A', [3, 9])];
    p.forEach((v, i) => expect(v).toBeCloseTo(q[i], 8));
  }
});

test('its axis is found from the shape: laid askew it folds where it is alike', () => {
  const turn = (deg: number): [number, number][] => {
    const t = (deg * Math.PI) / 180;
    const kite: Vec2[] = [
      [0, -30],
      [16, 5],
      [0, 22],
      [-16, 5],
    ];
    return kite.map(([x, y]): [number, number] => [
      x * Math.cos(t) - y * Math.sin(t),
      x * Math.sin(t) + y * Math.cos(t),
    ]);
  };
  for (const deg of [0, 25, -40]) {
    const a = buildAssembly(bundle({ shape: { polygon: turn(deg) }, count: 3, height: 52 }));
    expect(measured(a, poseAt(a, { open: 90 })).half_width_mm).toBeCloseTo(16, 1);
  }
});

test('stacked bundles stand one past the other on the axis, each with its own leaves', () => {
  const stack = [
    { shape: { circle: 40 }, count: 3, height: 40 },
    { shape: { circle: 20 }, count: 2, height: 20 },
  ];
  const parameters = { shape: { rect: { width: 12, height: 50 } }, count: 2, height: 50, stack, gap: 2 };
  const d = bundle(parameters);
  expect(checkDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  const a = buildAssembly(d);
  const pose = poseAt(a, { open: 120 });
  expect(measured(a, pose)).toMatchObject({ total_height_mm: 114, layers: 6, half_width_mm: expect.closeTo(20, 2) });
  const along = (id: string) => regionBox([pieceOf(a, id).outline]);
  // The top is toward the low end: foot at +57, the stem to 7, the body from 5 to -35, the top from -37 to -57.
  expect(along('leaf-1').max[0]).toBeCloseTo(57, 6);
  expect(along('tier-2-leaf-1').max[0]).toBeCloseTo(5, 4);
  expect(along('tier-3-leaf-1').min[0]).toBeCloseTo(-57, 4);
  const high = buildAssembly(bundle({ ...parameters, top: 'high' }));
  expect(regionBox([pieceOf(high, 'tier-3-leaf-1').outline]).max[0]).toBeCloseTo(57, 4);
});

test('higher than the crease or wider than the leaves it sticks out, just past each limit', () => {
  const found = (parameters: ParameterValues): string[] =>
    findings(bundle(parameters), 'overhang').map((f) => f.aspect);
  const wide = (mm: number) => ({ shape: { rect: { width: 2 * mm, height: 250 } }, height: 60, count: 3 });
  const scale = 250 / 60;
  expect(found({ ...wide(100 * scale - 0.1) })).toEqual([]);
  expect(found({ ...wide(100 * scale + 0.1) })).toHaveLength(1);
  const tall = (height: number) => ({ shape: { rect: { width: 40, height: 200 } }, height, count: 3 });
  expect(found(tall(200))).toEqual([]);
  expect(found(tall(200.1))).toHaveLength(2);
});

test('it stands on a step and in a bundle a step stands on a leaf; mirrored along the crease it poses mirrored', () => {
  const step = stand(card(200, 120), 'step-fold', { depth: 40, height: 40, width: 90 });
  const onStep = stand(step, 'leaf-bundle', { count: 3, height: 40 }, 'step-fold-1.ridge');
  const a = buildAssembly(onStep);
  const pose = poseAt(a, { open: 90 });
  expect(pose.stop).toBeUndefined();
  expect(allMeasures(a, pose, null)['leaf-bundle-1'].pitch_deg).toBeCloseTo(30, 5);
  const nested = stand(
    bundle({ count: 2, height: 80 }),
    'step-fold',
    { depth: 8, height: 8, width: 20 },
    'leaf-bundle-1.fold-1',
  );
  const b = buildAssembly(nested);
  expect(poseAt(b, { open: 100 }).folds.residualMm).toBeLessThan(1e-9);
  const edge = (offset: number): readonly number[] => {
    const c = buildAssembly(bundle({ offset, top: offset > 0 ? 'high' : 'low' }));
    return landmarksOf(c, poseAt(c, { open: 70 }), c.mechanisms[1]).edge_2;
  };
  const [p, q] = [edge(30), edge(-30)];
  expect(p[0]).toBeCloseTo(-q[0], 3);
  expect(p[2]).toBeCloseTo(q[2], 6);
});

test('a shape without paper on its axis is said not to fold', () => {
  const ring = { path: 'M-20 0 L-8 0 L-8 -40 L-20 -40 Z M8 0 L20 0 L20 -40 L8 -40 Z' };
  expect(findings(bundle({ shape: ring, count: 2 }), 'loose-part').length).toBeGreaterThan(0);
});

describe('on a flat face', () => {
  const onFace = (parameters: ParameterValues, side: 'inside' | 'outside' = 'inside', turnDeg = 0): Design =>
    addMechanism(
      card(200, 140),
      'leaf-bundle',
      { on: side === 'inside' ? 'leafA' : 'leafB', mount: { side, x: 12, y: -5, turnDeg } },
      { top: 'high', ...parameters },
    ).design;

  test('spread over it neighbours enclose 180 over their number, whatever part of that it is spread by', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.double({ min: 0, max: 180, noNaN: true }),
        fc.constantFrom('inside' as const, 'outside' as const),
        (count, spread, side) => {
          const a = buildAssembly(onFace({ count }, side, 30));
          expect(a.misfits).toEqual([]);
          const pose = poseAt(a, { open: 180, 'leaf-bundle-1.spread': spread });
          expect(pose.stop).toBeUndefined();
          expect(pose.folds.residualMm).toBeLessThan(1e-9);
          const m = measured(a, pose);
          expect(m.pitch_deg).toBeCloseTo(180 / count, 9);
          if (count > 1) expect(m.spread_deg).toBeCloseTo(spread, 6);
          // The last half stays glued down at its reader's right, however the others are spread.
          const last = a.facets.findIndex((f) => f.id === `leaf-bundle-1.leaf-${count}B`);
          const face = a.facets.findIndex((f) => f.id === (side === 'inside' ? 'leafA' : 'leafB'));
          expect(a.facets[last].body).toBe(a.facets[face].body);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('five enclose 36 degrees each (handbook value); over less than the whole face the last half stands free', () => {
    const at = (parameters: ParameterValues): number => {
      const a = buildAssembly(onFace(parameters));
      return measured(a, poseAt(a, { open: 180, 'leaf-bundle-1.spread': 180 })).pitch_deg;
    };
    expect(at({ count: 5 })).toBeCloseTo(36, 9);
    expect(at({ count: 4, span: 120 })).toBeCloseTo(30, 9);
    const free = buildAssembly(onFace({ count: 4, span: 120 }));
    expect(free.drives[1]).toMatchObject({ id: 'leaf-bundle-1.spread', to: 120 });
    expect(free.bonds.some((b) => b.id.endsWith('bondB'))).toBe(false);
  });

  test('pressed to one side it goes in the post: flat, twice its number thick, and clear', () => {
    const proof = prove(onFace({ count: 4 }), 8);
    expect(proof.findings.filter((f) => f.severity !== 'note')).toEqual([]);
    // Two leaves of 0.3, and at its reader's left seven halves of 0.2: all but the last, which is glued at the right.
    expect(proof.closed!.thickness_mm).toBeCloseTo(0.6 + 7 * 0.2, 4);
    const kept = checkDesign(JSON.parse(JSON.stringify(onFace({ count: 4 }))));
    expect(kept.ok).toBe(true);
  });

  test('an angle of its own says nothing on a crease, and is told there; words and numbers are read', () => {
    const told = (span: number | string): string[] => buildAssembly(bundle({ span })).misfits.map((m) => m.key ?? '');
    expect(told('open')).toEqual([]);
    expect(told(120)).toEqual(['span']);
    const { parameters } = KINDS.get('leaf-bundle')!;
    const span = parameters.find((p) => p.key === 'span')!;
    expect(readValue(span, 'open')).toEqual({ ok: true, value: 'open' });
    expect(readValue(span, '90')).toEqual({ ok: true, value: 90 });
    expect(readValue(span, 'wide').ok).toBe(false);
    const odd = checkDesign({
      ...onFace({}),
      mechanisms: [{ ...onFace({}).mechanisms[0], parameters: { span: 'wide' } }],
    });
    expect(odd).toMatchObject({ ok: false, why: expect.stringMatching(/must be "open" or a number/) });
  });

  test('a mount says where on a face; without one it stands on a crease, and a facet alone is refused', () => {
    const [m] = onFace({}).mechanisms;
    const { mount: _, ...bare } = m;
    const read = checkDesign({ ...onFace({}), mechanisms: [bare] });
    expect(read).toMatchObject({ ok: false, why: expect.stringMatching(/stands on a crease/) });
    expect(naturalMount(card(200, 140), 'leaf-bundle')).toEqual({ on: 'card.gutter' });
    expect(naturalMount(card(200, 140), 'leaf-bundle', 'outside').mount).toMatchObject({ side: 'outside' });
  });
});

test('stem, body and top have the length of the crease for their budget; past it they stick out', () => {
  const tiers = (top: number, offset = 0): Design =>
    bundle({
      ...{ count: 2, height: 60, offset, gap: 1 },
      stack: [
        { shape: { circle: 30 }, count: 3, height: 30 },
        { shape: { circle: 20 }, count: 2, height: top },
      ],
    });
  const room = (d: Design): number => {
    const a = buildAssembly(d);
    return measured(a, poseAt(a, { open: 90 })).room_mm;
  };
  // 60 + 30 + 20 with two gaps of 1 on a fold of 200.
  expect(room(tiers(20))).toBeCloseTo((200 - 112) / 2, 9);
  expect(room(tiers(20, -30))).toBeCloseTo((200 - 112) / 2 - 30, 9);
  const out = (offset: number): number => findings(tiers(20, offset), 'overhang').length;
  expect(out(43.9)).toBe(0);
  expect(out(44)).toBe(0);
  expect(out(44.1)).toBeGreaterThan(0);
});
