/** Verbs that decide with numbers: `study`, `target`. */
import { availableParallelism } from 'node:os';
import { moved, OPEN, restOf, stateIn, within, type Drive } from '../core/drives';
import { buildAssembly } from '../core/build/build';
import { envelopeOf, envelopesOf } from '../core/document/post';
import { fieldOf, kindIn } from '../core/document/fields';
import { isAngleMeasure } from '../core/document/words';
import type { Design } from '../core/document/design';
import { leverValue } from '../core/proof/levers';
import { CARD } from '../core/ids';
import { parseAngle } from '../core/units/angle';
import { parseLength } from '../core/units/length';
import {
  joinedStudy,
  MOST_MADE,
  studied,
  summaryOf,
  USUAL_MADE,
  type Share,
  type Study,
  type StudyAsk,
} from '../core/decide/study';
import { MOST_SCATTER, USUAL_SCATTER, type Scatter } from '../core/decide/scatter';
import {
  ALL_SLABS,
  chosenOf,
  freeNumber,
  searchSlabs,
  valuesNow,
  type Candidate,
  type Free,
  type TargetAsk,
} from '../core/decide/target';
import {
  asAt,
  CARD_MEASURES,
  MeasureReader,
  USUAL_OPEN,
  type At,
  type Want,
  type WantKind,
} from '../core/decide/wants';
import { gather } from '../core/proof/evidence';
import { saidAt, wordsOfStep } from '../core/decide/words';
import { worstCards, type WorstCard } from '../core/decide/worst';
import {
  readArguments,
  readDesignFile,
  readNumber,
  readNamed,
  readState,
  UsageError,
  type CommandLine,
  type Runner,
  type Verb,
} from './arguments';
import { readPart, readParts } from './parts';
import { onAllCores } from './pool';

const SCATTER_OPTIONS = {
  cut: ['cutMm', 'mm'],
  score: ['scoreMm', 'mm'],
  fold: ['foldDeg', 'deg'],
  glue: ['glueMm', 'mm'],
  'glue-turn': ['glueDeg', 'deg'],
} as const satisfies Record<string, readonly [keyof Scatter, 'mm' | 'deg']>;

function readScatter(options: Readonly<Record<string, string | undefined>>): Scatter {
  const out: Record<string, number> = { ...USUAL_SCATTER };
  for (const [name, [key, unit]] of Object.entries(SCATTER_OPTIONS))
    out[key] = readNumber(options[name], name, 0, MOST_SCATTER[unit], USUAL_SCATTER[key]);
  return out as unknown as Scatter;
}

/** What a part of a study writes. */
interface StudyPart {
  readonly part_of: 'study';
  readonly study: Study;
  readonly words: Readonly<Record<string, string>>;
  readonly worst: readonly WorstCard[] | null;
}

const MOST_SEED = 2 ** 31 - 1;
const study =
  (run: Runner): Verb =>
  async (args) => {
    const { files, options, flags } = readArguments(args, {
      ...{ made: 'one', seed: 'one', part: 'one', join: 'flag' },
      ...{ cut: 'one', score: 'one', fold: 'one', glue: 'one', 'glue-turn': 'one' },
    });
    if (flags.has('join')) return { result: toldStudy(joinedParts(readParts<StudyPart>(files, 'study'))) };
    const part = readPart(options.part);
    const design = readDesignFile(files);
    const ask: StudyAsk = {
      made: readNumber(options.made, 'made', 1, MOST_MADE, USUAL_MADE, true),
      seed: readNumber(options.seed, 'seed', 0, MOST_SEED, 1, true),
      scatter: readScatter(options),
    };
    if (part) return { result: studyPart(design, { ...ask, part }) };
    const parts = await inThreads<StudyPart>(run, ['study', ...args], partsFor(ask.made));
    return { result: toldStudy(parts ? joinedParts(parts) : studyPart(design, ask)) };
  };

/** Fewer than this are not worth a thread. */
const LEAST_FOR_THREAD = 40;
const partsFor = (made: number): number => Math.min(availableParallelism(), Math.floor(made / LEAST_FOR_THREAD));

