/**
 * Templates of several pieces joined into a working card: what our own kinds make, taken apart into plain lines and
 * joined again, poses as they do; creases of the shut card against theirs.
 */
import { allMeasures, facetOutline, poseAt } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import type { Design } from '../document/design';
import { checkDesign, readJoins } from '../document/schema';
import type { Template, TemplateJoin } from '../document/template';
import type { ParameterValues } from '../kinds';
import { applyRigid, type Rigid, type Vec3 } from '../linkage';
import { insidePoint } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { prove } from '../proof/prove';
import { card, stand } from '../tests/cards';
import { drawnLine, plainTemplate } from '../tests/templates';
import { buildAssembly, DesignError } from './build';

/** Every piece of a card as plain lines, one beside the other. */
const APART_MM = 400;
const beside = (k: number, [x, y]: Vec2): Vec2 => [x + k * APART_MM, y];

function takenApart(a: Assembly): Template {
  const lines = a.pieces.flatMap((piece, k) => [
    ...[piece.outline.outer, ...piece.outline.holes].map((points, n) => ({
      id: `${piece.id}-edge-${n}`,
      group: 'cut',
      closed: true,
      points: points.map((p) => beside(k, p)),
    })),
    ...a.creases
      .filter((c) => c.piece === piece.id)
      .flatMap((c, n) =>
        c.segments.map((s, m) => ({
          id: `${c.id}-${n}-${m}`,
          group: c.role,
          closed: false,
          points: [beside(k, s.a), beside(k, s.b)],
        })),
      ),
  ]);
  return plainTemplate(lines, { joins: joinsOf(a) });
}

function joinsOf(a: Assembly): TemplateJoin[] {
  return a.bonds.map((bond, n) => {
    const end = ({ piece, facet }: { piece: string; facet: string }, at: (p: Vec2) => Vec2) => {
      const k = a.pieces.findIndex((p) => p.id === piece);
      const own = a.facets.find((f) => f.id === facet && f.piece === piece)!;
      const on = (p: Vec2): Vec2 => beside(k, at(p));
      return { inside: beside(k, insidePoint(own.polygon)), from: on([0, 0]), to: on([1, 0]) };
    };
    const onA =
      (m: Rigid) =>
      (p: Vec2): Vec2 => {
        const [x, y] = applyRigid(m, [p[0], p[1], 0]);
        return [x, y];
      };
    return {
      id: `glue-${n + 1}`,
      kind: 'bond',
      a: end(bond.a, onA(bond.placement)),
      b: end(bond.b, (p) => p),
      turned: bond.placement[10] < 0,
    };
  });
}

const as = (template: Template): Design => ({ ...card(200, 140), card: { ...card(200, 140).card, template } });
/** Outlines of every facet in a pose, each from its lowest corner on, in a fixed order. */
const outlines = (a: Assembly, open: number): string[] => {
  const pose = poseAt(a, { open });
  expect(pose.stop).toBeUndefined();
  const word = (p: Vec3): string => p.map((x) => (Math.round(x * 1e4) / 1e4 + 0).toFixed(3)).join(' ');
  return a.facets.map((_, i) => facetOutline(pose, a.facets, i).map(word).sort().join(', ')).sort();
};

