/** What the chart of the travel shows of a pose: reach, clearance, lift, and the tops of figures. */
import { FLAT, openOf, restOf, travelStates, type Drive } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { landmarksOf, measuresOf, onFacet, poseAt, type Pose } from '../assembly/pose';
import { ownerOfId } from '../ids';
import { applyRigid, invert } from '../linkage';
import { leastClearance, reachPast } from '../rules';

export interface TravelPoint {
  readonly open: number;
  /**
   * How far the furthest point reaches past the fore edges' sweep (mm); negative is room left. Null without
   * mechanisms.
   */
  readonly reach_mm: number | null;
  /** Least gap between mechanisms that stand side by side (mm). Null with fewer than two. */
  readonly clearance_mm: number | null;
  /** Highest point above leaf A, mm. */
  readonly lift_mm: number;
  /** Height of each figure's top above leaf A, by mechanism, mm. */
  readonly tops: Readonly<Record<string, number>>;
}
export function travelPoint(assembly: Assembly, pose: Pose): TravelPoint {
  const heights = heightsOf(assembly, pose);
  return {
    open: openOf(pose.state),
    reach_mm: reachPast(assembly, pose, () => true)?.fore ?? null,
    clearance_mm: leastClearance(assembly, pose)?.mm ?? null,
    lift_mm: Math.max(0, ...Object.values(heights)),
    tops: { ...heights, ...topsInSides(assembly, pose, heights) },
  };
}

/** The travel of a drive that is moved by hand, with the card flat and all else at rest. */
export interface HandPoint extends TravelPoint {
  /** Of the drive, in its unit. */
  readonly value: number;
  /** Its mechanism's measures there. */
  readonly measures: Readonly<Record<string, number>>;
}
export function handTravel(assembly: Assembly, drive: Drive): HandPoint[] {
  const mechanism = assembly.mechanisms.find((m) => m.id === ownerOfId(drive.id));
  return travelStates(drive, HAND_CHART_STEPS, { ...restOf(assembly.drives), ...FLAT }).flatMap((state) => {
    const pose = poseAt(assembly, state);
    if (pose.stop) return [];
    const measures = mechanism ? measuresOf(assembly, pose, null, mechanism) : {};
    return [{ ...travelPoint(assembly, pose), value: state[drive.id], measures }];
  });
}
const HAND_CHART_STEPS = 24;

/** Highest place of every mechanism's own facets over leaf A, mm. */
function heightsOf(assembly: Assembly, pose: Pose): Record<string, number> {
  const out: Record<string, number> = {};
  assembly.facets.forEach((f, i) => {
    // Of the base what a hand folds rises; its leaves do not.
    if (f.mechanism !== assembly.base.mechanism || !assembly.leafBodies.has(f.body))
      for (const p of f.polygon.outer)
        out[f.mechanism] = Math.max(out[f.mechanism] ?? -Infinity, onFacet(pose, i, p)[2]);
  });
  return out;
}

/**
 * Tops of mechanisms without facets of their own, or whose facets lie in one side: a half-cut lies in its own side, and
 * its tip is over the other.
 */
function topsInSides(
  assembly: Assembly,
  pose: Pose,
  heights: Readonly<Record<string, number>>,
): Record<string, number> {
  const out: Record<string, number> = {};
  for (const m of assembly.mechanisms) {
    const inSide = assembly.pieces.some((p) => p.mechanism === m.id && p.behindFold);
    const isFlat = inSide || heights[m.id] === undefined;
    const under = isFlat ? assembly.facets.findIndex((f) => f.id === m.host?.sideB) : -1;
    if (under < 0) continue;
    const back = invert(pose.placed[under]);
    const over = Object.values(landmarksOf(assembly, pose, m)).map((p) => Math.abs(applyRigid(back, p)[2]));
    if (over.length > 0) out[m.id] = Math.max(...over);
  }
  return out;
}
