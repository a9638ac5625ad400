/**
 * `tip`: what floats, and the card where it is left standing, has the middle of its weight well over what carries it.
 */
import { stateSetting } from '../ids';
import { openTo, stateIn, type State } from '../drives';
import { poseAt, type Pose } from '../assembly/pose';
import { NO_POSE, type NamedState, type Stance } from '../kinds';
import { WELD_MM } from '../tolerance';
import { basePiece, finding, leversOf, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { supportOf } from './support';
import { weightAt } from './weight';
import { wordsFor } from './words';

/** Common practice, no source. */
export const LEAST_TIP_MM = 5;

export const tip: Rule = {
  id: 'tip',
  needs: 'closed',
  check: (evidence) => [...ofFigures(evidence), ...standings(evidence).flatMap((s) => ofStanding(evidence, s))],
};

/** A card as it is left alone in a state that is named. */
export interface Standing {
  readonly named: NamedState & { readonly stance: Stance };
  /** How far inside what it stands on the middle of its weight lies, mm. */
  readonly marginMm: number;
  readonly grams: number;
  readonly state: State;
}

/** Every named state in which the card is left alone, and that it reaches. */
export function standings(evidence: Pick<Evidence, 'assembly' | 'brief'>): Standing[] {
  const { assembly, brief } = evidence;
  return brief.states.flatMap((named): Standing[] => {
    const { stance } = named;
    if (stance === undefined) return [];
    const pose = poseAt(assembly, stateIn(assembly.drives, named));
    if (pose.stop) return [];
    const { grams } = weightAt(evidence, pose);
    return [{ named: { ...named, stance }, marginMm: tipAt(evidence, pose, stance), grams, state: pose.state }];
  });
}
/** How far inside what it stands on the middle of the card's weight lies in a pose, mm. */
export function tipAt(evidence: Pick<Evidence, 'assembly' | 'brief'>, pose: Pose, stance: Stance): number {
  const { assembly, brief } = evidence;
  return supportOf(assembly, pose, stance, brief.up(assembly.lead.still)).margin(weightAt(evidence, pose).at);
}

function ofStanding(evidence: Evidence, { named, marginMm, state }: Standing): Finding[] {
  if (marginMm >= LEAST_TIP_MM - WELD_MM) return [];
  const say = wordsFor(evidence);
  const { assembly } = evidence;
  const falls = marginMm <= WELD_MM;
  const past = marginMm > -WELD_MM ? 'on the very edge of' : `${say.mm(-marginMm)} outside`;
  const middle = `${named.name}: the middle of the card's weight lies`;
  return [
    finding({
      rule: 'tip',
      severity: falls ? 'blocks' : 'risk',
      mechanism: assembly.base.mechanism,
      piece: basePiece(assembly).id,
      measured: marginMm,
      limit: LEAST_TIP_MM,
      at: state,
      aspect: `standing ${named.id}`,
      message: falls
        ? `${middle} ${past} what it stands on: it falls over.`
        : `${middle} only ${say.mm(marginMm)} inside what it stands on; below ${say.mm(LEAST_TIP_MM)} it tips.`,
      subjects: [assembly.lead.still, assembly.lead.turning],
      levers: [
        ...assembly.mechanisms.flatMap((m) => turnsOf(assembly, m.id, 'weight', 'away', 'place')),
        ...leversOf(stateSetting(named.id), 'open', 'stance'),
      ],
    }),
  ];
}

function ofFigures(evidence: Evidence): Finding[] {
  const say = wordsFor(evidence);
  return evidence.assembly.mechanisms.flatMap((m): Finding[] => {
    const { tip_mm: margin } = m.measures(NO_POSE);
    if (margin === undefined || margin >= LEAST_TIP_MM - WELD_MM) return [];
    const middle = "the middle of its figure's weight lies";
    return [
      finding({
        rule: 'tip',
        severity: margin < 0 ? 'blocks' : 'risk',
        mechanism: m.id,
        piece: m.host?.piece,
        measured: margin,
        limit: LEAST_TIP_MM,
        at: openTo(90),
        aspect: 'weight',
        message:
          margin < 0
            ? `${say.title(m.id)} is top-heavy: ${middle} ${say.mm(-margin)} outside the band that carries it.`
            : `${say.title(m.id)}: ${middle} only ${say.mm(margin)} inside the band that carries it; ` +
              `below ${say.mm(LEAST_TIP_MM)} it tips.`,
        subjects: [`${m.id}.halfA`, `${m.id}.halfB`],
        levers: turnsOf(evidence.assembly, m.id, 'weight'),
      }),
    ];
  });
}
