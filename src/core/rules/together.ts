/**
 * Drives that are moved by hand and can meet: parts that one moves come where parts of the other come, or are the same.
 * Those are looked at two at a time, over a grid of both; drives that never come near each other need no such product.
 * Three at a time are looked at at places drawn at random, the same ones each time.
 */
import { canBe, moved, OPEN, restOf, type Drive, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { carrierOf } from '../assembly/carrier';
import { boxesMeet3, dist3, growBox3, uniteBox3, type Box3 } from '../linkage';
import { seeded } from '../linkage/random';
import { CONTACT_MM } from '../tolerance';
import { isStuck, maybeMeet, slackAt, unjudgedIn, type HandHit } from './hand-solids';
import { hitsInPose } from './in-pose';
import {
  differ,
  LOOK_DEG,
  LOOK_MM,
  movedFacets,
  movingPairs,
  turnBetween,
  type HandPath,
  type LookPurse,
  type SolidPair,
} from './looks';
import { atOneHeight, isPleat, lapOf, overOf, sameHeight, throughDepth } from './meeting';
import { placeSolid, type PlacedSolid, type Solid } from './solids';

/** Two drives that were walked together. */
export interface WalkedPair {
  readonly drives: readonly [string, string];
  /** Openings at which they can meet, degrees. */
  readonly openings: readonly number[];
  /** How many states of both were looked at. */
  readonly states: number;
}
/** Three drives that were looked at together, at places drawn at random. */
export interface WalkedThree {
  readonly drives: readonly [string, string, string];
  readonly states: number;
}

/** What a drive does at one opening: the solids it moves, and the box each passes through. */
interface Sweep {
  readonly path: HandPath;
  readonly moved: ReadonlySet<number>;
  readonly boxes: ReadonlyMap<number, Box3>;
}

/** Two drives at one opening where they can meet, and what may meet what. */
interface Meet {
  readonly a: Sweep;
  readonly b: Sweep;
  readonly pairs: readonly SolidPair[];
  /** Some part is moved by both. */
  readonly shared: boolean;
}

/** Values of one drive of a pair, at most. */
const MOST_VALUES = 240;
/** Poses solved for one pair at one opening where one drive carries what the other moves. */
const LOOKS_TOGETHER = 600;
/** So many places where two solids are in each other's room are measured: the worst of those is told. */
const MOST_MEASURED = 100;

export function meetingsOfPairs(
  assembly: Assembly,
  solids: readonly Solid[],
  paths: readonly HandPath[],
): { hits: HandHit[]; pairs: WalkedPair[]; missed: (readonly string[])[] } {
  const sweeps = paths.map((path) => sweepOf(assembly, solids, path));
  const drives = [...new Set(paths.map((p) => p.drive))];
  const hits: HandHit[] = [];
  const pairs: WalkedPair[] = [];
  const missed: (readonly string[])[] = [];
  const carriers = solids.map((s) => carrierOf(assembly, s.facet));
  for (const [i, first] of drives.entries())
    for (const second of drives.slice(i + 1)) {
      const meets = sweeps
        .filter((s) => s.path.drive === first)
        .flatMap((a) => {
          const b = sweeps.find((s) => s.path.drive === second && s.path.open === a.path.open);
          const meet = b && meetOf(assembly, solids, carriers, a, b);
          return meet ? [meet] : [];
        });
      if (meets.length === 0) continue;
      let states = 0;
      for (const meet of meets) {
        const walk = independent(assembly, meet) ? overGrid : oneCarriesTheOther;
        const walked = walk(assembly, solids, meet);
        hits.push(...walked.hits);
        states += walked.states;
        if (walked.missed) missed.push([first.id, second.id]);
      }
      pairs.push({ drives: [first.id, second.id], openings: meets.map((m) => m.a.path.open), states });
    }
  return { hits, pairs, missed };
}

function sweepOf(assembly: Assembly, solids: readonly Solid[], path: HandPath): Sweep {
  const goes = movedFacets(path.poses);
  const boxes = new Map<number, Box3>();
  solids.forEach((solid, k) => {
    if (!goes.has(solid.facet)) return;
    const places = path.poses.map((p) => placeSolid(solid, p));
    const steps = places.slice(1).map((q, i) => growBox3(uniteBox3(places[i], q), BOW_PART * wayBetween(places[i], q)));
    boxes.set(k, growBox3(steps.reduce(uniteBox3), CONTACT_MM));
  });
  return { path, moved: goes, boxes };
}
/** A way between two poses bows out by less than this part of its chord: an arc of half a turn by half of it. */
const BOW_PART = 0.5;
const wayBetween = (p: PlacedSolid, q: PlacedSolid): number =>
  p.slabs.reduce(
    (most, slab, s) => slab.points.reduce((m, at, k) => Math.max(m, dist3(at, q.slabs[s].points[k])), most),
    0,
  );

function meetOf(
  assembly: Assembly,
  solids: readonly Solid[],
  carriers: readonly (string | null)[],
  a: Sweep,
  b: Sweep,
): Meet | null {
  // Over one face the opening changes nothing between them: once is enough.
  const flat = a.path.open === assembly.drives[0].to;
  const counts = (k: number, j: number): boolean => flat || carriers[k] === null || carriers[k] !== carriers[j];
  const body = (k: number): number => assembly.facets[solids[k].facet].body;
  const shared = [...a.boxes.keys()].some((k) => b.boxes.has(k) && counts(k, k));
  if (shared) {
    const both = new Set([...a.moved].filter((f) => b.moved.has(f)));
    return { a, b, pairs: movingPairs(assembly, solids, both, [...a.path.poses, ...b.path.poses]), shared };
  }
  const pairs: SolidPair[] = [];
  for (const [k, box] of a.boxes)
    for (const [j, other] of b.boxes)
      if (body(k) !== body(j) && counts(k, j) && maybeMeet(solids[k], solids[j]) && boxesMeet3(box, other))
        pairs.push([k, j]);
  return pairs.length > 0 ? { a, b, pairs, shared } : null;
}

const stateOf = (assembly: Assembly, { a, b }: Meet, x: number, y: number): State =>
  moved(moved({ ...restOf(assembly.drives), [OPEN]: a.path.open }, a.path.drive.id, x), b.path.drive.id, y);

/** Whether each part is where its own drive alone brings it, wherever the other is: then nothing is solved for both. */
function independent(assembly: Assembly, meet: Meet): boolean {
  if (meet.shared) return false;
  const { a, b } = meet;
  const last = (s: Sweep, part: number): Pose => s.path.poses[Math.floor((s.path.poses.length - 1) * part)];
  return [0.4, 1].every((part) => {
    const [p, q] = [last(a, part), last(b, part)];
    const state = stateOf(assembly, meet, p.state[a.path.drive.id], q.state[b.path.drive.id]);
    if (!canBe(assembly.drives, state)) return false;
    const both = poseAt(assembly, state);
    const as = (moves: ReadonlySet<number>, alone: Pose): boolean =>
      [...moves].every((f) => !differ(both.placed[f], alone.placed[f]));
    return !both.stop && as(a.moved, p) && as(b.moved, q);
  });
}

interface WalkedTogether {
  readonly hits: readonly HandHit[];
  readonly states: number;
  readonly missed: boolean;
}

/** A drive's values so close that none of the parts goes or turns further than a look may miss. */
function closeValues({ path }: Sweep, solids: readonly Solid[], asked: Iterable<number>): [number[], boolean] {
  const { drive, poses } = path;
  let finest = 1;
  for (const k of asked) {
    const places = poses.map((p) => placeSolid(solids[k], p));
    const { facet } = solids[k];
    for (let i = 1; i < poses.length; i++) {
      const turn = turnBetween(poses[i - 1].placed[facet], poses[i].placed[facet]);
      finest = Math.max(finest, wayBetween(places[i - 1], places[i]) / LOOK_MM, turn / LOOK_DEG);
    }
  }
  const wanted = Math.ceil(finest - 1e-9) * (poses.length - 1);
  const steps = Math.min(MOST_VALUES, wanted);
  const [from, to] = [poses[0], poses[poses.length - 1]].map((p) => p.state[drive.id]);
  // One that goes round is at its end where it began.
  const values = Array.from({ length: drive.round ? steps : steps + 1 }, (_, k) => from + ((to - from) * k) / steps);
  return [values, wanted > steps];
}

/** Parts that do not carry each other: each is placed for its own drive alone, and every two places are compared. */
function overGrid(assembly: Assembly, solids: readonly Solid[], meet: Meet): WalkedTogether {
  const { a, b, pairs } = meet;
  const [xs, few] = closeValues(a, solids, new Set(pairs.map(([k]) => k)));
  const [ys, scarce] = closeValues(b, solids, new Set(pairs.map(([, j]) => j)));
  const posesFor = ({ path }: Sweep, values: readonly number[]): Pose[] =>
    values.map((v) =>
      poseAt(assembly, moved({ ...path.poses[0].state, ...restBut(assembly, path) }, path.drive.id, v)),
    );
  const [own, others] = [posesFor(a, xs), posesFor(b, ys)];
  const flat = a.path.open === assembly.drives[0].to;
  const hits = pairs.flatMap(([k, j]) => {
    const [p, q] = [solids[k], solids[j]];
    const [at, there] = [own.map((pose) => placeSolid(p, pose)), others.map((pose) => placeSolid(q, pose))];
    const reach = there.reduce<Box3>(uniteBox3, there[0]);
    const measure = measureOf(assembly, p, q, { flat, openDeg: a.path.open, still: [own[0], others[0]] });
    let [worst, measured] = [null as HandHit | null, 0];
    for (const [i, s] of at.entries()) {
      if (!boxesMeet3(s, reach) || unjudgedIn(assembly, own[i])(p)) continue;
      for (const [l, t] of there.entries()) {
        if (measured >= MOST_MEASURED || sharedDiagonal(s, t) <= (worst?.depthMm ?? 0)) continue;
        const depthMm = measure(own[i], others[l], s, t);
        if (depthMm > 0) measured++;
        if (depthMm <= (worst?.depthMm ?? 0)) continue;
        const state = stateOf(assembly, meet, xs[i], ys[l]);
        if (canBe(assembly.drives, state)) worst = { pair: [p, q], depthMm, at: state };
      }
    }
    return worst ? [worst] : [];
  });
  return { hits, states: xs.length * ys.length, missed: few || scarce };
}
const restBut = (assembly: Assembly, path: HandPath): State => ({ ...restOf(assembly.drives), [OPEN]: path.open });

/** Nothing laps further than this: the diagonal of what two boxes share; below 0 where they do not meet. */
function sharedDiagonal(s: Box3, t: Box3): number {
  let sum = 0;
  for (let k = 0; k < 3; k++) {
    const side = Math.min(s.max[k], t.max[k]) - Math.max(s.min[k], t.min[k]);
    if (side < 0) return -1;
    sum += side * side;
  }
  return Math.sqrt(sum);
}

/** How far two solids are in each other's room, each where its own pose has it, mm. */
function measureOf(
  assembly: Assembly,
  p: Solid,
  q: Solid,
  { flat, openDeg, still }: { flat: boolean; openDeg: number; still: readonly [Pose, Pose] },
): (a: Pose, b: Pose, s: PlacedSolid, t: PlacedSolid) => number {
  const over = (a: Pose, b: Pose) => overOf(q, a.placed[p.facet], b.placed[q.facet]);
  const before = over(...still);
  // What is stuck on may be lain on where it always was.
  const rests = before !== null && (isStuck(p) || isStuck(q)) && lapOf(p, q, before) > 0;
  return (a, b, s, t) => {
    const now = flat ? over(a, b) : null;
    if (!now || !sameHeight(now, before)) return throughDepth(p, q, s, t, slackAt(openDeg, p, q));
    if (rests || !atOneHeight(p, q, now) || isPleat(assembly, p, q)) return 0;
    return lapOf(p, q, now);
  };
}

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
function oneCarriesTheOther(assembly: Assembly, solids: readonly Solid[], meet: Meet): WalkedTogether {
  const { a, b, pairs } = meet;
  const still = poseAt(assembly, restBut(assembly, a.path));
  const asked = [...new Set(pairs.flat())];
  const goes = new Set([...a.moved, ...b.moved]);
  const stays = new Map(asked.filter((k) => !goes.has(solids[k].facet)).map((k) => [k, placeSolid(solids[k], still)]));
  const placedIn = (pose: Pose): Map<number, PlacedSolid> =>
    new Map(asked.map((k) => [k, stays.get(k) ?? placeSolid(solids[k], pose)]));
  const purse: LookPurse = { left: LOOKS_TOGETHER };
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
  return { hits, states: corners.size, missed: purse.missed === true };
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

/** Places of three drives, and threes, that are looked at. */
const PLACES_OF_THREE = 24;
const MOST_THREES = 12;

/** Three drives of which each can meet another: at random places, where two of them can meet. */
export function meetingsOfThrees(
  assembly: Assembly,
  solids: readonly Solid[],
  paths: readonly HandPath[],
  pairs: readonly WalkedPair[],
): { hits: HandHit[]; threes: WalkedThree[] } {
  const drives = [...new Set(paths.map((p) => p.drive))];
  const met = (p: Drive, q: Drive) => pairs.find(({ drives: d }) => d.includes(p.id) && d.includes(q.id));
  const threes: (readonly [Drive, Drive, Drive, number])[] = [];
  for (const [i, p] of drives.entries())
    for (const [j, q] of drives.entries())
      for (const r of drives.slice(j + 1)) {
        if (j <= i) continue;
        const found = [met(p, q), met(q, r), met(p, r)].filter((m) => m !== undefined);
        if (found.length >= 2) threes.push([p, q, r, found[0].openings[0]]);
      }
  const hits: HandHit[] = [];
  const walked = threes.slice(0, MOST_THREES).map(([p, q, r, open]): WalkedThree => {
    const random = seeded(1);
    const rest = { ...restOf(assembly.drives), [OPEN]: open };
    const still = poseAt(assembly, rest);
    let states = 0;
    for (let k = 0; k < PLACES_OF_THREE; k++) {
      const state = [p, q, r].reduce<State>((s, d) => moved(s, d.id, d.from + (d.to - d.from) * random()), rest);
      if (!canBe(assembly.drives, state)) continue;
      const pose = poseAt(assembly, state);
      if (pose.stop || still.stop) continue;
      states++;
      hits.push(...hitsInPose(assembly, solids, pose, still));
    }
    return { drives: [p.id, q.id, r.id], states };
  });
  return { hits, threes: walked };
}
