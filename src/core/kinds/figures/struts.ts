/**
 * Struts and feet of a silhouette: where its top and its foot are made level so that they can be joined.
 * In (x, h): x along, h up from the foot line, mm.
 */
import {
  areaWithin,
  boxOf,
  exclude,
  rectangle,
  regionArea,
  regionBox,
  ringsOf,
  unite,
  type Polygon,
  type Region,
} from '../../plane/polygon';
import { contactsAt, widthOfAll, type Interval } from '../../shapes/level';
import type { Hold } from './page-figure';
import { ROUNDING_MM, SAME_LEVEL_MM } from '../../tolerance';

export interface Placed {
  /** Middle, along. */
  readonly x: number;
  readonly width: number;
}
export interface StrutWishes {
  readonly depth: number;
  readonly strutMin: number;
  readonly footMin: number;
  readonly struts: 'auto' | readonly Placed[];
  readonly feet: 'auto' | readonly Placed[];
}
export interface HeldFigure {
  /** The silhouette with its contacts made level. */
  readonly region: Region;
  readonly feet: readonly Interval[];
  readonly holds: readonly Hold[];
  /** Area given up or added at contacts, of the silhouette's area. */
  readonly lossPct: number;
  /** Struts and feet that were asked for and do not meet the silhouette. */
  readonly missed: readonly string[];
}

/** Narrowest strut that holds a figure (docs/mechanisms.md 3); common practice, no source. */
export const LEAST_STRUT_MM = 4;
/** Columns in which the outline's top and bottom are read (mm apart at least); contacts are then exact. */
const COLUMN_MM = 0.25;
const MOST_COLUMNS = 1200;
/** A strut is widened at most to this many times the narrowest, where the outline is level enough. */
const WIDEST = 3;
/** No place of a part is further from a strut than this many narrowest struts. */
const SPAN = 12;
/** Peaks lower than this part of the figure above the dips beside them are no peaks of their own. */
const PROMINENCE = 0.04;
/** An outline counts as level while a further mm of strut adds less paper than this (mm²). */
const LEVEL = 0.08;

export function holdFigure(silhouette: Region, wishes: StrutWishes): HeldFigure {
  const missed: string[] = [];
  const stood = unite([
    ...silhouette,
    ...(wishes.feet === 'auto'
      ? autoPedestals(silhouette, wishes.footMin)
      : wishes.feet.flatMap((f, k) => pedestal(silhouette, f, () => missed.push(`foot ${k + 1}`)))),
  ]);
  const columns = columnsOf(stood);
  const holds =
    wishes.struts === 'auto'
      ? autoStruts(stood, columns, wishes)
      : wishes.struts.flatMap((s, k): Hold[] => {
          const level = topWithin(stood, s.x - s.width / 2, s.x + s.width / 2);
          if (level === null) missed.push(`strut ${k + 1}`);
          return level === null ? [] : [{ from: s.x - s.width / 2, to: s.x + s.width / 2, level }];
        });
  const region = unite([...stood, ...holds.map(levelled)]);
  const feet =
    wishes.feet === 'auto'
      ? contactsAt(region, 0, 'bottom')
      : wishes.feet
          .map((f): Interval => ({ from: f.x - f.width / 2, to: f.x + f.width / 2 }))
          .filter(
            (f) =>
              widthOfAll(
                contactsAt(region, 0, 'bottom')
                  .map((c) => ({ from: Math.max(c.from, f.from), to: Math.min(c.to, f.to) }))
                  .filter((c) => c.to > c.from),
              ) >
              (f.to - f.from) * 0.99,
          );
  return {
    region,
    feet,
    holds,
    lossPct: (100 * regionArea(exclude(region, silhouette))) / regionArea(silhouette),
    missed,
  };
}

/** Paper that makes the outline level under a strut; on steep sides it is a shelf half as deep as the strut is wide. */
const levelled = ({ from, to, level }: Hold): Polygon => ({
  outer: rectangle(from, level - Math.max(1, (to - from) / 2), to, level),
  holes: [],
});

