/** What was once proved clear although it was wrong, and what was blocked although it was right: kinds of each. */
import fc from 'fast-check';
import { poseOpen } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { withTemplate } from '../build/bring';
import { readTemplate } from '../formats/template-read';
import { prove } from '../proof/prove';
import { card, findings, layered, SCALLOPED, shapedCard, stand } from '../tests/cards';
import type { ParameterValues } from '../kinds';
import { radToDeg } from '../units/angle';
import { closedSize, overhangOf } from './index';
import { baseExtent } from './rule';

describe('paper that is not there', () => {
  test.each([-1, 1])('a disc that runs past an end of the page lacks a circle segment (side %d)', (side) => {
    const [found] = findings(
      stand(card(190, 130), 'strut-figure', { shape: { circle: 60 }, depth: 25, offset: 80 * side }),
      'loose-part',
    );
    // Area of a circle's segment: r² acos(d/r) - d sqrt(r² - d²), here r 30 and d 15.
    expect(found.measured).toBeCloseTo(900 * Math.acos(0.5) - 15 * Math.sqrt(675), -1);
    expect(found.unit).toBe('mm2');
    expect(found.severity).toBe('blocks');
    expect(found.message).toContain('15.0 mm past the edge');
  });
  test.each([
    ['half-cut', { shape: { circle: 60 }, rise: 25 }],
    ['step-fold', { width: 60 }],
    ['floating-band', { slit: 60, width: 60 }],
    ['plane-stack', { planes: [{ depth: 30, base: 0, height: 30, width: 60, offset: 0 }] }],
  ])('%s: past the end of the gutter it is said', (kind, parameters) => {
    const at = (offset: number) => {
      const moved: ParameterValues =
        kind === 'plane-stack'
          ? { planes: [{ depth: 30, base: 0, height: 30, width: 60, offset }] }
          : { ...parameters, offset };
      return findings(stand(card(190, 130), kind, moved), 'loose-part').filter((f) => f.aspect === 'off-paper');
    };
    expect(at(60)).toEqual([]);
    expect(at(80)).toHaveLength(1);
    expect(at(80)[0].message).toMatch(/1[5-9]\.\d mm past the edge/);
  });
  test('just short of the edge, on it and just past it', () => {
    const at = (offset: number) =>
      findings(stand(card(190, 130), 'step-fold', { width: 60, offset }), 'loose-part').length;
    expect([at(64.99), at(65), at(65.03)]).toEqual([0, 0, 1]);
  });
  test('what is cut from a nested facet is asked of the same paper', () => {
    const below = stand(card(190, 60), 'step-fold', { depth: 30, height: 20, width: 80 });
    expect(
      findings(stand(below, 'step-fold', { depth: 35, height: 10, width: 20 }, 'step-fold-1.base'), 'loose-part'),
    ).not.toEqual([]);
  });
  test('a pocket that only the gutter holds is named', () => {
    // The figure touches the end of the page above the gutter, so the corner of leaf B hangs on the gutter alone.
    const touching = stand(card(190, 130), 'strut-figure', { shape: { circle: 60 }, depth: 25, offset: 65 });
    const hanging = findings(touching, 'loose-part').filter((f) => f.aspect.startsWith('hanging'));
    expect(hanging.map((f) => [f.severity, f.aspect])).toEqual([['risk', 'hanging card.gutter']]);
  });
});

