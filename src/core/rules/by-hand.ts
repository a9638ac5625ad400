/**
 * What runs into what while it is moved by hand: each drive alone, two at a time where their parts come near, and what
 * lies between two sheets so thick that nothing moves there at all.
 */
import { openOf, restOf, OPEN } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { CONTACT_MM } from '../tolerance';
import { PLACES_PER_POSE } from './carried';
import { FlatPairs, type Tight } from './flat-pairs';
import { maybeMeet, pressedMm, slackAt, bendingGives, type HandHit } from './hand-solids';
import { hitsInPose } from './in-pose';
import { looksAlong, movedFacets, movingPairs, pathsOf, type HandPath, type LookPurse } from './looks';
import { throughDepth } from './meeting';
import { Sliding } from './sliding';
import { meetingsOfThrees, type WalkedThree } from './threes';
import { meetingsOfPairs, type WalkedPair } from './together';
import type { Evidence } from './rule';
import { solidsOf, type Solid } from './solids';

export interface ByHand {
  readonly hits: readonly HandHit[];
  readonly tight: readonly Tight[];
  readonly pairs: readonly WalkedPair[];
  readonly threes: readonly WalkedThree[];
  /** Drives, alone or together, of which not every place was looked at as closely as asked. */
  readonly missed: readonly (readonly string[])[];
  /** What it took, in places that were compared: for who has to keep an eye on that. */
  readonly work: number;
}

/** How much may be looked at: poses between those of a walk, for one drive and for two; values of one drive of two. */
export interface HandBudget {
  readonly alone: number;
  readonly together: number;
  readonly values: number;
}
const WHOLE: HandBudget = { alone: 1500, together: 600, values: 360 };
/** Searches ask so many times, and what they find is proved in whole. */
const ROUGH: HandBudget = { alone: 600, together: 200, values: 120 };

const known = new WeakMap<readonly Pose[], ByHand>();
/** All of it, worked out once for the poses of a walk. */
export function byHandOf(evidence: Evidence): ByHand {
  const found = known.get(evidence.byHand) ?? lookAtAll(evidence);
  known.set(evidence.byHand, found);
  return found;
}

function lookAtAll(evidence: Evidence): ByHand {
  const { assembly, byHand, rough } = evidence;
  const solids = solidsOf(evidence);
  const paths = pathsOf(assembly, byHand);
  const budget = rough ? ROUGH : WHOLE;
  const alone = paths.map((path) => alongPath(assembly, solids, path, budget.alone));
  const two = meetingsOfPairs(assembly, solids, paths, budget);
  const three = meetingsOfThrees(assembly, solids, paths, two.pairs);
  return {
    hits: [...inNamedStates(evidence, solids), ...alone.flatMap((w) => w.hits), ...two.hits, ...three.hits],
    tight: alone.flatMap((w) => w.tight),
    pairs: two.pairs,
    threes: three.threes,
    missed: [...alone.flatMap((w) => w.missed), ...two.missed],
    work: two.work + PLACES_PER_POSE * alone.reduce((sum, w) => sum + w.poses, 0),
  };
}

interface Walked {
  readonly hits: readonly HandHit[];
  readonly tight: readonly Tight[];
  readonly missed: readonly (readonly string[])[];
  /** That were solved between those of the walk. */
  readonly poses: number;
}

function alongPath(assembly: Assembly, solids: readonly Solid[], path: HandPath, looks: number): Walked {
  const moved = movedFacets(path.poses);
  if (moved.size === 0) return { hits: [], tight: [], missed: [], poses: 0 };
  const purse: LookPurse = { left: looks };
  const heights = new FlatPairs(assembly, solids, path.poses);
  // Over one face the opening changes nothing: what keeps its height is looked at once.
  const flat = path.open === assembly.drives[0].to ? heights : null;
  const pairs = movingPairs(assembly, solids, moved, path.poses).filter(
    ([a, b]) => maybeMeet(solids[a], solids[b]) && heights.mayMeet(solids[a], solids[b], flat !== null),
  );
  const hits: HandHit[] = [];
  const sliding = flat && new Sliding(assembly, solids);
  for (const { pose, placed, pairs: near } of looksAlong(assembly, solids, path.poses, { pairs, moved, purse })) {
    const gives = bendingGives(assembly, pose);
    hits.push(...(sliding?.look(pose, near) ?? []));
    for (const pair of near) {
      const [a, b] = pair;
      const [p, q] = [solids[a], solids[b]];
      if (flat?.look(pair, pose)) continue;
      const slack = slackAt(assembly, openOf(pose.state), [p, pose], [q, pose]);
      const depthMm = throughDepth(p, q, placed.get(a)!, placed.get(b)!, slack);
      if (depthMm > gives(p, q) && depthMm > pressedMm(assembly, p, q, path.poses[0]) + CONTACT_MM)
        hits.push({ pair: [p, q], depthMm, at: pose.state });
    }
  }
  return {
    hits: [...hits, ...(flat?.hits() ?? [])],
    tight: flat?.tight(path.drive, moved) ?? [],
    missed: purse.missed ? [[path.drive.id]] : [],
    poses: looks - purse.left,
  };
}

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