/** Highest point of the region between two uprights, exactly; null where there is nothing. */
export function topWithin(region: Region, x0: number, x1: number): number | null {
  let top = -Infinity;
  for (const ring of region.map((p) => p.outer)) {
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const [l, r] = a[0] <= b[0] ? [a, b] : [b, a];
      if (r[0] <= x0 || l[0] >= x1) {
        if (a[0] > x0 && a[0] < x1) top = Math.max(top, a[1]);
        return;
      }
      const at = (x: number): number =>
        r[0] === l[0] ? Math.max(l[1], r[1]) : l[1] + ((x - l[0]) / (r[0] - l[0])) * (r[1] - l[1]);
      top = Math.max(top, at(Math.max(x0, l[0])), at(Math.min(x1, r[0])));
    });
  }
  return top === -Infinity ? null : top;
}
const bottomWithin = (region: Region, x0: number, x1: number): number | null => {
  const over = topWithin(
    region.map((p) => ({ outer: p.outer.map(([x, h]) => [x, -h] as const), holes: [] })),
    x0,
    x1,
  );
  return over === null ? null : -over;
};

/** A foot under the silhouette, from the foot line up into it. */
function pedestal(silhouette: Region, { x, width }: Placed, onMiss: () => void): Polygon[] {
  const low = bottomWithin(silhouette, x - width / 2, x + width / 2);
  if (low === null) {
    onMiss();
    return [];
  }
  return [{ outer: rectangle(x - width / 2, 0, x + width / 2, low + Math.max(1, width / 2)), holes: [] }];
}

/** A part that stands straight on the line needs nothing; any other gets feet under its lowest points. */
function autoPedestals(silhouette: Region, footMin: number): Polygon[] {
  return silhouette.flatMap((part) => {
    const joined = widthOfAll(contactsAt([part], 0, 'bottom'));
    if (joined >= footMin - SAME_LEVEL_MM) return [];
    const lowest = regionBox([part]).min[1];
    const dips = lowPoints(part, lowest + 0.3);
    const width = Math.max(footMin / dips.length, Math.min(footMin, 3.2));
    return dips.flatMap((x) => pedestal([part], { x, width }, () => undefined));
  });
}

/** Lowest places of a part's outline, below a height, one to each dip; a straight one counts in its middle. */
function lowPoints(part: Polygon, below: number): number[] {
  const runs: { xs: number[]; low: number }[] = [];
  const ring = part.outer;
  const start = Math.max(
    0,
    ring.findIndex((p) => p[1] > below),
  );
  let open = false;
  for (let k = 0; k < ring.length; k++) {
    const [x, h] = ring[(start + k) % ring.length];
    if (h > below) open = false;
    else if (!open) {
      runs.push({ xs: [x], low: h });
      open = true;
    } else if (h < runs[runs.length - 1].low - ROUNDING_MM) runs[runs.length - 1] = { xs: [x], low: h };
    else if (h <= runs[runs.length - 1].low + ROUNDING_MM) runs[runs.length - 1].xs.push(x);
  }
  return runs.map(({ xs }) => (Math.min(...xs) + Math.max(...xs)) / 2);
}

interface Columns {
  readonly x0: number;
  readonly step: number;
  /** Height of each part's top in each column; -Infinity where it is not. */
  readonly tops: readonly Float64Array[];
}
function columnsOf(region: Region): Columns {
  const { min, max } = regionBox(region);
  const count = Math.max(2, Math.min(MOST_COLUMNS, Math.ceil((max[0] - min[0]) / COLUMN_MM)));
  const step = (max[0] - min[0]) / count;
  const tops = region.map((part) => {
    const top = new Float64Array(count + 1).fill(-Infinity);
    for (const ring of ringsOf(part)) {
      ring.forEach((a, i) => {
        const b = ring[(i + 1) % ring.length];
        const [l, r] = a[0] <= b[0] ? [a, b] : [b, a];
        const last = Math.min(count, Math.floor((r[0] - min[0]) / step + ROUNDING_MM));
        for (let c = Math.ceil((l[0] - min[0]) / step - ROUNDING_MM); c <= last; c++) {
          const x = min[0] + c * step;
          const h =
            r[0] === l[0]
              ? Math.max(l[1], r[1])
              : l[1] + Math.min(1, Math.max(0, (x - l[0]) / (r[0] - l[0]))) * (r[1] - l[1]);
          top[c] = Math.max(top[c], h);
        }
      });
    }
    return top;
  });
  return { x0: min[0], step, tops };
}

