/** The verbs of the command line contract, one function each. */
import { CARD, ownerOfId } from '../core/ids';
import { openTo, stateIn, within } from '../core/drives';
import { existsSync } from 'node:fs';
import { assembleCreasePattern } from '../core/assembly/crease-pattern';
import { cutListCsv } from '../core/formats/csv';
import { readFold } from '../core/formats/fold-read';
import { PLAIN_BASE, BASES, faceMounting, kindInfo, KINDS, type Parameter, type ParameterValue } from '../core/kinds';
import { buildAssembly } from '../core/build/build';
import { openingsOf } from '../core/build/margins';
import { addMechanism, naturalMount } from '../core/document/standing';
import { blankDesign, type CutFrom, type Design, type Mechanism } from '../core/document/design';
import { designText } from '../core/document/design-text';
import { baseKindOf, parametersOf } from '../core/document/fields';
import { withHeights } from '../core/document/shape-sizes';
import { DEFAULT_STEPS, MOST_STEPS, prove as proveDesign, seek } from '../core/proof/prove';
import type { Finding } from '../core/rules';
import { briefOf } from '../core/proof/evidence';
import { reportPose } from '../core/proof/report';
import { checkDesign } from '../core/document/schema';
import { readValue } from '../core/document/values';
import { cutList } from '../core/sheets/cutlist';
import { parseAngle } from '../core/units/angle';
import { parseLength } from '../core/units/length';
import { parseSize } from '../core/units/size';
import { followWalks } from './progress';
import {
  readArguments,
  readDesignFile,
  readNumber,
  readNamed,
  readState,
  readStock,
  readText,
  readSide,
  UsageError,
  writeFile,
  type Verb,
} from './arguments';
import { bring } from './bring-verb';
import { booklet, bundle, cut, sheets } from './sheet-verbs';
import { pattern } from './pattern-verb';

export { UsageError };
/** A parameter as `kinds` tells it; the fields of a list likewise. */
function tellParameter({
  key,
  label,
  unit,
  min,
  max,
  note,
  choices,
  word,
  fields,
  presets,
  ...p
}: Parameter): Record<string, unknown> {
  return {
    key,
    label,
    unit,
    default: p.default,
    min: min ?? null,
    max: max ?? null,
    note,
    ...(choices ? { choices } : {}),
    ...(word ? { word } : {}),
    ...(fields ? { fields: fields.map(tellParameter) } : {}),
    ...(presets ? { presets } : {}),
  };
}

const kinds: Verb = (args) => {
  readArguments(args, {});
  return {
    result: kindInfo().map(({ id, title, parameters }) => ({ id, title, parameters: parameters.map(tellParameter) })),
  };
};

function readCardSize(text: string): { gutter: number; reach: number } {
  const read = parseSize(text);
  if (!read.ok) throw new UsageError(`--card: ${read.why}; it must be GUTTERxREACH such as 200x140 or 7inx5in`);
  const [gutter, reach] = read.value;
  return { gutter, reach };
}

function readParameters(kind: string, pairs: readonly string[]): Record<string, ParameterValue> {
  const known = parametersOf(kind);
  const out: Record<string, ParameterValue> = {};
  for (const pair of pairs) {
    const at = pair.indexOf('=');
    if (at < 1) throw new UsageError(`"${pair.slice(0, 40)}" is not of the form key=value`);
    const key = pair.slice(0, at);
    const p = known.find((q) => q.key === key);
    if (!p)
      throw new UsageError(
        `"${key.slice(0, 40)}" is not a parameter of ${kind}; known are ${known.map((q) => q.key).join(', ')}`,
      );
    if (Object.hasOwn(out, key)) throw new UsageError(`${key} is given twice`);
    const read = readValue(p, pair.slice(at + 1));
    if (!read.ok) throw new UsageError(read.why);
    out[key] = read.value;
  }
  return out;
}

/** What stands on creases is put on a face where a facet, a side or a place is said, and it can be. */
const wantsFace = (kind: string, said: string | undefined, on: string | undefined): boolean => {
  const known = KINDS.get(kind);
  const facet = on !== undefined && ownerOfId(on) === on;
  return (said !== undefined || facet) && known?.mount === 'crease' && faceMounting(known) !== null;
};

/** What it goes on: as asked, and where that is not said as its kind would have it. */
function readMount(
  design: Design,
  kind: string,
  { on, side, at }: Readonly<Record<string, string | undefined>>,
): Pick<Mechanism, 'on' | 'mount'> {
  const natural = naturalMount(design, kind, wantsFace(kind, side ?? at, on) ? readSide(side ?? 'inside') : undefined);
  if (!natural.mount) {
    for (const [name, given] of Object.entries({ side, at }))
      if (given !== undefined)
        throw new UsageError(`--${name} is for what is fixed on a facet; a ${kind} is on a crease`);
    return { on: on ?? natural.on };
  }
  const ways = at?.split(',').map((text, k) => {
    const read = k === 2 ? parseAngle(text) : parseLength(text);
    if (!read.ok) throw new UsageError(`--at: ${read.why}`);
    return read.value;
  });
  if (ways && (ways.length < 2 || ways.length > 3))
    throw new UsageError(`--at is "${at!.slice(0, 30)}"; it must be X,Y or X,Y,TURN from the middle of the facet`);
  const [x, y, turnDeg] = ways ?? [0, 0];
  const mount = { side: side === undefined ? natural.mount.side : readSide(side), x, y, turnDeg: turnDeg ?? 0 };
  const { on: usual } = naturalMount(design, kind, mount.side);
  return { on: on ?? usual, mount };
}

