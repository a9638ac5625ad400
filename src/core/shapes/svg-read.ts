/**
 * SVG to lines in true millimetres (SVG 1.1 and 2): paths, basic shapes, groups, transforms, units, viewBox. Only numbers are
 * taken over, never markup: whatever else a file holds (text, images, scripts, links, styles by class) is left out and named.
 */
import { XMLParser } from 'fast-xml-parser';
import { applyToPoint, compose, fromDefinition, fromTransformAttribute, identity, scale, translate, type Matrix } from 'transformation-matrix';
import { regionArea, regionFromRings, unite, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { CURVE_TOLERANCE_MM, ellipse } from './curve';
import { rectShape } from './basics';
import { polylinesOf, type Polyline } from './path-data';
import { ShapeError } from './shape';

/** A drawn element: its lines in mm, y up, and how it is drawn. */
export interface SvgLine extends Polyline {
  /** Names of the groups around it, outermost first, joined by `/`; its own name where it is in none. */
  readonly layer: string;
  /** As written, in small letters; `none` where it is not stroked. */
  readonly stroke: string;
  readonly dashed: boolean;
  readonly filled: boolean;
  /** `data-id` or `id` of the element; made-up where it has none. */
  readonly id: string;
  /** `data-role` of the element or the nearest group: how our own files say what a line is for. */
  readonly role: string;
}
export interface SvgDrawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly lines: readonly SvgLine[];
  /** Filled areas, by element. */
  readonly fills: readonly Region[];
  /** What was left out, in words, each once. */
  readonly leftOut: readonly string[];
}

export const LARGEST_SVG = 5_000_000;
const MOST_ELEMENTS = 20_000;
const DEEPEST = 60;

/** Millimetres of one unit (CSS Values 3: 1 in = 25.4 mm = 96 px = 72 pt = 6 pc). */
const UNIT_MM: Readonly<Record<string, number>> = { mm: 1, cm: 10, in: 25.4, px: 25.4 / 96, pt: 25.4 / 72, pc: 25.4 / 6, q: 0.25, '': 25.4 / 96 };

/** A length to px (user units); null where it is a percentage or not a length. */
export function lengthPx(text: string | undefined): number | null {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*(mm|cm|in|px|pt|pc|q|)\s*$/i.exec(text ?? '');
  return match ? (Number(match[1]) * UNIT_MM[match[2].toLowerCase()]) / UNIT_MM.px : null;
}

type Node = Readonly<Record<string, unknown>>;
interface Style {
  readonly fill: string;
  readonly stroke: string;
  readonly dash: string;
  readonly rule: string;
  readonly shown: boolean;
  readonly layer: readonly string[];
  readonly role: string;
}
const DRAWN = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);
const GROUPS = new Set(['svg', 'g', 'a', 'switch']);
const QUIET = new Set(['title', 'desc', 'metadata', 'defs', '#text', '#comment', '?xml', 'clippath', 'mask', 'marker', 'pattern', 'lineargradient', 'radialgradient', 'filter', 'symbol']);
const WORDS: Readonly<Record<string, string>> = { text: 'text', image: 'an image', script: 'a script', style: 'a style sheet', use: 'a reference to another element (use)', foreignobject: 'foreign content', a: 'a link (its shapes are kept)', animate: 'an animation' };

/** Read an SVG file or pasted markup. Throws ShapeError with what is wrong and what would be right. */
export function readSvg(text: string): SvgDrawing {
  if (text.length > LARGEST_SVG) throw new ShapeError(`the drawing has ${Math.round(text.length / 1e6)} MB; at most ${LARGEST_SVG / 1e6} MB are read`);
  if (/<!ENTITY/i.test(text)) throw new ShapeError('the drawing declares entities, which are not read; save it as plain SVG');
  let tree: Node[];
  try {
    // Entities are never expanded, values never converted: everything stays text until it is read as a number.
    tree = new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '', processEntities: false, parseTagValue: false, parseAttributeValue: false, allowBooleanAttributes: true }).parse(text, true) as Node[];
  } catch (error) {
    throw new ShapeError(`not SVG: ${(error as Error).message.split('\n')[0].slice(0, 140)}`);
  }
  const root = tree.find((n) => nameOf(n) === 'svg');
  if (!root) throw new ShapeError('there is no <svg> element; paste the whole drawing, from <svg to </svg>');
  const reader = new Reader();
  const { matrix, widthMm, heightMm } = viewport(attributes(root));
  reader.group(root, matrix, { fill: 'black', stroke: 'none', dash: 'none', rule: 'nonzero', shown: true, layer: [], role: '' }, 0);
  return { widthMm, heightMm, lines: reader.lines, fills: reader.fills, leftOut: [...reader.leftOut] };
}

