/** The search and the study beside one proof, and how they grow with free numbers and with processors. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { Maker } from '../src/core/decide/fitness';
import { USUAL_SCATTER } from '../src/core/decide/scatter';
import { amountsOf } from '../src/core/decide/study';
import { freeNumber, searchTarget } from '../src/core/decide/target';
import { readDesign } from '../src/core/document/schema';
import { prove } from '../src/core/proof/prove';
import type { Tools } from './paper';

const CARDS = ['terrace-night', 'dome-skyline', 'refractor-evening'];
const MADE = 20;

export function benchDecide({ row, time }: Tools): void {
  console.log('\nDeciding, beside one whole proof of the card');
  for (const name of CARDS) {
    const read = readDesign(readFileSync(`examples/${name}.json`, 'utf8'));
    if (!read.ok) throw new Error(read.why);
    const proof = time(() => prove(read.design), 3);
    const maker = new Maker(read.design, USUAL_SCATTER);
    const made = time(() => {
      for (let k = 0; k < MADE; k++) maker.make(amountsOf(maker.steps, 1, k));
    }, 3);
    row(`  ${name}`, `${(proof / (made / MADE)).toFixed(1)} cards made`, `in one proof of ${proof.toFixed(0)} ms`);
  }
  const step = readDesign(readFileSync('examples/terrace-night.json', 'utf8'));
  if (!step.ok) throw new Error(step.why);
  const [{ id }] = step.design.mechanisms;
  const free = (key: string) => freeNumber(step.design, id, key)!;
  const wants = [{ mechanism: 'card', measure: 'lift_mm', is: 'equal', value: 90, open: 90 }] as const;
  const proof = time(() => prove(step.design), 3);
  for (const keys of [['height'], ['height', 'depth'], ['height', 'depth', 'width']]) {
    const from = performance.now();
    searchTarget(step.design, { wants, free: keys.map(free) });
    const ms = performance.now() - from;
    row(`  search over ${keys.length}`, `${(ms / proof).toFixed(0)} proofs long`);
  }
  const folder = mkdtempSync(join(tmpdir(), 'rhabdoplex-bench-'));
  const lines = join(folder, 'lines');
  writeFileSync(lines, Array.from({ length: 12 }, () => `${JSON.stringify(step.design)}\n`).join(''));
  const batch = (env: NodeJS.ProcessEnv): number => {
    const from = performance.now();
    spawnSync(process.execPath, ['scripts/rhabdoplex.mjs', 'batch', 'study', '--made', '60', '--from', lines], { env });
    return performance.now() - from;
  };
  const all = batch(process.env);
  const one = batch({ ...process.env, RHABDOPLEX_THREADS: '1' });
  row(`  twelve studies on ${availableParallelism()} processors`, `${(one / all).toFixed(2)} x one processor`);
}
