/** Panels that lie over each other on one face are one sheet: checked with a second polygon library and brute force. */
import fc from 'fast-check';
import polygonClipping, { type MultiPolygon } from 'polygon-clipping';
import { onFacet, poseAt } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { buildAssembly } from './build';
import { addMechanism } from '../document/standing';
import { CENTRE, type Design, type Mount } from '../document/design';
import { FLAT, moved, restOf } from '../drives';
import type { ParameterValues } from '../kinds';
import { regionArea, type Polygon, type Region } from '../plane/polygon';
import { drawPieces } from '../sheets/drawing';
import { foamDrawings } from '../sheets/foam';
import { closedStack } from '../rules/stack-map';
import { gather } from '../proof/evidence';
import { card, findings } from '../tests/cards';

const DISC = { width: 80, height: 80, corner: 0, radius: 32, foam: 2, notch: 0, foamInset: 2 };
const SLIDER = { width: 80, height: 40, corner: 0, path: { line: 50 }, foamThickness: 2, foamInset: 2 };
type Part = readonly [kind: string, values: ParameterValues, mount: Partial<Mount>];
const on = (...parts: readonly Part[]): Design =>
  parts.reduce(
    (d, [kind, values, mount]) =>
      addMechanism(d, kind, { on: 'leafB', mount: { ...CENTRE, side: 'outside', ...mount } }, values).design,
    card(240, 200),
  );
const both = (mount: Partial<Mount> = {}, disc: object = {}, slider: object = {}): Design =>
  on(
    ['volvelle', { ...DISC, ...disc } as ParameterValues, { y: 30 }],
    ['track-slider', { ...SLIDER, ...slider } as ParameterValues, { y: -25, ...mount }],
  );
const piece = (a: Assembly, id: string) => a.pieces.find((p) => p.id === id);
/** A flat piece as it lies on the flat card, by the second library. */
function lies(a: Assembly, id: string, region: Region): MultiPolygon {
  const pose = poseAt(a, { ...restOf(a.drives), ...FLAT });
  const facet = a.facets.findIndex((f) => f.piece === id);
  const ring = (r: readonly (readonly [number, number])[]) =>
    r.map((p): [number, number] => {
      const [x, y] = onFacet(pose, facet, p);
      return [x, y];
    });
  return region.map((p: Polygon) => [ring(p.outer), ...p.holes.map(ring)]);
}
const shoelace = (r: readonly (readonly number[])[]): number =>
  Math.abs(r.reduce((s, p, i) => s + p[0] * r[(i + 1) % r.length][1] - r[(i + 1) % r.length][0] * p[1], 0)) / 2;
const areaOf = (m: MultiPolygon): number =>
  m.reduce((s, [outer, ...holes]) => s + shoelace(outer) - holes.reduce((h, r) => h + shoelace(r), 0), 0);

test('one front with every window, one backing, one pad: what each alone would be, united', () => {
  fc.assert(
    fc.property(fc.double({ min: -30, max: 30, noNaN: true }), fc.constantFrom(0, 90, 180), (x, turnDeg) => {
      const [disc, slider] = [on(['volvelle', DISC, { y: 30 }]), on(['track-slider', SLIDER, { x, y: -25, turnDeg }])];
      const [a, b] = [buildAssembly(disc), buildAssembly(slider)];
      const ab = buildAssembly(both({ x, turnDeg }));
      const alone = (from: Assembly, id: string) => lies(from, id, [piece(from, id)!.outline]);
      const solid = (from: Assembly, id: string) =>
        lies(from, id, [{ outer: piece(from, id)!.outline.outer, holes: [] }]);
      const fronts = [alone(a, 'volvelle-1.front'), alone(b, 'track-slider-1.front')];
      const sheets = [solid(a, 'volvelle-1.front'), solid(b, 'track-slider-1.front')];
      // Where there is a window in one, the other has none of its paper either.
      const windows = fronts.map((f, k) => polygonClipping.difference(sheets[k], f));
      const wanted = polygonClipping.difference(polygonClipping.union(sheets[0], sheets[1]), windows[0], windows[1]);
      expect(regionArea([piece(ab, 'volvelle-1.front')!.outline])).toBeCloseTo(areaOf(wanted), 4);
      expect(piece(ab, 'track-slider-1.front')).toBeUndefined();
      expect(ab.foam).toHaveLength(1);
      expect(ab.misfits).toEqual([]);
    }),
    { numRuns: 12 },
  );
});

test('it is cut once, and counts once in the closed stack', () => {
  const d = both();
  const a = buildAssembly(d);
  const cut = drawPieces(d, a).map((p) => p.id);
  expect(cut.filter((id) => /front|backing/.test(id))).toEqual(['volvelle-1.backing', 'volvelle-1.front']);
  expect(foamDrawings(d, a).map((p) => p.id)).toEqual(['volvelle-1.backing-foam']);
  const alone = closedStack(gather(on(['volvelle', DISC, { y: 30 }]), 'closed', 2))!.greatest;
  const together = closedStack(gather(d, 'closed', 2))!.greatest;
  expect(together.mm).toBeCloseTo(alone.mm, 5);
});

