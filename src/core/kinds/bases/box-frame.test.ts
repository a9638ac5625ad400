/**
 * Two partial boxes round a panel: a parallelogram that shears flat both ways (closed form over random sizes), its
 * flat size against an envelope, what stands inside it, and what it stands on.
 */
import fc from 'fast-check';
import type { Assembly } from '../../assembly/assembly';
import { allMeasures, landmarksOf, onFacet, poseAt, type Pose } from '../../assembly/pose';
import { buildAssembly, DesignError } from '../../build/build';
import { workSteps } from '../../build/steps';
import { blankDesign, type Design } from '../../document/design';
import { checkDesign } from '../../document/schema';
import type { Vec3 } from '../../linkage';
import { regionBox } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { prove } from '../../proof/prove';
import { closedSize } from '../../rules';
import { findings, layered, stand } from '../../tests/cards';
import { BASES, type ParameterValues } from '..';

const INCH = 25.4;
const box = (parameters: ParameterValues = {}): Design => {
  const plain = blankDesign('box');
  return { ...plain, card: { ...plain.card, construction: 'box-frame', parameters } };
};
const at = (a: Assembly, pose: Pose, facet: string, p: Vec2): Vec3 =>
  onFacet(
    pose,
    a.facets.findIndex((f) => f.id === facet),
    p,
  );
const sizes = fc.record({
  displayWidth: fc.double({ min: 40, max: 150, noNaN: true }),
  depth: fc.double({ min: 8, max: 80, noNaN: true }),
  wallHeight: fc.double({ min: 20, max: 80, noNaN: true }),
  panelHeight: fc.double({ min: 80, max: 160, noNaN: true }),
  tab: fc.double({ min: 7, max: 15, noNaN: true }),
});

test('front and panel stay parallel to the back and are carried round it (closed form), every loop closed', () => {
  fc.assert(
    fc.property(sizes, fc.double({ min: 0, max: 180, noNaN: true }), (p, open) => {
      const a = buildAssembly(box(p));
      expect(a.misfits).toEqual([]);
      const pose = poseAt(a, { open });
      expect(pose.stop).toBeUndefined();
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
      const turn = (open * Math.PI) / 180;
      const [x, z] = [p.depth * Math.cos(turn), p.depth * Math.sin(turn)];
      for (const [u, v] of [
        [0, 0],
        [10, 15],
      ] as const) {
        // The panel is drawn as it is seen, the front from within.
        const [front, panel] = [at(a, pose, 'front', [u, v]), at(a, pose, 'panel', [u, v])];
        [x - u, v, z].forEach((w, k) => expect(front[k]).toBeCloseTo(w, 6));
        [x / 2 + u, v, z / 2].forEach((w, k) => expect(panel[k]).toBeCloseTo(w, 6));
      }
    }),
    { numRuns: 50 },
  );
});

test('flat it is as wide as panel and depth together, whichever way it is pressed', () => {
  fc.assert(
    fc.property(sizes, (p) => {
      const a = buildAssembly(box(p));
      for (const open of [0, 180]) {
        const pose = poseAt(a, { open });
        const corners = a.facets.flatMap((f, i) => f.polygon.outer.map((q) => onFacet(pose, i, q)));
        const xs = corners.map((c) => c[0]);
        // Tabs lie inside the panel, which lies between front and back.
        expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(p.displayWidth + p.depth, 6);
        corners.forEach((c) => expect(c[2]).toBeCloseTo(0, 9));
      }
      const { alongMm, awayMm } = closedSize({ assembly: a, closed: poseAt(a, { open: 0 }) });
      expect(alongMm).toBeCloseTo(p.displayWidth + p.depth, 6);
      expect(awayMm).toBeCloseTo(Math.max(p.panelHeight, p.wallHeight), 6);
    }),
    { numRuns: 30 },
  );
});

test('a panel of 2 3/4 in leaves a card of 4 1/4 in a depth of 1 1/2 (handbook check value, practice)', () => {
  const p = { displayWidth: 2.75 * INCH, depth: 1.5 * INCH, panelHeight: 5.5 * INCH };
  const a = buildAssembly(box(p));
  const square = allMeasures(a, poseAt(a, { open: 90 }), null).card;
  expect(square.flat_width_mm / INCH).toBeCloseTo(4.25, 9);
  expect(square.apart_mm / INCH).toBeCloseTo(1.5, 9);
  const [, , top] = landmarksOf(a, poseAt(a, { open: 90 }), a.mechanisms[0]).panel_top;
  expect(top / INCH).toBeCloseTo(0.75, 9);
  // An envelope of 4 3/8 x 5 3/4 takes a panel of 5 1/2 in, and none that leaves it less than 3 mm each way.
  const posted = (panelHeight: number): number =>
    findings({ ...box({ ...p, panelHeight }), post: { envelope: 'us-a2', format: null } }, 'post-size').length;
  expect(posted(5.5 * INCH)).toBe(0);
  expect(posted(5.75 * INCH - 3)).toBe(0);
  expect(posted(5.75 * INCH - 2.9)).toBeGreaterThan(0);
});

