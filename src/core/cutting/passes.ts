/** What is worked with one tool at a time: pens, scores, perforations, inner cuts, outlines, in that order. */
import { PASS_WORDS, PASSES, type Pass } from '../paper/machine';
import type { LineRole } from '../pattern/pattern';
import type { Vec2 } from '../plane/vec2';
import { contains } from '../plane/polygon';
import type { DrawnLine } from '../sheets/drawing';
import { walkPlate, type Plate, type PlateItem } from '../sheets/plate';

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

/** A line of a plate with the pass that works it. */
interface Worked extends ToolPath {
  readonly item: PlateItem;
  readonly line: DrawnLine;
  readonly closed: boolean;
}

/** Every line that is worked; an outline that lies in what falls out of a window is cut with the windows. */
function workedLines(plate: Plate): Worked[] {
  const all: Worked[] = [];
  walkPlate(plate, {
    line(role, { points, closed }, line, item) {
      const pass = passOf(role, closed);
      if (pass) all.push({ pass, points: closed ? [...points, points[0]] : points, closed, line, item });
    },
    finish: () => undefined,
  });
  const windows = all.filter((w) => w.pass === 'inner' && w.closed);
  return all.map((w) =>
    w.pass === 'outline' && windows.some((hole) => hole.item !== w.item && holds(hole, w))
      ? { ...w, pass: 'inner' }
      : w,
  );
}
const holds = (ring: Worked, inside: Worked): boolean =>
  ring !== inside && contains({ outer: ring.points.slice(0, -1), holes: [] }, inside.points[0]);

/** The plate with the lines of one pass only. */
export function onlyPass(plate: Plate, pass: Pass): Plate {
  const kept = new Set(workedLines(plate).flatMap((w) => (w.pass === pass ? [w.line] : [])));
  return {
    ...plate,
    title: `${plate.title}, ${PASS_WORDS[pass]}`,
    items: plate.items.flatMap(({ drawing, place }) => {
      const lines = drawing.lines.filter((l) => kept.has(l));
      return lines.length > 0 ? [{ drawing: { ...drawing, lines }, place }] : [];
    }),
  };
}

/**
 * Every move of the tools over a plate, pass by pass; within a pass what lies in a ring before the ring, else the
 * nearest next. Glue is left out.
 */
export function toolPaths(plate: Plate): ToolPath[] {
  const all = workedLines(plate);
  let at: Vec2 = [0, 0];
  return PASSES.flatMap((pass) => {
    const own = all.filter((p) => p.pass === pass);
    return inwardFirst(own).flatMap((level) => {
      const ordered = nearestNext(level, at);
      at = ordered.at(-1)?.points.at(-1) ?? at;
      return ordered.map(({ pass, points }) => ({ pass, points }));
    });
  });
}

/** By how many rings they lie in, the deepest first. */
function inwardFirst(paths: readonly Worked[]): Worked[][] {
  const rings = paths.filter((p) => p.closed && p.pass !== 'pen');
  const levels = new Map<number, Worked[]>();
  for (const p of paths) {
    const depth = rings.filter((ring) => holds(ring, p)).length;
    levels.set(depth, [...(levels.get(depth) ?? []), p]);
  }
  return [...levels].sort(([a], [b]) => b - a).map(([, level]) => level);
}

/** Each time the path that begins, or, if it is no ring, ends nearest to where the tool is. */
function nearestNext<P extends ToolPath>(paths: readonly P[], from: Vec2): P[] {
  const left = new Set(paths);
  const out: P[] = [];
  let at = from;
  while (left.size > 0) {
    let best: { path: P; back: boolean; mm: number } | null = null;
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