test('the one pad keeps off the disc and off wherever the token goes', () => {
  const a = buildAssembly(both());
  const [pad] = a.foam;
  const foam = lies(a, pad.piece, pad.region).flat(2);
  const pivot = a.facets.findIndex((f) => f.id === 'volvelle-1.disc');
  const token = a.facets.findIndex((f) => f.id === 'track-slider-1.token');
  for (let slide = 0; slide <= 50; slide += 2.5) {
    const pose = poseAt(a, moved({ ...restOf(a.drives), ...FLAT }, 'track-slider-1.slide', slide));
    const away = (facet: number): number => {
      const [x, y] = onFacet(pose, facet, [0, 0]);
      return Math.min(...foam.map(([u, v]) => Math.hypot(u - x, v - y)));
    };
    expect(away(pivot)).toBeGreaterThan(32 + 1 - 0.01);
    expect(away(token)).toBeGreaterThan(19.05 / 2 + 1 - 0.01);
  }
});

test('panels that only lie beside each other stay two', () => {
  const ids = buildAssembly(both({ y: -70 })).pieces.map((p) => p.id);
  expect(ids).toEqual(expect.arrayContaining(['volvelle-1.front', 'track-slider-1.front']));
});

test('what cannot be one sheet is said: another stock, another height, foam in the way of another’s panel', () => {
  const clash = (d: Design) => findings(d, 'loose-part').map((f) => f.aspect);
  expect(clash(both())).toEqual([]);
  const other = both();
  const mixed = { ...other, mechanisms: other.mechanisms.map((m, k) => (k === 1 ? { ...m, stock: 'card-160' } : m)) };
  expect(clash(mixed)).toContain('clash volvelle-1');
  // A little higher the panels lap in height, higher still the foam of one stands in the other's panel.
  for (const foam of [1, 1.9, 2.1, 3]) expect(clash(both({}, { foam }))).toEqual(['clash volvelle-1']);
  // Beside each other they may be as they like.
  expect(clash(both({ y: -70 }, { foam: 3 }))).toEqual([]);
});

test('a pocket over a disc’s panel at one height is said; on the other side, or fixed on that panel, it is not', () => {
  const pocket = (mount: Partial<Mount>, facet = 'leafB'): Design => {
    const disc = on(['volvelle', { ...DISC, foam: 1 } as ParameterValues, { y: 30 }]);
    const small = { width: 60, height: 40, insertWidth: 50, insertHeight: 36 };
    return addMechanism(disc, 'pocket', { on: facet, mount: { ...CENTRE, side: 'outside', ...mount } }, small).design;
  };
  const clash = (d: Design) => findings(d, 'loose-part').map((f) => f.aspect);
  expect(clash(pocket({ y: 30 }))).toEqual(['clash volvelle-1']);
  expect(clash(pocket({ y: 30, side: 'inside' }))).toEqual([]);
  expect(clash(pocket({ side: 'inside' }, 'volvelle-1.front'))).toEqual([]);
});

test('what is fixed on a panel that became part of another goes with it', () => {
  const d = addMechanism(
    both(),
    'lift-tab',
    { on: 'track-slider-1.front', mount: { ...CENTRE, side: 'inside' } },
    { lower: 8, upper: 8, width: 30, strip: 8, glueTab: 8 },
  ).design;
  const a = buildAssembly(d);
  const pose = poseAt(a, { ...restOf(a.drives), ...FLAT });
  const [guide, slot] = ['lift-tab-1.guide', 'track-slider-1.token'].map((id) =>
    a.facets.findIndex((f) => f.id === id),
  );
  expect(a.facets[guide].body).toBe(a.facets.find((f) => f.id === 'volvelle-1.front')!.body);
  // Over the slider's panel, not over the disc's.
  const alone = on(['track-slider', SLIDER, { y: -25 }]);
  const there = buildAssembly(
    addMechanism(
      alone,
      'lift-tab',
      { on: 'track-slider-1.front', mount: { ...CENTRE, side: 'inside' } },
      {
        ...{ lower: 8, upper: 8, width: 30, strip: 8, glueTab: 8 },
      },
    ).design,
  );
  const apart = poseAt(there, { ...restOf(there.drives), ...FLAT });
  const same = there.facets.findIndex((f) => f.id === 'lift-tab-1.guide');
  const [p, q] = [onFacet(pose, guide, [0, 0]), onFacet(apart, same, [0, 0])];
  for (const k of [0, 1, 2]) expect(p[k]).toBeCloseTo(q[k], 9);
  expect(slot).toBeGreaterThan(0);
});
