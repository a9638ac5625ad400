/** The proof of a design: every rule, the travel's chart, and remedies where one parameter can clear a finding. */
import { isByHand, OPEN, openOf, stateIn, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import type { Stance } from '../kinds';
import { allMeasures, poseAt, poseOpen, type Pose } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import {
  bendingMechanism,
  closedStack,
  byHandOf,
  overhangOf,
  closedSize,
  postedSize,
  postedStack,
  RULES,
  standings,
  type Evidence,
  type Finding,
  type Lever,
  type Overhang,
  type WalkedPair,
  type WalkedThree,
} from '../rules';

export type { WalkedPair, WalkedThree } from '../rules';
import { settingOf } from '../document/settings';
import { briefOf, closedPose, DEFAULT_STEPS, handWalk, namedPoses, walk } from './evidence';
import { canSeek, PROOF_BUDGET, purseAlone, remedySteps, type Seeking } from './remedies';
import { handTravel, travelPoint, type HandPoint, type TravelPoint } from './travel-chart';

export { DEFAULT_STEPS, gather, MOST_STEPS } from './evidence';
export { leverValue, setLever } from './levers';
export { handTravel, travelPoint, type HandPoint, type TravelPoint } from './travel-chart';

export type Verdict = 'clear' | 'risk' | 'blocked';
export interface Proof {
  readonly verdict: Verdict;
  readonly findings: readonly Finding[];
  readonly closed: {
    readonly width_mm: number;
    readonly height_mm: number;
    readonly thickness_mm: number;
    readonly layers: number;
    readonly overhang: Overhang;
  } | null;
  /** As it is sent, where that is open flat. */
  readonly sent?: { readonly width_mm: number; readonly height_mm: number; readonly thickness_mm: number };
  /** Of the opening. */
  readonly travel: readonly TravelPoint[];
  /** Of every drive by id. */
  readonly travels: Readonly<Record<string, readonly (TravelPoint | HandPoint)[]>>;
  readonly measures: Record<string, Record<string, number>>;
  /** Drives that are moved by hand and can meet: those, and no others, were walked two at a time. */
  readonly pairs: readonly WalkedPair[];
  /** Threes of those were looked at together at random places, more of them nowhere. */
  readonly threes: readonly WalkedThree[];
  /** What is named: for the post, on the shelf. */
  readonly states: readonly ProvedState[];
}
export interface ProvedState {
  readonly id: string;
  readonly name: string;
  /** Every drive's value there. */
  readonly state: State;
  readonly reached: boolean;
  /** Of a card that is left alone there: how far inside what it stands on its weight lies, mm, and what it weighs. */
  readonly standing?: { readonly stance: Stance; readonly tip_mm: number; readonly weight_g: number };
}
/**
 * The proof, growing: first what the flat pieces and the closed pose show, then the travel bit by bit, then remedies.
 * Every value is a whole proof of what is known so far.
 */
export function* provingSteps(design: Design, steps = DEFAULT_STEPS): Generator<Proof, Proof> {
  const assembly = buildAssembly(design);
  const examined = yield* examiningSteps(design, assembly, steps);
  let { findings } = examined;
  const closed = closedPose(assembly);
  const seeking: Seeking = { design, known: findings, assembly, closed, purse: { left: PROOF_BUDGET }, steps };
  for (let i = 0; i < findings.length; i++) {
    const search = seekFor(seeking, findings[i]);
    let sought = search.next();
    // Between two levers whoever waits for another proof may end this one.
    for (; !sought.done; sought = search.next()) yield { ...examined, findings };
    if (sought.value === findings[i]) continue;
    findings = findings.with(i, sought.value);
    yield { ...examined, findings };
  }
  return { ...examined, findings };
}

/** The proof before remedies are looked for. */
function* examiningSteps(design: Design, assembly: Assembly, steps: number): Generator<Proof, Proof> {
  const brief = briefOf(design);
  const closed = closedPose(assembly);
  let evidence: Evidence = { assembly, brief, closed, travel: [], byHand: [], named: [] };
  let findings: readonly Finding[] = [];
  const sizes = closedSize(evidence);
  const sent = brief.sentOpen ? sentOf(evidence) : {};
  const map = closedStack(evidence);
  const travel: TravelPoint[] = [];
  const handTravels: Record<string, readonly HandPoint[]> = {};
  let pairs: readonly WalkedPair[] = [];
  let threes: readonly WalkedThree[] = [];
  let measures = allMeasures(assembly, poseOpen(assembly, 90), closed);
  const overhang = closed && overhangOf(assembly, closed);
  let states: readonly ProvedState[] = [];
  const proof = (): Proof => ({
    verdict: verdictOf(findings),
    findings,
    travel: [...travel],
    travels: { [OPEN]: [...travel], ...handTravels },
    measures,
    pairs,
    threes,
    states,
    ...sent,
    closed:
      closed && map && overhang
        ? {
            width_mm: sizes.awayMm,
            height_mm: sizes.alongMm,
            thickness_mm: round(map.greatest.mm),
            layers: map.greatest.layers,
            overhang,
          }
        : null,
  });
  for (const rule of RULES.filter((r) => r.needs !== 'travel')) {
    findings = [...findings, ...rule.check(evidence)];
    yield proof();
  }
  states = provedStates(evidence);
  const poses: Pose[] = [];
  for (const pose of walk(assembly, steps)) {
    poses.push(pose);
    travel.push(travelPoint(assembly, pose));
    if (poses.length % 8 === 0) yield proof();
  }
  measures = withBending(measures, assembly, poses);
  for (const drive of assembly.drives.slice(1)) {
    handTravels[drive.id] = handTravel(assembly, drive);
    yield proof();
  }
  const hand: Pose[] = [];
  for (const pose of handWalk(assembly)) {
    hand.push(pose);
    if (hand.length % 8 === 0) yield proof();
  }
  evidence = { ...evidence, travel: poses, byHand: hand, named: namedPoses(design, assembly) };
  ({ pairs, threes } = byHandOf(evidence));
  findings = [...findings, ...RULES.filter((r) => r.needs === 'travel').flatMap((r) => r.check(evidence))];
  yield proof();
  return proof();
}

/** How large a card is that is sent open flat. */
function sentOf(evidence: Evidence): Pick<Proof, 'sent'> {
  const { awayMm, alongMm } = postedSize(evidence);
  const map = postedStack(evidence);
  return map ? { sent: { width_mm: awayMm, height_mm: alongMm, thickness_mm: round(map.greatest.mm) } } : {};
}

/** With how much the paper of a mechanism bends at most, and where. */
function withBending(measures: Proof['measures'], assembly: Assembly, travel: readonly Pose[]): Proof['measures'] {
  const worst = travel.reduce<Pose | null>((w, p) => (p.flexMm > (w?.flexMm ?? 0) ? p : w), null);
  if (!worst) return measures;
  const mechanism = bendingMechanism(assembly, worst);
  const bent = { flex_mm: worst.flexMm, flex_at_deg: openOf(worst.state) };
  return { ...measures, [mechanism]: { ...measures[mechanism], ...bent } };
}

function provedStates(evidence: Evidence): ProvedState[] {
  const { assembly, brief } = evidence;
  const left = new Map(standings(evidence).map((s) => [s.named.id, s]));
  return brief.states.map((named): ProvedState => {
    const { id, name } = named;
    const { state, stop } = poseAt(assembly, stateIn(assembly.drives, named));
    const alone = left.get(id);
    return {
      ...{ id, name, state, reached: !stop },
      ...(alone
        ? { standing: { stance: alone.named.stance, tip_mm: round(alone.marginMm), weight_g: round(alone.grams) } }
        : {}),
    };
  });
}

/** A finding with what was found to clear it. */
function* seekFor(seeking: Seeking, finding: Finding): Generator<void, Finding> {
  if (finding.levers.length === 0) return finding;
  if (!canSeek(seeking) || waitsToBeAsked(seeking, finding)) return { ...finding, unsought: true };
  const { remedies, nearest } = yield* remedySteps(seeking, finding);
  return remedies.length > 0 ? { ...finding, remedies } : nearest ? { ...finding, nearest } : finding;
}

/**
 * A note needs no cure: sought when asked where each try walks every hand's ways, or where only another stage has one.
 */
const waitsToBeAsked = ({ alone, design }: Seeking, { severity, drive, levers }: Finding): boolean =>
  !alone && severity === 'note' && (isByHand(drive) || levers.every((l) => isSetting(design, l)));
const isSetting = (design: Design, { mechanism, parameter }: Lever): boolean =>
  settingOf(design, mechanism, parameter) !== null;

/** A finding that a proof left unsought, with its remedies. */
export function seek(design: Design, finding: Finding, known: readonly Finding[], steps = DEFAULT_STEPS): Finding {
  const { unsought: _, ...plain } = finding;
  const assembly = buildAssembly(design);
  const purse = purseAlone(assembly);
  return runOut(seekFor({ design, known, assembly, closed: closedPose(assembly), purse, alone: true, steps }, plain));
}

/** The whole proof at once. */
export function prove(design: Design, steps = DEFAULT_STEPS): Proof {
  return runOut(provingSteps(design, steps));
}
/** The whole proof but for remedies: for those who ask whether a card stands, not how it would. */
export function examine(design: Design, steps = DEFAULT_STEPS): Proof {
  return runOut(examiningSteps(design, buildAssembly(design), steps));
}
function runOut<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

const round = (x: number): number => Math.round(x * 1e4) / 1e4;
const verdictOf = (findings: readonly Finding[]): Verdict =>
  findings.some((f) => f.severity === 'blocks')
    ? 'blocked'
    : findings.some((f) => f.severity === 'risk')
      ? 'risk'
      : 'clear';
