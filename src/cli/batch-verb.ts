/** `batch VERB < LINES`: any number of cards, one line of JSON each, on all processors; one line out for each. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LARGEST_FILE } from '../core/document/schema';
import { readArguments, readText, UsageError, type Outcome, type Runner, type Verb } from './arguments';
import { readPart } from './parts';
import { onAllCores } from './pool';

const BATCHED = ['prove', 'pose', 'cutlist', 'study', 'target'] as const;
const MOST_LINES = 1_000_000;

interface Asked {
  /** Counted from 1. */
  readonly line: number;
  readonly id: string | null;
  readonly file?: string;
  readonly card?: unknown;
  readonly why?: string;
}

/** @param run does a command line */
export const batchVerb =
  (run: Runner): Verb =>
  async (args) => {
    const [verb, ...rest] = args;
    if (verb === '--join') return { result: joinedLines(rest) };
    if (!(BATCHED as readonly string[]).includes(verb))
      throw new UsageError(`batch is for ${BATCHED.join(', ')}; not for "${(verb ?? '').slice(0, 30)}"`);
    const { options, others } = ownOptions(rest);
    const part = readPart(options.part) ?? ([1, 1] as const);
    const lines = linesOf(readInput(options.from)).filter(({ line }) => line % part[1] === part[0] % part[1]);
    const folder = mkdtempSync(join(tmpdir(), 'rhabdoplex-batch-'));
    try {
      const jobs = lines.map((asked) => (asked.why ? [] : [verb, fileOf(asked, folder), ...others]));
      const able = jobs.filter((job) => job.length > 0);
      const done = await onAllCores(able, run);
      let k = 0;
      const told = lines.map((asked, i) => toldLine(asked, jobs[i].length > 0 ? done[k++] : null));
      return { result: told.map((t) => `${JSON.stringify(t)}\n`).join('') };
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  };

/** Options of batch itself; the rest go to the verb. */
function ownOptions(args: readonly string[]): {
  readonly options: Readonly<Record<string, string | undefined>>;
  readonly others: readonly string[];
} {
  const own = ['--part', '--from'];
  const mine: string[] = [];
  const others: string[] = [];
  for (let k = 0; k < args.length; k++) {
    const [name] = args[k].split('=');
    const list = own.includes(name) ? mine : others;
    list.push(args[k]);
    if (list === mine && !args[k].includes('=') && k + 1 < args.length) mine.push(args[++k]);
  }
  return { options: readArguments(mine, { part: 'one', from: 'one' }).options, others };
}

function readInput(from: string | undefined): string {
  if (from !== undefined) return readText(from, 'the lines, one card each');
  try {
    return readFileSync(0, 'utf8');
  } catch (error) {
    throw new UsageError(`the lines cannot be read from standard input (${(error as NodeJS.ErrnoException).code})`);
  }
}

function linesOf(text: string): Asked[] {
  const lines = text.split('\n').map((l) => l.trim());
  if (lines.length > MOST_LINES) throw new UsageError(`${lines.length} lines; at most ${MOST_LINES} are read`);
  return lines.flatMap((l, k) => (l === '' ? [] : [asked(l, k + 1)]));
}
function asked(text: string, line: number): Asked {
  let value: unknown;
  try {
    value = JSON.parse(text.length > LARGEST_FILE ? '' : text);
  } catch {
    return { line, id: null, why: 'the line is not JSON; it must be {"id": …, "file": …} or a card' };
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { line, id: null, why: 'the line must be an object: {"id": …, "file": …} or a card' };
  const { id, file, card, rhabdoplex } = value as Record<string, unknown>;
  const named = typeof id === 'string' || typeof id === 'number' ? String(id) : null;
  // A card has a "card" of its own: its base.
  if (rhabdoplex !== undefined) return { line, id: named, card: value };
  if (typeof file === 'string') return { line, id: named, file };
  if (card !== undefined) return { line, id: named, card };
  return { line, id: named, why: 'the line names no "file" and has no "card"' };
}
function fileOf({ file, card, line }: Asked, folder: string): string {
  if (file !== undefined) return file;
  const path = join(folder, `line-${line}.json`);
  writeFileSync(path, JSON.stringify(card));
  return path;
}

function toldLine({ line, id, why, file }: Asked, done: Outcome | null): object {
  const head = { line, ...(id === null ? {} : { id }) };
  if (why !== undefined || !done) return { ...head, error: why };
  // Files of this run are named by nobody.
  if (done.error !== undefined) return { ...head, code: done.code, error: plainError(done.error, file) };
  return { ...head, code: done.code, result: JSON.parse(done.out!) as unknown };
}
const plainError = (error: string, file: string | undefined): string =>
  file === undefined ? error.replace(/\S*line-(\d+)\.json/g, 'line $1') : error;

/** Lines of all parts in the order of what was asked; every one that is there once, and the last ones known. */
function joinedLines(files: readonly string[]): string {
  if (files.length === 0) throw new UsageError('--join wants the files that the parts wrote: batch --join A B …');
  const lines = files.flatMap((path) =>
    readText(path, 'what a part of a batch wrote')
      .split('\n')
      .filter((l) => l !== '')
      .map((text) => ({ text, path, line: numberOf(text) })),
  );
  const odd = lines.find((l) => l.line === null);
  if (odd) throw new UsageError(`${odd.path} is not what batch writes: ${odd.text.slice(0, 40)}`);
  const sorted = [...lines].sort((a, b) => a.line! - b.line!);
  const twice = sorted.find((l, k) => k > 0 && l.line === sorted[k - 1].line);
  if (twice) throw new UsageError(`--join: line ${twice.line} is there twice`);
  return sorted.map((l) => `${l.text}\n`).join('');
}
function numberOf(text: string): number | null {
  try {
    const { line } = JSON.parse(text) as { line?: unknown };
    return typeof line === 'number' ? line : null;
  } catch {
    return null;
  }
}
