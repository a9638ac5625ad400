/** Long walks tell on stderr how far they are, and end where a limit of time is given. */
import type { Assembly } from '../core/assembly/assembly';
import { fromJoint } from '../core/drives';

/** Nothing is said before this, and then no more often (ms). */
const EVERY_MS = 1000;

/** Follows the walks of an assembly; `seconds`: they are given up after that long. */
export function followWalks(assembly: Assembly, seconds: number): void {
  const began = performance.now();
  let said = began;
  assembly.travel.watch = (drive, lead) => {
    const now = performance.now();
    if (now - said > EVERY_MS) {
      said = now;
      const { label, unit } = assembly.drives[lead];
      const at = `${label.toLowerCase()} ${fromJoint(assembly.drives[lead], drive).toFixed(1)} ${unit}`;
      process.stderr.write(`folding: ${at} after ${((now - began) / 1000).toFixed(0)} s\n`);
    }
    return now - began < seconds * 1000;
  };
}
