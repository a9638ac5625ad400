/** Three drives at a time, of which each can meet another: at places drawn at random, the same ones each time. */
import { canBe, moved, OPEN, restOf, type Drive, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt } from '../assembly/pose';
import { seeded } from '../linkage/random';
import type { HandHit } from './hand-solids';
import { hitsInPose } from './in-pose';
import type { HandPath } from './looks';
import type { Solid } from './solids';
import type { WalkedPair } from './together';

/** Three drives that were looked at together, at places drawn at random. */
export interface WalkedThree {
  readonly drives: readonly [string, string, string];
  readonly states: number;
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
