/**
 * The paper of a brought-in template, its creases, and which of them is the gutter. Throws ShapeError with what is
 * wrong and what would be right.
 */
import { group } from 'd3-array';
import type { Template } from '../document/template';
import { isCrease, segmentsOf, type TemplateLine } from '../pattern/mending';
import { arrange, meetMoreThan } from '../plane/arrangement';
import {
  boxesMeet,
  boxOf,
  contains,
  largest,
  polygonArea,
  subtract,
  unite,
  type Polygon,
  type Region,
  type Ring,
} from '../plane/polygon';
import { cross2, dist2, distToLine, dot2, lerp2, sub2, type Vec2 } from '../plane/vec2';
import { ShapeError } from '../shapes/shape';

export const pairs = (l: TemplateLine): { a: Vec2; b: Vec2 }[] => segmentsOf(l).map(([a, b]) => ({ a, b }));

/** One sheet: its outline, all of it, and what its windows leave. */
export interface Sheet {
  readonly outer: Ring;
  readonly whole: Polygon;
  readonly rest: Polygon;
}

/** A card has no more places where its lines cross; a net of lines, each across all others, soon has millions. */
const MOST_CROSSINGS = 30_000;
/** Throws ShapeError where lines meet too often to be told apart. */
export function checkCrossings(lines: readonly TemplateLine[]): void {
  if (!meetMoreThan(lines.filter((l) => l.role === 'cut' || isCrease(l)).flatMap(pairs), MOST_CROSSINGS)) return;
  throw new ShapeError(
    `cut and fold lines cross or all but touch each other at more than ${MOST_CROSSINGS} places; give lines that are ` +
      'only drawn the role mark',
  );
}

/** What is cut away. */
export function windowsOf(lines: readonly TemplateLine[]): Region {
  const drawn: Region = lines.filter((l) => l.role === 'window').flatMap((l) => unite(arrange(pairs(l)).faces));
  return unite(drawn);
}

/**
 * Paper between cut lines. A line that nobody said is a real cut may yet be a fold: what it parts stays one sheet, or
 * a drawing that has its folds as cuts would fall to pieces.
 */
function paperOf(lines: readonly TemplateLine[]): Region {
  const cuts = lines.filter((l) => l.role === 'cut');
  const { edges, faces } = arrange(cuts.flatMap(pairs));
  if (!cuts.some((l) => l.meant)) return unite(faces);
  const meant = cuts.flatMap((l) => pairs(l).map(() => l.meant === true));
  const leads = faces.map((_, k) => k);
  const leadOfFace = (k: number): number => (leads[k] === k ? k : (leads[k] = leadOfFace(leads[k])));
  for (const { left, right, sources } of edges)
    if (left >= 0 && right >= 0 && !sources.some((s) => meant[s])) leads[leadOfFace(left)] = leadOfFace(right);
  return [...group(faces, (_, k) => leadOfFace(k)).values()].flatMap((same) => unite(same));
}

/** Sheets of paper, the largest first. */
export function sheetsOf(lines: readonly TemplateLine[]): readonly Sheet[] {
  const paper = paperOf(lines);
  if (paper.length === 0)
    throw new ShapeError(
      'the cut lines do not close round any paper; give the outline the role cut, or let open outlines be mended',
    );
  const windows = windowsOf(lines).map((window) => ({ window, box: boxOf(window.outer) }));
  const restOf = (p: Polygon): Polygon => {
    const box = boxOf(p.outer);
    const own = windows.filter((w) => boxesMeet(w.box, box)).map((w) => w.window);
    return largest(own.length > 0 ? subtract([p], own) : [p]) ?? p;
  };
  return paper
    .map((p) => ({ outer: p.outer, whole: p, rest: restOf(p) }))
    .sort((a, b) => polygonArea(b.whole) - polygonArea(a.whole));
}

/** Straight creases, those that were drawn on without lifting told apart. */
export function creasesOf(lines: readonly TemplateLine[]): readonly TemplateLine[] {
  const creases = lines.filter((l) => isCrease(l) && l.points.length >= 2).flatMap(straightParts);
  const bent = creases.find((l) => l.points.length > 2 && !isStraight(l.points));
  if (bent) throw new ShapeError(`crease ${bent.id} is curved; only straight creases fold, so give it another role`);
  return creases;
}

