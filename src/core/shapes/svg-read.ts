/**
 * SVG to lines in true millimetres (SVG 1.1 and 2): paths, basic shapes, groups, elements used again, transforms,
 * units, viewBox, style sheets as far as they say how a line is drawn. Only numbers are taken over, never markup:
 * whatever else a file holds (text, images, scripts, links) is left out and named.
 */
import { XMLParser } from 'fast-xml-parser';
import {
  applyToPoint,
  compose,
  fromDefinition,
  fromTransformAttribute,
  identity,
  scale,
  translate,
  type Matrix,
} from 'transformation-matrix';
import { regionArea, regionFromRings, unite, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { CURVE_TOLERANCE_MM, ellipse } from './curve';
import { rectShape } from './basics';
import { polylinesOf, type Polyline } from './path-data';
import { LARGEST_DRAWING, ShapeError } from './shape';
import { readStyleSheet, RuleIndex } from './svg-style';

/** A drawn element: its lines in mm, y up, and how it is drawn. */
export interface SvgLine extends Polyline {
  /** Names of the groups around it, outermost first, joined by `/`; its own name where it is in none. */
  readonly layer: string;
  /** As written, in small letters; `none` where it is not stroked. */
  readonly stroke: string;
  readonly dashed: boolean;
  /** Dashes of two lengths, as in long, short, long. */
  readonly dashDot: boolean;
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

const MOST_ELEMENTS = 20_000;
const DEEPEST = 60;

/** Millimetres of one unit (CSS Values 3: 1 in = 25.4 mm = 96 px = 72 pt = 6 pc). */
const UNIT_MM: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  px: 25.4 / 96,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
  '': 25.4 / 96,
};

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
const QUIET = new Set([
  'title',
  'style',
  'desc',
  'metadata',
  'defs',
  '#text',
  '#comment',
  '?xml',
  'clippath',
  'mask',
  'marker',
  'pattern',
  'lineargradient',
  'radialgradient',
  'filter',
  'symbol',
]);
const WORDS: Readonly<Record<string, string>> = {
  text: 'text',
  image: 'an image',
  script: 'a script',
  foreignobject: 'foreign content',
  a: 'a link (its shapes are kept)',
  animate: 'an animation',
};

/** How much of a drawing is read, and whether its filled areas are joined, which takes the most time. */
export interface Wanted {
  readonly mostLines: number;
  readonly mostPoints: number;
  readonly fills: boolean;
}
const FOR_A_SHAPE: Wanted = { mostLines: 5000, mostPoints: 60_000, fills: true };

/**
 * Read an SVG file or pasted markup. Throws ShapeError with what is wrong and what would be right, as soon as there is
 * more of it than is wanted.
 */
export function readSvg(text: string, wanted: Wanted = FOR_A_SHAPE): SvgDrawing {
  if (text.length > LARGEST_DRAWING)
    throw new ShapeError(
      `the drawing has ${Math.round(text.length / 1e6)} MB; at most ${LARGEST_DRAWING / 1e6} MB are read`,
    );
  if (/<!ENTITY/i.test(text))
    throw new ShapeError('the drawing declares entities, which are not read; save it as plain SVG');
  let tree: Node[];
  try {
    // Entities are never expanded, values never converted: everything stays text until it is read as a number.
    tree = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      processEntities: false,
      parseTagValue: false,
      parseAttributeValue: false,
      allowBooleanAttributes: true,
    }).parse(text, true) as Node[];
  } catch (error) {
    // The parser tells a place only where it knows one.
    const said = (error as Error).message.split('\n')[0].replace(/:(\d+):undefined$/, ' (line $1)');
    throw new ShapeError(`not SVG: ${said.slice(0, 140)}`);
  }
  const root = tree.find((n) => nameOf(n) === 'svg');
  if (!root) throw new ShapeError('there is no <svg> element; paste the whole drawing, from <svg to </svg>');
  const { byId, css } = survey(root);
  const sheet = readStyleSheet(css);
  const rules = new RuleIndex(sheet.rules);
  const reader = new Reader(byId, rules, wanted);
  for (const words of sheet.leftOut) reader.leftOut.add(words);
  const { matrix, widthMm, heightMm } = viewport(attributes(root));
  reader.group(
    root,
    matrix,
    styled(
      'svg',
      attributes(root),
      { fill: 'black', stroke: 'none', dash: 'none', rule: 'nonzero', shown: true, layer: [], role: '' },
      rules,
      true,
    ),
    0,
  );
  const fills = reader.filled.map(({ rings, rule }) => regionFromRings(rings, rule)).filter((r) => regionArea(r) > 0);
  return { widthMm, heightMm, lines: reader.lines, fills, leftOut: [...reader.leftOut] };
}

