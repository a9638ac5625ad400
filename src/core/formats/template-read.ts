/** A whole template of cut and fold lines, from SVG or DXF, as lines sorted into groups that can be given roles. mm, y up. */
import interpolate from 'b-spline';
import { hsl, rgb } from 'd3-color';
import DxfParser, { type IEntity, type IInsertEntity } from 'dxf-parser';
import { applyToPoint, compose, identity, rotateDEG, scale, translate, type Matrix } from 'transformation-matrix';
import { TEMPLATE_ROLES, type TemplateRole } from '../pattern/pattern';
import { MOST_LINES } from '../pattern/mending';
import { contains } from '../plane/polygon';
import { dist2, type Vec2 } from '../plane/vec2';
import { arcPoints, CURVE_TOLERANCE_MM, halvedPoints } from '../shapes/curve';
import { readSvg } from '../shapes/svg-read';
import { ShapeError } from '../shapes/shape';

export interface DrawnLine {
  readonly id: string;
  /** Key of its group: layer, colour and whether it is dashed. */
  readonly group: string;
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}
export interface LineGroup {
  readonly key: string;
  readonly layer: string;
  readonly colour: string;
  readonly dashed: boolean;
  readonly role: TemplateRole;
  readonly count: number;
}
export interface ReadTemplate {
  readonly lines: readonly DrawnLine[];
  readonly groups: readonly LineGroup[];
  readonly leftOut: readonly string[];
}

/** Read a template. `name` tells by its ending what it is. Throws ShapeError with what is wrong and what would be right. */
export function readTemplate(text: string, name: string): ReadTemplate {
  if (text.includes('\0')) throw new ShapeError('the file is binary; a template is SVG or ASCII DXF');
  const raw = /\.dxf$/i.test(name) || /^\s*(0|999)\r?\n/.test(text) ? dxfLines(text) : svgLines(text);
  if (raw.lines.length === 0) throw new ShapeError('the drawing has no lines in it');
  if (raw.lines.length > MOST_LINES) throw new ShapeError(`the drawing has ${raw.lines.length} lines; at most ${MOST_LINES} are read`);
  const seen = new Map<string, number>();
  const lines = raw.lines.map((l): DrawnLine & { said: string; layer: string; colour: string; dashed: boolean; dashDot: boolean } => {
    const n = (seen.get(l.id) ?? 0) + 1;
    seen.set(l.id, n);
    return { ...l, id: n === 1 ? l.id : `${l.id}~${n}`, group: `${l.layer}|${l.colour}|${l.dashDot ? 'dash-dot' : l.dashed ? 'dashed' : 'solid'}` };
  });
  const groups = [...new Set(lines.map((l) => l.group))].map((key): LineGroup => {
    const of = lines.filter((l) => l.group === key);
    const { layer, colour, dashed, dashDot, said } = of[0];
    return { key, layer, colour, dashed, role: guessRole(said, layer, colour, dashed, dashDot), count: of.length };
  });
  // A closed cut inside another, with no crease in it, is a window.
  const cuts = lines.filter((l) => l.closed && groups.find((g) => g.key === l.group)!.role === 'cut');
  const outer = cuts.filter((l) => !cuts.some((o) => o !== l && contains({ outer: o.points, holes: [] }, l.points[0])));
  const inner = cuts.filter((l) => !outer.includes(l));
  return {
    lines: lines.map(({ id, group, points, closed }) => ({ id, group: inner.some((l) => l.id === id) ? `${group}|inner` : group, points, closed })),
    groups: [...groups, ...[...new Set(inner.map((l) => l.group))].map((key): LineGroup => ({ ...groups.find((g) => g.key === key)!, key: `${key}|inner`, role: 'window', count: inner.filter((l) => l.group === key).length }))]
      .map((g) => ({ ...g, count: g.key.endsWith('|inner') ? g.count : g.count - inner.filter((l) => l.group === g.key).length })).filter((g) => g.count > 0),
    leftOut: raw.leftOut,
  };
}

/** What a line is for, by what its file says: our own role, words in its layer, dashes, colour. */
export function guessRole(said: string, layer: string, colour: string, dashed: boolean, dashDot = false): TemplateRole {
  if ((TEMPLATE_ROLES as readonly string[]).includes(said)) return said as TemplateRole;
  const word = layer.toLowerCase();
  if (/glue|adhes|tape/.test(word)) return 'glue';
  if (/window|waste/.test(word)) return 'window';
  if (/perf/.test(word)) return /mount|ridge/.test(word) ? 'perforation-mountain' : 'perforation';
  if (/mount|ridge/.test(word)) return 'mountain';
  if (/valley/.test(word)) return 'valley';
  if (/mark|draw|print|note|guide/.test(word)) return 'mark';
  if (/fold|crease|score/.test(word)) return dashDot || /dot/.test(word) ? 'mountain' : 'valley';
  if (/cut|edge|outline|knife/.test(word)) return 'cut';
  // Dashes of two lengths are mountains, of one length valleys (common practice in diagrams of paper folding, no source).
  if (dashDot) return 'mountain';
  const hue = hueOf(colour);
  // Colours are taken only where they are plain: blue and green for folds, red for the other fold; black is a cut.
  if (hue !== null && hue > 90 && hue < 270) return 'valley';
  if (hue !== null && (hue < 40 || hue > 330)) return 'mountain';
  return dashed ? 'valley' : 'cut';
}

