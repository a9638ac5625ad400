/** Decides by dense looks at solids whether a hand can move everything: yes, no, or too near to tell. */
import { poseAt, type Pose } from '../src/core/assembly/pose';
import { buildAssembly } from '../src/core/build/build';
import { stockOf, type Design } from '../src/core/document/design';
import { liesOnLeaf } from './lying';
import { depthIn, GIVE_MM, place, slabsOf, type Placed, type Slab } from './solids';

export type Answer = 'jams' | 'moves' | 'undecided';

/** Looks are as close as this. */
const STEP = { deg: 2, mm: 0.75 } as const;
/** Parts that are this deep in each other do jam, mm; those that are less deep than `NOT` do not. */
const SURELY = 0.6;
export const OPENINGS = [180, 135, 90, 45];
/** Less open than this nobody moves anything against a leaf. */
export const HAND_STOPS_DEG = 90;

export interface Judged {
  readonly answer: Answer;
  readonly why: string;
}

/** @param lowIsLeaf whether what lies on a leaf all the way is taken as that leaf is, which a hand stops at */
export function judgeHands(design: Design, lowIsLeaf = false): Judged {
  const assembly = buildAssembly(design);
  const slabs = slabsOf(assembly, (id) => stockOf(design, id));
  const leaves = assembly.leafBodies;
  const rest: Record<string, number> = Object.fromEntries(assembly.drives.map((d) => [d.id, d.rest]));
  let doubtful = '';
  for (const drive of assembly.drives.slice(1))
    for (const open of OPENINGS) {
      if (open > assembly.drives[0].to) continue;
      const steps = Math.ceil((drive.to - drive.from) / STEP[drive.unit]);
      const poses: Pose[] = [];
      for (let k = 0; k <= steps; k++) {
        const pose = poseAt(assembly, {
          ...rest,
          open,
          [drive.id]: drive.from + ((drive.to - drive.from) * k) / steps,
        });
        if (!pose.stop && pose.flexMm === 0) poses.push(pose);
      }
      const placed = poses.map(() => new Map<Slab, Placed>());
      const placedIn = (pose: Pose, k: number, slab: Slab): Placed => {
        const known = placed[k].get(slab) ?? place(slab, pose);
        placed[k].set(slab, known);
        return known;
      };
      for (const [a, b] of pairsOf(slabs, assembly.facets, poses)) {
        const lies = (s: Slab): boolean =>
          leaves.has(assembly.facets[s.facet].body) || (lowIsLeaf && poses.every((p) => liesOnLeaf(assembly, p, s)));
        if (open < HAND_STOPS_DEG && [a, b].some(lies)) continue;
        const depths = poses.map((p, k) => depthBetween(placedIn(p, k, a), placedIn(p, k, b)));
        const tilts = poses.map((p) => tiltDeg(p, a.facet, b.facet));
        const slides = Math.max(...tilts) < 0.01;
        // What turns over and lies down on something low leans on it: whether that is too high is not told from here.
        const counted = depths.filter((_, k) => slides || tilts[k] > LIES_DEG);
        const most = Math.max(0, ...counted);
        if (Math.max(...depths) > 0 && most === 0) doubtful = `${name(a)} lies down on ${name(b)}`;
        if (most <= 0) continue;
        const what = `${name(a)} in ${name(b)} by ${most.toFixed(2)} at ${open}, ${drive.id}`;
        // What is lain on all the way is lifted, or held: by how much room there is, this judge does not say.
        const always = (a.layer !== null || b.layer !== null) && Math.min(...depths) > -0.5;
        if (most >= SURELY && !always) return { answer: 'jams', why: what };
        doubtful = what;
      }
    }
  return doubtful === '' ? { answer: 'moves', why: '' } : { answer: 'undecided', why: doubtful };
}

/** Turned nearer than this to what is under it a sheet lies down on it. */
const LIES_DEG = 8;
function tiltDeg(pose: Pose, f: number, g: number): number {
  const [m, n] = [pose.placed[f], pose.placed[g]];
  const cosine = Math.abs(m[2] * n[2] + m[6] * n[6] + m[10] * n[10]);
  return (Math.acos(Math.min(1, cosine)) * 180) / Math.PI;
}

const name = (s: Slab): string => `${s.mechanism}${s.layer ? ` ${s.layer}` : ''} ${s.facet}`;

const depthBetween = (p: Placed, q: Placed): number => Math.max(depthIn(p, q, GIVE_MM), depthIn(q, p, GIVE_MM));

/** Parts of different bodies that are not of one mechanism by its own design, and do not stay as they are together. */
function pairsOf(
  slabs: readonly Slab[],
  facets: readonly { readonly body: number }[],
  poses: readonly Pose[],
): [Slab, Slab][] {
  const out: [Slab, Slab][] = [];
  if (poses.length === 0) return out;
  const moves = (f: number, g: number): boolean => {
    const [first, last] = [poses[0], poses[Math.floor(poses.length / 3)]];
    const seen = (p: Pose): string =>
      [0, 1, 2]
        .map((k) => {
          const probe = [p.placed[f], p.placed[g]];
          const d = [3, 7, 11].map((i) => probe[1][i] - probe[0][i]);
          return (probe[0][k] * d[0] + probe[0][4 + k] * d[1] + probe[0][8 + k] * d[2]).toFixed(5);
        })
        .concat(
          [0, 1, 2, 4, 5, 6].map((k) => {
            const [m, n] = [p.placed[f], p.placed[g]];
            const [r, c] = [Math.floor(k / 4), k % 4];
            return (m[r] * n[c] + m[4 + r] * n[4 + c] + m[8 + r] * n[8 + c]).toFixed(5);
          }),
        )
        .join();
    return seen(first) !== seen(last) || seen(first) !== seen(poses[poses.length - 1]);
  };
  slabs.forEach((a, i) =>
    slabs.slice(i + 1).forEach((b) => {
      if (facets[a.facet].body === facets[b.facet].body) return;
      if (a.mechanism === b.mechanism && !a.layer && !b.layer) return;
      if (moves(a.facet, b.facet)) out.push([a, b]);
    }),
  );
  return out;
}
