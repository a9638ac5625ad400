/**
 * Shapes on sheets by their true outlines, holes used. One layout is made by putting shapes down in an order, each at
 * the best place that is free; the order, the turns and what counts as best are then changed by chance and kept where
 * that is no worse. Seeded: the same seed and number of rounds give the same layout.
 */
import { randomLcg } from 'd3-random';
import { rotated } from '../../plane/turning';
import { bestPlace, compareScores, PREFERENCES, type Lying, type Place, type Preference, type Room } from './place';
import { NoFits, turnedShape, type Turned } from './no-fit';
import { regionArea, type Region } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';

export interface NestItem {
  /** Shapes with one key have one outline. */
  readonly key: string;
  /** What it takes, spacing and all, mm. */
  readonly region: Region;
  /** Turns it may lie at, degrees to the left; the first is preferred where it does not matter. */
  readonly turns: readonly number[];
  /** It lies there and stays: the sheet, and where its origin is on it. */
  readonly fixed?: { readonly sheet: number; readonly at: Vec2; readonly turnDeg: number };
}
export interface NestSheet extends Room {
  /** A cheaper sheet is begun before a dearer one: an offcut before a whole sheet. */
  readonly cost: number;
}
/** Where the origin of an item lies: a point p of it is at `at` + p turned. */
export interface Nested {
  readonly item: number;
  readonly sheet: number;
  readonly at: Vec2;
  readonly turnDeg: number;
}
export interface Nesting {
  readonly placed: readonly Nested[];
  readonly unplaced: readonly number[];
  /** Less is better, first number first: area without a place, cost of the sheets begun, sheet spent, how far out. */
  readonly cost: readonly number[];
  readonly rounds: number;
}

interface Plan {
  readonly order: readonly number[];
  /** A turn that is tried alone, by item. */
  readonly turn: ReadonlyMap<number, number>;
  readonly prefer: Preference;
  /** Another preference, by item. */
  readonly own: ReadonlyMap<number, Preference>;
}

/** A change may be as bad as the layout was so many rounds ago: late acceptance (Burke and Bykov 2017). */
const LOOKS_BACK = 40;
/** Rounds without gain after which the search goes on from the best again, in a new direction. */
const PATIENCE = 400;

/** Yields the best layout known after every round; the first at once. It ends when nothing can be gained. */
export function* nesting(
  items: readonly NestItem[],
  sheets: readonly NestSheet[],
  seed: number,
): Generator<Nesting, undefined> {
  const random = randomLcg(seedPart(seed));
  const table = new Workbench(items, sheets);
  let [best, bestPlan] = firstOf(table);
  let rounds = PREFERENCES.length;
  yield { ...best, rounds };
  // One shape alone has had every turn and preference.
  if (table.free.length <= 1) return undefined;
  let [now, nowPlan] = [best, bestPlan];
  let before = Array.from({ length: LOOKS_BACK }, () => best.cost);
  for (let idle = 0; ; idle++) {
    const plan = changed(nowPlan, table, random);
    const bar = before[rounds % LOOKS_BACK];
    const made = table.lay(plan, bar);
    rounds++;
    if (made && (compareCosts(made.cost, now.cost) <= 0 || compareCosts(made.cost, bar) <= 0))
      [now, nowPlan] = [made, plan];
    before[rounds % LOOKS_BACK] = now.cost;
    if (compareCosts(now.cost, best.cost) < 0) [best, bestPlan, idle] = [now, nowPlan, 0];
    if (idle > PATIENCE) {
      [nowPlan, idle] = [shaken(bestPlan, table, random), 0];
      now = table.lay(nowPlan, null)!;
      before = before.map(() => now.cost);
    }
    yield { ...best, rounds };
  }
}

/** Seeds are whole numbers; the generator takes parts of one. */
const seedPart = (seed: number): number => ((seed * 2654435761) % 2 ** 32) / 2 ** 32;

function firstOf(table: Workbench): [Omit<Nesting, 'rounds'>, Plan] {
  const order = [...table.free].sort((a, b) => table.area(b) - table.area(a) || a - b);
  const made = PREFERENCES.map((prefer): [Omit<Nesting, 'rounds'>, Plan] => {
    const plan: Plan = { order, turn: new Map(), prefer, own: new Map() };
    return [table.lay(plan, null)!, plan];
  });
  return made.reduce((a, b) => (compareCosts(b[0].cost, a[0].cost) < 0 ? b : a));
}

export const compareCosts = (a: readonly number[], b: readonly number[]): number => {
  for (let k = 0; k < a.length; k++) if (Math.abs(a[k] - b[k]) > COST_ROUNDING * Math.abs(a[k])) return a[k] - b[k];
  return 0;
};
/** Costs that differ by less than this part are equal: sums in another order. */
const COST_ROUNDING = 1e-9;

