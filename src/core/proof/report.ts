/**
 * A pose as plain data for scripts: the answer of `pose` and `fold`. World axes of docs/mechanisms.md, mm and
 * degrees.
 */
import { openOf, OPENING, restOf, type Drive, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { allMeasures, facetOutline, foldDeg, landmarksOf, onFacet, poseAt, type Pose } from '../assembly/pose';
import type { Vec3 } from '../linkage';
import { tipAt, WHY_STOPPED, type Brief } from '../rules';

/** A drive, and where it stands. */
export type ReportedDrive = Pick<Drive, 'id' | 'unit' | 'from' | 'to' | 'rest'> & { readonly value: number };

export interface PoseReport {
  readonly drives: readonly ReportedDrive[];
  readonly residual_mm: number;
  readonly iterations: number;
  readonly flex_mm: number;
  readonly facets: readonly { id: string; piece: string; points: readonly Vec3[] }[];
  readonly creases: readonly { id: string; role: string; mechanism: string; fold_deg: number; a: Vec3; b: Vec3 }[];
  readonly landmarks: Record<string, Record<string, Vec3>>;
  readonly measures: Record<string, Record<string, number>>;
  /** Set where the travel stops before the pose asked for: the pose is the last one reached. */
  readonly stopped?: {
    readonly asked: number;
    readonly reason: string;
    /** In a sentence. */
    readonly says: string;
    /** The first of the creases that it is about, and how many there are. */
    readonly creases: readonly string[];
    readonly crease_count: number;
  };
}

const reported = ({ id, unit, from, to, rest }: Drive, value: number): ReportedDrive => ({
  id,
  unit,
  from,
  to,
  rest,
  value,
});

/** @param asFold the opening is told as the fold of the lead crease, as of a crease pattern */
export function reportPose(assembly: Assembly, state: State, asFold = false, brief?: Brief): PoseReport {
  const pose = poseAt(assembly, state);
  const closed = poseAt(assembly, restOf(assembly.drives));
  const told = (open: number): number => (asFold ? 180 - open : open);
  return {
    drives: asFold
      ? [reported({ ...OPENING, id: 'fold' }, told(openOf(pose.state)))]
      : assembly.drives.map((d) => reported(d, pose.state[d.id])),
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
    measures: withTip(allMeasures(assembly, pose, closed.stop ? null : closed), assembly, pose, brief),
    ...(pose.stop ? { stopped: stoppedAt(assembly, pose, told(openOf(state)), told(openOf(pose.state))) } : {}),
  };
}

/** @param asked the value that was asked for; `reached`: the last there is, degrees */
function stoppedAt(
  assembly: Assembly,
  { stop, flexMm }: Pose,
  asked: number,
  reached: number,
): NonNullable<PoseReport['stopped']> {
  const { reason, joints } = stop!;
  const creases = [...new Set(joints.map((j) => assembly.linkage.joints[j].id))];
  const bends = flexMm > 0 ? ` Bent there as it is, the paper would be ${flexMm.toFixed(2)} mm short at worst.` : '';
  return {
    asked,
    reason,
    says: `It ${WHY_STOPPED[reason]} at ${reached.toFixed(1)} of ${asked.toFixed(1)} degrees.${bends}`,
    creases: creases.slice(0, 1),
    crease_count: creases.length,
  };
}

/** With how far inside what it stands on the card's weight lies, of a base that is built to stand. */
function withTip(
  measures: PoseReport['measures'],
  assembly: Assembly,
  pose: Pose,
  brief: Brief | undefined,
): PoseReport['measures'] {
  const stance = brief?.stands;
  if (!brief || !stance || pose.stop) return measures;
  const { mechanism } = assembly.base;
  return { ...measures, [mechanism]: { ...measures[mechanism], tip_mm: tipAt({ assembly, brief }, pose, stance) } };
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
