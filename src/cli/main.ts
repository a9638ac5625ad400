/** The command line: a thin reader of arguments over the core. JSON on stdout, one line of trouble on stderr. */
import { shelveFonts } from '../fonts/shelve';
import { failure, run } from './run';

shelveFonts();

const trace = process.argv.includes('--trace');

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
