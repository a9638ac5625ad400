import fc from 'fast-check';
import { allMeasures, foldDeg, landmarksOf, onFacet, poseOpen } from '../../assembly/pose';
import type { Assembly } from '../../assembly/assembly';
import { norm3, sub3, type Vec3 } from '../../linkage';
import { buildAssembly } from '../../build/build';
import { addMechanism } from '../../document/standing';
import { blankDesign, type Design } from '../../document/design';
import { WELD_MM } from '../../tolerance';
import { degToRad, radToDeg } from '../../units/angle';
import type { ParameterValues } from '../kind';

const card = (): Design => blankDesign('test', 220, 160);
const withOne = (kind: string, parameters: ParameterValues, design = card(), on = 'card.gutter'): Assembly =>
  buildAssembly(addMechanism(design, kind, on, parameters).design);
const measures = (a: Assembly, open: number, id: string): Record<string, number> => {
  const closed = poseOpen(a, 0);
  return allMeasures(a, poseOpen(a, open), closed.stop ? null : closed)[id];
};
const near = (p: Vec3, q: Vec3, mm = 1e-6): void => p.forEach((x, i) => expect(Math.abs(x - q[i])).toBeLessThan(mm));

/** Every facet is as large posed as flat. */
function expectRigid(a: Assembly, open: number): void {
  const pose = poseOpen(a, open);
  a.facets.forEach((f, i) => {
    const ring = f.polygon.outer;
    ring.forEach((p, k) => {
      const q = ring[(k + 1) % ring.length];
      expect(norm3(sub3(onFacet(pose, i, p), onFacet(pose, i, q)))).toBeCloseTo(
        Math.hypot(p[0] - q[0], p[1] - q[1]),
        8,
      );
    });
  });
  expect(pose.folds.residualMm).toBeLessThan(1e-9);
}
const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('step-fold', () => {
  test('cut: the ridge is a uA + b uB at every opening, nothing stretches, closed lies flat', () => {
    fc.assert(
      fc.property(size(5, 60), size(5, 60), size(10, 120), size(0, 180), (depth, height, width, open) => {
        const a = withOne('step-fold', { depth, height, width });
        const m = measures(a, open, 'step-fold-1');
        // docs/mechanisms.md, closed form.
        expect(m.ridge_y).toBeCloseTo(depth + height * Math.cos(degToRad(open)), 6);
        expect(m.ridge_z).toBeCloseTo(height * Math.sin(degToRad(open)), 6);
        expect(m.room_mm).toBeCloseTo(160 - depth - height, 9);
        expectRigid(a, open);
        const closed = poseOpen(a, 0);
        // A ridge nearer to the gutter than the weld is drawn on it. A length off by d then lifts a part of length L
        // by up to the root of 2 d L.
        const welded = depth !== height && Math.abs(depth - height) <= 2 * WELD_MM;
        const flat = welded ? Math.sqrt(4 * WELD_MM * (depth + height)) : 1e-9;
        a.facets.forEach((f, i) =>
          f.polygon.outer.forEach((p) => expect(Math.abs(onFacet(closed, i, p)[2])).toBeLessThan(flat)),
        );
      }),
      {
        numRuns: 40,
        examples: [
          [5.00000004, 5, 30, 179.9999999992699],
          [20.15, 59.32, 108, 179.99999994872033],
        ],
      },
    );
  });

  // Source: the glued step 40, 25, 30, 45 computed by an independent prototype (docs/mechanisms.md).
  test.each([
    [1, 69.996172, 0.47924, 179.084679, -179.13934, 179.05466],
    [30, 66.631514, 13.811678, 152.587772, -154.258088, 151.670317],
    [60, 57.414186, 24.428388, 125.483808, -129.022803, 123.538995],
    [90, 44.762253, 29.619604, 99.133871, -105.026114, 95.892243],
    [120, 31.913915, 28.889708, 74.363332, -83.62063, 69.257298],
    [150, 21.879103, 23.90885, 52.840935, -67.527433, 44.686498],
    [180, 16.153846, 18.203322, 37.356852, -61.217795, 23.860943],
  ])('glued, unequal, at %d', (open, y, z, base, ridge, wall) => {
    const a = withOne('step-fold', { depth: 40, height: 25, riser: 30, tread: 45, width: 60, build: 'glued' });
    const pose = poseOpen(a, open);
    const m = measures(a, open, 'step-fold-1');
    expect(m.ridge_y).toBeCloseTo(y, 5);
    expect(m.ridge_z).toBeCloseTo(z, 5);
    [
      ['base', base],
      ['ridge', ridge],
      ['wall', wall],
    ].forEach(([name, fold]) =>
      expect(
        foldDeg(
          pose,
          a.creases.find((c) => c.id === `step-fold-1.${name}`)!,
        ),
      ).toBeCloseTo(fold as number, 5),
    );
  });

  test('glued with any lengths that close: both distances hold (law of the two circles)', () => {
    fc.assert(
      fc.property(size(20, 50), size(15, 50), size(12, 45), size(1, 179), (depth, height, riser, open) => {
        const tread = depth + riser - height;
        fc.pre(tread > 8 && Math.abs(riser - height) > 0.5);
        const a = withOne(
          'step-fold',
          { depth, height, riser, tread, width: 50, build: 'glued' },
          blankDesign('t', 220, 260),
        );
        const pose = poseOpen(a, open);
        if (pose.stop) return;
        const m = measures(a, open, 'step-fold-1');
        expect(Math.hypot(m.ridge_y - depth, m.ridge_z)).toBeCloseTo(riser, 6);
        expect(
          Math.hypot(m.ridge_y - height * Math.cos(degToRad(open)), m.ridge_z - height * Math.sin(degToRad(open))),
        ).toBeCloseTo(tread, 6);
        expectRigid(a, open);
      }),
      { numRuns: 30 },
    );
  });

  test('lengths that do not close are reported as a gap and the travel stops', () => {
    const a = withOne('step-fold', { depth: 40, height: 25, riser: 30, tread: 40, width: 60, build: 'glued' });
    expect(measures(a, 90, 'step-fold-1').gap_mm).toBeCloseTo(5, 12);
    expect(a.travel.closedGaps()[0].mm).toBeCloseTo(5, 9);
    const stopped = poseOpen(a, 0);
    // Closed form: the wall's fold reaches 180 at open 18.7 (docs/mechanisms.md).
    expect(stopped.stop?.reason).toBe('past-180');
    expect(stopped.state.open).toBeCloseTo(18.7, 1);
  });

  test.each(['left', 'right'])('a side step open to the %s has one slit and reaches the edge', (edge) => {
    const a = withOne('step-fold', { depth: 30, height: 20, width: 50, edge });
    expect(a.pieces[0].lines.filter((l) => l.role === 'cut')).toHaveLength(1);
    expect(a.misfits).toHaveLength(0);
    expectRigid(a, 77);
    const xs = a.facets.find((f) => f.id === 'step-fold-1.riser')!.polygon.outer.map((p) => p[0]);
    expect(edge === 'left' ? Math.min(...xs) : Math.max(...xs)).toBeCloseTo(edge === 'left' ? -110 : 110, 9);
  });
});

