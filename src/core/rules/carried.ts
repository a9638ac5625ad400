/** Two drives of which one carries what the other moves: a grid of both, as fine as what comes near needs. */
import { canBe } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { boxesMeet3, growBox3, uniteBox3, type Box3 } from '../linkage';
import type { HandHit } from './hand-solids';
import { hitsInPose } from './in-pose';
import { wayBetween, type LookPurse, type SolidPair } from './looks';
import { restBut, stateOf, type Meet, type Sweep, type WalkedTogether } from './meet';
import { BOW_PART, looksFor, sightOf, staysBeside, wayOf, type Sight } from './seen-from';
import { placeSolid, type PlacedSolid, type Solid } from './solids';

/** A pose that is solved takes as long as so many places that are compared. */
export const PLACES_PER_POSE = 100;

/** A place of both drives: what is where there. */
interface Corner {
  readonly x: number;
  readonly y: number;
  readonly pose: Pose;
  readonly placed: ReadonlyMap<number, PlacedSolid>;
}
/** Four places round a part of the grid, low and high values of the first drive and of the second. */
type Cell = readonly [lowLow: Corner, highLow: Corner, lowHigh: Corner, highHigh: Corner];

/**
 * One drive carries what the other moves: a grid of both, whose cells are halved, the longer way first, as long as
 * something near something else goes further in them, as that sees it, than a look may miss.
 */
export function oneCarriesTheOther(
  assembly: Assembly,
  solids: readonly Solid[],
  meet: Meet,
  looks: number,
): WalkedTogether {
  const { a, b, pairs } = meet;
  const still = poseAt(assembly, restBut(assembly, a.path));
  const asked = [...new Set(pairs.flat())];
  const goes = new Set([...a.moved, ...b.moved]);
  const stays = new Map(asked.filter((k) => !goes.has(solids[k].facet)).map((k) => [k, placeSolid(solids[k], still)]));
  const placedIn = (pose: Pose): Map<number, PlacedSolid> =>
    new Map(asked.map((k) => [k, stays.get(k) ?? placeSolid(solids[k], pose)]));
  const purse: LookPurse = { left: looks };
  const watched = pairs.map((pair): Watched => ({ pair, sight: sightOf(solids[pair[0]], solids[pair[1]]) }));
  const hits: HandHit[] = [];
  const hitsAt = ({ pose, placed }: Corner, near: readonly Watched[]): Iterable<HandHit> =>
    hitsInPose(
      assembly,
      solids,
      pose,
      still,
      near.map((w) => w.pair),
      placed,
    );
  const corners = new Map<string, Corner | null>();
  // A pair that stays beside each other in one cell meets nowhere on its edges, which the next cell shares.
  const cornerAt = (x: number, y: number, near: readonly Watched[]): Corner | null => {
    const key = `${x} ${y}`;
    const known = corners.get(key);
    if (known !== undefined) return known;
    const state = stateOf(assembly, meet, x, y);
    const pose = canBe(assembly.drives, state) ? poseAt(assembly, state) : null;
    const found = pose && !pose.stop ? { x, y, pose, placed: placedIn(pose) } : null;
    purse.left--;
    if (found) hits.push(...hitsAt(found, near));
    corners.set(key, found);
    return found;
  };
  const cellAt = ([x0, x1]: readonly number[], [y0, y1]: readonly number[], near: readonly Watched[]): Cell | null => {
    const four = [cornerAt(x0, y0, near), cornerAt(x1, y0, near), cornerAt(x0, y1, near), cornerAt(x1, y1, near)];
    return four.every((c) => c !== null) ? (four as unknown as Cell) : null;
  };
  /** The parts of a cell that have to be looked at more closely, with what comes near in them. */
  const halve = ({ cell, near, halvings }: Halved): Halved[] => {
    const left = nearIn(cell, near);
    if (!left.far || halvings === 0) return [];
    if (purse.left <= 0) {
      purse.missed = true;
      return [];
    }
    const [{ x: x0, y: y0 }, , , { x: x1, y: y1 }] = cell;
    const [xm, ym] = [(x0 + x1) / 2, (y0 + y1) / 2];
    const parts = left.acrossX
      ? [cellAt([x0, xm], [y0, y1], left.near), cellAt([xm, x1], [y0, y1], left.near)]
      : [cellAt([x0, x1], [y0, ym], left.near), cellAt([x0, x1], [ym, y1], left.near)];
    return parts.flatMap((part) => (part ? [{ cell: part, near: left.near, halvings: halvings - 1 }] : []));
  };
  const valuesOf = ({ path }: Sweep): number[] => path.poses.map((p) => p.state[path.drive.id]);
  const [xs, ys] = [valuesOf(a), valuesOf(b)];
  let cells = xs.slice(1).flatMap((x, i) =>
    ys.slice(1).flatMap((y, j): Halved[] => {
      const cell = cellAt([xs[i], x], [ys[j], y], watched);
      return cell ? [{ cell, near: watched, halvings: MOST_HALVINGS }] : [];
    }),
  );
  // All of one size before those of half of it: what is not looked at closely enough is so everywhere alike.
  while (cells.length > 0) cells = cells.flatMap(halve);
  return {
    hits,
    states: corners.size,
    missed: purse.missed === true,
    work: corners.size * (PLACES_PER_POSE + pairs.length),
  };
}
const MOST_HALVINGS = 16;
interface Halved {
  readonly cell: Cell;
  readonly near: readonly Watched[];
  readonly halvings: number;
}