/** The same command line in so many parts; null where one would do, or there are no threads. */
async function inThreads<T>(run: Runner, line: CommandLine, parts: number): Promise<readonly T[] | null> {
  if (parts < 2) return null;
  const jobs = Array.from({ length: parts }, (_, k) => [...line, '--part', `${k + 1}/${parts}`]);
  const done = await onAllCores(jobs, run);
  const failed = done.find((d) => d.code === 2);
  if (failed) throw new UsageError(failed.error!.replace(/^\w+: /, ''));
  return done.map((d) => JSON.parse(d.out!) as T);
}

function studyPart(design: Design, ask: StudyAsk): StudyPart {
  const all = studied(design, ask);
  // The first part tells the worst cards, which need no others.
  const first = !ask.part || ask.part[0] === 1;
  const worst = first ? worstCards(design, ask.scatter) : null;
  const titles = new Map(buildAssembly(design).pieces.map((p) => [p.id, p.title]));
  const named = [...all.overhangShares, ...all.closingShares, ...(worst ?? []).flatMap((w) => w.astray)];
  const words = Object.fromEntries(
    named.map((s) => [`${s.kind} ${s.id}`, wordsOfStep(design, s, (id) => titles.get(id))]),
  );
  return { part_of: 'study', study: all, words, worst };
}
function joinedParts(parts: readonly StudyPart[]): StudyPart {
  const study = joinedStudy(parts.map((p) => p.study));
  if (!study) throw new UsageError('--join: these are not all the parts of one study, each once');
  const words = Object.assign({}, ...parts.map((p) => p.words)) as StudyPart['words'];
  return { part_of: 'study', study, words, worst: parts.find((p) => p.worst)?.worst ?? [] };
}

function toldStudy({ study: s, words, worst }: StudyPart): object {
  const sum = summaryOf(s);
  const shares = (list: readonly Share[]) =>
    list.map(({ kind, id, sharePct }) => ({ what: words[`${kind} ${id}`], step: kind, id, share_pct: sharePct }));
  return {
    made: sum.made,
    seed: s.seed,
    scatter: {
      cut_mm: s.scatter.cutMm,
      score_mm: s.scatter.scoreMm,
      fold_deg: s.scatter.foldDeg,
      glue_mm: s.scatter.glueMm,
      glue_deg: s.scatter.glueDeg,
    },
    good_pct: sum.goodPct,
    closes_pct: sum.closesPct,
    binds_pct: sum.bindsPct,
    pokes_out_pct: sum.pokesOutPct,
    shows_edge_pct: sum.showsPct,
    overhang_mm: sum.overhangMm,
    closing_gap_mm: sum.closedGapMm,
    most_sensitive: shares(s.overhangShares),
    closing_sensitive: shares(s.closingShares),
    worst: (worst ?? []).map(({ of, fitness, astray }) => ({
      of,
      overhang_mm: fitness.overhangMm,
      closing_gap_mm: fitness.closedGapMm,
      way_gap_mm: fitness.wayGapMm,
      edges_mm: fitness.edgesMm,
      astray: astray.map(({ kind, id, by }) => ({ what: words[`${kind} ${id}`], step: kind, id, by })),
    })),
  };
}

/** What a part of a search writes. */
interface TargetPart {
  readonly part_of: 'target';
  readonly ask: TargetAsk;
  readonly now: readonly number[];
  readonly candidates: readonly Candidate[];
  /** Slabs that it has searched. */
  readonly slabs: readonly number[];
}

const target =
  (run: Runner): Verb =>
  async (args) => {
    const { files, options, many, flags } = readArguments(args, {
      ...{ want: 'many', free: 'many', within: 'one', part: 'one', join: 'flag' },
    });
    if (flags.has('join')) return toldTarget(joinedTarget(readParts<TargetPart>(files, 'target')));
    const part = readPart(options.part);
    const design = postedIn(readDesignFile(files), options.within);
    const ask: TargetAsk = {
      wants: readWants(design, many.want),
      free: many.free.map((text) => readFree(design, text)),
    };
    if (ask.wants.length === 0)
      throw new UsageError('--want is missing: MECH.MEASURE=VALUE[@OPEN], also >=, <=, =max or =min');
    if (ask.free.length === 0) throw new UsageError('--free is missing: MECH.KEY or MECH.KEY=FROM..TO');
    if (ask.free.length > MOST_FREE)
      throw new UsageError(`--free is given ${ask.free.length} times; at most ${MOST_FREE} numbers can be searched`);
    if (part) return { result: targetPart(design, ask, part) };
    const parts = await inThreads<TargetPart>(
      run,
      ['target', ...args],
      Math.min(availableParallelism(), ALL_SLABS.length),
    );
    return toldTarget(parts ? joinedTarget(parts) : targetPart(design, ask, [1, 1]));
  };