describe.each<[string, string, ParameterValues]>([
  ['a glued step', 'step-fold', { build: 'glued', depth: 40, height: 25, riser: 30, tread: 45, width: 50, offset: 12 }],
  ['a glued piece with a spine', 'v-fold', { lean: 50, fold: 90, size: 50 }],
  ['tiers of strips', 'step-strips', { tiers: [{ p: 30, q: 34, from: -50, to: 50 }], tab: 9 }],
  ['a bundle of two leaves', 'leaf-bundle', { count: 2 }],
  ['a twisting strip', 'twist-fold', { half: 30, arm: 60 }],
])('%s, taken apart and joined', (_, kind, parameters) => {
  const own = buildAssembly(stand(card(200, 140), kind, parameters));
  const again = buildAssembly(as(takenApart(own)));
  test('lies shut, and at every opening, as it did', () => {
    expect(again.misfits).toEqual([]);
    expect(again.pieces.filter((p) => p.apart)).toEqual([]);
    for (const open of [0, 25, 90, 140]) expect(outlines(again, open)).toEqual(outlines(own, open));
  });
  test('is found to be as sound as it was', () => {
    const rules = (d: Design): string[] => [
      ...new Set(
        prove(d, 12)
          .findings.filter((f) => f.severity !== 'note' && f.rule !== 'glue-room')
          .map((f) => f.rule),
      ),
    ];
    expect(rules(as(takenApart(own)))).toEqual(rules(stand(card(200, 140), kind, parameters)));
  });
});

/** A card of 200 by 160 with a hole, and a wheel with one beside it. */
const WHEEL: Template['lines'] = [
  drawnLine('card', 'cut', true, [0, 0], [200, 0], [200, 160], [0, 160]),
  drawnLine('fold', 'valley', false, [0, 80], [200, 80]),
  drawnLine('wheel', 'cut', true, [300, 40], [340, 40], [340, 60], [300, 60]),
];
const joined = (join: Partial<TemplateJoin>, scale = 1): Template => ({
  ...plainTemplate(WHEEL),
  scale,
  joins: [
    {
      id: 'one',
      kind: 'pivot',
      a: { inside: [90, 30], from: [90, 30], to: [91, 30] },
      b: { inside: [310, 50], from: [310, 50], to: [311, 50] },
      turned: false,
      ...join,
    },
  ],
});

test('on a rivet it turns about it, and the rivet stays where it is', () => {
  const a = buildAssembly(as(joined({})));
  expect(a.drives[1]).toMatchObject({ id: 'card.turn-one', to: 360, round: true });
  const wheel = a.facets.findIndex((f) => f.piece === 'card-part-2');
  for (const turn of [0, 90, 200]) {
    const corners = facetOutline(poseAt(a, { open: 120, 'card.turn-one': turn }), a.facets, wheel);
    // Leaf A, which lies still, is what was drawn above the fold; the wheel is on the other.
    const far = corners.map((p) => Math.hypot(...p.map((x, k) => x - corners[0][k])));
    expect(Math.max(...far)).toBeCloseTo(Math.hypot(40, 20), 6);
  }
  const turned = (deg: number): Vec3[] => facetOutline(poseAt(a, { open: 180, 'card.turn-one': deg }), a.facets, wheel);
  const places = (deg: number): string[] =>
    turned(deg)
      .map(([x, y]) => `${x.toFixed(4)} ${y.toFixed(4)}`.replaceAll('-0.0000', '0.0000'))
      .sort();
  const at = (...list: Vec2[]): string[] => list.map(([x, y]) => `${x.toFixed(4)} ${y.toFixed(4)}`).sort();
  // A quarter turn counter-clockwise about (-10, -50).
  expect(places(0)).toEqual(at([-20, -60], [20, -60], [20, -40], [-20, -40]));
  expect(places(90)).toEqual(at([0, -60], [0, -20], [-20, -20], [-20, -60]));
});

test('a pin in a slot slides from end to end; scaled, its way is scaled with everything', () => {
  const slide = { kind: 'slide', a: { inside: [60, 30], from: [60, 30], to: [120, 30] } } as Partial<TemplateJoin>;
  const a = buildAssembly(as(joined(slide)));
  expect(a.drives[1]).toMatchObject({ id: 'card.slide-one', from: 0, to: expect.closeTo(60, 9) });
  const at = (x: Assembly, mm: number): number => {
    const wheel = x.facets.findIndex((f) => f.piece === 'card-part-2');
    return facetOutline(poseAt(x, { open: 180, 'card.slide-one': mm }), x.facets, wheel)[0][0];
  };
  expect(at(a, 45) - at(a, 0)).toBeCloseTo(45, 6);
  const half = buildAssembly(as(joined(slide, 0.5)));
  expect(half.drives[1].to).toBeCloseTo(30, 9);
});

