/** The command line: a thin reader of arguments over the core. JSON on stdout, one line of trouble on stderr. */
import { shelveFonts } from '../fonts/shelve';
import { run } from './run';

shelveFonts();

run(process.argv.slice(2)).then(
  ({ code, out, error }) => {
    if (out !== undefined) process.stdout.write(out);
    if (error !== undefined) process.stderr.write(`${error}\n`);
    process.exitCode = code;
  },
  (error: unknown) => {
    process.stderr.write(`rhabdoplex: ${String((error as Error)?.message ?? error).split('\n')[0]}\n`);
    process.exitCode = 2;
  },
);
