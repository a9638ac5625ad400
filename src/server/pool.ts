/**
 * Work of the server runs in threads of a pool, so that the thread that answers requests is always free: so many at a
 * time, so many waiting, and each for so long.
 */
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Piscina } from 'piscina';
import { LARGEST_FILE } from '../core/document/json';
import type { Done, Job } from './jobs';

/** Requests that may wait for a thread; more are asked to come again. */
const MOST_WAITING = 32;
/** Most that the bodies of all of them may hold together: four of the largest. */
const MOST_BYTES = 4 * LARGEST_FILE;
/** A job that takes longer is ended, ms. */
const DEADLINE_MS = 60_000;
/** When to come again, s. */
const RETRY_AFTER_S = 5;

/** One processor is left for answering. */
const THREADS = Math.max(1, availableParallelism() - 1);

let pool: Piscina<Job, Done> | null = null;
const thePool = (): Piscina<Job, Done> =>
  (pool ??= new Piscina<Job, Done>({
    filename: join(process.cwd(), 'src', 'server', 'jobs.worker.ts'),
    // The same source as the command line runs from.
    execArgv: ['--import', 'tsx'],
    minThreads: 1,
    maxThreads: THREADS,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  }));

/**
 * Reads a request and does its job: a place is asked for before the body is read, so that those who wait hold no more
 * than all of them may. Ended when the request is given up, refused with 503 where too many wait or hold too much.
 * @param read the job, or the answer that refuses it; it asks for each part of a body that did not say its size
 */
export async function answerWith(
  request: Request,
  read: (hold: Hold) => Promise<Job | Response>,
  headers: Record<string, string> = {},
): Promise<Response> {
  if (atWork >= THREADS + MOST_WAITING) return later('too many requests are waiting');
  let own = 0;
  const hold: Hold = (bytes) => {
    if (bytesHeld + bytes > MOST_BYTES) return later('the requests that are waiting are too large together');
    own += bytes;
    bytesHeld += bytes;
    return null;
  };
  const full = hold(declaredBytes(request));
  if (full) return full;
  atWork++;
  try {
    const job = await read(hold);
    return job instanceof Response ? job : await done(request, job, headers);
  } finally {
    atWork--;
    bytesHeld -= own;
  }
}

/** Makes room for so many bytes; the answer where there is none. */
export type Hold = (bytes: number) => Response | null;

/** What a body says it holds. Those that say more than is read are refused without being read. */
function declaredBytes({ headers }: Request): number {
  const declared = Number(headers.get('content-length') ?? 0);
  return declared >= 0 && declared <= LARGEST_FILE ? declared : 0;
}

async function done(request: Request, job: Job, headers: Record<string, string>): Promise<Response> {
  const deadline = AbortSignal.timeout(DEADLINE_MS);
  try {
    const { status, type, body } = await thePool().run(job, { signal: AbortSignal.any([request.signal, deadline]) });
    return new Response(typeof body === 'string' ? body : new Uint8Array(body), {
      status,
      headers: { 'content-type': type, ...(status === 200 ? headers : {}) },
    });
  } catch (error) {
    if (request.signal.aborted) return new Response(null, { status: 499 });
    if (deadline.aborted) return later(`this took longer than ${DEADLINE_MS / 1000} s and was ended; ask for less`);
    // The log of the server is all that a person who runs it has.
    // eslint-disable-next-line no-console
    console.error(error);
    return Response.json({ error: 'this could not be worked out; the server goes on' }, { status: 500 });
  }
}
/** Requests that have a thread, wait for one or are being read; and what their bodies may hold. */
let atWork = 0;
let bytesHeld = 0;

const later = (error: string): Response =>
  Response.json({ error }, { status: 503, headers: { 'retry-after': String(RETRY_AFTER_S) } });

/** Ends the threads. */
export async function closePool(): Promise<void> {
  await pool?.destroy();
  pool = null;
}