test('joins that cannot be are refused with the reason; what nothing joins stays beside the card', () => {
  const refused = (join: Partial<TemplateJoin>) => () => buildAssembly(as(joined(join)));
  const off = { inside: [250, 250], from: [250, 250], to: [251, 250] } as const;
  expect(refused({ b: off })).toThrow(DesignError);
  expect(refused({ b: off })).toThrow(/no paper/);
  expect(refused({ b: { inside: [50, 30], from: [50, 30], to: [51, 30] } })).toThrow(/to itself/);
  expect(refused({ b: { inside: [310, 50], from: [310, 50], to: [310, 50] } })).toThrow(/no direction/);
  expect(buildAssembly(as(plainTemplate(WHEEL))).pieces.map((p) => p.apart)).toEqual([undefined, true]);
  const read = checkDesign(JSON.parse(JSON.stringify(as(joined({})))));
  expect(read.ok && read.design.card.template!.joins).toEqual(joined({}).joins);
  expect(readJoins(JSON.stringify(joined({}).joins))).toMatchObject({ ok: true });
  expect(readJoins('[{"id":"x"}]')).toMatchObject({ ok: false });
  expect(
    allMeasures(buildAssembly(as(joined({}))), poseAt(buildAssembly(as(joined({}))), { open: 90 }), null).card.hinge_mm,
  ).toBeCloseTo(200, 9);
});

test('others stand on the creases of a joined piece, and fold with it', () => {
  const own = stand(card(200, 140), 'step-fold', { ...{ build: 'glued', depth: 40, height: 40, width: 60 } });
  const template = takenApart(buildAssembly(own));
  const plain = buildAssembly(as(template));
  const onto = [...plain.hosts.values()].filter((h) => h.piece !== 'card');
  expect(onto.length).toBe(3);
  const ridge = onto.find((h) => h.sign < 0)!;
  const nested = stand(as(template), 'step-fold', { depth: 10, height: 10, width: 20 }, ridge.crease);
  expect(checkDesign(JSON.parse(JSON.stringify(nested))).ok).toBe(true);
  const a = buildAssembly(nested);
  expect(a.misfits).toEqual([]);
  const pose = poseAt(a, { open: 80 });
  expect(pose.stop).toBeUndefined();
  expect(pose.folds.residualMm).toBeLessThan(1e-9);
});

test('glue of a join is as it is drawn on one of the pieces; where none is, where the facets lie on each other', () => {
  const bond = { kind: 'bond', a: { inside: [100, 40], from: [80, 30], to: [120, 30] } } as const;
  const over = { inside: [310, 50], from: [300, 40], to: [340, 40] } as const;
  const t = joined({ ...bond, b: over });
  const glueOf = (template: Template) => buildAssembly(as(template)).pieces.flatMap((p) => p.glue);
  const size = (ring: readonly (readonly [number, number])[]): number[] =>
    [0, 1].map((k) => Math.max(...ring.map((p) => p[k])) - Math.min(...ring.map((p) => p[k])));
  const [plain] = glueOf(t);
  // The strip of 40 by 20, 1.5 mm off its edges, and as large where it lies.
  expect(size(plain.outline)).toEqual([expect.closeTo(37, 6), expect.closeTo(17, 6)]);
  expect(size(plain.onto.outline)).toEqual([expect.closeTo(37, 6), expect.closeTo(17, 6)]);
  const patch: Template = {
    ...t,
    lines: [
      ...t.lines,
      {
        id: 'glue',
        group: 'glue',
        closed: true,
        points: [
          [304, 44],
          [316, 44],
          [316, 54],
          [304, 54],
        ],
      },
    ],
  };
  expect(size(glueOf(patch)[0].outline)).toEqual([expect.closeTo(12, 6), expect.closeTo(10, 6)]);
});
