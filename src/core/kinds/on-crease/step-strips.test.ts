/** Tiers of strips: ridges by the law of cosines over random sizes, where they go taut, room in the shut card. */
import fc from 'fast-check';
import { allMeasures, foldDeg, landmarksOf, onFacet, poseAt } from '../../assembly/pose';
import { buildAssembly } from '../../build/build';
import { checkDesign } from '../../document/schema';
import type { Design } from '../../document/design';
import { setParameter } from '../../document/fields';
import { statesOf } from '../../document/states';
import { prove, setLever } from '../../proof/prove';
import { card, findings, layered, stand } from '../../tests/cards';
import type { ListItem } from '..';

const strips = (tiers: readonly ListItem[], tab = 8, d = card(200, 100)): Design =>
  stand(d, 'step-strips', { tiers, tab });
const tier = (p: number, q: number | null, from = -40, to = 40): ListItem => ({ p, q, from, to });
const rad = (deg: number): number => (deg * Math.PI) / 180;

test('each ridge stands on the bisector, q from both glue lines (law of cosines), however many tiers', () => {
  const size = fc.double({ min: 12, max: 45, noNaN: true });
  fc.assert(
    fc.property(size, size, size, fc.double({ min: 0, max: 180, noNaN: true }), (p1, p2, more, open) => {
      const a = buildAssembly(strips([tier(p1, null, -60, 0), tier(p2, p2 + more, 5, 60)], 7));
      expect(a.misfits).toEqual([]);
      const pose = poseAt(a, { open });
      expect(pose.stop).toBeUndefined();
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
      const { ridge_1, ridge_2 } = landmarksOf(a, pose, a.mechanisms[1]);
      const half = rad(open / 2);
      const far = (p: number, q: number): number => p * Math.cos(half) + Math.sqrt(q * q - (p * Math.sin(half)) ** 2);
      for (const [[, y, z], at] of [
        [ridge_1, far(p1, p1)],
        [ridge_2, far(p2, p2 + more)],
      ] as const) {
        expect(y).toBeCloseTo(at * Math.cos(half), 6);
        expect(z).toBeCloseTo(at * Math.sin(half), 6);
      }
    }),
    { numRuns: 50 },
  );
});

test('as long as it is glued far out it lies flat open, folded as mountains, and shut past its tabs', () => {
  const a = buildAssembly(strips([tier(30, null)]));
  const folds = (open: number): number[] =>
    a.creases.filter((c) => c.mechanism === 'step-strips-1').map((c) => foldDeg(poseAt(a, { open }), c) + 0);
  expect(folds(180)).toEqual([-180, 0, -180]);
  expect(folds(0)).toEqual([0, -180, 0]);
  expect(prove(strips([tier(30, null)], 10), 12).verdict).toBe('clear');
});

test('a strip that is too short is pulled taut where the glue lines are twice its half apart', () => {
  const [p, q] = [30, 24];
  const [found] = findings(strips([tier(p, q)]), 'flex');
  expect(found.severity).toBe('blocks');
  expect(found.measured).toBeCloseTo((2 * Math.asin(q / p) * 180) / Math.PI, 2);
});

test('shut, the room is the reach less p and q; past it the tier sticks out', () => {
  const a = buildAssembly(strips([tier(40, null, -60, 0), tier(30, 50, 5, 60)]));
  const measures = allMeasures(a, poseAt(a, { open: 90 }), null)['step-strips-1'];
  expect(measures).toMatchObject({ room_mm: 20, 'tiers[0].room_mm': 20, 'tiers[1].room_mm': 20 });
  const out = (q: number): string[] => findings(strips([tier(40, q)]), 'overhang').map((f) => f.severity);
  expect(out(59.99)).toEqual([]);
  expect(out(60)).toEqual([]);
  expect(out(60.02)).toEqual(['blocks']);
});