/** One thing changed: two shapes in each other's place, one sooner, one turned, or what is preferred. */
function changed(plan: Plan, table: Workbench, random: () => number): Plan {
  const { order } = plan;
  const pick = (): number => Math.floor(random() * order.length);
  const what = random();
  if (what < 0.5 && order.length > 1) return { ...plan, order: swapped(order, pick(), pick()) };
  if (what < 0.7 && order.length > 1) return { ...plan, order: moved(order, pick(), pick()) };
  if (what < 0.94) {
    const item = order[pick()];
    const { turns } = table.items[item];
    const turn = new Map(plan.turn);
    const at = Math.floor(random() * (turns.length + 1));
    if (at === turns.length) turn.delete(item);
    else turn.set(item, turns[at]);
    return { ...plan, turn };
  }
  const prefer = PREFERENCES[Math.floor(random() * PREFERENCES.length)];
  if (what < 0.97) return { ...plan, prefer };
  return { ...plan, own: new Map(plan.own).set(order[pick()], prefer) };
}
const swapped = (order: readonly number[], i: number, j: number): number[] =>
  order.map((v, k) => (k === i ? order[j] : k === j ? order[i] : v));
function moved(order: readonly number[], from: number, to: number): number[] {
  const rest = order.filter((_, k) => k !== from);
  return [...rest.slice(0, to), order[from], ...rest.slice(to)];
}
function shaken(plan: Plan, table: Workbench, random: () => number): Plan {
  let out = plan;
  for (let k = 0; k < 2 + Math.floor(random() * 4); k++) out = changed(out, table, random);
  return out;
}

interface Bin {
  readonly room: NestSheet;
  readonly lying: Lying[];
}

/** What stays the same from round to round. */
class Workbench {
  private readonly noFits = new NoFits();
  private readonly shapes = new Map<string, Turned>();
  readonly free: readonly number[];

  constructor(
    readonly items: readonly NestItem[],
    private readonly sheets: readonly NestSheet[],
  ) {
    this.free = items.flatMap((item, i) => (item.fixed ? [] : [i]));
  }

  area(item: number): number {
    return regionArea(this.items[item].region);
  }

  shapeOf(item: number, turnDeg: number): Turned {
    const { key, region } = this.items[item];
    const own = `${key}@${turnDeg}`;
    const known = this.shapes.get(own) ?? turnedShape(own, rotated(region, turnDeg));
    this.shapes.set(own, known);
    return known;
  }

  /** Null as soon as it cannot be as good as the cost it has to beat. */
  lay(plan: Plan, beat: readonly number[] | null): Omit<Nesting, 'rounds'> | null {
    const bins = this.sheets.map((room): Bin => ({ room, lying: [] }));
    const placed: Nested[] = [];
    for (const [item, { fixed }] of this.items.entries()) {
      if (!fixed) continue;
      placed.push({ item, ...fixed });
      const shape = this.shapeOf(item, fixed.turnDeg);
      bins[fixed.sheet].lying.push({ shape, at: this.cornerOf(item, fixed) });
    }
    const unplaced: number[] = [];
    for (const item of plan.order) {
      const found = this.put(item, plan, bins);
      if (!found) {
        unplaced.push(item);
        if (beat && this.missing(unplaced) > beat[0] * (1 + COST_ROUNDING)) return null;
        continue;
      }
      bins[found.sheet].lying.push({ shape: found.shape, at: found.corner });
      placed.push({ item, sheet: found.sheet, turnDeg: found.turnDeg, at: this.originOf(item, found) });
    }
    return { placed, unplaced, cost: [this.missing(unplaced), ...spentOn(bins)] };
  }

  private missing = (unplaced: readonly number[]): number => unplaced.reduce((sum, i) => sum + this.area(i), 0);

  /** The first sheet with room for it, at the best of its turns. */
  private put(item: number, plan: Plan, bins: readonly Bin[]) {
    const own = plan.turn.get(item);
    const prefer = plan.own.get(item) ?? plan.prefer;
    const turns = own === undefined ? this.items[item].turns : [own];
    for (const [sheet, { room, lying }] of bins.entries()) {
      let best: { place: Place; turnDeg: number; shape: Turned } | null = null;
      for (const turnDeg of turns) {
        const shape = this.shapeOf(item, turnDeg);
        const place = bestPlace(shape, lying, room, prefer, this.noFits);
        if (place && (!best || compareScores(place.score, best.place.score) < 0)) best = { place, turnDeg, shape };
      }
      if (best) return { sheet, corner: best.place.at, turnDeg: best.turnDeg, shape: best.shape };
    }
    return null;
  }

  /** Where the origin of an item lies while the lower left of its turned box lies at `corner`, and back. */
  private originOf(item: number, { corner, turnDeg }: { corner: Vec2; turnDeg: number }): Vec2 {
    const [x, y] = this.shapeOf(item, turnDeg).corner;
    return [corner[0] - x, corner[1] - y];
  }
  private cornerOf(item: number, { at, turnDeg }: { at: Vec2; turnDeg: number }): Vec2 {
    const [x, y] = this.shapeOf(item, turnDeg).corner;
    return [at[0] + x, at[1] + y];
  }
}

/** Cost of the sheets begun; what of them is spent when the rest is cut off straight; how far out all lies. */
function spentOn(bins: readonly Bin[]): readonly number[] {
  let [cost, spent, out] = [0, 0, 0];
  for (const { room, lying } of bins) {
    if (lying.length === 0) continue;
    const right = Math.max(...lying.map(({ at, shape }) => at[0] + shape.width));
    const top = Math.max(...lying.map(({ at, shape }) => at[1] + shape.height));
    cost += room.cost;
    spent += Math.min(right * room.heightMm, top * room.widthMm);
    out += lying.reduce((sum, { at, shape }) => sum + at[0] + shape.width + at[1] + shape.height, 0);
  }
  return [cost, spent, out];
}
