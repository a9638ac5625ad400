import { UsageError, VERBS } from './verbs';
import { DesignError } from '../core/build/build';
import { ExportError } from '../core/formats/export';
import { ShapeError } from '../core/shapes/shape';
import { PatternError } from '../core/assembly/crease-pattern';

export interface Outcome {
  /** 0 done, 2 unusable input, 3 the design has a finding that blocks. */
  readonly code: 0 | 2 | 3;
  readonly out?: string;
  readonly error?: string;
}

const USAGE =
  'usage: rhabdoplex VERB …, where VERB is one of kinds, new, pose, prove, pattern, cutlist, fold, bring, check';

export async function run(args: readonly string[]): Promise<Outcome> {
  const [verb, ...rest] = args;
  if (verb === undefined || verb === '--help' || verb === 'help')
    return { code: verb === undefined ? 2 : 0, ...(verb === undefined ? { error: USAGE } : { out: `${USAGE}\n` }) };
  if (!Object.hasOwn(VERBS, verb)) return { code: 2, error: `"${verb.slice(0, 40)}" is not a verb; ${USAGE}` };
  try {
    const { code = 0, result } = await VERBS[verb](rest);
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
