/** Mats, layers, windows, foam and shaped bases, against the check values of docs/mechanisms.md and closed forms. */
import fc from 'fast-check';
import { onFacet, poseOpen } from '../assembly/pose';
import { regionArea, regionBox } from '../plane/polygon';
import { RULES } from '../rules';
import { drawPieces } from '../sheets/drawing';
import { cutList } from '../sheets/cutlist';
import { formatLength } from '../units/length';
import { buildAssembly } from '../build/build';
import { NO_POSE } from '../kinds';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design, type Layer, type Mat } from '../document/design';
import { setParameter } from '../document/fields';
import { gather, prove, setLever } from './prove';
import { checkDesign } from '../document/schema';
import { layered } from '../tests/cards';

const INCH = 25.4;
const face = (width: number, height: number): Design => blankDesign('face', width, height);
const matted = (d: Design, mats: readonly Partial<Mat>[], facet = 'leafA'): Design => ({
  ...d,
  dressing: [{ facet, mats: mats.map((m) => ({ insetMm: 0, stock: 'card-160', ...m })) }],
});
const found = (d: Design, rule: string) => prove(d, 4).findings.filter((f) => f.rule === rule);

describe('mats', () => {
  test('check value: on a face of 4 1/4 x 5 1/2 in, 4 x 5 1/4 and then 3.869 x 5.119', () => {
    // docs/mechanisms.md; the second inset is (4 - 3.869) / 2 in.
    const a = buildAssembly(
      matted(face(5.5 * INCH, 4.25 * INCH), [{ insetMm: INCH / 8 }, { insetMm: ((4 - 3.869) / 2) * INCH }]),
    );
    const sizes = a.layers
      .map((l) => regionBox(l.region))
      .map(({ min, max }) => [(max[1] - min[1]) / INCH, (max[0] - min[0]) / INCH]);
    expect(sizes[0].map((v) => v.toFixed(3))).toEqual(['4.000', '5.250']);
    expect(sizes[1].map((v) => v.toFixed(3))).toEqual(['3.869', '5.119']);
    expect(formatLength(sizes[0][1] * INCH, 'in')).toBe('5 1/4');
    expect(a.layers[0].region[0].outer).toHaveLength(4);
  });
  test('by side, round corners, doubled for the inside', () => {
    const d = matted(face(100, 60), [
      { sides: { left: 2, right: 4, top: 1, bottom: 3 } },
      { insetMm: 5, corners: 'round', doubled: true },
    ]);
    const [first, second] = buildAssembly(d).layers;
    expect(regionBox(first.region)).toEqual({ min: [-48, 3], max: [46, 59] });
    const [w, h] = [94 - 10, 56 - 10];
    // A rectangle less the corners of a square that a quarter disc leaves.
    expect(regionArea(second.region)).toBeCloseTo(w * h - (4 - Math.PI) * 25, 0);
    expect(cutList(d, buildAssembly(d)).map((r) => r.count)).toEqual([1, 1, 2]);
  });
  test('with an inset of its own, the rest of a window shows in the mat', () => {
    const d = layered(matted(face(100, 80), [{ insetMm: 4 }]), { as: 'window', shape: { width: 20, height: 10 } });
    const [m] = buildAssembly(d).layers;
    expect(regionArea(m.region)).toBeCloseTo(92 * 72 - 28 * 18, 4);
  });
});

