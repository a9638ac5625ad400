/**
 * A whole template of cut and fold lines, from SVG or DXF, as lines sorted into groups that can be given roles. mm, y
 * up.
 */
import Flatbush from 'flatbush';
import { FARTHEST_MM, isCrease, MOST_GROUPS, MOST_LINES, MOST_TEMPLATE_POINTS } from '../pattern/mending';
import type { TemplateRole } from '../pattern/pattern';
import { boxOf, contains, insidePoint } from '../plane/polygon';
import { preparePolygon, type PreparedPolygon } from '../plane/prepared';
import type { Vec2 } from '../plane/vec2';
import { LARGEST_DRAWING, ShapeError } from '../shapes/shape';
import { dxfLines } from './template-dxf';
import { guessRole } from './template-roles';
import type { RawLine } from './template-raw';
import { isDrawnOver, withoutSharedEdges, type OpenPart } from './template-shared';
import { svgLines } from './template-svg';

export { guessRole } from './template-roles';

export interface DrawnLine {
  readonly id: string;
  /** Key of its group: layer, colour and whether it is dashed. */
  readonly group: string;
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}
export interface LineGroup {
  readonly key: string;
  readonly layer: string;
  readonly colour: string;
  readonly dashed: boolean;
  readonly role: TemplateRole;
  readonly count: number;
}
export interface ReadTemplate {
  readonly lines: readonly DrawnLine[];
  readonly groups: readonly LineGroup[];
  readonly leftOut: readonly string[];
}

/** Names of layers and lines are kept up to this length: from both ends, which tell most. */
const LONGEST_NAME = 200;
const shortened = (name: string): string =>
  name.length <= LONGEST_NAME ? name : `${name.slice(0, LONGEST_NAME - 60)}…${name.slice(-50)}`;

/** Before anything is arranged: so many points, all of them within reach. */
function checkPoints(lines: readonly RawLine[]): void {
  const count = lines.reduce((n, l) => n + l.points.length, 0);
  if (count > MOST_TEMPLATE_POINTS)
    throw new ShapeError(
      `the drawing has ${count} points; at most ${MOST_TEMPLATE_POINTS} are read: bring in a part of it`,
    );
  for (const l of lines)
    for (const p of l.points)
      for (const x of p)
        if (!(Math.abs(x) <= FARTHEST_MM))
          throw new ShapeError(
            `line ${l.id.slice(0, 60)} has a point at ${Number(x.toPrecision(3))} mm; a card’s are within ` +
              `${FARTHEST_MM} mm of the origin`,
          );
}

/**
 * Read a template. `name` tells by its ending what it is. Throws ShapeError with what is wrong and what would be
 * right.
 */
export function readTemplate(text: string, name: string): ReadTemplate {
  if (text.length > LARGEST_DRAWING)
    throw new ShapeError(
      `the drawing has ${Math.round(text.length / 1e6)} MB; at most ${LARGEST_DRAWING / 1e6} MB are read`,
    );
  if (text.includes('\0')) throw new ShapeError('the file is binary; a template is SVG or ASCII DXF');
  const raw = /\.dxf$/i.test(name) || /^\s*(0|999)\r?\n/.test(text) ? dxfLines(text) : svgLines(text);
  if (raw.lines.length === 0) throw new ShapeError('the drawing has no lines in it');
  if (raw.lines.length > MOST_LINES)
    throw new ShapeError(`the drawing has ${raw.lines.length} lines; at most ${MOST_LINES} are read`);
  checkPoints(raw.lines);
  const seen = new Map<string, number>();
  const drawn = raw.lines.map(
    (l): DrawnLine & { said: string; layer: string; colour: string; dashed: boolean; dashDot: boolean } => {
      const [id, layer] = [shortened(l.id), shortened(l.layer)];
      const n = (seen.get(id) ?? 0) + 1;
      seen.set(id, n);
      return {
        ...l,
        layer,
        id: n === 1 ? id : `${id}~${n}`,
        group: `${layer}|${l.colour.slice(0, 40)}|${l.dashDot ? 'dash-dot' : l.dashed ? 'dashed' : 'solid'}`,
      };
    },
  );
  const lines = withSharedApart(drawn);
  const keys = [...new Set(lines.map((l) => l.group))];
  if (keys.length > MOST_GROUPS)
    throw new ShapeError(
      `the drawing has ${keys.length} kinds of lines by layer, colour and dashes; at most ${MOST_GROUPS} are read`,
    );
  const groups = keys.map((key): LineGroup => {
    const of = lines.filter((l) => l.group === key);
    const { layer, colour, dashed, dashDot, said } = of[0];
    return { key, layer, colour, dashed, role: guessRole(said, layer, colour, dashed, dashDot), count: of.length };
  });
  const byKey = new Map(groups.map((g) => [g.key, g]));
  const inner = insideOthers(lines.filter((l) => l.closed && byKey.get(l.group)!.role === 'cut'));
  const innerOf = new Map<string, number>();
  for (const { group } of inner) innerOf.set(group, (innerOf.get(group) ?? 0) + 1);
  return {
    lines: lines.map((l): DrawnLine => {
      const { id, group, points, closed } = l;
      return { id, group: inner.has(l) ? `${group}|inner` : group, points, closed };
    }),
    groups: [
      ...groups.map((g) => ({ ...g, count: g.count - (innerOf.get(g.key) ?? 0) })),
      ...[...innerOf].map(([key, count]): LineGroup => ({
        ...byKey.get(key)!,
        ...{ key: `${key}|inner`, role: 'window', count },
      })),
    ].filter((g) => g.count > 0),
    leftOut: raw.leftOut,
  };
}

