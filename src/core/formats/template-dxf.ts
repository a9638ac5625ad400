/** Lines of a template from ASCII DXF, blocks placed where they are inserted. */
import interpolate from 'b-spline';
import DxfParser, { type IEntity, type IInsertEntity } from 'dxf-parser';
import { applyToPoint, compose, identity, rotateDEG, scale, translate, type Matrix } from 'transformation-matrix';
import { MOST_LINES } from '../pattern/mending';
import { TEMPLATE_ROLES } from '../pattern/pattern';
import { dist2, type Vec2 } from '../plane/vec2';
import { arcPoints, CURVE_TOLERANCE_MM, halvedPoints } from '../shapes/curve';
import { ShapeError } from '../shapes/shape';
import type { Raw, RawLine } from './template-raw';
import { ANGLE_ROUNDING_RAD } from '../tolerance';

/** $INSUNITS of the DXF reference: 1 inch, 2 foot, 4 mm, 5 cm, 6 m; without it, mm. */
const DXF_UNIT_MM: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

export function dxfLines(text: string): Raw {
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
  if (placed.length > MOST_LINES)
    throw new ShapeError(
      `the drawing has ${placed.length} lines, those of its blocks counted where they are placed; at ` +
        `most ${MOST_LINES} are read`,
    );
  const lines = placed.flatMap(({ entity: e, matrix }, i): RawLine[] => {
    const drawn = dxfOutline(e, k);
    const outline = drawn && {
      ...drawn,
      points: drawn.points.map((p): Vec2 => applyToPoint(matrix, p as [number, number])),
    };
    if (!outline) {
      leftOut.add(e.type.toLowerCase());
      return [];
    }
    const rgb = e.color ?? layers[e.layer]?.color ?? 0;
    return [
      {
        id: `${e.layer}-${i + 1}`,
        layer: e.layer ?? '',
        colour: `#${rgb.toString(16).padStart(6, '0')}`,
        dashed: /dash|dot|hidden|center/i.test(`${e.lineType ?? ''}`),
        dashDot: /dash.*dot|center|divide|phantom/i.test(`${e.lineType ?? ''}`),
        said: (TEMPLATE_ROLES as readonly string[]).includes(e.layer?.toLowerCase()) ? e.layer.toLowerCase() : '',
        ...outline,
      },
    ];
  });
  return { lines, leftOut: [...leftOut] };
}

interface PlacedEntity {
  readonly entity: IEntity;
  readonly matrix: Matrix;
}
const DEEPEST_BLOCK = 12;

/** An entity, or those of the block it places; the matrix acts in the units of the file. */
function insertedEntities(
  entity: IEntity,
  blocks: Readonly<Record<string, { entities?: IEntity[]; position?: { x: number; y: number } }>>,
  matrix: Matrix,
  depth: number,
): PlacedEntity[] {
  if (entity.type !== 'INSERT') return [{ entity, matrix }];
  const { name, position, xScale = 1, yScale = 1, rotation = 0 } = entity as IInsertEntity;
  const block = Object.hasOwn(blocks, name) ? blocks[name] : undefined;
  if (!block?.entities || depth >= DEEPEST_BLOCK) return [{ entity, matrix }];
  const base = block.position ?? { x: 0, y: 0 };
  const inner = compose(
    matrix,
    translate(position?.x ?? 0, position?.y ?? 0),
    rotateDEG(rotation),
    scale(xScale, yScale),
    translate(-base.x, -base.y),
  );
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
  const e = entity as unknown as {
    type: string;
    vertices?: Point[];
    shape?: boolean;
    closed?: boolean;
    center?: Point;
    radius?: number;
    startAngle?: number;
    endAngle?: number;
    majorAxisEndPoint?: Point;
    axisRatio?: number;
    controlPoints?: Point[];
    degreeOfSplineCurve?: number;
    knotValues?: number[];
    rational?: boolean;
  };
  const at = (p: Point): Vec2 => [p.x * k, p.y * k];
  const turn = (from: number, to: number): number =>
    (((to - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;
  switch (e.type) {
    case 'LINE':
      return e.vertices && e.vertices.length >= 2 ? { points: e.vertices.slice(0, 2).map(at), closed: false } : null;
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
    case 'CIRCLE':
      return e.center && e.radius
        ? { points: arcPoints(at(e.center), e.radius * k, e.radius * k, 0, 2 * Math.PI).slice(0, -1), closed: true }
        : null;
    case 'ARC':
      return e.center && e.radius
        ? {
            points: arcPoints(
              at(e.center),
              e.radius * k,
              e.radius * k,
              e.startAngle ?? 0,
              turn(e.startAngle ?? 0, e.endAngle ?? 0),
            ),
            closed: false,
          }
        : null;
    case 'ELLIPSE': {
      if (!e.center || !e.majorAxisEndPoint) return null;
      const [mx, my] = at(e.majorAxisEndPoint);
      const [a, tilt] = [Math.hypot(mx, my), Math.atan2(my, mx)];
      const sweep = turn(e.startAngle ?? 0, e.endAngle ?? 2 * Math.PI);
      const full = sweep > 2 * Math.PI - ANGLE_ROUNDING_RAD;
      const [cx, cy] = at(e.center);
      const points = arcPoints([0, 0], a, a * (e.axisRatio ?? 1), e.startAngle ?? 0, sweep).map(([x, y]): Vec2 => [
        cx + x * Math.cos(tilt) - y * Math.sin(tilt),
        cy + x * Math.sin(tilt) + y * Math.cos(tilt),
      ]);
      return { points: full ? points.slice(0, -1) : points, closed: full };
    }
    case 'SPLINE':
      return splineOutline(
        (e.controlPoints ?? []).map(at),
        e.degreeOfSplineCurve ?? 3,
        e.knotValues,
        e.rational === true,
      );
    default:
      return null;
  }
}

/**
 * A B-spline between its knots; null where it is rational (its weights are not read) or its knots do not fit its
 * points.
 */
function splineOutline(
  points: readonly Vec2[],
  degree: number,
  knots: readonly number[] | undefined,
  rational: boolean,
): { points: readonly Vec2[]; closed: boolean } | null {
  if (rational || degree < 1 || degree > 10 || points.length <= degree || knots?.length !== points.length + degree + 1)
    return null;
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
