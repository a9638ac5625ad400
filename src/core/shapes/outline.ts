/** A saved shape to its outline: sources drawn, steps taken. */
import { cornerCount, mapRegion, regionBox, regionFromRings, unite, type Region } from '../plane/polygon';
import {
  arcShape,
  archShape,
  circleShape,
  cloudShape,
  ellipseShape,
  rectShape,
  regularShape,
  starShape,
} from './basics';
import { CURVE_TOLERANCE_MM } from './curve';
import { polylinesOf } from './path-data';
import { ShapeError, type Shape, type ShapeAsset, type ShapeShelf, type ShapeStep } from './shape';
import { takeStep } from './steps';
import { textRegion } from './text';

/** Outlines of more points are not cut from card. */
export const MOST_POINTS = 60_000;
/** A shape that is thinner than this, mm, is a line and holds no paper. */
const THINNEST_MM = 0.001;
const DEEPEST = 12;
/** Most points that all steps of a shape, and of the shapes in it, may go through together. */
const MOST_WORKED = 10 * MOST_POINTS;

/** Steps that only move points: they cost next to nothing. */
const IN_PASSING: ReadonlySet<ShapeStep['do']> = new Set(['size', 'turn', 'nudge', 'drop-holes']);

/** What has been gone through so far, in points. */
interface Work {
  points: number;
}

/** Outline of a shape, mm, y up, where it was drawn. Throws ShapeError with what is wrong and what would be right. */
export function outlineOf(shape: Shape, shelf: ShapeShelf = new Map()): Region {
  return remember(`${JSON.stringify(shape)}${'asset' in shape ? signature(shape.asset, shelf) : ''}`, () =>
    resolve(shape, shelf, 0, { points: 0 }),
  );
}

/** Outline of a kept shape, after its first `steps` steps (all of them unless said). */
export function assetOutline(asset: ShapeAsset, shelf: ShapeShelf, steps = asset.steps.length): Region {
  const names = new Map(shelf).set(asset.id, asset);
  return remember(`${asset.id}/${steps}${signature(asset.id, names)}`, () =>
    resolveAsset(asset, names, 0, steps, { points: 0 }),
  );
}

function resolve(shape: Shape, shelf: ShapeShelf, depth: number, work: Work): Region {
  if (depth > DEEPEST) throw new ShapeError('the shape is made of itself by way of others; take one of them out');
  const region = drawn(shape, shelf, depth, work);
  if (region.length === 0) throw new ShapeError('the shape has no area; an outline must enclose something');
  checkOutline(region);
  return region;
}

/** What can be cut: not too many points, and not as thin as a line. */
function checkOutline(region: Region): void {
  if (cornerCount(region) > MOST_POINTS)
    throw new ShapeError(`the outline has more than ${MOST_POINTS} points; simplify it`);
  const { min, max } = regionBox(region);
  const least = Math.min(max[0] - min[0], max[1] - min[1]);
  if (!(least >= THINNEST_MM))
    throw new ShapeError(`the shape is less than ${THINNEST_MM} mm wide or high; give it a size that can be cut`);
}

function resolveAsset(asset: ShapeAsset, shelf: ShapeShelf, depth: number, steps: number, work: Work): Region {
  let region = resolve(asset.source, shelf, depth + 1, work);
  for (const [k, step] of asset.steps.slice(0, steps).entries()) {
    const multiplied = step.do === 'row' ? step.count : step.do === 'mirror' && step.keep ? 2 : 1;
    if (cornerCount(region) * multiplied > MOST_POINTS)
      throw new ShapeError(
        `step ${k + 1} of "${asset.name}" (${step.do}) would give ${cornerCount(region) * multiplied} points; an ` +
          `outline has at most ${MOST_POINTS}: simplify it first, or take fewer`,
      );
    if (!IN_PASSING.has(step.do)) work.points += cornerCount(region) * multiplied;
    if (work.points > MOST_WORKED)
      throw new ShapeError(
        `the steps of "${asset.name}" go through more than ${MOST_WORKED} points in all, at step ${k + 1} ` +
          `(${step.do}); simplify the shape first, or take fewer steps`,
      );
    region = takeStep(region, step, (s) => resolve(s, shelf, depth + 1, work));
    if (region.length === 0)
      throw new ShapeError(`step ${k + 1} of "${asset.name}" (${step.do}) leaves nothing of the shape`);
    checkOutline(region);
  }
  return region;
}