describe('shaped edges', () => {
  test.each(['left', 'right'])('a side step on a scalloped card takes the paper that is there (%s)', (edge) => {
    const d = stand(shapedCard(SCALLOPED, 104), 'step-fold', { edge, width: 40, depth: 30, height: 20 });
    expect(findings(d, 'loose-part')).toEqual([]);
    expect(findings(d, 'flat-fold')).toEqual([]);
    const a = buildAssembly(d);
    expect(a.travel.stops()).toEqual([]);
    // A box step stands whatever its outline: ridge 30 out and 20 up when half open.
    const { measures } = prove(d, 4);
    expect([measures['step-fold-1'].ridge_y, measures['step-fold-1'].ridge_z]).toEqual([
      expect.closeTo(30, 6),
      expect.closeTo(20, 6),
    ]);
    const riser = a.facets.find((f) => f.id === 'step-fold-1.riser')!;
    const xs = riser.polygon.outer.map((p) => p[0] * (edge === 'right' ? 1 : -1));
    // It reaches into the scallop: 6 mm further than the straight edge at 80.
    expect(Math.max(...xs)).toBeCloseTo(86, 1);
    expect(Math.min(...xs)).toBeCloseTo(40, 4);
  });
  test('its silhouette may show past the dents of the edge: a risk, since the envelope takes it', () => {
    const [found] = findings(
      stand(shapedCard(SCALLOPED, 104), 'step-fold', { edge: 'right', width: 40, depth: 30, height: 20 }),
      'overhang',
    );
    expect([found.severity, found.aspect]).toEqual(['risk', 'head']);
    expect(
      findings(stand(shapedCard(SCALLOPED, 104), 'step-fold', { depth: 60, height: 60, width: 40 }), 'overhang').map(
        (f) => [f.severity, f.aspect],
      ),
    ).toEqual([['blocks', 'fore']]);
  });
  test('a floating band and a plain scalloped card are clear', () => {
    for (const d of [
      shapedCard(SCALLOPED, 104),
      stand(shapedCard(SCALLOPED, 104), 'floating-band', { slit: 80, width: 16 }),
    ])
      expect(prove(d, 12).findings.filter((f) => f.severity !== 'note')).toEqual([]);
  });
  test('what really is missing is said in mm', () => {
    const tapered = shapedCard('M-80 0V-20L-60 -40V-100H60V-40L80 -20V0Z', 100);
    const [found] = findings(
      stand(tapered, 'step-fold', { edge: 'right', width: 15, depth: 50, height: 20 }),
      'loose-part',
    );
    // The step begins 65 from the middle; at 50 from the gutter the card is 60 wide to each side.
    expect(found.message).toContain('its base has no paper: the edge of the page lies 5.0 mm short of it');
  });
  test('rounded corners cut nothing away from a step below them', () => {
    const rounded = shapedCard('M-80 0V-80A20 20 0 0 0 -60 -100H60A20 20 0 0 0 80 -80V0Z', 100);
    const d = stand(rounded, 'step-fold', { edge: 'right', width: 40, depth: 90, height: 8, riser: 8 });
    expect(findings(d, 'loose-part')).toEqual([]);
  });
});

test('an uneven base keeps its true ends: 160 from -50 to 110, not 220', () => {
  // The gutter runs 100 mm, from -50 to 50; leaf A goes on to 110 beside it.
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 300 300">' +
    '<g id="cut"><path d="M50 30H210V90H150V170H50Z"/></g><g id="valley"><path d="M50 100H150"/></g></svg>';
  const raw = readTemplate(svg, 'uneven.svg');
  const groups = raw.groups.map(({ key, layer, colour, dashed, role }) => ({ key, layer, colour, dashed, role }));
  const d = withTemplate(card(), {
    name: 'uneven',
    scale: 1,
    mended: false,
    lines: raw.lines,
    groups,
    picked: {},
    lead: null,
  });
  const a = buildAssembly(d);
  const { foot, head, spine, fore } = baseExtent(a);
  expect([foot, head].map(Math.abs).sort((p, q) => p - q)).toEqual([expect.closeTo(50, 6), expect.closeTo(110, 6)]);
  // 70 and 70 mm, or 60 and 80 mm, by which leaf it lies.
  expect(spine).toBeCloseTo(0, 6);
  expect([60, 70, 80].some((reach) => Math.abs(fore - reach) < 1e-6)).toBe(true);
  expect(closedSize({ assembly: a, closed: poseOpen(a, 0) }).alongMm).toBeCloseTo(160, 6);
  // What sticks out near a corner is past the end it is nearest to, counted from the middle of this base.
  const low = foot > -60;
  const far = low ? 1 : -1;
  for (const [x, y, side] of [
    [3 * far, -10, low ? 'head' : 'foot'],
    [-40 * far, 3, 'fore'],
    [0, 0, null],
  ] as const) {
    const flag = layered(d, {
      shape: { width: 6, height: 6 },
      from: { x: low ? 'high' : 'low', y: 'high' },
      x,
      y,
    });
    const on = buildAssembly(flag);
    const past = overhangOf(on, poseOpen(on, 0));
    expect(Object.entries(past).filter(([, mm]) => mm > 0)).toEqual(side ? [[side, expect.closeTo(3, 3)]] : []);
  }
});

