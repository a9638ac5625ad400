/** Outlines with an edge in common, against plane geometry: what is drawn stays drawn, each stretch once. */
import fc from 'fast-check';
import { withTemplate } from '../build/bring';
import { buildAssembly } from '../build/build';
import { sheetsNamed, templateLines } from '../build/template';
import { severingIn } from '../build/template-severing';
import { GUTTER } from '../kinds';
import { blankDesign } from '../document/design';
import type { Template } from '../document/template';
import { rectangle, regionArea } from '../plane/polygon';
import { dist2, type Vec2 } from '../plane/vec2';
import { readTemplate } from './template-read';
import { withoutSharedEdges } from './template-shared';

const long = (points: readonly Vec2[]): number => points.slice(1).reduce((sum, p, k) => sum + dist2(p, points[k]), 0);
const closedLong = (points: readonly Vec2[]): number => long([...points, points[0]]);
const partsOf = (...rings: (readonly Vec2[])[]): readonly (readonly Vec2[])[] => {
  const found = withoutSharedEdges(rings.map((points, k) => ({ id: `r${k}`, points })));
  return [...found.values()].flat().map((p) => p.points);
};

test('two panels side by side, of any heights: their common stretch once, all else as it was', () => {
  const mm = fc.double({ min: 5, max: 90, noNaN: true });
  fc.assert(
    fc.property(
      mm,
      mm,
      mm,
      mm,
      fc.double({ min: -60, max: 60, noNaN: true }),
      fc.boolean(),
      (w, h, v, g, y, turned) => {
        const left = rectangle(0, 0, w, h);
        const right = rectangle(w, y, w + v, y + g);
        const common = Math.min(h, y + g) - Math.max(0, y);
        fc.pre(common > 1.1 || common < -0.1);
        const parts = partsOf(left, turned ? right.toReversed() : right);
        if (common < 0) return expect(parts).toEqual([]);
        const all = closedLong(left) + closedLong(right) - common;
        // Less than the width of two hairs may be given to either.
        expect(Math.abs(parts.reduce((sum, p) => sum + long(p), 0) - all)).toBeLessThan(0.05);
        // One of them is the common stretch itself.
        expect(parts.filter((p) => p.every(([x]) => Math.abs(x - w) < 1e-9)).map(long)).toContainEqual(
          expect.closeTo(common, 1),
        );
      },
    ),
  );
});

test.each([
  [0.01, 1],
  [0.03, 0],
])('edges %p mm apart: %p lines are taken apart', (apart, shared) => {
  const parts = partsOf(rectangle(0, 0, 50, 30), rectangle(50 + apart, 0, 80, 30));
  expect(parts.length > 0 ? 1 : 0).toBe(shared);
});
test.each([
  [0.9, 0],
  [1.1, 1],
])('%p mm in common: %p lines are taken apart', (common, shared) => {
  const parts = partsOf(rectangle(0, 0, 50, 30), rectangle(50, 30 - common, 80, 60));
  expect(parts.length > 0 ? 1 : 0).toBe(shared);
});

test('a window whose edge lies on that of its panel, and a line drawn twice, are no panels side by side', () => {
  expect(partsOf(rectangle(0, 0, 50, 30), rectangle(0, 10, 20, 20))).toEqual([]);
  expect(partsOf(rectangle(0, 0, 50, 30), rectangle(0, 0, 50, 30))).toEqual([]);
});

test('a curve in common is one stretch', () => {
  const arc = Array.from({ length: 21 }, (_, k): Vec2 => {
    const t = (k * Math.PI) / 20;
    return [40 + 8 * Math.sin(t), 15 - 15 * Math.cos(t)];
  });
  const parts = partsOf([[0, 0], ...arc, [0, 30]], [[80, 0], [80, 30], ...arc.toReversed()]);
  expect(parts.map(long).filter((mm) => Math.abs(mm - long(arc)) < 1e-6)).toHaveLength(1);
  expect(parts).toHaveLength(3);
});

const PANELS =
  '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">' +
  '<g fill="none" stroke="#000"><rect id="back" x="10" y="10" width="120" height="80"/>' +
  '<rect id="front" x="10" y="90" width="120" height="80"/></g></svg>';

test('windows side by side in one panel stay windows: nothing is asked, and no paper is left in them', () => {
  const rects = [
    [10, 10, 120, 80],
    [30, 30, 20, 20],
    [50, 30, 20, 30],
  ]
    .map(([x, y, w, h], k) => `<rect id="r${k}" x="${x}" y="${y}" width="${w}" height="${h}"/>`)
    .join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">
    <g fill="none" stroke="#000">${rects}</g></svg>`;
  const { lines, groups } = readTemplate(svg, 'windows.svg');
  expect(lines.map((l) => [l.id, l.closed])).toEqual([
    ['r0', true],
    ['r1', true],
    ['r2', true],
  ]);
  const t: Template = { name: 'w', scale: 1, mended: false, picked: {}, lead: null, lines, groups };
  expect(severingIn(t, templateLines(t))).toEqual([]);
  const [{ sheet }] = sheetsNamed(t);
  expect(regionArea([sheet.rest])).toBeCloseTo(120 * 80 - 20 * 20 - 20 * 30, 3);
});

test('a fold that is drawn on what two leaves share is that fold: nothing is asked, and nothing cuts it', () => {
  const folded = PANELS.replace('</g>', '<path id="fold" stroke-dasharray="4 2" d="M10 90H130"/></g>');
  const { lines, groups } = readTemplate(folded, 'card.svg');
  const t: Template = { name: 'card', scale: 1, mended: false, picked: {}, lead: null, lines, groups };
  expect(severingIn(t, templateLines(t))).toEqual([]);
  const assembly = buildAssembly(withTemplate(blankDesign('card'), t));
  expect(assembly.facets.map((f) => f.id).sort()).toEqual(['leafA', 'leafB']);
  expect(assembly.pieces[0].lines.filter((l) => l.role === 'cut')).toEqual([]);
});

test('a card whose leaves are drawn as two rectangles is asked about its fold, and opens on it', () => {
  const { lines, groups } = readTemplate(PANELS, 'card.svg');
  expect(groups.reduce((n, g) => n + g.count, 0)).toBe(lines.length);
  const t: Template = { name: 'card', scale: 1, mended: false, picked: {}, lead: null, lines, groups };
  const [asked, ...others] = severingIn(t, templateLines(t));
  expect(others).toEqual([]);
  expect(asked).toMatchObject({ longMm: expect.closeTo(120, 6), mayFold: true });
  const folded = { ...t, picked: { [asked.lines[0]]: 'valley' as const } };
  const assembly = buildAssembly(withTemplate(blankDesign('card'), folded));
  expect(assembly.pieces).toHaveLength(1);
  expect(assembly.facets.map((f) => f.id).sort()).toEqual(['leafA', 'leafB']);
  expect(assembly.hosts.get(GUTTER)!.lengthMm).toBeCloseTo(120, 6);
  // A real cut parts them.
  const cut = { ...t, picked: { [asked.lines[0]]: 'cut' as const } };
  expect(severingIn(cut, templateLines(cut))).toEqual([]);
});
