/**
 * What a file costs as it grows: npm run fuzz -- --grow [PART OF A NAME]. Inputs that double, ten times or until they
 * are refused, each sort in a process of its own. A fault: an exponent over 1.3, 5 s or 500 MB at the largest.
 */
import { spawnSync } from 'node:child_process';
import { shelveFonts } from '../src/fonts/shelve';
import { GROWING, type Growing } from './growing';
import { faultOf } from './inputs';
import { exponentOf, type Grown } from './exponent';

const DOUBLINGS = 10;
const LONGEST_MS = 5000;
const MOST_MB = 500;
const MOST_EXPONENT = 1.3;
/** Files longer than this are not opened by any reader. */
const LARGEST_TEXT = 24e6;
/** After so long a process is ended: it does not answer. */
const PATIENCE_MS = 120_000;

/** One sort, all its lengths, in this process. */
function grown({ kind, from, text, most = Infinity }: Growing): Grown[] {
  const out: Grown[] = [];
  for (let n = from, k = 0; k <= DOUBLINGS && n <= most; n *= 2, k++) {
    const input = { kind, text: text(n) };
    if (input.text.length > LARGEST_TEXT) break;
    const began = process.cpuUsage();
    const fault = faultOf(input);
    const { user, system } = process.cpuUsage(began);
    const ms = (user + system) / 1000;
    out.push({ n, bytes: input.text.length, ms, mb: process.memoryUsage().rss / 1e6, fault: fault?.message ?? null });
    if (ms > LONGEST_MS) break;
  }
  return out;
}

/** The same in a process of its own, so that none inherits another's memory or its compiled code. */
function apart(name: string): Grown[] | null {
  const args = ['--max-old-space-size=1024', '--import', 'tsx', __filename, '--grow-one', name];
  const { stdout } = spawnSync(process.execPath, args, { encoding: 'utf8', timeout: PATIENCE_MS, maxBuffer: 1e8 });
  const said = stdout.trim().split('\n').at(-1) ?? '';
  return said.startsWith('[') ? (JSON.parse(said) as Grown[]) : null;
}

function faultsOf(lengths: readonly Grown[], idleMb: number): string[] {
  const exponent = exponentOf(lengths);
  const most = Math.max(...lengths.map((g) => g.mb)) - idleMb;
  const longest = Math.max(...lengths.map((g) => g.ms));
  const thrown = lengths.find((g) => g.fault)?.fault;
  return [
    ...(exponent !== null && exponent > MOST_EXPONENT ? [`grows as n^${exponent.toFixed(2)}`] : []),
    ...(longest > LONGEST_MS ? [`takes ${longest.toFixed(0)} ms`] : []),
    ...(most > MOST_MB ? [`takes ${most.toFixed(0)} MB`] : []),
    ...(thrown ? [`throws: ${thrown}`] : []),
  ];
}

function rowOf(name: string, lengths: readonly Grown[], faults: readonly string[]): string {
  const last = lengths[lengths.length - 1];
  const longest = Math.max(...lengths.map((g) => g.ms));
  const cells = [
    ...[name, last.n, `${(last.bytes / 1000).toFixed(0)} kB`],
    ...[exponentOf(lengths)?.toFixed(2) ?? '–', longest.toFixed(0), Math.max(...lengths.map((g) => g.mb)).toFixed(0)],
    faults.join('; '),
  ];
  return `| ${cells.join(' | ')} |`;
}

/** Ends with 1 where something grows faster, takes longer or holds more than it may. */
export function grow(part: string): void {
  const asked = GROWING.filter((g) => g.name.includes(part));
  console.log('| what grows | largest | file | exponent | ms | MB | fault |\n|---|---|---|---|---|---|---|');
  let faulty = 0;
  for (const { name } of asked) {
    const lengths = apart(name);
    const faults = lengths ? faultsOf(lengths, lengths[0].mb) : ['gives no answer'];
    if (faults.length > 0) faulty++;
    console.log(lengths ? rowOf(name, lengths, faults) : `| ${name} | | | | | | ${faults[0]} |`);
  }
  console.log(`\n${asked.length} sorts, ${faulty} with a fault`);
  process.exitCode = faulty > 0 ? 1 : 0;
}

/** Asked by `apart`. */
if (process.argv[2] === '--grow-one') {
  shelveFonts();
  console.log(JSON.stringify(grown(GROWING.find((g) => g.name === process.argv[3])!)));
}
