/** What a dragged line would line up with: creases beside it, edges and middles of the paper, equal spaces. */
import type { Assembly } from '../assembly/assembly';
import type { Design } from '../document/design';
import { nameOfPart } from '../document/words';
import { boxOf } from '../plane/polygon';
import { cross2, dist2, dot2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { WELD_MM } from '../tolerance';
import type { Grip, GripLine } from './grips';

/** Where a line lines up, and with what. */
export interface Snap {
  /** By how much its number changes for that. */
  readonly by: number;
  readonly name: string;
}

/** Lines whose directions differ by less are parallel, rad. */
const PARALLEL_RAD = 1e-3;
const MOST_SNAPS = 60;

/** Places beside a line of a grip, nearest first; none for a line that does not move across itself. */
export function snapsOf(design: Design, assembly: Assembly, grip: Grip, line: GripLine): Snap[] {
  const long = Math.hypot(...line.way);
  const across = scale2(line.way, 1 / long);
  const from = lerp2(line.a, line.b, 0.5);
  const marks = [...creasesBeside(design, assembly, grip, across), ...paperBeside(design, assembly, grip, across)];
  // Two marks in one place are named by the first.
  const known = distinct(marks.map(({ at, name }) => ({ off: dot2(sub2(at, from), across), name })));
  const all = distinct([...known, ...spaces(known)]);
  return all
    .map(({ off, name }) => ({ by: off / long, name }))
    .filter(({ by }) => Math.abs(by) > 1e-9)
    .sort((p, q) => Math.abs(p.by) - Math.abs(q.by))
    .slice(0, MOST_SNAPS);
}

interface Mark {
  readonly at: Vec2;
  readonly name: string;
}
/** Creases of the piece that lie square to the way it is dragged. */
function creasesBeside(design: Design, { creases }: Assembly, grip: Grip, across: Vec2): Mark[] {
  return creases
    .filter((c) => c.piece === grip.piece && c.id !== grip.crease)
    .flatMap(({ id, segments: [s] }): Mark[] => {
      const long = dist2(s.a, s.b);
      const along = scale2(sub2(s.b, s.a), 1 / long);
      const level = Math.abs(dot2(along, across)) < PARALLEL_RAD && Math.abs(cross2(along, across)) > 0.5;
      return level ? [{ at: s.a, name: nameOfPart(design, id) }] : [];
    });
}

/** Edges and middles of the facets that belong to no one else, along the axes of the piece. */
function paperBeside(design: Design, { facets }: Assembly, { piece, mechanism }: Grip, across: Vec2): Mark[] {
  const k = Math.abs(across[0]) > 1 - PARALLEL_RAD ? 0 : Math.abs(across[1]) > 1 - PARALLEL_RAD ? 1 : null;
  if (k === null) return [];
  return facets
    .filter((f) => f.piece === piece && f.mechanism !== mechanism && !f.bent)
    .flatMap((f): Mark[] => {
      const { min, max } = boxOf(f.polygon.outer);
      const name = `the ${nameOfPart(design, f.id)}`;
      return [
        { at: lerp2(min, max, 0.5), name: `middle of ${name}` },
        { at: min, name: `edge of ${name}` },
        { at: max, name: `edge of ${name}` },
      ];
    });
}

interface Offset {
  readonly off: number;
  readonly name: string;
}
function distinct(list: readonly Offset[]): Offset[] {
  const out: Offset[] = [];
  for (const o of list) if (!out.some((p) => Math.abs(p.off - o.off) < WELD_MM)) out.push(o);
  return out;
}

/** Midway between two that follow each other, and as far past one as that is from the next. */
function spaces(known: readonly Offset[]): Offset[] {
  const sorted = [...known].sort((p, q) => p.off - q.off);
  return sorted.slice(1).flatMap((high, i): Offset[] => {
    const low = sorted[i];
    const space = high.off - low.off;
    return [
      { off: (low.off + high.off) / 2, name: `midway: ${low.name}, ${high.name}` },
      { off: high.off + space, name: `as far again past ${high.name}` },
      { off: low.off - space, name: `as far again past ${low.name}` },
    ];
  });
}
