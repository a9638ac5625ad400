/** Places of a map of two numbers, and of the square it is drawn on. */
import type { MapCell } from '@/core/decide/map';
import type { Free } from '@/core/decide/target';

/** Values of the two numbers: across, up. */
export type Place = readonly [number, number];
/** Drawn on a square of so many units; the ranges of the two numbers fill it. */
export const SIDE = 300;

const tenth = (v: number): number => Math.round(v * 10) / 10;
const within = (v: number, { from, to }: Free): number => Math.min(to, Math.max(from, tenth(v)));

export class MapSquare {
  constructor(
    readonly x: Free,
    readonly y: Free,
    private readonly cells: readonly MapCell[],
  ) {}

  px(v: number): number {
    return (SIDE * (v - this.x.from)) / (this.x.to - this.x.from);
  }
  py(v: number): number {
    return SIDE - (SIDE * (v - this.y.from)) / (this.y.to - this.y.from);
  }
  /** The place nearest to numbers that may lie beside the map, to a tenth. */
  near(across: number, up: number): Place {
    return [within(across, this.x), within(up, this.y)];
  }
  /** At parts of the square's width and height, from its upper left. */
  at(u: number, v: number): Place {
    const { x, y } = this;
    return this.near(x.from + u * (x.to - x.from), y.to - v * (y.to - y.from));
  }
  cell([across, up]: Place): MapCell | undefined {
    return this.cells.find((c) => Math.abs(c.x - across) <= c.w / 2 && Math.abs(c.y - up) <= c.h / 2);
  }
  /** Led into what is blocked, it goes along the edge of that: in the middle of the nearest cell that is not. */
  alongEdge(p: Place): Place {
    const open = this.cells.filter((c) => c.verdict !== 'blocked');
    if (this.cell(p)?.verdict !== 'blocked' || open.length === 0) return p;
    const far = (c: MapCell): number => Math.hypot(this.px(c.x) - this.px(p[0]), this.py(c.y) - this.py(p[1]));
    const nearest = open.reduce((best, c) => (far(c) < far(best) ? c : best));
    return this.near(nearest.x, nearest.y);
  }
}
