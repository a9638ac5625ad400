/**
 * Where a hand's way is looked at. Between two poses everything is looked at again, half way, as long as something
 * that comes near something else turns or goes further than a look may miss.
 *
 *     rest ──────┬──────┬─┬─┬──────┬────── end     each stroke a look: close where boxes meet, wide where none do
 *
 * Invariant: what lies between two looks fits into boxes that do not meet, or moved by no more than the limits.
 */
import { betweenStates, canBe, OPEN, openOf, restOf, type Drive, type State } from '../drives';
import { poseAt, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { boxesMeet3, compose, growBox3, invert, uniteBox3, type Box3, type Rigid } from '../linkage';
import { BOW_PART, LOOK_DEG, LOOK_MM, turnBetween } from './seen-from';
import { placeSolid, type PlacedSolid, type Solid } from './solids';

/** Halvings of one step of a walk: a full turn in steps of a hundredth of a degree. */
const MOST_HALVINGS = 14;

/** One drive from end to end at one opening, all others at rest. */
export interface HandPath {
  readonly drive: Drive;
  readonly open: number;
  /** In the order of the drive's values. */
  readonly poses: readonly Pose[];
}

/** The ways in poses of every drive's travel, at the openings that they were taken at. */
export function pathsOf(assembly: Assembly, byHand: readonly Pose[]): HandPath[] {
  const [, ...drives] = assembly.drives;
  const rest = restOf(assembly.drives);
  const openings = [...new Set(byHand.map((p) => openOf(p.state)))];
  return drives.flatMap((drive) => {
    const alone = byHand.filter((p) =>
      assembly.drives.every(({ id }) => id === OPEN || id === drive.id || p.state[id] === rest[id]),
    );
    return openings.flatMap((open): HandPath[] => {
      const values = new Map(alone.filter((p) => openOf(p.state) === open).map((p) => [p.state[drive.id], p] as const));
      const poses = [...values].sort((p, q) => p[0] - q[0]).map(([, pose]) => pose);
      return poses.length > 1 ? [{ drive, open, poses }] : [];
    });
  });
}

/** Looks that may still be taken; what is left out when there are none is said. */
export interface LookPurse {
  left: number;
  /** It was empty while something near was still to be looked at. */
  missed?: boolean;
}

/** Facets that are anywhere else in one of the poses than in the first. */
export function movedFacets(poses: readonly Pose[]): ReadonlySet<number> {
  const [first, ...others] = poses;
  const moved = new Set<number>();
  first.placed.forEach((m, f) => {
    if (others.some((p) => differ(m, p.placed[f]))) moved.add(f);
  });
  return moved;
}
/** Of a place in mm, or a sine: what the solver leaves of a part that stays where it is is far below this. */
const MOVED_FROM = 1e-7;
export const differ = (m: Rigid, n: Rigid): boolean => m.some((v, k) => Math.abs(v - n[k]) > MOVED_FROM);

/** How far the corner of a solid goes that goes furthest from one place to another, mm. */
export function wayBetween(p: PlacedSolid, q: PlacedSolid): number {
  let most = 0;
  for (let s = 0; s < p.slabs.length; s++) {
    const [points, others] = [p.slabs[s].points, q.slabs[s].points];
    for (let k = 0; k < points.length; k++) {
      const [a, b] = [points[k], others[k]];
      const [x, y, z] = [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
      const squared = x * x + y * y + z * z;
      if (squared > most) most = squared;
    }
  }
  return Math.sqrt(most);
}

interface Swept {
  readonly box: Box3;
  readonly wayMm: number;
  readonly turnDeg: number;
}
function sweep(solid: Solid, from: Pose, to: Pose, p: PlacedSolid, q: PlacedSolid): Swept {
  const wayMm = wayBetween(p, q);
  return {
    box: growBox3(uniteBox3(p, q), BOW_PART * wayMm),
    wayMm,
    turnDeg: turnBetween(from.placed[solid.facet], to.placed[solid.facet]),
  };
}

/** Solids by index, the smaller first. */
export type SolidPair = readonly [a: number, b: number];

export interface Look {
  readonly pose: Pose;
  readonly placed: ReadonlyMap<number, PlacedSolid>;
  readonly pairs: readonly SolidPair[];
}

/**
 * Looks along a way at pairs that come near each other on it, the poses of the way among them.
 * @param pairs those that may meet at all
 * @param moved facets that are not where they were anywhere on the way
 * @param purse each pose that is solved takes one; where it is empty halving ends
 */
export function* looksAlong(
  assembly: Assembly,
  solids: readonly Solid[],
  poses: readonly Pose[],
  { pairs: all, moved, purse }: { pairs: readonly SolidPair[]; moved: ReadonlySet<number>; purse: LookPurse },
): Generator<Look> {
  const still = new Map<number, PlacedSolid>();
  const placeOf = (k: number, pose: Pose): PlacedSolid => {
    if (moved.has(solids[k].facet)) return placeSolid(solids[k], pose);
    const known = still.get(k) ?? placeSolid(solids[k], pose);
    still.set(k, known);
    return known;
  };
  const placeAll = (asked: Iterable<number>, pose: Pose): Map<number, PlacedSolid> =>
    new Map([...asked].map((k) => [k, placeOf(k, pose)]));
  const everyone = placeAll(new Set(all.flat()), poses[0]);
  const movers = [...everyone.keys()].filter((k) => moved.has(solids[k].facet));
  const ways = poses.map((pose, i) => (i === 0 ? everyone : placeAll(movers, pose)));
  const pairs = nearSomewhere(solids, poses, ways, all, (k) => everyone.get(k)!);
  const asked = new Set(pairs.flat());
  const lookAt = (i: number): Look => ({
    pose: poses[i],
    placed: new Map([...asked].map((k) => [k, ways[i].get(k) ?? everyone.get(k)!])),
    pairs,
  });
  let before: Look | null = null;
  for (const i of poses.keys()) {
    const look = lookAt(i);
    if (before) yield* between({ assembly, solids, placeOf, purse }, before, look, pairs, MOST_HALVINGS);
    yield { ...look, pairs: meetingOf(look.placed, pairs) };
    before = look;
  }
}

const meetingOf = (placed: ReadonlyMap<number, PlacedSolid>, pairs: readonly SolidPair[]): SolidPair[] =>
  pairs.filter(([a, b]) => boxesMeet3(placed.get(a)!, placed.get(b)!));

/** Pairs whose boxes meet, swept over the whole way: who never comes near the way is not asked along it. */
function nearSomewhere(
  solids: readonly Solid[],
  poses: readonly Pose[],
  ways: readonly ReadonlyMap<number, PlacedSolid>[],
  pairs: readonly SolidPair[],
  still: (k: number) => PlacedSolid,
): SolidPair[] {
  const whole = new Map<number, Box3>();
  const wholeOf = (k: number): Box3 => {
    const known = whole.get(k);
    if (known) return known;
    const boxes = ways.slice(1).flatMap((to, i) => {
      const [p, q] = [ways[i].get(k), to.get(k)];
      return p && q ? [sweep(solids[k], poses[i], poses[i + 1], p, q).box] : [];
    });
    const box = boxes.length > 0 ? boxes.reduce(uniteBox3) : still(k);
    whole.set(k, box);
    return box;
  };
  return pairs.filter(([a, b]) => boxesMeet3(wholeOf(a), wholeOf(b)));
}

interface Looking {
  readonly assembly: Assembly;
  readonly solids: readonly Solid[];
  readonly placeOf: (k: number, pose: Pose) => PlacedSolid;
  readonly purse: LookPurse;
}

function* between(
  looking: Looking,
  from: Look,
  to: Look,
  pairs: readonly SolidPair[],
  halvings: number,
): Generator<Look> {
  const { assembly, solids, placeOf, purse } = looking;
  const swept = new Map<number, Swept>();
  const sweptOf = (k: number): Swept => {
    const known = swept.get(k) ?? sweep(solids[k], from.pose, to.pose, from.placed.get(k)!, to.placed.get(k)!);
    swept.set(k, known);
    return known;
  };
  const near = pairs.filter(([a, b]) => boxesMeet3(sweptOf(a).box, sweptOf(b).box));
  const far = near.some((pair) => pair.some((k) => sweptOf(k).wayMm > LOOK_MM || sweptOf(k).turnDeg > LOOK_DEG));
  if (!far || halvings === 0) return;
  if (purse.left <= 0) {
    purse.missed = true;
    return;
  }
  purse.left--;
  const pose = midPose(assembly, from.pose.state, to.pose.state);
  if (!pose) return;
  const placed = new Map([...new Set(near.flat())].map((k) => [k, placeOf(k, pose)]));
  const middle: Look = { pose, placed, pairs: near };
  yield* between(looking, from, middle, near, halvings - 1);
  yield { ...middle, pairs: meetingOf(placed, near) };
  yield* between(looking, middle, to, near, halvings - 1);
}

function midPose(assembly: Assembly, from: State, to: State): Pose | null {
  const state = betweenStates(from, to, 0.5);
  if (!canBe(assembly.drives, state)) return null;
  const pose = poseAt(assembly, state);
  return pose.stop ? null : pose;
}

/**
 * Pairs of solids of different bodies of which one is among `moved`, and which do not keep their place to each other in
 * all of the poses.
 */
export function movingPairs(
  { facets }: Assembly,
  solids: readonly Solid[],
  moved: ReadonlySet<number>,
  poses: readonly Pose[],
): SolidPair[] {
  const pairs: SolidPair[] = [];
  const apart = partings(facets, poses);
  for (let a = 0; a < solids.length; a++)
    for (let b = a + 1; b < solids.length; b++) {
      const [f, g] = [solids[a].facet, solids[b].facet];
      if (facets[f].body === facets[g].body || (!moved.has(f) && !moved.has(g))) continue;
      if (!moved.has(f) || !moved.has(g) || apart(f, g)) pairs.push([a, b]);
    }
  return pairs;
}

/** Whether two facets are not always in the same place as seen from each other; asked once of every two bodies. */
function partings(facets: Assembly['facets'], poses: readonly Pose[]): (f: number, g: number) => boolean {
  const known = new Map<string, boolean>();
  return (f, g) => {
    const key = `${facets[f].body} ${facets[g].body}`;
    const found = known.get(key) ?? partIn(poses, f, g);
    known.set(key, found);
    return found;
  };
}
function partIn([first, ...others]: readonly Pose[], f: number, g: number): boolean {
  const seen = (pose: Pose): Rigid => compose(invert(pose.placed[f]), pose.placed[g]);
  const before = seen(first);
  return others.some((pose) => differ(before, seen(pose)));
}
