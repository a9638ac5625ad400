/**
 * Cuts that run from edge to edge of a piece and would part it: drawings made for a machine often have their folds so.
 *
 *     ┌────────┬────────┐
 *     │ face 0 │ face 1 │   the stroke between two faces of one piece severs it, and a slit that ends in paper,
 *     │   ──   │        │   with one face on both of its sides, does not
 *     └────────┴────────┘
 */
import { group } from 'd3-array';
import type { Template } from '../document/template';
import { lengthOf, type TemplateLine } from '../pattern/mending';
import { arrange } from '../plane/arrangement';
import { insidePoint } from '../plane/polygon';
import { preparePolygon } from '../plane/prepared';
import { sub2 } from '../plane/vec2';
import { isStraight, pairs, windowsOf } from './template-sheets';

/** Lines that sever a piece and are alike: drawn the same way, as long as each other, and side by side. */
export interface Severing {
  readonly lines: readonly string[];
  readonly longMm: number;
  /** Straight, so that it can be a fold. */
  readonly mayFold: boolean;
}

/** Lines as long as each other differ by less, mm. */
export const SAME_LENGTH_MM = 0.5;
/** Lines that run the same way differ by less, degrees. */
const SAME_WAY_DEG = 1;

/** The longest first. What was said to be a real cut, line by line, is not asked again. */
export function severingIn(t: Template, lines: readonly TemplateLine[]): Severing[] {
  const drawnAs = new Map(t.lines.map((l) => [l.id, l.group]));
  const open = severingLines(lines).filter((l) => !l.meant);
  const sorted = open
    .map((line) => ({ line, ...measured(line), drawn: drawnAs.get(line.id) ?? '' }))
    .sort((a, b) => b.longMm - a.longMm);
  return [...group(sorted, (s) => s.drawn).values()]
    .flatMap(alike)
    .sort((a, b) => b.longMm - a.longMm)
    .map((same) => ({ lines: same.ids, longMm: same.longMm, mayFold: same.mayFold }));
}

/** Open cuts with paper of the same piece on both sides, where no way leads round them. */
export function severingLines(lines: readonly TemplateLine[]): TemplateLine[] {
  const cuts = lines.filter((l) => l.role === 'cut');
  const owners = cuts.flatMap((l) => pairs(l).map(() => l));
  const { edges, faces } = arrange(cuts.flatMap(pairs));
  const windows = windowsOf(lines).map((w) => preparePolygon(w));
  const isPaper = faces.map((face) => {
    const within = insidePoint(face);
    return !windows.some((w) => w.contains(within));
  });
  const found = new Set(
    edges
      .filter(({ left, right }) => left >= 0 && right >= 0 && left !== right && isPaper[left] && isPaper[right])
      .flatMap((e) => e.sources.map((s) => owners[s])),
  );
  return cuts.filter((l) => !l.closed && found.has(l));
}

function measured(line: TemplateLine): { readonly longMm: number; readonly wayDeg: number; readonly mayFold: boolean } {
  const [x, y] = sub2(line.points[line.points.length - 1], line.points[0]);
  const wayDeg = (Math.atan2(y, x) * 180) / Math.PI;
  return {
    longMm: lengthOf(line),
    wayDeg: (wayDeg + 360) % 180,
    mayFold: isStraight(line.points),
  };
}

interface Alike {
  readonly ids: string[];
  readonly longMm: number;
  readonly wayDeg: number;
  readonly mayFold: boolean;
}
type Measured = ReturnType<typeof measured> & { readonly line: TemplateLine };

/** Lines by length and way, each with the first that is like it. */
function alike(lines: readonly Measured[]): Alike[] {
  const found: Alike[] = [];
  for (const { line, longMm, wayDeg, mayFold } of lines) {
    const turned = (a: Alike): number => Math.abs(((a.wayDeg - wayDeg + 270) % 180) - 90);
    const same = found.find(
      (a) => a.mayFold === mayFold && Math.abs(a.longMm - longMm) < SAME_LENGTH_MM && turned(a) < SAME_WAY_DEG,
    );
    if (same) same.ids.push(line.id);
    else found.push({ ids: [line.id], longMm, wayDeg, mayFold });
  }
  return found;
}