/** Two solids that may meet, and how one sees the other. */
interface Watched {
  readonly pair: SolidPair;
  readonly sight: Sight;
}

/** Pairs that come near each other in a cell, whether they go too far for a look, and along which drive further. */
function nearIn(cell: Cell, watched: readonly Watched[]): { near: Watched[]; far: boolean; acrossX: boolean } {
  const boxes = new Map<number, Box3>();
  const sweptOf = (k: number): Box3 => {
    const box = boxes.get(k) ?? sweptIn(cell, k);
    boxes.set(k, box);
    return box;
  };
  const near: Watched[] = [];
  let [x, y] = [0, 0];
  for (const one of watched) {
    const [p, q] = one.pair;
    if (!boxesMeet3(sweptOf(p), sweptOf(q))) continue;
    const seen = seenIn(cell, one.sight);
    if (!seen) continue;
    near.push(one);
    [x, y] = [Math.max(x, seen.x), Math.max(y, seen.y)];
  }
  return { near, far: Math.max(x, y) > 1, acrossX: x >= y };
}

/** The box that a solid passes through in a cell. */
function sweptIn(cell: Cell, k: number): Box3 {
  const [lowLow, highLow, lowHigh, highHigh] = cell.map((c) => c.placed.get(k)!);
  const across = Math.max(wayBetween(lowLow, highLow), wayBetween(lowHigh, highHigh));
  const up = Math.max(wayBetween(lowLow, lowHigh), wayBetween(highLow, highHigh));
  const box = uniteBox3(uniteBox3(lowLow, highLow), uniteBox3(lowHigh, highHigh));
  return growBox3(box, BOW_PART * (across + up));
}

/** Looks that it takes along each drive, as one solid sees the other; null where they stay beside each other. */
function seenIn(cell: Cell, sight: Sight): { x: number; y: number } | null {
  const four = cell.map((c) => sight.at(c.pose));
  const [lowLow, highLow, lowHigh, highHigh] = four;
  const [x, y] = [
    [wayOf(lowLow, highLow), wayOf(lowHigh, highHigh)],
    [wayOf(lowLow, lowHigh), wayOf(highLow, highHigh)],
  ];
  if (staysBeside(sight, four, BOW_PART * (Math.max(...x) + Math.max(...y)))) return null;
  return {
    x: Math.max(looksFor(lowLow, highLow, x[0]), looksFor(lowHigh, highHigh, x[1])),
    y: Math.max(looksFor(lowLow, lowHigh, y[0]), looksFor(highLow, highHigh, y[1])),
  };
}
