/** Lines of a template from ASCII DXF, blocks placed where they are inserted. */
import interpolate from 'b-spline';
import { applyToPoint, compose, identity, rotateDEG, scale, translate, type Matrix } from 'transformation-matrix';
import { MOST_LINES } from '../pattern/mending';
import { TEMPLATE_ROLES } from '../pattern/pattern';
import { dist2, type Vec2 } from '../plane/vec2';
import { arcPoints, CURVE_TOLERANCE_MM, halvedPoints } from '../shapes/curve';
import { ShapeError } from '../shapes/shape';
import { degToRad } from '../units/angle';
import { ANGLE_ROUNDING_RAD } from '../tolerance';
import { indexColour, trueColour } from './dxf-colour';
import { dxfSections, numberOf, pointsOf, textOf, type Entity, type Sections } from './dxf-tags';
import type { Raw, RawLine } from './template-raw';

/** $INSUNITS of the DXF reference: 1 inch, 2 foot, 4 mm, 5 cm, 6 m; without it, mm. */
const DXF_UNIT_MM: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

/** Throws ShapeError where it is not ASCII DXF, or has more in it than a template has. */
export function dxfLines(text: string): Raw {
  if (text.trim() === '') throw new ShapeError('the file is empty; a template is SVG or ASCII DXF');
  const sections = dxfSections(text);
  const units = sections.get('HEADER')?.find((e) => e.type === '$INSUNITS');
  const k = DXF_UNIT_MM[units ? numberOf(units, 70, 4) : 4] ?? 1;
  const layers = layersOf(sections);
  const leftOut = new Set<string>();
  const lines = placedEntities(sections).flatMap(({ entity, matrix }, i): RawLine[] => {
    const drawn = outlineOf(entity, k);
    if (!drawn) {
      leftOut.add(entity.type.toLowerCase());
      return [];
    }
    const name = textOf(entity, 8) ?? '';
    const layer = layers.get(name.toLowerCase());
    const own = textOf(entity, 6);
    const dashes = own === undefined || /^bylayer$/i.test(own) ? (layer?.lineType ?? '') : own;
    return [
      {
        id: `${name}-${i + 1}`,
        layer: name,
        colour: colourOf(entity) ?? layer?.colour ?? '#000000',
        dashed: /dash|dot|hidden|center/i.test(dashes),
        dashDot: /dash.*dot|center|divide|phantom/i.test(dashes),
        said: (TEMPLATE_ROLES as readonly string[]).includes(name.toLowerCase()) ? name.toLowerCase() : '',
        points: drawn.points.map((p): Vec2 => applyToPoint(matrix, p as [number, number])),
        closed: drawn.closed,
      },
    ];
  });
  return { lines, leftOut: [...leftOut] };
}

interface Layer {
  readonly colour: string;
  readonly lineType: string;
}
const layersOf = (sections: Sections): Map<string, Layer> =>
  new Map(
    (sections.get('TABLES') ?? [])
      .filter((e) => e.type === 'LAYER')
      .map((e) => [
        (textOf(e, 2) ?? '').toLowerCase(),
        // A layer that is switched off has its colour negative.
        { colour: colourOf(e) ?? '#000000', lineType: textOf(e, 6) ?? '' },
      ]),
  );

/** Colour of its own; undefined where it is that of its layer (256) or block (0). */
function colourOf(e: Entity): string | undefined {
  const bits = numberOf(e, 420, -1);
  if (bits >= 0) return trueColour(bits);
  const index = Math.abs(numberOf(e, 62, 256));
  return index === 0 || index === 256 ? undefined : indexColour(index);
}

interface PlacedEntity {
  readonly entity: Entity;
  /** Acts in mm. */
  readonly matrix: Matrix;
}
interface Block {
  readonly base: readonly [number, number];
  readonly entities: readonly Entity[];
}
const DEEPEST_BLOCK = 12;
/** Blocks that are placed, counted each time they are, whether they draw anything or not. */
const MOST_PLACED = 20_000;