/** A new card: of its size, or on a base whose own numbers say it. */
function beginCard(kind: string, size: string | undefined): Design {
  const base = BASES.get(kind);
  if (size === undefined) {
    if (!base) throw new UsageError('--card is missing; give GUTTERxREACH such as 200x140');
    const plain = blankDesign('Untitled');
    return { ...plain, card: { ...plain.card, ...constructed(base.id), parameters: {} } };
  }
  const { gutter, reach } = readCardSize(size);
  const plain = blankDesign('Untitled', gutter, reach);
  const own = base && { ...constructed(base.id), parameters: base.fitting({ gutter, reach }) };
  return { ...plain, card: { ...plain.card, ...own } };
}
/** A plain card says nothing of its construction. */
const constructed = (id: string): { construction?: string } => (id === PLAIN_BASE ? {} : { construction: id });

/** A mechanism or the base cut from a stock, and single pieces from others. */
function withStocks(design: Design, id: string, said: string | undefined, pieces: readonly string[]): Design {
  const stock = said === undefined ? undefined : readStock(design, said, 'stock');
  const cutFrom = pieces.map((text): CutFrom => {
    const at = text.indexOf('=');
    if (at < 1) throw new UsageError(`--piece is "${text.slice(0, 40)}"; it must be PIECE=STOCK`);
    return { piece: text.slice(0, at), stock: readStock(design, text.slice(at + 1), 'piece') };
  });
  const kept = (design.cutFrom ?? []).filter((c) => !cutFrom.some((n) => n.piece === c.piece));
  return {
    ...design,
    ...(stock !== undefined && id === CARD ? { card: { ...design.card, stock } } : {}),
    mechanisms: design.mechanisms.map((m) => (m.id === id && stock !== undefined ? { ...m, stock } : m)),
    ...(cutFrom.length > 0 ? { cutFrom: [...kept, ...cutFrom] } : {}),
  };
}

const newDesign: Verb = (args) => {
  const {
    files: [path, ...pairs],
    options,
    flags,
    many,
  } = readArguments(args, {
    card: 'one',
    kind: 'one',
    on: 'one',
    side: 'one',
    at: 'one',
    id: 'one',
    stock: 'one',
    piece: 'many',
    name: 'one',
    add: 'flag',
  });
  if (path === undefined)
    throw new UsageError(
      'the name of the file to write is missing: new OUT --card 200x140 --kind step-fold depth=30 …',
    );
  const { kind } = options;
  if (kind === undefined)
    throw new UsageError(
      `--kind is missing; it must be one of ${kindInfo()
        .map((k) => k.id)
        .join(', ')}`,
    );
  if (!kindInfo().some((k) => k.id === kind))
    throw new UsageError(
      `--kind is "${kind.slice(0, 40)}"; it must be one of ${kindInfo()
        .map((k) => k.id)
        .join(', ')}`,
    );
  let design: Design;
  if (flags.has('add')) {
    if (options.card !== undefined)
      throw new UsageError('--card goes with a new file; with --add the card is that of the file');
    if (!existsSync(path)) throw new UsageError(`${path} is not there to add to; leave out --add to write a new file`);
    design = readDesignFile([path]);
  } else {
    const begun = beginCard(kind, options.card);
    design = { ...begun, name: options.name ?? 'Untitled' };
  }
  const values = withHeights(parametersOf(kind), readParameters(kind, pairs), design);
  let id = CARD;
  if (KINDS.has(kind)) {
    ({ design, id } = addMechanism(design, kind, readMount(design, kind, options), values, options.id));
  } else {
    if (options.on !== undefined) throw new UsageError(`${kind} is the base; it stands on nothing`);
    if (kind !== baseKindOf(design).id)
      throw new UsageError(`${kind} is a base, and that of the file is a ${baseKindOf(design).id}; begin a new file`);
    design = { ...design, card: { ...design.card, parameters: { ...design.card.parameters, ...values } } };
  }
  design = withStocks(design, id, options.stock, many.piece ?? []);
  const checked = checkDesign(design);
  if (!checked.ok) throw new UsageError(checked.why);
  // Built once before it is written: a crease that is not there is refused now, not later.
  const assembly = buildAssembly(design);
  const lost = design.cutFrom?.find((c) => !assembly.pieces.some((p) => p.id === c.piece));
  if (lost)
    throw new UsageError(
      `--piece: "${lost.piece}" is no piece of the card; pieces are ${assembly.pieces.map((p) => p.id).join(', ')}`,
    );
  writeFile(path, designText(design));
  const facets = assembly.facets.map((f) => f.id);
  const pieces = assembly.pieces.map((p) => p.id);
  return { result: { file: path, mechanism: id, creases: [...assembly.hosts.keys()], facets, pieces } };
};

