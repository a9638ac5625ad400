/** What is done to a shape, one step at a time. Regions in mm, y up. */
import {
  exclude,
  intersect,
  mapRegion,
  offset,
  rectangle,
  regionBox,
  ringArea,
  ringsOf,
  subtract,
  thinOut,
  unite,
  type Region,
} from '../plane/polygon';
import { rotated } from '../plane/turning';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { distribute } from './along';
import { leastTrim, levelAt, trimmed, widthOfAll } from './level';
import { ShapeError, type Edge, type Shape, type ShapeStep } from './shape';
import { tiesOf } from './ties';
import { SAME_LEVEL_MM } from '../tolerance';

export type Resolve = (shape: Shape) => Region;

/**
 * The region after a step. Throws ShapeError where nothing is left or the step cannot be done, naming what would be
 * right.
 */
export function takeStep(region: Region, step: ShapeStep, resolve: Resolve): Region {
  switch (step.do) {
    case 'unite':
      return unite(region, other(step, resolve));
    case 'subtract':
      return subtract(region, other(step, resolve));
    case 'intersect':
      return intersect(region, other(step, resolve));
    case 'outside':
      return exclude(region, other(step, resolve));
    case 'split':
      return intersect(region, halfPlane(region, step));
    case 'offset':
      return offset(region, step.by, step.corners);
    case 'mirror':
      return mirror(region, step.about, step.keep);
    case 'double':
      return doubled(region, step.edge, step.overlap, step.hinge).region;
    case 'distribute':
      return distribute(region, resolve(step.what), step.size, step, step.side);
    case 'row':
      return row(region, step.count, step.pitch, step.deg);
    case 'drop-holes':
      return region.map((p) => ({
        outer: p.outer,
        holes: step.below === null ? [] : p.holes.filter((h) => Math.abs(ringArea(h)) >= step.below!),
      }));
    case 'simplify':
      return thinOut(region, step.tolerance);
    case 'nudge':
      return nudge(region, step);
    case 'trim': {
      const by = leastTrim(region, step.edge, step.contact);
      if (by === null)
        throw new ShapeError(`trimming never gives ${step.contact} mm of contact: the shape is nowhere that wide`);
      return trimmed(region, step.edge, by);
    }
    case 'ties':
      return tiesOf(region, step).region;
    case 'size':
      return sized(region, step.width, step.height);
    case 'turn':
      return turned(region, step.deg);
  }
}

function other(
  { with: shape, x, y, deg }: { with: Shape; x: number; y: number; deg: number },
  resolve: Resolve,
): Region {
  return shifted(turned(resolve(shape), deg), x, y);
}
export const shifted = (region: Region, x: number, y: number): Region =>
  x === 0 && y === 0 ? region : mapRegion(region, ([px, py]) => [px + x, py + y]);
export const turned = (region: Region, deg: number): Region => (deg === 0 ? region : rotated(region, deg));

function halfPlane(
  region: Region,
  { x, y, deg, keep }: { x: number; y: number; deg: number; keep: 'left' | 'right' },
): Region {
  const { min, max } = regionBox(region);
  const far = 2 * (max[0] - min[0] + max[1] - min[1] + Math.abs(x) + Math.abs(y) + 1);
  const half = rectangle(-far, keep === 'left' ? 0 : -far, far, keep === 'left' ? far : 0);
  return shifted(turned([{ outer: half, holes: [] }], deg), x, y);
}

function mirror(region: Region, about: Edge | 'upright' | 'level', keep: boolean): Region {
  const { min, max } = regionBox(region);
  const upright = about === 'upright' || about === 'left' || about === 'right';
  const line =
    about === 'left'
      ? min[0]
      : about === 'right'
        ? max[0]
        : about === 'bottom'
          ? min[1]
          : about === 'top'
            ? max[1]
            : upright
              ? (min[0] + max[0]) / 2
              : (min[1] + max[1]) / 2;
  const image = mapRegion(region, ([x, y]): Vec2 => (upright ? [2 * line - x, y] : [x, 2 * line - y]), true);
  return keep ? unite([...region], image) : image;
}

/**
 * Front and back of a shaped base in one: mirrored about a line inside its edge, far enough in that they are joined
 * over `hinge` mm.
 */
export function doubled(
  region: Region,
  edge: Edge,
  overlap: number,
  hinge: number,
): { region: Region; half: Region; overlapMm: number; hingeMm: number } {
  // Work with the edge at the bottom.
  const quarter = { bottom: 0, left: 90, top: 180, right: -90 }[edge];
  const lying = turned(region, quarter);
  const least = leastTrim(lying, 'bottom', hinge);
  if (least === null)
    throw new ShapeError(
      `the shape is nowhere ${hinge} mm wide along that edge, so front and back cannot be joined over that`,
    );
  const by = Math.max(overlap, least);
  const half = trimmed(lying, 'bottom', by);
  if (half.length === 0) throw new ShapeError(`an overlap of ${by} mm leaves nothing of the shape`);
  const fold = regionBox(half).min[1];
  const image = mapRegion(half, ([x, y]): Vec2 => [x, 2 * fold - y], true);
  return {
    region: turned(unite([...half], image), -quarter),
    half: turned(half, -quarter),
    overlapMm: by,
    hingeMm: widthOfAll(levelAt(half, fold + SAME_LEVEL_MM)),
  };
}

function row(region: Region, count: number, pitch: number, deg: number): Region {
  const t = (deg * Math.PI) / 180;
  return unite(
    Array.from({ length: count }, (_, k) => shifted(region, k * pitch * Math.cos(t), k * pitch * Math.sin(t))).flat(),
  );
}

function nudge(
  region: Region,
  { ring, point, dx, dy }: { ring: number; point: number; dx: number; dy: number },
): Region {
  let count = -1;
  const moved = region.map((p) => {
    const move = (r: readonly Vec2[]): readonly Vec2[] => {
      count++;
      return count === ring ? r.map((q, i): Vec2 => (i === point ? [q[0] + dx, q[1] + dy] : q)) : r;
    };
    return { outer: move(p.outer), holes: p.holes.map(move) };
  });
  const rings = moved.flatMap(ringsOf);
  if (!rings[ring]?.[point]) throw new ShapeError(`there is no point ${point + 1} on outline ${ring + 1} to nudge`);
  // The nudged outline may cross itself: cleaned, so that what follows can rely on it.
  return unite(moved);
}

/** Scaled about its middle foot. One of the two given: proportions kept. */
export function sized(region: Region, width: number | null, height: number | null): Region {
  const { min, max } = regionBox(region);
  const [w, h] = [max[0] - min[0], max[1] - min[1]];
  const sx = width !== null ? width / w : height! / h;
  const sy = height !== null ? height / h : sx;
  const cx = (min[0] + max[0]) / 2;
  return mapRegion(region, ([x, y]) => [cx + (x - cx) * sx, min[1] + (y - min[1]) * sy]);
}

/** Largest distance of a point that was dropped from the outline that is left, mm. */
export function deviation(before: Region, after: Region): number {
  const edges = after.flatMap(ringsOf).flatMap((r) => r.map((a, i) => [a, r[(i + 1) % r.length]] as const));
  let most = 0;
  for (const p of before.flatMap(ringsOf).flat()) {
    let least = Infinity;
    for (const [a, b] of edges) {
      least = Math.min(least, distToSegment(p, a, b));
      if (least <= most) break;
    }
    if (least < Infinity) most = Math.max(most, least);
  }
  return most;
}
