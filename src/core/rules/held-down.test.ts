/** Decoration over what is pulled: on one side of a ridge it goes up with it; across it is refused, with the reason. */
import { buildAssembly } from '../build/build';
import { checkDesign } from '../document/schema';
import { addMechanism } from '../document/standing';
import { CENTRE, type Design, type Layer } from '../document/design';
import { regionArea, regionBox, ringArea, subtract } from '../plane/polygon';
import { drawPieces } from '../sheets/drawing';
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

describe('stuck in part', () => {
  const free = (sides: Partial<NonNullable<NonNullable<Layer['glued']>['free']>>): Layer['glued'] => ({
    free: { left: 0, right: 0, top: 0, bottom: 0, ...sides },
  });
  test('what is stuck on its own side alone stands up free past the ridge', () => {
    expect(across(strip(5, { glued: { onFacet: true } }))).toEqual([]);
    // Under the paper the ridge folds towards it: free or not, it is in the way.
    expect(across(strip(5, { glued: { onFacet: true }, side: 'outside' }))).toHaveLength(1);
  });
  test('as far as its adhesive reaches over the ridge it holds that: just under, at, just over', () => {
    expect(across(strip(5, { glued: free({ bottom: 4.99 }) }))).toHaveLength(1);
    expect(across(strip(5, { glued: free({ bottom: 5 }) }))).toEqual([]);
    expect(across(strip(5, { glued: free({ bottom: 5.01 }) }))).toEqual([]);
    // Left free on another side it is stuck over the ridge as before.
    expect(across(strip(5, { glued: free({ top: 5.01 }) }))).toHaveLength(1);
    expect(across(strip(5, { glued: { insetMm: 4.99 } }))).toHaveLength(1);
    expect(across(strip(5, { glued: { insetMm: 5 } }))).toEqual([]);
  });
  test('with nothing left for adhesive it falls off: just before, at', () => {
    const loose = (d: Design) => findings(d, 'loose-part', 4).filter((f) => f.aspect === 'layer.l1 glue');
    // The strip is 20 by 12 mm.
    expect(loose(strip(0, { glued: { insetMm: 5.99 } }))).toEqual([]);
    expect(loose(strip(0, { glued: { insetMm: 6 } }))[0]).toMatchObject({ severity: 'blocks' });
    expect(loose(strip(0, { glued: free({ left: 12, right: 7.99 }) }))).toEqual([]);
    expect(loose(strip(0, { glued: free({ left: 12, right: 8 }) }))).toHaveLength(1);
    expect(loose(strip(13, { glued: { onFacet: true } }))).toHaveLength(1);
  });
  test('left and right are those of the side that it is seen on', () => {
    const glue = (side: Layer['side']) => {
      const a = buildAssembly(strip(0, { side, x: 3, glued: free({ left: 15 }) }));
      const [layer] = a.layers;
      return [regionBox(layer.glue), regionBox(layer.region)];
    };
    const [front, whole] = glue('inside');
    expect(front.max[0]).toBeCloseTo(whole.max[0], 6);
    expect(front.max[0] - front.min[0]).toBeCloseTo(5, 6);
    const [back, all] = glue('outside');
    expect(back.min[0]).toBeCloseTo(all.min[0], 6);
    expect(back.max[0] - back.min[0]).toBeCloseTo(5, 6);
  });
  test('its glue is drawn where it is, and its foam lies nowhere else', () => {
    const design = strip(5, { glued: { onFacet: true }, foamMm: 1, foamInsetMm: 1 });
    const [layer] = buildAssembly(design).layers;
    const facet = buildAssembly(design).facets[layer.facet].polygon;
    expect(regionArea(subtract(layer.foam, [facet]))).toBeLessThan(1e-6);
    const flat = strip(5, { glued: { onFacet: true } });
    const drawn = drawPieces(flat, buildAssembly(flat)).find((p) => p.id === 'layer.l1')!;
    const glue = drawn.lines.filter((l) => l.role === 'glue');
    // 20 mm wide and 12 mm high, less the 5 mm past the ridge.
    expect(glue.map((l) => Math.abs(ringArea(l.points)))).toEqual([expect.closeTo(140, 4)]);
  });
  test('a file says it', () => {
    const read = checkDesign(strip(5, { glued: { onFacet: true, insetMm: 1, ...free({ left: 2 }) } }));
    expect(read.ok).toBe(true);
    expect(checkDesign(strip(5, { glued: { insetMm: -1 } })).ok).toBe(false);
  });
});