/**
 * The shape a drawing holds: its filled areas, or where nothing is filled what its closed lines enclose. Centred, mm,
 * y up.
 */
export function shapeOfSvg(drawing: SvgDrawing): Region {
  const filled = unite(drawing.fills.flat());
  const region =
    filled.length > 0 ? filled : regionFromRings(drawing.lines.filter((l) => l.closed).map((l) => l.points));
  if (region.length === 0)
    throw new ShapeError(
      drawing.lines.length > 0
        ? 'the drawing has lines but no closed outline; close it, or bring it in as a template'
        : 'the drawing has no path or shape in it',
    );
  return region;
}

/** From user units (y down) to mm (y up): the viewport's size, viewBox and preserveAspectRatio. */
function viewport(a: Readonly<Record<string, string>>): { matrix: Matrix; widthMm: number; heightMm: number } {
  const box = viewBoxOf(a);
  const [w, h] = box ? box.slice(2) : [lengthPx(a.width) ?? 300, lengthPx(a.height) ?? 150];
  // A side that is not given follows the other in the box's proportions; with neither, a unit is a px.
  const given = [lengthPx(a.width), lengthPx(a.height)];
  const width = given[0] ?? (given[1] !== null ? (given[1] * w) / h : w);
  const height = given[1] ?? (given[0] !== null ? (given[0] * h) / w : h);
  const px = UNIT_MM.px;
  return {
    matrix: compose(scale(px, -px), translate(0, -height), fitted(a, width, height)),
    widthMm: width * px,
    heightMm: height * px,
  };
}

