/** What two numbers do together: the verdict, and a measure, over the ranges of both; refined where it changes. */
import { tryBuild } from '../build/build';
import type { Design } from '../document/design';
import { gather } from '../proof/evidence';
import type { Verdict } from '../proof/prove';
import { RULES } from '../rules';
import { withValues, type Free } from './target';
import { MeasureReader, type Measured } from './wants';

export interface MapCell {
  /** Its middle and its size, in the units of the two numbers. */
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly verdict: Verdict;
  /** What stands against it, first of all. */
  readonly by: string | null;
  /** The measure; null without one, or where the card does not come there. */
  readonly value: number | null;
}
export interface MapAsk {
  readonly x: Free;
  readonly y: Free;
  readonly measure: Measured | null;
}
/** Cells of the first look, each way. */
export const MAP_CELLS = 12;
/** How often a cell whose neighbour is judged otherwise is divided. */
const MAP_ROUNDS = 2;
/** Steps of the travel that a cell is judged by. */
const TRAVEL_STEPS = 12;

/** The map as it grows; every value is whole. Throws DesignError. */
export function* mapSteps(
  design: Design,
  ask: MapAsk,
  cells = MAP_CELLS,
): Generator<readonly MapCell[], readonly MapCell[]> {
  const [w, h] = [(ask.x.to - ask.x.from) / cells, (ask.y.to - ask.y.from) / cells];
  let map: MapCell[] = [];
  for (let j = 0; j < cells; j++)
    for (let i = 0; i < cells; i++) {
      map.push(cellAt(design, ask, ask.x.from + (i + 0.5) * w, ask.y.from + (j + 0.5) * h, w, h));
      if (map.length % 6 === 0) yield [...map];
    }
  for (let round = 0; round < MAP_ROUNDS; round++) {
    const onBorder = (c: MapCell): boolean => map.some((d) => touches(c, d) && c.verdict !== d.verdict);
    const border = map.filter(onBorder);
    const finer = map.filter((c) => !border.includes(c));
    for (const [k, { x, y, w: wide, h: high }] of border.entries()) {
      for (const [sx, sy] of QUARTERS)
        finer.push(cellAt(design, ask, x + (sx * wide) / 4, y + (sy * high) / 4, wide / 2, high / 2));
      yield [...finer, ...border.slice(k + 1)];
    }
    map = finer;
  }
  return map;
}
const QUARTERS = [
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
] as const;

const SLACK = 1e-6;
/** Cells with a stretch of edge in common. */
function touches(a: MapCell, b: MapCell): boolean {
  const [dx, dy] = [Math.abs(a.x - b.x), Math.abs(a.y - b.y)];
  const [mx, my] = [(a.w + b.w) / 2, (a.h + b.h) / 2];
  const [ex, ey] = [SLACK * a.w, SLACK * a.h];
  return (Math.abs(dx - mx) < ex && dy < my - ey) || (Math.abs(dy - my) < ey && dx < mx - ex);
}

function cellAt(
  design: Design,
  { x: fx, y: fy, measure }: MapAsk,
  x: number,
  y: number,
  w: number,
  h: number,
): MapCell {
  return { x, y, w, h, ...judged(withValues(design, [fx, fy], [x, y]), measure) };
}

/** What is known of one place of the map. */
export type Judgement = Pick<MapCell, 'verdict' | 'by' | 'value'>;

/** The verdict of every rule, without remedies, and a measure. */
export function judged(design: Design, measure: Measured | null): Judgement {
  const assembly = tryBuild(design);
  if (!assembly) return { verdict: 'blocked', by: 'the card cannot be put together so', value: null };
  const evidence = { ...gather(design, 'travel', TRAVEL_STEPS, assembly), rough: true };
  const findings = RULES.flatMap((r) => r.check(evidence));
  const worst = findings.find((f) => f.severity === 'blocks') ?? findings.find((f) => f.severity === 'risk');
  return {
    verdict: worst ? (worst.severity === 'blocks' ? 'blocked' : 'risk') : 'clear',
    by: worst?.message ?? null,
    value: measure && new MeasureReader(assembly, evidence).read(measure),
  };
}