function drawn(shape: Shape, shelf: ShapeShelf, depth: number, work: Work): Region {
  if ('circle' in shape) return circleShape(shape.circle);
  if ('ellipse' in shape) return ellipseShape(shape.ellipse.width, shape.ellipse.height);
  if ('rect' in shape) return rectShape(shape.rect.width, shape.rect.height, shape.rect.corner);
  if ('regular' in shape) return regularShape(shape.regular.sides, shape.regular.diameter);
  if ('star' in shape) return starShape(shape.star.points, shape.star.outer, shape.star.inner);
  if ('arc' in shape) return arcShape(shape.arc.radius, shape.arc.width, shape.arc.from, shape.arc.to);
  if ('arch' in shape) return archShape(shape.arch.width, shape.arch.height);
  if ('cloud' in shape) return cloudShape(shape.cloud.width, shape.cloud.height, shape.cloud.bumps);
  if ('polygon' in shape) return regionFromRings([shape.polygon]);
  if ('path' in shape) {
    const rings = polylinesOf(shape.path, CURVE_TOLERANCE_MM, MOST_POINTS).map(({ points }) =>
      points.map(([x, y]) => [x, -y] as const),
    );
    // Turning y over turns the rings round; the winding rule sees only whether they agree with each other.
    return unite([...regionFromRings(rings, shape.rule ?? 'nonzero')]);
  }
  if ('text' in shape) return textRegion(shape.text);
  if ('asset' in shape) {
    const asset = shelf.get(shape.asset);
    if (!asset)
      throw new ShapeError(
        `there is no shape "${shape.asset}" in the document; known are ` +
          `${[...shelf.keys()].slice(0, 12).join(', ') || 'none'}`,
      );
    // Kept: shapes made of shapes made of shapes would else be worked out once for every way down.
    return remember(`${asset.id}/${asset.steps.length}${signature(asset.id, shelf)}`, () =>
      resolveAsset(asset, shelf, depth, asset.steps.length, work),
    );
  }
  return rectShape(shape.width, shape.height);
}

/**
 * A shape scaled to a height (proportions kept unless a width is given too), its foot on y = 0 and its middle on x =
 * 0.
 */
export function standing(region: Region, height: number | null, width: number | null = null): Region {
  const { min, max } = regionBox(region);
  const [w, h] = [max[0] - min[0], max[1] - min[1]];
  const sy = height !== null ? height / h : width !== null ? width / w : 1;
  const sx = width !== null ? width / w : sy;
  const cx = (min[0] + max[0]) / 2;
  // Levels that were equal stay equal to the last digit: feet and tops are told by it.
  return mapRegion(region, ([x, y]) => [(x - cx) * sx, (y - min[1]) * sy]);
}

/** Everything an asset's outline depends on, as a key. */
function signature(id: string, shelf: ShapeShelf, seen = new Set<string>()): string {
  const asset = shelf.get(id);
  if (!asset || seen.has(id)) return '';
  seen.add(id);
  const text = JSON.stringify([asset.source, asset.steps]);
  return `|${id}${text}${[...text.matchAll(/"asset":"([^"]+)"/g)].map((m) => signature(m[1], shelf, seen)).join('')}`;
}

/** Outlines are asked for again and again while a design is proved; the same input gives the same outline. */
const known = new Map<string, Region>();
const MOST_KNOWN = 200;
const MOST_KNOWN_POINTS = 1_000_000;
let knownPoints = 0;
function remember(key: string, work: () => Region): Region {
  const found = known.get(key);
  if (found) return found;
  const region = work();
  known.set(key, region);
  knownPoints += cornerCount(region);
  for (const [oldest, r] of known) {
    if (known.size <= MOST_KNOWN && knownPoints <= MOST_KNOWN_POINTS) break;
    known.delete(oldest);
    knownPoints -= cornerCount(r);
  }
  return region;
}
