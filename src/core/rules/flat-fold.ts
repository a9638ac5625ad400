/** `flat-fold`: at the closed pose every facet lies in one plane and every loop closes. */
import { CLOSED, OPEN, openTo } from '../drives';
import { onFacet, stopped, type Pose } from '../assembly/pose';
import { CARD, ownerOfId } from '../ids';
import { FLAT_PLANE_MM } from '../tolerance';
import type { Assembly } from '../assembly/assembly';
import { unsoundMechanisms } from '../assembly/misfit';
import { caliperOf, finding, turnsOf, type Draft, type Evidence, type Finding, type Rule } from './rule';
import { postedPose } from './posted';
import { wordsFor } from './words';

/** The mechanism that a joint of the linkage belongs to. */
export const mechanismOfJoint = (assembly: Assembly, joint: number): string => {
  const id = assembly.linkage.joints[joint]?.id;
  return assembly.creases.find((c) => c.id === id)?.mechanism ?? (id ? ownerOfId(id) : CARD);
};

export const flatFold: Rule = {
  id: 'flat-fold',
  needs: 'closed',
  check: (evidence) => {
    const said = [...gaps(evidence), ...contradictions(evidence)];
    const stopped = evidence.closed || said.length > 0 ? [] : stop(evidence);
    return [...said, ...stopped, ...standingOff(evidence)];
  },
};

function of(
  { assembly }: Evidence,
  mechanism: string,
  draft: Pick<Draft, 'measured' | 'limit' | 'at' | 'aspect' | 'cause' | 'message'>,
): Finding {
  return finding({
    ...draft,
    rule: 'flat-fold',
    severity: 'blocks',
    mechanism,
    piece: assembly.facets.find((f) => f.mechanism === mechanism)?.piece,
    subjects: assembly.creases.filter((c) => c.mechanism === mechanism).map((c) => c.id),
    levers: turnsOf(assembly, mechanism, 'closing'),
  });
}

/** Lengths round a loop that do not agree; paper gives a little. */
function gaps(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  // Where paper is missing or wanted twice the loops mean nothing: `loose-part` says what is wrong.
  const unsound = unsoundMechanisms(assembly.misfits);
  return assembly.travel.closedGaps().flatMap(({ mm, joints }): Finding[] => {
    const mechanism = mechanismOfJoint(assembly, joints[0]);
    if (mm <= FLAT_PLANE_MM || unsound.has(mechanism)) return [];
    const message = `${say.title(mechanism)} cannot close flat: its two ways round differ by ${say.mm(mm)}.`;
    const asked = { limit: FLAT_PLANE_MM, at: CLOSED, cause: { of: 'stays-open' } } as const;
    return [of(evidence, mechanism, { measured: mm, ...asked, aspect: 'gap', message })];
  });
}

const contradictions = (evidence: Evidence): Finding[] =>
  evidence.assembly.misfits
    .filter((m) => m.kind === 'contradiction')
    .map(({ mechanism, what, sizeMm, key }) => {
      const message = `${wordsFor(evidence).title(mechanism)}: ${what}`;
      const aspect = `contradiction ${key ?? ''}`.trim();
      return of(evidence, mechanism, { measured: sizeMm, aspect, cause: { of: 'contradiction' }, message });
    });

function stop(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const met = assembly.travel.at(Math.PI).stop;
  const mechanism = met && met.joints.length > 0 ? mechanismOfJoint(assembly, met.joints[0]) : assembly.base.mechanism;
  if (unsoundMechanisms(assembly.misfits).has(mechanism)) return [];
  const title = wordsFor(evidence).title(mechanism);
  const { id, value } = met ? stopped(assembly, met) : { id: OPEN, value: 180 };
  const at = id === OPEN ? value : 0;
  const message =
    id === OPEN
      ? `The card cannot close further than ${at.toFixed(1)}°: ${title} stands in the way.`
      : `${title} has no place at rest in which its parts fit together.`;
  return [
    finding({
      rule: 'flat-fold',
      severity: 'blocks',
      mechanism,
      measured: at,
      unit: 'deg',
      at: openTo(at),
      aspect: 'stop',
      message,
    }),
  ];
}

/** Facets that stand off the plane of the card where it lies flat by more than the tolerance and their own paper. */
function standingOff(evidence: Evidence): Finding[] {
  const { closed, brief } = evidence;
  const open = brief.sentOpen ? postedPose(evidence) : null;
  return [
    ...(closed ? raised(evidence, closed, 'when closed', '') : []),
    ...(open ? raised(evidence, open, 'when it is sent open flat', 'sent ') : []),
  ];
}

/** The worst facet of each mechanism that stands off the page in a pose in which all should lie flat. */
function raised(evidence: Evidence, pose: Pose, when: string, aspect: string): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  const worst = new Map<string, { height: number; limit: number }>();
  assembly.facets.forEach((f, i) => {
    const height = f.polygon.outer.reduce((h, p) => Math.max(h, Math.abs(onFacet(pose, i, p)[2])), 0);
    const limit = FLAT_PLANE_MM + caliperOf(evidence, f) + f.levelMm;
    if (height > limit && height > (worst.get(f.mechanism)?.height ?? 0)) worst.set(f.mechanism, { height, limit });
  });
  return [...worst].map(([mechanism, { height, limit }]) => {
    const message = `${say.title(mechanism)} stands ${say.mm(height)} off the page ${when}.`;
    return of(evidence, mechanism, { measured: height, limit, at: pose.state, aspect: `${aspect}off`, message });
  });
}
