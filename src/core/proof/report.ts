/**
 * A pose as plain data for scripts: the answer of `pose` and `fold`. World axes of docs/mechanisms.md, mm and
 * degrees.
 */
import type { Assembly } from '../assembly/assembly';
import { allMeasures, facetOutline, foldDeg, landmarksOf, onFacet, poseAt, type Pose } from '../assembly/pose';
import type { Vec3 } from '../linkage';

export interface PoseReport {
  readonly drives: Record<string, number>;
  readonly residual_mm: number;
  readonly iterations: number;
  readonly flex_mm: number;
  readonly facets: readonly { id: string; piece: string; points: readonly Vec3[] }[];
  readonly creases: readonly { id: string; role: string; mechanism: string; fold_deg: number; a: Vec3; b: Vec3 }[];
  readonly landmarks: Record<string, Record<string, Vec3>>;
  readonly measures: Record<string, Record<string, number>>;
  /** Set where the travel stops before the pose asked for: the pose is the last one reached. */
  readonly stopped?: { readonly asked: number; readonly reason: string; readonly creases: readonly string[] };
}

/** @param drive name of the lead drive and how to show it, from the card's opening */
export function reportPose(
  assembly: Assembly,
  openDeg: number,
  drive: { name: string; value: (openDeg: number) => number } = { name: 'open', value: (x) => x },
): PoseReport {
  const pose = poseAt(assembly, openDeg);
  const closed = poseAt(assembly, 0);
  return {
    drives: { [drive.name]: drive.value(pose.openDeg) },
    residual_mm: pose.folds.residualMm,
    iterations: pose.folds.iterations,
    flex_mm: pose.flexMm,
    facets: assembly.facets.map((f, i) => ({
      id: f.id,
      piece: f.piece,
      points: facetOutline(pose, assembly.facets, i),
    })),
    creases: creaseLines(assembly, pose),
    landmarks: Object.fromEntries(assembly.mechanisms.map((m) => [m.id, landmarksOf(assembly, pose, m)])),
    measures: allMeasures(assembly, pose, closed.stop ? null : closed),
    ...(pose.stop
      ? {
          stopped: {
            asked: drive.value(openDeg),
            reason: pose.stop.reason,
            creases: [...new Set(pose.stop.joints.map((j) => assembly.linkage.joints[j].id))],
          },
        }
      : {}),
  };
}

/** Every stretch of crease; where other mechanisms interrupt one, its further stretches are numbered `#2`, `#3`. */
function creaseLines(assembly: Assembly, pose: Pose): PoseReport['creases'][number][] {
  const seen = new Map<string, number>();
  return assembly.creases.flatMap((c) =>
    c.segments.map((s) => {
      const n = (seen.get(c.id) ?? 0) + 1;
      seen.set(c.id, n);
      return {
        id: n === 1 ? c.id : `${c.id}#${n}`,
        role: c.role,
        mechanism: c.mechanism,
        fold_deg: foldDeg(pose, c),
        a: onFacet(pose, c.a, s.a),
        b: onFacet(pose, c.a, s.b),
      };
    }),
  );
}
