/** The proof of a design: every rule, the travel's chart, and remedies where one parameter can clear a finding. */
import type { Assembly } from '../assembly/assembly';
import { allMeasures, landmarksOf, onFacet, poseAt, type Pose } from '../assembly/pose';
import { applyRigid, invert } from '../linkage';
import { envelopeById, postById, sheetById } from '../paper/sizes';
import { closedSize, leastClearance, overhangOf, reachPast, RULES, thicknessMap, type Brief, type Evidence, type Finding, type Overhang, type Remedy, type Rule, type RuleId } from '../rules';
import { buildAssembly, tryBuild } from './build';
import { DEFAULT_FOAM_INSET_MM } from './dressing';
import { fieldOf, parameterOf, setParameter, stockOf, type Design } from './design';

export type Verdict = 'clear' | 'risk' | 'blocked';
export interface TravelPoint {
  readonly open: number;
  /** How far the furthest point reaches past the fore edges' sweep (mm); negative is room left. Null without mechanisms. */
  readonly reach_mm: number | null;
  /** Least gap between mechanisms that stand side by side (mm). Null with fewer than two. */
  readonly clearance_mm: number | null;
  /** Highest point above leaf A, mm. */
  readonly lift_mm: number;
  /** Height of each figure's top above leaf A, by mechanism, mm. */
  readonly tops: Readonly<Record<string, number>>;
}
export interface Proof {
  readonly verdict: Verdict;
  readonly findings: readonly Finding[];
  readonly closed: { readonly width_mm: number; readonly height_mm: number; readonly thickness_mm: number; readonly layers: number; readonly overhang: Overhang } | null;
  readonly travel: readonly TravelPoint[];
  readonly measures: Record<string, Record<string, number>>;
}

export const DEFAULT_STEPS = 36;
export const MOST_STEPS = 720;

export const briefOf = (design: Design): Brief => ({
  stayInside: design.card.stayInside,
  envelope: design.post.envelope ? envelopeById(design.post.envelope) ?? null : null,
  post: design.post.format ? postById(design.post.format) ?? null : null,
  stock: (id) => stockOf(design, id),
  sheetMarginMm: design.sheets.marginMm,
  sheet: sheetById,
});

const closedPose = (assembly: Assembly): Pose | null => {
  const pose = poseAt(assembly, 0);
  return pose.stop ? null : pose;
};

/** Evidence for rules that need no more than `needs`. */
export function gather(design: Design, needs: Rule['needs'], steps = DEFAULT_STEPS, assembly = buildAssembly(design)): Evidence {
  const brief = briefOf(design);
  const closed = needs === 'pattern' ? null : closedPose(assembly);
  return { assembly, brief, closed, travel: needs === 'travel' ? [...walk(assembly, steps)] : [] };
}

