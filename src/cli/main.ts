/**
 * The command line: a thin reader of arguments over the core. JSON on stdout, one line of trouble on stderr. In a
 * thread it only offers what does one of its jobs.
 */
import { fileURLToPath } from 'node:url';
import { isMainThread } from 'node:worker_threads';
import { shelveFonts } from '../fonts/shelve';
import type { CommandLine } from './arguments';
import { threadsFrom } from './pool';
import { failure, run } from './run';

shelveFonts();

/** A job of a thread. */
export default (args: CommandLine) => run(args);

const main = (): void => {
  const trace = process.argv.includes('--trace');
  // A source as it is cannot be started in a thread; the one file that holds all can.
  if (/\.mjs$/.test(import.meta.url)) threadsFrom(fileURLToPath(import.meta.url));
  run(process.argv.slice(2).filter((a) => a !== '--trace')).then(
    ({ code, out, error }) => {
      if (out !== undefined) process.stdout.write(out);
      if (error !== undefined) process.stderr.write(`${error}\n`);
      process.exitCode = code;
    },
    (error: unknown) => {
      const { code, text } = failure(error, trace);
      process.stderr.write(`${text}\n`);
      process.exitCode = code;
    },
  );
};
if (isMainThread) main();
