/** A mechanism turned into plain lines: what its kind makes of its numbers now, as lines that can be edited. */
import { partId, partOfId } from '../ids';
import {
  changeText,
  freeName,
  movedParts,
  OWN_LINES,
  OWN_STOCK,
  PART_LISTS,
  unnamed,
  type Contribution,
  type CreaseLine,
  type OwnLine,
  type Parts,
  type PatternLine,
  type Piece,
  type Places,
  type PlainParts,
} from '../kinds';
import { applyRigid, invert, type Rigid } from '../linkage';
import type { Interruption } from '../pattern/facets';
import { chainEdges, type Chain } from '../plane/chain';
import { dist2, lerp2, type Vec2 } from '../plane/vec2';
import { radToDeg } from '../units/angle';
import type { Design, Mechanism } from '../document/design';
import { broughtBy, DesignError, type Brought } from './build';

/** The design with a mechanism as plain lines under its old id. Throws DesignError for one that is not there. */
export function turnedPlain(design: Design, id: string): Design {
  const m = design.mechanisms.find((x) => x.id === id);
  const brought = m && broughtBy(design).get(id);
  if (!m || !brought) throw new DesignError(`there is no mechanism "${id}" to turn into plain lines`);
  const plain: Mechanism = { ...m, kind: OWN_LINES, parameters: { numbers: [], ...plainOf(m, brought) } };
  return { ...design, mechanisms: design.mechanisms.map((x) => (x === m ? plain : x)) };
}

type Move = (p: Vec2) => Vec2;

function plainOf(m: Mechanism, { part, piece, placement, ...sides }: Brought) {
  const places: Places = { id: m.id, piece: piece.id, ...sides };
  const toOwn = invert(placement);
  const own: Move = ([x, y]) => {
    const [u, v] = applyRigid(toOwn, [x, y, 0]);
    return [u, v];
  };
  const lines: OwnLine[] = [];
  const add = (line: OwnLine): void => {
    const name = freeName(lines, line.name);
    const isCrease = line.role === 'valley' || line.role === 'mountain';
    lines.push({ ...line, name, ...(isCrease && name !== line.name ? { partOf: line.name } : {}) });
  };
  // Creases first: their names must stay, as others stand on them.
  for (const c of part.hostCreases) add(creaseLine(c, own, places, placement[10] < 0));
  for (const p of part.pieces)
    for (const c of p.creases) add({ ...creaseLine(c, same, places, false), ...on(p, m.id) });
  const creaseHere = (id: string): CreaseLine | undefined => piece.creases.find((c) => c.id === id);
  const here = part.interruptions.filter((i) => creaseHere(i.crease));
  for (const i of here) add(endOfFold(creaseHere(i.crease)!, i, own));
  for (const line of linesFrom(part.lines, own)) add(line);
  for (const p of part.pieces) for (const line of linesFrom(cutsOf(p), same)) add({ ...line, ...on(p, m.id) });
  return { lines, parts: partsOf(part, m, places, toOwn, here) };
}

const same: Move = (p) => p;
const cutsOf = (p: Piece): PatternLine[] => p.lines.filter((l) => l.role === 'cut');
function on(piece: Piece, id: string): { readonly piece: string } {
  const name = partOfId(piece.id);
  if (piece.id !== partId(id, name)) throw new DesignError(`${id}: ${piece.title} is no piece of its own`);
  return { piece: name };
}

function creaseLine(c: CreaseLine, own: Move, places: Places, turned: boolean): OwnLine {
  const valley = (c.role === 'valley') !== turned;
  const sign = c.role === 'valley' ? 1 : -1;
  const lies = (fold: number | undefined): number | null => (fold === undefined ? null : sign * radToDeg(fold) + 0);
  const standsOn = c.standsOn === undefined ? null : unnamed(c.standsOn, places);
  return {
    name: partOfId(c.id),
    role: valley ? 'valley' : 'mountain',
    ...between(own(c.a), own(c.b)),
    lies: [lies(c.ends[0]), lies(c.ends[1])],
    ...(c.standsOn !== undefined && c.standsOn === places.crease ? {} : { standsOn }),
    ...(c.drive ? { drive: { ...c.drive, id: unnamed(c.drive.id, places) } } : {}),
  };
}
const spot = ([x, y]: Vec2): { readonly x: number; readonly y: number } => ({ x: x + 0, y: y + 0 });
const between = (a: Vec2, b: Vec2) => ({ from: spot(a), to: spot(b) });

function endOfFold(crease: CreaseLine, { from, to }: Interruption, own: Move): OwnLine {
  const long = dist2(crease.a, crease.b);
  const at = (way: number): Vec2 => own(lerp2(crease.a, crease.b, way / long));
  return { name: 'gap', role: 'open', ...between(at(Math.max(0, from)), at(Math.min(long, to))) };
}

/** Cuts and marks, those that meet end to end as one. */
function linesFrom(lines: readonly PatternLine[], own: Move): OwnLine[] {
  const kinds = new Map<string, PatternLine[]>();
  for (const l of lines) {
    const key = `${l.role} ${l.side ?? ''}`;
    kinds.set(key, [...(kinds.get(key) ?? []), l]);
  }
  return [...kinds.values()].flatMap((alike) => {
    const [{ role, side }] = alike;
    return chained(alike).map(({ points, closed }): OwnLine => ({
      name: role,
      role,
      ...(side ? { side } : {}),
      ...(points.length === 2 && !closed
        ? between(own(points[0]), own(points[1]))
        : { corners: points.map((p) => spot(own(p))), ...(closed ? { closed } : {}) }),
    }));
  });
}

function chained(lines: readonly PatternLine[]): readonly Chain[] {
  const index = new Map<string, number>();
  const points: Vec2[] = [];
  const numberOf = (p: Vec2): number => {
    const key = p.join(' ');
    const known = index.get(key);
    if (known !== undefined) return known;
    index.set(key, points.length);
    return points.push(p) - 1;
  };
  const edges = lines.map(({ a, b }) => [numberOf(a), numberOf(b)] as const).filter(([a, b]) => a !== b);
  return chainEdges(points, edges);
}

/** Least number of a file's demands. */
const LEAST_NUMBER = -1e6;

/** All but lines, in its own axes and without its names; null where there is nothing else. */
function partsOf(
  part: Contribution,
  { stock }: Mechanism,
  places: Places,
  toOwn: Rigid,
  asLines: readonly Interruption[],
): PlainParts | null {
  const kept = Object.fromEntries(PART_LISTS.map((key) => [key, part[key]])) as unknown as Parts;
  const bare: Parts = {
    ...kept,
    interruptions: part.interruptions.filter((i) => !asLines.includes(i)),
    // What never blocks does so under minus infinity, which a file cannot hold.
    demands: part.demands.map((d) => ({ ...d, blocksUnder: Math.max(d.blocksUnder, LEAST_NUMBER) })),
    hardware: part.hardware.map(({ what, sizesMm, count }) => ({ what, ...(sizesMm ? { sizesMm } : {}), count })),
    pieces: part.pieces.map((p) => ({
      ...p,
      stock: p.stock === stock ? OWN_STOCK : p.stock,
      creases: [],
      lines: p.lines.filter((l) => l.role === 'mark'),
    })),
  };
  const moved = movedParts(bare, places.piece, toOwn);
  if (PART_LISTS.every((key) => moved[key].length === 0)) return null;
  return changeText(moved, (text) => unnamed(text, places)) as PlainParts;
}
