/** Foam of one mechanism where a part of another moves: by how far a disc reaches, just inside and just outside. */
import { addMechanism } from '../document/standing';
import { CENTRE, type Design } from '../document/design';
import { setLever } from '../proof/levers';
import { gather, prove } from '../proof/prove';
import { buildAssembly } from '../build/build';
import { contains } from '../plane/polygon';
import { card } from '../tests/cards';
import { foamSweep } from './foam-sweep';
import type { Finding } from './index';

/** A disc of 55 mm that stands out of its panel, and a slider whose panel begins `edge` mm from its middle. */
const beside = (edge: number, side: 'inside' | 'outside' = 'inside'): Design => {
  const disc = addMechanism(card(280, 280), 'volvelle', 'leafB', { radius: 55, width: 100, height: 100, notch: 6 });
  const path = { path: { line: 40 }, width: 70, height: 70 };
  const both = addMechanism(disc.design, 'track-slider', 'leafB', path).design;
  const at = (kind: string) => (kind === 'volvelle' ? -60 : -60 + edge + 35);
  return {
    ...both,
    mechanisms: both.mechanisms.map((m) => ({ ...m, mount: { ...CENTRE, side, x: at(m.kind) } })),
  };
};
const swept = (d: Design): Finding[] => foamSweep.check(gather(d, 'travel', 4, buildAssembly(d), [180]));

/** Area of the slider's foam nearer than `reach` to the middle of the disc, counted on a grid of 0.05 mm. */
function counted(design: Design, edge: number, reach: number): number {
  const a = buildAssembly(design);
  const pads = a.foam.filter((pad) => pad.id.startsWith('track-slider-1')).flatMap((pad) => pad.region);
  // The foam is drawn about the middle of its panel, which lies 35 mm past its edge.
  const middle = -(edge + 35);
  let n = 0;
  for (let x = -36; x < -28; x += 0.05)
    for (let y = -36; y < 36; y += 0.05)
      if (Math.hypot(x - middle, y) < reach && pads.some((p) => contains(p, [x, y]))) n++;
  return n * 0.05 * 0.05;
}

test('it blocks where more than 1 mm² is met, and is a risk where that comes within 1 mm (grid of points)', () => {
  const found = [51, 52.3, 52.6, 52.7, 53, 53.5, 53.7, 54].map((edge) => {
    const design = beside(edge);
    const [into, near] = [counted(design, edge, 55), counted(design, edge, 56)];
    const expected = into > 1.1 ? 'blocks' : near > 1.1 ? 'risk' : 'none';
    // Too near to the limit for the grid to say.
    const unsure = [into, near].some((area) => Math.abs(area - 1) < 0.1);
    const said = swept(design)[0]?.severity ?? 'none';
    if (!unsure) expect(`${edge} ${said}`).toBe(`${edge} ${expected}`);
    return said;
  });
  expect(new Set(found)).toEqual(new Set(['blocks', 'risk', 'none']));
  expect(swept(beside(51, 'outside')).map((f) => f.severity)).toEqual(['blocks']);
});

test('it is laid to the mechanism whose foam it is, at the turn where it happens, and cleared by moving it', () => {
  const design = beside(50);
  const found = prove(design, 4).findings.find((f) => f.aspect.includes('swept'))!;
  expect(found).toMatchObject({
    rule: 'foam',
    mechanism: 'track-slider-1',
    subjects: expect.arrayContaining(['volvelle-1.disc']),
  });
  expect(found.drive['volvelle-1.turn']).toBeGreaterThan(0);
  expect(found.remedies!.length).toBeGreaterThan(0);
  for (const { mechanism, parameter, value } of found.remedies!)
    expect(swept(setLever(design, mechanism, parameter, value))).toEqual([]);
});

test('on the other side of the paper it lies out of the way', () => {
  const design = beside(50);
  const apart = {
    ...design,
    mechanisms: design.mechanisms.map((m) =>
      m.kind === 'volvelle' ? m : { ...m, mount: { ...m.mount!, side: 'outside' as const } },
    ),
  };
  expect(swept(apart)).toEqual([]);
});