/** What the drawing shows: its entities, and those of the blocks they place. */
function placedEntities(sections: Sections): PlacedEntity[] {
  const blocks = blocksOf(sections);
  const out: PlacedEntity[] = [];
  let placed = 0;
  const place = (entity: Entity, matrix: Matrix, depth: number): void => {
    const block = entity.type === 'INSERT' ? blocks.get(textOf(entity, 2) ?? '') : undefined;
    if (!block || depth >= DEEPEST_BLOCK) {
      if (out.push({ entity, matrix }) > MOST_LINES)
        throw new ShapeError(
          `the drawing has more than ${MOST_LINES} lines, those of its blocks counted where they are placed; ` +
            'bring in a part of it',
        );
      return;
    }
    if (++placed > MOST_PLACED)
      throw new ShapeError(`the drawing places more than ${MOST_PLACED} blocks; bring in a part of it`);
    const inner = compose(matrix, placementOf(entity, block));
    for (const e of block.entities) place(e, inner, depth + 1);
  };
  for (const e of withVertices(sections.get('ENTITIES') ?? [])) place(e, identity(), 0);
  return out;
}

function placementOf(e: Entity, { base }: Block): Matrix {
  const [at = { x: 0, y: 0 }] = pointsOf(e);
  return compose(
    translate(at.x, at.y),
    rotateDEG(numberOf(e, 50, 0)),
    scale(numberOf(e, 41, 1), numberOf(e, 42, 1)),
    translate(-base[0], -base[1]),
  );
}

function blocksOf(sections: Sections): Map<string, Block> {
  const blocks = new Map<string, Block>();
  let begun: { name: string; base: [number, number]; entities: Entity[] } | null = null;
  for (const e of sections.get('BLOCKS') ?? []) {
    if (e.type === 'BLOCK') {
      begun = { name: textOf(e, 2) ?? '', base: [numberOf(e, 10, 0), numberOf(e, 20, 0)], entities: [] };
    } else if (e.type === 'ENDBLK' && begun) {
      blocks.set(begun.name, { base: begun.base, entities: withVertices(begun.entities) });
      begun = null;
    } else begun?.entities.push(e);
  }
  return blocks;
}

/** An old polyline has its corners as entities of their own, up to a SEQEND or whatever else follows. */
function withVertices(entities: readonly Entity[]): Entity[] {
  const out: Entity[] = [];
  let line: { type: string; tags: Entity['tags'][number][] } | null = null;
  for (const e of entities) {
    if (e.type === 'VERTEX') line?.tags.push(...e.tags.filter(([c]) => c === 10 || c === 20 || c === 42));
    else if (e.type === 'SEQEND') line = null;
    else {
      line = null;
      // What a polyline says of a point is its height only.
      if (e.type === 'POLYLINE') {
        line = { type: e.type, tags: e.tags.filter(([c]) => c !== 10 && c !== 20) };
        out.push(line);
      } else out.push(e);
    }
  }
  return out;
}

interface Drawn {
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}

/** What an entity draws, mm; null for what is no line. An entity that is seen from below is mirrored. */
function outlineOf(e: Entity, k: number): Drawn | null {
  const drawn = drawnOf(e, k);
  const below = numberOf(e, 230, 1) < 0 && !WORLD_AXES.has(e.type);
  return drawn && below ? { ...drawn, points: drawn.points.map(([x, y]): Vec2 => [-x, y]) } : drawn;
}
/** Entities whose points are those of the world whatever way they face (DXF reference, object coordinates). */
const WORLD_AXES = new Set(['LINE', 'ELLIPSE', 'SPLINE']);

function drawnOf(e: Entity, k: number): Drawn | null {
  const points = pointsOf(e);
  const at = (p: { x: number; y: number }): Vec2 => [p.x * k, p.y * k];
  switch (e.type) {
    case 'LINE': {
      const [to] = pointsOf(e, 11);
      return points.length > 0 && to ? { points: [at(points[0]), at(to)], closed: false } : null;
    }
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const closed = (numberOf(e, 70, 0) & 1) === 1;
      if (points.length < 2) return null;
      const drawn = points.flatMap((p, i): Vec2[] => {
        const q = points[i + 1] ?? (closed ? points[0] : null);
        return [at(p), ...(q && p.bulge ? bulged(at(p), at(q), p.bulge).slice(0, -1) : [])];
      });
      return { points: drawn, closed };
    }
    case 'CIRCLE':
    case 'ARC':
      return roundOf(e, points.map(at)[0], k);
    case 'ELLIPSE':
      return ellipseOf(e, points.map(at)[0], pointsOf(e, 11).map(at)[0]);
    case 'SPLINE':
      return splineOutline(
        points.map(at),
        numberOf(e, 71, 3),
        e.tags.filter(([c]) => c === 40).map(([, v]) => Number(v)),
        (numberOf(e, 70, 0) & 4) === 4,
      );
    default:
      return null;
  }
}

