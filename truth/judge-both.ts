/** Decides whether things moved by two hands meet, one against the other wherever both may be. */
import type { Assembly } from '../src/core/assembly/assembly';
import { poseAt, type Pose } from '../src/core/assembly/pose';
import { buildAssembly } from '../src/core/build/build';
import { stockOf, type Design } from '../src/core/document/design';
import { HAND_STOPS_DEG, type Judged } from './judge';
import { liesOnLeaf } from './lying';
import { depthIn, GIVE_MM, place, slabsOf, type Placed, type Slab } from './solids';

/** Looks of each hand are as close as this. */
const STEP = { deg: 3, mm: 1 } as const;
const SURELY_MM = 0.6;

/**
 * Each hand is moved by itself; every place of one is held against every place of the other.
 * @param openings at which this is done, degrees; the card lies open where none are given
 * @param lowIsLeaf whether what lies on a leaf is taken as that leaf is, which a hand stops at
 */
export function judgeBoth(design: Design, openings?: readonly number[], lowIsLeaf = false): Judged {
  const assembly = buildAssembly(design);
  const slabs = slabsOf(assembly, (id) => stockOf(design, id));
  const [opening] = assembly.drives;
  let worst = { mm: -1, why: '' };
  for (const open of openings ?? [opening.to]) {
    if (open > opening.to) continue;
    const leaned = lowIsLeaf && open < HAND_STOPS_DEG;
    const ways = waysOf(assembly, slabs, open, (pose, s) => leaned && liesOnLeaf(assembly, pose, s));
    ways.forEach((a, i) =>
      ways.slice(i + 1).forEach((b) => {
        a.placed.forEach((ps, k) =>
          b.placed.forEach((qs, l) => {
            const mm = deepest(ps, qs);
            if (mm > worst.mm) worst = { mm, why: `${a.hand} ${k} and ${b.hand} ${l} at ${open}, by ${mm.toFixed(2)}` };
          }),
        );
      }),
    );
    if (worst.mm >= SURELY_MM) return { answer: 'jams', why: worst.why };
  }
  return { answer: worst.mm < 0 ? 'moves' : 'undecided', why: worst.why };
}

/** Where each hand takes what it moves; places that cannot be reached, and what is `spared` in one, left out. */
function waysOf(
  assembly: Assembly,
  slabs: readonly Slab[],
  open: number,
  spared: (pose: Pose, s: Slab) => boolean,
): { readonly hand: string; readonly placed: readonly (readonly Placed[])[] }[] {
  const [opening, ...hands] = assembly.drives;
  const rest = Object.fromEntries(assembly.drives.map((d) => [d.id, d.rest]));
  return hands.map((drive) => {
    const steps = Math.ceil((drive.to - drive.from) / STEP[drive.unit]);
    const places = Array.from({ length: steps + 1 }, (_, k) => drive.from + ((drive.to - drive.from) * k) / steps);
    const poses = places
      .map((value) => poseAt(assembly, { ...rest, [opening.id]: open, [drive.id]: value }))
      .filter((pose) => !pose.stop && pose.flexMm === 0);
    const parts = slabs.filter((s) => poses.length > 0 && movesIn(poses, s.facet));
    return {
      hand: drive.id,
      placed: poses.map((pose) => parts.filter((s) => !spared(pose, s)).map((s) => place(s, pose))),
    };
  });
}

const movesIn = (poses: readonly Pose[], facet: number): boolean =>
  poses.some((p) => p.placed[facet].some((x, k) => Math.abs(x - poses[0].placed[facet][k]) > 1e-6));

function deepest(ps: readonly Placed[], qs: readonly Placed[]): number {
  let most = -1;
  for (const p of ps) for (const q of qs) most = Math.max(most, depthIn(p, q, GIVE_MM), depthIn(q, p, GIVE_MM));
  return most;
}
