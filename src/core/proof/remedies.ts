/**
 * Remedies: one number changed so that a finding is gone. Found by searching on the rule itself, so that every new kind
 * is served, and offered only when the whole proof of the changed design bears them out.
 */
import { isByHand, openOf } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { tryBuild } from '../build/build';
import type { Design } from '../document/design';
import {
  byHandOf,
  RULES,
  type Evidence,
  type Finding,
  type Lever,
  type Remedy,
  type Rule,
  type RuleId,
} from '../rules';
import { DEFAULT_STEPS, gather, handWalk, namedPoses, walk } from './evidence';
import { settingOf } from '../document/settings';
import { leverRange, leverValue, setLever } from './levers';
import { partFor } from './part';
import { SIZE_ROUNDING_MM } from '../tolerance';

/** Most remedies offered for one finding by its own numbers; choices of other stages come on top. */
const MOST_REMEDIES = 3;
/** Travel steps that are enough to look for a value; what is found is proved at the steps of the proof. */
const SEARCH_STEPS = 18;
/**
 * What a search may spend, in tries: for one finding, and for a whole proof. A try that needs the travel counts for
 * more, and so does a whole proof. Keeps a hopeless design short.
 */
const FINDING_BUDGET = 140;
export const PROOF_BUDGET = 420;
const TRAVEL_COST = 4;
/** One that a single pose was enough for. */
const POSE_COST = 1.5;
const PROOF_COST = 5;
/** Designs of more outline points than this take longer to try, and so are tried less often. */
const LIGHT_POINTS = 1000;
/** So do cards of more facets: this many more stand for a light try each. */
const LIGHT_FACETS = 60;
const FACETS_PER_TRY = 5;
/** Poses that are hard to find count as further tries: this much of what the solver spends is one. */
const SPENT_PER_TRY = 20_000;
/** So are places at which things moved by hand are compared. */
const PLACES_PER_TRY = 100_000;
/** Remedies are rounded to this (mm or degrees) where the rounded value clears too. */
const GRAIN = 0.1;
/** A value that clears its own finding but not the whole proof is tried again this much further on (in grains). */
const FURTHER = [0, 5, 20, 60];

/** What is left to spend; shared by all findings of a proof. */
export interface Purse {
  left: number;
}
export interface Sought {
  readonly remedies: readonly Remedy[];
  /** Where there is none: the try that came nearest, and what it left. */
  readonly nearest?: Finding['nearest'];
}

/** Where remedies are looked for, and what was found there. */
export interface Seeking {
  readonly design: Design;
  readonly known: readonly Finding[];
  readonly assembly: Assembly;
  /** Null where it does not close: then the whole card is tried. */
  readonly closed: Pose | null;
  readonly purse: Purse;
  /** It is the only finding: all there is may be spent on it. */
  readonly alone?: true;
  /** Steps of the proof that a remedy has to stand. */
  readonly steps?: number;
}

/** Paper that must bend is followed from both ends of the travel for every try. */
const BENT_WEIGHT = 2;

/** How much more a try of this design costs than of a light one. */
const weightOf = ({ facets, travel }: Assembly): number =>
  (travel.order.blocks.some((b) => b.overdetermined) ? BENT_WEIGHT : 1) *
  Math.max(
    1,
    facets.reduce((n, f) => n + f.polygon.outer.length, 0) / LIGHT_POINTS,
    (facets.length - LIGHT_FACETS) / FACETS_PER_TRY,
  );

/** What looking for remedies of one finding alone may spend. */
export const purseAlone = (assembly: Assembly): Purse => ({
  left: MOST_REMEDIES * (FINDING_BUDGET + PROOF_COST * weightOf(assembly)),
});

/** Whether enough is left to prove a single value: with less nothing can be found. */
export const canSeek = ({ purse, assembly }: Seeking): boolean => purse.left >= PROOF_COST * weightOf(assembly);

