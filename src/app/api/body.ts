/** Reading a design from a request: bounded, checked, with a clear 4xx where it will not do. */
import { readDesign, LARGEST_FILE } from '@/core/document/schema';
import { shelveFonts } from '@/fonts/shelve';
import type { Design } from '@/core/document/design';

export const refuse = (status: number, error: string): Response => Response.json({ error }, { status });

/** The design in the body, or the response that refuses it. Stops reading once the body is too large. */
export async function designFrom(request: Request): Promise<Design | Response> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\b/i.test(type)) return refuse(415, 'send the design as application/json');
  const declared = Number(request.headers.get('content-length') ?? 0);
  const tooLarge = (): Response => refuse(413, `the body is larger than ${LARGEST_FILE / 1e6} MB`);
  if (declared > LARGEST_FILE) return tooLarge();
  const reader = request.body?.getReader();
  if (!reader) return refuse(400, 'the body is empty; send a design');
  const parts: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { value, done } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > LARGEST_FILE) {
      await reader.cancel();
      return tooLarge();
    }
    parts.push(value);
  }
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts));
  } catch {
    return refuse(400, 'the body is not UTF-8 text');
  }
  const read = readDesign(text);
  // Whatever follows may set text.
  shelveFonts();
  return read.ok ? read.design : refuse(400, read.why);
}
