/** Reading of arguments and files. Everything that is wrong becomes a UsageError of one line. */
import { driveNamed, moved, OPEN, restOf, type Drive, type State } from '../core/drives';
import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { LARGEST_FILE, readDesign } from '../core/document/schema';
import type { Design } from '../core/document/design';
import { statesOf } from '../core/document/states';
import { SIDES, type NamedState, type Side } from '../core/kinds';
import { parseAngle, ROUND_AND_ROUND } from '../core/units/angle';
import { parseLength } from '../core/units/length';

/** Input that cannot be used: says what, where, and what would be right. */
export class UsageError extends Error {}

export interface VerbResult {
  readonly code?: 0 | 3;
  readonly result: unknown;
}
export type Verb = (args: readonly string[]) => VerbResult | Promise<VerbResult>;

export interface Outcome {
  /** 0 done, 2 unusable input, 3 the design has a finding that blocks; 1 is a fault of the program. */
  readonly code: 0 | 2 | 3;
  readonly out?: string;
  readonly error?: string;
}
/** A verb with its arguments, and what does one. */
export type CommandLine = readonly string[];
export type Runner = (line: CommandLine) => Promise<Outcome>;

export interface Arguments {
  readonly files: readonly string[];
  readonly options: Readonly<Record<string, string | undefined>>;
  readonly many: Readonly<Record<string, readonly string[]>>;
  readonly flags: ReadonlySet<string>;
}
type OptionKind = 'one' | 'many' | 'flag';

/** `--at -60,0`: a number below 0 after an option is its value, not another option. */
function joinNegative(args: readonly string[], known: Readonly<Record<string, OptionKind>>): string[] {
  const out: string[] = [];
  for (const arg of args) {
    const before = out.at(-1);
    const wanting = before?.startsWith('--') && ['one', 'many'].includes(known[before.slice(2)] ?? 'flag');
    if (wanting && /^-[\d.]/.test(arg)) out[out.length - 1] = `${before}=${arg}`;
    else out.push(arg);
  }
  return out;
}

/** Positional arguments first, `--name value` anywhere. Unknown and repeated options are refused. */
export function readArguments(args: readonly string[], known: Readonly<Record<string, OptionKind>>): Arguments {
  const options = Object.fromEntries(
    Object.entries(known).map(([name, kind]) => [
      name,
      { type: kind === 'flag' ? 'boolean' : 'string', multiple: true } as const,
    ]),
  );
  let parsed;
  try {
    parsed = parseArgs({ args: joinNegative(args, known), options, allowPositionals: true, strict: true });
  } catch (error) {
    throw new UsageError(
      `${(error as Error).message.split('. ')[0]}; options here are ${
        Object.keys(known)
          .map((k) => `--${k}`)
          .join(', ') || 'none'
      }`,
    );
  }
  const one: Record<string, string | undefined> = {};
  const many: Record<string, readonly string[]> = {};
  const flags = new Set<string>();
  for (const [name, kind] of Object.entries(known)) {
    const values = (parsed.values[name] ?? []) as (string | boolean)[];
    if (kind === 'one' && values.length > 1)
      throw new UsageError(`--${name} is given ${values.length} times; give it once`);
    if (kind === 'flag') {
      if (values.length > 0) flags.add(name);
    } else if (kind === 'one') one[name] = values[0] as string | undefined;
    else many[name] = values as string[];
  }
  return { files: parsed.positionals, options: one, many, flags };
}

export function readText(path: string | undefined, what: string): string {
  if (path === undefined) throw new UsageError(`the name of ${what} is missing`);
  try {
    const stat = statSync(path);
    if (stat.isDirectory()) throw new UsageError(`${path} is a folder; name ${what}`);
    if (stat.size > LARGEST_FILE)
      throw new UsageError(
        `${path} has ${Math.round(stat.size / 1e6)} MB; ${what} has at most ${LARGEST_FILE / 1e6} MB`,
      );
    return new TextDecoder('utf-8', { fatal: true }).decode(readFileSync(path));
  } catch (error) {
    if (error instanceof UsageError) throw error;
    if (error instanceof TypeError) throw new UsageError(`${path} is not text; name ${what}`);
    throw new UsageError(`${path} cannot be read (${(error as NodeJS.ErrnoException).code ?? 'error'}); name ${what}`);
  }
}