const MOST_FREE = 6;

function targetPart(design: Design, ask: TargetAsk, [k, n]: readonly [number, number]): TargetPart {
  const slabs = ALL_SLABS.filter((s) => s % n === k - 1);
  return {
    part_of: 'target',
    ask,
    now: valuesNow(design, ask),
    candidates: searchSlabs(design, ask, slabs),
    slabs,
  };
}
function joinedTarget(parts: readonly TargetPart[]): TargetPart {
  const [first] = parts;
  const slabs = parts.flatMap((p) => p.slabs).sort((a, b) => a - b);
  const alike = (p: TargetPart): string => JSON.stringify([p.ask, p.now]);
  if (parts.some((p) => alike(p) !== alike(first)) || slabs.join() !== ALL_SLABS.join())
    throw new UsageError('--join: these are not all the parts of one search, each once');
  // In the order of the slabs, whoever searched them.
  const candidates = slabs.flatMap((s) => parts.flatMap((p) => p.candidates.filter((c) => c.slab === s)));
  return { ...first, candidates, slabs };
}

function toldTarget({ ask, now, candidates }: TargetPart): { code: 0 | 3; result: object } {
  const { found, nearest } = chosenOf(ask, now, candidates);
  const told = ({ values, measures, verdict }: Candidate): object => ({
    parameters: nested(ask.free.map(({ mechanism, key }, k) => [mechanism, key, values[k]] as const)),
    measures: nested(ask.wants.map((w, k) => [w.mechanism, measureKey(ask, w), measures[k]] as const)),
    verdict,
  });
  return {
    code: found.length > 0 ? 0 : 3,
    result: { found: found.map(told), nearest: nearest && told(nearest), against: nearest?.against ?? [] },
  };
}
/** A measure that is wanted in two states is told with each. */
const measureKey = ({ wants }: TargetAsk, want: Want): string => {
  const { mechanism, measure } = want;
  const others = wants.filter((w) => w.mechanism === mechanism && w.measure === measure);
  return others.some((w) => stateKey(w) !== stateKey(want)) ? `${measure}@${stateKey(want)}` : measure;
};
const stateKey = ({ open, drives = {} }: At): string =>
  [String(open), ...Object.entries(drives).map(([id, value]) => `${id}=${value}`)].join();
const nested = (list: readonly (readonly [string, string, number | null])[]): Record<string, Record<string, unknown>> =>
  list.reduce<Record<string, Record<string, unknown>>>(
    (out, [owner, key, value]) => ({ ...out, [owner]: { ...out[owner], [key]: value } }),
    {},
  );

/** The design as it is sent in another envelope. */
function postedIn(design: Design, envelope: string | undefined): Design {
  if (envelope === undefined) return design;
  const known = envelopesOf(design);
  const found = known.find((e) => e.id === envelope || e.name.toLowerCase() === envelope.toLowerCase());
  if (!found) throw new UsageError(`--within ${envelope.slice(0, 30)}: known are ${known.map((e) => e.id).join(', ')}`);
  const posted = { ...design, post: { ...design.post, envelope: found.id } };
  return envelopeOf(posted) ? posted : design;
}

const KIND_OF: Readonly<Record<string, WantKind>> = { '=': 'equal', '>=': 'atLeast', '<=': 'atMost' };
const ownersIn = (design: Design): string[] => [CARD, ...design.mechanisms.map((m) => m.id)];
function readWants(design: Design, texts: readonly string[]): Want[] {
  const assembly = buildAssembly(design);
  const reader = new MeasureReader(assembly, gather(design, 'closed', 0, assembly));
  return texts.map((text) => {
    const want = readWant(text, (at) => readAt(design, assembly.drives, text, at));
    if (reader.read(want) === null)
      throw new UsageError(`--want "${text.slice(0, 60)}": ${noMeasure(design, want, reader)}`);
    return want;
  });
}

