/**
 * A figure cut from the page so that it stands parallel to side B of a crease: joined at its feet to side A, held from
 * its top by struts or platforms to side B. Shared by the kinds whose figures are part of one sheet.
 *
 * Drawn in (x, h): x along the crease, h up from the foot line. A point at height h lies at y = depth - h in the flat
 * page, so the body runs across the crease onto side B; what holds it at height h is `depth` long and meets side B at y
 * = -h.
 */
import type { Interruption } from '../../pattern/facets';
import type { OwnedArea } from '../../pattern/pattern';
import {
  insidePoint,
  mapRegion,
  rectangle,
  regionBox,
  ringsOf,
  subtract,
  unite,
  contains,
  type Polygon,
  type Region,
} from '../../plane/polygon';
import { frameAt, type Vec2 } from '../../plane/vec2';
import { contactsAt, joinIntervals, levelAt, withoutIntervals, type Interval } from '../../shapes/level';
import { BESIDE_MM, ROUNDING_MM, WELD_MM } from '../../tolerance';
import { LABEL_STEP, type CreaseLine, type FacetLabel, type Host, type Lack, type PatternLine } from '../kind';

/** A level contact at the top of a figure, from which a strut or platform goes back to side B. */
export interface Hold extends Interval {
  readonly level: number;
}

export interface PageFigure {
  readonly id: string;
  readonly host: Host;
  /** Whole figure as it is cut, in (x, h); parts that are not connected stand on their own. */
  readonly region: Region;
  readonly depth: number;
  readonly feet: readonly Interval[];
  readonly holds: readonly Hold[];
  readonly names: {
    readonly part: (k: number) => string;
    readonly hold: (k: number) => string;
    readonly foot: (k: number) => string;
    readonly ridge: (k: number) => string;
    readonly wall: (k: number) => string;
  };
}

export interface CutFigure {
  readonly lines: readonly PatternLine[];
  readonly hostCreases: readonly CreaseLine[];
  readonly interruptions: readonly Interruption[];
  readonly labels: readonly FacetLabel[];
  readonly hosts: readonly Host[];
  readonly waste: Region;
  readonly claims: Region;
  readonly unheld: readonly Lack[];
  readonly owned: readonly OwnedArea[];
  /** Facet label of the part that holds the highest point, and that point in (x, h). */
  readonly tip: { readonly facet: string; readonly at: Vec2 };
}

export function cutFigure(figure: PageFigure): CutFigure {
  const { id, host, region, depth, feet, holds, names } = figure;
  const onPage = ([x, h]: Vec2): Vec2 => frameAt(host.frame, x, depth - h);
  const parts = [...region].sort((a, b) => leftOf(a) - leftOf(b));
  const partOf = (x: number, h: number): number =>
    Math.max(
      0,
      parts.findIndex((p) => contains(p, [x, h])),
    );
  const label = (name: string): string => `${id}.${name}`;

  const lines: PatternLine[] = [];
  const cut = (a: Vec2, b: Vec2): void => {
    if (Math.hypot(a[0] - b[0], a[1] - b[1]) > WELD_MM / 2)
      lines.push({ role: 'cut', a: onPage(a), b: onPage(b), mechanism: id });
  };
  for (const ring of parts.flatMap(ringsOf)) {
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const joined = joinedAlong(a, b, feet, holds);
      if (joined.length === 0) cut(a, b);
      else
        for (const gap of withoutIntervals([{ from: Math.min(a[0], b[0]), to: Math.max(a[0], b[0]) }], joined))
          cut([gap.from, a[1]], [gap.to, a[1]]);
    });
  }
  for (const { from, to, level } of holds) for (const x of [from, to]) cut([x, level], [x, level + depth]);

  const creases: CreaseLine[] = [];
  const hosts: Host[] = [];
  const fold = (
    name: string,
    { from, to }: Interval,
    h: number,
    turn: 1 | -1,
    sideA: string,
    sideB: string,
    reachA: number,
    reachB: number,
  ): void => {
    const sign = (turn * host.sign) as 1 | -1;
    const [closed, open] = host.ends;
    const signed = (size: number | undefined): number | undefined => (size === undefined ? undefined : sign * size + 0);
    creases.push({
      id: label(name),
      role: sign > 0 ? 'valley' : 'mountain',
      mechanism: id,
      a: onPage([from, h]),
      b: onPage([to, h]),
      standsOn: host.crease,
      ends: [signed(closed), signed(open)],
    });
    hosts.push({
      crease: label(name),
      piece: host.piece,
      frame: { origin: onPage([(from + to) / 2, h]), along: host.frame.along },
      lengthMm: to - from,
      sideA,
      sideB,
      sign,
      ends: host.ends,
      reachA,
      reachB,
      stock: host.stock,
    });
  };
  feet.forEach((f, k) => {
    const part = label(names.part(partOf((f.from + f.to) / 2, BESIDE_MM * 10)));
    fold(names.foot(k), f, 0, 1, host.sideA, part, host.reachA - depth, heightOf(parts));
  });
  holds.forEach((s, k) => {
    const part = label(names.part(partOf((s.from + s.to) / 2, s.level - BESIDE_MM * 10)));
    fold(names.ridge(k), s, s.level, -1, part, label(names.hold(k)), s.level, depth);
    fold(names.wall(k), s, s.level + depth, 1, label(names.hold(k)), host.sideB, depth, host.reachB - s.level);
  });

  const struts: Region = holds.map((s) => ({ outer: rectangle(s.from, s.level, s.to, s.level + depth), holes: [] }));
  const taken = unite([...parts], struts);
  const waste = strandedPaper(taken, host, depth);
  const gone = unite([...taken], waste);
  const half = host.lengthMm / 2;
  const interruptions = joinIntervals(
    [...levelAt(gone, depth - BESIDE_MM), ...levelAt(gone, depth + BESIDE_MM)],
    WELD_MM,
  ).map((i) => ({ crease: host.crease, from: i.from + half, to: i.to + half }));

  const unheld: Lack[] = [];
  parts.forEach((p, k) => {
    const which = parts.length > 1 ? `part ${k + 1} of it` : 'the figure';
    const holdsIt = holds.some((s) => contains(p, [(s.from + s.to) / 2, s.level - BESIDE_MM * 10]));
    const footsIt = feet.some((f) => contains(p, [(f.from + f.to) / 2, BESIDE_MM * 10]));
    const lacks = (key: string, what: string): number => unheld.push({ key: `${key} ${k}`, what: `${which} ${what}` });
    if (!footsIt) lacks('foot', 'has no foot on the page: nothing ties it to the leaf it stands on');
    if (!holdsIt) lacks('hold', 'is held by nothing from its top: it would flop over instead of standing up');
  });

  const labels: FacetLabel[] = [
    ...parts.map((p, k) => ({ name: label(names.part(k)), at: onPage(quietPoint(p, feet)), mechanism: id })),
    ...holds.map((s, k) => ({
      name: label(names.hold(k)),
      at: onPage([s.from + LABEL_STEP, s.level + LABEL_STEP]),
      mechanism: id,
    })),
  ];
  const top = parts
    .flatMap((p, k) => p.outer.map((at) => ({ at, k })))
    .reduce((best, q) => (q.at[1] > best.at[1] + ROUNDING_MM ? q : best), { at: [0, -Infinity] as Vec2, k: 0 });
  // A level top has its tip in the middle.
  const level = contactsAt([parts[top.k]], top.at[1], 'top').sort((a, b) => b.to - b.from - (a.to - a.from))[0];
  const toPage = (r: Region): Region => mapRegion(r, onPage, true);
  return {
    owned: [
      ...parts.map((p, k) => ({ name: label(names.part(k)), mechanism: id, polygon: toPage([p])[0] })),
      ...struts.map((p, k) => ({ name: label(names.hold(k)), mechanism: id, polygon: toPage([p])[0] })),
    ],
    lines,
    hostCreases: creases,
    interruptions,
    labels,
    hosts,
    waste: toPage(waste),
    claims: toPage(gone),
    unheld,
    tip: { facet: label(names.part(top.k)), at: level ? [(level.from + level.to) / 2, top.at[1]] : top.at },
  };
}

