/** Outer edges of kinds turned plain, against plane geometry: what lies in a corner goes along, glue stays alike. */
import { shelveFonts } from '../../fonts/shelve';
import { checkDesign } from '../document/schema';
import type { Design } from '../document/design';
import { linesOf, partsOf, type Piece } from '../kinds';
import { valuesOf } from '../document/fields';
import { dist2, type Vec2 } from '../plane/vec2';
import { card, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { buildAssembly } from './build';
import { withOwnCorner } from './own-edges';
import { ownHoldOf } from './own-ends';
import { turnedPlain } from './plain';

beforeAll(shelveFonts);
const plainV = () => turnedPlain(stand(card(200, 120), 'v-fold', { size: 40 }), 'v-fold-1');
const piecesOf = (d: Design, id: string): readonly Piece[] =>
  partsOf(valuesOf(d.mechanisms.find((m) => m.id === id)!))!.pieces;
/** What congruent outlines have in common: lengths of edges, and of the ways from the middle of all corners. */
function lengths(ring: readonly Vec2[]): number[] {
  const middle: Vec2 = [mean(ring.map(([x]) => x)), mean(ring.map(([, y]) => y))];
  const edges = ring.map((p, i) => dist2(p, ring[(i + 1) % ring.length]));
  const spokes = ring.map((p) => dist2(p, middle));
  return [...edges.sort((a, b) => a - b), ...spokes.sort((a, b) => a - b)];
}
const mean = (of: readonly number[]): number => of.reduce((sum, v) => sum + v, 0) / of.length;
/** Greatest difference of the lengths of two outlines; infinite where they have not as many corners. */
function unlike(a: readonly Vec2[], b: readonly Vec2[]): number {
  if (a.length !== b.length) return Infinity;
  const [p, q] = [lengths(a), lengths(b)];
  return Math.max(...p.map((l, i) => Math.abs(l - q[i])));
}

test('every corner of its own pieces can be led, and none of the base', () => {
  const d = plainV();
  const { corners } = ownHoldOf(d, 'v-fold-1');
  const outlines = buildAssembly(d).pieces.filter((p) => p.mechanism === 'v-fold-1');
  expect(corners.map((c) => [c.piece, ...c.at])).toEqual(
    outlines.flatMap((p) => p.outline.outer.map((at) => [p.id, ...at])),
  );
  expect(ownHoldOf(stand(card(), 'v-fold', { size: 40 }), 'v-fold-1').corners).toEqual([]);
});

const plain = demoCards().flatMap(([file, d]) =>
  d.mechanisms.flatMap((m): [string, Design, string][] => [[`${file}, ${m.kind}`, d, m.id]]),
);
test.each(plain)('of %s: a corner is where it was led, nothing else moves, glue stays congruent', (_, design, id) => {
  const d = turnedPlain(design, id);
  const { corners } = ownHoldOf(d, id);
  for (const corner of corners.slice(0, 6)) {
    const to: Vec2 = [corner.at[0] + 0.7, corner.at[1] - 0.4];
    const moved = withOwnCorner(d, id, corner, to);
    expect(checkDesign(moved)).toMatchObject({ ok: true });
    const [before, after] = [piecesOf(d, id), piecesOf(moved, id)];
    before.forEach((p, k) => {
      const same = (at: Vec2): Vec2 => (k === corner.index && dist2(at, corner.at) < 1e-6 ? to : at);
      expect(after[k].outline.outer).toEqual(p.outline.outer.map(same));
      p.glue.forEach((g, i) => {
        const now = after[k].glue[i];
        expect(now.outline).toEqual(g.outline.map(same));
        if (unlike(g.outline, g.onto.outline) < 1e-6) expect(unlike(now.outline, now.onto.outline)).toBeLessThan(1e-6);
      });
    });
  }
});

test('a crease that ends in the corner goes with it, one that hangs on something does not', () => {
  const d = plainV();
  const { corners, ends } = ownHoldOf(d, 'v-fold-1');
  const corner = corners.find((c) => ends.some((e) => e.piece === c.piece && dist2(e.at, c.at) < 1e-6))!;
  const to: Vec2 = [corner.at[0] + 1, corner.at[1] + 2];
  const moved = withOwnCorner(d, 'v-fold-1', corner, to);
  const after = ownHoldOf(moved, 'v-fold-1').ends;
  ends.forEach((e, k) => {
    const here = e.piece === corner.piece && dist2(e.at, corner.at) < 1e-6;
    expect(dist2(after[k].at, here ? to : e.at)).toBeLessThan(1e-6);
  });
  const lines = linesOf(valuesOf(moved.mechanisms[0]));
  expect(lines.map((l) => l.name)).toEqual(linesOf(valuesOf(d.mechanisms[0])).map((l) => l.name));
});

test('glue in the corner is led with it, on what it sticks to as well', () => {
  const d = plainV();
  const { corners } = ownHoldOf(d, 'v-fold-1');
  const pieces = piecesOf(d, 'v-fold-1');
  const inGlue = (at: Vec2, k: number) => pieces[k].glue.some((g) => g.outline.some((p) => dist2(p, at) < 1e-6));
  const corner = corners.find((c) => inGlue(c.at, c.index))!;
  const after = piecesOf(withOwnCorner(d, 'v-fold-1', corner, [corner.at[0] + 1, corner.at[1] + 2]), 'v-fold-1');
  const moved = pieces[corner.index].glue.flatMap((g, i) => {
    const now = after[corner.index].glue[i];
    const way = (a: readonly Vec2[], b: readonly Vec2[]) => Math.max(...a.map((p, k) => dist2(p, b[k])));
    return [[way(g.outline, now.outline), way(g.onto.outline, now.onto.outline)]];
  });
  for (const pair of moved.filter(([a]) => a > 0)) pair.forEach((mm) => expect(mm).toBeCloseTo(Math.hypot(1, 2), 6));
  expect(moved.some(([a]) => a > 0)).toBe(true);
});
