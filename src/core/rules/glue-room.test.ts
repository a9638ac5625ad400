/**
 * Adhesives by bond: where tape lets go and foam tears (common practice, no source), what they add to the stack, areas
 * set in further by hand against plain rectangles.
 */
import { buildAssembly } from '../build/build';
import { blankDesign, type Design, type Gluing } from '../document/design';
import { rebuiltAs, removeMechanism } from '../document/standing';
import { repairDesign } from '../document/repair';
import { checkDesign } from '../document/schema';
import { gather } from '../proof/prove';
import { ringArea } from '../plane/polygon';
import { cutList } from '../sheets/cutlist';
import { card, findings, layered, stand } from '../tests/cards';
import type { RuleId } from './rule';
import { adhesive } from '../paper/adhesives';
import { postedStack } from './posted';

const glued = (): Design => stand(card(200, 120), 'step-fold', { build: 'glued', depth: 40, height: 40, width: 60 });
const by = (d: Design, ...gluing: Gluing[]): Design => ({ ...d, gluing });
const glueOf = (d: Design): string[] => buildAssembly(d).pieces.flatMap((p) => p.glue.map((g) => g.id));
const told = (d: Design, rule: RuleId): string[] =>
  findings(d, rule)
    .filter((f) => / tape$| glued$/.test(f.aspect))
    .map((f) => f.severity);

test('tape on the tabs of a step is a risk, foam blocks; wet glue and strong tape hold', () => {
  const [tab] = glueOf(glued());
  const stuck = (adhesive: Gluing['adhesive']): Design => by(glued(), { glue: tab, adhesive });
  expect(told(stuck('wet'), 'glue-room')).toEqual([]);
  expect(told(stuck('strong-tape'), 'glue-room')).toEqual([]);
  expect(told(stuck('tape'), 'glue-room')).toEqual(['risk']);
  expect(told(stuck('foam'), 'foam')).toEqual(['blocks']);
});

test('a liner and what does not move may be stuck with anything; what pulls, shears or stands may not', () => {
  const lined: Design = { ...blankDesign('x'), card: { ...blankDesign('x').card, parameters: { liner: 6 } } };
  const all = (d: Design, adhesive: Gluing['adhesive']): Design =>
    by(d, ...glueOf(d).map((glue) => ({ glue, adhesive })));
  expect(told(all(lined, 'tape'), 'glue-room')).toEqual([]);
  expect(told(all(lined, 'foam'), 'foam')).toEqual([]);
  const pulled = stand(blankDesign('x'), 'lift-tab', {});
  expect(glueOf(pulled)).toContain('lift-tab-1.glueTab');
  expect(told(all(pulled, 'tape'), 'glue-room')).toEqual(['risk', 'risk', 'risk']);
  const box = rebuiltAs(blankDesign('x'), 'box-frame');
  expect(told(all(box, 'foam'), 'foam')).toEqual(['blocks', 'blocks', 'blocks', 'blocks']);
  const wheel = stand(blankDesign('x'), 'carrier-wheel', {});
  expect(told(all(wheel, 'tape'), 'glue-room')).toEqual([]);
});

test('its thickness lies in the stack of the shut card, where the glue is', () => {
  const lined: Design = { ...blankDesign('x'), card: { ...blankDesign('x').card, parameters: { liner: 6 } } };
  const [a, b] = glueOf(lined);
  const thick = (d: Design): number => postedStack(gather(d, 'closed'))!.greatest.mm;
  const plain = thick(lined);
  expect(thick(by(lined, { glue: a, adhesive: 'tape' })) - plain).toBeCloseTo(0.1, 6);
  const both = by(lined, { glue: a, adhesive: 'foam', foamMm: 1.5 }, { glue: b, adhesive: 'foam' });
  expect(thick(both) - plain).toBeCloseTo(2.5, 6);
});