describe('layers', () => {
  test('keep their place on the facet when the card changes size', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 80, max: 300, noNaN: true }),
        fc.double({ min: 60, max: 200, noNaN: true }),
        (gutter, reach) => {
          const d = layered(
            face(gutter, reach),
            { shape: { width: 20, height: 10 }, from: { x: 'high', y: 'low' }, x: -5, y: 7 },
            { shape: { width: 8, height: 8 }, height: 16 },
          );
          const [corner, middle] = buildAssembly(d).layers.map((l) => regionBox(l.region));
          expect(corner.max[0]).toBeCloseTo(gutter / 2 - 5, 6);
          expect(corner.min[1]).toBeCloseTo(7, 6);
          expect(middle.max[0]).toBeCloseTo(8, 6);
          expect((middle.min[1] + middle.max[1]) / 2).toBeCloseTo(reach / 2, 6);
        },
      ),
      { numRuns: 20 },
    );
  });
  test('stand with their facet in the pose and are cut as pieces of their own', () => {
    const d = layered(
      addMechanism(face(200, 120), 'step-fold', 'card.gutter', { depth: 30, height: 30, width: 60 }, 'box').design,
      { facet: 'box.riser', shape: { circle: 20 } },
    );
    const a = buildAssembly(d);
    const pose = poseOpen(a, 90);
    const [l] = a.layers;
    // The riser of a box step stands upright at 90: the layer's middle is half its height up.
    const ys = l.region[0].outer.map((p) => onFacet(pose, l.facet, p));
    expect((Math.min(...ys.map((p) => p[2])) + Math.max(...ys.map((p) => p[2]))) / 2).toBeCloseTo(15, 5);
    expect(drawPieces(d, a).find((p) => p.id === 'layer.l1')!.lines[0].role).toBe('cut');
  });
  test('a window falls out of its facet; its islands are found until they are tied', () => {
    const ring = { arc: { radius: 20, width: 8, from: 0, to: 360 } } as const;
    const d = layered(face(120, 90), { as: 'window', shape: ring });
    expect(found(d, 'loose-part')[0].message).toMatch(/falls out/);
    const tied: Design = {
      ...layered(face(120, 90), { as: 'window', shape: { asset: 'ring' } }),
      shapes: [
        { id: 'ring', name: 'Ring', source: ring, steps: [{ do: 'ties', width: 4, count: 2, turn: null, moved: [] }] },
      ],
    };
    expect(found(tied, 'loose-part')).toEqual([]);
    expect(checkDesign(tied).ok).toBe(true);
    expect(buildAssembly(tied).facets).toHaveLength(2);
  });
  test('islands of a layer are found until they are bridged; the same ties of a window are taken from it', () => {
    // A plate with a ring taken out of it: 20 mm within 8 mm of nothing.
    const plate =
      'M-30 -30H30V30H-30ZM-18 0A18 18 0 1 0 18 0A18 18 0 1 0 -18 0ZM-10 0A10 10 0 1 0 10 0A10 10 0 1 0 -10 0Z';
    const source = { path: plate, rule: 'evenodd' } as const;
    const steps = [{ do: 'ties', width: 4, count: 2, turn: 0, moved: [] }] as const;
    const as = (how: 'layer' | 'window', tied: boolean): Design => ({
      ...layered(face(120, 90), { as: how, shape: { asset: 'plate' } }),
      shapes: [{ id: 'plate', name: 'Plate', source, steps: tied ? steps : [] }],
    });
    const [loose] = found(as('layer', false), 'loose-part');
    expect([loose.severity, loose.unit]).toEqual(['blocks', 'mm2']);
    expect(loose.measured).toBeCloseTo(Math.PI * 100, 0);
    expect(found(as('layer', true), 'loose-part')).toEqual([]);
    const [on] = buildAssembly(as('layer', true)).layers;
    expect(on.region).toHaveLength(1);
    expect(on.region[0].outer).toHaveLength(4);
    expect(checkDesign(as('layer', true)).ok).toBe(true);
  });
  test('a layer of several parts is told as such, a mat that falls apart is a risk', () => {
    const two = { path: 'M0 0H8V8H0ZM20 0H28V8H20Z' };
    expect(found(layered(face(120, 90), { shape: two }), 'loose-part').map((f) => [f.severity, f.measured])).toEqual([
      ['note', 2],
    ]);
    expect(found(layered(face(120, 90), { shape: { circle: 20 } }), 'loose-part')).toEqual([]);
  });
  test('collision: a layer wider than the step that carries it runs into the taller step beside it', () => {
    // The risers are parallel to leaf B, 40 and 60 from it. The layer reaches x 30 and from 20 to 80 along leaf B: at
    // 90 degrees it stands square through the taller step's tread (60 along leaf B, x 10 to 50, 60 deep), 20 mm from
    // the tread's side and fold and the layer's own top.
    const steps = [
      [40, -30],
      [60, 30],
    ].reduce(
      (d, [size, offset]) =>
        addMechanism(d, 'step-fold', 'card.gutter', { depth: size, height: size, width: 40, offset }).design,
      face(300, 120),
    );
    expect(found(steps, 'collision')).toEqual([]);
    const d = layered(steps, {
      facet: 'step-fold-1.riser',
      shape: { width: 120, height: 60 },
      from: { x: 'middle', y: 'high' },
      y: -20,
    });
    const finding = prove(d, 12).findings.find((f) => f.rule === 'collision')!;
    expect(finding).toMatchObject({
      severity: 'blocks',
      mechanism: 'step-fold-1',
      unit: 'mm',
      drive: { open: 90 },
      subjects: ['layer.l1', expect.stringContaining('step-fold-2')],
    });
    expect(finding.measured).toBeCloseTo(20, 6);
    expect(finding.message).toContain('Moon passes 20.0 mm through');
    expect(finding.remedies!.length).toBeGreaterThan(0);
    for (const r of finding.remedies!)
      expect(
        prove(setLever(d, r.mechanism, r.parameter, r.value), 12).findings.filter((f) => f.rule === 'collision'),
      ).toEqual([]);
  });
  test(
    'collision: what is stuck across a crease is in the way when it folds up, and may pass a ' +
      'crease that folds away',
    () => {
      const across = layered(face(160, 120), {
        shape: { width: 60, height: 30 },
        from: { x: 'middle', y: 'low' },
        y: -7,
      });
      const [finding] = found(across, 'collision');
      expect([finding.measured, finding.drive.open]).toEqual([expect.closeTo(7, 6), 0]);
      expect(finding.message).toContain('gutter');
      expect(finding.remedies!.map((r) => r.parameter)).toContain('y');
      for (const r of finding.remedies!)
        expect(found(setLever(across, r.mechanism, r.parameter, r.value), 'collision')).toEqual([]);
      expect(
        found(
          layered(face(160, 120), { shape: { width: 60, height: 30 }, from: { x: 'middle', y: 'low' } }),
          'collision',
        ),
      ).toEqual([]);
      const step = addMechanism(face(160, 120), 'step-fold', 'card.gutter', {
        depth: 40,
        height: 40,
        width: 40,
      }).design;
      // Past the riser's ridge it may stick out; across the crease at its foot it may not.
      const onRiser = (from: 'low' | 'high', y: number) =>
        found(
          layered(step, {
            facet: 'step-fold-1.riser',
            shape: { width: 30, height: 20 },
            from: { x: 'middle', y: from },
            y,
          }),
          'collision',
        );
      expect(onRiser('low', -8)).toEqual([]);
      expect(onRiser('high', 8).map((f) => f.measured)).toEqual([expect.closeTo(8, 6)]);
    },
  );
  test('what sticks out past its facet sticks out of the card', () => {
    const d = layered(face(120, 90), { from: { x: 'middle', y: 'high' }, y: 6, shape: { circle: 30 } });
    expect(prove(d, 4).closed!.overhang.fore).toBeCloseTo(6, 3);
  });
});