/** One-parameter changes that clear a finding, each proved in full; stops after each lever. */
export function* remedySteps(seeking: Seeking, finding: Finding): Generator<void, Sought> {
  const search = new Search(seeking, finding);
  const remedies: Remedy[] = [];
  const elsewhere = finding.levers.filter((l) => settingOf(seeking.design, l.mechanism, l.parameter) !== null);
  const own = finding.levers.filter((l) => !elsewhere.includes(l));
  // A choice of another stage is soon tried; what it leaves to spend is for the numbers, which are told first.
  for (const lever of elsewhere) {
    const value = search.along(lever);
    yield;
    if (value !== null) remedies.push({ ...lever, value });
  }
  const most = remedies.length + MOST_REMEDIES;
  let told = 0;
  for (const lever of own) {
    if (remedies.length >= most) break;
    const value = search.along(lever);
    yield;
    if (value !== null) remedies.splice(told++, 0, { ...lever, value });
  }
  const nearest = remedies.length === 0 ? search.nearest : undefined;
  return { remedies, ...(nearest ? { nearest } : {}) };
}

/** Rules that a try may not newly break: they need only the flat pieces and the closed pose. */
const GUARDS: readonly RuleId[] = ['flat-fold', 'loose-part', 'overhang', 'glue-room', 'web', 'sheet-fit', 'post-size'];

/** What finds a finding again: of several rules under one name those that need no travel, if one of them does. */
function ruleOf({ id, rule: name }: Finding, gathered: () => Evidence): Rule {
  const named = RULES.filter((r) => r.id === name);
  if (named.length === 1) return named[0];
  const closed = gathered();
  const cheap = named.find((r) => r.needs !== 'travel' && r.check(closed).some((f) => f.id === id));
  if (cheap) return cheap;
  const walked = named.filter((r) => r.needs === 'travel');
  if (walked.length === 0) return named[0];
  return { id: name, needs: 'travel', check: (evidence) => walked.flatMap((r) => r.check(evidence)) };
}

/** A try that left so much of a finding, and whether it breaks something else. */
interface Near {
  readonly size: number;
  readonly told: NonNullable<Finding['nearest']>;
  readonly breaks: () => boolean;
}

class Search {
  /** Tries that left less of the finding than there is; whether one lies off the card is asked last. */
  private readonly near: Near[] = [];
  private leastLeft = Infinity;
  private readonly rule: Rule;
  private readonly design: Design;
  /** What is tried: the design, or the part of it that the finding is about. */
  private readonly tried: Design;
  private readonly tryWeight: number;
  private readonly purse: Purse;
  private readonly floor: number;
  private readonly blocked: ReadonlySet<string>;
  /** The last try needed the travel: one pose was enough to see that others leave the finding. */
  private walked = false;
  /** What the last try looked at for what is moved by hand, in places. */
  private byHand = 0;
  /** What clears the part leaves the same finding at another place of the card: no one number clears it. */
  private elsewhere = false;

  constructor(
    private readonly seeking: Seeking,
    private readonly finding: Finding,
  ) {
    const { design, assembly, closed, purse, known } = seeking;
    this.rule = ruleOf(finding, () => gather(design, 'closed', 0, assembly));
    this.design = design;
    this.purse = purse;
    const part = closed && partFor(design, assembly, closed, finding);
    const built = part && tryBuild(part);
    this.tried = built ? part : design;
    this.tryWeight = weightOf(built ?? assembly);
    const share = FINDING_BUDGET + (built ? PROOF_COST * weightOf(assembly) : 0);
    this.floor = seeking.alone ? 0 : Math.max(0, purse.left - share);
    // A try says something only where it leaves less than there was.
    this.leastLeft = Math.abs(finding.measured - finding.limit);
    this.blocked = new Set(known.filter((f) => f.severity === 'blocks').map((f) => f.id));
  }

  /** The nearest value of a lever that clears the finding and is proved; null where none was met. */
  along(lever: Lever): number | null {
    const now = leverValue(this.design, lever.mechanism, lever.parameter);
    const range = leverRange(this.design, lever.mechanism, lever.parameter);
    if (now === null || !range || this.elsewhere) return null;
    const clears = (value: number): boolean => this.clears(lever, value);
    const choices = settingOf(this.design, lever.mechanism, lever.parameter)?.choices;
    if (choices) return this.among(lever, now, choices.length);
    const found = [range.min, range.max]
      .map((end) => ({ end, value: nearestClear(now, end, this.finding.measured, clears) }))
      .filter((f): f is { end: number; value: number } => f.value !== null)
      .sort((a, b) => Math.abs(a.value - now) - Math.abs(b.value - now));
    for (const { end, value } of found) {
      const direction = Math.sign(end - now);
      for (const part of FURTHER) {
        const next = tidy(value + direction * part * GRAIN, SIZE_ROUNDING_MM);
        // What was found is proved whatever is left to spend.
        if ((end - next) * direction < 0 || this.elsewhere || (part > 0 && this.spent)) break;
        if (this.proves(lever, next)) return next;
      }
    }
    return null;
  }

