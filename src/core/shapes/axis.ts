/** The line on which a figure folds best: its axis of symmetry, or the long way through its middle. mm, y up. */
import { exclude, mapRegion, regionArea, ringsOf, type Region } from '../plane/polygon';
import { cross2, type Vec2 } from '../plane/vec2';
import { ROUNDING_MM } from '../tolerance';

/** Centre of the area; holes count as missing. */
export function centreOfArea(region: Region): Vec2 {
  let [x, y, twice] = [0, 0, 0];
  for (const ring of region.flatMap(ringsOf)) {
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const w = cross2(a, b);
      x += (a[0] + b[0]) * w;
      y += (a[1] + b[1]) * w;
      twice += w;
    });
  }
  return [x / (3 * twice), y / (3 * twice)];
}

export interface Axis {
  /** Direction, degrees from the right, in (-90, 90]. */
  readonly deg: number;
  readonly through: Vec2;
  /** Area that folding on it leaves uncovered, of the whole: 0 symmetric. */
  readonly unlike: number;
}

const STEP_DEG = 3;
/**
 * Axes whose halves differ by less than this part of the area are as good as each other: the upright one is taken
 * then.
 */
const AS_GOOD = 0.01;

/** The axis through the centre whose two halves are most alike; of several, the one nearest to upright. */
export function foldAxis(region: Region): Axis {
  const through = centreOfArea(region);
  const tries = Array.from({ length: 180 / STEP_DEG }, (_, k) => axisAt(region, through, 90 - k * STEP_DEG));
  const least = Math.min(...tries.map((a) => a.unlike));
  const [coarse] = tries
    .filter((a) => a.unlike <= least + AS_GOOD)
    .sort((a, b) => Math.abs(Math.abs(b.deg) - 0) - Math.abs(Math.abs(a.deg) - 0));
  let best = coarse;
  for (let step = STEP_DEG / 2; step > 0.01; step /= 2) {
    for (const deg of [best.deg - step, best.deg + step]) {
      const at = axisAt(region, through, deg);
      if (at.unlike < best.unlike - ROUNDING_MM) best = at;
    }
  }
  return best;
}

const axes = new WeakMap<Region, number>();
/** Direction of that axis, degrees: it does not change with the size, and is found once for each outline. */
export function axisOf(drawn: Region): number {
  const deg = axes.get(drawn) ?? foldAxis(drawn).deg;
  axes.set(drawn, deg);
  return deg;
}

function axisAt(region: Region, through: Vec2, deg: number): Axis {
  const t = (deg * Math.PI) / 90;
  const [c, s] = [Math.cos(t), Math.sin(t)];
  const image = mapRegion(
    region,
    ([x, y]): Vec2 => {
      const [u, v] = [x - through[0], y - through[1]];
      return [through[0] + c * u + s * v, through[1] + s * u - c * v];
    },
    true,
  );
  return { deg, through, unlike: regionArea(exclude(region, image)) / regionArea(region) };
}