/** The shape a drawing holds: its filled areas, or where nothing is filled what its closed lines enclose. Centred, mm, y up. */
export function shapeOfSvg(drawing: SvgDrawing): Region {
  const filled = unite(drawing.fills.flat());
  const region = filled.length > 0 ? filled : regionFromRings(drawing.lines.filter((l) => l.closed).map((l) => l.points));
  if (region.length === 0) throw new ShapeError(drawing.lines.length > 0 ? 'the drawing has lines but no closed outline; close it, or bring it in as a template' : 'the drawing has no path or shape in it');
  return region;
}

/** From user units (y down) to mm (y up): the viewport's size, viewBox and preserveAspectRatio. */
function viewport(a: Readonly<Record<string, string>>): { matrix: Matrix; widthMm: number; heightMm: number } {
  const box = (a.viewBox ?? '').trim().split(/[\s,]+/).map(Number);
  const boxed = box.length === 4 && box.every(Number.isFinite) && box[2] > 0 && box[3] > 0;
  const [x, y, w, h] = boxed ? box : [0, 0, lengthPx(a.width) ?? 300, lengthPx(a.height) ?? 150];
  // A side that is not given follows the other in the box's proportions; with neither, a unit is a px.
  const given = [lengthPx(a.width), lengthPx(a.height)];
  const width = given[0] ?? (given[1] !== null ? (given[1] * w) / h : w);
  const height = given[1] ?? (given[0] !== null ? (given[0] * h) / w : h);
  const stretch = (a.preserveAspectRatio ?? '').includes('none');
  const [sx, sy] = stretch ? [width / w, height / h] : [Math.min(width / w, height / h), Math.min(width / w, height / h)];
  const px = UNIT_MM.px;
  const slack = [(width - w * sx) / 2, (height - h * sy) / 2];
  return {
    matrix: compose(scale(px, -px), translate(slack[0], slack[1] - height), scale(sx, sy), translate(-x, -y)),
    widthMm: width * px, heightMm: height * px,
  };
}

const nameOf = (n: Node): string => (Object.keys(n).find((k) => k !== ':@') ?? '').replace(/^svg:/, '').toLowerCase();
const attributes = (n: Node): Readonly<Record<string, string>> => (n[':@'] ?? {}) as Readonly<Record<string, string>>;
const children = (n: Node): readonly Node[] => (Object.entries(n).find(([k]) => k !== ':@')?.[1] ?? []) as readonly Node[];

class Reader {
  readonly lines: SvgLine[] = [];
  readonly fills: Region[] = [];
  readonly leftOut = new Set<string>();
  private count = 0;

  group(node: Node, matrix: Matrix, style: Style, depth: number): void {
    if (depth > DEEPEST) throw new ShapeError(`the drawing is nested deeper than ${DEEPEST} groups; ungroup it`);
    for (const child of children(node)) {
      if (++this.count > MOST_ELEMENTS) throw new ShapeError(`the drawing has more than ${MOST_ELEMENTS} elements; bring in a part of it`);
      const name = nameOf(child);
      const a = attributes(child);
      if (WORDS[name]) this.leftOut.add(WORDS[name]);
      if (Object.keys(a).some((k) => /^on/i.test(k))) this.leftOut.add('a script');
      if (QUIET.has(name)) continue;
      if (!DRAWN.has(name) && !GROUPS.has(name)) {
        if (!WORDS[name]) this.leftOut.add(`<${name.slice(0, 30)}>`);
        continue;
      }
      const own = styled(a, style);
      if (!own.shown) continue;
      const m = compose(matrix, transformOf(a.transform), name === 'svg' ? translate(lengthPx(a.x) ?? 0, lengthPx(a.y) ?? 0) : identity());
      if (GROUPS.has(name)) this.group(child, m, own, depth + 1);
      else this.draw(name, a, m, own);
    }
  }