  /** The first choice that clears the finding and is proved, those after what is chosen now before those before it. */
  private among(lever: Lever, now: number, count: number): number | null {
    const others = Array.from({ length: count }, (_, k) => k).filter((k) => k !== now);
    const inOrder = [...others.filter((k) => k > now), ...others.filter((k) => k < now).reverse()];
    return inOrder.find((k) => this.clears(lever, k) && this.proves(lever, k)) ?? null;
  }

  private get spent(): boolean {
    return this.purse.left <= this.floor;
  }

  /** Whether a value clears the finding, by its own rule and the guards. */
  private clears(lever: Lever, value: number): boolean {
    if (this.spent) return false;
    const changed = setLever(this.tried, lever.mechanism, lever.parameter, value);
    const assembly = tryBuild(changed);
    this.walked = false;
    this.byHand = 0;
    const left = assembly ? this.firstLeft(changed, assembly) : 'no shape';
    const cost = this.walked ? TRAVEL_COST : this.rule.needs === 'travel' ? POSE_COST : 1;
    this.purse.left -=
      this.tryWeight * cost + (assembly?.travel.spent ?? 0) / SPENT_PER_TRY + this.byHand / PLACES_PER_TRY;
    if (left === null) return true;
    // What a part of the card leaves says nothing of the whole.
    const whole = this.tried === this.design;
    if (whole && left !== 'no shape' && left.id === this.finding.id)
      this.note(lever, value, left, Math.abs(left.measured - left.limit), () => this.breaks(changed));
    return false;
  }

  private firstLeft(changed: Design, assembly: Assembly): Finding | null {
    const own = (evidence: Evidence): Finding | undefined => this.rule.check(evidence).find((f) => this.stands(f));
    if (this.rule.needs === 'pattern') {
      const left = own({ ...gather(changed, 'pattern', 0, assembly), rough: true });
      if (left) return left;
    }
    const cheap = { ...gather(changed, 'closed', 0, assembly), rough: true };
    if (this.rule.needs === 'closed') {
      const left = own(cheap);
      if (left) return left;
    }
    const broken = this.broken(cheap);
    if (broken) return broken;
    if (this.rule.needs !== 'travel') return null;
    // Every hand at every opening is for the proof of what is found.
    const { drive } = this.finding;
    const byHand = isByHand(drive);
    // The pose where it was worst is looked at again, whatever the steps; before all others where a hand is needed.
    const there = poseAt(assembly, drive);
    const still = byHand && !there.stop && own({ ...cheap, rough: true, named: [there] });
    if (still) return still;
    this.walked = true;
    const around = gather(changed, 'travel', SEARCH_STEPS, assembly, byHand ? [openOf(drive)] : []);
    const evidence = { ...around, rough: true, travel: there.stop ? around.travel : [...around.travel, there] };
    const left = own(evidence) ?? null;
    if (byHand) this.byHand = byHandOf(evidence).work;
    return left;
  }

  /** What a try newly breaks of what every card has to keep. */
  private broken(closed: Evidence): Finding | null {
    for (const guard of RULES) {
      if (guard === this.rule || guard.needs === 'travel' || !GUARDS.includes(guard.id)) continue;
      const broken = guard.check(closed).find((f) => this.isNew(f));
      if (broken) return broken;
    }
    return null;
  }
  /** A try that leaves least is no answer where it lies off the card, or takes the card apart. */
  private breaks(changed: Design): boolean {
    return this.rule.needs !== 'travel' && this.broken(gather(changed, 'closed')) !== null;
  }

  private isNew = (f: Finding): boolean => f.severity === 'blocks' && !this.blocked.has(f.id);
  private stands = (f: Finding): boolean => f.id === this.finding.id || this.isNew(f);

