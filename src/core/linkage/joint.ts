/** The joints a linkage is made of: what may move, about what, and by how much. Lengths in mm, angles in rad. */
import { compose, cross3, identity, rotateOnly, scale3, shiftBy, turnAbout, type Rigid, type Vec3 } from './rigid';

/** A twist: turning `w` (rad) about the frame's origin and shifting `v` (mm), per unit of the joint's value. */
export interface Twist {
  readonly w: Vec3;
  readonly v: Vec3;
}

/**
 * One run of a track: straight (curvature 0) or an arc turning left about the facet's normal (1/mm). Where it begins at
 * a corner the heading first turns by `corner` (rad, to the left).
 */
export interface TrackRun {
  readonly lengthMm: number;
  readonly curvature: number;
  readonly corner?: number;
}

/** About a line, by the right hand. Value in rad. */
interface Turning {
  readonly point: Vec3;
  readonly axis: Vec3;
}
/** Slides along a path in a facet's plane and turns with it. Value is the way along it in mm. */
export interface Track {
  readonly kind: 'track';
  readonly start: Vec3;
  readonly heading: Vec3;
  readonly normal: Vec3;
  readonly runs: readonly TrackRun[];
  /** It comes back to where it begins, and goes on round. */
  readonly ring?: true;
}
export type Motion =
  /** A crease: folds up to half a turn to either side, + is valley; its role bounds it to one side. */
  | (Turning & { readonly kind: 'hinge' })
  /** A rivet: turns on and on. */
  | (Turning & { readonly kind: 'pivot' })
  | Track;

export const creaseMotion = (a: readonly [number, number], b: readonly [number, number]): Motion => {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  return { kind: 'hinge', point: [a[0], a[1], 0], axis: [(b[0] - a[0]) / length, (b[1] - a[1]) / length, 0] };
};
/** A rivet: turns in the plane of the facet. */
export const pivotMotion = (at: readonly [number, number]): Motion => ({
  kind: 'pivot',
  point: [at[0], at[1], 0],
  axis: [0, 0, 1],
});

export const trackLength = ({ runs }: Track): number => runs.reduce((sum, r) => sum + r.lengthMm, 0);

/** Least and greatest value a joint may have, rad or mm. */
export function boundsOf({ motion, role }: Pick<Joint, 'motion' | 'role'>): readonly [least: number, most: number] {
  if (motion.kind === 'hinge') return [role > 0 ? 0 : -Math.PI, role < 0 ? 0 : Math.PI];
  if (motion.kind === 'track' && !motion.ring) return [0, trackLength(motion)];
  return [-Infinity, Infinity];
}

export function motionAt(motion: Motion, q: number): Rigid {
  if (motion.kind !== 'track') return turnAbout(motion.point, motion.axis, q);
  const { before, run, part } = runAt(motion, q);
  return afterRun(motion, before, run, part);
}

/** Runs of a track with where each begins: on a drawn curve of hundreds no pose goes through all of them again. */
interface Begun {
  readonly run: TrackRun;
  readonly endMm: number;
  /** Placement at the end of the run before, ahead of this one's corner. */
  readonly before: Rigid;
}
const begun = new WeakMap<Track, readonly Begun[]>();
function begunRuns(track: Track): readonly Begun[] {
  const known = begun.get(track);
  if (known) return known;
  let [before, endMm] = [identity(), 0];
  const runs = track.runs.map((run): Begun => {
    const own = { run, before, endMm: (endMm += run.lengthMm) };
    before = afterRun(track, before, run, run.lengthMm);
    return own;
  });
  begun.set(track, runs);
  return runs;
}

/** The run that a value lies in, by halving; at its very end a run is still itself. */
function runAt(track: Track, q: number): { before: Rigid; run: TrackRun; part: number } {
  const runs = begunRuns(track);
  const lengthMm = runs[runs.length - 1].endMm;
  const way = track.ring ? q - Math.floor(q / lengthMm) * lengthMm : q;
  let [low, high] = [0, runs.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (runs[middle].endMm >= way) high = middle;
    else low = middle + 1;
  }
  const { before, run } = runs[low];
  return { before, run, part: low === 0 ? way : way - runs[low - 1].endMm };
}

/** Beyond an end the last run goes on, round a ring the first ones again. A corner is a turn on the spot. */
const afterRun = (track: Track, before: Rigid, run: TrackRun, part: number): Rigid =>
  compose(cornered(track, before, run), exponential(runTwist(track, run.curvature), part));
const cornered = (track: Track, before: Rigid, { corner }: TrackRun): Rigid =>
  corner ? compose(before, exponential(cornerTwist(track), corner)) : before;