/** Hue of a plain colour, degrees, in any notation of CSS; null for greys, pale tints and what is no colour. */
function hueOf(colour: string): number | null {
  const { r, g, b } = rgb(colour);
  return Math.max(r, g, b) - Math.min(r, g, b) >= 0.35 * 255 ? hsl(colour).h : null;
}

interface RawLine { readonly id: string; readonly layer: string; readonly colour: string; readonly dashed: boolean; readonly dashDot: boolean; readonly said: string; readonly points: readonly Vec2[]; readonly closed: boolean }
interface Raw { readonly lines: readonly RawLine[]; readonly leftOut: readonly string[] }

function svgLines(text: string): Raw {
  const drawing = readSvg(text);
  return {
    leftOut: drawing.leftOut,
    lines: drawing.lines.map((l) => ({ id: l.id, layer: l.role || l.layer, colour: l.stroke === 'none' ? '#000000' : l.stroke, dashed: l.dashed && !l.role, dashDot: l.dashDot && !l.role, said: l.role, points: l.points, closed: l.closed })),
  };
}

/** $INSUNITS of the DXF reference: 1 inch, 2 foot, 4 mm, 5 cm, 6 m; without it, mm. */
const DXF_UNIT_MM: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

function dxfLines(text: string): Raw {
  let dxf;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch (error) {
    throw new ShapeError(`not ASCII DXF: ${(error as Error).message.split('\n')[0].slice(0, 120)}`);
  }
  if (!dxf) throw new ShapeError('not ASCII DXF: it has no sections');
  const k = DXF_UNIT_MM[Number(dxf.header?.$INSUNITS ?? 4)] ?? 1;
  const leftOut = new Set<string>();
  const layers = dxf.tables?.layer?.layers ?? {};
  const placed = dxf.entities.flatMap((e) => insertedEntities(e, dxf.blocks ?? {}, identity(), 0));
  if (placed.length > MOST_LINES) throw new ShapeError(`the drawing has ${placed.length} lines, those of its blocks counted where they are placed; at most ${MOST_LINES} are read`);
  const lines = placed.flatMap(({ entity: e, matrix }, i): RawLine[] => {
    const drawn = dxfOutline(e, k);
    const outline = drawn && { ...drawn, points: drawn.points.map((p): Vec2 => applyToPoint(matrix, p as [number, number])) };
    if (!outline) {
      leftOut.add(e.type.toLowerCase());
      return [];
    }
    const rgb = e.color ?? layers[e.layer]?.color ?? 0;
    return [{
      id: `${e.layer}-${i + 1}`, layer: e.layer ?? '', colour: `#${rgb.toString(16).padStart(6, '0')}`, dashed: /dash|dot|hidden|center/i.test(`${e.lineType ?? ''}`), dashDot: /dash.*dot|center|divide|phantom/i.test(`${e.lineType ?? ''}`), said: (TEMPLATE_ROLES as readonly string[]).includes(e.layer?.toLowerCase()) ? e.layer.toLowerCase() : '',
      ...outline,
    }];
  });
  return { lines, leftOut: [...leftOut] };
}

interface PlacedEntity { readonly entity: IEntity; readonly matrix: Matrix }
const DEEPEST_BLOCK = 12;

/** An entity, or those of the block it places; the matrix acts in the units of the file. */
function insertedEntities(entity: IEntity, blocks: Readonly<Record<string, { entities?: IEntity[]; position?: { x: number; y: number } }>>, matrix: Matrix, depth: number): PlacedEntity[] {
  if (entity.type !== 'INSERT') return [{ entity, matrix }];
  const { name, position, xScale = 1, yScale = 1, rotation = 0 } = entity as IInsertEntity;
  const block = Object.hasOwn(blocks, name) ? blocks[name] : undefined;
  if (!block?.entities || depth >= DEEPEST_BLOCK) return [{ entity, matrix }];
  const base = block.position ?? { x: 0, y: 0 };
  const inner = compose(matrix, translate(position?.x ?? 0, position?.y ?? 0), rotateDEG(rotation), scale(xScale, yScale), translate(-base.x, -base.y));
  const out: PlacedEntity[] = [];
  for (const e of block.entities) {
    // A block that places itself many times over stops here.
    if (out.length > MOST_LINES) break;
    for (const p of insertedEntities(e, blocks, inner, depth + 1)) out.push(p);
  }
  return out;
}

