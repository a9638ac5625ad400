/**
 * What stands off its leaf in the way of what rises. The riser of a step stands parallel to the other leaf (theorem of
 * the parallelogram): opened by `t` it leans by `t` over its own leaf, so that a corner `h` high and `x` from its foot
 * lies `h cos t - x sin t` past its plane.
 */
import { buildAssembly } from '../build/build';
import { stockOf, type Design } from '../document/design';
import { openOf } from '../drives';
import { regionBox } from '../plane/polygon';
import { CONTACT_MM } from '../tolerance';
import { degToRad } from '../units/angle';
import { card, findings, layered, stand } from '../tests/cards';

const DEPTH = 30;
/** Caliper of the stock of leaf and riser, mm. */
const { caliperMm: LEAF_MM } = stockOf(card(), 'card-240');
const RISER_MM = LEAF_MM;
const REACHES: [number, number][] = [
  [120, 120],
  [120, 90],
];

function withBar(reachA: number, reachB: number, y: number, foamMm: number): Design {
  const plain = stand(card(200, reachA, reachB), 'step-fold', { depth: DEPTH, width: 60 }, 'card.gutter');
  const shape = { width: 20, height: 10 };
  return layered(plain, { facet: 'leafA', shape, y, foamMm, foamInsetMm: 0 });
}
const met = (d: Design) => findings(d, 'collision').filter((f) => f.aspect.includes('l1') && f.severity === 'blocks');

/** How far past the riser's foot a bar's foam begins, mm. */
function fromFoot(d: Design): number {
  const [{ foam }] = buildAssembly(d).layers;
  const { min, max } = regionBox(foam);
  return Math.min(Math.abs(min[1]), Math.abs(max[1])) - DEPTH;
}
/** The place at which a bar begins so far past the foot. */
const at = (reaches: readonly [number, number], foamMm: number, mm: number): number =>
  mmAt((y) => fromFoot(withBar(...reaches, y, foamMm)), mm);
/** Where a falling line takes a value. */
const mmAt = (line: (mm: number) => number, value: number): number => (value - line(0)) / (line(1) - line(0));

describe.each(REACHES)('leaves of %d and %d mm', (...reaches) => {
  test.each([3, 6])('%d mm of foam past the foot of a riser, from 60 degrees on', (foamMm) => {
    // Its plane is crossed most where it leans most of all that is looked at; it may be by as much as it is thick.
    const past = (mm: number): number => (LEAF_MM / 2 + foamMm) * Math.cos(degToRad(60)) - mm * Math.sin(degToRad(60));
    const limit = mmAt(past, RISER_MM + CONTACT_MM);
    const told = (mm: number) => met(withBar(...reaches, at(reaches, foamMm, mm), foamMm));
    const [below] = told(limit - 0.1);
    expect(openOf(below.drive)).toBe(60);
    expect(below.measured).toBeCloseTo(past(limit - 0.1), 2);
    expect(told(limit - 0.001)).toHaveLength(1);
    expect(told(limit + 0.001)).toEqual([]);
    expect(told(limit + 0.1)).toEqual([]);
  });

  test('stuck flat it is no higher than paper', () => {
    expect(met(withBar(...reaches, at(reaches, 3, 1), 3))).toHaveLength(1);
    expect(met(withBar(...reaches, at(reaches, 3, 1), 0))).toEqual([]);
  });
});