const leftOf = (p: Polygon): number => regionBox([p]).min[0];
const heightOf = (parts: Region): number => regionBox(parts).max[1];

/** Parts of a level edge that are joined, not cut. */
function joinedAlong(a: Vec2, b: Vec2, feet: readonly Interval[], holds: readonly Hold[]): readonly Interval[] {
  if (Math.abs(a[1] - b[1]) > WELD_MM) return [];
  if (Math.abs(a[1]) <= WELD_MM && b[0] > a[0]) return feet;
  return b[0] < a[0] ? holds.filter((s) => Math.abs(s.level - a[1]) <= WELD_MM) : [];
}

/**
 * Paper of the page that the cuts leave without a tie to its own leaf: holes of the figure, and pockets that only the
 * crease would hold. Kept, they would hang from the crease as loose flaps; they are cut out. In (x, h).
 */
export function strandedPaper(taken: Region, host: Host, depth: number): Region {
  const half = host.lengthMm / 2;
  const { min, max } = regionBox(taken);
  // The page, a little larger than what is taken, so that a figure that runs off it strands nothing there.
  const [x0, x1] = [Math.min(-half, min[0] - 1), Math.max(half, max[0] + 1)];
  const sides = [
    rectangle(x0, Math.min(depth - host.reachA, min[1] - 1), x1, depth),
    rectangle(x0, depth, x1, Math.max(depth + host.reachB, max[1] + 1)),
  ];
  return unite(
    sides.flatMap((outer, k) => {
      const edge = k === 0 ? outer[0][1] : outer[2][1];
      const rest = subtract([{ outer, holes: [] }], taken);
      return rest.filter(
        (p) =>
          !p.outer.some(
            ([x, h]) => Math.abs(h - edge) < BESIDE_MM || Math.abs(x - x0) < BESIDE_MM || Math.abs(x - x1) < BESIDE_MM,
          ),
      );
    }),
  );
}

/** A point of a part where nothing that stands on its creases will cut: just inside a corner of its foot. */
function quietPoint(part: Polygon, feet: readonly Interval[]): Vec2 {
  for (const f of feet) {
    for (const at of [
      [f.from + LABEL_STEP, LABEL_STEP],
      [f.to - LABEL_STEP, LABEL_STEP],
      [f.from + LABEL_STEP, LABEL_STEP / 4],
      [f.to - LABEL_STEP, LABEL_STEP / 4],
    ] as Vec2[])
      if (contains(part, at)) return at;
    const middle: Vec2 = [(f.from + f.to) / 2, LABEL_STEP];
    if (contains(part, middle)) return middle;
  }
  return insidePoint(part);
}
