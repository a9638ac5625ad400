import { openTo } from '../drives';
import { applyRigid, dot3, sub3, type Vec3 } from '../linkage';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import { reportPose } from '../proof/report';
import { assembleCreasePattern } from './crease-pattern';
import { vertexPattern } from '../tests/patterns';
import { facetOutline, foldDeg, onFacet, poseOpen } from './pose';

const stand = (d: Design, kind: string, parameters: object, on = 'card.gutter'): Design =>
  addMechanism(d, kind, on, parameters as never).design;
const card = (): Design => blankDesign('test', 200, 120);

describe('the bare card', () => {
  const assembly = buildAssembly(card());

  test('has two leaves, one driven joint, and closes on itself', () => {
    expect(assembly.facets.map((f) => f.id).sort()).toEqual(['leafA', 'leafB']);
    expect(assembly.linkage.joints).toHaveLength(1);
    expect(assembly.linkage.joints[0].driven).toEqual({ drive: 0, at: 0, rate: 1 });
    expect(assembly.travel.stops()).toEqual([]);
  });

  test.each([0, 17, 90, 133.5, 180])('stands at %d degrees in the documented axes', (open) => {
    const pose = poseOpen(assembly, open);
    const leaf = (id: string, p: readonly [number, number]): Vec3 =>
      onFacet(
        pose,
        assembly.facets.findIndex((f) => f.id === id),
        p,
      );
    // Leaf A lies still; leaf B's unit vector is (0, cos open, sin open) (docs/mechanisms.md).
    expect(leaf('leafA', [30, 50])).toEqual([30, 50, 0]);
    const [x, y, z] = leaf('leafB', [30, -50]);
    expect(x).toBeCloseTo(30, 12);
    expect(y).toBeCloseTo(50 * Math.cos((open * Math.PI) / 180), 10);
    expect(z).toBeCloseTo(50 * Math.sin((open * Math.PI) / 180), 10);
    expect(foldDeg(pose, assembly.creases[0])).toBeCloseTo(180 - open, 10);
  });
});

describe('joints', () => {
  test('valley closes toward the viewer: the angle between facets shrinks on the inside', () => {
    const assembly = buildAssembly(stand(card(), 'step-fold', { depth: 30, height: 20, width: 60 }));
    const pose = poseOpen(assembly, 60);
    for (const crease of assembly.creases) {
      const a = pose.placed[crease.a];
      const normalA: Vec3 = [a[2], a[6], a[10]];
      // A point of facet b away from the crease lies on the inside of facet a exactly when the crease is a valley.
      const mid = crease.segments[0];
      const point = onFacet(pose, crease.b, inward(assembly.facets[crease.b].polygon.outer, mid.a));
      const side = dot3(normalA, sub3(point, onFacet(pose, crease.a, mid.a)));
      expect(Math.sign(side)).toBe(crease.role === 'valley' ? 1 : -1);
    }
  });

  test('glued facets move with what they are glued to', () => {
    const assembly = buildAssembly(
      stand(card(), 'step-fold', { depth: 40, height: 25, riser: 30, tread: 45, width: 60, build: 'glued' }),
    );
    const body = (id: string): number => assembly.facets.find((f) => f.id === id)!.body;
    expect(body('step-fold-1.tabA')).toBe(body('leafA'));
    expect(body('step-fold-1.tabB')).toBe(body('leafB'));
    for (const open of [0, 50, 180]) {
      const pose = poseOpen(assembly, open);
      for (const bond of assembly.bonds) {
        const lower = assembly.facets.findIndex((f) => f.piece === bond.a.piece && f.id === bond.a.facet);
        const upper = assembly.facets.findIndex((f) => f.piece === bond.b.piece && f.id === bond.b.facet);
        for (const p of assembly.facets[upper].polygon.outer) {
          const [x, y] = applyRigid(bond.placement, [p[0], p[1], 0]);
          onFacet(pose, upper, p).forEach((c, i) => expect(c).toBeCloseTo(onFacet(pose, lower, [x, y])[i], 9));
        }
      }
    }
  });

  test('a step as wide as the card takes up the whole gutter, and the card still opens', () => {
    const assembly = buildAssembly(stand(card(), 'step-fold', { depth: 30, height: 20, width: 200 }));
    expect(assembly.creases.some((c) => c.id === 'card.gutter')).toBe(false);
    const pose = poseOpen(assembly, 90);
    expect(pose.stop).toBeUndefined();
    expect(pose.folds.residualMm).toBeLessThan(1e-9);
  });

  test('many steps make as many blocks of three unknowns, never one large one', () => {
    let design = blankDesign('steps', 400, 100);
    for (let i = 0; i < 20; i++)
      design = stand(design, 'step-fold', { depth: 20, height: 15, width: 12, offset: -190 + 20 * i });
    const { blocks, checks } = buildAssembly(design).travel.order;
    expect(blocks).toHaveLength(20);
    expect(checks).toHaveLength(0);
    for (const block of blocks) {
      expect(block.unknowns).toHaveLength(3);
      expect(block.freedoms).toBe(0);
      expect(block.overdetermined).toBe(false);
    }
  });

  test('a nest is solved from the outside in', () => {
    let design = stand(card(), 'step-fold', { depth: 50, height: 40, width: 120 });
    design = stand(design, 'step-fold', { depth: 20, height: 15, width: 60 }, 'step-fold-1.ridge');
    design = stand(design, 'step-fold', { depth: 8, height: 6, width: 20 }, 'step-fold-2.wall');
    const assembly = buildAssembly(design);
    const owners = assembly.travel.order.blocks.map((b) => assembly.linkage.joints[b.unknowns[0]].id.split('.')[0]);
    expect(owners).toEqual(['step-fold-1', 'step-fold-2', 'step-fold-3']);
  });
});

