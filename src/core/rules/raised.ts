/**
 * What stands off its sheet (foam, layers, tokens, heads of rivets) in the way of what the opening moves.
 *
 *        ╲  panel of one mechanism, rising
 *         ╲▄▄▄▄  foam of another, or what is stuck on
 *     ═════╧═════════ leaf
 *
 * Plates (`plates.ts`) lie in the planes of their facets; here all is as thick and as high as it is.
 */
import type { State } from '../drives';
import { openOf } from '../drives';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { bendingGives } from './hand-solids';
import { throughDepth } from './meeting';
import { nearPairs, PRESSED_BELOW_DEG } from './plates';
import type { Evidence } from './rule';
import { placeSolid, solidsOf, type Solid } from './solids';

/** Two solids in each other's room, how far, and where. */
export interface RaisedHit {
  readonly pair: readonly [Solid, Solid];
  readonly depthMm: number;
  readonly at: State;
}

/** Opened less than that a card is pressed on what lies between its leaves: `foam` and `thickness` are asked there. */
export function* raisedHits(
  evidence: Pick<Evidence, 'assembly' | 'brief'>,
  poses: readonly Pose[],
): Generator<RaisedHit> {
  const { assembly } = evidence;
  const solids = solidsOf(evidence);
  if (solids.every(isSheet)) return;
  for (const pose of poses) {
    if (pose.stop || openOf(pose.state) < PRESSED_BELOW_DEG) continue;
    const placed = solids.map((s) => placeSolid(s, pose));
    const gives = bendingGives(assembly, pose);
    for (const [a, b] of nearPairs(assembly, solids, placed)) {
      const [p, q] = [solids[a], solids[b]];
      if (!areOfTwo(assembly, p, q)) continue;
      const depthMm = throughDepth(p, q, placed[a], placed[b]);
      if (depthMm > gives(p, q)) yield { pair: [p, q], depthMm, at: pose.state };
    }
  }
}

const isSheet = (s: Solid): boolean => s.stuff === 'sheet';
/** What one mechanism does to its own foam is its own design; two sheets are plates. */
function areOfTwo({ facets }: Assembly, p: Solid, q: Solid): boolean {
  if (isSheet(p) && isSheet(q)) return false;
  return facets[p.facet].mechanism !== facets[q.facet].mechanism;
}