type Point = { readonly x: number; readonly y: number; readonly bulge?: number };
function dxfOutline(entity: IEntity, k: number): { points: readonly Vec2[]; closed: boolean } | null {
  const e = entity as unknown as { type: string; vertices?: Point[]; shape?: boolean; closed?: boolean; center?: Point; radius?: number; startAngle?: number; endAngle?: number; majorAxisEndPoint?: Point; axisRatio?: number; controlPoints?: Point[]; degreeOfSplineCurve?: number; knotValues?: number[]; rational?: boolean };
  const at = (p: Point): Vec2 => [p.x * k, p.y * k];
  const turn = (from: number, to: number): number => ((to - from) % (2 * Math.PI) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;
  switch (e.type) {
    case 'LINE': return e.vertices && e.vertices.length >= 2 ? { points: e.vertices.slice(0, 2).map(at), closed: false } : null;
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const closed = e.shape === true || e.closed === true;
      const v = e.vertices ?? [];
      if (v.length < 2) return null;
      const points = v.flatMap((p, i): Vec2[] => {
        const q = v[i + 1] ?? (closed ? v[0] : null);
        return [at(p), ...(q && p.bulge ? bulged(at(p), at(q), p.bulge).slice(0, -1) : [])];
      });
      return { points, closed };
    }
    case 'CIRCLE': return e.center && e.radius ? { points: arcPoints(at(e.center), e.radius * k, e.radius * k, 0, 2 * Math.PI).slice(0, -1), closed: true } : null;
    case 'ARC': return e.center && e.radius ? { points: arcPoints(at(e.center), e.radius * k, e.radius * k, e.startAngle ?? 0, turn(e.startAngle ?? 0, e.endAngle ?? 0)), closed: false } : null;
    case 'ELLIPSE': {
      if (!e.center || !e.majorAxisEndPoint) return null;
      const [mx, my] = at(e.majorAxisEndPoint);
      const [a, tilt] = [Math.hypot(mx, my), Math.atan2(my, mx)];
      const sweep = turn(e.startAngle ?? 0, e.endAngle ?? 2 * Math.PI);
      const full = sweep > 2 * Math.PI - 1e-9;
      const [cx, cy] = at(e.center);
      const points = arcPoints([0, 0], a, a * (e.axisRatio ?? 1), e.startAngle ?? 0, sweep).map(([x, y]): Vec2 => [cx + x * Math.cos(tilt) - y * Math.sin(tilt), cy + x * Math.sin(tilt) + y * Math.cos(tilt)]);
      return { points: full ? points.slice(0, -1) : points, closed: full };
    }
    case 'SPLINE': return splineOutline((e.controlPoints ?? []).map(at), e.degreeOfSplineCurve ?? 3, e.knotValues, e.rational === true);
    default: return null;
  }
}

/** A B-spline between its knots; null where it is rational (its weights are not read) or its knots do not fit its points. */
function splineOutline(points: readonly Vec2[], degree: number, knots: readonly number[] | undefined, rational: boolean): { points: readonly Vec2[]; closed: boolean } | null {
  if (rational || degree < 1 || degree > 10 || points.length <= degree || knots?.length !== points.length + degree + 1) return null;
  const [low, high] = [knots[degree], knots[points.length]];
  if (!(high > low)) return null;
  const at = (u: number): Vec2 => interpolate((u - low) / (high - low), degree, points, knots) as unknown as Vec2;
  const spans = [...new Set(knots.filter((u) => u >= low && u <= high))].sort((a, b) => a - b);
  const line = [at(low), ...spans.slice(1).flatMap((to, i) => halvedPoints(at, spans[i], to, CURVE_TOLERANCE_MM))];
  const closed = dist2(line[0], line[line.length - 1]) < CURVE_TOLERANCE_MM;
  return { points: closed ? line.slice(0, -1) : line, closed };
}

/** Arc between two corners of a polyline; the bulge is the tangent of a quarter of its angle (DXF reference). */
function bulged(a: Vec2, b: Vec2, bulge: number): Vec2[] {
  const turn = 4 * Math.atan(bulge);
  const chord = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const r = chord / (2 * Math.sin(Math.abs(turn) / 2));
  const up = (chord / 2) * ((1 - bulge * bulge) / (2 * bulge));
  const [ux, uy] = [(b[0] - a[0]) / chord, (b[1] - a[1]) / chord];
  const c: Vec2 = [(a[0] + b[0]) / 2 - uy * up, (a[1] + b[1]) / 2 + ux * up];
  return arcPoints(c, r, r, Math.atan2(a[1] - c[1], a[0] - c[0]), turn).slice(1);
}