/**
 * The highest point of each part first, so that none is crowded out; then its other high points, then whatever is too
 * far from a strut; widened last.
 */
function autoStruts(region: Region, columns: Columns, { depth, strutMin }: StrutWishes): Hold[] {
  const height = regionBox(region).max[1];
  const taken: { part: number; hold: Hold }[] = [];
  const free = (hold: Hold, but: Hold | null = null): boolean =>
    taken.every(
      ({ hold: o }) =>
        o === but || hold.from > o.to + strutMin - ROUNDING_MM || hold.to < o.from - strutMin + ROUNDING_MM,
    ) && areaWithin(region, hold.from, hold.level, hold.to, hold.level + depth) < SAME_LEVEL_MM;
  const boxes = region.map((part) => regionBox([part]));
  const take = (k: number, x: number): boolean => {
    const hold = best([region[k]], x, strutMin, boxes[k].min[0], boxes[k].max[0]);
    if (!hold || !free(hold)) return false;
    taken.push({ part: k, hold });
    return true;
  };
  const heights = region.map((_, k) => peaks(columns, k, PROMINENCE * height));
  region.forEach((_, k) => {
    const { min, max } = boxes[k];
    if (heights[k].some((x) => take(k, x))) return;
    // Nothing free above its high points: any place that is.
    const tries = Array.from({ length: 60 }, (_q, i) => min[0] + ((max[0] - min[0]) * (i + 0.5)) / 60).sort(
      (a, b) => topAt(columns, k, b) - topAt(columns, k, a),
    );
    tries.some((x) => take(k, x));
  });
  region.forEach((_, k) => {
    const { min, max } = boxes[k];
    const mine = (): Hold[] => taken.filter((t) => t.part === k).map((t) => t.hold);
    heights[k].forEach((x) => take(k, x));
    // Between two struts, and out to the sides, no part is left that is too far from one.
    for (
      let gap = widestGap(mine(), min[0], max[0], strutMin);
      gap;
      gap = widestGap(mine(), min[0], max[0], strutMin)
    ) {
      const [from, to] = gap;
      const inner = Array.from({ length: 9 }, (_q, i) => from + ((to - from) * (i + 2)) / 12).sort(
        (a, b) =>
          topAt(columns, k, b) - topAt(columns, k, a) || Math.abs(a - (from + to) / 2) - Math.abs(b - (from + to) / 2),
      );
      if (!inner.some((x) => take(k, x))) break;
    }
  });
  // Who asks for struts narrower than they hold wants them narrow.
  if (strutMin >= LEAST_STRUT_MM) {
    for (const [i, t] of taken.entries())
      taken[i] = {
        ...t,
        hold: widened([region[t.part]], t.hold, strutMin, boxes[t.part].min[0], boxes[t.part].max[0], (h) =>
          free(h, taken[i].hold),
        ),
      };
  }
  return taken.map((t) => t.hold).sort((a, b) => a.from - b.from);
}

const topAt = ({ x0, step, tops }: Columns, k: number, x: number): number =>
  tops[k][Math.round(Math.min(tops[k].length - 1, Math.max(0, (x - x0) / step)))];

function widestGap(holds: readonly Hold[], x0: number, x1: number, strutMin: number): [number, number] | null {
  if (holds.length === 0) return null;
  const sorted = [...holds].sort((a, b) => a.from - b.from);
  const gaps: [number, number][] = [
    [x0 - (sorted[0].from - x0), sorted[0].from],
    ...sorted.slice(1).map((s, i): [number, number] => [sorted[i].to, s.from]),
    [sorted[sorted.length - 1].to, x1 + (x1 - sorted[sorted.length - 1].to)],
  ];
  const widest = gaps.reduce((a, b) => (b[1] - b[0] > a[1] - a[0] ? b : a));
  if (widest[1] - widest[0] <= 2 * SPAN * strutMin) return null;
  return [Math.max(x0, widest[0]), Math.min(x1, widest[1])];
}

