/** Straight contacts of a shape at a level, and the least that must be trimmed off to get them. mm, y up. */
import { rectangle, intersect, subtract, regionBox, ringsOf, type Box2, type Region } from '../plane/polygon';
import { ROUNDING_MM, SAME_LEVEL_MM, WELD_MM } from '../tolerance';

export interface Interval {
  readonly from: number;
  readonly to: number;
}
export const widthOfAll = (intervals: readonly Interval[]): number => intervals.reduce((s, i) => s + i.to - i.from, 0);

/** Intervals joined where they meet or overlap. */
export function joinIntervals(intervals: readonly Interval[], within = SAME_LEVEL_MM): Interval[] {
  const out: Interval[] = [];
  for (const i of [...intervals].sort((a, b) => a.from - b.from)) {
    const last = out[out.length - 1];
    if (last && i.from <= last.to + within) out[out.length - 1] = { from: last.from, to: Math.max(last.to, i.to) };
    else out.push(i);
  }
  return out;
}

/** The parts of `a` outside `b`. */
export function withoutIntervals(a: readonly Interval[], b: readonly Interval[]): Interval[] {
  return b.reduce<Interval[]>(
    (rest, gap) =>
      rest.flatMap((i) =>
        [
          { from: i.from, to: Math.min(i.to, gap.from) },
          { from: Math.max(i.from, gap.to), to: i.to },
        ].filter((x) => x.to - x.from > ROUNDING_MM),
      ),
    [...a],
  );
}

/**
 * Where a level line runs through the shape: even-odd crossings, a level through a corner counting the edges above
 * it.
 */
export function levelAt(region: Region, y: number): Interval[] {
  const xs: number[] = [];
  for (const ring of region.flatMap(ringsOf)) {
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      if (a[1] > y !== b[1] > y) xs.push(a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0]));
    });
  }
  xs.sort((a, b) => a - b);
  return joinIntervals(
    xs.flatMap((x, i) =>
      i % 2 === 0 && i + 1 < xs.length && xs[i + 1] - x > ROUNDING_MM ? [{ from: x, to: xs[i + 1] }] : [],
    ),
  );
}

/** Straight edges that lie on a level, with paper above (`bottom`) or below them (`top`). */
export function contactsAt(region: Region, y: number, side: 'top' | 'bottom', within = WELD_MM): Interval[] {
  const out: Interval[] = [];
  for (const ring of region.flatMap(ringsOf)) {
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      if (Math.abs(a[1] - y) > within || Math.abs(b[1] - y) > within) return;
      // Outer rings run counter-clockwise: along a bottom edge to the right, along a top edge to the left.
      const right = b[0] > a[0];
      if (right === (side === 'bottom')) out.push({ from: Math.min(a[0], b[0]), to: Math.max(a[0], b[0]) });
    });
  }
  return joinIntervals(out).filter((i) => i.to - i.from > within);
}

/** Parts that end further in than this share of the whole stand on nothing: the dot of a letter is one. */
const STANDS_WITHIN = 0.45;

/**
 * Least amount (mm) to trim off the top or bottom that leaves each part, each letter of a word, a contact of this
 * width, or as wide a one as it has; null where none is ever that wide.
 */
export function leastTrim(region: Region, edge: 'top' | 'bottom', contact: number): number | null {
  if (region.length === 1) return leastTrimOfOne(region, edge, contact);
  const { min, max } = regionBox(region);
  const trims = region.flatMap((part): { readonly mm: number | null }[] => {
    const own = regionBox([part]);
    const further = edge === 'top' ? max[1] - own.max[1] : own.min[1] - min[1];
    if (!endsAt(own, { min, max }, edge)) return [];
    const wide = Math.min(contact, widestWithin([part], edge, STANDS_WITHIN));
    const mm = leastTrimOfOne([part], edge, wide);
    return [{ mm: mm === null || wide < contact / 2 ? null : further + mm }];
  });
  const told = trims.flatMap(({ mm }) => (mm === null ? [] : [mm]));
  return told.length === 0 ? null : Math.max(...told);
}

/** Whether a part of a shape ends near enough to an end of the whole to be trimmed there. */
export const endsAt = (part: Box2, whole: Box2, edge: 'top' | 'bottom'): boolean =>
  (edge === 'top' ? whole.max[1] - part.max[1] : part.min[1] - whole.min[1]) <=
  STANDS_WITHIN * (whole.max[1] - whole.min[1]);

/** How wide a shape is at its widest level in a share of it at one end, mm. */
function widestWithin(region: Region, edge: 'top' | 'bottom', share: number): number {
  const { min, max } = regionBox(region);
  const [end, inward] = edge === 'top' ? [max[1], -1] : [min[1], 1];
  const levels = Array.from({ length: 40 }, (_, k) => ((k + 0.5) / 40) * share * (max[1] - min[1]));
  return Math.max(...levels.map((t) => widthOfAll(levelAt(region, end + inward * t))));
}

/** Least amount (mm) to trim off one shape that leaves contacts of this width in all; null where it never is. */
function leastTrimOfOne(region: Region, edge: 'top' | 'bottom', contact: number): number | null {
  const { min, max } = regionBox(region);
  const [end, inward] = edge === 'top' ? [max[1], -1] : [min[1], 1];
  const widthAt = (t: number): number =>
    Math.max(widthOfAll(contactsAt(region, end + inward * t, edge)), widthOfAll(levelAt(region, end + inward * t)));
  if (widthOfAll(contactsAt(region, end, edge)) >= contact - ROUNDING_MM) return 0;
  // Widths change only between corners: step from corner to corner, then close in.
  const levels = [
    ...new Set(
      region
        .flatMap(ringsOf)
        .flat()
        .map((p) => Math.abs(p[1] - end)),
    ),
  ].sort((a, b) => a - b);
  let before = 0;
  for (const t of levels) {
    const just = Math.max(0, t - 1e-7);
    for (const at of [just, t + 1e-7]) {
      if (widthAt(at) >= contact) {
        let [low, high] = [before, at];
        for (let k = 0; k < 50; k++) {
          const middle = (low + high) / 2;
          if (widthAt(middle) >= contact) high = middle;
          else low = middle;
        }
        return high;
      }
    }
    before = t;
  }
  return null;
}

/** The shape without what lies past a level. */
export function trimmed(region: Region, edge: 'top' | 'bottom', by: number): Region {
  if (by <= 0) return region;
  const { min, max } = regionBox(region);
  const far = 1 + (max[0] - min[0]) + (max[1] - min[1]);
  const band =
    edge === 'top'
      ? rectangle(min[0] - far, max[1] - by, max[0] + far, max[1] + far)
      : rectangle(min[0] - far, min[1] - far, max[0] + far, min[1] + by);
  return subtract(region, [{ outer: band, holes: [] }]);
}

/** The part between two uprights. */
export const slice = (region: Region, x0: number, x1: number): Region => {
  if (region.length === 0) return [];
  const { min, max } = regionBox(region);
  return intersect(region, [{ outer: rectangle(x0, min[1] - 1, x1, max[1] + 1), holes: [] }]);
};