test('foam that nothing comes near while it stands is as thick as it is, inside and outside', () => {
  const foam = { shape: { circle: 20 }, foamMm: 2, foamInsetMm: 3 };
  const inside = layered(box(), { ...foam, facet: 'panel' });
  expect(findings(inside, 'foam')).toEqual([]);
  const thick = layered(box(), { ...foam, foamMm: 5, facet: 'panel' });
  expect(prove(thick, 4).closed!.thickness_mm).toBeGreaterThan(5);
  expect(findings(layered(box(), { ...foam, facet: 'front', side: 'outside' }), 'foam')).toEqual([]);
});

test('on the shelf it stands on its walls: its weight half way between front and back', () => {
  const proof = prove(box(), 12);
  expect(proof.verdict).toBe('clear');
  const shelf = proof.states.find((s) => s.id === 'shelf')!;
  expect(shelf.standing!.tip_mm).toBeCloseTo(38.1 / 2, 4);
  const thin = (depth: number) => findings(box({ depth }), 'tip').map((f) => f.severity);
  expect(thin(10.01)).toEqual([]);
  expect(thin(10)).toEqual([]);
  expect(thin(9.98)).toEqual(['risk']);
});

test.each([
  ['tabs that meet', { displayWidth: 40, tab: 20 }, /narrower/],
  ['a panel lower than its walls', { panelHeight: 30, wallHeight: 40 }, /higher/],
])('%s are refused with the reason', (_, wrong, why) => {
  expect(() => buildAssembly(box(wrong))).toThrow(DesignError);
  expect(() => buildAssembly(box(wrong))).toThrow(why);
});

