/**
 * Raised sheets that lie in one another on the whole way: two bundles in one place, two shelves. Planes that are
 * parallel never cross, so crossing does not see these; shut and open flat everything lies in one plane.
 */
import { openTo, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt } from '../assembly/pose';
import { CONTACT_MM } from '../tolerance';
import { heightShared, lapOf, overIn } from './meeting';
import { nearPairs } from './plates';
import { isBase, type Evidence } from './rule';
import { placeSolid, solidsOf } from './solids';

/** Openings at which they are looked at, degrees; the first is told. */
const OPENINGS = [90, 70, 110] as const;
/** Sheets that lap by less than this touch along an edge, mm. */
const LAP_FROM_MM = 1;

export interface SamePlace {
  /** Facets by index. */
  readonly pair: readonly [number, number];
  readonly lapMm: number;
  readonly at: State;
}

export function samePlaces(evidence: Pick<Evidence, 'assembly' | 'brief'>): SamePlace[] {
  const [first, ...others] = OPENINGS.map((open) => lapsAt(evidence, open));
  return [...first.values()].filter(({ pair }) => others.every((laps) => laps.has(pair.join())));
}

function lapsAt(evidence: Pick<Evidence, 'assembly' | 'brief'>, open: number): Map<string, SamePlace> {
  const { assembly } = evidence;
  const found = new Map<string, SamePlace>();
  const pose = poseAt(assembly, openTo(open));
  if (pose.stop || pose.flexMm > 0) return found;
  const sheets = solidsOf(evidence).slice(0, assembly.facets.length);
  for (const [a, b] of nearPairs(
    assembly,
    plain(assembly),
    sheets.map((s) => placeSolid(s, pose)),
  )) {
    const [f, g] = [assembly.facets[a], assembly.facets[b]];
    // What one mechanism folds of itself may be pressed together by a hand; a base is more than one mechanism.
    if (f.mechanism === g.mechanism && !isBase(assembly, f.mechanism)) continue;
    if (f.piece === g.piece || assembly.leafBodies.has(f.body) || assembly.leafBodies.has(g.body)) continue;
    const over = overIn(pose, sheets[a], sheets[b]);
    if (!over || heightShared(sheets[a], over) <= CONTACT_MM) continue;
    const lapMm = lapOf(sheets[a], sheets[b], over);
    if (lapMm > LAP_FROM_MM) found.set(`${a},${b}`, { pair: [a, b], lapMm, at: pose.state });
  }
  return found;
}

/** Facets as plates, for who asks only for their bodies. */
const plain = ({ facets }: Assembly) => facets.map((_, facet) => ({ facet }));
