/**
 * Drives that are moved by hand and can meet: parts that one moves come where parts of the other come, or are the same.
 * Those are looked at two at a time, over a grid of both; drives that never come near each other need no such product.
 */
import { canBe, moved } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { carrierOf } from '../assembly/carrier';
import { boxesMeet3, growBox3, uniteBox3, type Box3 } from '../linkage';
import { oneCarriesTheOther } from './carried';
import { isStuck, slackAt, bendingGives, type HandHit } from './hand-solids';
import { differ, wayBetween, type HandPath } from './looks';
import { meetOf, restBut, stateOf, sweepOf, type Meet, type Sweep, type WalkedTogether } from './meet';
import { atOneHeight, isPleat, lapOf, overOf, sameHeight, throughDepth } from './meeting';
import { BOW_PART, LOOK_DEG, LOOK_MM, turnBetween } from './seen-from';
import { placeSolid, type PlacedSolid, type Solid } from './solids';

/** Two drives that were walked together. */
export interface WalkedPair {
  readonly drives: readonly [string, string];
  /** Openings at which they can meet, degrees. */
  readonly openings: readonly number[];
  /** How many states of both were looked at. */
  readonly states: number;
}
/** So many places where two solids are in each other's room are measured: the worst of those is told. */
const MOST_MEASURED = 100;

export function meetingsOfPairs(
  assembly: Assembly,
  solids: readonly Solid[],
  paths: readonly HandPath[],
  budget: { readonly together: number; readonly values: number },
): { hits: HandHit[]; pairs: WalkedPair[]; missed: (readonly string[])[]; work: number } {
  const drives = [...new Set(paths.map((p) => p.drive))];
  if (drives.length < 2) return { hits: [], pairs: [], missed: [], work: 0 };
  const sweeps = paths.map((path) => sweepOf(assembly, solids, path));
  const hits: HandHit[] = [];
  const pairs: WalkedPair[] = [];
  const missed: (readonly string[])[] = [];
  let work = 0;
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
        const walked = independent(assembly, meet)
          ? overGrid(assembly, solids, meet, budget.values)
          : oneCarriesTheOther(assembly, solids, meet, budget.together);
        work += walked.work;
        hits.push(...walked.hits);
        states += walked.states;
        if (walked.missed) missed.push([first.id, second.id]);
      }
      pairs.push({ drives: [first.id, second.id], openings: meets.map((m) => m.a.path.open), states });
    }
  return { hits, pairs, missed, work };
}

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

/** Who may meet whom of two sweeps, as one of them sees it: its solid, and the boxes that the others pass through. */
const othersOf = (pairs: Meet['pairs'], own: 0 | 1, boxes: Sweep['boxes']): ReadonlyMap<number, readonly Box3[]> => {
  const others = new Map<number, Box3[]>();
  for (const pair of pairs) {
    const known = others.get(pair[own]) ?? [];
    known.push(boxes.get(pair[1 - own])!);
    others.set(pair[own], known);
  }
  return others;
};

/**
 * A drive's values: those it was walked in, and between them so close that no part goes or turns further than a look
 * may miss where others may come.
 */
function closeValues(
  { path: { drive, poses } }: Sweep,
  solids: readonly Solid[],
  others: ReadonlyMap<number, readonly Box3[]>,
  most: number,
): [number[], boolean] {
  const finest = poses.slice(1).map(() => 1);
  for (const [k, boxes] of others) {
    const { facet } = solids[k];
    const places = poses.map((p) => placeSolid(solids[k], p));
    finest.forEach((known, i) => {
      const [from, to] = [places[i], places[i + 1]];
      const wayMm = wayBetween(from, to);
      const swept = growBox3(uniteBox3(from, to), BOW_PART * wayMm);
      if (!boxes.some((box) => boxesMeet3(box, swept))) return;
      const turn = turnBetween(poses[i].placed[facet], poses[i + 1].placed[facet]);
      finest[i] = Math.max(known, Math.ceil(Math.max(wayMm / LOOK_MM, turn / LOOK_DEG) - 1e-9));
    });
  }
  const wanted = finest.reduce((sum, n) => sum + n, 0);
  const share = Math.min(1, most / wanted);
  const values = finest.flatMap((n, i) => {
    const [from, to] = [poses[i], poses[i + 1]].map((p) => p.state[drive.id]);
    const steps = Math.max(1, Math.floor(n * share));
    return Array.from({ length: steps }, (_, k) => from + ((to - from) * k) / steps);
  });
  // One that goes round is at its end where it began.
  if (!drive.round) values.push(poses[poses.length - 1].state[drive.id]);
  return [values, share < 1];
}

