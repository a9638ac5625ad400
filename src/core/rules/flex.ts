/**
 * `flex`: the loops close as rigid facets through the travel; where they do not, the paper bends or the travel ends.
 */
import { betweenStates, OPEN, openOf, restOf, stateIn } from '../drives';
import { ownerOfId } from '../ids';
import type { Assembly } from '../assembly/assembly';
import { poseAt, stopped, type Pose } from '../assembly/pose';
import { FLEX_FROM_MM } from '../tolerance';
import { mechanismOfJoint } from './flat-fold';
import { finding, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { atState, wordsFor } from './words';

export const FLEX_RISK_MM = 1;
const BLOCKS_MM = 10;

/** Why a travel ends, as it is said of what folds. */
export const WHY_STOPPED = {
  taut: 'is pulled taut',
  reversed: 'would have to fold the other way',
  'past-180': 'is folded as far as paper goes',
  'track-end': 'has come to the end of its track',
  'wrong-branch': 'would have to jump to another pose',
  'no-start': 'has no pose that its folds allow',
  'not-rigid': 'folds as rigid facets in no way that was found',
  'given-up': 'is too entangled to be followed further',
} as const;

export const flex: Rule = {
  id: 'flex',
  needs: 'travel',
  check: (evidence) => {
    const { assembly, travel } = evidence;
    const say = wordsFor(evidence);
    const out: Finding[] = [];
    for (const stop of assembly.travel.stops()) {
      const { id, label, unit, to, value } = stopped(assembly, stop);
      const opening = id === OPEN;
      const where = opening
        ? `The card stops at ${value.toFixed(1)}°`
        : `${label} stops at ${unit === 'mm' ? say.mm(value) : `${value.toFixed(1)}°`}`;
      const mechanism = stop.joints.length > 0 ? mechanismOfJoint(assembly, stop.joints[0]) : assembly.base.mechanism;
      const creases = [...new Set(stop.joints.map((j) => assembly.linkage.joints[j].id))];
      const named = creases.length > 0 ? ` (${creases.slice(0, 3).map(say.part).join(', ')})` : '';
      out.push(
        finding({
          rule: 'flex',
          severity: 'blocks',
          mechanism,
          measured: value,
          limit: value > 1e-6 ? to : 0,
          unit,
          at: { ...restOf(assembly.drives), [id]: value },
          aspect: `stop ${stop.toward ?? ''}`.trim(),
          subjects: creases,
          levers: turnsOf(assembly, mechanism, 'closing'),
          message: `${where}: ${say.title(mechanism)} ${WHY_STOPPED[stop.reason]}${named}.`,
        }),
      );
    }
    const worst = travel.reduce<(typeof travel)[number] | null>((w, p) => (p.flexMm > (w?.flexMm ?? 0) ? p : w), null);
    if (worst && worst.flexMm > FLEX_RISK_MM) {
      const mechanism = bendingMechanism(assembly, worst);
      const blocks = worst.flexMm > BLOCKS_MM;
      out.push(
        finding({
          rule: 'flex',
          severity: blocks ? 'blocks' : 'risk',
          mechanism,
          measured: worst.flexMm,
          limit: blocks ? BLOCKS_MM : FLEX_RISK_MM,
          at: worst.state,
          aspect: 'bend',
          subjects: worst.flexAt ? [worst.flexAt] : [],
          levers: turnsOf(assembly, mechanism, 'closing'),
          message:
            `${say.title(mechanism)} closes only by bending: ${say.mm(worst.flexMm)} ` +
            `${atState(worst.state, say.title)}. What it meets by less than it bends is not told.`,
        }),
      );
    }
    return [...out, ...tautBows(evidence), ...unreached(evidence)];
  },
};

/**
 * What bends without stretching and is too short: it holds the card back where its ends are as far apart as it is
 * long.
 */
function tautBows({ assembly, travel, brief }: Evidence): Finding[] {
  const say = wordsFor({ assembly, brief });
  const shortIn = (pose: Pose, bend: string): number => pose.bows.get(bend)?.bow.shortMm ?? 0;
  return assembly.bends.flatMap((bend): Finding[] => {
    const k = travel.findIndex((pose) => shortIn(pose, bend.id) > FLEX_FROM_MM);
    if (k < 0) return [];
    const shortMm = Math.max(...travel.map((pose) => shortIn(pose, bend.id)));
    const at =
      k === 0 ? travel[k].state : lastState(assembly, travel[k - 1], travel[k], (p) => shortIn(p, bend.id) === 0);
    const mechanism = ownerOfId(bend.id);
    return [
      finding({
        rule: 'flex',
        severity: 'blocks',
        mechanism,
        piece: bend.piece,
        measured: openOf(at),
        limit: assembly.drives[0].to,
        unit: 'deg',
        at,
        aspect: `taut ${bend.id}`,
        subjects: [bend.facet, ...bend.creases],
        levers: turnsOf(assembly, mechanism, 'closing'),
        message:
          `The card stops at ${openOf(at).toFixed(1)}°: ${say.title(mechanism)} is pulled taut ` +
          `(${say.part(bend.id)}, ${say.mm(shortMm)} too short to open further).`,
      }),
    ];
  });
}

/** The last state between two neighbouring poses in which something still holds; it does in the first. */
function lastState(assembly: Assembly, from: Pose, to: Pose, holds: (pose: Pose) => boolean): Pose['state'] {
  let [low, high] = [0, 1];
  const state = (part: number): Pose['state'] => betweenStates(from.state, to.state, part);
  for (let k = 0; k < HALVINGS; k++) {
    const part = (low + high) / 2;
    if (holds(poseAt(assembly, state(part)))) low = part;
    else high = part;
  }
  return state(low);
}
const HALVINGS = 20;

/** The mechanism whose crease or glue parts most in a pose. */
export const bendingMechanism = (assembly: Assembly, { flexAt }: Pose): string =>
  assembly.creases.find((c) => c.id === flexAt)?.mechanism ?? (flexAt ? ownerOfId(flexAt) : assembly.base.mechanism);

/** States that are named and that a hand never gets to; where the opening stops has been said. */
function unreached(evidence: Evidence): Finding[] {
  const { assembly, brief } = evidence;
  const say = wordsFor(evidence);
  return brief.states.flatMap((named): Finding[] => {
    const { stop } = poseAt(assembly, stateIn(assembly.drives, named));
    if (!stop || stop.lead === OPENING_FIRST) return [];
    const { id, label, unit, value } = stopped(assembly, stop);
    const there = unit === 'mm' ? say.mm(value) : `${value.toFixed(1)}°`;
    return [
      finding({
        rule: 'flex',
        severity: 'blocks',
        mechanism: ownerOfId(id),
        measured: value,
        unit,
        at: { ...stateIn(assembly.drives, named), [id]: value },
        aspect: `state ${named.id}`,
        levers: turnsOf(assembly, ownerOfId(id), 'closing'),
        message: `${named.name} cannot be reached: ${label} stops at ${there}, it ${WHY_STOPPED[stop.reason]}.`,
      }),
    ];
  });
}
/** Index of the opening among the drives. */
const OPENING_FIRST = 0;
