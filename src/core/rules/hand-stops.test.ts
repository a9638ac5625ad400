/** What only stops a hand in a card that is hardly open, against what is in its way. */
import { buildAssembly } from '../build/build';
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { closedPose, gather } from '../proof/evidence';
import { collision } from './collision';
import { handStops } from './hand-stops';
import { card, findings, layered } from '../tests/cards';
import type { ParameterValues } from '../kinds';

const on = (d: Design, kind: string, facet: string, parameters: ParameterValues, y = 0): Design =>
  addMechanism(d, kind, { on: facet, mount: { ...CENTRE, side: 'inside', y } }, parameters).design;
const TUMBLING = { count: 3, panelHeight: 30, panelWidth: 34, pitch: 8, beltWidth: 12, rivetGap: 18, strap: 8 };
/** A waterfall whose panels, half turned, come to the other leaf of a card that is half open. */
const tumbling = on(card(190, 75), 'waterfall', 'leafA', TUMBLING);
const POCKET = { width: 60, height: 50 };

const told = (d: Design) =>
  collision
    .check(gather(d, 'travel', 12))
    .filter((f) => f.aspect.includes('by hand'))
    .map((f) => ({ severity: f.severity, aspect: f.aspect }));

describe('of two that meet at a state', () => {
  const lifting = on(tumbling, 'lift-tab', 'leafB', { lower: 24, upper: 24, width: 36, strip: 12 });
  const assembly = buildAssembly(lifting);
  const evidence = { assembly, closed: closedPose(assembly) };
  const facet = (id: string): number => assembly.facets.findIndex((f) => f.id === id);
  const rest = Object.fromEntries(assembly.drives.map((d) => [d.id, d.rest]));
  const stops = (ids: readonly string[], open: number, pull = 0): boolean =>
    handStops(evidence, ids.map(facet), { ...rest, open, 'lift-tab-1.pull': pull });

  test.each([
    [89.9, true],
    [90, false],
    [90.1, false],
  ])('one is a leaf, the card open by %p degrees', (open, expected) => {
    expect(stops(['waterfall-1.panel-1', 'leafB'], open)).toBe(expected);
  });
  test('one lies on a leaf; lifted by 6 mm it does not, nor does what is being turned over', () => {
    expect(stops(['waterfall-1.panel-1', 'lift-tab-1.upper'], 45)).toBe(true);
    expect(handStops({ ...evidence, closed: null }, ['lift-tab-1.upper'].map(facet), { ...rest, open: 45 })).toBe(
      false,
    );
    expect(stops(['lift-tab-1.upper'], 45, 6)).toBe(false);
  });
});

test('a panel that comes to the leaf, or to a pocket that lies there, below 90 degrees is a note', () => {
  expect(told(tumbling)).toEqual([{ severity: 'note', aspect: 'card by hand' }]);
  const faced = told(on(tumbling, 'pocket', 'leafB', POCKET));
  expect(faced.length).toBeGreaterThan(1);
  expect(faced.map((f) => f.severity)).toEqual(faced.map(() => 'note'));
});

test('what stands up in its way blocks at any opening', () => {
  const before = addMechanism(tumbling, 'step-fold', undefined, { depth: 20, height: 60, width: 50 }).design;
  expect(told(before)).toContainEqual({ severity: 'blocks', aspect: 'waterfall-1 by hand' });
});

test('that its panel comes to the leaf does not keep what is stuck on there from being told', () => {
  const bar = { facet: 'leafB', shape: { width: 60, height: 60 }, foamMm: 30, foamInsetMm: 0, y: 0 };
  const barred = layered(tumbling, bar);
  // So high, it comes to the waterfall as the card opens already: that needs no hand, and is told as what it is.
  const blocks = findings(barred, 'collision').filter((f) => f.severity === 'blocks');
  expect(blocks.map((f) => f.aspect)).toEqual(['layer.l1 waterfall-1']);
  expect(told(barred)).toContainEqual({ severity: 'note', aspect: 'card by hand' });
});
