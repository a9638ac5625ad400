/** Sheets that keep their height over each other on the whole way of a drive: what slides, and what it slides over. */
import type { Drive, State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { boxesMeet3, uniteBox3, type Box3 } from '../linkage';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { isStuck, maybeMeet, type HandHit } from './hand-solids';
import { movingPairs, type SolidPair } from './looks';
import { atOneHeight, isPleat, lapOf, overIn, sameHeight } from './meeting';
import { placeSolid, type Solid } from './solids';

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

/**
 * Solids that keep their height over each other on the whole way. Where they share heights, sheets may not lap
 * anywhere; what is stuck on may be lain on all the way, but has an edge to run into where it is not.
 */
export class FlatPairs {
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
