/** Two drives of which one carries what the other moves: a grid of both, as fine as what comes near needs. */
import { canBe } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { boxesMeet3, growBox3, uniteBox3, type Box3 } from '../linkage';
import type { HandHit } from './hand-solids';
import { hitsInPose } from './in-pose';
import { LOOK_DEG, LOOK_MM, turnBetween, wayBetween, type LookPurse, type SolidPair } from './looks';
import { restBut, stateOf, type Meet, type Sweep, type WalkedTogether } from './meet';
import { BOW_PART } from './plates';
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
 * something near something else goes further in them than a look may miss.
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
  const hits: HandHit[] = [];
  const corners = new Map<string, Corner | null>();
  const cornerAt = (x: number, y: number): Corner | null => {
    const key = `${x} ${y}`;
    const known = corners.get(key);
    if (known !== undefined) return known;
    const state = stateOf(assembly, meet, x, y);
    const pose = canBe(assembly.drives, state) ? poseAt(assembly, state) : null;
    const found = pose && !pose.stop ? { x, y, pose, placed: placedIn(pose) } : null;
    purse.left--;
    if (found) hits.push(...hitsInPose(assembly, solids, found.pose, still, pairs, found.placed));
    corners.set(key, found);
    return found;
  };
  const cellAt = ([x0, x1]: readonly number[], [y0, y1]: readonly number[]): Cell | null => {
    const four = [cornerAt(x0, y0), cornerAt(x1, y0), cornerAt(x0, y1), cornerAt(x1, y1)];
    return four.every((c) => c !== null) ? (four as unknown as Cell) : null;
  };
  /** The parts of a cell that have to be looked at more closely, with what comes near in them. */
  const halve = ({ cell, near, halvings }: Halved): Halved[] => {
    const left = nearIn(solids, cell, near);
    if (left.pairs.length === 0 || !left.far || halvings === 0) return [];
    if (purse.left <= 0) {
      purse.missed = true;
      return [];
    }
    const [{ x: x0, y: y0 }, , , { x: x1, y: y1 }] = cell;
    const [xm, ym] = [(x0 + x1) / 2, (y0 + y1) / 2];
    const parts = left.acrossX
      ? [cellAt([x0, xm], [y0, y1]), cellAt([xm, x1], [y0, y1])]
      : [cellAt([x0, x1], [y0, ym]), cellAt([x0, x1], [ym, y1])];
    return parts.flatMap((part) => (part ? [{ cell: part, near: left.pairs, halvings: halvings - 1 }] : []));
  };
  const valuesOf = ({ path }: Sweep): number[] => path.poses.map((p) => p.state[path.drive.id]);
  const [xs, ys] = [valuesOf(a), valuesOf(b)];
  let cells = xs.slice(1).flatMap((x, i) =>
    ys.slice(1).flatMap((y, j): Halved[] => {
      const cell = cellAt([xs[i], x], [ys[j], y]);
      return cell ? [{ cell, near: pairs, halvings: MOST_HALVINGS }] : [];
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
  readonly near: readonly SolidPair[];
  readonly halvings: number;
}

/** Pairs that come near each other in a cell, whether they go too far for a look, and along which drive further. */
function nearIn(
  solids: readonly Solid[],
  cell: Cell,
  pairs: readonly SolidPair[],
): { pairs: SolidPair[]; far: boolean; acrossX: boolean } {
  const [lowLow, highLow, lowHigh, highHigh] = cell;
  const known = new Map<number, { box: Box3; x: number; y: number }>();
  const sweptOf = (k: number): { box: Box3; x: number; y: number } => {
    const found = known.get(k);
    if (found) return found;
    const way = (p: Corner, q: Corner): { mm: number; looks: number } => {
      const mm = wayBetween(p.placed.get(k)!, q.placed.get(k)!);
      const turn = turnBetween(p.pose.placed[solids[k].facet], q.pose.placed[solids[k].facet]);
      return { mm, looks: Math.max(mm / LOOK_MM, turn / LOOK_DEG) };
    };
    const [x, y] = [
      [way(lowLow, highLow), way(lowHigh, highHigh)],
      [way(lowLow, lowHigh), way(highLow, highHigh)],
    ];
    const most = (ways: { mm: number; looks: number }[], key: 'mm' | 'looks'): number =>
      Math.max(...ways.map((w) => w[key]));
    const box = growBox3(
      cell.map((c): Box3 => c.placed.get(k)!).reduce(uniteBox3),
      BOW_PART * (most(x, 'mm') + most(y, 'mm')),
    );
    const swept = { box, x: most(x, 'looks'), y: most(y, 'looks') };
    known.set(k, swept);
    return swept;
  };
  const near = pairs.filter(([p, q]) => boxesMeet3(sweptOf(p).box, sweptOf(q).box));
  const ways = near.flatMap((pair) => pair.map(sweptOf));
  const [x, y] = [Math.max(0, ...ways.map((w) => w.x)), Math.max(0, ...ways.map((w) => w.y))];
  return { pairs: near, far: Math.max(x, y) > 1, acrossX: x >= y };
}
