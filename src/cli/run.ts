import { batchVerb } from './batch-verb';
import { decideVerbs } from './decide-verbs';
import { helpOf } from './help';
import { UsageError, VERBS as PLAIN_VERBS } from './verbs';
import type { Outcome, Verb } from './arguments';
import { DesignError } from '../core/build/build';
import { WRITTEN_BY } from '../core/version';
import { ExportError } from '../core/formats/export';
import { ShapeError } from '../core/shapes/shape';
import { PatternError } from '../core/assembly/crease-pattern';

/** What spreads work runs whole command lines itself, and so stands over the plain verbs. */
const verbs = () => ({ ...PLAIN_VERBS, ...decideVerbs(run), batch: batchVerb(run) });
const usage = () =>
  `usage: rhabdoplex VERB …, where VERB is one of ${Object.keys(verbs()).join(', ')}; ` +
  'VERB --help tells what it takes, --version which program this is';

export async function run(args: readonly string[]): Promise<Outcome> {
  const [verb, ...rest] = args;
  if (verb === undefined || verb === '--help' || verb === 'help')
    return { code: verb === undefined ? 2 : 0, ...(verb === undefined ? { error: usage() } : { out: `${usage()}\n` }) };
  if (verb === '--version') return { code: 0, out: `${WRITTEN_BY}\n` };
  const known: Readonly<Record<string, Verb>> = verbs();
  if (!Object.hasOwn(known, verb)) return { code: 2, error: `"${verb.slice(0, 40)}" is not a verb; ${usage()}` };
  const help = rest.includes('--help') ? helpOf(verb) : null;
  if (help) return { code: 0, out: help };
  try {
    const { code = 0, result } = await known[verb](rest);
    return { code, out: typeof result === 'string' ? result : `${JSON.stringify(result, null, 1)}\n` };
  } catch (error) {
    if (
      error instanceof UsageError ||
      error instanceof DesignError ||
      error instanceof ExportError ||
      error instanceof PatternError ||
      error instanceof ShapeError
    ) {
      return { code: 2, error: `${verb}: ${error.message.replace(/\s+/g, ' ')}` };
    }
    throw error;
  }
}

/** Places that cannot be read or written are the caller's, by their codes of the system (POSIX errno). */
const OF_THE_SYSTEM = /^E[A-Z]{2,}$/;

/** What is said of an error that no verb expected: code 2 for a file that cannot be used, 1 for a fault here. */
export function failure(error: unknown, trace: boolean): { readonly code: 1 | 2; readonly text: string } {
  const { message, code, stack } = error as { message?: string; code?: unknown; stack?: string };
  const line = String(message ?? error).split('\n')[0];
  if (typeof code === 'string' && OF_THE_SYSTEM.test(code)) return { code: 2, text: `rhabdoplex: ${line}` };
  const fault = `rhabdoplex: internal fault: ${line}`;
  return { code: 1, text: trace ? `${fault}\n${stack ?? ''}` : `${fault}; run it again with --trace and send that` };
}