/** From one angle round to another, rad; a whole turn where they are the same. */
const turnOf = (from: number, to: number): number =>
  (((to - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;

function roundOf(e: Entity, centre: Vec2 | undefined, k: number): Drawn | null {
  const r = numberOf(e, 40, 0) * k;
  if (!centre || !(r > 0)) return null;
  if (e.type === 'CIRCLE') return { points: arcPoints(centre, r, r, 0, 2 * Math.PI).slice(0, -1), closed: true };
  const [from, to] = [degToRad(numberOf(e, 50, 0)), degToRad(numberOf(e, 51, 0))];
  return { points: arcPoints(centre, r, r, from, turnOf(from, to)), closed: false };
}

const NOWHERE: Vec2 = [Number.NaN, Number.NaN];

function ellipseOf(e: Entity, centre: Vec2 | undefined, major: Vec2 | undefined): Drawn | null {
  if (!centre || !major) return null;
  const [a, tilt] = [Math.hypot(...major), Math.atan2(major[1], major[0])];
  const from = numberOf(e, 41, 0);
  const sweep = turnOf(from, numberOf(e, 42, 2 * Math.PI));
  // A number that is none makes a place that is none, which is told with the rest of the drawing.
  if (![a, tilt, from, sweep, numberOf(e, 40, 1)].every(Number.isFinite)) return { points: [NOWHERE], closed: false };
  const full = sweep > 2 * Math.PI - ANGLE_ROUNDING_RAD;
  const points = arcPoints([0, 0], a, a * numberOf(e, 40, 1), from, sweep).map(([x, y]): Vec2 => [
    centre[0] + x * Math.cos(tilt) - y * Math.sin(tilt),
    centre[1] + x * Math.sin(tilt) + y * Math.cos(tilt),
  ]);
  return { points: full ? points.slice(0, -1) : points, closed: full };
}

/**
 * A B-spline between its knots; null where it is rational (its weights are not read) or its knots do not fit its
 * points, or do not rise.
 */
function splineOutline(
  points: readonly Vec2[],
  degree: number,
  knots: readonly number[] | undefined,
  rational: boolean,
): Drawn | null {
  if (rational || degree < 1 || degree > 10 || points.length <= degree || knots?.length !== points.length + degree + 1)
    return null;
  if (!Number.isInteger(degree) || knots.some((u, k) => !Number.isFinite(u) || (k > 0 && u < knots[k - 1])))
    return null;
  const [low, high] = [knots[degree], knots[points.length]];
  if (!(high > low)) return null;
  const spans = Array.from({ length: points.length - degree }, (_, i) => degree + i).filter(
    (i) => knots[i + 1] > knots[i],
  );
  const line = spans.flatMap((i, n) => {
    const at = alongSpan(points, degree, knots, i);
    return [...(n === 0 ? [at(0)] : []), ...halvedPoints(at, 0, 1, CURVE_TOLERANCE_MM)];
  });
  const closed = dist2(line[0], line[line.length - 1]) < CURVE_TOLERANCE_MM;
  return { points: closed ? line.slice(0, -1) : line, closed };
}

/**
 * A span of a B-spline, from knot `i` to the next as 0 to 1: only degree + 1 points and the knots around them say where
 * it runs (de Boor), so that a long spline takes no longer for each of its places.
 */
function alongSpan(points: readonly Vec2[], degree: number, knots: readonly number[], i: number): (t: number) => Vec2 {
  const [near, around] = [points.slice(i - degree, i + 1), knots.slice(i - degree, i + degree + 2)];
  return (t) => interpolate(t, degree, near, around) as unknown as Vec2;
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