/** Middles of the high places of a part, highest first; a long level one counts at both its ends. */
function peaks({ x0, step, tops }: Columns, k: number, prominence: number): number[] {
  const top = tops[k];
  // Asked for at every column of every rise.
  const same = SAME_LEVEL_MM;
  const found: { x: number; h: number }[] = [];
  let i = 0;
  while (i < top.length) {
    if (top[i] === -Infinity) {
      i++;
      continue;
    }
    let j = i;
    while (j + 1 < top.length && Math.abs(top[j + 1] - top[i]) < same) j++;
    const rise = (from: number, dir: 1 | -1): number => {
      // How far it goes down before it goes higher than here.
      let low = top[i];
      for (let c = from; c >= 0 && c < top.length && top[c] > -Infinity; c += dir) {
        if (top[c] > top[i] + same) return top[i] - low;
        low = Math.min(low, top[c]);
      }
      return Infinity;
    };
    if (Math.min(rise(i - 1, -1), rise(j + 1, 1)) >= prominence) {
      const [from, to] = [x0 + i * step, x0 + j * step];
      found.push(
        ...(to - from > 40
          ? [
              { x: from + 8, h: top[i] },
              { x: to - 8, h: top[i] },
            ]
          : [{ x: (from + to) / 2, h: top[i] }]),
      );
    }
    i = j + 1;
  }
  return found.sort((a, b) => b.h - a.h).map((f) => f.x);
}

/** The strut over x that changes the outline least, placed within its own width of it. */
function best(part: Region, x: number, strutMin: number, x0: number, x1: number): Hold | null {
  const holdAt = (from: number, to: number): Hold | null => {
    const level = topWithin(part, from, to);
    return level === null ? null : { from, to, level };
  };
  const within = (from: number): number =>
    x1 - x0 <= strutMin ? (x0 + x1 - strutMin) / 2 : Math.min(Math.max(from, x0), x1 - strutMin);
  const tries = [-0.5, -0.75, -0.25, -0.95, -0.05]
    .map((k) => holdAt(within(x + k * strutMin), within(x + k * strutMin) + strutMin))
    .filter((h): h is Hold => h !== null);
  if (tries.length === 0) return null;
  const near = topWithin(part, x - 0.01, x + 0.01) ?? -Infinity;
  // A strut that leaves the peak it was meant for climbs onto something else.
  const level = tries.filter((h) => h.level <= near + 0.5);
  return (level.length > 0 ? level : tries)
    .map((h) => ({ h, c: cost(part, h) }))
    .reduce((a, b) => (b.c < a.c - ROUNDING_MM ? b : a)).h;
}

/** A strut made wider while the outline beside it is level and nothing is in its way. */
function widened(
  part: Region,
  start: Hold,
  strutMin: number,
  x0: number,
  x1: number,
  free: (hold: Hold) => boolean,
): Hold {
  let hold = start;
  let spent = cost(part, hold);
  for (let grown = 1; grown <= (WIDEST - 1) * strutMin; grown++) {
    const [from, to] = [Math.max(x0, hold.from - 0.5), Math.min(x1, hold.to + 0.5)];
    const level = topWithin(part, from, to);
    if (level === null || to - from <= hold.to - hold.from + ROUNDING_MM || level > hold.level + LEVEL) break;
    const wider = { from, to, level };
    const c = cost(part, wider);
    if (c - spent > LEVEL || !free(wider)) break;
    [hold, spent] = [wider, c];
  }
  return hold;
}

/** Paper that making a strut's contact level adds, mm². */
const cost = (part: Region, h: Hold): number => {
  const { min, max } = boxOf(levelled(h).outer);
  return (max[0] - min[0]) * (max[1] - min[1]) - areaWithin(part, min[0], min[1], max[0], max[1]);
};
