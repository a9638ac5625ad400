/** What is in each other's room in one pose, and was not where hands are at rest. */
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { openOf } from '../drives';
import { boxesMeet3 } from '../linkage';
import { CONTACT_MM } from '../tolerance';
import { isStuck, maybeMeet, pressedMm, slackAt, bendingGives, type HandHit } from './hand-solids';
import { movedFacets, movingPairs, type SolidPair } from './looks';
import { atOneHeight, isPleat, lapOf, overIn, sameHeight, throughDepth } from './meeting';
import { placeSolid, type PlacedSolid, type Solid } from './solids';

/** What is in each other's room in a pose, and was not where hands are at rest. */
export function* hitsInPose(
  assembly: Assembly,
  solids: readonly Solid[],
  pose: Pose,
  still: Pose,
  pairs: readonly SolidPair[] = movingPairs(assembly, solids, movedFacets([still, pose]), [still, pose]),
  known?: ReadonlyMap<number, PlacedSolid>,
): Generator<HandHit> {
  const gives = bendingGives(assembly, pose);
  const flat = openOf(pose.state) === assembly.drives[0].to;
  const placed = known ?? new Map([...new Set(pairs.flat())].map((k) => [k, placeSolid(solids[k], pose)]));
  for (const [a, b] of pairs) {
    const [p, q] = [solids[a], solids[b]];
    const [s, t] = [placed.get(a)!, placed.get(b)!];
    if (!boxesMeet3(s, t) || !maybeMeet(p, q)) continue;
    const through = throughDepth(p, q, s, t, slackAt(assembly, openOf(pose.state), [p, pose], [q, pose]));
    const depthMm = through > 0 || !flat ? through : besideNow(assembly, p, q, pose, still);
    if (depthMm > gives(p, q) && depthMm > pressedMm(assembly, p, q, still) + CONTACT_MM)
      yield { pair: [p, q], depthMm, at: pose.state };
  }
}

/** How far sheets that keep their height lap in a pose; what is stuck on may be lain on where it always was. */
function besideNow(assembly: Assembly, p: Solid, q: Solid, pose: Pose, still: Pose): number {
  const over = overIn(pose, p, q);
  if (!over || !atOneHeight(p, q, over)) return 0;
  const before = overIn(still, p, q);
  if (!sameHeight(over, before) || isPleat(assembly, p, q)) return 0;
  return (isStuck(p) || isStuck(q)) && lapOf(p, q, before!) > 0 ? 0 : lapOf(p, q, over);
}
