/**
 * Decides by dense looks at lines drawn over every sheet whether two things of a card pass through each other while it
 * opens. A line that goes from one face of a sheet to its other inside its outline has gone through it.
 */
import { poseAt, type Pose } from '../src/core/assembly/pose';
import { buildAssembly } from '../src/core/build/build';
import { stockOf, type Design } from '../src/core/document/design';
import type { Judged } from './judge';
import { liesOnLeaf } from './lying';
import { depthIn, GIVE_MM, inside, place, slabsOf, toEdge, type Placed, type Slab } from './solids';

type P2 = readonly [number, number];
/** Its two ends; all of it lies inside the outline. */
type Line = readonly [P2, P2];

/** Looks are as close as this, and stay this far from shut, where sheets lie on each other. */
const STEP_DEG = 1.5;
const FROM_DEG = 8;
const LINES_MM = 1.2;
/** Nearer to shut, or to flat, sheets of a card lie on each other by design. */
const LAID_DEG = 20;
/** Less open, what is stuck on and faces a leaf comes near to that by design; common practice, no source. */
const PRESSED_DEG = 60;
/** Deeper than this is through; less deep than `NOT_MM` is not. */
const [SURELY_MM, NOT_MM] = [1, 0.15];

/** @param lowIsPressed whether whatever lies low on a leaf is taken as what is stuck on is */
export function judgeRising(design: Design, lowIsPressed = false): Judged {
  const assembly = buildAssembly(design);
  const slabs = slabsOf(assembly, (id) => stockOf(design, id)).filter((s) => s.poly.outer.length > 2);
  const webs = new Map(slabs.map((s) => [s, linesOver(s)]));
  const [opening] = assembly.drives;
  const rest = Object.fromEntries(assembly.drives.map((d) => [d.id, d.rest]));
  const pairs = slabs.flatMap((a, i) =>
    slabs
      .slice(i + 1)
      .filter((b) => apart(a, b) && assembly.facets[a.facet].body !== assembly.facets[b.facet].body)
      .map((b): [Slab, Slab] => [a, b]),
  );
  let worst = { mm: 0, why: '' };
  let doubtful = '';
  for (let open = FROM_DEG; open <= opening.to - 1; open += STEP_DEG) {
    const pose = poseAt(assembly, { ...rest, [opening.id]: open });
    if (pose.stop || pose.flexMm > 0) return { answer: 'undecided', why: `it does not open freely at ${open}` };
    const placed = new Map(slabs.map((s) => [s, place(s, pose)]));
    for (const [a, b] of pairs) {
      if (inOnePlane(pose, a, b)) {
        const folded = open < LAID_DEG || open > 180 - LAID_DEG;
        if (!folded && doubtful === '' && depthIn(placed.get(a)!, placed.get(b)!, GIVE_MM) > NOT_MM)
          doubtful = `${name(a)} lies in the room of ${name(b)} at ${open}`;
        continue;
      }
      const mm = Math.max(through(webs, placed, a, b, pose), through(webs, placed, b, a, pose));
      const why = `${name(a)} in ${name(b)} by ${mm.toFixed(2)} at ${open}`;
      // What is stuck on is as thick as it is: less open than this the card may press it, or not.
      const isLow = a.layer || b.layer || (lowIsPressed && [a, b].some((s) => liesOnLeaf(assembly, pose, s)));
      if (open < PRESSED_DEG && isLow) {
        if (mm > NOT_MM && doubtful === '') doubtful = why;
      } else if (mm > worst.mm) worst = { mm, why };
    }
    if (worst.mm > SURELY_MM * 3) break;
  }
  if (worst.mm > SURELY_MM) return { answer: 'jams', why: worst.why };
  if (worst.mm >= NOT_MM) return { answer: 'undecided', why: worst.why };
  return { answer: doubtful === '' ? 'moves' : 'undecided', why: doubtful };
}

