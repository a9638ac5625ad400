/** Lines of one's own drawn out: every spot looked up, copies made. Axes of what they stand on, mm. */
import { mapRegion, ringsOf, boxOf, type Polygon, type Region } from '../../plane/polygon';
import { stretchesInside } from '../../plane/chord';
import { add2, cross2, dist2, lerp2, scale2, sub2, type Vec2 } from '../../plane/vec2';
import { ShapeError, type Shape } from '../../shapes/shape';
import { WELD_MM } from '../../tolerance';
import { degToRad } from '../../units/angle';
import type { Lack } from '../kind';
import { amountIn, type Amount, type Numbers } from './amount';
import type { OwnLine, Spot, SpotAt } from './own-line';

/** What spots may be measured from beside the lines themselves. */
export interface Surroundings {
  readonly numbers: Numbers;
  /** Creases of the piece, by id. */
  readonly crease: (id: string) => Straight | undefined;
  /** Facets of the piece as it was before, by id. */
  readonly facet: (id: string) => Polygon | undefined;
  readonly outline: (shape: Shape) => Region;
}
export interface Straight {
  readonly a: Vec2;
  readonly b: Vec2;
}
/** One run of points of a line, or of a copy of it. */
export interface Run {
  readonly line: OwnLine;
  /** That of the line; of copies with what tells them apart. */
  readonly name: string;
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}
export interface Drawing {
  readonly runs: readonly Run[];
  /** Lines that hang on something that is not there. */
  readonly lacks: readonly Lack[];
}

/** What a line hangs on is not there: it is left out, and said. */
class Missing extends Error {}

/** @throws ShapeError for amounts that have no value, and for lines that are measured from each other */
export function drawLines(lines: readonly OwnLine[], around: Surroundings): Drawing {
  const pen = new Pen(lines, around);
  const runs: Run[] = [];
  const lacks: Lack[] = [];
  for (const line of lines) {
    try {
      runs.push(...pen.runsOf(line).flatMap((run) => copiesOf(run, around.numbers)));
    } catch (error) {
      if (!(error instanceof Missing)) throw error;
      lacks.push({ key: `line ${line.name}`, what: `its line ${line.name} ${error.message}` });
    }
  }
  return { runs, lacks };
}

/** A spot of a line, and where it lies. */
export interface DrawnSpot {
  readonly line: OwnLine;
  /** `from`, `to`, `middle`, or which of its corners. */
  readonly end: 'from' | 'to' | 'middle' | number;
  readonly at: Vec2;
}
/** Every spot of lines, looked up; those that hang on what is not there are left out. Throws ShapeError. */
export function spotsIn(lines: readonly OwnLine[], around: Surroundings): DrawnSpot[] {
  const pen = new Pen(lines, around);
  return lines.flatMap((line) => {
    try {
      return endsOf(line).map(([end, spot]): DrawnSpot => ({ line, end, at: pen.at(spot) }));
    } catch (error) {
      if (!(error instanceof Missing)) throw error;
      return [];
    }
  });
}
function endsOf(line: OwnLine): readonly (readonly [DrawnSpot['end'], Spot])[] {
  if ('from' in line)
    return [
      ['from', line.from],
      ['to', line.to],
    ];
  if ('corners' in line) return line.corners.map((spot, k) => [k, spot] as const);
  return 'shape' in line ? [['middle', line.middle]] : [];
}

class Pen {
  private readonly done = new Map<OwnLine, readonly Run[]>();
  private readonly open = new Set<OwnLine>();

  constructor(
    private readonly lines: readonly OwnLine[],
    private readonly around: Surroundings,
  ) {}

  runsOf(line: OwnLine): readonly Run[] {
    const known = this.done.get(line);
    if (known) return known;
    if (this.open.has(line))
      throw new ShapeError(`line ${line.name} is measured from itself by way of others; measure one from elsewhere`);
    this.open.add(line);
    const runs = this.drawn(line);
    this.open.delete(line);
    for (const { points, name } of runs)
      if (points.length < 2 || points.every((p) => dist2(p, points[0]) < WELD_MM))
        throw new ShapeError(`line ${name} has no length; its ends lie in one place`);
    this.done.set(line, runs);
    return runs;
  }

  private drawn(line: OwnLine): readonly Run[] {
    const run = (points: readonly Vec2[], closed = false): Run => ({ line, name: line.name, points, closed });
    if ('from' in line) return [run([this.at(line.from), this.at(line.to)])];
    if ('beside' in line) return [run(this.besideOf(line))];
    if ('facet' in line) return [run(this.acrossOf(line))];
    if ('corners' in line)
      return [
        run(
          line.corners.map((s) => this.at(s)),
          line.closed,
        ),
      ];
    const rings = this.outlineOf(line).flatMap(ringsOf);
    if (rings.length === 0) throw new ShapeError(`line ${line.name} runs along a shape without area`);
    return rings.map((ring, k) => ({ ...run(ring, true), name: k === 0 ? line.name : `${line.name}-${k + 1}` }));
  }

  private amount(amount: Amount | undefined): number {
    return amount === undefined ? 0 : amountIn(amount, this.around.numbers);
  }

  at({ of, at, x, y }: Spot): Vec2 {
    return add2(of === undefined ? [0, 0] : this.held(of, at), [this.amount(x), this.amount(y)]);
  }