test('a step stands on a corner of the box and folds with it', () => {
  const d = stand(box(), 'step-fold', { depth: 8, height: 12, width: 20 }, 'card.gutter');
  expect(checkDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  const a = buildAssembly(d);
  expect(a.misfits).toEqual([]);
  for (const open of [0, 40, 90, 180]) {
    const pose = poseAt(a, { open });
    expect(pose.stop).toBeUndefined();
    expect(pose.folds.residualMm).toBeLessThan(1e-9);
  }
  const { ridge } = landmarksOf(a, poseAt(a, { open: 90 }), a.mechanisms[1]);
  // Square, it stands 8 along the side and 12 along the back, from the corner at -34.925.
  expect(Math.min(Math.abs(ridge[0] + 34.925 - 12), Math.abs(ridge[0] + 34.925 - 8))).toBeLessThan(1e-6);
});

test('it is begun from the size of a card, and put together flat', () => {
  const d = box(BASES.get('box-frame')!.fitting({ gutter: 140, reach: 100 }));
  const a = buildAssembly(d);
  expect(a.misfits).toEqual([]);
  expect(closedSize({ assembly: a, closed: poseAt(a, { open: 0 }) })).toMatchObject({ alongMm: 100, awayMm: 140 });
  expect(findings(d, 'glue-room')).toEqual([]);
  const steps = workSteps(d, a).map((s) => [s.title, s.state.open]);
  expect(steps).toContainEqual(['Glue the front to the panel', 0]);
});

describe('what stands in it', () => {
  const withPanels = (...panels: ParameterValues[]): Design => box({ depth: 60, panels } as unknown as ParameterValues);

  test('further panels go with the sides: as far along them as they are set, parallel (closed form)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: 10, max: 29, noNaN: true }),
        fc.double({ min: 0, max: 180, noNaN: true }),
        (back, fore, open) => {
          const a = buildAssembly(
            withPanels({ at: back, height: 40 }, { between: 'panel and front', at: fore, height: 70, from: 6 }),
          );
          expect(a.misfits).toEqual([]);
          const pose = poseAt(a, { open });
          expect(pose.folds.residualMm).toBeLessThan(1e-9);
          const turn = (open * Math.PI) / 180;
          const p = at(a, pose, 'panel-2', [10, 20]);
          [back * Math.cos(turn) + 10, 20, back * Math.sin(turn)].forEach((v, k) => expect(p[k]).toBeCloseTo(v, 6));
          // That before the display panel is drawn from within, as the front is.
          const q = at(a, pose, 'panel-3', [10, 20]);
          const far = 30 + fore;
          [far * Math.cos(turn) - 10, 20, far * Math.sin(turn)].forEach((v, k) => expect(q[k]).toBeCloseTo(v, 6));
        },
      ),
      { numRuns: 40 },
    );
  });

  test('they lie flat with it and are clear; foam on them is pressed, flat adhesive is not', () => {
    const d = withPanels({ at: 8, height: 40 }, { between: 'panel and front', at: 15, height: 25, from: 5 });
    const plain = prove(d, 12);
    expect(plain.findings.filter((f) => f.severity !== 'note')).toEqual([]);
    expect(plain.closed!.width_mm * plain.closed!.height_mm).toBeCloseTo((69.85 + 60) * 120, 3);
    const onIt = (foamMm: number): string[] =>
      findings(layered(d, { facet: 'panel-2', shape: { circle: 15 }, foamMm, stock: 'card-160' }), 'foam').map(
        (f) => f.severity,
      );
    expect(onIt(0)).toEqual([]);
    expect(onIt(1)).toContain('risk');
  });

  /** A gable house: straight walls up to its eaves, so wide and so high. */
  const house = (wide: number, eaves: number): string =>
    `M0 0 H${wide} V${-eaves} L${wide / 2} ${-eaves - 25} L0 ${-eaves} Z`;

  test('one of any outline: as large as drawn, its tabs as high as its straight walls and those of the box', () => {
    fc.assert(
      fc.property(fc.integer({ min: 6, max: 80 }), fc.integer({ min: 0, max: 20 }), (eaves, from) => {
        const d = withPanels({ at: 8, from, shape: { path: house(69.85, eaves) } });
        const { pieces } = buildAssembly(d);
        const { outline, glue } = pieces.find((p) => p.id === 'panel-2')!;
        const box = regionBox([outline]);
        expect(box.max[1]).toBeCloseTo(from + eaves + 25, 6);
        const tabs = outline.outer.filter(([x]) => Math.abs(x) > 69.85 / 2 + 1).map(([, y]) => y);
        const most = Math.min(from + eaves, 50);
        expect(Math.min(...tabs)).toBeCloseTo(from, 6);
        expect(Math.max(...tabs)).toBeCloseTo(most, 6);
        expect(glue).toHaveLength(2);
        for (const g of glue) expect(regionBox([{ outer: g.outline, holes: [] }]).max[1]).toBeCloseTo(most - 1.5, 6);
      }),
      { numRuns: 25 },
    );
  });
  test('what a shape has past the sides is cut off at its folds, and it goes as a rectangle does', () => {
    const d = withPanels({ at: 8, shape: { path: house(100, 40) } });
    const a = buildAssembly(d);
    expect(a.misfits).toEqual([]);
    const turn = Math.PI / 3;
    const p = at(a, poseAt(a, { open: 60 }), 'panel-2', [10, 20]);
    [8 * Math.cos(turn) + 10, 20, 8 * Math.sin(turn)].forEach((v, k) => expect(p[k]).toBeCloseTo(v, 6));
    expect(findings(d, 'glue-room')).toEqual([]);
  });
  test('what does not reach both sides, or with too little of its edge, is refused', () => {
    const make = (path: string) => () => buildAssembly(withPanels({ at: 8, shape: { path } }));
    expect(make(house(69.8, 40))).toThrow(/panel 2 meets its left side along 0 mm/);
    expect(make(house(69.85, 5.9))).toThrow(/along 5.9 mm of its edge; a tab takes 6 mm/);
    expect(make(house(69.85, 6))).not.toThrow();
  });

  test('tabs need room on their side: at its very end they have it, past it they are refused', () => {
    const place = (between: string, mm: number) => () => buildAssembly(withPanels({ between, at: mm, height: 40 }));
    expect(place('back and panel', 20)).not.toThrow();
    expect(place('back and panel', 20.01)).toThrow(DesignError);
    expect(place('panel and front', 10)).not.toThrow();
    expect(place('panel and front', 9.99)).toThrow(/set it elsewhere/);
    expect(() => buildAssembly(withPanels({ at: 5, height: 40, from: 46 }))).toThrow(/over walls/);
  });

  test('a tongue makes it so much longer in the post, and lies under the floor on the shelf', () => {
    const d: Design = { ...box({ tongue: 22 }), post: { envelope: 'us-a2', format: null } };
    const a = buildAssembly(d);
    expect(allMeasures(a, poseAt(a, { open: 0 }), null).card.flat_height_mm).toBeCloseTo(142, 9);
    const { closed } = prove(d, 6);
    expect(Math.max(closed!.width_mm, closed!.height_mm)).toBeCloseTo(142, 6);
    expect(findings(d, 'post-size').length).toBe(0);
    // A2 is 5.75 in long, less 3 mm of ease: 143.05.
    expect(findings({ ...d, ...box({ tongue: 23.0 }), post: d.post }, 'post-size').length).toBe(0);
    expect(findings({ ...d, ...box({ tongue: 23.1 }), post: d.post }, 'post-size').length).toBe(1);
    const folded = at(a, poseAt(a, { open: 90, 'card.tongue': 90 }), 'tongue', [5, -22]);
    expect(folded[1]).toBeCloseTo(0, 9);
    expect(Math.abs(folded[2] - 19.05)).toBeCloseTo(22, 9);
  });
});