describe('what cannot be made', () => {
  test('two steps over each other lose a facet, and say which', () => {
    const design = stand(stand(card(), 'step-fold', { depth: 30, height: 20, width: 60 }), 'step-fold', {
      depth: 30,
      height: 20,
      width: 60,
    });
    expect(buildAssembly(design).misfits.some((m) => m.kind === 'missing-facet')).toBe(true);
  });
});

describe('the report for scripts', () => {
  const assembly = buildAssembly(stand(card(), 'step-fold', { depth: 30, height: 20, width: 60 }));

  test('numbers the stretches of an interrupted crease', () => {
    const ids = reportPose(assembly, openTo(90)).creases.map((c) => c.id);
    expect(ids).toEqual(expect.arrayContaining(['card.gutter', 'card.gutter#2', 'step-fold-1.ridge']));
    expect(new Set(ids).size).toBe(ids.length);
  });

  test('gives every facet’s outline where it lies', () => {
    const report = reportPose(assembly, openTo(40));
    const pose = poseOpen(assembly, 40);
    report.facets.forEach((f, i) => expect(f.points).toEqual(facetOutline(pose, assembly.facets, i)));
    expect(report.drives).toEqual([{ id: 'open', unit: 'deg', from: 0, to: 180, rest: 0, value: 40 }]);
    expect(report.stopped).toBeUndefined();
  });
});

test('a crease pattern driven by a mountain crease turns the other way', () => {
  const up = assembleCreasePattern(vertexPattern([70, 100, 110, 80], '+-++')).assembly;
  const down = assembleCreasePattern(vertexPattern([70, 100, 110, 80], '-+--')).assembly;
  const [p, q] = [poseOpen(up, 120), poseOpen(down, 120)];
  up.creases.forEach((c, i) => expect(foldDeg(p, c)).toBeCloseTo(-foldDeg(q, down.creases[i]), 9));
});

/** A point a little inside a ring from one of its corners. */
function inward(
  ring: readonly (readonly [number, number])[],
  corner: readonly [number, number],
): readonly [number, number] {
  const middle = ring.reduce((s, p) => [s[0] + p[0] / ring.length, s[1] + p[1] / ring.length], [0, 0]);
  return [corner[0] + (middle[0] - corner[0]) * 0.2, corner[1] + (middle[1] - corner[1]) * 0.2];
}
