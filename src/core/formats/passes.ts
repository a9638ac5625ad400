/** What is worked with one tool at a time: pens, scores, perforations, inner cuts, outlines, in that order. */
import type { LineRole } from '../pattern/pattern';
import type { Vec2 } from '../plane/vec2';
import { walkPlate, type Plate } from './plate';

export const PASSES = ['pen', 'score', 'perforate', 'inner', 'outline'] as const;
export type Pass = (typeof PASSES)[number];

/** What each pass is, for those who set its tool. */
export const PASS_WORDS: Readonly<Record<Pass, string>> = {
  pen: 'drawn, not cut',
  score: 'scored folds',
  perforate: 'perforated folds',
  inner: 'cuts inside',
  outline: 'outlines',
};

/** One move of the tool, mm, y up: from its first point to its last; a closed one comes back to its first. */
export interface ToolPath {
  readonly pass: Pass;
  readonly points: readonly Vec2[];
}

/** A piece's own outline is cut last; what is cut inside it, before. */
const passOf = (role: LineRole, closed: boolean): Pass | null => {
  if (role === 'mark') return 'pen';
  if (role === 'valley' || role === 'mountain') return 'score';
  if (role === 'perforation') return 'perforate';
  if (role === 'window') return 'inner';
  return role === 'cut' ? (closed ? 'outline' : 'inner') : null;
};

/** Every move of the tools over a plate, pass by pass; within a pass the nearest next. Glue is left out. */
export function toolPaths(plate: Plate): ToolPath[] {
  const all: ToolPath[] = [];
  walkPlate(plate, {
    line(role, { points, closed }) {
      const pass = passOf(role, closed);
      if (pass) all.push({ pass, points: closed ? [...points, points[0]] : points });
    },
    finish: () => undefined,
  });
  let at: Vec2 = [0, 0];
  return PASSES.flatMap((pass) => {
    const ordered = nearestNext(
      all.filter((p) => p.pass === pass),
      at,
    );
    at = ordered.at(-1)?.points.at(-1) ?? at;
    return ordered;
  });
}

/** Each time the path that begins, or, if it is no ring, ends nearest to where the tool is. */
function nearestNext(paths: readonly ToolPath[], from: Vec2): ToolPath[] {
  const left = new Set(paths);
  const out: ToolPath[] = [];
  let at = from;
  while (left.size > 0) {
    let best: { path: ToolPath; back: boolean; mm: number } | null = null;
    for (const path of left) {
      const { points } = path;
      const ends = [points[0], points[points.length - 1]].map(([x, y]) => Math.hypot(x - at[0], y - at[1]));
      const back = ends[1] < ends[0];
      const mm = Math.min(...ends);
      if (!best || mm < best.mm) best = { path, back, mm };
    }
    const { path, back } = best!;
    left.delete(path);
    const points = back ? [...path.points].reverse() : path.points;
    out.push({ ...path, points });
    at = points[points.length - 1];
  }
  return out;
}
