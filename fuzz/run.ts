/**
 * Throws broken files at every reader: npm run fuzz [-- inputs seconds seed]. Ends with 1 where one threw what is no
 * reason for a person, took over 5 s of work, or the memory grew past 500 MB. Files that grow: `--grow`.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { seeded } from '../src/core/linkage/random';
import { shelveFonts } from '../src/fonts/shelve';
import { grow } from './grow';
import { broken, corpus, faultOf, type Input } from './inputs';

const LONGEST_MS = 5000;
const MOST_BYTES = 500e6;

/** Ends the process where an input is not done in time: a hang cannot tell by itself. */
function watchOver(beat: BigInt64Array): void {
  const source = `
    const { workerData, parentPort } = require('node:worker_threads');
    const beat = new BigInt64Array(workerData);
    setInterval(() => {
      const began = Number(Atomics.load(beat, 0));
      if (began > 0 && Date.now() - began > ${4 * LONGEST_MS}) {
        require('node:fs').writeSync(2, 'input ' + Atomics.load(beat, 1) + ' hangs\\n');
        process.kill(process.pid, 'SIGKILL');
      }
    }, 500);`;
  new Worker(source, { eval: true, workerData: beat.buffer }).unref();
}

function keep(input: Input, k: number): string {
  const folder = join('fuzz', 'found');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, `${k}-${input.kind}`);
  writeFileSync(file, input.text);
  return file;
}

function main(): void {
  const [count = 100_000, seconds = 3600, seed = 1] = process.argv.slice(2).map(Number);
  shelveFonts();
  const files = corpus();
  const random = seeded(seed);
  const beat = new BigInt64Array(new SharedArrayBuffer(16));
  watchOver(beat);
  const until = Date.now() + seconds * 1000;
  let [done, faults, slow, longest, most] = [0, 0, 0, 0, 0];
  for (; done < count && Date.now() < until; done++) {
    const input = broken(files[Math.floor(random() * files.length)], random);
    Atomics.store(beat, 1, BigInt(done));
    Atomics.store(beat, 0, BigInt(Date.now()));
    const began = process.cpuUsage();
    const fault = faultOf(input);
    const { user, system } = process.cpuUsage(began);
    // What the machine does meanwhile is not the reader's time.
    const took = (user + system) / 1000;
    Atomics.store(beat, 0, 0n);
    longest = Math.max(longest, took);
    if (fault) console.log(`${++faults}: ${keep(input, done)}: ${fault.stack?.split('\n').slice(0, 3).join(' ')}`);
    if (took > LONGEST_MS) console.log(`${++slow} slow: ${keep(input, done)}: ${took.toFixed(0)} ms`);
    if (done % 500 === 0) most = Math.max(most, process.memoryUsage().rss);
  }
  console.log(
    `${done} inputs, seed ${seed}: ${faults} faults, ${slow} over ${LONGEST_MS / 1000} s; longest ` +
      `${longest.toFixed(0)} ms, most memory ${(most / 1e6).toFixed(0)} MB`,
  );
  process.exitCode = faults + slow > 0 || most > MOST_BYTES ? 1 : 0;
}
if (process.argv[2] === '--grow') grow(process.argv[3] ?? '');
else main();
