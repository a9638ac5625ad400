/**
 * A vertex of six creases on the fold, and a train of panels between its arms: the closed form and the table of the
 * design notes, the table of bending by an independent prototype, limits and remedies.
 */
import fc from 'fast-check';
import { allMeasures, foldDeg, poseAt } from '../../assembly/pose';
import type { Assembly } from '../../assembly/assembly';
import { buildAssembly } from '../../build/build';
import type { Design } from '../../document/design';
import { gather, prove } from '../../proof/prove';
import { setLever } from '../../proof/levers';
import { card, findings, stand } from '../../tests/cards';
import type { ParameterValues } from '..';

const ID = 'twist-fold-1';
const twist = (parameters: ParameterValues, d = card(300, 140)): Design => stand(d, 'twist-fold', parameters);
const armDeg = (a: Assembly, open: number): number => allMeasures(a, poseAt(a, { open }), null)[ID].arm_deg;
const foldOf = (a: Assembly, open: number, part: string): number =>
  foldDeg(
    poseAt(a, { open }),
    a.creases.find((c) => c.id === `${ID}.${part}`)!,
  );

describe('the vertex', () => {
  const plain = buildAssembly(twist({ half: 44.45, arm: 101.6 }));
  test.each([
    [0, 90, 180],
    [1, 89.997818, 179.2929],
    [30, 88.014054, 158.5428],
    [60, 81.786789, 135.5847],
    [90, 70.528779, 109.4712],
    [120, 53.130102, 78.463],
    [150, 29.021637, 41.5071],
    [165, 14.873115, 21.0937],
    [170, 9.962139, 14.1065],
    [179, 0.999962, 1.4142],
    [180, 0, 0],
  ])('opened to %d° its arms stand at %d°, its diagonals fold by %d° (reference table)', (open, arm, diagonal) => {
    expect(armDeg(plain, open)).toBeCloseTo(arm, 5);
    for (const part of ['diagonalRightA', 'diagonalRightB', 'diagonalLeftA', 'diagonalLeftB'])
      expect(foldOf(plain, open, part)).toBeCloseTo(diagonal, 3);
    for (const part of ['middleRight', 'middleLeft']) expect(foldOf(plain, open, part)).toBeCloseTo(open - 180, 6);
  });
  test('by the closed form, at any size, rigid all the way', () => {
    const size = fc.double({ min: 10, max: 40, noNaN: true });
    fc.assert(
      fc.property(size, size, fc.double({ min: 0, max: 180, noNaN: true }), (half, more, open) => {
        const a = buildAssembly(twist({ half, arm: half + more }));
        expect(a.misfits).toEqual([]);
        const pose = poseAt(a, { open });
        expect(pose.stop).toBeUndefined();
        expect(pose.flexMm).toBe(0);
        expect(armDeg(a, open)).toBeCloseTo((2 * Math.atan(Math.cos((open * Math.PI) / 360)) * 180) / Math.PI, 5);
      }),
      { numRuns: 30 },
    );
  });
  test('shut its arms reach as far as they are long: room up to the reach of the leaves', () => {
    const found = (arm: number): number => findings(twist({ half: 30, arm }, card(300, 80)), 'overhang').length;
    expect(found(79.99)).toBe(0);
    expect(found(80)).toBe(0);
    expect(found(80.02)).toBeGreaterThan(0);
    expect(prove(twist({ half: 30, arm: 60 }, card(180, 120)), 12).verdict).toBe('clear');
  });
});

describe('the train', () => {
  const TRAIN = (width: number) => ({ half: 44.45, arm: 101.6, train: { panels: 4, panel: 63.5, width } });
  // Half width 44.45, arm 101.6, panel 63.5: by an independent prototype, all joints and the glue free to part.
  test.each([
    [88.9, { 150: 1.05, 120: 3.63, 95: 6.93, 90: 6.85, 60: 4.07, 30: 0.93, 10: 0.11, 1: 0.001 }],
    [50.8, { 150: 0.59, 120: 1.98, 90: 4.73, 60: 3.37, 30: 0.75, 10: 0.09, 1: 0.001 }],
    [25.4, { 150: 0.42, 120: 1.35, 90: 2.38, 60: 2.0, 30: 0.58, 10: 0.07, 1: 0.001 }],
  ])('%d mm wide it bends as the table of the design notes says, whatever is asked first', (width, table) => {
    const design = twist(TRAIN(width));
    for (const order of [1, -1]) {
      const a = buildAssembly(design);
      const rows = Object.entries(table).sort((p, q) => order * (Number(p[0]) - Number(q[0])));
      for (const [open, mm] of rows) {
        const { flexMm } = poseAt(a, { open: Number(open) });
        // Told there to two places; the misfit of a pose is flat where it is least.
        expect(Math.abs(flexMm - mm)).toBeLessThan(0.02);
      }
    }
  });
  test('it closes exactly at both ends, and the worst is told with where it is', () => {
    const design = twist(TRAIN(88.9));
    const a = buildAssembly(design);
    for (const open of [0, 180]) {
      const pose = poseAt(a, { open });
      expect(pose.flexMm).toBe(0);
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
    }
    const { measures } = prove(design, 36);
    expect(measures[ID].flex_mm).toBeCloseTo(6.93, 1);
    expect(measures[ID].flex_at_deg).toBe(95);
  });
  test('a narrower train bends less: a width is the remedy, and clears it in full', () => {
    const design = twist({ half: 30, arm: 60, train: { panel: 40, width: 20 } });
    const found = prove(design, 12).findings.find((f) => f.rule === 'flex')!;
    expect(found.severity).toBe('risk');
    const remedy = found.remedies?.find((r) => r.parameter === 'train.width');
    expect(remedy).toBeDefined();
    const better = setLever(design, remedy!.mechanism, remedy!.parameter, remedy!.value);
    expect(prove(better, 12).findings.filter((f) => f.rule === 'flex')).toEqual([]);
  });
  test('never past the diagonals, and on something of the arms', () => {
    const lacks = (panel: number): number =>
      findings(twist({ half: 30, arm: 60, train: { panel } }), 'loose-part').length;
    expect(lacks(29.9)).toBe(1);
    expect(lacks(30)).toBe(0);
    expect(lacks(59.9)).toBe(0);
    expect(lacks(60)).toBeGreaterThan(0);
  });
});

test('a step stands on a midline; mirrored along the crease it bends alike', () => {
  const nested = stand(
    twist({ half: 30, arm: 100 }),
    'step-fold',
    { depth: 8, height: 8, width: 20, offset: 25 },
    `${ID}.middleRight`,
  );
  const a = buildAssembly(nested);
  expect(poseAt(a, { open: 100 }).folds.residualMm).toBeLessThan(1e-9);
  const at = (offset: number): number => {
    const design = twist({ half: 30, arm: 60, train: { panel: 40 }, offset });
    return Math.max(...gather(design, 'travel', 6).travel.map((p) => p.flexMm));
  };
  expect(at(25)).toBeCloseTo(at(-25), 4);
});