/** Parts that do not carry each other: each is placed for its own drive alone, and every two places are compared. */
function overGrid(assembly: Assembly, solids: readonly Solid[], meet: Meet, most: number): WalkedTogether {
  const { a, b, pairs } = meet;
  const [xs, few] = closeValues(a, solids, othersOf(pairs, 0, b.boxes), most);
  const [ys, scarce] = closeValues(b, solids, othersOf(pairs, 1, a.boxes), most);
  const posesFor = ({ path }: Sweep, values: readonly number[]): Pose[] =>
    values.map((v) => poseAt(assembly, moved(restBut(assembly, path), path.drive.id, v)));
  const [own, others] = [posesFor(a, xs), posesFor(b, ys)];
  const flat = a.path.open === assembly.drives[0].to;
  const [placesOf, reachesOf] = [placedAlong(solids, own), placedAlong(solids, others)];
  const hits = pairs.flatMap(([k, j]) => {
    const [p, q] = [solids[k], solids[j]];
    const [{ places: at, reach: whole }, { places: there, reach }] = [placesOf(k), reachesOf(j)];
    if (!boxesMeet3(whole, reach)) return [];
    const measure = measureOf(assembly, p, q, { flat, openDeg: a.path.open, still: [own[0], others[0]] });
    let [worst, measured] = [null as HandHit | null, 0];
    for (const [i, s] of at.entries()) {
      if (!boxesMeet3(s, reach)) continue;
      const gives = bendingGives(assembly, own[i])(p, q);
      for (const [l, t] of there.entries()) {
        if (measured >= MOST_MEASURED || sharedDiagonal(s, t) <= (worst?.depthMm ?? 0)) continue;
        const depthMm = measure(own[i], others[l], s, t);
        if (depthMm > 0) measured++;
        if (depthMm <= Math.max(gives, worst?.depthMm ?? 0)) continue;
        const state = stateOf(assembly, meet, xs[i], ys[l]);
        if (canBe(assembly.drives, state)) worst = { pair: [p, q], depthMm, at: state };
      }
    }
    return worst ? [worst] : [];
  });
  const states = xs.length * ys.length;
  return { hits, states, missed: few || scarce, work: states * pairs.length };
}

/** A solid in every pose of a list, and the box it fills in all of them together; each solid is placed once. */
function placedAlong(
  solids: readonly Solid[],
  poses: readonly Pose[],
): (k: number) => { readonly places: readonly PlacedSolid[]; readonly reach: Box3 } {
  const known = new Map<number, { readonly places: readonly PlacedSolid[]; readonly reach: Box3 }>();
  return (k) => {
    const found = known.get(k);
    if (found) return found;
    const places = poses.map((pose) => placeSolid(solids[k], pose));
    const placed = { places, reach: places.reduce<Box3>(uniteBox3, places[0]) };
    known.set(k, placed);
    return placed;
  };
}

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
    if (!now || !sameHeight(now, before)) return throughDepth(p, q, s, t, slackAt(assembly, openDeg, [p, a], [q, b]));
    if (rests || !atOneHeight(p, q, now) || isPleat(assembly, p, q)) return 0;
    return lapOf(p, q, now);
  };
}
