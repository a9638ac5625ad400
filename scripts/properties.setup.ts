/**
 * Random tests are the same on every run, so that a change is judged by what it changed. `npm run explore` gives them
 * other seeds, and names the seed of whatever it finds.
 */
import fc from 'fast-check';

/** Looking for a smaller example ends here (ms): one that takes seconds to judge could be shrunk for hours. */
const LONGEST_MS = 120_000;
const seed = Number(process.env.PROPERTY_SEED ?? 20261126);

// Ended before all its examples were tried, a test has not passed.
fc.configureGlobal({ seed, interruptAfterTimeLimit: LONGEST_MS, markInterruptAsFailure: true });