/** Poses from closed to open flat at even steps, leaving out what the travel does not reach. */
function* walk(assembly: Assembly, steps: number): Generator<Pose> {
  for (let k = 0; k <= steps; k++) {
    const open = (180 * k) / steps;
    const pose = poseAt(assembly, open);
    if (!pose.stop) yield pose;
  }
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
  const half = poseAt(assembly, 90);
  const proof = (): Proof => ({
    verdict: verdictOf(findings), findings, travel: [...travel], measures: allMeasures(assembly, half, closed),
    closed: closed && map ? { width_mm: sizes.awayMm, height_mm: sizes.alongMm, thickness_mm: round(map.greatest.mm), layers: map.greatest.layers, overhang: overhangOf(assembly, closed) } : null,
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
    const seeking = remedySteps(design, findings[i], findings, purse, weight);
    let sought = seeking.next();
    // Between two levers whoever waits for another proof may end this one.
    for (; !sought.done; sought = seeking.next()) yield proof();
    const remedies = sought.value;
    if (remedies.length === 0) continue;
    findings = findings.map((f, k) => (k === i ? { ...f, remedies } : f));
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
  findings.some((f) => f.severity === 'blocks') ? 'blocked' : findings.some((f) => f.severity === 'risk') ? 'risk' : 'clear';

export function travelPoint(assembly: Assembly, pose: Pose): TravelPoint {
  const heights = heightsOf(assembly, pose);
  return { open: pose.openDeg, reach_mm: reachPast(assembly, pose, () => true)?.fore ?? null, clearance_mm: leastClearance(assembly, pose)?.mm ?? null, lift_mm: Math.max(0, ...Object.values(heights)), tops: { ...heights, ...topsInSides(assembly, pose, heights) } };
}

/** Travel steps that are enough to see whether a change clears a finding. */
const REMEDY_STEPS = 18;
/** Most remedies offered for one finding. */
const MOST_REMEDIES = 3;
/** What a search may spend: values tried for one finding, and for a whole proof. A value that needs the whole travel counts for more. Keeps a hopeless design short. */
const FINDING_BUDGET = 110;
const PROOF_BUDGET = 320;
const TRAVEL_COST = 4;
/** Designs of more outline points than this take longer to try, and so are tried less often. */
const LIGHT_POINTS = 1000;
const weightOf = (assembly: Assembly): number => Math.max(1, assembly.facets.reduce((n, f) => n + f.polygon.outer.length, 0) / LIGHT_POINTS);
/** Poses that are hard to find count as further tries: this much of what the solver spends is one. */
const SPENT_PER_TRY = 20_000;
/** Remedies are rounded to this (mm or degrees) where the rounded value clears too. */
const REMEDY_GRAIN = 0.1;

/** One-parameter changes that clear a finding: the nearest value of each lever that does, by search on the rule itself. */
export function findRemedies(design: Design, finding: Finding, known: readonly Finding[], purse = { left: PROOF_BUDGET }): Remedy[] {
  return runOut(remedySteps(design, finding, known, purse, 1));
}

/** The same, stopping after each lever. */
function* remedySteps(design: Design, finding: Finding, known: readonly Finding[], purse: { left: number }, weight: number): Generator<void, Remedy[]> {
  const out: Remedy[] = [];
  const cost = weight * (RULES.find((r) => r.id === finding.rule)!.needs === 'travel' ? TRAVEL_COST : 1);
  const floor = purse.left - FINDING_BUDGET;
  for (const lever of finding.levers) {
    if (out.length >= MOST_REMEDIES) break;
    const now = leverValue(design, lever.mechanism, lever.parameter);
    const range = leverRange(design, lever.mechanism, lever.parameter);
    if (now === null || !range) continue;
    const clears = (value: number): boolean => {
      if (purse.left <= Math.max(0, floor)) return false;
      const changed = setLever(design, lever.mechanism, lever.parameter, value);
      const assembly = tryBuild(changed);
      const clear = assembly !== null && isClear(changed, assembly, finding, known);
      purse.left -= cost + (assembly?.travel.spent ?? 0) / SPENT_PER_TRY;
      return clear;
    };
    const found = [nearestClear(now, range.min, finding.measured, clears), nearestClear(now, range.max, finding.measured, clears)].filter((v): v is number => v !== null);
    yield;
    if (found.length > 0) out.push({ ...lever, value: found.reduce((a, b) => (Math.abs(b - now) < Math.abs(a - now) ? b : a)) });
  }
  return out;
}

/** `reach` of the card stands for both leaves. */
const leverKeys = (mechanism: string, parameter: string): readonly string[] => (mechanism === 'card' && parameter === 'reach' ? ['reachA', 'reachB'] : [parameter]);

export function leverValue(design: Design, mechanism: string, parameter: string): number | null {
  const stuck = stuckLever(design, mechanism, parameter);
  if (stuck) return stuck.value;
  const value = parameterOf(design, mechanism, leverKeys(mechanism, parameter)[0]);
  return typeof value === 'number' ? value : null;
}
export function setLever(design: Design, mechanism: string, parameter: string, value: number): Design {
  const stuck = stuckLever(design, mechanism, parameter);
  return stuck ? stuck.set(value) : leverKeys(mechanism, parameter).reduce((d, key) => setParameter(d, mechanism, key, value), design);
}

/** Numbers of what is stuck on facets that remedies may change, with their ranges (mm). */
const STUCK_RANGE: Readonly<Record<string, { min: number; max: number }>> = { foamMm: { min: 0, max: 10 }, foamInsetMm: { min: 0, max: 100 }, x: { min: -500, max: 500 }, y: { min: -500, max: 500 }, width: { min: 1, max: 1000 }, height: { min: 1, max: 1000 } };

/** A number of a layer (`layer.ID`) or a mat (`FACET.mat-K`); null for anything else. */
function stuckLever(design: Design, id: string, parameter: string): { value: number; set: (value: number) => Design } | null {
  if (!STUCK_RANGE[parameter]) return null;
  const layer = id.startsWith('layer.') ? design.layers.find((l) => l.id === id.slice('layer.'.length)) : undefined;
  const value = layer?.[parameter as 'foamMm' | 'foamInsetMm' | 'x' | 'y' | 'width' | 'height'];
  // A width or height that is left to the shape is no number to turn.
  if (layer) return value === null || value === undefined ? null : { value, set: (next) => ({ ...design, layers: design.layers.map((l) => (l === layer ? { ...l, [parameter]: next } : l)) }) };
  const [, facet, number] = /^(.+)\.mat-(\d+)$/.exec(id) ?? [];
  const mat = design.dressing.find((d) => d.facet === facet)?.mats[Number(number) - 1];
  if (!mat || !parameter.startsWith('foam')) return null;
  return {
    value: (parameter === 'foamMm' ? mat.foamMm : mat.foamInsetMm ?? DEFAULT_FOAM_INSET_MM) ?? 0,
    set: (value) => ({ ...design, dressing: design.dressing.map((d) => (d.facet === facet ? { ...d, mats: d.mats.map((m) => (m === mat ? { ...m, [parameter]: value } : m)) } : d)) }),
  };
}

function leverRange(design: Design, mechanism: string, parameter: string): { min: number; max: number } | null {
  if (stuckLever(design, mechanism, parameter)) return STUCK_RANGE[parameter];
  const kind = mechanism === 'card' ? 'fold-card' : design.mechanisms.find((m) => m.id === mechanism)?.kind;
  const p = fieldOf(kind ?? '', leverKeys(mechanism, parameter)[0]);
  return p?.min === undefined || p.max === undefined ? null : { min: p.min, max: p.max };
}

/**
 * Nearest value toward `end` that clears; null where none was met. Probes the misfit itself first (lengths that must be equal
 * clear at one value only), then in growing steps, and closes in between the last that fails and the first that clears.
 */
function nearestClear(now: number, end: number, measured: number, clears: (value: number) => boolean): number | null {
  const direction = Math.sign(end - now);
  const room = Math.abs(end - now);
  if (direction === 0) return null;
  for (const exact of [measured, measured / 2]) {
    const value = tidy(now + direction * exact, 1e-6);
    if (exact > 0 && exact <= room && clears(value) && !clears(tidy(value - direction * REMEDY_GRAIN, 1e-6))) {
      const round = tidyAway(value, direction);
      return round !== value && clears(round) ? round : value;
    }
  }
  const reach = Math.min(room, Math.max(200, Math.abs(now)));
  let failed = now;
  let good = Number.NaN;
  for (const part of [0.01, 0.03, 0.08, 0.18, 0.28, 0.4, 0.55, 0.8]) {
    const value = now + direction * reach * part;
    if (clears(value)) {
      good = value;
      break;
    }
    failed = value;
  }
  if (Number.isNaN(good)) return null;
  while (Math.abs(good - failed) > REMEDY_GRAIN / 2) {
    const middle: number = (good + failed) / 2;
    if (clears(middle)) good = middle;
    else failed = middle;
  }
  return [tidy(good, REMEDY_GRAIN), tidyAway(good, direction)].find(clears) ?? tidyAway(good, direction);
}
const tidyAway = (value: number, direction: number): number =>
  tidy(direction > 0 ? Math.ceil(value / REMEDY_GRAIN) * REMEDY_GRAIN : Math.floor(value / REMEDY_GRAIN) * REMEDY_GRAIN, REMEDY_GRAIN);
const tidy = (value: number, grain: number): number => Number((Math.round(value / grain) * grain).toFixed(6));

/** Rules that a remedy may not newly break: they need only the flat pieces and the closed pose. */
const GUARDS: readonly RuleId[] = ['flat-fold', 'loose-part', 'overhang', 'glue-room'];

/** A narrow strip belongs to a piece: which of the two cuts beside it is named may change with the design. */
const sameFinding = (a: Finding, b: Finding): boolean => a.rule === b.rule && (a.rule === 'web' ? a.piece === b.piece : a.mechanism === b.mechanism && a.aspect === b.aspect);

function isClear(design: Design, assembly: Assembly, finding: Finding, known: readonly Finding[]): boolean {
  const cheap = { ...gather(design, 'closed', 0, assembly), rough: true };
  const rule = RULES.find((r) => r.id === finding.rule)!;
  if (rule.needs !== 'travel' && rule.check(cheap).some((f) => sameFinding(f, finding))) return false;
  const stoodBefore = (f: Finding): boolean => known.some((k) => sameFinding(k, f) && f.measured <= k.measured + 1e-6);
  for (const guard of RULES) {
    if (guard === rule || !GUARDS.includes(guard.id)) continue;
    if (guard.check(cheap).some((f) => f.severity === 'blocks' && !stoodBefore(f))) return false;
  }
  if (rule.needs !== 'travel') return true;
  const around = gather(design, 'travel', REMEDY_STEPS, assembly);
  // The pose where it was worst is looked at again, whatever the steps.
  const there = poseAt(assembly, finding.drive.open);
  const evidence = { ...around, travel: there.stop ? around.travel : [...around.travel, there] };
  return !rule.check(evidence).some((f) => sameFinding(f, finding) || (f.severity === 'blocks' && !stoodBefore(f)));
}

/** Highest place of every mechanism's own facets over leaf A, mm. */
function heightsOf(assembly: Assembly, pose: Pose): Record<string, number> {
  const out: Record<string, number> = {};
  assembly.facets.forEach((f, i) => {
    if (f.mechanism !== 'card') for (const p of f.polygon.outer) out[f.mechanism] = Math.max(out[f.mechanism] ?? -Infinity, onFacet(pose, i, p)[2]);
  });
  return out;
}

/** Tops of mechanisms without facets of their own: a half-cut lies in its own side, and its tip is over the other. */
function topsInSides(assembly: Assembly, pose: Pose, heights: Readonly<Record<string, number>>): Record<string, number> {
  const out: Record<string, number> = {};
  for (const m of assembly.mechanisms) {
    const under = heights[m.id] === undefined ? assembly.facets.findIndex((f) => f.id === m.host?.sideB) : -1;
    if (under < 0) continue;
    const back = invert(pose.placed[under]);
    const over = Object.values(landmarksOf(assembly, pose, m)).map((p) => Math.abs(applyRigid(back, p)[2]));
    if (over.length > 0) out[m.id] = Math.max(...over);
  }
  return out;
}
