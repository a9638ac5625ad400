/**
 * `npm run truth -- [--seconds S] [--seed N] [--family NAME]`: random designs near a limit, judged by dense sampling,
 * held against what the rules say. Prints misses and false alarms by family.
 */
import { writeFileSync } from 'node:fs';
import { bench, tableOf, type Tally } from './bench';

const value = (name: string, fallback: string): string => {
  const k = process.argv.indexOf(`--${name}`);
  return k < 0 ? fallback : process.argv[k + 1];
};
const seconds = Number(value('seconds', '60'));
const end = Date.now() + seconds * 1000;
const tallies: readonly Tally[] = bench({
  seed: Number(value('seed', '1')),
  family: value('family', ''),
  more: () => Date.now() < end,
});
process.stdout.write(`${tableOf(tallies)}\n`);
for (const t of tallies)
  for (const [sort, list] of Object.entries({
    missed: t.missed,
    'false alarm': t.falseAlarms,
    'not decided': t.undecided,
  }))
    for (const { number, why } of list) process.stdout.write(`${t.family} ${number}: ${sort}: ${why}\n`);
const out = value('out', '');
if (out) writeFileSync(out, JSON.stringify(tallies, null, 1));
process.exitCode = tallies.some((t) => t.missed.length > 0) ? 3 : 0;