test('an area set in by hand is that much smaller on every side; its width is judged as it is', () => {
  const [tab] = glueOf(glued());
  const areaOf = (d: Design) =>
    buildAssembly(d)
      .pieces.flatMap((p) => p.glue)
      .find((g) => g.id === tab)!;
  const was = areaOf(glued());
  const box = (ring: readonly (readonly [number, number])[]) => {
    const [xs, ys] = [ring.map((p) => p[0]), ring.map((p) => p[1])];
    return [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
  };
  const [w, h] = box(was.outline);
  const set = areaOf(by(glued(), { glue: tab, adhesive: 'wet', insetMm: 1.25 }));
  expect(box(set.outline)).toEqual([expect.closeTo(w - 2.5, 5), expect.closeTo(h - 2.5, 5)]);
  expect(Math.abs(ringArea(set.onto.outline))).toBeCloseTo((w - 2.5) * (h - 2.5), 3);
  // Common practice, no source: wet glue from 6 mm, tape from 3 mm.
  expect((['wet', 'tape', 'strong-tape'] as const).map((id) => adhesive(id).leastWideMm)).toEqual([6, 3, 3]);
  for (const [how, least] of [
    ['wet', 6],
    ['strong-tape', 3],
  ] as const) {
    const narrow = (insetMm: number): number =>
      findings(by(glued(), { glue: tab, adhesive: how, insetMm }), 'glue-room').filter((f) => /width/.test(f.aspect))
        .length;
    const limit = (Math.min(w, h) - least) / 2;
    expect([-0.01, 0, 0.01].map((past) => narrow(limit + past))).toEqual([0, 0, 1]);
  }
  const gone = buildAssembly(by(glued(), { glue: tab, adhesive: 'wet', insetMm: 80 }));
  expect(gone.misfits.map((m) => m.key)).toContain(`glue ${tab}`);
});

test('what is stuck how is listed, kept in the file, goes with its mechanism, and is named where it is lost', () => {
  const [tab] = glueOf(glued());
  const d = by(glued(), { glue: tab, adhesive: 'strong-tape', insetMm: 0.5 });
  expect(cutList(d, buildAssembly(d)).flatMap((r) => r.glue)[0]).toMatch(/strong tape$/);
  const read = checkDesign(JSON.parse(JSON.stringify(d)));
  expect(read.ok && read.design.gluing).toEqual(d.gluing);
  expect(removeMechanism(d, 'step-fold-1').gluing).toEqual([]);
  const lost = buildAssembly(by(glued(), { glue: 'step-fold-9.glueA', adhesive: 'tape' })).misfits;
  expect(lost.map((m) => m.kind)).toContain('nowhere');
  const bad = { ...d, gluing: [{ glue: tab, adhesive: 'spit' }] };
  expect(checkDesign(JSON.parse(JSON.stringify(bad))).ok).toBe(false);
  expect(repairDesign(JSON.parse(JSON.stringify(bad)))?.design.gluing).toEqual([]);
});

test('a label past the free edge of a flap is said to be stuck to the flap only; one within it says nothing', () => {
  const gate = rebuiltAs(blankDesign('x'), 'gate-insert');
  const { polygon } = buildAssembly(gate).facets.find((f) => f.id === 'leafB')!;
  const reach = Math.max(...polygon.outer.map((p) => Math.abs(p[1])));
  const label = (width: number): Design =>
    layered(gate, { facet: 'leafB', side: 'outside', shape: { rect: { width, height: width } }, stock: 'card-160' });
  const told = (width: number): string[] =>
    findings(label(width), 'glue-room').flatMap((f) => (/ past$/.test(f.aspect) ? [`${f.severity} ${f.message}`] : []));
  // In the middle of the flap it fits up to its reach.
  expect(told(reach - 0.1)).toEqual([]);
  expect(told(reach)).toEqual([]);
  const [note] = told(reach + 4);
  expect(note).toMatch(/^note .*reaches past the flap, over the back when shut: stick it to the flap only/);
});
