/** Joins made by hand: two pieces whose places are given, put edge to edge, turned, reversed, dropped. */
import { buildAssembly } from '@/core/build/build';
import { blankDesign, type Design } from '@/core/document/design';
import type { TemplateJoin } from '@/core/document/template';
import { facetOutline, poseAt } from '@/core/assembly/pose';
import type { Ring } from '@/core/plane/polygon';
import { drawnLine, plainTemplate } from '@/core/tests/templates';
import { dropped, edgesOf, joinEdges, nearestEdge, reversed, turnedOver } from './joining';

/** A page of 200 by 160 folded in its middle, and a strip of 60 by 20 beside it. */
const PAGE: Ring = [
  [0, 0],
  [200, 0],
  [200, 160],
  [0, 160],
];
const STRIP: Ring = [
  [300, 50],
  [360, 50],
  [360, 70],
  [300, 70],
];
/** A piece whose edge of 60 the strip's is put to. */
const TAB: Ring = [
  [300, 100],
  [360, 100],
  [360, 130],
  [300, 130],
];
const sheets = [PAGE, STRIP, TAB];
const LINES = [
  ...sheets.map((points, k) => drawnLine(`piece-${k}`, 'cut', true, ...points)),
  drawnLine('fold', 'valley', false, [0, 80], [200, 80]),
];
const placesOf = (joins: readonly TemplateJoin[], piece: number): string[] => {
  const d: Design = {
    ...blankDesign('t'),
    card: { ...blankDesign('t').card, template: plainTemplate(LINES, { joins }) },
  };
  const a = buildAssembly(d);
  const facet = a.facets.findIndex((f) => f.piece === `card-part-${piece}`);
  // The card's middle is at (100, 80) of the drawing.
  return facetOutline(poseAt(a, { open: 180 }), a.facets, facet)
    .map((p) => `${(p[0] + 100).toFixed(3)} ${(p[1] + 80).toFixed(3)}`)
    .sort();
};
const at = (...points: readonly (readonly [number, number])[]): string[] =>
  points.map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`).sort();

test('let go over a page a piece is glued just where it lies', () => {
  const join = dropped(sheets, [], 1, [-280, -30], [50, 30], 2)!;
  expect(join).toMatchObject({ kind: 'bond', turned: false });
  // 60 by 20 is the smallest piece: the third of the card.
  expect(placesOf([join], 3)).toEqual(at([20, 20], [80, 20], [80, 40], [20, 40]));
  expect(dropped(sheets, [], 1, [200, 300], [530, 360], 2)).toBeNull();
});

test('near an equal edge it is put to that, exactly', () => {
  // The lower edge of the tab comes to 1.2 mm from the upper edge of the strip.
  const met = dropped(sheets, [], 2, [0.5, -31.1], [330, 85], 2)!;
  expect(met.a.from[1]).toBeCloseTo(70, 9);
  const strip = dropped(sheets, [], 1, [-280, -30], [50, 30], 0.1)!;
  expect(placesOf([strip, { ...met, id: 'met' }], 2)).toEqual(at([20, 40], [80, 40], [80, 70], [20, 70]));
  expect(dropped(sheets, [], 2, [5, -35], [335, 80], 2)?.a.from).not.toEqual(met.a.from);
});

test('two edges are matched so that the second piece lies over the first; reversed and turned over it does not', () => {
  const [edge] = edgesOf(STRIP);
  const [, , upper] = edgesOf(TAB);
  const join = joinEdges(sheets, [], edge, upper) as TemplateJoin;
  const strip = dropped(sheets, [join], 1, [-280, -30], [50, 30], 0.1)!;
  // Both lie on the same side of the edge at y = 20.
  expect(placesOf([strip, join], 2)).toEqual(at([20, 20], [80, 20], [80, 50], [20, 50]));
  expect(placesOf([strip, turnedOver(join)], 2)).toEqual(at([20, 20], [80, 20], [80, -10], [20, -10]));
  expect(placesOf([strip, turnedOver(reversed(join))], 2)).toEqual(at([20, 20], [80, 20], [80, 50], [20, 50]));
  expect(joinEdges(sheets, [], edge, edgesOf(STRIP)[2])).toMatch(/one piece/);
  expect(joinEdges(sheets, [], { a: [900, 0], b: [910, 0] }, edge)).toMatch(/no paper/);
});

test('the edge under the hand is the nearest one', () => {
  const lines = sheets.map((points) => ({ points, closed: true }));
  expect(nearestEdge(lines, [330, 71])).toEqual({ a: [360, 70], b: [300, 70] });
  expect(nearestEdge(lines, [-3, 40])).toEqual({ a: [0, 160], b: [0, 0] });
  expect(nearestEdge([], [0, 0])).toBeNull();
});
