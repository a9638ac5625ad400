/**
 * A card is posted with everything at rest. What lies flat in the shut card as well when it is moved, and makes it
 * longer or thicker there, is noted: it must be put back before the card goes into its envelope.
 */
import { openOf, restOf, type Drive } from '../drives';
import { onFacet, type Pose } from '../assembly/pose';
import { ownerOfId } from '../ids';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { overhangOf } from './overhang';
import { basePiece, finding, type Evidence, type Finding, type Rule } from './rule';
import { thicknessMap } from './stack-map';
import { wordsFor } from './words';

/** What stands up further than this does not lie in the shut card, mm. */
const FLAT_MM = 8;
/** Places of a way at which the stack is mapped. */
const MOST_MAPS = 6;
/** A sheet more than this is felt, mm. */
const THICKER_FROM_MM = 0.05;

/** Poses of the shut card in which one drive is out of rest, and all still lies flat. */
function shutWith({ assembly, byHand }: Evidence, drive: Drive): Pose[] {
  const rest = restOf(assembly.drives)[drive.id];
  const flat = (pose: Pose): boolean =>
    assembly.facets.every((f, i) => f.polygon.outer.every((p) => Math.abs(onFacet(pose, i, p)[2]) < FLAT_MM));
  return byHand.filter((p) => openOf(p.state) === 0 && p.state[drive.id] !== rest && flat(p));
}

function noted(
  evidence: Evidence,
  drive: Drive,
  rule: 'overhang' | 'thickness',
  more: (pose: Pose) => number,
): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  let worst: { readonly mm: number; readonly pose: Pose } | null = null;
  const poses = shutWith(evidence, drive);
  // A map of the stack is worth its while at some places of the way only.
  const every = rule === 'overhang' ? 1 : Math.ceil(poses.length / MOST_MAPS);
  for (const pose of poses.filter((_, k) => (poses.length - 1 - k) % every === 0)) {
    const mm = more(pose);
    if (mm > (worst?.mm ?? (rule === 'overhang' ? SIZE_ROUNDING_MM : THICKER_FROM_MM))) worst = { mm, pose };
  }
  if (!worst) return [];
  const mechanism = ownerOfId(drive.id);
  const value = worst.pose.state[drive.id];
  const moved = `${drive.label} at ${drive.unit === 'mm' ? say.mm(value) : `${value.toFixed(0)}°`}`;
  const size = rule === 'overhang' ? `${say.mm(worst.mm)} longer` : `${say.fine(worst.mm)} thicker`;
  return [
    finding({
      rule,
      severity: 'note',
      mechanism,
      piece: assembly.facets.find((f) => f.mechanism === mechanism)?.piece ?? basePiece(assembly).id,
      measured: worst.mm,
      at: worst.pose.state,
      aspect: `out of rest ${drive.id}`,
      message: `${moved} makes the shut card ${size}: post it at rest.`,
      subjects: assembly.facets.filter((f) => f.mechanism === mechanism).map((f) => f.id),
    }),
  ];
}

const ofDrives = (
  id: 'overhang' | 'thickness',
  more: (evidence: Evidence, closed: Pose) => (pose: Pose) => number,
): Rule => ({
  id,
  needs: 'travel',
  check: (evidence) => {
    const { closed } = evidence;
    if (!closed) return [];
    const moreThan = more(evidence, closed);
    return evidence.assembly.drives.slice(1).flatMap((drive) => noted(evidence, drive, id, moreThan));
  },
});

const furthest = ({ assembly }: Evidence, pose: Pose): number => Math.max(...Object.values(overhangOf(assembly, pose)));

export const AT_REST: readonly Rule[] = [
  ofDrives('overhang', (evidence, closed) => {
    const rest = furthest(evidence, closed);
    return (pose) => furthest(evidence, pose) - rest;
  }),
  ofDrives('thickness', (evidence, closed) => {
    const { greatest } = thicknessMap(evidence, closed);
    return (pose) => thicknessMap(evidence, pose).greatest.mm - greatest.mm;
  }),
];
