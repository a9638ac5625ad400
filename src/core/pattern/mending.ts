/**
 * Faults of lines that were drawn elsewhere, and their mending: gaps in outlines, doubled lines, creases that end in
 * air. mm.
 */
import { dist2, distToSegment, dot2, sub2, cross2, lerp2, norm2, type Vec2 } from '../plane/vec2';
import { ChangingLines, LineIndex } from './line-index';
import { segmentsOf, type PlainLine } from './plain-line';
import type { Making } from './making';
import type { TemplateRole } from './pattern';
import { ROUNDING_MM, SAME_LEVEL_MM } from '../tolerance';

export { segmentsOf } from './plain-line';
export const lengthOf = (l: PlainLine): number => segmentsOf(l).reduce((sum, [a, b]) => sum + dist2(a, b), 0);
export interface TemplateLine extends PlainLine {
  readonly role: TemplateRole;
  /** Dashes that were joined into this crease, by id, and how they were cut. */
  readonly joined?: readonly string[];
  readonly making?: Making;
  /** Its maker said of this very line that it is a cut: it may part a piece. */
  readonly meant?: boolean;
}
export interface Fault {
  readonly kind: 'gap' | 'doubled' | 'air';
  /** Lines it is about, by id. */
  readonly lines: readonly string[];
  readonly at: Vec2;
  readonly mm: number;
  readonly message: string;
}

/** Ends that meet within this are one point: what a drawing program rounds to. */
const MEETS_MM = 0.01;
/** Gaps up to this are taken for slips of the hand; wider ones may be meant. */
export const WIDEST_GAP_MM = 2;
/** A crease this short of a line is taken to be meant to reach it. */
export const WIDEST_AIR_MM = 4;
/** More lines are not a card. */
export const MOST_LINES = 4000;
/** Points of all lines of a template together. */
export const MOST_TEMPLATE_POINTS = 200_000;
/** How far from the origin points of a template may lie, mm. */
export const FARTHEST_MM = 1e5;
/** Kinds of lines that are told apart; each may have its windows as another. */
export const MOST_GROUPS = 250;

export const isCrease = (l: Pick<TemplateLine, 'role'>): boolean =>
  l.role === 'valley' || l.role === 'mountain' || isPerforated(l);
export const isPerforated = (l: Pick<TemplateLine, 'role'>): boolean =>
  l.role === 'perforation' || l.role === 'perforation-mountain';
const isCut = (l: TemplateLine): boolean => l.role === 'cut' || l.role === 'window';
const ends = (l: TemplateLine): Vec2[] => (l.closed ? [] : [l.points[0], l.points[l.points.length - 1]]);
/** What has stretches near a place: lines by place, or such that change. */
type Near = Pick<LineIndex<TemplateLine>, 'near'>;
/** What a crease may end on, and an outline go on with. */
const counts = (l: TemplateLine): boolean => isCut(l) || isCrease(l);

/** Distance from a point to the nearest of other lines, and which; none where that is further than a slip may be. */
function nearest(p: Vec2, lines: Near, except: TemplateLine): { line: TemplateLine | null; mm: number } {
  let best: { line: TemplateLine | null; mm: number } = { line: null, mm: Infinity };
  for (const { line, a, b } of lines.near([p], WIDEST_AIR_MM)) {
    if (line === except) continue;
    const d = distToSegment(p, a, b);
    if (d < best.mm) best = { line, mm: d };
  }
  return best;
}

export function findFaults(lines: readonly TemplateLine[]): Fault[] {
  const out: Fault[] = [];
  for (const { dropped, kept } of doubled(lines))
    out.push({
      kind: 'doubled',
      lines: [dropped.id, kept.id],
      at: dropped.points[0],
      mm: 0,
      message: `${dropped.id} lies on ${kept.id}: it would be cut or folded twice`,
    });
  const gone = new Set(out.map((f) => f.lines[0]));
  const live = lines.filter((l) => !gone.has(l.id));
  const others = new LineIndex(live.filter(counts));
  live.forEach((line) =>
    ends(line).forEach((at) => {
      const near = nearest(at, others, line);
      const own =
        ends(line)
          .filter((e) => e !== at)
          .map((e) => dist2(e, at))[0] ?? Infinity;
      if (near.mm <= MEETS_MM) return;
      if (isCrease(line)) {
        // Creases may end on the far side of another crease's end, but never in the middle of paper.
        const ahead = reach(line, at, others, line);
        out.push({
          kind: 'air',
          lines: [line.id],
          at,
          mm: ahead ? dist2(at, ahead) : near.mm,
          message: `${line.id} ends in air${ahead ? `, ${dist2(at, ahead).toFixed(2)} mm short of the next line` : ''}`,
        });
      } else if (isCut(line)) {
        // A slit may end in paper; an outline that nearly closes is meant to.
        const gap = Math.min(near.mm, line.points.length > 2 ? own : Infinity);
        if (gap <= WIDEST_GAP_MM)
          out.push({
            kind: 'gap',
            lines: [line.id, ...(near.line && near.mm <= gap ? [near.line.id] : [])],
            at,
            mm: gap,
            message: `${line.id} stops ${gap.toFixed(2)} mm short: the outline is open`,
          });
      }
    }),
  );
  return out;
}

/** A stretch that is met just past its own end lies no further beside the way than this, mm. */
const REACH_ROOM_MM = 0.1;
/**
 * Where a crease, run on from one of its ends, meets the next line; null where that is too far. Backwards too: it may
 * overshoot.
 */
