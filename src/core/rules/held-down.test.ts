/** Decoration over what is pulled: on one side of a ridge it goes up with it; across it is refused, with the reason. */
import { addMechanism } from '../document/standing';
import { CENTRE, type Design, type Layer } from '../document/design';
import { card, findings, layered } from '../tests/cards';

const lifted = addMechanism(
  card(200, 140),
  'lift-tab',
  { on: 'leafB', mount: { ...CENTRE, side: 'inside' } },
  { lower: 24, upper: 24, width: 50, strip: 14, glueTab: 10, notch: 12 },
).design;
/** A strip of paper on the upper side, its lower edge so far past the ridge, mm. */
const strip = (past: number, more: Partial<Layer> = {}): Design => ({
  ...layered(lifted, {
    facet: 'lift-tab-1.upper',
    shape: { rect: { width: 20, height: 12 } },
    from: { x: 'middle', y: 'low' },
    y: -past,
    ...more,
  }),
});
const across = (d: Design) => findings(d, 'collision', 4).filter((f) => f.aspect.startsWith('layer.l1'));

test('beside the ridge and just at it a layer goes up with its side', () => {
  expect(across(strip(-1))).toEqual([]);
  expect(across(strip(0))).toEqual([]);
  // As far as its own paper is thick it only rubs.
  expect(across(strip(0.2))).toEqual([]);
});

test('across the ridge it blocks: by how much, where, and why', () => {
  const [finding] = across(strip(5));
  expect(finding.severity).toBe('blocks');
  expect(finding.measured).toBeCloseTo(5, 6);
  expect(finding.subjects).toContain('lift-tab-1.ridge');
  expect(finding.message).toMatch(/across the ridge.*one side only/);
  expect(finding.drive['lift-tab-1.pull']).toBeGreaterThan(0);
  expect(across(strip(5, { side: 'outside' }))).toHaveLength(1);
});
