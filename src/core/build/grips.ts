/**
 * What of a flat piece follows which number: lines and corners that can be taken hold of. How a line goes with a number
 * is not written down but found, by putting the design together with that number a little greater; a kind says only
 * which number a line stands for where several move it (`Kind.holds`).
 */
import type { Assembly } from '../assembly/assembly';
import { baseKindOf, fieldOf, isBase, kindIn, parameterOf, setParameter, valuesIn } from '../document/fields';
import type { Design } from '../document/design';
import { partOfId } from '../ids';
import { kindById, type ParameterValue } from '../kinds';
import { ringsOf } from '../plane/polygon';
import { dist2, dot2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { tryBuild } from './build';

/** A line of a piece, its axes, mm; a corner where both ends are one. */
export interface GripLine {
  /** Names the line, in this design as in one of other numbers; for a corner the line it ends. */
  readonly of: string;
  readonly end?: 0 | 1;
  readonly a: Vec2;
  readonly b: Vec2;
  /** How far its middle goes for each mm, or degree, of the number. */
  readonly way: Vec2;
}
/** What follows a number: a crease, or lines that meet end to end. */
export interface Grip {
  readonly mechanism: string;
  /** Key of the number, as `depth` or `planes[1].height`. */
  readonly parameter: string;
  /** Crease by id; absent for cuts, edges and corners. */
  readonly crease?: string;
  readonly piece: string;
  readonly lines: readonly GripLine[];
}

/** A number is moved by this much to see what follows, mm or degrees. */
const NUDGE = 0.01;
/** What moves less than this part of a number does not stand for it. */
const FOLLOWS_FROM = 0.15;
/** What goes further than this is not moved but made anew. */
const JUMPS_FROM = 50;
/** A corner is no line, mm. */
const SHORTEST_MM = 0.5;

/** Everything of a mechanism, or of the base, that can be taken hold of. None where it cannot be put together. */
export function gripsOf(design: Design, mechanism: string, before = tryBuild(design)): Grip[] {
  if (!before) return [];
  const lines = linesOf(before, mechanism);
  const moves = numbersOf(design, mechanism).flatMap((key): Moved[] => {
    const now = parameterOf(design, mechanism, key) as number;
    const after = nudged(design, mechanism, key, now);
    if (!after) return [];
    return movedLines(lines, linesOf(after.assembly, mechanism), after.by).map((m) => ({ ...m, key }));
  });
  return [...joined(lineGrips(design, mechanism, moves)), ...cornerGrips(mechanism, moves)];
}

/** Keys of all numbers of a mechanism that are lengths or angles and have a value of their own. */
export function numbersOf(design: Design, mechanism: string): string[] {
  const values = valuesIn(design, mechanism) ?? {};
  const kind = kindIn(design, mechanism) ?? '';
  const sized = (key: string): boolean => {
    const unit = fieldOf(kind, key)?.unit;
    return (unit === 'mm' || unit === 'deg') && typeof parameterOf(design, mechanism, key) === 'number';
  };
  const keys = Object.entries(values).flatMap(([key, value]) => [key, ...within(key, value)]);
  return keys.filter(sized);
}
function within(key: string, value: ParameterValue): string[] {
  if (Array.isArray(value))
    return value.flatMap((item, k) => Object.keys(item as object).map((f) => `${key}[${k}].${f}`));
  return typeof value === 'object' && value !== null ? Object.keys(value).map((f) => `${key}.${f}`) : [];
}

/** The design with a number a little greater, or less where it cannot be greater. */
function nudged(
  design: Design,
  mechanism: string,
  key: string,
  now: number,
): { readonly assembly: Assembly; readonly by: number } | null {
  const { max } = fieldOf(kindIn(design, mechanism)!, key) ?? {};
  const by = max !== undefined && now + NUDGE > max ? -NUDGE : NUDGE;
  const assembly = tryBuild(setParameter(design, mechanism, key, now + by));
  return assembly && { assembly, by };
}

/** Where the lines of a grip are when its number has another value; none where the design cannot be put together. */
export function gripAt(design: Design, { mechanism, parameter, lines }: Grip, value: number): [Vec2, Vec2][] {
  const assembly = tryBuild(setParameter(design, mechanism, parameter, value));
  const there = new Map((assembly ? linesOf(assembly, mechanism) : []).map((l) => [l.key, l]));
  return lines.flatMap(({ of, end }): [Vec2, Vec2][] => {
    const line = there.get(of);
    if (!line) return [];
    const corner = end === 1 ? line.b : line.a;
    return [end === undefined ? [line.a, line.b] : [corner, corner]];
  });
}

interface Line {
  /** The same of the same line in another assembly of the design. */
  readonly key: string;
  readonly crease?: string;
  readonly piece: string;
  readonly a: Vec2;
  readonly b: Vec2;
}

/** Creases, cuts, and edges of own pieces. */
function linesOf(assembly: Assembly, mechanism: string): Line[] {
  const out: Line[] = [];
  for (const piece of assembly.pieces) {
    const add = (kind: string, k: number, a: Vec2, b: Vec2, crease?: string): void =>
      void out.push({ key: `${piece.id} ${kind} ${k}`, piece: piece.id, a, b, ...(crease ? { crease } : {}) });
    piece.creases.forEach((c) => c.mechanism === mechanism && add(`crease ${c.id}`, 0, c.a, c.b, c.id));
    piece.lines.filter((l) => l.mechanism === mechanism && l.role === 'cut').forEach((l, k) => add('cut', k, l.a, l.b));
    if (piece.mechanism !== mechanism) continue;
    ringsOf(piece.outline).forEach((ring, r) =>
      ring.forEach((a, k) => add(`edge ${r} of ${ring.length}`, k, a, ring[(k + 1) % ring.length])),
    );
  }
  return out;
}

interface Moved {
  readonly line: Line;
  /** How far its ends go for each unit of the number. */
  readonly ends: readonly [Vec2, Vec2];
  readonly key: string;
}
function movedLines(before: readonly Line[], after: readonly Line[], by: number): Omit<Moved, 'key'>[] {
  const later = new Map(after.map((l) => [l.key, l]));
  return before.flatMap((line) => {
    const now = later.get(line.key);
    if (!now) return [];
    const ends = [scale2(sub2(now.a, line.a), 1 / by), scale2(sub2(now.b, line.b), 1 / by)] as const;
    const far = Math.max(...ends.map((v) => Math.hypot(...v)));
    return far > FOLLOWS_FROM && far < JUMPS_FROM ? [{ line, ends }] : [];
  });
}

/** Of a line that moves across itself: how far its middle goes that way. */
function across({ line: { a, b }, ends }: Moved): Vec2 {
  const long = dist2(a, b);
  if (long < SHORTEST_MM) return [0, 0];
  const normal: Vec2 = [-(b[1] - a[1]) / long, (b[0] - a[0]) / long];
  return scale2(normal, dot2(lerp2(ends[0], ends[1], 0.5), normal));
}
const follows = (way: Vec2): boolean => Math.hypot(...way) > FOLLOWS_FROM;

/** One grip for each line that a number moves across itself: of several numbers that which the line stands for. */
function lineGrips(design: Design, mechanism: string, moves: readonly Moved[]): Grip[] {
  const byLine = new Map<string, Moved[]>();
  for (const m of moves) if (follows(across(m))) byLine.set(m.line.key, [...(byLine.get(m.line.key) ?? []), m]);
  const spread = new Map<string, number>();
  for (const list of byLine.values()) for (const { key } of list) spread.set(key, (spread.get(key) ?? 0) + 1);
  return [...byLine.values()].map((list) => {
    // Where nothing is said, that which moves the fewest others.
    const best =
      heldAs(design, mechanism, list) ?? list.reduce((p, q) => (spread.get(q.key)! < spread.get(p.key)! ? q : p));
    return gripOf(mechanism, best.key, best.line, across(best));
  });
}

/** The first of the numbers that a kind says a line of it stands for, and that move it. */
function heldAs(design: Design, mechanism: string, moves: readonly Moved[]): Moved | undefined {
  const { crease } = moves[0].line;
  const kind = isBase(mechanism) ? baseKindOf(design) : kindById(kindIn(design, mechanism)!);
  const said = (crease && kind?.holds?.(partOfId(crease))) || [];
  return said.map((key) => moves.find((m) => m.key === key)).find((m) => m !== undefined);
}

const gripOf = (mechanism: string, parameter: string, { key, crease, piece, a, b }: Line, way: Vec2): Grip => ({
  mechanism,
  parameter,
  ...(crease ? { crease } : {}),
  piece,
  lines: [{ of: key, a, b, way }],
});

/** Cuts and edges of one number that meet end to end are taken hold of as one. */
function joined(grips: readonly Grip[]): Grip[] {
  const out: Grip[] = [];
  const open = new Map<string, number>();
  const placeOf = ({ piece, parameter }: Grip, [x, y]: Vec2): string => `${piece} ${parameter} ${x} ${y}`;
  for (const grip of grips) {
    const [line] = grip.lines;
    const at = grip.crease ? undefined : (open.get(placeOf(grip, line.a)) ?? open.get(placeOf(grip, line.b)));
    const k = at ?? out.push({ ...grip, lines: [] }) - 1;
    out[k] = { ...out[k], lines: [...out[k].lines, line] };
    if (!grip.crease) for (const end of [line.a, line.b]) open.set(placeOf(grip, end), k);
  }
  return out;
}

/** A corner for each number that moves no line across itself: that end which goes furthest with it. */
function cornerGrips(mechanism: string, moves: readonly Moved[]): Grip[] {
  const lines = new Set(moves.filter((m) => follows(across(m))).map((m) => m.key));
  const best = new Map<string, { readonly at: Vec2; readonly way: Vec2; readonly line: Line; readonly end: 0 | 1 }>();
  for (const { line, ends, key } of moves) {
    if (lines.has(key)) continue;
    [line.a, line.b].forEach((at, k) => {
      if (follows(ends[k]) && Math.hypot(...ends[k]) > Math.hypot(...(best.get(key)?.way ?? [0, 0])))
        best.set(key, { at, way: ends[k], line, end: k as 0 | 1 });
    });
  }
  return [...best].map(([key, { at, way, line, end }]) => ({
    mechanism,
    parameter: key,
    piece: line.piece,
    lines: [{ of: line.key, end, a: at, b: at, way }],
  }));
}
