/**
 * What the pieces of a template offer to be joined by, from their shapes: glue areas that are alike, holes of one size,
 * a hole that fits a slot; and folds that are consistent. A person takes what is meant.
 */
import { freeJoinId, type JoinEnd, type Template, type TemplateJoin } from '../document/template';
import type { TemplateRole } from '../pattern/pattern';
import { foldChoices, foldVertices, type Fold } from '../pattern/fold-roles';
import { isCrease, isPerforated, type TemplateLine } from '../pattern/mending';
import { alike, middleOf, roundHole, slotOf, type RoundHole, type Slot } from '../pattern/recognise';
import { contains } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { ShapeError } from '../shapes/shape';
import { buildTemplate, opensTo, templateLines } from './template';
import { creasesOf, leadOf, sheetsOf, type Sheet } from './template-sheets';

/** A join that is offered: the lines it comes from, and the ways it can be, the first unless another is taken. */
export interface Proposal {
  /** What it is seen by: areas of glue, marks that are alike, holes. */
  readonly by: 'glue' | 'mark' | 'hole';
  readonly lines: readonly [string, string];
  readonly ways: readonly TemplateJoin[];
}

/** Holes of one size differ by less than this, mm. */
const SAME_SIZE_MM = 0.1;
/** More are not offered: a sheet of holes is a pattern, not rivets. */
export const MOST_PROPOSALS = 60;

export function proposeJoins(t: Template): Proposal[] {
  const lines = templateLines({ ...t, scale: 1 });
  const sheets = sheetsOf(lines);
  const sheetOf = (p: Vec2): number => sheets.findIndex((s) => contains({ outer: s.outer, holes: [] }, p));
  const apart = (p: Vec2, q: Vec2): boolean => {
    const [a, b] = [sheetOf(p), sheetOf(q)];
    return a >= 0 && b >= 0 && a !== b;
  };
  return [...glued(lines, 'glue', apart), ...riveted(lines, sheets, apart), ...glued(lines, 'mark', apart)].slice(
    0,
    MOST_PROPOSALS,
  );
}

type Apart = (p: Vec2, q: Vec2) => boolean;
const pairsOf = <T>(list: readonly T[]): [T, T][] =>
  list.flatMap((a, i) => list.slice(i + 1).map((b): [T, T] => [a, b]));

/** Areas of glue that are alike; or marks, which say where something lies. */
function glued(lines: readonly TemplateLine[], by: 'glue' | 'mark', apart: Apart): Proposal[] {
  const areas = lines.filter((l) => l.role === by).slice(0, MOST_AREAS);
  return pairsOf(areas).flatMap(([p, q]): Proposal[] => {
    const [a, b] = [middleOf(p.points), middleOf(q.points)];
    const found = apart(a, b) ? alike(p, q) : null;
    if (!found) return [];
    return [
      {
        by,
        lines: [p.id, q.id],
        // Glue that is drawn on both comes face to face more often than not.
        ways: [...found.ways]
          .sort((u, v) => Number(v.turned) - Number(u.turned))
          .map(({ from, to, turned }) => ({
            id: joinId(p.id, q.id),
            kind: 'bond' as const,
            a: { inside: a, ...found.on },
            b: { inside: b, from, to },
            turned,
          })),
      },
    ];
  });
}

/** More areas are not compared: a pattern of marks says nothing. */
const MOST_AREAS = 80;

/** Holes that go on one rivet, and holes whose pin goes in a slot. */
function riveted(lines: readonly TemplateLine[], sheets: readonly Sheet[], apart: Apart): Proposal[] {
  const cut = lines.filter((l) => l.role === 'window' || l.role === 'cut');
  const holes = cut.flatMap((l) => roundHole(l) ?? []);
  const slots = cut.filter((l) => !roundHole(l)).flatMap((l) => slotOf(l) ?? []);
  const beside = (at: Vec2, by: number): Vec2 => paperNear(sheets, at, by);
  const onHole = ({ centre, diameterMm }: RoundHole): JoinEnd => ({
    inside: beside(centre, diameterMm / 2 + BESIDE_MM),
    from: centre,
    to: [centre[0] + 1, centre[1]],
  });
  const onSlot = ({ from, to, widthMm }: Slot): JoinEnd => ({
    inside: beside(from, widthMm / 2 + BESIDE_MM),
    from,
    to,
  });
  const one = (kind: 'pivot' | 'slide', p: string, q: string, a: JoinEnd, b: JoinEnd): Proposal => ({
    by: 'hole',
    lines: [p, q],
    ways: [{ id: joinId(p, q), kind, a, b, turned: false }],
  });
  return [
    ...pairsOf(holes)
      .filter(([p, q]) => apart(p.centre, q.centre) && Math.abs(p.diameterMm - q.diameterMm) < SAME_SIZE_MM)
      .map(([p, q]) => one('pivot', p.line, q.line, onHole(p), onHole(q))),
    ...slots.flatMap((slot) =>
      holes
        .filter((h) => apart(slot.from, h.centre) && h.diameterMm < slot.widthMm + SAME_SIZE_MM)
        .map((h) => {
          const [dx, dy] = [slot.to[0] - slot.from[0], slot.to[1] - slot.from[1]];
          // As it is drawn, not turned into the slot's direction.
          const pin = { ...onHole(h), to: [h.centre[0] + dx, h.centre[1] + dy] as const };
          return one('slide', slot.line, h.line, onSlot(slot), pin);
        }),
    ),
  ];
}
/** Paper beside a hole is looked for this far from its edge, mm. */
const BESIDE_MM = 0.3;

