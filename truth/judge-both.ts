/** Decides whether things moved by two hands meet, one against the other wherever both may be. */
import { poseAt, type Pose } from '../src/core/assembly/pose';
import { buildAssembly } from '../src/core/build/build';
import { stockOf, type Design } from '../src/core/document/design';
import type { Judged } from './judge';
import { depthIn, GIVE_MM, place, slabsOf, type Placed } from './solids';

/** Looks of each hand are as close as this. */
const STEP = { deg: 3, mm: 1 } as const;
const SURELY_MM = 0.6;

/** The card lies open: each hand is moved by itself; every place of one is held against every place of the other. */
export function judgeBoth(design: Design): Judged {
  const assembly = buildAssembly(design);
  const slabs = slabsOf(assembly, (id) => stockOf(design, id));
  const [opening, ...hands] = assembly.drives;
  const rest = Object.fromEntries(assembly.drives.map((d) => [d.id, d.rest]));
  const ways = hands.map((drive) => {
    const steps = Math.ceil((drive.to - drive.from) / STEP[drive.unit]);
    const places = Array.from({ length: steps + 1 }, (_, k) => drive.from + ((drive.to - drive.from) * k) / steps);
    const poses = places.map((value) => poseAt(assembly, { ...rest, [opening.id]: opening.to, [drive.id]: value }));
    return { drive, poses, parts: slabs.filter((s) => movesIn(poses, s.facet)) };
  });
  let worst = { mm: -1, why: '' };
  ways.forEach((a, i) =>
    ways.slice(i + 1).forEach((b) => {
      const [first, second] = [a, b].map(({ poses, parts }) => poses.map((pose) => parts.map((s) => place(s, pose))));
      first.forEach((ps, k) =>
        second.forEach((qs, l) => {
          const mm = deepest(ps, qs);
          if (mm > worst.mm) worst = { mm, why: `${a.drive.id} ${k} and ${b.drive.id} ${l}, by ${mm.toFixed(2)}` };
        }),
      );
    }),
  );
  if (worst.mm >= SURELY_MM) return { answer: 'jams', why: worst.why };
  return { answer: worst.mm < 0 ? 'moves' : 'undecided', why: worst.why };
}

const movesIn = (poses: readonly Pose[], facet: number): boolean =>
  poses.some((p) => p.placed[facet].some((x, k) => Math.abs(x - poses[0].placed[facet][k]) > 1e-6));

function deepest(ps: readonly Placed[], qs: readonly Placed[]): number {
  let most = -1;
  for (const p of ps) for (const q of qs) most = Math.max(most, depthIn(p, q, GIVE_MM), depthIn(q, p, GIVE_MM));
  return most;
}