/** Cut outlines side by side without what they share, and that as lines of its own. */
function withSharedApart<L extends DrawnLine & Pick<RawLine, 'said' | 'layer' | 'colour' | 'dashed' | 'dashDot'>>(
  lines: readonly L[],
): readonly L[] {
  const roleOf = ({ said, layer, colour, dashed, dashDot }: L): TemplateRole =>
    guessRole(said, layer, colour, dashed, dashDot);
  const cuts = lines.filter((l) => l.closed && roleOf(l) === 'cut');
  // Windows side by side are no panels: what lies between them is no paper.
  const shared = withoutSharedEdges(cuts);
  const inner = insideOthers(cuts, (l) => (shared.has(l.id) ? insidePoint({ outer: l.points, holes: [] }) : null));
  const parts = inner.size > 0 ? withoutSharedEdges(cuts.filter((l) => !inner.has(l))) : shared;
  // A fold that is drawn on what two panels share says what that is.
  const folds = lines.filter((l) => isCrease({ role: roleOf(l) })).map((l) => l.points);
  const isSaid = (p: OpenPart): boolean => p.shared && isDrawnOver(p.points, folds);
  const count = [...parts.values()].reduce((n, of) => n + of.length - 1, lines.length);
  if (parts.size === 0 || count > MOST_LINES) return lines;
  return lines.flatMap((l) => {
    const own = parts.get(l.id)?.filter((part) => !isSaid(part));
    return own?.map(({ id, points }): L => ({ ...l, id, points, closed: false })) ?? [l];
  });
}

const FEW_CORNERS = 64;
/**
 * A closed cut inside another, with no crease in it, is a window.
 * @param placeIn a place of it that is looked for in the others; null where it is not asked about
 */
function insideOthers<L extends { readonly points: readonly Vec2[] }>(
  cuts: readonly L[],
  placeIn: (line: L) => Vec2 | null = ({ points }) => points[0],
): ReadonlySet<L> {
  if (cuts.length < 2) return new Set();
  const index = new Flatbush(cuts.length);
  for (const { points } of cuts) {
    const { min, max } = boxOf(points);
    index.add(min[0], min[1], max[0], max[1]);
  }
  index.finish();
  const areas = cuts.map(({ points }): Pick<PreparedPolygon, 'contains'> => {
    const area = { outer: points, holes: [] };
    // Of few corners the plain answer is the quicker one.
    return points.length > FEW_CORNERS ? preparePolygon(area) : { contains: (p) => contains(area, p) };
  });
  const isInside = (line: L, k: number): boolean => {
    const at = placeIn(line);
    return at !== null && index.search(...at, ...at).some((o) => o !== k && areas[o].contains(at));
  };
  return new Set(cuts.filter(isInside));
}