/** `step-1.ridge_z=40@90`, `card.thickness_mm<=3`, `step-1.ridge_z=max`. */
function readWant(text: string, stateSaid: (at: string) => At): Want {
  const [, mechanism, measure, sign, said, at] = /^([^.=<>]+)\.([^=<>]+?)(>=|<=|=)([^@]+)(?:@(.+))?$/.exec(text) ?? [];
  if (mechanism === undefined)
    throw new UsageError(`--want "${text.slice(0, 60)}" must be MECH.MEASURE=VALUE[@OPEN], also >=, <=, =max or =min`);
  const where = at === undefined ? { open: USUAL_OPEN } : stateSaid(at);
  if (sign === '=' && (said === 'max' || said === 'min'))
    return { mechanism, measure, ...where, is: said === 'max' ? 'most' : 'least' };
  const read = isAngleMeasure(measure) ? parseAngle(said) : parseLength(said);
  if (!read.ok) throw new UsageError(`--want "${text.slice(0, 60)}": ${read.why}`);
  return { mechanism, measure, ...where, is: KIND_OF[sign], value: read.value };
}

/** `90`, `90,disc.turn=30`, `disc.turn=30` or a state that has a name: `shelf`. What is not said is at rest. */
function readAt(design: Design, drives: readonly Drive[], want: string, at: string): At {
  const items = at.split(',').map((item) => item.trim());
  const plain = items.filter((item) => !item.includes('='));
  const said = `--want "${want.slice(0, 60)}"`;
  if (plain.length > 1) throw new UsageError(`${said}: after @ comes one opening, or one name of a state`);
  const isNamed = plain.length === 1 && !parseAngle(plain[0]).ok;
  try {
    const from = isNamed ? stateIn(drives, readNamed(design, plain[0])) : moved(restOf(drives), OPEN, USUAL_OPEN);
    const driven = items.filter((item) => item.includes('='));
    return asAt(drives, within(drives, readState(drives, isNamed ? undefined : plain[0], driven, from)));
  } catch (error) {
    if (error instanceof UsageError) throw new UsageError(`${said}: ${error.message}`);
    throw error;
  }
}
function noMeasure(design: Design, { mechanism, ...at }: Want, reader: MeasureReader): string {
  const ids = ownersIn(design);
  if (!ids.includes(mechanism)) return `there is no mechanism "${mechanism}"; there are ${ids.join(', ')}`;
  const all = reader.namesAt(at)[mechanism] ?? [];
  const known = mechanism === CARD ? [...CARD_MEASURES, ...all] : all;
  return `it has no such measure ${saidAt(design, at)}; it has ${[...new Set(known)].join(', ') || 'none'}`;
}

/** `step-1.depth`, `card.reachA=80..140`. */
function readFree(design: Design, text: string): Free {
  const [, mechanism, key, from, to] = /^([^.=]+)\.([^=]+?)(?:=(.+?)\.\.(.+))?$/.exec(text) ?? [];
  const said = `--free "${text.slice(0, 60)}"`;
  if (mechanism === undefined) throw new UsageError(`${said} must be MECH.KEY or MECH.KEY=FROM..TO`);
  const ids = ownersIn(design);
  if (!ids.includes(mechanism))
    throw new UsageError(`${said}: there is no mechanism "${mechanism}"; there are ${ids.join(', ')}`);
  if (leverValue(design, mechanism, key) === null)
    throw new UsageError(`${said}: ${mechanism} has no number "${key}" that is set`);
  const { unit = 'mm', min = -Infinity, max = Infinity } = fieldOf(kindIn(design, mechanism) ?? '', key) ?? {};
  if (unit !== 'mm' && unit !== 'deg') throw new UsageError(`${said}: only lengths and angles can be searched`);
  const usual = freeNumber(design, mechanism, key);
  if (from === undefined) {
    if (!usual) throw new UsageError(`${said}: its range must be said, as ${mechanism}.${key}=FROM..TO`);
    return usual;
  }
  const ends = [from, to].map((t) => {
    const read = unit === 'deg' ? parseAngle(t) : parseLength(t);
    if (!read.ok) throw new UsageError(`${said}: ${read.why}`);
    return read.value;
  });
  if (!(ends[0] < ends[1]) || ends[0] < min || ends[1] > max)
    throw new UsageError(`${said}: it must go upwards, from ${min} to ${max} at most`);
  return { mechanism, key, from: ends[0], to: ends[1] };
}

/** @param run does a command line: what is spread over threads is done by it */
export const decideVerbs = (run: Runner): Readonly<Record<'study' | 'target', Verb>> => ({
  study: study(run),
  target: target(run),
});