describe('foam', () => {
  const base = addMechanism(
    face(200, 120),
    'step-fold',
    'card.gutter',
    { depth: 30, height: 30, width: 60 },
    'box',
  ).design;
  test('inside its layer by the inset; its thickness counts in the stack', () => {
    const d = layered(face(200, 120), { shape: { width: 40, height: 30 }, foamMm: 2, foamInsetMm: 4 });
    const a = buildAssembly(d);
    expect(regionArea(a.layers[0].foam)).toBeCloseTo(32 * 22, 6);
    const flat = prove(layered(face(200, 120), { shape: { width: 40, height: 30 } }), 4).closed!.thickness_mm;
    expect(prove(d, 4).closed!.thickness_mm - flat).toBeCloseTo(2, 4);
    expect(found(d, 'foam')).toEqual([]);
  });
  test('on a part that folds and meets nothing it is as thick as it is', () => {
    const d = layered(base, { facet: 'box.riser', shape: { circle: 20 }, foamMm: 1 });
    expect(found(d, 'foam')).toEqual([]);
    expect(prove(d, 4).closed!.thickness_mm).toBeGreaterThan(prove(base, 4).closed!.thickness_mm + 0.9);
  });
  test.each<[string, Partial<Layer>, RegExp, string]>([
    ['to the very edge', { foamMm: 1, foamInsetMm: 0, y: 30 }, /peek out/, 'risk'],
    ['with nothing left of it', { foamMm: 1, foamInsetMm: 40 }, /no foam to hold it/, 'blocks'],
    [
      'under a part that folds down on it',
      { foamMm: 1, from: { x: 'middle', y: 'low' }, y: 20 },
      /folds down on it/,
      'risk',
    ],
  ])('%s', (_, change, message, severity) => {
    const f = found(layered(base, change), 'foam').find((x) => message.test(x.message))!;
    expect(f.severity).toBe(severity);
    // Every remedy offered clears it.
    expect(f.remedies!.length).toBeGreaterThan(0);
    for (const r of f.remedies!)
      expect(
        found(setLever(layered(base, change), r.mechanism, r.parameter, r.value), 'foam').some(
          (x) => x.aspect === f.aspect,
        ),
      ).toBe(false);
  });
});

