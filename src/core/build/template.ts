/**
 * A brought-in template as the base of a card: its lines with roles become pieces, creases and windows like our own.
 */
import { assemble, layOut } from '../assembly/assembly';
import { poseAt } from '../assembly/pose';
import type { Template } from '../document/template';
import { CLOSED, FLAT, openOf } from '../drives';
import { CARD } from '../ids';
import { GUTTER, hostsIn, type Base, type CreaseLine, type Host, type PatternLine, type Piece } from '../kinds';
import { findFacets, type FlatHinge, type Interruption } from '../pattern/facets';
import type { Making } from '../pattern/making';
import { mend, type TemplateLine } from '../pattern/mending';
import { joinPerforations } from '../pattern/perforations';
import { roundHole, slotOf } from '../pattern/recognise';
import { contains, insidePoint, regionBox } from '../plane/polygon';
import { preparePolygon, type PreparedPolygon } from '../plane/prepared';
import { cross2, dist2, dot2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { joinIntervals, withoutIntervals, type Interval } from '../shapes/level';
import { ShapeError } from '../shapes/shape';
import { ON_EDGE_MM } from '../tolerance';
import { joinPieces, type JoinedPieces } from './template-joins';
import { LineIndex } from '../pattern/line-index';
import { checkCrossings, creasesOf, extremes, inLine, isInside, leadOf, sheetsOf, type Sheet } from './template-sheets';

const fitted = new WeakMap<Template, readonly TemplateLine[]>();
/** The lines with their roles, scaled, rows of dashes joined, mended where that is wished; kept as the template is. */
export function templateLines(t: Template): readonly TemplateLine[] {
  const lines = fitted.get(t) ?? fittedLines(t);
  fitted.set(t, lines);
  return lines;
}
function fittedLines(t: Template): readonly TemplateLine[] {
  const roles = new Map(t.groups.map((g) => [g.key, g.role]));
  const lines = t.lines.map((l): TemplateLine => ({
    id: l.id,
    role: t.picked[l.id] ?? roles.get(l.group) ?? 'cut',
    closed: l.closed,
    points: l.points,
    ...(t.picked[l.id] === 'cut' ? { meant: true } : {}),
  }));
  const kept = new Map(keptSizes(t, lines).map((k) => [k.line, k]));
  const scaled = lines.map((l) => ({ ...l, points: scaledBy(t.scale, l.points, kept.get(l.id)) }));
  const joined = joinPerforations(scaled);
  return t.mended ? mend(joined) : joined;
}

/** A hole or a slot that keeps its size when all else is scaled: what goes through it is bought. */
export interface KeptSize {
  readonly line: string;
  readonly what: 'hole' | 'slot';
  readonly acrossMm: number;
  readonly from: Vec2;
  readonly to: Vec2;
}

/** Holes of rivets and pins, and widths of slots, of the joins of a template that is scaled. */
function keptSizes(t: Template, lines: readonly TemplateLine[]): KeptSize[] {
  const moving = (t.joins ?? []).filter((j) => j.kind !== 'bond');
  if (t.scale === 1 || moving.length === 0) return [];
  const near = (p: Vec2, q: Vec2): boolean => dist2(p, q) < SAME_PLACE_MM;
  const centres = moving.flatMap((j) => (j.kind === 'pivot' ? [j.a.from, j.b.from] : [j.b.from]));
  const ways = moving.filter((j) => j.kind === 'slide').map((j) => j.a);
  return lines.flatMap((l): KeptSize[] => {
    const hole = roundHole(l);
    if (hole && centres.some((c) => near(c, hole.centre)))
      return [{ line: l.id, what: 'hole', acrossMm: hole.diameterMm, from: hole.centre, to: hole.centre }];
    const slot = hole ? null : slotOf(l);
    return slot && ways.some((w) => near(w.from, slot.from) && near(w.to, slot.to))
      ? [{ line: l.id, what: 'slot', acrossMm: slot.widthMm, from: slot.from, to: slot.to }]
      : [];
  });
}
const SAME_PLACE_MM = 0.05;
/** What a template that is scaled keeps as it is. */
export const keptOf = (t: Template): KeptSize[] => keptSizes(t, templateLines({ ...t, scale: 1, mended: false }));

/** Scaled about the origin; of what keeps its size only the line along its middle. */
function scaledBy(scale: number, points: readonly Vec2[], kept: KeptSize | undefined): readonly Vec2[] {
  if (scale === 1) return points;
  if (!kept) return points.map((p) => scale2(p, scale));
  const { from, to } = kept;
  const way = sub2(to, from);
  const long = dot2(way, way);
  return points.map((p) => {
    const part = long > 0 ? Math.min(1, Math.max(0, dot2(sub2(p, from), way) / long)) : 0;
    const middle = lerp2(from, to, part);
    const off = sub2(p, middle);
    return [scale * middle[0] + off[0], scale * middle[1] + off[1]];
  });
}

const foldSizes = (ends: CreaseLine['ends'] | undefined): Host['ends'] | undefined =>
  ends && [
    ends[0] === undefined ? undefined : Math.abs(ends[0]),
    ends[1] === undefined ? undefined : Math.abs(ends[1]),
  ];
const isNotGutter = ({ crease }: FlatHinge): boolean => crease.id !== GUTTER;
const foldsDown = (l: TemplateLine): boolean => l.role === 'mountain' || l.role === 'perforation-mountain';
const built = new WeakMap<Template, Map<string, Base>>();

/**
 * Pieces of the template; kept for as long as it is, since it is large and never changed in place. Throws ShapeError
 * where there is no paper or nothing to open.
 */
export function buildTemplate(t: Template, stock: string): Base {
  let known = built.get(t);
  if (!known) built.set(t, (known = new Map()));
  let pieces = known.get(stock);
  if (!pieces) known.set(stock, (pieces = piecesOf(t, stock)));
  return pieces;
}

/** A sheet as a piece of the card. */
export interface NamedSheet {
  readonly id: string;
  readonly title: string;
  readonly sheet: Sheet;
}
/** Sheets as they become pieces: the one that opens first, the others by their size. */
function namedSheets(t: Template, sheets: readonly Sheet[], main: Sheet): NamedSheet[] {
  const order = [main, ...sheets.filter((s) => s !== main)];
  const said = (t.pieces ?? [])
    .filter(({ name }) => name.trim() !== '')
    .map(({ at, name }) => ({ at: scale2(at, t.scale), name }));
  return order.map((sheet, k) => ({
    id: k === 0 ? CARD : partOf(k),
    title: said.find(({ at }) => contains(sheet.rest, at))?.name ?? (k === 0 ? t.name : `${t.name}, part ${k + 1}`),
    sheet,
  }));
}
const partOf = (k: number): string => `${CARD}-part-${k + 1}`;

/** The pieces that a template has, in their order; with nothing to open yet the largest is first. Throws ShapeError. */
export function sheetsNamed(t: Template): NamedSheet[] {
  const lines = templateLines(t);
  checkCrossings(lines);
  const sheets = sheetsOf(lines);
  const creases = creasesOf(lines);
  return namedSheets(t, sheets, creases.length > 0 ? sheetWith(leadOf(t, creases, sheets), sheets) : sheets[0]);
}
const sheetWith = (lead: TemplateLine, sheets: readonly Sheet[]): Sheet =>
  sheets.find((s) => isInside(s.whole, lead)) ?? sheets[0];

function piecesOf(t: Template, stock: string): Base {
  const lines = templateLines(t);
  checkCrossings(lines);
  const sheets = sheetsOf(lines);
  const creases = creasesOf(lines);
  const lead = leadOf(t, creases, sheets);
  const main = sheetWith(lead, sheets);
  const stretches = inLine(
    lead,
    creases.filter((l) => isInside(main.whole, l)),
  );
  const gutter = gutterOn(lead, stretches);
  const { move, interruptions } = gutter;
  const names = new Names();
  const others = new LineIndex(creases.filter((l) => !stretches.includes(l)));
  const drawn = new LineIndex(lines);
  const pieces = namedSheets(t, sheets, main).map(({ id, title, sheet }, k): Piece => ({
    id,
    title,
    mechanism: CARD,
    stock,
    glue: [],
    labels: [],
    ...(k === 0 ? {} : { apart: true }),
    outline: { outer: sheet.rest.outer.map(move), holes: sheet.rest.holes.map((h) => h.map(move)) },
    lines: linesOn(sheet, drawn, move),
    creases: [
      ...(k === 0 ? [gutterCrease(names.made(GUTTER, stretches), gutter)] : []),
      ...others
        .linesNear(sheet.outer)
        .filter((l) => isInside(sheet.whole, l))
        .map((l) => creaseFrom(l, names, move)),
    ],
  }));
  const { card, hosts } = leavesOf(pieces[0], gutter, lead, stock);
  const baseOf = (joined: JoinedPieces): Base => ({
    pieces: joined.pieces,
    bonds: joined.bonds,
    joints: joined.joints,
    drives: joined.drives,
    hosts: [
      gutterHost(card, gutter, stock),
      ...hosts.map((h) => ({ ...h, ends: foldSizes(joined.endsOf(h.crease)) ?? h.ends })),
      ...joined.patterns.flatMap(([id, own]) => hostsIn(id, own, (k) => own.facets[k].id, stock, isNotGutter)),
    ],
    lead: { crease: GUTTER, still: 'leafA', turning: 'leafB' },
    measures: () => ({ hinge_mm: gutter.along.reduce((sum, i) => sum + i.to - i.from, 0) }),
    interruptions,
    making: names.making,
  });
  const glue = lines.filter((l) => l.role === 'glue' && l.points.length >= 3).map((l) => l.points.map(move));
  const inPieces = (p: Vec2): Vec2 => move(scale2(p, t.scale));
  const opens = (joined: JoinedPieces): number => opensTo(baseOf(joined));
  return baseOf(joinPieces([card, ...pieces.slice(1)], interruptions, t.joins ?? [], inPieces, opens, glue));
}

/** The gutter laid on the x axis, its middle on the origin: the rest of the program reads a card so. */
interface LaidGutter {
  /** A place of the drawing as it lies then. */
  readonly move: (p: Vec2) => Vec2;
  /** Where it is creased, along it. */
  readonly along: readonly Interval[];
  readonly half: number;
  readonly interruptions: readonly Interruption[];
}
function gutterOn(lead: TemplateLine, stretches: readonly TemplateLine[]): LaidGutter {
  const frame = gutterFrame(lead, stretches);
  const move = (p: Vec2): Vec2 => {
    const d = sub2(p, frame.origin);
    return [d[0] * frame.along[0] + d[1] * frame.along[1], cross2(frame.along, d)];
  };
  const along = stretches
    .map((l) => [l.points[0], l.points[l.points.length - 1]].map((p) => move(p)[0]))
    .map(([a, b]) => ({ from: Math.min(a, b), to: Math.max(a, b) }));
  const half = Math.max(...along.map((i) => i.to));
  const interruptions = withoutIntervals([{ from: -half, to: half }], joinIntervals(along)).map((i): Interruption => ({
    crease: GUTTER,
    from: i.from + half,
    to: i.to + half,
  }));
  return { move, along, half, interruptions };
}

/** Ids of creases as they are given, and how each is made where its drawing says so. */
class Names {
  readonly making: Record<string, Making> = {};
  private count = 0;
  made(id: string, lines: readonly TemplateLine[]): string {
    const how = closest(lines.flatMap((l) => l.making ?? []));
    if (how) this.making[id] = how;
    return id;
  }
  next(line: TemplateLine): string {
    return this.made(`card.crease-${++this.count}`, [line]);
  }
}

const gutterCrease = (id: string, { half }: LaidGutter): CreaseLine => ({
  id,
  role: 'valley',
  mechanism: CARD,
  a: [-half, 0],
  b: [half, 0],
  ends: [Math.PI, 0],
});
const creaseFrom = (line: TemplateLine, names: Names, move: LaidGutter['move']): CreaseLine => ({
  id: names.next(line),
  role: foldsDown(line) ? 'mountain' : 'valley',
  mechanism: CARD,
  ...leftToRight(move(line.points[0]), move(line.points[line.points.length - 1])),
  ends: [undefined, 0],
});

/** Cuts within a sheet, and marks on it. */
function linesOn(sheet: Sheet, drawn: LineIndex<TemplateLine>, move: LaidGutter['move']): PatternLine[] {
  const near = drawn.near(sheet.outer, ON_EDGE_MM);
  const [whole, rest] = [preparePolygon({ outer: sheet.whole.outer, holes: [] }), preparePolygon(sheet.rest)];
  const of = (role: 'cut' | 'mark'): PatternLine[] =>
    near
      .filter((s) => s.line.role === role)
      .filter((s) => within(whole, s) && (role === 'mark' || !onOutline(rest, s)))
      .map(({ a, b }) => ({ role, a: move(a), b: move(b), mechanism: CARD }));
  return [...of('cut'), ...of('mark')];
}

/** The card with its facets named, and its creases but for the gutter. Throws ShapeError where it cannot open. */
function leavesOf(
  piece: Piece,
  { interruptions }: LaidGutter,
  lead: TemplateLine,
  stock: string,
): { readonly card: Piece; readonly hosts: readonly Host[] } {
  const flat = findFacets(piece, interruptions);
  const hinge = flat.hinges.find((h) => h.crease.id === GUTTER);
  if (!hinge)
    throw new ShapeError(
      `crease ${lead.id} has paper on one side only or ends in air, so the card cannot open on it; ` +
        `pick another as the gutter, or let it be mended`,
    );
  const nameOf = (facet: number): string =>
    facet === hinge.b ? 'leafA' : facet === hinge.a ? 'leafB' : `card.face-${facet + 1}`;
  return {
    card: {
      ...piece,
      labels: flat.facets.map((f, i) => ({ name: nameOf(i), at: insidePoint(f.polygon), mechanism: CARD })),
    },
    hosts: hostsIn(CARD, flat, nameOf, stock, isNotGutter),
  };
}

function gutterHost({ outline }: Piece, { half }: LaidGutter, stock: string): Host {
  const box = regionBox([outline]);
  return {
    crease: GUTTER,
    piece: CARD,
    frame: { origin: [0, 0], along: [1, 0] },
    lengthMm: 2 * half,
    sideA: 'leafA',
    sideB: 'leafB',
    sign: 1,
    ends: [Math.PI, 0],
    reachA: box.max[1],
    reachB: -box.min[1],
    stock,
  };
}

/** How far a base opens from where it lies shut, degrees; 0 where it does not lie so, or never leaves that pose. */
export function opensTo({ pieces, bonds, joints = [], drives = [], hosts, lead, interruptions }: Base): number {
  const parts = { pieces, bonds, interruptions, mechanisms: [], moving: joints, drives, lead };
  const base = { mechanism: CARD, facets: () => [] };
  const assembly = assemble(layOut({ ...parts, base, hosts: new Map(hosts.map((h) => [h.crease, h])) }));
  if (poseAt(assembly, CLOSED).stop) return 0;
  const { stop, state } = poseAt(assembly, FLAT);
  return stop?.reason === 'no-start' ? 0 : openOf(state);
}

function gutterFrame(lead: TemplateLine, stretches: readonly TemplateLine[]): { origin: Vec2; along: Vec2 } {
  const { a, b } = leftToRight(lead.points[0], lead.points[lead.points.length - 1]);
  const along = scale2(sub2(b, a), 1 / dist2(a, b));
  const [p, q] = extremes(stretches, along);
  return { origin: lerp2(p, q, 0.5), along };
}
const leftToRight = (a: Vec2, b: Vec2): { a: Vec2; b: Vec2 } =>
  a[0] < b[0] || (a[0] === b[0] && a[1] < b[1]) ? { a, b } : { a: b, b: a };
type Pair = { readonly a: Vec2; readonly b: Vec2 };
/** The outline itself is not a cut inside the piece. */
const onOutline = (p: PreparedPolygon, { a, b }: Pair): boolean =>
  [a, b, lerp2(a, b, 0.5)].every((q) => p.distanceToEdge(q) < ON_EDGE_MM);
const within = (p: PreparedPolygon, { a, b }: Pair): boolean =>
  p.contains(lerp2(a, b, 0.5)) || p.distanceToEdge(lerp2(a, b, 0.5)) < ON_EDGE_MM;

/** The making of a crease that came in stretches: whole dashes are spread over each, so the least gap made all. */
const closest = (ways: readonly Making[]): Making | undefined =>
  [...ways].sort((a, b) => (a.way === 'perforate' && b.way === 'perforate' ? a.gapMm - b.gapMm : 0))[0];
