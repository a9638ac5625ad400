/** Which solids may stop a hand, and how far they may give. */
import type { Assembly } from '../assembly/assembly';
import type { State } from '../drives';
import type { Pose } from '../assembly/pose';
import { CONTACT_MM } from '../tolerance';
import { bendingMechanism } from './flex';
import { heightShared, lapOf, overIn } from './meeting';
import { areParallel, type Solid } from './solids';

/** Opened less than this a card is not played with, degrees; common practice, no source. */
export const HAND_STOPS_DEG = 90;

/** Two solids in each other's room, how far, and where. */
export interface HandHit {
  readonly pair: readonly [Solid, Solid];
  readonly depthMm: number;
  readonly at: State;
}

/** Whether a solid is what a person stuck on: something may rest on it. */
export const isStuck = (s: Solid): boolean => s.layer !== undefined;
/** Foam of a kind is cut clear of what its kind moves, and asked about the sheets of others by `foam`. */
const isPad = (s: Solid): boolean => s.stuff === 'foam' && !s.layer;
export const maybeMeet = (p: Solid, q: Solid): boolean => !((isPad(p) && !isStuck(q)) || (isPad(q) && !isStuck(p)));

/**
 * What the leaves of a card opened so far give each other, mm: pressed shut they lie on what lies on them. Two things
 * that are both turned up are pressed by nothing: they meet as they are.
 * @param a where the first one is, `b`: the second
 */
export function slackAt(assembly: Assembly, openDeg: number, [p, a]: Placing, [q, b]: Placing): number {
  if (openDeg >= HAND_STOPS_DEG) return 0;
  const { facets } = assembly;
  const ofOne = facets[p.facet].mechanism === facets[q.facet].mechanism;
  return ofOne || liesFlat(assembly, a, p.facet) || liesFlat(assembly, b, q.facet) ? p.levelMm + q.levelMm : 0;
}
type Placing = readonly [Solid, Pose];

/** Whether a facet lies along a leaf in a pose. */
const liesFlat = (assembly: Assembly, { placed }: Pose, facet: number): boolean =>
  leavesOf(assembly).some((leaf) => areParallel(placed[leaf], placed[facet]));

const known = new WeakMap<Assembly, readonly number[]>();
/** One facet of each leaf. */
function leavesOf(assembly: Assembly): readonly number[] {
  const found =
    known.get(assembly) ?? [...assembly.leafBodies].map((b) => assembly.facets.findIndex((f) => f.body === b));
  known.set(assembly, found);
  return found;
}

/**
 * What two parts of one mechanism give each other, mm: as thick as they are, where they lie in each other's room at
 * rest. A strip between the sheets of what is folded away is pressed there, by design.
 */
export function pressedMm(assembly: Assembly, p: Solid, q: Solid, rest: Pose): number {
  const { facets } = assembly;
  if (p.layer || q.layer || facets[p.facet].mechanism !== facets[q.facet].mechanism) return 0;
  const over = overIn(rest, p, q);
  if (!over || heightShared(p, over) <= CONTACT_MM || lapOf(p, q, over) === 0) return 0;
  return p.toMm - p.fromMm + q.toMm - q.fromMm;
}

type OnFacet = Pick<Solid, 'facet'>;
/**
 * What two parts may be in each other's room by before it counts, mm, where paper bends in a pose: it lies where it is
 * posed only to within its bending. The sheets of what bends give way to each other.
 */
export function bendingGives(assembly: Assembly, pose: Pose): (p: OnFacet, q: OnFacet) => number {
  if (pose.flexMm === 0) return () => 0;
  const bent = bendingMechanism(assembly, pose);
  const bends = ({ facet }: OnFacet): boolean => assembly.facets[facet].mechanism === bent;
  return (p, q) => (bends(p) && bends(q) ? Infinity : bends(p) || bends(q) ? pose.flexMm : 0);
}