test('mirrored along the crease it poses mirrored; a step stands on a ridge; tabs that meet are said', () => {
  const ridge = (from: number, to: number): readonly number[] => {
    const a = buildAssembly(strips([tier(25, 30, from, to)]));
    return landmarksOf(a, poseAt(a, { open: 70 }), a.mechanisms[1]).ridge_1;
  };
  const [p, q] = [ridge(10, 50), ridge(-50, -10)];
  expect(p[0]).toBeCloseTo(-q[0], 9);
  expect(p[1]).toBeCloseTo(q[1], 9);
  const nested = stand(
    strips([tier(40, null)]),
    'step-fold',
    { depth: 10, height: 10, width: 20 },
    'step-strips-1.tier-1-ridge',
  );
  expect(checkDesign(JSON.parse(JSON.stringify(nested))).ok).toBe(true);
  expect(poseAt(buildAssembly(nested), { open: 80 }).folds.residualMm).toBeLessThan(1e-9);
  const meet = (tab: number): number => findings(strips([tier(12, null)], tab), 'loose-part').length;
  expect(meet(11.9)).toBe(0);
  expect(meet(12)).toBe(1);
});

test('foam on a tier is as thick as it is, shut and sent open flat, where it does not stick behind', () => {
  const dressed = (y: number, sent?: 'open'): Design => {
    const d = layered(strips([tier(40, null)], 10), {
      ...{
        facet: 'step-strips-1.tier-1-halfA',
        shape: { circle: 20 },
        y,
        foamMm: 1,
        foamInsetMm: 2,
        stock: 'card-160',
      },
    });
    return { ...d, post: { ...d.post, ...(sent ? { sent } : {}) } };
  };
  const told = (d: Design): string[] => findings(d, 'foam').map((f) => `${f.severity} ${f.aspect.split(' ').pop()}`);
  expect(told(dressed(0))).toEqual([]);
  expect(told(dressed(0, 'open'))).toEqual([]);
  // Foam of 16 mm across on a half of 40: past its edge from 12 mm off its middle.
  expect(told(dressed(11.9, 'open'))).toEqual([]);
  expect(told(dressed(14, 'open'))).toEqual(['risk beyond']);
});

