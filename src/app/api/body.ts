/** Reading the text of a request: bounded in size and time, with a clear 4xx where it will not do. */
import { LARGEST_FILE } from '@/core/document/schema';
import type { Hold } from '@/server/pool';

export const refuse = (status: number, error: string): Response => Response.json({ error }, { status });

/** What a body may take to arrive, ms. */
const SLOWEST_MS = 15_000;

/**
 * The body as text, or the response that refuses it. Stops reading once it is too large or too slow, or there is no
 * room for what it did not say of itself.
 */
export async function textFrom(
  request: Request,
  hold: Hold = () => null,
  slowestMs = SLOWEST_MS,
): Promise<string | Response> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\s*(;|$)/i.test(type)) return refuse(415, 'send the design as application/json');
  const declared = Number(request.headers.get('content-length') ?? 0);
  const tooLarge = (): Response => refuse(413, `the body is larger than ${LARGEST_FILE / 1e6} MB`);
  if (declared > LARGEST_FILE) return tooLarge();
  const reader = request.body?.getReader();
  if (!reader) return refuse(400, 'the body is empty; send a design');
  const parts: Uint8Array[] = [];
  let size = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const slow = new Promise<'slow'>((done) => (timer = setTimeout(() => done('slow'), slowestMs)));
  try {
    for (;;) {
      const read = await Promise.race([reader.read(), slow]);
      if (read === 'slow') {
        void reader.cancel().catch(() => undefined);
        return refuse(408, `the body did not arrive within ${slowestMs / 1000} s`);
      }
      if (read.done) break;
      size += read.value.length;
      if (size > LARGEST_FILE) {
        void reader.cancel().catch(() => undefined);
        return tooLarge();
      }
      const full = size > declared ? hold(read.value.length) : null;
      if (full) {
        void reader.cancel().catch(() => undefined);
        return full;
      }
      parts.push(read.value);
    }
  } finally {
    clearTimeout(timer);
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts));
  } catch {
    return refuse(400, 'the body is not UTF-8 text');
  }
}
