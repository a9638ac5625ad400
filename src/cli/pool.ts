/**
 * Work spread over the processors: jobs are command lines, so that whatever a verb does it does alike in a thread.
 * Where no file to start threads from is known (a test, a source run as it is) jobs are done one after the other.
 */
import { availableParallelism } from 'node:os';
import type { CommandLine, Outcome, Runner } from './arguments';

let file: string | null = null;
/** Threads are started from this file from now on; its default export does a job. */
export const threadsFrom = (path: string): void => void (file = path);

/**
 * Does all jobs on all processors, or on as many as RHABDOPLEX_THREADS says; answers in their order. `onDone` is told
 * how many are done.
 * @param here does a job in this thread
 */
export async function onAllCores(
  jobs: readonly CommandLine[],
  here: Runner,
  onDone: (count: number) => void = () => undefined,
): Promise<Outcome[]> {
  let done = 0;
  const counted = async (job: Promise<Outcome>): Promise<Outcome> => {
    const outcome = await job;
    onDone(++done);
    return outcome;
  };
  const asked = Number(process.env.RHABDOPLEX_THREADS);
  const threads = Math.min(jobs.length, asked >= 1 ? Math.floor(asked) : availableParallelism());
  if (!file || threads < 2) {
    const out: Outcome[] = [];
    for (const job of jobs) out.push(await counted(here(job)));
    return out;
  }
  const { Piscina } = await import('piscina');
  const pool = new Piscina<CommandLine, Outcome>({ filename: file, minThreads: threads, maxThreads: threads });
  try {
    return await Promise.all(jobs.map((job) => counted(pool.run(job))));
  } finally {
    await pool.destroy();
  }
}
