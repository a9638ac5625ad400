import terrace from '../../../examples/terrace-night.json';
import survey from '../../../examples/sky-survey.json';
import { LARGEST_FILE } from '@/core/document/schema';
import { POST as pattern } from './pattern/route';
import { POST as prove } from './prove/route';
import { closePool } from '@/server/pool';
import { textFrom } from './body';

afterAll(() => closePool());

const post = (path: string, body: string | undefined, type = 'application/json'): Request =>
  new Request(`http://localhost${path}`, {
    method: 'POST',
    ...(body === undefined ? {} : { body }),
    headers: { 'content-type': type },
  });
const error = async (r: Response): Promise<string> => ((await r.json()) as { error: string }).error;

test('prove answers like the command line', async () => {
  const answer = (await (await prove(post('/api/prove?steps=6', JSON.stringify(survey)))).json()) as {
    verdict: string;
    findings: { rule: string }[];
    travel: unknown[];
  };
  expect(answer.verdict).toBe('blocked');
  expect(answer.findings.map((f) => f.rule).sort()).toEqual(['overhang', 'web']);
  expect(answer.travel).toHaveLength(7);
});

test('pattern answers with the file', async () => {
  const answer = await pattern(post('/api/pattern?as=svg&piece=card', JSON.stringify(terrace)));
  expect(answer.headers.get('content-type')).toBe('image/svg+xml');
  expect(await answer.text()).toContain('<g id="valley"');
});

test.each<[string, () => Promise<Response>, number, RegExp]>([
  ['text that is no JSON', () => prove(post('/api/prove', '{')), 400, /JSON/],
  ['an empty body', () => prove(post('/api/prove', undefined)), 400, /empty/],
  ['another type', () => prove(post('/api/prove', '{}', 'text/plain')), 415, /application\/json/],
  [
    'a type that only begins so',
    () => prove(post('/api/prove', '{}', 'application/json-evil')),
    415,
    /application\/json/,
  ],
  ['too large a body', () => prove(post('/api/prove', ' '.repeat(LARGEST_FILE + 10))), 413, /larger/],
  ['too many steps', () => prove(post('/api/prove?steps=100000', '{}')), 400, /steps/],
  ['an unknown parameter', () => prove(post('/api/prove?fast=1', '{}')), 400, /fast/],
  ['no format', () => pattern(post('/api/pattern', JSON.stringify(terrace))), 400, /as/],
  [
    'a piece that is not there',
    () => pattern(post('/api/pattern?as=svg&piece=gone', JSON.stringify(terrace))),
    422,
    /gone/,
  ],
  [
    'a newer design',
    () => pattern(post('/api/pattern?as=svg', JSON.stringify({ ...terrace, rhabdoplex: 9 }))),
    400,
    /newer/,
  ],
])('%s is refused', async (_, ask, status, why) => {
  const answer = await ask();
  expect(answer.status).toBe(status);
  expect(await error(answer)).toMatch(why);
});

jest.setTimeout(60_000);
describe('work in threads', () => {
  /** A card that takes the proof a long time: mechanisms that overlap badly, so that remedies are looked for. */
  const hard = {
    ...terrace,
    mechanisms: Array.from({ length: 60 }, (_, k) => ({
      id: `s-${k}`,
      kind: 'step-fold',
      name: 'Step',
      on: 'card.gutter',
      stock: terrace.mechanisms[0].stock,
      parameters: { depth: 30 + (k % 7), height: 20 + (k % 5), width: 60, offset: k - 30 },
    })),
    dressing: [],
    layers: [],
  };
  /** So many clients at once, who give up together. */
  const hardly = (clients: number, signal: AbortSignal): Promise<Response>[] =>
    Array.from({ length: clients }, () => prove(new Request(post('/api/prove', JSON.stringify(hard)), { signal })));
  test('16 clients prove: the thread that answers stays free, and given up means ended', async () => {
    await prove(post('/api/prove?steps=2', JSON.stringify(survey)));
    const left = new AbortController();
    const asked = hardly(16, left.signal);
    let longest = 0;
    for (let k = 0; k < 30; k++) {
      const began = performance.now();
      await new Promise((done) => setTimeout(done, 20));
      longest = Math.max(longest, performance.now() - began - 20);
    }
    left.abort();
    expect((await Promise.all(asked)).every((r) => r.status === 499)).toBe(true);
    // 200 ms are promised; what is left is reading 16 bodies.
    expect(longest).toBeLessThan(200);
    // A thread is free again at once.
    expect((await prove(post('/api/prove?steps=2', JSON.stringify(survey)))).status).toBe(200);
  });
  test('more than can wait are asked to come again', async () => {
    const left = new AbortController();
    const asked = hardly(60, left.signal);
    const first = await Promise.race(asked);
    expect([first.status, first.headers.get('retry-after')]).toEqual([503, '5']);
    expect(await error(first)).toMatch(/too many/);
    left.abort();
    await Promise.all(asked);
  });
});

test('a body that drips is not waited for', async () => {
  let drip: ReturnType<typeof setInterval> | undefined;
  const body = new ReadableStream<Uint8Array>({
    start: (c) => {
      drip = setInterval(() => c.enqueue(new Uint8Array([32])), 10);
    },
    cancel: () => clearInterval(drip),
  });
  const request = new Request('http://localhost/api/prove', {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/json' },
    duplex: 'half',
  } as RequestInit);
  const answer = (await textFrom(request, undefined, 100)) as Response;
  expect(answer.status).toBe(408);
  clearInterval(drip);
});

test('what waits holds no more than four of the largest bodies: the next are asked to come again, unread', async () => {
  const slow = (): Request => {
    const body = new ReadableStream<Uint8Array>({
      pull: (c) => new Promise((go) => setTimeout(() => (c.close(), go()), 300)),
    });
    return new Request('http://localhost/api/prove', {
      ...{ method: 'POST', body, duplex: 'half' },
      headers: { 'content-type': 'application/json', 'content-length': String(LARGEST_FILE) },
    } as RequestInit);
  };
  const requests = Array.from({ length: 10 }, slow);
  const statuses = (await Promise.all(requests.map((r) => prove(r)))).map((r) => r.status);
  expect(statuses.filter((s) => s === 503)).toHaveLength(6);
  expect(statuses.filter((s) => s === 400)).toHaveLength(4);
  // Their places are free again.
  expect((await prove(slow())).status).toBe(400);
});
