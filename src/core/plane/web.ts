/**
 * How narrow the paper gets (docs/mechanisms.md, rule `web`): the least distance across it, and strips that erosion
 * loses although nothing narrows towards them, such as long points and slivers.
 */
import { indexEdges, type EdgeIndex } from './edge-index';
import {
  boxOf,
  centreOf,
  contains,
  intersect,
  mapRegion,
  offset,
  polygonArea,
  rectangle,
  regionBox,
  ringsOf,
  subtract,
  thicken,
  thinLine,
  unite,
  type Polygon,
  type Region,
  type Ring,
} from './polygon';
import { WELD_MM } from '../tolerance';
import { narrowestGap, STRIP_SQUARES, type Neck, type Sheet } from './neck';
import { Recall } from './recall';
import { dist2, type Vec2 } from './vec2';

export type { Neck, Sheet } from './neck';

/** Slits are taken this wide to tell the parts of the uncut sheet apart (mm); well below any real web. */
const SLIT_MM = 0.01;
const STEPS = 9;
/** Curves are followed this closely while strips are looked for (mm): as closely as the outlines themselves. */
const COARSE_MM = 0.01;

/** Cuts that follow on each other, as one line each: an outline of many short ones is then widened at a stroke. */
export function chains(cuts: readonly { readonly a: Vec2; readonly b: Vec2 }[]): Ring[] {
  const out: Vec2[][] = [];
  for (const { a, b } of cuts) {
    const last = out[out.length - 1]?.at(-1);
    if (last && dist2(last, a) < WELD_MM) out[out.length - 1].push(b);
    else out.push([a, b]);
  }
  return out;
}

/** Outlines of more points than this are thinned before necks are looked for, by no more than the tolerance (mm). */
const LONG_OUTLINE = 800;
const THIN_MM = 0.01;

/**
 * A sheet and its cuts as necks are looked for: cuts that run along a window are left out, since the window is an edge
 * already, and long outlines are thinned, cuts and windows alike, so that they still agree.
 */
export function sheetOf(outline: Polygon, cuts: readonly { readonly a: Vec2; readonly b: Vec2 }[]): Sheet {
  const key = ([x, y]: Vec2): string => `${Math.round(x / WELD_MM)},${Math.round(y / WELD_MM)}`;
  const onWindow = new Set(outline.holes.flat().map(key));
  const lines = chains(cuts.filter(({ a, b }) => !(onWindow.has(key(a)) && onWindow.has(key(b)))));
  if (cuts.length + onWindow.size <= LONG_OUTLINE) return { paper: [outline], cuts: lines };
  const holes = outline.holes.map((h) => thinLine([...h, h[0]], THIN_MM).slice(0, -1)).filter((h) => h.length > 2);
  return { paper: [{ outer: outline.outer, holes }], cuts: lines.map((l) => thinLine(l, THIN_MM)) };
}

/**
 * Narrowest place below `limitMm`, or null where the paper is wider everywhere. Necks are exact, strips found to 1/500
 * of the limit; with no `steps` only whether there is one.
 */
export function narrowestNeck(sheet: Sheet, limitMm: number, steps = STEPS): Neck | null {
  const parts = sheet.paper.map(ringsOf);
  const counts = [limitMm, steps, ...parts.map((rings) => rings.length)];
  return narrowest.of([...parts.flat(), ...sheet.cuts], counts, () => lookForNeck(sheet, limitMm, steps));
}
const narrowest = new Recall<Neck | null>(() => 1);

function lookForNeck(sheet: Sheet, limitMm: number, steps: number): Neck | null {
  const neck = narrowestGap(sheet, limitMm - WELD_MM);
  if (neck && steps === 0) return neck;
  // A strip has to be narrower still.
  return stripAcross(sheet, neck?.widthMm ?? limitMm, steps) ?? neck;
}

/**
 * Strips, looked for with the sheet's long side upright: the clipping library goes through a sheet from top to bottom
 * and searches the lines it meets at one height one by one, which takes n² on a long row of cuts.
 */
function stripAcross(sheet: Sheet, limitMm: number, steps: number): Neck | null {
  const { min, max } = regionBox(sheet.paper);
  if (max[0] - min[0] <= max[1] - min[1]) return narrowestStrip(sheet, limitMm, steps);
  const turned = { paper: mapRegion(sheet.paper, quarterTurn), cuts: sheet.cuts.map((c) => c.map(quarterTurn)) };
  const found = narrowestStrip(turned, limitMm, steps);
  return found && { ...found, at: [found.at[1], -found.at[0]] };
}
const quarterTurn = ([x, y]: Vec2): Vec2 => [-y, x];