/** A place on paper so far from another, the first way that there is any. */
function paperNear(sheets: readonly Sheet[], [x, y]: Vec2, by: number): Vec2 {
  const round = Array.from({ length: WAYS_ROUND }, (_, k): Vec2 => {
    const turn = (2 * Math.PI * k) / WAYS_ROUND;
    return [x + by * Math.cos(turn), y + by * Math.sin(turn)];
  });
  return round.find((p) => sheets.some((s) => contains(s.rest, p))) ?? round[0];
}
const WAYS_ROUND = 8;

/** A name that stays the same while the drawing does. */
const joinId = (p: string, q: string): string =>
  `${p}-${q}`
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 30)
    .replace(/-+$/, '') || 'join';

/** Sets of joins that are tried at most. */
const MOST_SETS = 160;

/**
 * Of all that is offered what makes the card that opens furthest: each line in one join, each join in one of its ways.
 * Rivets and pins are taken as they are.
 */
export function settleJoins(t: Template, proposals: readonly Proposal[]): TemplateJoin[] {
  // Marks are for a person to judge.
  const bonds = proposals.filter((p) => p.by === 'glue');
  const moving = firstOfEach(proposals.filter((p) => p.by === 'hole'));
  let best: { joins: TemplateJoin[]; open: number } = { joins: moving, open: bonds.length === 0 ? 0 : -1 };
  let tried = 0;
  const walk = (k: number, used: ReadonlySet<string>, joins: readonly TemplateJoin[]): void => {
    if (best.open >= FLAT_DEG || tried >= MOST_SETS) return;
    if (k === bonds.length) {
      tried++;
      const all = withIds([...joins, ...moving]);
      const open = opensWith(t, all);
      // More joins of what opens as far are better.
      if (open > best.open || (open === best.open && all.length > best.joins.length)) best = { joins: all, open };
      return;
    }
    const { lines, ways } = bonds[k];
    if (!lines.some((l) => used.has(l)))
      for (const way of ways) walk(k + 1, new Set([...used, ...lines]), [...joins, way]);
    else walk(k + 1, used, joins);
  };
  walk(0, new Set(), []);
  return withIds(best.joins);
}
const FLAT_DEG = 180;

/** A hole goes on one rivet, or into one slot. */
function firstOfEach(proposals: readonly Proposal[]): TemplateJoin[] {
  const used = new Set<string>();
  return proposals.flatMap(({ lines, ways: [way] }) => {
    if (lines.some((l) => used.has(l))) return [];
    lines.forEach((l) => used.add(l));
    return [way];
  });
}
/** No two of one name. */
const withIds = (joins: readonly TemplateJoin[]): TemplateJoin[] =>
  joins.reduce<TemplateJoin[]>((named, j) => [...named, { ...j, id: freeJoinId(named, j.id) }], []);

function opensWith(t: Template, joins: readonly TemplateJoin[]): number {
  try {
    return opensTo(buildTemplate({ ...t, joins }, ''));
  } catch (error) {
    if (error instanceof ShapeError) return -1;
    throw error;
  }
}

/** Roles for the creases of a template that fold flat at every vertex, by line; those that were picked stay. */
export function roleChoices(t: Template): Readonly<Record<string, TemplateRole>>[] {
  const lines = templateLines({ ...t, scale: 1 });
  const creases = creasesOf(lines);
  if (creases.length === 0) return [];
  const lead = leadOf(t, creases, sheetsOf(lines));
  const known = new Map<string, Fold>([[lead.id, 'valley']]);
  const down = (role: TemplateRole): Fold =>
    role === 'mountain' || role === 'perforation-mountain' ? 'mountain' : 'valley';
  for (const l of lines) if (isCrease(l) && t.picked[l.id]) known.set(l.id, down(l.role));
  const vertices = foldVertices(lines);
  if (vertices.length === 0) return [];
  const byId = new Map(lines.map((l) => [l.id, l]));
  return foldChoices(vertices, known).map((choice) =>
    Object.fromEntries(
      [...choice].flatMap(([id, fold]) => {
        const line = byId.get(id);
        return line ? [[id, roleOf(line, fold)]] : [];
      }),
    ),
  );
}
const roleOf = (line: TemplateLine, fold: Fold): TemplateRole =>
  isPerforated(line) ? (fold === 'valley' ? 'perforation' : 'perforation-mountain') : fold;