  /** Whether the whole proof of the changed design is without the finding, and without a new one that blocks. */
  private proves(lever: Lever, value: number): boolean {
    const weight = weightOf(this.seeking.assembly);
    this.purse.left -= weight;
    const changed = setLever(this.design, lever.mechanism, lever.parameter, value);
    const assembly = tryBuild(changed);
    if (!assembly) return false;
    const closed = gather(changed, 'closed', 0, assembly);
    const standing = (rule: Rule, evidence: Evidence): Finding | undefined =>
      rule.check(evidence).find((f) => this.stands(f));
    const still = this.rule.needs === 'travel' ? undefined : standing(this.rule, closed);
    if (still) {
      this.elsewhere = this.tried !== this.design && still.id === this.finding.id;
      if (this.elsewhere || (still.id !== this.finding.id && !GUARDS.includes(still.rule)))
        this.note(lever, value, still, 0);
      return false;
    }
    this.purse.left -= weight * (PROOF_COST - 1);
    const travel = [...walk(assembly, this.seeking.steps ?? DEFAULT_STEPS)];
    const evidence = { ...closed, travel, byHand: [...handWalk(assembly)], named: namedPoses(changed, assembly) };
    for (const rule of RULES) {
      const left = standing(rule, evidence);
      if (!left) continue;
      if (left.id !== this.finding.id && !GUARDS.includes(left.rule)) this.note(lever, value, left, 0);
      this.purse.left -= byHandOf(evidence).work / PLACES_PER_TRY;
      return false;
    }
    this.purse.left -= byHandOf(evidence).work / PLACES_PER_TRY;
    return true;
  }

  /** Remembers the try that leaves least of the finding: what it leaves is said where nothing clears it. */
  private note(lever: Lever, value: number, left: Finding, size: number, breaks = (): boolean => false): void {
    if (size >= this.leastLeft) return;
    const told = { ...lever, value: tidyAway(value, 1), left: left.message };
    this.near.push({ size, told, breaks });
  }

  /** The try that leaves least, of those that leave the card whole. Asked once all levers were tried. */
  get nearest(): Finding['nearest'] {
    return [...this.near].sort((a, b) => a.size - b.size).find(({ breaks }) => !breaks())?.told;
  }
}

/** Parts of the reach of a search at which values are tried, growing. */
const PROBES = [0.01, 0.03, 0.08, 0.18, 0.28, 0.4, 0.55, 0.8];
/** A search reaches at least this far (mm or degrees), or as far as the value is large. */
const LEAST_REACH = 200;

/**
 * Nearest value toward `end` that clears; null where none was met. Probes the misfit itself first (lengths that must
 * be equal clear at one value only), then in growing steps, and closes in between the last that fails and the first
 * that clears.
 */
function nearestClear(now: number, end: number, measured: number, clears: (value: number) => boolean): number | null {
  const direction = Math.sign(end - now);
  const room = Math.abs(end - now);
  if (direction === 0) return null;
  for (const exact of [measured, measured / 2]) {
    const value = tidy(now + direction * exact, SIZE_ROUNDING_MM);
    if (exact > 0 && exact <= room && clears(value) && !clears(tidy(value - direction * GRAIN, SIZE_ROUNDING_MM))) {
      const round = tidyAway(value, direction);
      return round !== value && clears(round) ? round : value;
    }
  }
  const reach = Math.min(room, Math.max(LEAST_REACH, Math.abs(now)));
  let failed = now;
  let good = Number.NaN;
  // An end that is near is looked at itself.
  for (const part of room <= LEAST_REACH ? [...PROBES, 1] : PROBES) {
    const value = now + direction * reach * part;
    if (clears(value)) {
      good = value;
      break;
    }
    failed = value;
  }
  if (Number.isNaN(good)) return null;
  while (Math.abs(good - failed) > GRAIN / 2) {
    const middle: number = (good + failed) / 2;
    if (clears(middle)) good = middle;
    else failed = middle;
  }
  return [tidy(good, GRAIN), tidyAway(good, direction)].find(clears) ?? tidyAway(good, direction);
}
const tidyAway = (value: number, direction: number): number =>
  tidy(direction > 0 ? Math.ceil(value / GRAIN) * GRAIN : Math.floor(value / GRAIN) * GRAIN, GRAIN);
const tidy = (value: number, grain: number): number => Number((Math.round(value / grain) * grain).toFixed(6));