export function readDesignFile(files: readonly string[]): Design {
  if (files.length > 1) throw new UsageError(`one file is expected, not ${files.length} (${files[1].slice(0, 40)})`);
  const read = readDesign(readText(files[0], 'a design file'));
  if (!read.ok) throw new UsageError(`${files[0]}: ${read.why}`);
  return read.design;
}

export function writeFile(path: string, bytes: Uint8Array | string): void {
  try {
    writeFileSync(path, bytes);
  } catch (error) {
    throw new UsageError(`${path} cannot be written (${(error as NodeJS.ErrnoException).code ?? 'error'})`);
  }
}

export function readNumber(
  text: string | undefined,
  name: string,
  min: number,
  max: number,
  fallback: number,
  whole = false,
): number {
  if (text === undefined) return fallback;
  const value = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text.trim()) ? Number(text) : Number.NaN;
  if (!Number.isFinite(value) || value < min || value > max || (whole && !Number.isInteger(value))) {
    throw new UsageError(
      `--${name} is "${text.slice(0, 30)}"; it must be a ${whole ? 'whole ' : ''}number from ${min} to ${max}`,
    );
  }
  return value;
}

export function readOpen(text: string | undefined, fallback?: number): number {
  if (text === undefined) {
    if (fallback === undefined)
      throw new UsageError('--open is missing; give the opening in degrees, 0 closed to 180 flat');
    return fallback;
  }
  const angle = parseAngle(text);
  if (!angle.ok || angle.value < 0 || angle.value > 180)
    throw new UsageError(`--open is "${text.slice(0, 30)}"; it must be degrees from 0 (closed) to 180 (flat)`);
  return angle.value;
}

/** A state of the card by its id or its name: `--state shelf`, `--state "On the shelf"`. */
export function readNamed(design: Design, text: string): NamedState {
  const known = statesOf(design);
  const found = known.find((s) => s.id === text) ?? known.find((s) => s.name.toLowerCase() === text.toLowerCase());
  if (found) return found;
  throw new UsageError(
    `--state ${text.slice(0, 30)}: the card has no state of that name; it has ` +
      (known.map((s) => `"${s.id}"`).join(', ') || 'none'),
  );
}

/**
 * What every drive is asked to stand at: `--open DEG` and any number of `--drive NAME=V`, the later over the earlier;
 * NAME is the drive's id, or its end where only one drive ends so. What is not named is as in `from`, else at rest.
 */
export function readState(
  drives: readonly Drive[],
  open: string | undefined,
  named: readonly string[],
  from?: State,
): State {
  let state = from ?? restOf(drives);
  if (open !== undefined || (named.length === 0 && !from)) state = moved(state, OPEN, readOpen(open));
  for (const text of named) {
    const [, name, value] = /^([^=]*)=?(.*)$/s.exec(text)!;
    const drive = driveNamed(drives, name);
    if (!drive)
      throw new UsageError(
        `--drive ${text.slice(0, 30)}: this design has no drive "${name.slice(0, 20)}"; it has ` +
          drives.map((d) => d.id).join(', '),
      );
    const read = drive.unit === 'deg' ? parseAngle(value, ROUND_AND_ROUND) : parseLength(value);
    if (!read.ok) throw new UsageError(`--drive ${text.slice(0, 30)}: ${read.why}`);
    state = moved(state, drive.id, read.value);
  }
  return state;
}

export function readSide(text: string): Side {
  if ((SIDES as readonly string[]).includes(text)) return text as Side;
  throw new UsageError(`--side is "${text.slice(0, 20)}"; it must be inside or outside`);
}

/** The id of a stock of the card, said by that or by its name. */
export function readStock({ stocks }: Design, text: string, option: string): string {
  const stock = stocks.find((s) => s.id === text || s.name.toLowerCase() === text.toLowerCase());
  if (stock) return stock.id;
  const known = stocks.map((s) => `${s.id} (${s.name})`).join(', ');
  throw new UsageError(`--${option}: "${text.slice(0, 40)}" is no stock of the card; it has ${known}`);
}