function viewBoxOf(a: Readonly<Record<string, string>>): readonly number[] | null {
  const box = (a.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return box.length === 4 && box.every(Number.isFinite) && box[2] > 0 && box[3] > 0 ? box : null;
}

/** A viewBox met inside a frame and centred, or stretched to it; as it is without one. */
function fitted(a: Readonly<Record<string, string>>, width: number, height: number): Matrix {
  const box = viewBoxOf(a);
  if (!box) return identity();
  const [x, y, w, h] = box;
  const stretch = (a.preserveAspectRatio ?? '').includes('none');
  const [sx, sy] = stretch
    ? [width / w, height / h]
    : [Math.min(width / w, height / h), Math.min(width / w, height / h)];
  return compose(translate((width - w * sx) / 2, (height - h * sy) / 2), scale(sx, sy), translate(-x, -y));
}

/** Elements by id, and the text of all style sheets. */
function survey(root: Node): { byId: ReadonlyMap<string, Node>; css: string } {
  const byId = new Map<string, Node>();
  const css: string[] = [];
  const queue: { node: Node; depth: number }[] = [{ node: root, depth: 0 }];
  for (let at = queue.pop(); at; at = queue.pop()) {
    const { id } = attributes(at.node);
    // The walk goes backwards, so that of two with one id the first in the file stays.
    if (id) byId.set(id, at.node);
    if (nameOf(at.node) === 'style') css.push(...children(at.node).map((t) => String(t['#text'] ?? '')));
    else if (at.depth <= DEEPEST)
      for (const node of children(at.node)) if (nameOf(node) !== '#text') queue.push({ node, depth: at.depth + 1 });
  }
  return { byId, css: css.reverse().join('\n') };
}

const nameOf = (n: Node): string => (Object.keys(n).find((k) => k !== ':@') ?? '').replace(/^svg:/, '').toLowerCase();
/** Attributes with a value; one without says nothing of a drawing. */
const attributes = (n: Node): Readonly<Record<string, string>> =>
  Object.fromEntries(Object.entries(n[':@'] ?? {}).filter(([, v]) => typeof v === 'string'));
const children = (n: Node): readonly Node[] =>
  (Object.entries(n).find(([k]) => k !== ':@')?.[1] ?? []) as readonly Node[];

class Reader {
  readonly lines: SvgLine[] = [];
  /** Filled areas as they are drawn; they are joined once it is known that there are not too many. */
  readonly filled: { readonly rings: readonly (readonly Vec2[])[]; readonly rule: 'evenodd' | 'nonzero' }[] = [];
  readonly leftOut = new Set<string>();
  private count = 0;
  private points = 0;
  /** Elements being used, outermost first: one that holds its own use is not followed. */
  private readonly using: Node[] = [];

  constructor(
    private readonly byId: ReadonlyMap<string, Node>,
    private readonly rules: RuleIndex,
    private readonly wanted: Wanted,
  ) {}

  group(node: Node, matrix: Matrix, style: Style, depth: number): void {
    if (depth > DEEPEST) throw new ShapeError(`the drawing is nested deeper than ${DEEPEST} groups; ungroup it`);
    for (const child of children(node)) this.element(child, matrix, style, depth);
  }

  private element(node: Node, matrix: Matrix, style: Style, depth: number): void {
    if (++this.count > MOST_ELEMENTS)
      throw new ShapeError(`the drawing has more than ${MOST_ELEMENTS} elements; bring in a part of it`);
    const name = nameOf(node);
    const a = attributes(node);
    if (WORDS[name]) this.leftOut.add(WORDS[name]);
    if (Object.keys(a).some((k) => /^on/i.test(k))) this.leftOut.add('a script');
    if (QUIET.has(name)) return;
    if (!DRAWN.has(name) && !GROUPS.has(name) && name !== 'use') {
      if (!WORDS[name]) this.leftOut.add(`<${name.slice(0, 30)}>`);
      return;
    }
    const own = styled(name, a, style, this.rules, GROUPS.has(name) || name === 'use');
    if (!own.shown) return;
    const m = compose(matrix, transformOf(a.transform));
    if (name === 'use') this.use(a, m, own, depth);
    else if (name === 'svg') this.frame(node, a, m, own, depth);
    else if (GROUPS.has(name)) this.group(node, m, own, depth + 1);
    else this.draw(name, a, m, own);
  }

  /** An element of the same file, drawn again where `use` says; a symbol or svg takes its size from there. */
  private use(a: Readonly<Record<string, string>>, m: Matrix, style: Style, depth: number): void {
    const to = (a.href ?? a['xlink:href'] ?? '').trim();
    const node = to.startsWith('#') ? this.byId.get(to.slice(1)) : undefined;
    if (!node) {
      this.leftOut.add(
        to.startsWith('#')
          ? `a use of "${to.slice(0, 40)}", which is not in the file`
          : 'a use of something outside the file',
      );
      return;
    }
    if (this.using.includes(node)) {
      this.leftOut.add(`"${to.slice(0, 40)}", which uses itself`);
      return;
    }
    this.using.push(node);
    const at = compose(m, translate(lengthPx(a.x) ?? 0, lengthPx(a.y) ?? 0));
    const name = nameOf(node);
    if (name === 'symbol' || name === 'svg')
      this.frame(
        node,
        {
          ...attributes(node),
          x: '0',
          y: '0',
          ...(a.width ? { width: a.width } : {}),
          ...(a.height ? { height: a.height } : {}),
        },
        at,
        styled(name, attributes(node), style, this.rules, true),
        depth,
      );
    else this.element(node, at, style, depth + 1);
    this.using.pop();
  }

  /** A nested svg or a used symbol: its viewBox met inside its own size. */
  private frame(node: Node, a: Readonly<Record<string, string>>, m: Matrix, style: Style, depth: number): void {
    const box = viewBoxOf(a);
    const [width, height] = [lengthPx(a.width) ?? box?.[2] ?? 0, lengthPx(a.height) ?? box?.[3] ?? 0];
    this.group(
      node,
      compose(m, translate(lengthPx(a.x) ?? 0, lengthPx(a.y) ?? 0), fitted(a, width, height)),
      style,
      depth + 1,
    );
  }

  private draw(name: string, a: Readonly<Record<string, string>>, m: Matrix, style: Style): void {
    // Curves are cut finely enough for the size they are drawn at.
    const grown = Math.sqrt(Math.abs(m.a * m.d - m.b * m.c)) || 1;
    const outlines = outlinesOf(name, a, CURVE_TOLERANCE_MM / grown, this.wanted.mostPoints - this.points).map(
      (l): Polyline => ({
        ...l,
        points: l.points.map(([x, y]): Vec2 => {
          const p = applyToPoint(m, { x, y });
          return [p.x, p.y];
        }),
      }),
    );
    if (outlines.some((l) => l.points.some((p) => !p.every((v) => Number.isFinite(v) && Math.abs(v) < 1e5))))
      throw new ShapeError(`a ${name} lies more than 100 m away or has no place; check its transform`);
    this.points += outlines.reduce((n, l) => n + l.points.length, 0);
    if (this.points > this.wanted.mostPoints)
      throw new ShapeError(`the drawing has more than ${this.wanted.mostPoints} points; simplify it`);
    const filled = this.wanted.fills && style.fill !== 'none' && name !== 'line';
    if (filled)
      this.filled.push({
        rings: outlines.filter((l) => l.points.length > 2).map((l) => l.points),
        rule: style.rule === 'evenodd' ? 'evenodd' : 'nonzero',
      });
    if (this.lines.length + outlines.length > this.wanted.mostLines)
      throw new ShapeError(`the drawing has more than ${this.wanted.mostLines} lines; bring in a part of it`);
    for (const [k, line] of outlines.entries()) {
      this.lines.push({
        ...line,
        layer: style.layer.join('/') || (a.id ?? ''),
        stroke: style.stroke.toLowerCase(),
        dashed: style.dash !== 'none' && style.dash !== '',
        dashDot: ofTwoLengths(style.dash),
        filled,
        id: a['data-id'] ?? a.id ?? `${name}-${this.lines.length + 1}${k > 0 ? `-${k + 1}` : ''}`,
        role: a['data-role'] ?? style.role,
      });
    }
  }
}

/**
 * Whether a dash pattern has dashes of clearly different lengths; an odd number of entries is repeated (SVG 2,
 * section 13.5.6).
 */
function ofTwoLengths(pattern: string): boolean {
  const once = pattern
    .split(/[\s,]+/)
    .map(Number.parseFloat)
    .filter(Number.isFinite);
  const entries = once.length % 2 === 0 ? once : [...once, ...once];
  const dashes = entries.filter((_, i) => i % 2 === 0);
  return dashes.length > 1 && Math.max(...dashes) > 1.5 * Math.min(...dashes);
}

/**
 * How an element is drawn: its own style, then what sheets say of it, then its attributes, then what it stands in
 * (CSS cascade).
 */
function styled(name: string, a: Readonly<Record<string, string>>, up: Style, rules: RuleIndex, group: boolean): Style {
  const own = Object.fromEntries(
    (a.style ?? '')
      .split(';')
      .map((part) => part.split(':').map((s) => s.trim()))
      .filter((p) => p.length === 2)
      .map(([k, v]) => [k.toLowerCase(), v]),
  );
  const css = { ...rules.declarationsFor(name, a.id, a.class), ...own };
  const get = (key: string, inherited: string): string => {
    const value = css[key] ?? a[key];
    return value === undefined || value === 'inherit' ? inherited : value;
  };
  const title = Object.entries(a).find(([k]) => k.endsWith(':label'))?.[1] ?? a['data-name'] ?? a.id;
  return {
    fill: get('fill', up.fill),
    stroke: get('stroke', up.stroke),
    dash: get('stroke-dasharray', up.dash),
    rule: get('fill-rule', up.rule),
    shown: up.shown && get('display', '') !== 'none' && get('visibility', '') !== 'hidden',
    layer: title && group && name !== 'svg' ? [...up.layer, title] : up.layer,
    role: a['data-role'] ?? up.role,
  };
}

function transformOf(text: string | undefined): Matrix {
  if (!text || text.trim() === '') return identity();
  try {
    const steps = fromDefinition(fromTransformAttribute(text));
    return compose(Array.isArray(steps) ? steps : [steps]);
  } catch {
    throw new ShapeError(
      `the transform "${text.slice(0, 60)}" is not one SVG knows; it is translate, scale, rotate, ` +
        `skewX, skewY or matrix`,
    );
  }
}

/** An element's outlines in user units, y down. */
function outlinesOf(name: string, a: Readonly<Record<string, string>>, tolerance: number, most: number): Polyline[] {
  const n = (key: string): number => lengthPx(a[key]) ?? 0;
  const closed = (points: readonly Vec2[]): Polyline[] => [{ points, closed: true }];
  switch (name) {
    case 'path':
      return a.d ? polylinesOf(a.d, tolerance, most) : [];
    case 'circle':
      return n('r') > 0 ? closed(ellipse(n('r'), n('r'), [n('cx'), n('cy')], tolerance)) : [];
    case 'ellipse':
      return n('rx') > 0 && n('ry') > 0 ? closed(ellipse(n('rx'), n('ry'), [n('cx'), n('cy')], tolerance)) : [];
    case 'rect': {
      const [w, h] = [n('width'), n('height')];
      if (w <= 0 || h <= 0) return [];
      const [rx, ry] = [lengthPx(a.rx) ?? n('ry'), lengthPx(a.ry) ?? n('rx')];
      // Unequal corner radii are drawn in a stretched frame.
      const k = rx > 0 && ry > 0 ? ry / rx : 1;
      return closed(
        rectShape(w, h / k, rx)[0].outer.map(([x, y]): Vec2 => [n('x') + w / 2 + x, n('y') + h / 2 + y * k]),
      );
    }
    case 'line':
      return [
        {
          points: [
            [n('x1'), n('y1')],
            [n('x2'), n('y2')],
          ],
          closed: false,
        },
      ];
    default: {
      const v = (a.points ?? '')
        .trim()
        .split(/[\s,]+/)
        .filter((s) => s !== '')
        .map(Number);
      if (v.some((x) => !Number.isFinite(x)))
        throw new ShapeError(`a ${name} has points that are not numbers: "${(a.points ?? '').slice(0, 40)}"`);
      const points = Array.from({ length: Math.floor(v.length / 2) }, (_, i): Vec2 => [v[2 * i], v[2 * i + 1]]);
      return points.length > 1 ? [{ points, closed: name === 'polygon' }] : [];
    }
  }
}
