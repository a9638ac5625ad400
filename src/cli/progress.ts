/** Long walks tell on stderr how far they are, and end where a limit of time is given. */
import type { Assembly } from '../core/assembly/assembly';
import { radToDeg } from '../core/units/angle';

/** Nothing is said before this, and then no more often (ms). */
const EVERY_MS = 1000;

/** Follows the walks of an assembly; `seconds`: they are given up after that long. */
export function followWalks(assembly: Assembly, seconds: number): void {
  const began = performance.now();
  let said = began;
  assembly.travel.watch = (drive) => {
    const now = performance.now();
    if (now - said > EVERY_MS) {
      said = now;
      const open = (180 - radToDeg(drive)).toFixed(1);
      process.stderr.write(`folding: ${open} degrees open after ${((now - began) / 1000).toFixed(0)} s\n`);
    }
    return now - began < seconds * 1000;
  };
}
