/**
 * Mountains and valleys for creases that came without: at every inner vertex only few choices fold flat. Each vertex is
 * asked by folding its narrowest sectors away one after another (crimps; Maekawa, Kawasaki and Justin, Hull); choices
 * that agree at all vertices are offered.
 */
import { arrange } from '../plane/arrangement';
import { sub2, type Vec2 } from '../plane/vec2';
import { isCrease, segmentsOf, type TemplateLine } from './mending';

export type Fold = 'valley' | 'mountain';
export type FoldChoice = ReadonlyMap<string, Fold>;

/** A point where creases meet and no cut comes: its creases in order, and the sectors between them, rad. */
export interface FoldVertex {
  readonly at: Vec2;
  readonly creases: readonly string[];
  readonly sectors: readonly number[];
}

/** Sectors that differ by less are equal, rad. */
const SAME_ANGLE_RAD = 1e-3;
/** Tries and answers at most. */
const MOST_TRIES = 100_000;
export const MOST_CHOICES = 8;

/** Inner vertices of a drawing: where creases meet away from cuts. */
export function foldVertices(lines: readonly TemplateLine[]): FoldVertex[] {
  const drawn = lines.filter((l) => l.role !== 'mark' && l.role !== 'glue');
  const segments = drawn.flatMap((l) => segmentsOf(l).map(([a, b]) => ({ a, b, line: l })));
  const { vertices, edges } = arrange(segments);
  const at = new Map<number, { angle: number; line: TemplateLine }[]>();
  for (const e of edges) {
    // Where a cut runs along a crease it is a cut.
    const { line } = segments[e.sources.find((s) => !isCrease(segments[s].line)) ?? e.sources[0]];
    for (const [from, to] of [
      [e.from, e.to],
      [e.to, e.from],
    ]) {
      const [x, y] = sub2(vertices[to], vertices[from]);
      at.set(from, [...(at.get(from) ?? []), { angle: Math.atan2(y, x), line }]);
    }
  }
  return [...at].flatMap(([v, ends]): FoldVertex[] => {
    if (ends.length < 4 || ends.some(({ line }) => !isCrease(line))) return [];
    const round = [...ends].sort((p, q) => p.angle - q.angle);
    const sectors = round.map(({ angle }, i) => {
      const next = round[(i + 1) % round.length].angle;
      return next > angle ? next - angle : next - angle + 2 * Math.PI;
    });
    return [{ at: vertices[v], creases: round.map(({ line }) => line.id), sectors }];
  });
}

/** Whether a vertex folds flat with its creases so folded (Kawasaki-Justin for its sectors, then crimp by crimp). */
export function foldsFlat(sectors: readonly number[], folds: readonly Fold[]): boolean {
  if (sectors.length % 2 === 1) return false;
  const alternating = sectors.reduce((sum, a, i) => sum + (i % 2 === 0 ? a : -a), 0);
  if (Math.abs(alternating) > SAME_ANGLE_RAD) return false;
  const valleys = folds.filter((f) => f === 'valley').length;
  if (Math.abs(2 * valleys - folds.length) !== 2) return false;
  if (sectors.length === 2) return true;
  const least = Math.min(...sectors);
  // All alike: any such choice folds.
  if (sectors.every((a) => a - least < SAME_ANGLE_RAD)) return true;
  // Crease i begins sector i; a narrowest sector between two creases that fold apart is folded away.
  const n = sectors.length;
  for (let i = 0; i < n; i++) {
    const [before, after] = [(i + n - 1) % n, (i + 1) % n];
    if (sectors[i] - least >= SAME_ANGLE_RAD || folds[i] === folds[after]) continue;
    const merged = sectors[before] - sectors[i] + sectors[after];
    const keep = sectors.map((_, k) => k).filter((k) => k !== i && k !== after);
    const rest = keep.map((k) => (k === before ? merged : sectors[k]));
    return foldsFlat(
      rest,
      keep.map((k) => folds[k]),
    );
  }
  return false;
}

/**
 * Choices for every crease that meets others, in which each vertex folds flat; those that are known stay.
 * @returns none where no choice does, which is also so where creases run through a vertex as one line
 */
export function foldChoices(vertices: readonly FoldVertex[], known: FoldChoice): FoldChoice[] {
  const order = inReach(vertices);
  const fold = new Map(known);
  const out: FoldChoice[] = [];
  let tries = 0;
  const at = new Map<string, FoldVertex[]>();
  for (const v of vertices) for (const c of new Set(v.creases)) at.set(c, [...(at.get(c) ?? []), v]);
  const soundAt = (crease: string): boolean =>
    at.get(crease)!.every(
      (v) =>
        !v.creases.every((c) => fold.has(c)) ||
        foldsFlat(
          v.sectors,
          v.creases.map((c) => fold.get(c)!),
        ),
    );
  const walk = (k: number): void => {
    if (out.length >= MOST_CHOICES || ++tries > MOST_TRIES) return;
    if (k === order.length) return void out.push(new Map(fold));
    const crease = order[k];
    if (known.has(crease)) {
      if (soundAt(crease)) walk(k + 1);
      return;
    }
    for (const one of ['valley', 'mountain'] as const) {
      fold.set(crease, one);
      if (soundAt(crease)) walk(k + 1);
    }
    fold.delete(crease);
  };
  walk(0);
  return out;
}

/** Creases vertex by vertex, each vertex next to one before where that can be: what is wrong is seen early. */
function inReach(vertices: readonly FoldVertex[]): string[] {
  const out = new Set<string>();
  const at = new Map<string, FoldVertex[]>();
  for (const v of vertices) for (const c of v.creases) at.set(c, [...(at.get(c) ?? []), v]);
  const seen = new Set<FoldVertex>();
  for (const seed of vertices) {
    const queue = seen.has(seed) ? [] : [seed];
    for (const v of queue) {
      if (seen.has(v)) continue;
      seen.add(v);
      for (const c of v.creases) {
        out.add(c);
        queue.push(...at.get(c)!.filter((w) => !seen.has(w)));
      }
    }
  }
  return [...out];
}
