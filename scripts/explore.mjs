// npm run explore [RUNS]: the core's random tests, each time with another seed. A failure names the seed to repeat it:
// PROPERTY_SEED=N npx jest …
import { run } from './tools.mjs';

const runs = Number(process.argv[2] ?? 5);
let failed = 0;
for (let k = 0; k < runs; k++) {
  const seed = Math.floor(Math.random() * 2 ** 31);
  console.log(`\n== ${k + 1} of ${runs}: PROPERTY_SEED=${seed}`);
  const status = run('npx', ['jest', '--selectProjects', 'core', '--silent', '--reporters=summary'], {
    env: { ...process.env, PROPERTY_SEED: String(seed) },
  });
  if (status !== 0) failed++;
}
console.log(`\n${runs - failed} of ${runs} runs without a failure`);
process.exit(failed === 0 ? 0 : 1);