export function reach<L extends PlainLine>(
  line: Pick<TemplateLine, 'points'>,
  at: Vec2,
  others: Pick<LineIndex<L>, 'near'>,
  except: L | null,
): Vec2 | null {
  const inner = dist2(at, line.points[0]) === 0 ? line.points[1] : line.points[line.points.length - 2];
  const length = dist2(at, inner);
  if (length === 0) return null;
  const u: Vec2 = [(at[0] - inner[0]) / length, (at[1] - inner[1]) / length];
  let best: { p: Vec2; mm: number } | null = null;
  const ahead: Vec2 = [at[0] + u[0] * WIDEST_AIR_MM, at[1] + u[1] * WIDEST_AIR_MM];
  for (const { line: other, a, b } of others.near([inner, ahead], REACH_ROOM_MM)) {
    if (other === except) continue;
    const d = sub2(b, a);
    const turn = cross2(u, d);
    if (Math.abs(turn) < ROUNDING_MM * norm2(d)) continue;
    const t = cross2(sub2(a, at), d) / turn;
    const s = cross2(sub2(a, at), u) / turn;
    if (s < -SAME_LEVEL_MM || s > 1 + SAME_LEVEL_MM || Math.abs(t) > WIDEST_AIR_MM || t < -length) continue;
    if (!best || Math.abs(t) < best.mm) best = { p: [at[0] + u[0] * t, at[1] + u[1] * t], mm: Math.abs(t) };
  }
  return best?.p ?? null;
}

/**
 * Straight lines that lie wholly on another; a crease is kept rather than a cut, the longer rather than the shorter.
 */
function doubled(lines: readonly TemplateLine[]): { dropped: TemplateLine; kept: TemplateLine }[] {
  const straight = lines.filter((l) => !l.closed && l.points.length === 2 && (isCut(l) || isCrease(l)));
  const out: { dropped: TemplateLine; kept: TemplateLine }[] = [];
  const gone = new Set<string>();
  const rank = (l: TemplateLine): number => (isCrease(l) ? 1e6 : 0) + dist2(l.points[0], l.points[1]);
  const order = [...straight].sort((a, b) => rank(b) - rank(a));
  // What lies on a line begins in its box; what only crosses it mostly does not.
  const starts = new LineIndex(order.map((line) => ({ id: line.id, closed: false, points: atStart(line), line })));
  order.forEach((kept) => {
    if (gone.has(kept.id)) return;
    gone.add(kept.id);
    for (const { line: start } of starts.near(kept.points, MEETS_MM)) {
      const other = start.line;
      if (gone.has(other.id)) continue;
      if (other.points.every((p) => distToSegment(p, kept.points[0], kept.points[1]) <= MEETS_MM)) {
        gone.add(other.id);
        out.push({ dropped: other, kept });
      }
    }
  });
  return out;
}

const atStart = ({ points: [p] }: TemplateLine): Vec2[] => [p, p];

/**
 * The lines with every fault mended that can be: doubled ones dropped, gaps closed, creases run on to the next line.
 */
export function mend(lines: readonly TemplateLine[]): readonly TemplateLine[] {
  const dropped = new Set(doubled(lines).map((d) => d.dropped.id));
  const out = new ChangingLines(lines.filter((l) => !dropped.has(l.id)));
  for (const fault of findFaults(out.lines)) {
    const [id, other] = fault.lines;
    const line = out.byId(id)!;
    if (fault.kind === 'air') {
      const to = reach(line, fault.at, { near: (p, by) => out.near(p, by).filter((s) => counts(s.line)) }, line);
      if (to) out.put(moved(line, fault.at, to));
    } else if (fault.kind === 'gap') {
      const target = other ? out.byId(other) : line;
      const to = target && closestEnd(target, line, fault.at);
      if (to) out.put(target === line ? joinedUp(line) : moved(line, fault.at, to));
    }
  }
  return out.lines;
}

/** A line that nearly comes back to its start, closed; an end that lies on the start goes. */
const joinedUp = (l: TemplateLine): TemplateLine => ({
  ...l,
  closed: true,
  points: l.points.slice(0, dist2(l.points[0], l.points[l.points.length - 1]) < MEETS_MM ? -1 : undefined),
});

const moved = (l: TemplateLine, from: Vec2, to: Vec2): TemplateLine => ({
  ...l,
  points: l.points.map((p, i) => ((i === 0 || i === l.points.length - 1) && dist2(p, from) === 0 ? to : p)),
});

/** Where an open end should go on another line: to its end where that is near, else to the nearest place on it. */
function closestEnd(target: TemplateLine, line: TemplateLine, at: Vec2): Vec2 | null {
  const end = ends(target)
    .filter((e) => !(target === line && e === at))
    .sort((a, b) => dist2(a, at) - dist2(b, at))[0];
  if (end && dist2(end, at) <= WIDEST_GAP_MM) return end;
  let best: { p: Vec2; mm: number } | null = null;
  for (const [a, b] of segmentsOf(target)) {
    const d = sub2(b, a);
    const t = Math.min(1, Math.max(0, dot2(sub2(at, a), d) / dot2(d, d)));
    const p = lerp2(a, b, t);
    if (!best || dist2(p, at) < best.mm) best = { p, mm: dist2(p, at) };
  }
  return best?.p ?? null;
}