/** A walk may take this long unless it is said otherwise, s. */
const LONGEST_S = 600;
const readSeconds = (text: string | undefined): number => readNumber(text, 'seconds', 0, 86_400, LONGEST_S);

const pose: Verb = (args) => {
  const { files, options, many } = readArguments(args, { open: 'one', state: 'one', drive: 'many', seconds: 'one' });
  const design = readDesignFile(files);
  const assembly = buildAssembly(design);
  const from = options.state === undefined ? undefined : stateIn(assembly.drives, readNamed(design, options.state));
  const asked = readState(assembly.drives, options.open, many.drive, from);
  followWalks(assembly, readSeconds(options.seconds));
  const state = within(assembly.drives, asked);
  // What goes round is only counted anew.
  const clamped = assembly.drives.filter((d) => !d.round && state[d.id] !== asked[d.id]);
  const report = reportPose(assembly, state, false, briefOf(design));
  const said = clamped.map((d) => ({ drive: d.id, asked: asked[d.id], from: d.from, to: d.to }));
  return { code: report.stopped ? 3 : 0, result: { ...report, ...(said.length > 0 ? { clamped: said } : {}) } };
};

const prove: Verb = (args) => {
  const { files, options } = readArguments(args, { steps: 'one', seek: 'one' });
  const steps = readNumber(options.steps, 'steps', 2, MOST_STEPS, DEFAULT_STEPS, true);
  const design = readDesignFile(files);
  const proof = proveDesign(design, steps);
  const sought = options.seek === undefined ? null : findingById(proof.findings, options.seek);
  const findings = proof.findings.map((f) =>
    tellFinding(f === sought && f.unsought ? seek(design, f, proof.findings, steps) : f),
  );
  const windows = openingsOf(buildAssembly(design)).map((o) => ({
    ...{ layer: o.id, facet: o.facet, open_mm2: o.openMm2, left_mm2: o.leftMm2, hidden_by: o.hiddenBy },
  }));
  const told = windows.length > 0 ? { windows } : {};
  return { code: proof.verdict === 'blocked' ? 3 : 0, result: { ...proof, findings, ...told } };
};

function findingById(findings: readonly Finding[], id: string): Finding {
  const found = findings.find((f) => f.id === id);
  if (found) return found;
  const ids = findings.map((f) => `"${f.id}"`).slice(0, 5);
  throw new UsageError(`--seek ${id.slice(0, 60)}: the proof has no such finding; it has ${ids.join(', ') || 'none'}`);
}

/** A finding as it is printed: what only the search for remedies needs is left out. */
function tellFinding(finding: Finding): object {
  const { span: _span, aspect: _aspect, cause: _cause, levers: _levers, remedies, ...told } = finding;
  if (!remedies) return told;
  const [{ parameter, value, mechanism }] = remedies;
  return { ...told, remedy: { parameter, value, mechanism }, remedies };
}

const cutlist: Verb = (args) => {
  const { files, options } = readArguments(args, { as: 'one' });
  const as = options.as ?? 'json';
  if (as !== 'json' && as !== 'csv') throw new UsageError(`--as is "${as.slice(0, 20)}"; it must be json or csv`);
  const design = readDesignFile(files);
  const rows = cutList(design, buildAssembly(design));
  return { result: as === 'csv' ? cutListCsv(rows) : rows };
};

const fold: Verb = (args) => {
  const { files, options } = readArguments(args, { fraction: 'one', seconds: 'one' });
  if (files.length > 1) throw new UsageError(`one file is expected, not ${files.length}`);
  const fraction = readNumber(options.fraction, 'fraction', 0, 1, 1);
  const read = readFold(readText(files[0], 'a FOLD file'));
  if (!read.ok) throw new UsageError(`${files[0]}: ${read.why}`);
  const { assembly, leadDeg } = assembleCreasePattern(read.pattern);
  followWalks(assembly, readSeconds(options.seconds));
  const report = reportPose(assembly, openTo(180 - fraction * leadDeg), true);
  return { code: report.stopped ? 3 : 0, result: report };
};

const check: Verb = (args) => {
  const { files } = readArguments(args, {});
  const design = readDesignFile(files);
  const assembly = buildAssembly(design);
  return {
    result: {
      valid: true,
      version: design.rhabdoplex,
      name: design.name,
      mechanisms: design.mechanisms.map((m) => ({ id: m.id, kind: m.kind, on: m.on })),
      pieces: assembly.pieces.map((p) => p.id),
    },
  };
};

export const VERBS: Readonly<Record<string, Verb>> = {
  kinds,
  new: newDesign,
  pose,
  prove,
  pattern,
  sheets,
  cut,
  cutlist,
  booklet,
  bundle,
  fold,
  bring,
  check,
};