  private draw(name: string, a: Readonly<Record<string, string>>, m: Matrix, style: Style): void {
    // Curves are cut finely enough for the size they are drawn at.
    const grown = Math.sqrt(Math.abs(m.a * m.d - m.b * m.c)) || 1;
    const outlines = outlinesOf(name, a, CURVE_TOLERANCE_MM / grown).map((l): Polyline => ({ ...l, points: l.points.map(([x, y]): Vec2 => {
      const p = applyToPoint(m, { x, y });
      return [p.x, p.y];
    }) }));
    if (outlines.some((l) => l.points.some((p) => !p.every((v) => Number.isFinite(v) && Math.abs(v) < 1e5)))) throw new ShapeError(`a ${name} lies more than 100 m away or has no place; check its transform`);
    const filled = style.fill !== 'none' && name !== 'line';
    if (filled) {
      const region = regionFromRings(outlines.filter((l) => l.points.length > 2).map((l) => l.points), style.rule === 'evenodd' ? 'evenodd' : 'nonzero');
      if (regionArea(region) > 0) this.fills.push(region);
    }
    for (const [k, line] of outlines.entries()) {
      this.lines.push({ ...line, layer: style.layer.join('/') || (a.id ?? ''), stroke: style.stroke.toLowerCase(), dashed: style.dash !== 'none' && style.dash !== '', filled, id: a['data-id'] ?? a.id ?? `${name}-${this.lines.length + 1}${k > 0 ? `-${k + 1}` : ''}`, role: a['data-role'] ?? style.role });
    }
  }
}

function styled(a: Readonly<Record<string, string>>, up: Style): Style {
  const css = Object.fromEntries((a.style ?? '').split(';').map((part) => part.split(':').map((s) => s.trim())).filter((p) => p.length === 2).map(([k, v]) => [k.toLowerCase(), v]));
  const get = (key: string, inherited: string): string => css[key] ?? a[key] ?? inherited;
  const name = a['inkscape:label'] ?? a['data-name'] ?? a.id;
  return {
    fill: get('fill', up.fill), stroke: get('stroke', up.stroke), dash: get('stroke-dasharray', up.dash), rule: get('fill-rule', up.rule),
    shown: up.shown && get('display', '') !== 'none' && get('visibility', '') !== 'hidden',
    layer: name && a.d === undefined ? [...up.layer, name] : up.layer,
    role: a['data-role'] ?? up.role,
  };
}

function transformOf(text: string | undefined): Matrix {
  if (!text || text.trim() === '') return identity();
  try {
    const steps = fromDefinition(fromTransformAttribute(text));
    return compose(Array.isArray(steps) ? steps : [steps]);
  } catch {
    throw new ShapeError(`the transform "${text.slice(0, 60)}" is not one SVG knows; it is translate, scale, rotate, skewX, skewY or matrix`);
  }
}

/** An element's outlines in user units, y down. */
function outlinesOf(name: string, a: Readonly<Record<string, string>>, tolerance: number): Polyline[] {
  const n = (key: string): number => lengthPx(a[key]) ?? 0;
  const closed = (points: readonly Vec2[]): Polyline[] => [{ points, closed: true }];
  switch (name) {
    case 'path': return a.d ? polylinesOf(a.d, tolerance) : [];
    case 'circle': return n('r') > 0 ? closed(ellipse(n('r'), n('r'), [n('cx'), n('cy')], tolerance)) : [];
    case 'ellipse': return n('rx') > 0 && n('ry') > 0 ? closed(ellipse(n('rx'), n('ry'), [n('cx'), n('cy')], tolerance)) : [];
    case 'rect': {
      const [w, h] = [n('width'), n('height')];
      if (w <= 0 || h <= 0) return [];
      const [rx, ry] = [lengthPx(a.rx) ?? n('ry'), lengthPx(a.ry) ?? n('rx')];
      // Unequal corner radii are drawn in a stretched frame.
      const k = rx > 0 && ry > 0 ? ry / rx : 1;
      return closed(rectShape(w, h / k, rx)[0].outer.map(([x, y]): Vec2 => [n('x') + w / 2 + x, n('y') + h / 2 + y * k]));
    }
    case 'line': return [{ points: [[n('x1'), n('y1')], [n('x2'), n('y2')]], closed: false }];
    default: {
      const v = (a.points ?? '').trim().split(/[\s,]+/).filter((s) => s !== '').map(Number);
      if (v.some((x) => !Number.isFinite(x))) throw new ShapeError(`a ${name} has points that are not numbers: "${(a.points ?? '').slice(0, 40)}"`);
      const points = Array.from({ length: Math.floor(v.length / 2) }, (_, i): Vec2 => [v[2 * i], v[2 * i + 1]]);
      return points.length > 1 ? [{ points, closed: name === 'polygon' }] : [];
    }
  }
}
