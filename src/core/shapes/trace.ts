/** A picture to outlines: contours of its darkness at a threshold, found between the pixels (marching squares). */
import { blur2 } from 'd3-array';
import { contours } from 'd3-contour';
import { mapRegion, regionBox, regionFromRings, ringArea, thinOut, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { ShapeError } from './shape';

export interface Raster {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, opacity of each pixel, 0 to 255, row by row from the top. */
  readonly rgba: Uint8ClampedArray;
}
export interface TraceWishes {
  /** 0 to 1: pixels darker than this belong to the shape. */
  readonly threshold: number;
  /**
   * Radius over which the picture is blurred before it is traced, pixels: rounds the corners of pixels away, and
   * corners of the shape by as much.
   */
  readonly smoothing: number;
  /** Spots and holes smaller than this many pixels are left out. */
  readonly specks: number;
  /** The light parts are the shape. */
  readonly inverted: boolean;
  readonly keepHoles: boolean;
  /** Height of the traced shape, mm. */
  readonly heightMm: number;
}

export const MOST_PIXELS = 4_000_000;

/** Darkness of each pixel, 0 white to 1 black; what is see-through is white. ITU-R BT.601 luma. */
export function darkness({ width, height, rgba }: Raster): Float64Array {
  const out = new Float64Array(width * height);
  for (let i = 0; i < out.length; i++) {
    const light = (0.299 * rgba[4 * i] + 0.587 * rgba[4 * i + 1] + 0.114 * rgba[4 * i + 2]) / 255;
    out[i] = (1 - light) * (rgba[4 * i + 3] / 255);
  }
  return out;
}

/** Threshold that parts the picture's dark from its light best (Otsu 1979: greatest variance between the two). */
export function fairThreshold(raster: Raster): number {
  const bins = new Float64Array(256);
  for (const d of darkness(raster)) bins[Math.min(255, Math.round(d * 255))]++;
  const total = raster.width * raster.height;
  const sum = bins.reduce((s, n, i) => s + n * i, 0);
  // Where no pixel lies between the two, every threshold there parts them alike: the middle is taken.
  let [below, belowSum, best, from, to] = [0, 0, -1, 127, 127];
  bins.forEach((n, i) => {
    below += n;
    belowSum += n * i;
    if (below === 0 || below === total) return;
    const between = below * (total - below) * (belowSum / below - (sum - belowSum) / (total - below)) ** 2;
    if (between > best * (1 + 1e-12)) [best, from, to] = [between, i, i];
    else if (between >= best * (1 - 1e-12)) to = i;
  });
  return Math.min(0.95, Math.max(0.05, ((from + to) / 2 + 0.5) / 255));
}

/** The traced shape, mm, y up, its foot on y = 0. Throws ShapeError where nothing is left to trace. */
export function traceShape(raster: Raster, wishes: TraceWishes): Region {
  const { width, height } = raster;
  if (width * height > MOST_PIXELS)
    throw new ShapeError(
      `the picture has ${((width * height) / 1e6).toFixed(1)} million pixels; at most ` +
        `${MOST_PIXELS / 1e6} million are traced`,
    );
  const mask = softMask(raster, wishes);
  if (wishes.smoothing > 0) blur2({ data: mask, width, height }, wishes.smoothing);
  const [found] = contours().size([width, height]).smooth(true).thresholds([0.5])(mask as unknown as number[]);
  const rings = found.coordinates.flatMap((polygon) =>
    polygon.map((ring) => ring.slice(0, -1).map(([x, y]): Vec2 => [x, height - y])),
  );
  const large = rings.filter((r) => Math.abs(ringArea(r)) >= wishes.specks && r.length > 2);
  let region = regionFromRings(large);
  if (!wishes.keepHoles) region = region.map((p) => ({ outer: p.outer, holes: [] }));
  if (region.length === 0)
    throw new ShapeError('nothing is left to trace at this threshold; move it, or ask for the light parts');
  const extent = (r: Region): { low: number; k: number } => {
    const { min, max } = regionBox(r);
    return { low: min[1], k: wishes.heightMm / (max[1] - min[1]) };
  };
  // Pixels' own steps are far finer than a knife: thinned to a tenth of a pixel, and never more coarsely than 0.05 mm.
  // Only then is the height set, since the highest point may be one that is thinned away.
  const thin = thinOut(region, Math.min(0.05 / extent(region).k, 0.1));
  const { low, k } = extent(thin);
  return mapRegion(thin, ([x, y]): Vec2 => [x * k, (y - low) * k]);
}

/** How far each pixel belongs to the shape, 0 to 1, one half at the threshold: blurred, an edge stays where it was. */
function softMask(raster: Raster, { threshold, inverted }: TraceWishes): Float64Array {
  return darkness(raster).map((dark) => {
    const v = inverted ? 1 - dark : dark;
    return v < threshold ? (0.5 * v) / threshold : 0.5 + (0.5 * (v - threshold)) / (1 - threshold);
  });
}