  /** A place on what has a name or id. */
  private held(of: string, at: SpotAt | undefined): Vec2 {
    const facet = this.around.facet(of);
    if (facet) return inBox(facet, at);
    const { a, b } = this.straight(of);
    if (typeof at === 'number') return lerp2(a, b, at);
    return at === 'end' ? b : at === 'middle' ? lerp2(a, b, 0.5) : a;
  }

  /** From the first to the last point of a line, of one's own or of the piece. */
  private straight(of: string): Straight {
    const own = this.lines.find((l) => l.name === of);
    if (own) {
      const { points } = this.runsOf(own)[0];
      return { a: points[0], b: points[points.length - 1] };
    }
    const crease = this.around.crease(of);
    if (!crease) throw new Missing(`is measured from "${of}", which is not on its piece`);
    return crease;
  }

  private besideOf({ beside, mm, start, end }: Extract<OwnLine, { beside: string }>): Vec2[] {
    const { a, b } = this.straight(beside);
    const long = dist2(a, b);
    if (long < WELD_MM) throw new Missing(`runs beside "${beside}", which has no direction`);
    const along = scale2(sub2(b, a), 1 / long);
    const off = scale2([-along[1], along[0]], this.amount(mm));
    return [
      add2(add2(a, off), scale2(along, this.amount(start))),
      add2(add2(b, off), scale2(along, -this.amount(end))),
    ];
  }

  private acrossOf({ facet, part, way }: Extract<OwnLine, { facet: string }>): Vec2[] {
    const polygon = this.around.facet(facet);
    if (!polygon) throw new Missing(`runs across "${facet}", which is not on its piece`);
    const { min, max } = boxOf(polygon.outer);
    const k = way === 'along' ? 1 : 0;
    const level = min[k] + (max[k] - min[k]) * this.amount(part);
    const origin: Vec2 = k === 1 ? [0, level] : [level, 0];
    const along: Vec2 = k === 1 ? [1, 0] : [0, 1];
    const [longest] = stretchesInside(polygon, origin, along).sort((p, q) => q.to - q.from - (p.to - p.from));
    if (!longest) throw new Missing(`runs past the edge of "${facet}", where it has no paper`);
    return [longest.from, longest.to].map((t) => add2(origin, scale2(along, t)));
  }

  private outlineOf({ shape, middle, turnDeg }: Extract<OwnLine, { shape: Shape }>): Region {
    const region = this.around.outline(shape);
    const { min, max } = boxOf(region.flatMap((p) => p.outer));
    const own = lerp2(min, max, 0.5);
    const turn = degToRad(this.amount(turnDeg));
    const [s, c] = [Math.sin(turn), Math.cos(turn)];
    const at = this.at(middle);
    return mapRegion(region, (p) => {
      const [x, y] = sub2(p, own);
      return add2(at, [c * x - s * y, s * x + c * y]);
    });
  }
}

/** A corner, the middle of an edge, or the middle of a facet's box. */
export function inBox({ outer }: Pick<Polygon, 'outer'>, at: SpotAt | undefined): Vec2 {
  const { min, max } = boxOf(outer);
  const place = typeof at === 'object' ? at : { x: 'middle', y: 'middle' };
  const on = (k: 0 | 1, word: string): number =>
    word === 'low' ? min[k] : word === 'high' ? max[k] : (min[k] + max[k]) / 2;
  return [on(0, place.x), on(1, place.y)];
}

/** A run with its row, and all of that mirrored. */
function copiesOf(run: Run, numbers: Numbers): Run[] {
  const { mirror, repeat } = run.line;
  const times = repeat?.times ?? 1;
  const step: Vec2 = repeat ? [amountIn(repeat.x, numbers), amountIn(repeat.y, numbers)] : [0, 0];
  const row = Array.from({ length: times }, (_, k) => ({
    ...run,
    name: k === 0 ? run.name : `${run.name}-r${k + 1}`,
    points: run.points.map((p) => add2(p, scale2(step, k))),
  }));
  const mirrored = (sign: Vec2, mark: string): Run[] =>
    row.map((r) => ({ ...r, name: `${r.name}-${mark}`, points: r.points.map(([x, y]) => [sign[0] * x, sign[1] * y]) }));
  return [
    ...row,
    ...(mirror === 'crease' || mirror === 'both' ? mirrored([1, -1], 'over') : []),
    ...(mirror === 'middle' || mirror === 'both' ? mirrored([-1, 1], 'beside') : []),
    ...(mirror === 'both' ? mirrored([-1, -1], 'opposite') : []),
  ];
}

/** The straight stretches of a run, in order. */
export function stretchesOf({ points, closed }: Pick<Run, 'points' | 'closed'>): Straight[] {
  const ends = closed ? points : points.slice(0, -1);
  return ends.map((a, k) => ({ a, b: points[(k + 1) % points.length] })).filter(({ a, b }) => dist2(a, b) > WELD_MM);
}

/** The part of a crease that a stretch lies along, as ways from its start; null where it lies elsewhere. */
export function partAlong(crease: Straight, { a, b }: Straight): { readonly from: number; readonly to: number } | null {
  const long = dist2(crease.a, crease.b);
  const along = scale2(sub2(crease.b, crease.a), 1 / long);
  const [p, q] = [sub2(a, crease.a), sub2(b, crease.a)];
  if (Math.abs(cross2(along, p)) > WELD_MM || Math.abs(cross2(along, q)) > WELD_MM) return null;
  const ways = [p, q].map(([x, y]) => x * along[0] + y * along[1]);
  const [from, to] = [Math.max(0, Math.min(...ways)), Math.min(long, Math.max(...ways))];
  return to - from > WELD_MM ? { from, to } : null;
}