describe('a bowed front', () => {
  const bowed = (bow: Record<string, number>, d?: Design): Design =>
    setParameter(strips([tier(25, null)], 8, d), 'step-strips-1', 'bow', { from: -50, to: 50, ...bow });
  const bowOf = (d: Design, open: number): Record<string, number> => {
    const a = buildAssembly(d);
    expect(a.misfits).toEqual([]);
    return allMeasures(a, poseAt(a, { open }), null)['step-strips-1'];
  };

  test('bulges as the classical elastica between its glue lines at every opening (table of chord and bulge)', () => {
    // As long as its lines are apart when open: the chord is sin(open/2) of its length.
    for (const [part, bulge] of [
      [0.95, 0.140111],
      [0.8, 0.266319],
      [Math.SQRT1_2, 0.311415],
      [0.5, 0.373306],
      [0.3, 0.399731],
      [0.1, 0.400416],
      [0, 0.391594],
    ] as const) {
      const m = bowOf(bowed({ p: 40 }), (2 * Math.asin(part) * 180) / Math.PI);
      expect(m['bow.bulge_mm'] / 80).toBeCloseTo(bulge, 6);
    }
    expect(bowOf(bowed({ p: 40 }), 180)['bow.bulge_mm']).toBeCloseTo(0, 9);
    // Shut, the leaves press it flat: half its length past its lines.
    expect(bowOf(bowed({ p: 40 }), 0)).toMatchObject({
      'bow.rests_mm': expect.closeTo(40, 9),
      'bow.top_mm': expect.closeTo(80, 9),
    });
  });

  test('its strips lie on that curve, each as long as it is cut, and the glue holds', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 1.3, noNaN: true }),
        fc.double({ min: 8, max: 180, noNaN: true }),
        (p, long, open) => {
          const length = 2 * p * long;
          const a = buildAssembly(bowed({ p, length }, card(200, 160)));
          const pose = poseAt(a, { open });
          const strips = a.facets.flatMap((f, i) => (f.bent ? [{ f, i }] : []));
          expect(strips.reduce((sum, { f }) => sum + f.bent!.toMm - f.bent!.fromMm, 0)).toBeCloseTo(length, 9);
          // Neighbours meet: what they miss is the sagitta of a chord.
          strips.slice(1).forEach(({ i }, k) => {
            const y = length / 2 - strips[k].f.bent!.toMm;
            const [u, v] = [onFacet(pose, strips[k].i, [0, y]), onFacet(pose, i, [0, y])];
            expect(Math.hypot(...u.map((c, n) => c - v[n]))).toBeLessThan(length / 400);
          });
          const tab = a.facets.findIndex((f) => f.id === 'step-strips-1.bow-tabA');
          const [u, v] = [onFacet(pose, tab, [0, length / 2]), onFacet(pose, strips[0].i, [0, length / 2])];
          expect(Math.hypot(...u.map((c, n) => c - v[n]))).toBeLessThan(1e-9);
          // Glued at p on the still leaf.
          expect(u[1]).toBeCloseTo(p, 6);
          expect(u[2]).toBeCloseTo(0, 6);
        },
      ),
      { numRuns: 25 },
    );
  });

  test('shut it lies flat and reaches as far as half its length past its glue line', () => {
    const reaches = (length: number): string[] => findings(bowed({ p: 40, length }), 'overhang').map((f) => f.severity);
    expect(reaches(119.99)).toEqual([]);
    expect(reaches(120)).toEqual([]);
    expect(reaches(120.05)).toEqual(['blocks']);
    expect(bowOf(bowed({ p: 40, length: 90 }), 90)['bow.room_mm']).toBeCloseTo(15, 9);
  });

  test('too short it is pulled taut where its lines are as far apart as it is long; the remedy clears it', () => {
    const found = (length: number) => findings(bowed({ p: 40, length }), 'flex');
    expect(found(80)).toEqual([]);
    expect(found(79.998)[0]?.severity).toBe('blocks');
    const d = setParameter(bowed({ p: 40, length: 72 }), 'step-strips-1', 'tab', 10);
    const [taut] = prove(d, 24).findings.filter((f) => f.rule === 'flex');
    expect(taut.measured).toBeCloseTo((2 * Math.asin(72 / 80) * 180) / Math.PI, 3);
    const remedy = taut.remedies!.find((r) => r.parameter === 'bow.length')!;
    expect(prove(setLever(d, remedy.mechanism, remedy.parameter, remedy.value), 24).verdict).toBe('clear');
  });

  test('what is before it and behind it is seen: a tier further out than its curve runs through it', () => {
    const meets = (p: number, q: number): boolean =>
      findings(setParameter(strips([tier(p, q)], 8), 'step-strips-1', 'bow', { p: 40, from: -50, to: 50 }), 'collision')
        .length > 0;
    expect(meets(25, null as unknown as number)).toBe(false);
    expect(meets(25, 60)).toBe(true);
  });

  test('sent open flat it is judged as it lies open: flat only where it is as long as its lines are apart', () => {
    const sent = (d: Design, post: Partial<Design['post']> = {}): Design => ({
      ...d,
      post: { envelope: null, format: null, ...post, sent: 'open' },
    });
    const flat = (length: number): string[] =>
      findings(sent(bowed({ p: 40, length })), 'flat-fold').map((f) => f.message);
    expect(flat(80)).toEqual([]);
    expect(flat(84)[0]).toMatch(/off the page when it is sent open flat/);
    // Out of the shut card it may stick, and that is said.
    const [out] = findings(sent(bowed({ p: 70, length: 140 })), 'overhang');
    expect(out.severity).toBe('note');
    expect(out.message).toMatch(/sent open flat only/);
    // Two leaves of 100 by 200: C5 (162 by 229 mm, ISO 269) takes them shut, C4 (229 by 324) open.
    const tight = (d: Design): string[] => findings(d, 'post-size').map((f) => f.aspect);
    const plain = bowed({ p: 40 });
    expect(tight({ ...plain, post: { envelope: 'C5', format: null } })).toEqual([]);
    expect(tight(sent(plain, { envelope: 'C5' }))).toEqual(['envelope short']);
    expect(tight(sent(plain, { envelope: 'C4' }))).toEqual([]);
    expect(statesOf(sent(plain))[0]).toMatchObject({ id: 'post', drives: { open: 180 } });
    expect(checkDesign(JSON.parse(JSON.stringify(sent(plain)))).ok).toBe(true);
  });
});
