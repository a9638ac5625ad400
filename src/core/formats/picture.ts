/**
 * A posed card as a flat drawing: seen from a fixed direction, parts sorted from far to near. For thumbnails and step
 * pictures.
 */
import type { Assembly } from '../assembly/assembly';
import { facetOutline, onFacet, type Pose } from '../assembly/pose';
import { cross3, dot3, unit3, type Vec3 } from '../linkage';
import { isBase } from '../rules';
import { paintingOrder, type Painted } from './painter';
import { placedArtwork, type PlacedArt } from '../build/artwork';
import type { Side } from '../kinds';
import { contains, intersect, type Polygon } from '../plane/polygon';
import { dressingOf, stockOf, type Design } from '../document/design';

export interface PicturePart {
  readonly id: string;
  readonly mechanism: string;
  /** Corners on the page, mm, y down. */
  readonly points: readonly (readonly [number, number])[];
  /** Openings in it, drawn even-odd. */
  readonly holes: readonly (readonly (readonly [number, number])[])[];
  readonly fill: string;
  /** It goes on past its edges: a strip of paper that bends. */
  readonly goesOn?: true;
}
export interface Picture {
  readonly parts: readonly PicturePart[];
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

/** From the reader's right, above: leaf A lies in front. */
export const READER: Vec3 = unit3([0.55, 0.75, 0.62]);
/** What is drawn or lettered. */
const INK = '#2c3338';
const LIGHT: Vec3 = unit3([0.3, 0.5, 0.85]);

export interface Look {
  readonly from?: Vec3;
  /** What is up on the page, as far as it can be. */
  readonly up?: Vec3;
  /** Parts of a higher rank are drawn over those of a lower one; the leaves behind all that stands on them else. */
  readonly rank?: (facet: number) => number;
  /** Only these facets; all unless given. */
  readonly shown?: (facet: number) => boolean;
}

/** Where a point of the world is drawn, mm, y down. */
export function pageSeenFrom(from: Vec3, upward: Vec3 = [0, 0, 1]): (p: Vec3) => readonly [number, number] {
  const right = unit3(cross3(upward, from));
  const up = cross3(from, right);
  return (p) => [dot3(p, right), -dot3(p, up)];
}

export function drawPicture(design: Design, assembly: Assembly, pose: Pose, look: Look = {}): Picture {
  const { from = READER, rank = (i) => (isBase(assembly, assembly.facets[i].mechanism) ? 0 : 1) } = look;
  const onPage = pageSeenFrom(from, look.up);
  const pieces = new Map(assembly.pieces.map((p) => [p.id, p]));
  const { shown = () => true } = look;
  const arts = design.artwork ? placedArtwork(design, assembly) : [];
  const sheets = assembly.facets.flatMap((f, i) => {
    if (!shown(i)) return [];
    const points = facetOutline(pose, assembly.facets, i);
    const m = pose.placed[i];
    const normal: Vec3 = [m[2], m[6], m[10]];
    const stock = stockOf(design, pieces.get(f.piece)!.stock);
    const facing = dot3(normal, from) > 0;
    const side = facing ? 'inside' : 'outside';
    const { colour } = dressingOf(design, f.id, side) ?? {};
    const lit = (colour: string): string => shade(colour, 0.78 + 0.22 * Math.abs(dot3(normal, LIGHT)));
    const depth = points.reduce((s, p) => s + dot3(p, from), 0) / points.length;
    const paper = {
      id: f.id,
      mechanism: f.mechanism,
      height: 0,
      fill: lit(colour ?? (facing ? stock.insideColour : stock.outsideColour)),
      points: points.map(onPage),
      holes: f.polygon.holes.map((h) => h.map((q) => onPage(onFacet(pose, i, q)))),
      ...(f.bent ? { goesOn: true as const } : {}),
    };
    const onFace = (p: Polygon, height: number) => ({
      mechanism: f.mechanism,
      height,
      points: p.outer.map((q) => onPage(onFacet(pose, i, q))),
      holes: p.holes.map((h) => h.map((q) => onPage(onFacet(pose, i, q)))),
    });
    const drawn = (pieces.get(f.piece)!.drawn ?? [])
      .filter((d) => d.side === side)
      .flatMap((d) => d.region)
      .filter((p) => contains(f.polygon, p.outer[0]))
      .map((p) => ({ ...onFace(p, 0.5), id: f.id, fill: INK }));
    const inks = printedInk(arts, i, side).map((p) => ({ ...onFace(p.polygon, p.height), id: f.id, fill: p.colour }));
    const layers = assembly.layers
      .filter((l) => l.facet === i && l.side === side)
      .flatMap((l) =>
        l.region.map((p) => ({
          ...onFace(p, l.order),
          id: l.id,
          fill: lit(l.colour ?? stockOf(design, l.stock).insideColour),
        })),
      );
    const on = [paper, ...drawn, ...inks, ...layers].sort((a, b) => a.height - b.height);
    return [{ corners: points, onPage: paper.points, normal, rank: rank(i), depth, on }];
  });
  const order = look.rank ? byRank(sheets, from) : paintingOrder(sheets, from);
  const parts = order.flatMap((k) => sheets[k].on);
  const all = parts.flatMap((p) => p.points);
  const [x0, x1] = [Math.min(...all.map((p) => p[0])), Math.max(...all.map((p) => p[0]))];
  const [y0, y1] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  return {
    parts: parts.map(({ height: _, ...part }) => part),
    box: { x: x0, y: y0, width: x1 - x0, height: y1 - y0 },
  };
}

/** Words printed on a side of a facet and its layers, with how high they lie; pictures are left to the views. */
function printedInk(arts: readonly PlacedArt[], facet: number, side: Side) {
  return arts.flatMap((art) => {
    if (art.facet !== facet || art.side !== side || !('ink' in art)) return [];
    const height = art.layer === undefined ? 0.4 : INK_OVER_LAYERS;
    return intersect(art.ink, art.seen).map((polygon) => ({ polygon, height, colour: art.colour }));
  });
}
/** Layers count from 1. */
const INK_OVER_LAYERS = 1e3;

/** Ranks that are given stand; within each what is nearer covers the rest. */
function byRank(sheets: readonly Painted[], from: Vec3): number[] {
  const ranks = [...new Set(sheets.map((s) => s.rank))].sort((a, b) => a - b);
  return ranks.flatMap((rank) => {
    const own = sheets.flatMap((s, k) => (s.rank === rank ? [k] : []));
    return paintingOrder(
      own.map((k) => sheets[k]),
      from,
    ).map((k) => own[k]);
  });
}

function shade(hex: string, k: number): string {
  const part = (i: number): string =>
    Math.round(Math.min(255, parseInt(hex.slice(i, i + 2), 16) * k))
      .toString(16)
      .padStart(2, '0');
  return `#${part(1)}${part(3)}${part(5)}`;
}
