/**
 * `tip`, of what hangs: a part that goes round on a rivet and stays upright does so by its own weight, so its rivet
 * has to be above the middle of that, with all that is stuck on it.
 */
import { applyRigid, compose, dot3, invert, rotateOnly, sub3, unit3, type Joint, type Vec3 } from '../linkage';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { movedFacets, pathsOf, type HandPath } from './looks';
import { finding, leversOf, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { weightAt } from './weight';
import { turnBetween } from './seen-from';
import { wordsFor } from './words';

/** A rivet this far above the middle of the weight brings it back; common practice, no source. */
export const LEAST_HANG_MM = 1;
/** What turns by less than this on its way stays upright, degrees. */
const UPRIGHT_DEG = 0.01;

export const hung: Rule = {
  id: 'tip',
  needs: 'travel',
  check: (evidence) => {
    const { assembly, byHand } = evidence;
    const seen = new Set<number>();
    return pathsOf(assembly, byHand).flatMap((path) =>
      hangingOn(assembly, path).flatMap((joint) => {
        if (seen.has(joint.b)) return [];
        seen.add(joint.b);
        return told(evidence, joint, path);
      }),
    );
  },
};

/** Rivets whose further part is carried about on the way and never turns. */
function hangingOn({ facets, linkage }: Assembly, { poses }: HandPath): Joint[] {
  const moved = movedFacets(poses);
  const upright = (body: number): boolean =>
    facets.some((f, i) => f.body === body && moved.has(i)) &&
    facets.every(
      (f, i) => f.body !== body || poses.every((p) => turnBetween(poses[0].placed[i], p.placed[i]) < UPRIGHT_DEG),
    );
  return linkage.joints.filter((j) => j.motion.kind === 'pivot' && upright(j.b));
}

function told(evidence: Evidence, joint: Joint, { drive, poses: [pose] }: HandPath): Finding[] {
  const { assembly } = evidence;
  const first = assembly.facets.findIndex((f) => f.body === joint.b);
  const facet = assembly.facets[first];
  const up = upOf(assembly, pose, facet.mechanism);
  if (!up || joint.motion.kind !== 'pivot' || !joint.placement) return [];
  const body = compose(pose.placed[first], invert(facet.toBody));
  const rivet = applyRigid(compose(body, invert(joint.placement)), joint.motion.point);
  const weight = weightAt(evidence, pose, (k) => assembly.facets[k].body === joint.b);
  const marginMm = dot3(sub3(rivet, weight.at), up);
  if (marginMm >= LEAST_HANG_MM - SIZE_ROUNDING_MM) return [];
  const say = wordsFor(evidence);
  const turnsOver = marginMm <= SIZE_ROUNDING_MM;
  const layers = assembly.layers.filter((l) => assembly.facets[l.facet].body === joint.b);
  const place = turnsOver
    ? `${say.mm(Math.abs(marginMm))} below the middle of its weight: it turns over`
    : `only ${say.mm(marginMm)} above the middle of its weight; from ${say.mm(LEAST_HANG_MM)} it hangs`;
  return [
    finding({
      rule: 'tip',
      severity: turnsOver ? 'blocks' : 'risk',
      mechanism: facet.mechanism,
      piece: facet.piece,
      measured: marginMm,
      limit: LEAST_HANG_MM,
      at: pose.state,
      aspect: `${drive.id} ${facet.id}`,
      message: `The rivet of ${say.partOf(facet.id)} lies ${place}.`,
      subjects: [facet.id, ...layers.map((l) => l.id)],
      levers: [
        ...turnsOf(assembly, facet.mechanism, 'weight'),
        ...layers.flatMap((l) => leversOf(l.id, 'y', 'height', 'width')),
      ],
    }),
  ];
}

/** The way up of the face that a mechanism is fixed on, in the world. */
function upOf({ mechanisms, facets }: Assembly, pose: Pose, mechanism: string): Vec3 | null {
  const face = mechanisms.find((m) => m.id === mechanism)?.face;
  const on = face ? facets.findIndex((f) => f.piece === face.piece && f.id === face.facet) : -1;
  return face && on >= 0 ? unit3(rotateOnly(compose(pose.placed[on], face.placement), [0, 1, 0])) : null;
}
