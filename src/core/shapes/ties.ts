/**
 * Ties: narrow bridges that hold what would fall out. mm, y up.
 *
 *      cut as a window           cut as paper
 *      ▓▓▓▓▓▓▓▓▓▓▓               ┌─────────┐
 *      ▓┌───────┐▓               │ ┌─────┐ │
 *      ▓│  ▓▓▓══│▓  ═ taken      │ │ ┌─┐═│ │  ═ added: paper across the gap
 *      ▓└───────┘▓    from it    │ └─────┘ │
 *      ▓▓▓▓▓▓▓▓▓▓▓               └─────────┘
 *
 * A window's islands are its holes: paper that stays. Paper's own loose parts lie within its holes, touching nothing.
 */
import { centreOfArea } from './axis';
import {
  contains,
  insidePoint,
  intersect,
  ringsOf,
  subtract,
  unite,
  regionBox,
  type Polygon,
  type Region,
  type Ring,
} from '../plane/polygon';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { WELD_MM } from '../tolerance';

export interface Tie {
  /** Which island, counted over the region's holes. */
  readonly island: number;
  readonly turnDeg: number;
  readonly width: number;
  readonly lengthMm: number;
  readonly outline: Polygon;
}
export interface TieWishes {
  readonly width: number;
  /** Ties to each island. */
  readonly count: number;
  /** Direction of the first, degrees; null: the shortest way, the others as far round as they can be short. */
  readonly turn: number | null;
  readonly moved?: readonly { readonly island: number; readonly turn: number }[];
}

/** Islands that fall out when the region is cut as a window. */
export const islandsOf = (region: Region): readonly { polygon: Polygon; ring: Ring }[] =>
  region.flatMap((polygon) => polygon.holes.map((ring) => ({ polygon, ring })));

/** What a shape of paper leaves within its outer edges, as windows: their islands are its loose parts. */
const gapsOf = (region: Region): Region => subtract(unite(region.map(({ outer }) => ({ outer, holes: [] }))), region);

/** Parts that lie within a hole of the rest and hang on nothing when the shape itself is cut from paper. */
export const looseParts = (region: Region): Polygon[] =>
  islandsOf(gapsOf(region)).map(({ ring }) => ({ outer: [...ring].reverse(), holes: [] }));

/** A shape of paper with bridges to its loose parts, and the bridges. */
export function tieParts(region: Region, wishes: TieWishes): { region: Region; ties: readonly Tie[] } {
  const { ties } = tieIslands(gapsOf(region), wishes);
  return { region: unite([...region, ...ties.map((t) => t.outline)]), ties };
}

/** What a step of ties makes of a shape, by what is cut. */
export const tiesOf = (
  region: Region,
  step: TieWishes & { readonly of?: 'window' | 'paper' },
): { region: Region; ties: readonly Tie[] } =>
  step.of === 'paper' ? tieParts(region, step) : tieIslands(region, step);

const DIRECTIONS = 36;

/** The window less its ties, and the ties. */
export function tieIslands(region: Region, wishes: TieWishes): { region: Region; ties: readonly Tie[] } {
  const ties: Tie[] = [];
  islandsOf(region).forEach(({ polygon, ring }, island) => {
    const turn = wishes.moved?.find((m) => m.island === island)?.turn ?? wishes.turn;
    for (const deg of directions(polygon, ring, wishes, turn)) {
      const tie = bridge(polygon, ring, deg, wishes.width);
      if (tie) ties.push({ island, turnDeg: deg, width: wishes.width, lengthMm: tie.lengthMm, outline: tie.outline });
    }
  });
  return { region: subtract(region, unite(ties.map((t) => t.outline))), ties };
}

function directions(polygon: Polygon, ring: Ring, { width, count }: TieWishes, turn: number | null): number[] {
  if (turn !== null) return Array.from({ length: count }, (_, k) => turn + (360 * k) / count);
  const ways = Array.from({ length: DIRECTIONS }, (_, k) => {
    const deg = (360 * k) / DIRECTIONS;
    const tie = bridge(polygon, ring, deg, width);
    return { deg, length: tie && tie.toOuter ? tie.lengthMm : Infinity };
  });
  const out: number[] = [];
  for (let k = 0; k < count; k++) {
    // A further tie is worth a longer way if it stands well apart from those before it.
    const apart = (deg: number): number => Math.min(180, ...out.map((o) => Math.abs(((deg - o + 540) % 360) - 180)));
    const best = ways
      .filter((w) => w.length < Infinity && apart(w.deg) >= 360 / (2 * count))
      .sort((a, b) => a.length - b.length)[0];
    if (best) out.push(best.deg);
  }
  return out.length > 0 ? out : [90];
}

/** A strip of the window's waste from an island outward, as far as the next paper. */
function bridge(
  polygon: Polygon,
  ring: Ring,
  deg: number,
  width: number,
): { outline: Polygon; lengthMm: number; toOuter: boolean } | null {
  const island: Polygon = { outer: [...ring].reverse(), holes: [] };
  const middle = centreOfArea([island]);
  const centre = contains(island, middle) ? middle : insidePoint(island);
  const { min, max } = regionBox([polygon]);
  const far = max[0] - min[0] + max[1] - min[1];
  const t = (deg * Math.PI) / 180;
  const [ux, uy] = [Math.cos(t), Math.sin(t)];
  const h = width / 2;
  const strip: Ring = [
    [centre[0] + h * uy, centre[1] - h * ux],
    [centre[0] + far * ux + h * uy, centre[1] + far * uy - h * ux],
    [centre[0] + far * ux - h * uy, centre[1] + far * uy + h * ux],
    [centre[0] - h * uy, centre[1] + h * ux],
  ];
  const parts = intersect([polygon], [{ outer: strip, holes: [] }]);
  const near = parts.filter((p) => touches(p, ring)).sort((a, b) => extent(a, ux, uy)[0] - extent(b, ux, uy)[0])[0];
  if (!near) return null;
  const [from, to] = extent(near, ux, uy);
  return { outline: near, lengthMm: to - from, toOuter: touches(near, polygon.outer) && opens(polygon, near) };
}
/** With the tie in place the island is part of the paper round the window. */
const opens = (polygon: Polygon, tie: Polygon): boolean =>
  subtract([polygon], [tie]).reduce((n, p) => n + p.holes.length, 0) < polygon.holes.length;
const extent = (p: Polygon, ux: number, uy: number): [number, number] => {
  const along = p.outer.map(([x, y]) => x * ux + y * uy);
  return [Math.min(...along), Math.max(...along)];
};
const touches = (p: Polygon, ring: Ring): boolean =>
  ringsOf(p).some((r) =>
    r.some((q: Vec2) => ring.some((a, i) => distToSegment(q, a, ring[(i + 1) % ring.length]) < WELD_MM)),
  );
