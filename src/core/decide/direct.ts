/**
 * DIRECT: the lowest place of a function over a box, found by dividing boxes into thirds; no derivative is asked for,
 * nothing is drawn by lot. Jones, Perttunen, Stuckman, "Lipschitzian optimization without the Lipschitz constant",
 * J. Optim. Theory Appl. 79 (1993) 157-181; of boxes of one size that are equally good the first is divided, as in
 * Gablonsky, Kelley, "A locally-biased form of the DIRECT algorithm", J. Global Optim. 21 (2001) 27-37.
 */

export interface Span {
  readonly from: number;
  readonly to: number;
}
export interface Lowest {
  readonly values: readonly number[];
  readonly cost: number;
}
export interface WhenToStop {
  /** Most trials of the function, at least 1. */
  readonly trials: number;
  /** The first place that costs no more than this will do. */
  readonly enough?: number;
}

interface Box {
  /** In parts of the spans, 0 to 1. */
  readonly middle: readonly number[];
  /** How often each side was cut to a third. No two of a box differ by more than one, so their sum tells the size. */
  readonly cuts: readonly number[];
  readonly cost: number;
}

/** A box must promise this much less than the lowest cost so far, in parts of it, to be divided (as in the paper). */
const PROMISE = 1e-4;

/** The lowest of the places that were tried. Costs must be finite. Throws RangeError without a span. */
export function lowestIn(
  spans: readonly Span[],
  costAt: (values: readonly number[]) => number,
  stop: WhenToStop,
): Lowest {
  if (spans.length === 0) throw new RangeError('there is no span to search: give at least one');
  const search = new Search(spans, costAt, stop);
  search.run();
  return search.lowest!;
}

class Search {
  lowest: Lowest | null = null;
  private left: number;
  private readonly enough: number;
  /** Boxes by their size: the sum of their cuts. */
  private readonly boxes = new Map<number, Box[]>();

  constructor(
    private readonly spans: readonly Span[],
    private readonly costAt: (values: readonly number[]) => number,
    { trials, enough = -Infinity }: WhenToStop,
  ) {
    this.left = trials;
    this.enough = enough;
  }

  run(): void {
    const { length } = this.spans;
    const middle = new Array<number>(length).fill(0.5);
    this.keep({ middle, cuts: new Array<number>(length).fill(0), cost: this.tried(middle) });
    while (!this.over) this.promising().forEach((box) => this.divide(box));
  }

  /** A side is cut by two trials: with one left no more is begun. */
  private get over(): boolean {
    return this.left < 2 || this.lowest!.cost <= this.enough;
  }

  private tried(place: readonly number[]): number {
    const values = place.map((part, k) => this.spans[k].from + part * (this.spans[k].to - this.spans[k].from));
    const cost = this.costAt(values);
    this.left--;
    if (!this.lowest || cost < this.lowest.cost) this.lowest = { values, cost };
    return cost;
  }

  private keep(box: Box): void {
    const size = sum(box.cuts);
    const same = this.boxes.get(size);
    if (same) same.push(box);
    else this.boxes.set(size, [box]);
  }

  /** The best box of each size that could hide the lowest place of all, whatever the slope of the function. */
  private promising(): Box[] {
    const best = [...this.boxes.values()]
      .filter((b) => b.length > 0)
      .map((b) => b.reduce((a, c) => (c.cost < a.cost ? c : a)));
    const hull = lowerHull(best.map((box) => ({ box, radius: radiusOf(box) })).sort((a, b) => a.radius - b.radius));
    const { cost } = this.lowest!;
    return hull
      .filter(({ box, radius }, k) => {
        if (k === hull.length - 1) return true;
        const slope = (hull[k + 1].box.cost - box.cost) / (hull[k + 1].radius - radius);
        return slope > 0 && box.cost - slope * radius <= cost - PROMISE * Math.abs(cost);
      })
      .map(({ box }) => box);
  }

  /** Cuts the longest sides to thirds, the side with the best trials first: it keeps the largest boxes. */
  private divide(box: Box): void {
    const fewest = Math.min(...box.cuts);
    const third = 3 ** -(fewest + 1);
    const pairs: { readonly side: number; readonly boxes: readonly Omit<Box, 'cuts'>[]; readonly best: number }[] = [];
    for (const side of box.cuts.keys()) {
      if (box.cuts[side] !== fewest) continue;
      if (this.over) return;
      const boxes = [-third, third].map((by) => {
        const middle = box.middle.with(side, box.middle[side] + by);
        return { middle, cost: this.tried(middle) };
      });
      pairs.push({ side, boxes, best: Math.min(...boxes.map((b) => b.cost)) });
    }
    const size = this.boxes.get(sum(box.cuts))!;
    size.splice(size.indexOf(box), 1);
    let cuts = box.cuts;
    for (const { side, boxes } of pairs.sort((a, b) => a.best - b.best)) {
      cuts = cuts.with(side, fewest + 1);
      for (const b of boxes) this.keep({ ...b, cuts });
    }
    this.keep({ ...box, cuts });
  }
}

interface Sized {
  readonly box: Box;
  readonly radius: number;
}
/** Of boxes by radius those that lie on the lower convex hull of radius and cost. */
function lowerHull(sized: readonly Sized[]): Sized[] {
  const out: Sized[] = [];
  for (const next of sized) {
    while (out.length > 1 && liesAbove(out[out.length - 2], out[out.length - 1], next)) out.pop();
    out.push(next);
  }
  return out;
}
const liesAbove = (a: Sized, b: Sized, c: Sized): boolean =>
  (b.box.cost - a.box.cost) * (c.radius - a.radius) >= (c.box.cost - a.box.cost) * (b.radius - a.radius);

/** From the middle to a corner. By the sum of the cuts, so that boxes of one size have one radius to the last bit. */
function radiusOf({ cuts }: Box): number {
  const sides = cuts.length;
  const whole = Math.floor(sum(cuts) / sides);
  const shorter = sum(cuts) % sides;
  return 0.5 * Math.sqrt((sides - shorter) * 9 ** -whole + shorter * 9 ** -(whole + 1));
}
const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