/** Velocity of the moved frame per unit of the joint's value, seen from the still frame. */
export function twistAt(motion: Motion, q: number): Twist {
  if (motion.kind !== 'track') return { w: motion.axis, v: cross3(motion.point, motion.axis) };
  const { before, run } = runAt(motion, q);
  return carry(cornered(motion, before, run), runTwist(motion, run.curvature));
}

/** Adjoint action: a twist written in the frame that `m` starts from. */
export function carry(m: Rigid, { w, v }: Twist): Twist {
  const turned = rotateOnly(m, w);
  const moved = rotateOnly(m, v);
  const lever = cross3([m[3], m[7], m[11]], turned);
  return { w: turned, v: [moved[0] + lever[0], moved[1] + lever[1], moved[2] + lever[2]] };
}

const cornerTwist = ({ start, normal }: Track): Twist => ({ w: normal, v: cross3(start, normal) });
/**
 * Moving along the heading while turning about the normal: product of exponentials keeps every run in the start's
 * frame.
 */
function runTwist({ start, heading, normal }: Track, curvature: number): Twist {
  const w = scale3(normal, curvature);
  const lever = cross3(start, w);
  return { w, v: [heading[0] + lever[0], heading[1] + lever[1], heading[2] + lever[2]] };
}
function exponential({ w, v }: Twist, q: number): Rigid {
  const rate = Math.hypot(...w);
  if (rate === 0) return shiftBy(scale3(v, q));
  const axis = scale3(w, 1 / rate);
  const point = scale3(cross3(w, v), 1 / (rate * rate));
  return turnAbout(point, axis, q * rate);
}

export interface Joint {
  readonly id: string;
  /** Bodies tied by it: `b` moves against `a`. */
  readonly a: number;
  readonly b: number;
  /** In the frame of `a`. */
  readonly motion: Motion;
  /**
   * Where the frame of `b` lies in that of `a` while the joint's value is 0; null for the same frame, as between
   * facets of one flat piece.
   */
  readonly placement: Rigid | null;
  /** +1 valley, -1 mountain, 0 either. */
  readonly role: -1 | 0 | 1;
  /** Value as a function of a drive. Absent: solved for. */
  readonly driven?: Driven;
  /**
   * Exact values at the two ends of the drive that leads it, where the design fixes them: for the opening first closed,
   * then open flat; for others first at rest.
   */
  readonly ends: readonly [closed: number | undefined, open: number | undefined];
  /** Two points of the joint's line in the frame of `a`: crease ends, or the ends of the track. */
  readonly span: readonly [Vec3, Vec3];
  /** Of a joint that is glue: the corners of its area in the frame of `a`, which part where the paper must bend. */
  readonly patch?: readonly Vec3[];
  /** Joint whose fold it would follow when free (crease stiffness at rest); absent: the lead drive's. */
  readonly follows?: number;
}

/** `at + rate * drive`, or with `between` that of the drive held between two values (a belt that passes a strap). */
export interface Driven {
  /** Index of the drive. */
  readonly drive: number;
  readonly at: number;
  readonly rate: number;
  readonly between?: readonly [from: number, to: number];
}
export function drivenValue({ at, rate, between }: Driven, drive: number): number {
  return at + rate * (between ? Math.min(between[1], Math.max(between[0], drive)) : drive);
}

export const jointLength = (j: Joint): number =>
  Math.hypot(j.span[1][0] - j.span[0][0], j.span[1][1] - j.span[0][1], j.span[1][2] - j.span[0][2]);

/** Motion of frame b in frame a. */
export const jointTransform = (j: Joint, q: number): Rigid =>
  j.placement ? compose(motionAt(j.motion, q), j.placement) : motionAt(j.motion, q);

export interface Linkage {
  /** Bodies are numbered from 0; body 0 lies still. */
  readonly bodies: number;
  readonly joints: readonly Joint[];
  /** What is moved by hand. The first is the opening, from closed to open flat (rad of the gutter's fold). */
  readonly drives: readonly DriveRange[];
}
/** A drive in the unit of its joints, rad or mm. */
export interface DriveRange {
  /** Its two ends; the one where it is at rest first, if it is at one. */
  readonly range: readonly [number, number];
  readonly rest: number;
  /** Where what follows it lies flat. */
  readonly flat: number;
  /** It is the fold of a crease itself: what follows it evenly folds as far, whatever its range. */
  readonly isFold?: true;
}
/** The opening of a card, as the gutter's fold. */
export const OPENING_RANGE: DriveRange = { range: [Math.PI, 0], rest: Math.PI, flat: 0, isFold: true };