/** Whether the middle of a line lies on a sheet. */
export const isInside = (sheet: Polygon, l: TemplateLine): boolean =>
  contains({ outer: sheet.outer, holes: [] }, lerp2(l.points[0], l.points[l.points.length - 1], 0.5));

/** The gutter: as it was chosen, else what runs furthest, its stretches to both sides of what stands on it together. */
export function leadOf(t: Template, creases: readonly TemplateLine[], sheets: readonly Sheet[]): TemplateLine {
  const onLargest = creases.filter((l) => isInside(sheets[0].whole, l));
  const own = onLargest.length > 0 ? onLargest : creases;
  const length = (l: TemplateLine): number => dist2(l.points[0], l.points[l.points.length - 1]);
  const lead =
    creases.find((l) => l.id === t.lead) ??
    own.map((l) => ({ l, span: spanOf(l, own) })).sort((a, b) => b.span - a.span || length(b.l) - length(a.l))[0]?.l;
  if (!lead)
    throw new ShapeError(
      'no line has the role valley or mountain, so there is nothing to open; give the fold lines their roles',
    );
  return lead;
}

/** A corner that turns by less than this belongs to a curve, degrees; curves are drawn by many small ones. */
const CORNER_DEG = 12;

/** Creases drawn on without lifting are told apart at their corners; a curve stays one line. */
function straightParts(l: TemplateLine): TemplateLine[] {
  const run = l.closed ? [...l.points, l.points[0]] : l.points;
  if (run.length < 3 || isStraight(run)) return [l];
  const turns = run.slice(1, -1).map((p, i) => {
    const [u, v] = [sub2(p, run[i]), sub2(run[i + 2], p)];
    return Math.abs(Math.atan2(cross2(u, v), dot2(u, v))) * (180 / Math.PI);
  });
  if (turns.some((t) => t > STRAIGHT_DEG && t < CORNER_DEG)) return [l];
  const corners = turns.flatMap((t, i) => (t >= CORNER_DEG ? [i + 1] : []));
  const ends = [0, ...corners, run.length - 1];
  return ends.slice(1).map((to, k): TemplateLine => ({
    ...l,
    id: `${l.id}~${k + 1}`,
    closed: false,
    points: run.slice(ends[k], to + 1),
  }));
}
/** Turns below this are none, degrees. */
const STRAIGHT_DEG = 0.01;

/** Creases of one role on one line. */
export function inLine(lead: TemplateLine, creases: readonly TemplateLine[]): readonly TemplateLine[] {
  const [a, b] = [lead.points[0], lead.points[lead.points.length - 1]];
  const off = (p: Vec2): number => distToLine(p, a, b);
  return creases.filter(
    (l) =>
      l === lead ||
      (l.role === lead.role && off(l.points[0]) < IN_LINE_MM && off(l.points[l.points.length - 1]) < IN_LINE_MM),
  );
}
/** Stretches of one crease stray this little from their line: what a drawing program rounds to. */
const IN_LINE_MM = 0.01;

export const extremes = (lines: readonly TemplateLine[], u: Vec2): [Vec2, Vec2] => {
  const ends = lines
    .flatMap((l) => [l.points[0], l.points[l.points.length - 1]])
    .sort((p, q) => p[0] * u[0] + p[1] * u[1] - q[0] * u[0] - q[1] * u[1]);
  return [ends[0], ends[ends.length - 1]];
};
const spanOf = (lead: TemplateLine, creases: readonly TemplateLine[]): number =>
  dist2(...extremes(inLine(lead, creases), sub2(lead.points[lead.points.length - 1], lead.points[0])));

export const isStraight = (p: readonly Vec2[]): boolean =>
  p.every((q) => Math.abs(cross2(sub2(p[p.length - 1], p[0]), sub2(q, p[0]))) < 1e-3 * dist2(p[p.length - 1], p[0]));
