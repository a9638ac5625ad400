/** Areas of plane geometry: a rectangle that slides, a disc that turns, a panel that is turned over. */
import { onFacet, poseAt } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { restOf, travelStates } from '../drives';
import { applyRigid, invert } from '../linkage';
import type { ParameterValues } from '../kinds';
import { boxOf, contains, distanceToEdge, regionArea, regionBox } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { card, layered } from '../tests/cards';
import { sweepsOf } from './sweep';

const on = (kind: string, parameters: ParameterValues): Design =>
  addMechanism(card(190, 140), kind, { on: 'leafB', mount: { ...CENTRE, side: 'inside' } }, parameters).design;
const sweepsIn = (d: Design) => sweepsOf(buildAssembly(d), d.mechanisms[0].id);

test('a round carrier of 20 mm along a straight slot of 60 mm: a rectangle with a half disc at each end', () => {
  const [{ drive, piece, region }] = sweepsIn(on('track-slider', { width: 100, height: 50, path: { line: 60 } }));
  expect([drive, piece]).toEqual(['track-slider-1.slide', 'card']);
  const { min, max } = regionBox(region);
  const sizes = [max[0] - min[0], max[1] - min[1]].sort((a, b) => a - b);
  expect(sizes).toEqual([expect.closeTo(20, 1), expect.closeTo(80, 1)]);
  // Looks 1 mm apart leave dents of 0.01 mm between two discs of radius 10.
  const exact = 60 * 20 + Math.PI * 100;
  expect(regionArea(region)).toBeLessThan(exact + 0.01);
  expect(regionArea(region)).toBeGreaterThan(exact * 0.995);
});

test('what is stuck on what moves is swept too', () => {
  const plain = on('pocket', { width: 60, height: 50 });
  const wide = layered(plain, { facet: 'pocket-1.insert', shape: { width: 90, height: 6 }, y: 0 });
  const [before, after] = [plain, wide].map((d) => regionBox(sweepsIn(d)[0].region));
  // The insert is 85.6 mm high as it lies there: a strip of 90 mm across it reaches out by half the rest on both sides.
  expect([before.max[1] - before.min[1], after.max[1] - after.min[1]]).toEqual(
    [85.6, 90].map((v) => expect.closeTo(v, 6)),
  );
  expect(after.max[1] - before.max[1]).toBeCloseTo(2.2, 6);
});

test('a wheel: no corner of what it moves is ever outside, by a walk ten times as fine', () => {
  const carrier = { width: 16, height: 20, hang: 4 };
  const a = buildAssembly(on('carrier-wheel', { spokes: 3, arm: 34, hub: 10, carrier, hole: 0.5, rivet: 0.5 }));
  const [{ drive, region }] = sweepsOf(a, 'carrier-wheel-1');
  const turned = a.drives.find((d) => d.id === drive)!;
  const leaf = a.facets.findIndex((f) => f.id === 'leafB');
  const moving = a.facets.flatMap((f, i) => (f.id.startsWith('carrier-wheel-1.carrier-') ? [i] : []));
  expect(moving).toHaveLength(3);
  const corners = travelStates(turned, 900, { ...restOf(a.drives), open: 180 }).flatMap((state) => {
    const pose = poseAt(a, state);
    const back = invert(pose.placed[leaf]);
    return moving.flatMap((i) => a.facets[i].polygon.outer.map((p) => applyRigid(back, onFacet(pose, i, p))));
  });
  const outside = corners.filter(([x, y]) => !region.some((p) => contains(p, [x, y])));
  const past = outside.map(([x, y]) => Math.min(...region.map((p) => Math.abs(distanceToEdge(p, [x, y])))));
  // Two degrees apart on an arm of 34 mm two looks are 1.2 mm apart: dents between their corners are half of that.
  expect(Math.max(0, ...past)).toBeLessThan(0.6);
  // It keeps within the box of those corners, and half a look beyond.
  const [seen, own] = [boxOf(corners.map(([x, y]): Vec2 => [x, y])), regionBox(region)];
  for (const k of [0, 1]) {
    expect(own.min[k]).toBeGreaterThan(seen.min[k] - 1e-3);
    expect(own.max[k]).toBeLessThan(seen.max[k] + 1e-3);
  }
});

test('what turns all the way round in its own plane sweeps a disc as wide as it reaches', () => {
  const a = buildAssembly(on('volvelle', { width: 90, height: 90 }));
  const [{ region }] = sweepsOf(a, 'volvelle-1');
  const facet = a.facets.find((f) => f.id === 'volvelle-1.disc')!;
  const reach = Math.max(...facet.polygon.outer.map(([x, y]) => Math.hypot(x, y)));
  // Drawn by chords within 0.01 mm.
  expect(Math.abs(regionArea(region) / (Math.PI * reach ** 2) - 1)).toBeLessThan(1e-3);
});

test('nothing is swept by what stands on a crease', () => {
  expect(sweepsIn(addMechanism(card(), 'step-fold', undefined, {}).design)).toEqual([]);
});