describe('v-fold', () => {
  /** docs/mechanisms.md: cos F = cos L cos β' + sin L cos(open/2) sin β'. Undefined where the card is taut. */
  function creaseDeg(lean: number, fold: number, open: number, branch: 1 | -1): number | undefined {
    const [L, F, h] = [degToRad(lean), degToRad(fold), Math.cos(degToRad(open) / 2)];
    const R = Math.hypot(Math.cos(L), Math.sin(L) * h);
    const x = Math.cos(F) / R;
    return Math.abs(x) > 1 ? undefined : radToDeg(Math.atan2(Math.sin(L) * h, Math.cos(L)) + branch * Math.acos(x));
  }
  test('the spine follows the spherical four-bar for any lean and fold', () => {
    fc.assert(
      fc.property(
        size(25, 75),
        size(30, 110),
        size(0, 178),
        fc.constantFrom('toward', 'away'),
        (lean, fold, open, way) => {
          fc.pre(lean + fold < 178 && Math.abs(lean - fold) > 2);
          const a = withOne('v-fold', { lean, fold, size: 40, tab: 8, point: way });
          const expected = creaseDeg(lean, fold, open, 1);
          const pose = poseOpen(a, open);
          if (expected === undefined || pose.stop) {
            expect(fold).toBeLessThan(lean);
            return;
          }
          expect(measures(a, open, 'v-fold-1').crease_deg).toBeCloseTo(expected, 6);
          expectRigid(a, open);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('a spine folded the other way takes the other branch, and both go taut at the same opening', () => {
    const taut =
      2 *
      radToDeg(
        Math.acos(Math.sqrt((Math.cos(degToRad(40)) ** 2 - Math.cos(degToRad(60)) ** 2) / Math.sin(degToRad(60)) ** 2)),
      );
    for (const [crease, branch] of [
      ['valley', 1],
      ['mountain', -1],
    ] as const) {
      const a = withOne('v-fold', { lean: 60, fold: 40, size: 40, crease });
      for (const open of [0, 30, 60, 90])
        expect(measures(a, open, 'v-fold-1').crease_deg).toBeCloseTo(creaseDeg(60, 40, open, branch)!, 6);
      const stop = poseOpen(a, 150);
      expect(stop.stop?.reason).toBe('taut');
      expect(stop.state.open).toBeCloseTo(taut, 2);
    }
  });
  test('the branch behind the leaves is refused', () => {
    expect(poseOpen(withOne('v-fold', { lean: 45, fold: 90, crease: 'mountain' }), 60).stop).toBeDefined();
  });
  test('the peak stays the spine’s length from the crease point', () => {
    const a = withOne('v-fold', { lean: 52, fold: 84, size: 62, offset: -14 });
    for (const open of [0, 45, 90, 180]) {
      const { peak, apex } = landmarksOf(a, poseOpen(a, open), a.mechanisms[1]);
      expect(norm3(sub3(peak, apex))).toBeCloseTo(62, 7);
      near(apex, [-14, 0, 0]);
    }
  });
});

describe('nesting', () => {
  /** A chain of steps, each on a crease of the one before, cut or glued. */
  const chain = (creases: readonly string[], builds: readonly string[]): Design =>
    creases.reduce(
      (d, crease, k) => {
        const on = k === 0 ? 'card.gutter' : `step-fold-${k}.${crease}`;
        const s = 60 * 0.5 ** k;
        return addMechanism(d, 'step-fold', on, {
          depth: s,
          height: s * 0.8,
          width: 150 * 0.6 ** k,
          build: builds[k],
          tab: s * 0.3,
        }).design;
      },
      blankDesign('nest', 220, 160),
    );
  test('each step’s ridge stands at a uA + b uB in its own axes, at its own opening', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('base', 'ridge', 'wall'), { minLength: 3, maxLength: 3 }),
        fc.array(fc.constantFrom('cut', 'glued'), { minLength: 3, maxLength: 3 }),
        size(0, 180),
        (creases, builds, open) => {
          // A glued step's outer creases lie against what it is glued on: there only its ridge has its own paper on
          // both sides.
          fc.pre(creases.every((c, k) => k === 0 || builds[k - 1] === 'cut' || c === 'ridge'));
          const a = buildAssembly(chain(creases, builds));
          const m = allMeasures(a, poseOpen(a, open), poseOpen(a, 0));
          [1, 2, 3].forEach((k) => {
            const s = 60 * 0.5 ** (k - 1);
            expect(m[`step-fold-${k}`].ridge_y).toBeCloseTo(s + 0.8 * s * Math.cos(degToRad(open)), 6);
            expect(m[`step-fold-${k}`].ridge_z).toBeCloseTo(0.8 * s * Math.sin(degToRad(open)), 6);
          });
          expectRigid(a, open);
        },
      ),
      { numRuns: 25 },
    );
  });
  test('a v-fold on a mountain ridge is glued from behind and follows the same law', () => {
    const design = addMechanism(chain(['base'], ['cut']), 'v-fold', 'step-fold-1.ridge', {
      lean: 45,
      fold: 90,
      size: 24,
      tab: 8,
    }).design;
    const a = buildAssembly(design);
    expect(measures(a, 90, 'v-fold-1').crease_deg).toBeCloseTo(125.26439, 5);
    expectRigid(a, 90);
  });
});

test('mirror designs give mirror poses', () => {
  fc.assert(
    fc.property(size(-40, 40), size(10, 170), (offset, open) => {
      const [left, right] = [offset, -offset].map((x) =>
        withOne('step-fold', { depth: 30, height: 22, width: 40, offset: x }),
      );
      const [p, q] = [left, right].map((a) => landmarksOf(a, poseOpen(a, open), a.mechanisms[1]).ridge);
      near(p, [-q[0], q[1], q[2]]);
      const [v, w] = [
        withOne('v-fold', { offset, point: 'toward' }),
        withOne('v-fold', { offset: -offset, point: 'away' }),
      ].map((a) => landmarksOf(a, poseOpen(a, open), a.mechanisms[1]).peak);
      near(v, [-w[0], w[1], w[2]]);
    }),
    { numRuns: 12 },
  );
});

describe('fold-card', () => {
  // docs/mechanisms.md, check values (common practice): a 10 x 7 in base takes a 9.5 x 6.5 in liner; 10.25 x 7 takes
  // 9.75 x 6.5.
  test.each([
    [10, 7, 9.5, 6.5],
    [10.25, 7, 9.75, 6.5],
  ])('a %d x %d in base takes a %d x %d in liner', (wide, high, linerWide, linerHigh) => {
    const inch = 25.4;
    const design = card();
    const a = buildAssembly({
      ...design,
      card: {
        ...design.card,
        parameters: { gutter: high * inch, reachA: (wide / 2) * inch, reachB: (wide / 2) * inch, liner: inch / 4 },
      },
    });
    expect(measures(a, 90, 'card').liner_width_mm).toBeCloseTo(linerWide * inch, 9);
    expect(measures(a, 90, 'card').liner_height_mm).toBeCloseTo(linerHigh * inch, 9);
    expectRigid(a, 60);
  });
  test('mechanisms stand on the liner, and the base follows', () => {
    const design = card();
    const lined = { ...design, card: { ...design.card, parameters: { ...design.card.parameters, liner: 6 } } };
    const a = withOne('step-fold', { depth: 30, height: 25, width: 50 }, lined);
    expect(a.facets.find((f) => f.id === 'step-fold-1.riser')!.piece).toBe('liner');
    expectRigid(a, 120);
  });
});