describe('layers that hold down what must lift', () => {
  const step = stand(card(190, 130), 'step-fold', { depth: 40, height: 15, width: 60 });
  const patch = (x: number, y = 5) =>
    layered(step, { shape: { width: 40, height: 8 }, from: { x: 'middle', y: 'low' }, x, y });
  test('a patch on leaf A over the tread: it lifts as high as the step at its wall', () => {
    const [found] = findings(patch(40), 'collision');
    expect(found.severity).toBe('blocks');
    expect(found.subjects).toEqual(['layer.l1', 'step-fold-1.tread']);
    // The tread is level with leaf A when half open, 15 mm up.
    expect([found.measured, found.drive.open]).toEqual([expect.closeTo(15, 6), 90]);
  });
  test('an edge that laps over by less than paper is thick slips off; a little more is held', () => {
    // 30 is the slit; the patch reaches 20 to each side. Calipers 0.3 and 0.2 and a contact of 0.05 are taken up.
    const overlap = (mm: number) => findings(patch(50 - mm), 'collision').length;
    expect([overlap(0), overlap(0.4), overlap(0.7)]).toEqual([0, 0, 1]);
  });
  test('over a leaf that goes with its own facet nothing is held', () => {
    expect(findings(patch(70), 'collision')).toEqual([]);
  });
});

describe('words that are true', () => {
  const glued = (tread: number) =>
    stand(card(200, 120), 'step-fold', { build: 'glued', depth: 40, height: 25, riser: 30, tread, width: 60 });
  test('a gap is taken up by paper to 0.05 mm, and said above that; never as 0.00', () => {
    for (const tread of [45.004, 45.0499, 34.9501 + 10]) {
      expect(findings(glued(tread), 'flat-fold')).toEqual([]);
      expect(findings(glued(tread), 'flex')).toEqual([]);
      expect(poseOpen(buildAssembly(glued(tread)), 0.3).stop).toBeUndefined();
    }
    const [found] = findings(glued(45.051), 'flat-fold');
    expect(found.measured).toBeCloseTo(0.051, 6);
    expect(found.message).not.toContain('0.00');
  });
  test('overlapping steps are said to want the same paper, not to differ by a length', () => {
    const both = stand(stand(card(), 'step-fold', {}), 'step-fold', { offset: 20, depth: 40, height: 40 });
    expect(findings(both, 'flat-fold')).toEqual([]);
    // Widths 40 and 40, middles 20 apart: 20 of overlap, as high as the lower step: 50.
    expect(findings(both, 'loose-part').map((f) => [f.aspect, f.measured])).toEqual([
      ['clash step-fold-1', expect.closeTo(20 * 50, 6)],
    ]);
  });
  test('a V-fold whose tabs have no room says so, and claims no angle', () => {
    const d = stand(card(), 'v-fold', { size: 10, tab: 20, lean: 20 });
    expect(findings(d, 'loose-part').map((f) => f.aspect)).toEqual(['unheld tabs']);
    expect(prove(d, 4).measures['v-fold-1']).toEqual({});
  });
  test('bonds that hold one facet in two places are found, and by how much', async () => {
    const { layOut, assemble } = await import('../assembly/assembly');
    const d = stand(card(), 'step-fold', { build: 'glued', depth: 30, height: 30 });
    const own = buildAssembly(d);
    const parts = {
      pieces: own.pieces,
      interruptions: own.interruptions,
      mechanisms: own.mechanisms,
      hosts: own.hosts,
      base: own.base,
      lead: own.lead,
    };
    const twice = (mm: number) => {
      const placement = own.bonds[0].placement.slice();
      placement[3] += mm;
      return assemble(
        layOut({ ...parts, bonds: [...own.bonds, { ...own.bonds[0], id: 'step-fold-1.again', placement }] }),
      ).misfits;
    };
    expect(twice(0)).toEqual([]);
    expect(twice(0.00009)).toEqual([]);
    expect(twice(2).map((m) => [m.kind, m.mechanism, m.sizeMm])).toEqual([
      ['contradiction', 'step-fold-1', expect.closeTo(2, 9)],
    ]);
  });
  test('a V-fold goes taut where spherical trigonometry has it, to 0.002 degrees, and by that name', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 85, noNaN: true }),
        fc.double({ min: 0.1, max: 0.98, noNaN: true }),
        fc.constantFrom('valley', 'mountain'),
        (lean, part, crease) => {
          const fold = Math.max(8, lean * part);
          fc.pre(fold < lean - 1);
          const [L, F] = [(lean * Math.PI) / 180, (fold * Math.PI) / 180];
          // docs/mechanisms.md, v-fold: cos²(open/2) = (cos² F - cos² L) / sin² L.
          const taut = radToDeg(2 * Math.acos(Math.sqrt((Math.cos(F) ** 2 - Math.cos(L) ** 2) / Math.sin(L) ** 2)));
          const stops = buildAssembly(stand(card(400, 300), 'v-fold', { lean, fold, size: 60, crease })).travel.stops();
          expect(stops.map((s) => s.reason)).toEqual(['taut']);
          expect(Math.abs(180 - radToDeg(stops[0].drive) - taut)).toBeLessThan(0.002);
        },
      ),
      { numRuns: 40 },
    );
  });
});