describe('a shaped base', () => {
  const shaped = (shape: object, hinge = 40): Design =>
    setParameter(setParameter(face(100, 90), 'card', 'shape', shape as never), 'card', 'hinge', hinge);
  test('front and back of a disc are joined along the hinge asked for; it stays as wide as it was asked for', () => {
    const a = buildAssembly(shaped({ circle: 70 }, 44));
    const m = a.mechanisms[0].measures(NO_POSE);
    expect(m.hinge_mm).toBeCloseTo(44, 2);
    const { min, max } = regionBox([a.pieces[0].outline]);
    // 90 high before its foot is trimmed: what comes off is the rise of a chord of 44 (theorem of Pythagoras).
    const high = 45 + Math.sqrt(45 * 45 - 22 * 22);
    // Curves are drawn within 0.01 mm; this one is made 90 / 70 times as large.
    const within = (0.01 * 90) / 70;
    expect(Math.abs(max[1] - high)).toBeLessThan(within);
    expect(max[1] + min[1]).toBeCloseTo(0, 6);
    expect([max[0], min[0]]).toEqual([expect.closeTo(45, 6), expect.closeTo(-45, 6)]);
    expect(a.misfits).toEqual([]);
    const closed = poseOpen(a, 0);
    expect(closed.stop).toBeUndefined();
  });
  test('what passes the silhouette is found though it is inside the box round it', () => {
    const d = addMechanism(shaped({ circle: 70 }, 44), 'step-fold', 'card.gutter', {
      depth: 44,
      height: 44,
      width: 42,
    }).design;
    // Closed its corner is at 21 along and 88 out; the disc is narrower there.
    const over = found(d, 'overhang')[0];
    expect(over.measured).toBeGreaterThan(1);
    expect(
      found(setParameter(setParameter(d, 'step-fold-1', 'depth', 20), 'step-fold-1', 'height', 20), 'overhang'),
    ).toEqual([]);
  });
  test('whatever stands on it, it is put together and proved as far as its travel goes', () => {
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom<object>(
          { circle: 70 },
          { ellipse: { width: 130, height: 60 } },
          { star: { points: 7, outer: 70, inner: 48 } },
          { arch: { width: 80, height: 90 } },
        ),
        mm(8, 80),
        mm(8, 80),
        mm(10, 90),
        mm(-40, 40),
        mm(14, 30),
        (shape, depth, height, width, offset, hinge) => {
          const d = addMechanism(shaped(shape, hinge), 'step-fold', 'card.gutter', {
            depth,
            height,
            width,
            offset,
          }).design;
          const { travel, closed, assembly } = gather(d, 'travel', 6, buildAssembly(d));
          // Lengths never change: what is drawn is as long in every pose.
          for (const pose of [...travel, ...(closed ? [closed] : [])]) {
            assembly.facets.forEach((f, i) => {
              const [p, q] = [f.polygon.outer[0], f.polygon.outer[1]];
              const [a, b] = [onFacet(pose, i, p), onFacet(pose, i, q)];
              expect(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])).toBeCloseTo(
                Math.hypot(p[0] - q[0], p[1] - q[1]),
                6,
              );
            });
          }
          for (const rule of RULES)
            for (const f of rule.check(gather(d, 'travel', 3, assembly)))
              expect(Number.isFinite(f.measured)).toBe(true);
        },
      ),
      { numRuns: 25 },
    );
  });
  test('with a liner inset all round, glued in', () => {
    const d = setParameter(shaped({ arch: { width: 80, height: 90 } }, 50), 'card', 'liner', 6);
    const a = buildAssembly(d);
    expect(a.pieces.map((p) => p.id)).toEqual(['liner', 'card']);
    expect(found(d, 'glue-room')).toEqual([]);
    expect(poseOpen(a, 30).folds.residualMm).toBeLessThan(1e-9);
  });
  test('a hinge wider than the shape is refused', () => {
    expect(() =>
      buildAssembly(
        shaped(
          {
            polygon: [
              [0, 0],
              [10, 0],
              [5, 90],
            ],
          },
          60,
        ),
      ),
    ).toThrow(/nowhere 60 mm wide/);
  });
});

