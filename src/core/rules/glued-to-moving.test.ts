/**
 * Tabs over what a hand moves: the limit is plane geometry on the parts as they lie in the flat card, found by the
 * test from points strewn over the tab, with unequal leaves.
 */
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { buildAssembly } from '../build/build';
import { onFacet, poseAt } from '../assembly/pose';
import type { Vec3 } from '../linkage';
import { card, findings, stand } from '../tests/cards';

/** A lifting tab on leaf A, its strip 20 mm high about a middle so far along the gutter; a glued step beside it. */
function over(along: number): Design {
  const plain = card(190, 130, 110);
  const tab = addMechanism(
    plain,
    'lift-tab',
    { on: 'leafA', mount: { ...CENTRE, side: 'inside', y: along } },
    { width: 60 },
  ).design;
  return stand(tab, 'step-fold', { build: 'glued', depth: 40, height: 40, width: 40 });
}
const told = (d: Design): string[] =>
  findings(d, 'glue-room')
    .filter((f) => f.aspect.endsWith(' moving'))
    .map((f) => `${f.severity} ${f.measured.toFixed(0)}`);

/** Area of the step's tab that one part of the lifting tab covers, by points strewn over it; the most of any. */
function covered(d: Design): number {
  const assembly = buildAssembly(d);
  const pose = poseAt(assembly, { open: 180, 'lift-tab-1.pull': 0 });
  const [[x0, y0], , [x1, y1]] = assembly.pieces.find((p) => p.id === 'step-fold-1.step')!.glue[0].onto.outline;
  const leaf = assembly.facets.findIndex((f) => f.id === 'leafA');
  const own = assembly.facets.flatMap((f, k) => (/lift-tab-1.(strip|lower|upper|tab)$/.test(f.id) ? [k] : []));
  const outlines = own.map((k) => assembly.facets[k].polygon.outer.map((p) => onFacet(pose, k, p)));
  const counts = outlines.map(() => 0);
  const step = 0.25;
  for (let x = Math.min(x0, x1) + step / 2; x < Math.max(x0, x1); x += step)
    for (let y = Math.min(y0, y1) + step / 2; y < Math.max(y0, y1); y += step) {
      const [u, v] = onFacet(pose, leaf, [x, y]);
      outlines.forEach((o, k) => (counts[k] += boxHolds(o, u, v) ? 1 : 0));
    }
  return Math.max(...counts) * step * step;
}
/** All parts of a lifting tab are upright rectangles. */
function boxHolds(outline: readonly Vec3[], u: number, v: number): boolean {
  const within = (axis: 0 | 1, at: number): boolean =>
    at > Math.min(...outline.map((p) => p[axis])) && at < Math.max(...outline.map((p) => p[axis]));
  return within(0, u) && within(1, v);
}

test('a tab is not stuck where a lifting tab lies, by as much as lies there', () => {
  for (const along of [-33, 0, 20, 40, 47]) {
    const [found] = findings(over(along), 'glue-room').filter((f) => f.aspect.endsWith(' moving'));
    expect(found.severity).toBe('blocks');
    expect(Math.abs(found.measured - covered(over(along)))).toBeLessThan(0.03 * found.measured + 2);
  }
});

test('beside it, up to its edge, it may be', () => {
  // The lower panel reaches 29 mm past its middle, the step's tab 19: they part at 48; 9 mm of its height lie there.
  expect([47, 47.8].map((along) => told(over(along)))).toEqual([['blocks 9'], ['blocks 2']]);
  expect([47.95, 48, 48.5, 70].map((along) => told(over(along)))).toEqual([[], [], [], []]);
  // To the other side its own tab reaches 41.
  expect([-59, -59.8].map((along) => told(over(along)))).toEqual([['blocks 9'], ['blocks 2']]);
  expect([-59.95, -60.5].map((along) => told(over(along)))).toEqual([[], []]);
});
