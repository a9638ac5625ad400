/** Easels of any outline: they stand by the law of cosines, and hinge, break and glue lie on the shape. */
import fc from 'fast-check';
import { allMeasures, poseAt } from '../../assembly/pose';
import { buildAssembly } from '../../build/build';
import { blankDesign, type Design } from '../../document/design';
import { contains, intersect, polygonArea, regionArea, regionBox } from '../../plane/polygon';
import { dist2 } from '../../plane/vec2';
import { prove } from '../../proof/prove';
import { findings } from '../../tests/cards';
import type { ParameterValues } from '..';

const easel = (parameters: ParameterValues): Design => {
  const plain = blankDesign('easel');
  return { ...plain, card: { ...plain.card, construction: 'easel', parameters } };
};
/** A house: walls up to its eaves, a gable so high over them. */
const house = (wide: number, eaves: number, gable: number): string =>
  `M0 0 H${wide} V${-eaves} L${wide / 2} ${-eaves - gable} L0 ${-eaves} Z`;
const areaOf = (wide: number, eaves: number, gable: number): number => wide * (eaves + gable / 2);
/** The same under a half circle, which is drawn to within 0.01 mm. */
const door = (wide: number, straight: number): string =>
  `M0 0 H${wide} V${-straight} A${wide / 2} ${wide / 2} 0 0 0 0 ${-straight} Z`;

const houses = fc.record({
  wide: fc.integer({ min: 60, max: 120 }),
  eaves: fc.integer({ min: 20, max: 80 }),
  gable: fc.integer({ min: 20, max: 60 }),
  part: fc.double({ min: 0.4, max: 0.6, noNaN: true }),
});

test('a house stands as its sizes say (law of cosines), its break as long as it is wide there', () => {
  fc.assert(
    fc.property(houses, ({ wide, eaves, gable, part }) => {
      const high = eaves + gable;
      const [strut, stop] = [high * part, high * 0.75];
      const a = buildAssembly(easel({ shape: { path: house(wide, eaves, gable) }, break: strut, stop }));
      expect(a.misfits).toEqual([]);
      const lean = allMeasures(a, poseAt(a, { open: 180 }), null).card.lean_deg;
      const flap = high - strut;
      const expected = (Math.acos((stop * stop + flap * flap - strut * strut) / (2 * stop * flap)) * 180) / Math.PI;
      expect(lean).toBeCloseTo(expected, 5);
      const card = a.pieces.find((p) => p.id === 'card')!;
      expect(polygonArea(card.outline)).toBeCloseTo(2 * areaOf(wide, eaves, gable), 4);
      const bent = a.creases.find((c) => c.id === 'card.break')!;
      const length = bent.segments.reduce((sum, s) => sum + dist2(s.a, s.b), 0);
      expect(length).toBeCloseTo(wide * Math.min(1, 1 - (strut - eaves) / gable), 3);
    }),
    { numRuns: 15 },
  );
});

test('its plate is as it is, and the glue of the plate lies on the flap, inside both', () => {
  const a = buildAssembly(easel({ shape: { path: house(80, 60, 40) } }));
  const plate = a.pieces.find((p) => p.id === 'plate')!;
  expect(regionBox([plate.outline]).max[1]).toBeCloseTo(100, 6);
  expect(polygonArea(plate.outline)).toBeCloseTo(areaOf(80, 60, 40), 4);
  const flap = a.facets.find((f) => f.id === 'flap')!.polygon;
  for (const { outline, onto } of plate.glue) {
    expect(outline.every((p) => contains(plate.outline, p))).toBe(true);
    const on = { outer: onto!.outline, holes: [] };
    expect(regionArea(intersect([on], [flap]))).toBeCloseTo(polygonArea(on), 3);
    expect(polygonArea(on)).toBeGreaterThan(0.6 * polygonArea(flap));
  }
});

test('it lies flat in the post, stands, and its glue has room: nothing blocks', () => {
  const d = easel({ shape: { path: door(100, 60) } });
  const proof = prove(d, 12);
  expect(proof.findings.filter((f) => f.severity === 'blocks')).toEqual([]);
  expect(proof.closed!.width_mm * proof.closed!.height_mm).toBeCloseTo(100 * 110, -1);
  expect(findings(d, 'glue-room')).toEqual([]);
});

test('the stop is as long as the shape is wide there', () => {
  const a = buildAssembly(easel({ shape: { path: door(100, 60) }, stop: 90, stopWidth: 8 }));
  const strip = a.pieces.find((p) => p.id === 'stop')!;
  const { min, max } = regionBox([strip.outline]);
  // Of the half circle 38 mm over its springing.
  expect(max[0] - min[0]).toBeCloseTo(2 * Math.sqrt(50 ** 2 - 38 ** 2), 0);
});

test('a stop needs 6 mm of length on the shape: just enough, and just too little', () => {
  // A gable 40 mm high over 80 mm of width: its strip of 8 mm ends where it is twice as wide as it is far from the tip.
  const make = (left: number, stopBy: string) => () =>
    buildAssembly(easel({ shape: { path: house(80, 60, 40) }, stopBy, stop: 100 - left / 2 - 8, stopWidth: 8 }));
  expect(make(6.02, 'strip')).not.toThrow();
  expect(make(5.98, 'strip')).toThrow(/a length of 6.0 mm; 6 mm are asked/);
  expect(make(5.98, 'edge')).not.toThrow();
});

test('a level has a shape of its own', () => {
  const level = { width: 60, height: 60, stop: 40, from: 5, shape: { path: house(50, 25, 25) } };
  const d = easel({ width: 110, height: 110, levels: [level] } as unknown as ParameterValues);
  const a = buildAssembly(d);
  expect(polygonArea(a.pieces.find((p) => p.id === 'level-1')!.outline)).toBeCloseTo(2 * areaOf(50, 25, 25), 4);
  expect(a.misfits).toEqual([]);
  expect([...findings(d, 'glue-room', 4), ...findings(d, 'flat-fold', 4)]).toEqual([]);
});

test('what has no straight foot, or is in parts, is refused; 10 mm are enough', () => {
  const foot = (mm: number) => `M${50 - mm / 2} 0 H${50 + mm / 2} L100 -80 H0 Z`;
  const make = (shape: ParameterValues[string]) => () => buildAssembly(easel({ shape }));
  expect(make({ circle: 100 })).toThrow(/mm of straight edge, and 10 mm are joined/);
  expect(make({ path: foot(9.9) })).toThrow(/9.9 mm of straight edge/);
  expect(make({ path: foot(10) })).not.toThrow();
  expect(make({ path: 'M0 0 H40 V-80 H0 Z M60 0 H90 V-80 H60 Z' })).toThrow(/2 parts/);
});