function narrowestStrip(sheet: Sheet, limitMm: number, steps: number): Neck | null {
  // Paper exactly as wide as the limit is wide enough.
  const wide = necks(readied(sheet), limitMm - SLIT_MM);
  if (wide.length === 0) return null;
  let [low, high, found] = [0, limitMm, wide];
  if (steps === 0) return { widthMm: high, at: centreOf(found[0].outer) };
  // What is narrower still lies where it was too narrow already: the rest of the sheet is not looked at again.
  const { near, around } = neighbourhood(sheet, wide, limitMm);
  const ready = readied(near);
  for (let k = 0; k < steps; k++) {
    const middle = (low + high) / 2;
    const at = necks(ready, middle, around);
    if (at.length > 0) [high, found] = [middle, at];
    else low = middle;
  }
  return { widthMm: high, at: centreOf(found[0].outer) };
}

const shrink = ({ paper, cuts }: Sheet, by: number): Region =>
  subtract(offset(paper, -by, 'sharp', COARSE_MM), thicken(cuts, by, COARSE_MM));

/**
 * The sheet near some places, cut out far enough away that its new edges make no difference to them; and the part
 * where that holds.
 */
function neighbourhood(
  { paper, cuts }: Sheet,
  places: readonly Polygon[],
  limitMm: number,
): { near: Sheet; around: Region } {
  const boxes = (by: number): Region =>
    places.map((p): Polygon => {
      const { min, max } = boxOf(p.outer);
      return { outer: rectangle(min[0] - by, min[1] - by, max[0] + by, max[1] + by), holes: [] };
    });
  const wide = unite(boxes(4 * limitMm));
  const reach = wide.map((p) => boxOf(p.outer));
  const kept = cuts.flatMap((line) => {
    const runs: Vec2[][] = [];
    line.slice(1).forEach((b, i) => {
      const a = line[i];
      if (
        !reach.some(
          ({ min, max }) =>
            Math.max(a[0], b[0]) >= min[0] &&
            Math.min(a[0], b[0]) <= max[0] &&
            Math.max(a[1], b[1]) >= min[1] &&
            Math.min(a[1], b[1]) <= max[1],
        )
      )
        return;
      if (runs.at(-1)?.at(-1) === a) runs[runs.length - 1].push(b);
      else runs.push([a, b]);
    });
    return runs;
  });
  return { near: { paper: intersect(paper, wide), cuts: kept }, around: unite(boxes(limitMm)) };
}

/** A sheet with what every width is compared to: its parts between the slits, and their edges by place. */
interface Readied {
  readonly sheet: Sheet;
  readonly whole: Region;
  readonly edges: EdgeIndex;
}
function readied(sheet: Sheet): Readied {
  const whole = shrink(sheet, SLIT_MM / 2);
  return { sheet, whole, edges: indexEdges(whole) };
}

/**
 * Places that do not survive erosion by width/2 and are more than rounded corners; those of `around` only, where it
 * is given.
 */
function necks({ sheet, whole, edges }: Readied, width: number, around: Region | null = null): Polygon[] {
  const r = width / 2;
  const core = shrink(sheet, r);
  if (core.length === 0 && !around) return whole.slice(0, 1);
  // Grown back a hair more than it was shrunk, but not through a slit.
  const kept = offset(core, r + SLIT_MM / 4, 'round', COARSE_MM);
  return subtract(whole, kept).filter((rest) => {
    const size = polygonArea(rest);
    if (size < SLIT_MM * width || (around && !around.some((p) => contains(p, rest.outer[0])))) return false;
    // Two contacts or none: it was a bridge, or a part of its own. One contact: a dead end, a strip only when it is
    // longer than wide.
    return contacts(rest, edges) !== 1 || size > STRIP_SQUARES * width * width;
  });
}

/**
 * How many separate stretches of what was lost border on paper that was kept: those that do not run along the sheet's
 * own edges.
 */
function contacts(rest: Polygon, edges: EdgeIndex): number {
  const ring = rest.outer;
  const inner = ring.map((p, i) => {
    const q = ring[(i + 1) % ring.length];
    return !edges.near([(p[0] + q[0]) / 2, (p[1] + q[1]) / 2], SLIT_MM);
  });
  const rises = inner.filter((n, i) => n && !inner[(i + ring.length - 1) % ring.length]).length;
  return rises === 0 && inner.some(Boolean) ? 1 : rises;
}