test('check value: a 10 x 7 in base takes a 9.5 x 6.5 in liner, one of 10.25 x 7 a liner of 9.75 x 6.5', () => {
  for (const [long, short] of [
    [10, 7],
    [10.25, 7],
  ]) {
    const d = setParameter(face(short * INCH, (long / 2) * INCH), 'card', 'liner', INCH / 4);
    const m = buildAssembly(d).mechanisms[0].measures(NO_POSE);
    expect([m.liner_width_mm / INCH, m.liner_height_mm / INCH]).toEqual([
      expect.closeTo(long - 0.5, 9),
      expect.closeTo(short - 0.5, 9),
    ]);
  }
});

test('creases are made by role, and each by its own: perforations are cut exactly so', () => {
  const d = addMechanism(
    face(200, 120),
    'step-fold',
    'card.gutter',
    { depth: 30, height: 30, width: 60 },
    'box',
  ).design;
  const made: Design = {
    ...d,
    making: {
      all: { way: 'score' },
      roles: { mountain: { way: 'perforate', cutMm: 2, gapMm: 3 } },
      creases: { 'box.base': { way: 'perforate', cutMm: 4, gapMm: 6 } },
    },
  };
  expect(checkDesign(made).ok).toBe(true);
  const lines = drawPieces(made, buildAssembly(made))[0].lines.filter((l) => l.role === 'perforation');
  const length = (id: string): number =>
    lines.filter((l) => l.id === id).reduce((s, l) => s + Math.abs(l.points[1][0] - l.points[0][0]), 0);
  // 60 mm of ridge in 12 cuts of 2, 60 mm of base in 6 cuts of 4; the wall stays a score.
  expect([length('box.ridge'), length('box.base'), length('box.wall')]).toEqual([
    expect.closeTo(24, 6),
    expect.closeTo(24, 6),
    0,
  ]);
});
