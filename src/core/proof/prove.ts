/** The proof of a design: every rule, the travel's chart, and remedies where one parameter can clear a finding. */
import { allMeasures, poseAt, type Pose } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import { closedSize, overhangOf, RULES, thicknessMap, type Evidence, type Finding, type Overhang } from '../rules';
import { briefOf, closedPose, DEFAULT_STEPS, walk } from './evidence';
import { PROOF_BUDGET, remedySteps, weightOf } from './remedies';
import { travelPoint, type TravelPoint } from './travel-chart';

export { DEFAULT_STEPS, gather, MOST_STEPS } from './evidence';
export { leverValue, setLever } from './levers';
export { findRemedies } from './remedies';
export { travelPoint, type TravelPoint } from './travel-chart';

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
  readonly travel: readonly TravelPoint[];
  readonly measures: Record<string, Record<string, number>>;
}

/**
 * The proof, growing: first what the flat pieces and the closed pose show, then the travel bit by bit, then remedies.
 * Every value is a whole proof of what is known so far.
 */
export function* provingSteps(design: Design, steps = DEFAULT_STEPS): Generator<Proof, Proof> {
  const assembly = buildAssembly(design);
  const brief = briefOf(design);
  const closed = closedPose(assembly);
  let evidence: Evidence = { assembly, brief, closed, travel: [] };
  let findings: readonly Finding[] = [];
  const sizes = closedSize(evidence);
  const map = closed ? thicknessMap(evidence, closed) : null;
  const travel: TravelPoint[] = [];
  const measures = allMeasures(assembly, poseAt(assembly, 90), closed);
  const overhang = closed && overhangOf(assembly, closed);
  const proof = (): Proof => ({
    verdict: verdictOf(findings),
    findings,
    travel: [...travel],
    measures,
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
  const poses: Pose[] = [];
  for (const pose of walk(assembly, steps)) {
    poses.push(pose);
    travel.push(travelPoint(assembly, pose));
    if (poses.length % 8 === 0) yield proof();
  }
  evidence = { ...evidence, travel: poses };
  findings = [...findings, ...RULES.filter((r) => r.needs === 'travel').flatMap((r) => r.check(evidence))];
  yield proof();
  const purse = { left: PROOF_BUDGET };
  const weight = weightOf(assembly);
  for (let i = 0; i < findings.length; i++) {
    const seeking = remedySteps(design, findings[i], findings, purse, weight, steps);
    let sought = seeking.next();
    // Between two levers whoever waits for another proof may end this one.
    for (; !sought.done; sought = seeking.next()) yield proof();
    const { remedies, nearest } = sought.value;
    if (remedies.length === 0 && !nearest) continue;
    const more = remedies.length > 0 ? { remedies } : { nearest };
    findings = findings.map((f, k) => (k === i ? { ...f, ...more } : f));
    yield proof();
  }
  return proof();
}

/** The whole proof at once. */
export function prove(design: Design, steps = DEFAULT_STEPS): Proof {
  return runOut(provingSteps(design, steps));
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
