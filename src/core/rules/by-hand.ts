/**
 * What runs into what while it is moved by hand: each drive alone, two at a time where their parts come near, and what
 * lies between two sheets so thick that nothing moves there at all.
 */
import { openOf, restOf, OPEN, type Drive, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { boxesMeet3, uniteBox3, type Box3 } from '../linkage';
import { isStuck, maybeMeet, pressedMm, slackAt, unjudgedIn, type HandHit } from './hand-solids';
import { looksAlong, movedFacets, movingPairs, pathsOf, type HandPath, type LookPurse, type SolidPair } from './looks';
import { hitsInPose } from './in-pose';
import { atOneHeight, isPleat, lapOf, overIn, sameHeight, throughDepth } from './meeting';
import { CONTACT_MM, SIZE_ROUNDING_MM } from '../tolerance';
import { meetingsOfPairs, meetingsOfThrees, type WalkedPair, type WalkedThree } from './together';
import type { Evidence } from './rule';
import { placeSolid, solidsOf, type Solid } from './solids';

/** A part that keeps its height, and the room that is left over and under it all the way. */
export interface Tight {
  readonly drive: Drive;
  readonly mover: Solid;
  /** What is stuck on, and takes the room. */
  readonly by: Solid;
  /** Below 0 it lacks so much. */
  readonly roomMm: number;
  readonly at: State;
}

export interface ByHand {
  readonly hits: readonly HandHit[];
  readonly tight: readonly Tight[];
  readonly pairs: readonly WalkedPair[];
  readonly threes: readonly WalkedThree[];
  /** Drives, alone or together, of which not every place was looked at as closely as asked. */
  readonly missed: readonly (readonly string[])[];
}

/** Poses that are solved between those of the walk, for one drive at one opening. */
const LOOKS_ALONE = 1500;

const known = new WeakMap<readonly Pose[], ByHand>();
/** All of it, worked out once for the poses of a walk. */
export function byHandOf(evidence: Evidence): ByHand {
  const found = known.get(evidence.byHand) ?? lookAtAll(evidence);
  known.set(evidence.byHand, found);
  return found;
}

function lookAtAll(evidence: Evidence): ByHand {
  const { assembly, byHand } = evidence;
  const solids = solidsOf(evidence);
  const paths = pathsOf(assembly, byHand);
  const alone = paths.map((path) => alongPath(assembly, solids, path));
  const two = meetingsOfPairs(assembly, solids, paths);
  const three = meetingsOfThrees(assembly, solids, paths, two.pairs);
  return {
    hits: [...inNamedStates(evidence, solids), ...alone.flatMap((w) => w.hits), ...two.hits, ...three.hits],
    tight: alone.flatMap((w) => w.tight),
    pairs: two.pairs,
    threes: three.threes,
    missed: [...alone.flatMap((w) => w.missed), ...two.missed],
  };
}

interface Walked {
  readonly hits: readonly HandHit[];
  readonly tight: readonly Tight[];
  readonly missed: readonly (readonly string[])[];
}

function alongPath(assembly: Assembly, solids: readonly Solid[], path: HandPath): Walked {
  const moved = movedFacets(path.poses);
  if (moved.size === 0) return { hits: [], tight: [], missed: [] };
  const purse: LookPurse = { left: LOOKS_ALONE };
  const heights = new FlatPairs(assembly, solids, path.poses);
  // Over one face the opening changes nothing: what keeps its height is looked at once.
  const flat = path.open === assembly.drives[0].to ? heights : null;
  const pairs = movingPairs(assembly, solids, moved, path.poses).filter(
    ([a, b]) => maybeMeet(solids[a], solids[b]) && heights.mayMeet(solids[a], solids[b], flat !== null),
  );
  const hits: HandHit[] = [];
  const sliding = flat && new Sliding(assembly, solids);
  for (const { pose, placed, pairs: near } of looksAlong(assembly, solids, path.poses, { pairs, moved, purse })) {
    const unjudged = unjudgedIn(assembly, pose);
    hits.push(...(sliding?.look(pose, near) ?? []));
    for (const pair of near) {
      const [a, b] = pair;
      const [p, q] = [solids[a], solids[b]];
      if (unjudged(p) || unjudged(q) || flat?.look(pair, pose)) continue;
      const depthMm = throughDepth(p, q, placed.get(a)!, placed.get(b)!, slackAt(openOf(pose.state), p, q));
      if (depthMm > 0 && depthMm > pressedMm(assembly, p, q, path.poses[0]) + CONTACT_MM)
        hits.push({ pair: [p, q], depthMm, at: pose.state });
    }
  }
  return {
    hits: [...hits, ...(flat?.hits() ?? [])],
    tight: flat?.tight(path.drive, moved) ?? [],
    missed: purse.missed ? [[path.drive.id]] : [],
  };
}

/**
 * Sheets that lie flat over each other on a part of the way only, as what has turned over and is drawn on: where they
 * slide from beside each other to over each other at one height, one has run into the other's edge.
 */
class Sliding {
  private before: Pose | null = null;
  private over: readonly SolidPair[] = [];

  constructor(
    private readonly assembly: Assembly,
    private readonly solids: readonly Solid[],
  ) {}

  /** What ran into an edge since the look before, or will on the way back. */
  look(pose: Pose, near: readonly SolidPair[]): HandHit[] {
    const { before } = this;
    const now = near.filter((pair) => this.lap(pose, pair) > 0);
    const was = this.over;
    this.before = pose;
    this.over = now;
    if (!before) return [];
    const [came, went] = [now.filter((p) => !has(was, p)), was.filter((p) => !has(now, p))];
    return [
      ...came.flatMap((pair) => this.hitAt(pose, before, pair)),
      ...went.flatMap((pair) => this.hitAt(before, pose, pair)),
    ];
  }

  private hitAt(lies: Pose, beside: Pose, pair: SolidPair): HandHit[] {
    const [p, q] = this.both(pair);
    const own = this.assembly.facets[p.facet].mechanism === this.assembly.facets[q.facet].mechanism;
    if (own && !isStuck(p) && !isStuck(q)) return [];
    if (!sameHeight(overIn(lies, p, q), overIn(beside, p, q)) || this.lap(beside, pair) > 0) return [];
    return [{ pair: [p, q], depthMm: this.lap(lies, pair), at: lies.state }];
  }
  /** How far two lap at one height, mm; 0 where their planes are not parallel. */
  private lap(pose: Pose, pair: SolidPair): number {
    const [p, q] = this.both(pair);
    const over = overIn(pose, p, q);
    return over && atOneHeight(p, q, over) ? lapOf(p, q, over) : 0;
  }
  private both = ([a, b]: SolidPair): [Solid, Solid] => [this.solids[a], this.solids[b]];
}
const has = (pairs: readonly SolidPair[], [a, b]: SolidPair): boolean => pairs.some((p) => p[0] === a && p[1] === b);

/**
 * Solids that keep their height over each other on the whole way. Where they share heights, sheets may not lap
 * anywhere; what is stuck on may be lain on all the way, but has an edge to run into where it is not.
 */
class FlatPairs {
  private readonly keeps = new Map<string, boolean>();
  private readonly lapped = new Map<string, { pair: SolidPair; mostMm: number; at: State }>();
  private readonly ways = new Map<Solid, Box3>();

  constructor(
    private readonly assembly: Assembly,
    private readonly solids: readonly Solid[],
    private readonly poses: readonly Pose[],
  ) {}

  /** Whether two can come into each other's room at all: not where they keep heights that they do not share. */
  mayMeet(p: Solid, q: Solid, flat: boolean): boolean {
    return !this.keepsHeight(p, q) || (flat && this.shareHeights(p, q));
  }

  /** Takes note of a pair in a pose; false where it does not keep its height. */
  look(pair: SolidPair, pose: Pose): boolean {
    const [p, q] = pair.map((k) => this.solids[k]);
    if (!this.keepsHeight(p, q)) return false;
    const lap = lapIn(pose, p, q);
    const key = pair.join();
    if (lap > (this.lapped.get(key)?.mostMm ?? 0)) this.lapped.set(key, { pair, mostMm: lap, at: pose.state });
    return true;
  }

  /** What runs into an edge, or is where something else is. */
  hits(): HandHit[] {
    return [...this.lapped.values()].flatMap(({ pair, mostMm, at }): HandHit[] => {
      const [p, q] = pair.map((k) => this.solids[k]);
      const clashes = isStuck(p) || isStuck(q) ? !this.laps(p, q).every(Boolean) : !isPleat(this.assembly, p, q);
      return clashes ? [{ pair: [p, q], depthMm: mostMm, at }] : [];
    });
  }

  /** Parts that what is stuck on leaves less room than `ABOVE_MM`, over and under. */
  tight(drive: Drive, moved: ReadonlySet<number>): Tight[] {
    if (!this.solids.some(isStuck)) return [];
    const { facets } = this.assembly;
    const bodies = new Set([...moved].map((f) => facets[f].body));
    const pairs = movingPairs(this.assembly, this.solids, moved, this.poses).map(([a, b]) => [
      this.solids[a],
      this.solids[b],
    ]);
    return [...bodies].flatMap((body) => {
      const own = (s: Solid): boolean => facets[s.facet].body === body;
      const seen = pairs.flatMap(([p, q]) => (own(p) ? [[p, q] as const] : own(q) ? [[q, p] as const] : []));
      return this.tightOf(drive, seen);
    });
  }

  /** @param pairs each a solid of the part that moves, and another */
  private tightOf(drive: Drive, pairs: readonly (readonly [Solid, Solid])[]): Tight[] {
    const bounds = pairs.flatMap(([m, o]) => this.boundOf(m, o) ?? []);
    const [floor, ceiling] = [true, false].map((under) => tightest(bounds.filter((b) => b.under === under)));
    if (!floor || !ceiling) return [];
    const stuck = [floor, ceiling].flatMap(({ m, o }) => [m, o]).find(isStuck);
    const roomMm = ceiling.mm - floor.mm;
    if (!stuck || roomMm >= ABOVE_MM - SIZE_ROUNDING_MM) return [];
    return [{ drive, mover: floor.m, by: stuck, roomMm, at: this.poses[0].state }];
  }

  /** How far one may rise or sink beside another that it lies over or under; null where it never does. */
  private boundOf(m: Solid, o: Solid): Bound | null {
    if (
      !m.knownHigh ||
      !o.knownHigh ||
      !maybeMeet(m, o) ||
      !boxesMeet3(this.wayOf(m), this.wayOf(o)) ||
      !this.keepsHeight(m, o)
    )
      return null;
    const laps = this.laps(m, o);
    if (!laps.some(Boolean) || (this.shareHeights(m, o) && !laps.every(Boolean))) return null;
    const over = overIn(this.poses[0], m, o)!;
    const under = over.groundMm < 0;
    return { m, o, under, mm: under ? over.toMm - m.fromMm : over.fromMm - m.toMm };
  }

  /** Where a solid comes on the way, heights left out: what lies under another is near it however far below. */
  private wayOf(s: Solid): Box3 {
    const known = this.ways.get(s);
    if (known) return known;
    const { min, max } = this.poses.map((pose): Box3 => placeSolid(s, pose)).reduce(uniteBox3);
    const way: Box3 = { min: [min[0], min[1], -Infinity], max: [max[0], max[1], Infinity] };
    this.ways.set(s, way);
    return way;
  }

  /** At every pose of the way, whether one lies over the other. */
  private laps(p: Solid, q: Solid): boolean[] {
    return this.poses.map((pose) => lapIn(pose, p, q) > 0);
  }
  private shareHeights(p: Solid, q: Solid): boolean {
    const over = overIn(this.poses[0], p, q);
    return over !== null && atOneHeight(p, q, over);
  }
  private keepsHeight(p: Solid, q: Solid): boolean {
    const key = `${p.facet} ${q.facet}`;
    const known = this.keeps.get(key);
    if (known !== undefined) return known;
    const first = overIn(this.poses[0], p, q);
    const keeps = first !== null && this.poses.every((pose) => sameHeight(overIn(pose, p, q), first));
    this.keeps.set(key, keeps);
    return keeps;
  }
}

function lapIn(pose: Pose, p: Solid, q: Solid): number {
  const over = overIn(pose, p, q);
  return over ? lapOf(p, q, over) : 0;
}

/** Room over what moves between two sheets, mm; common practice, no source. */
export const ABOVE_MM = 0.2;

/** How far one part may at least rise (`under`), or at most, before it meets another, mm. */
interface Bound {
  readonly m: Solid;
  readonly o: Solid;
  readonly under: boolean;
  readonly mm: number;
}
const tightest = (bounds: readonly Bound[]): Bound | null =>
  bounds.reduce<Bound | null>((t, b) => (!t || (b.under ? b.mm > t.mm : b.mm < t.mm) ? b : t), null);

/** What is in something's room in a state that is named: it may be on nobody's way. */
function* inNamedStates({ assembly, named }: Evidence, solids: readonly Solid[]): Generator<HandHit> {
  for (const pose of named) {
    const rest = restOf(assembly.drives);
    const hands = assembly.drives.some((d) => d.id !== OPEN && pose.state[d.id] !== d.rest);
    if (!hands) continue;
    const still = poseAt(assembly, { ...rest, [OPEN]: openOf(pose.state) });
    if (still.stop) continue;
    yield* hitsInPose(assembly, solids, pose, still);
  }
}