const name = (s: Slab): string => `${s.mechanism}${s.layer ? ` ${s.layer}` : ''} ${s.facet}`;
/** Parts of one mechanism are its own kind's business; what is stuck on is asked about all but its own facet. */
const apart = (a: Slab, b: Slab): boolean =>
  a.facet !== b.facet && (a.mechanism !== b.mechanism || !!a.layer || !!b.layer);

/** Nearly in one plane they lie on each other: which is in front is not told from a line. */
function inOnePlane(pose: Pose, a: Slab, b: Slab): boolean {
  const [m, n] = [pose.placed[a.facet], pose.placed[b.facet]];
  return Math.abs(m[2] * n[2] + m[6] * n[6] + m[10] * n[10]) > 0.995;
}

/** Lines over a sheet, both ways, as far as they lie inside it without a gap. */
function linesOver({ poly }: Slab): Line[] {
  const xs = poly.outer.map((p) => p[0]);
  const ys = poly.outer.map((p) => p[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const step = Math.max(LINES_MM, Math.sqrt((x1 - x0) * (y1 - y0)) / 60);
  const out: P2[][] = [];
  const run = (points: P2[]): void => {
    let now: P2[] = [];
    for (const p of points) {
      if (inside(poly, p)) now.push(p);
      else if (now.length > 0) {
        out.push(now);
        now = [];
      }
    }
    out.push(now);
  };
  const ticks = (low: number, high: number): number[] =>
    Array.from({ length: Math.max(1, Math.floor((high - low) / step)) }, (_, k) => low + step * (k + 0.37));
  for (const x of ticks(x0, x1)) run(ticks(y0, y1).map((y): P2 => [x, y]));
  for (const y of ticks(y0, y1)) run(ticks(x0, x1).map((x): P2 => [x, y]));
  return out.filter((line) => line.length > 1).map((line): Line => [line[0], line[line.length - 1]]);
}

/** How deep the lines over one sheet go through another: how far the place is from the edges of both. */
function through(
  webs: ReadonlyMap<Slab, readonly Line[]>,
  placed: ReadonlyMap<Slab, Placed>,
  a: Slab,
  b: Slab,
  pose: Pose,
): number {
  const [pa, pb] = [placed.get(a)!, placed.get(b)!];
  const gap = Math.hypot(...[0, 1, 2].map((k) => pa.middle[k] - pb.middle[k]));
  if (gap > pa.radius + pb.radius) return 0;
  const [m, n] = [pose.placed[a.facet], pose.placed[b.facet]];
  const [ha, hb] = [(a.low + a.high) / 2, (b.low + b.high) / 2];
  const dot = (i: number, j: number): number => m[i] * n[j] + m[4 + i] * n[4 + j] + m[8 + i] * n[8 + j];
  const shift = [0, 1, 2].map((k) => m[4 * k + 2] * ha + m[4 * k + 3] - n[4 * k + 3]);
  const away = (k: number): number => n[k] * shift[0] + n[4 + k] * shift[1] + n[8 + k] * shift[2];
  /** Coordinate `k` of a point of the one in the axes of the other. */
  const rows = [0, 1, 2].map((k) => [dot(0, k), dot(1, k), away(k)] as const);
  const seen = (k: number, [x, y]: P2): number => rows[k][0] * x + rows[k][1] * y + rows[k][2];
  let deepest = 0;
  // A line is straight and without a gap: it crosses the other's plane once, or not at all.
  for (const [from, to] of webs.get(a)!) {
    const [before, after] = [seen(2, from) - hb, seen(2, to) - hb];
    if (before > 0 === after > 0) continue;
    const t = before / (before - after);
    const inA: P2 = [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t];
    const inB: P2 = [seen(0, inA), seen(1, inA)];
    if (inside(b.poly, inB)) deepest = Math.max(deepest, Math.min(toEdge(b.poly, inB), toEdge(a.poly, inA)));
  }
  return deepest;
}
