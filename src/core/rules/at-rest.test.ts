/** Posted at rest: what makes the shut card longer or thicker when it is moved is noted, and nothing else. */
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { CENTRE, newLayer, type Design, type Mount } from '../document/design';
import type { ParameterValues } from '../kinds';
import { gather } from '../proof/evidence';
import { card } from '../tests/cards';
import { poseAt } from '../assembly/pose';
import { RULES } from '.';

const on = (kind: string, values: ParameterValues, mount: Partial<Mount>): Design =>
  addMechanism(card(200, 140), kind, { on: 'leafB', mount: { ...CENTRE, ...mount } }, values).design;
const notes = (d: Design) => {
  const evidence = gather(d, 'travel', 2);
  return RULES.filter((r) => r.id === 'overhang' || r.id === 'thickness')
    .flatMap((r) => r.check(evidence))
    .filter((f) => f.aspect.startsWith('out of rest'));
};

test('a ticket that is drawn out sticks out as far as it is drawn past the edge', () => {
  const d = on('pocket', { width: 100, height: 60, insertWidth: 85.6, insertHeight: 54 }, { side: 'inside', y: 60 });
  const [note] = notes(d).filter((f) => f.rule === 'overhang');
  const a = buildAssembly(d);
  const draw = a.drives.find((x) => x.id === 'pocket-1.draw')!;
  expect([note.severity, note.mechanism, note.aspect]).toEqual(['note', 'pocket-1', 'out of rest pocket-1.draw']);
  expect(note.drive[draw.id]).toBeCloseTo(draw.to, 6);
  // Brute force: the corner of the shut card's paper that is furthest past a leaf, read off the pose.
  const { placed } = poseAt(a, note.drive);
  const past = Math.max(
    ...a.facets.flatMap((f, i) =>
      f.polygon.outer.map(([x, y]) => {
        const m = placed[i];
        const [X, Y] = [m[0] * x + m[1] * y + m[3], m[4] * x + m[5] * y + m[7]];
        return Math.max(Math.abs(X) - 100, Y - 140, -Y);
      }),
    ),
  );
  expect(note.measured).toBeCloseTo(past, 6);
});

test('a disc that turns in its place changes nothing', () =>
  expect(notes(on('volvelle', { width: 90, height: 90, radius: 35 }, { side: 'outside' }))).toEqual([]));

test('a token that comes to lie over something thick is noted with what it adds', () => {
  const slider = on('track-slider', { width: 120, height: 60, path: { line: 70 } }, { side: 'inside' });
  const patch = newLayer({
    ...{ id: 'pad', name: 'Pad', facet: 'leafA', shape: { circle: 12 }, as: 'layer', stock: 'card-240' },
  });
  // The shut card's leaf A lies under leaf B: the middle of the way is under the middle of the patch.
  const d: Design = { ...slider, layers: [{ ...patch, foamMm: 3, foamInsetMm: 1 }] };
  const thicker = notes(d).filter((f) => f.rule === 'thickness');
  const plain = notes(slider).filter((f) => f.rule === 'thickness');
  expect(plain).toEqual([]);
  expect(thicker).toHaveLength(1);
  // The carrier, of 0.3 mm, comes over the patch: the thickest place of the card by far. The token runs in its gap.
  expect(thicker[0].measured).toBeCloseTo(0.3, 5);
});
