import terrace from '../../../examples/terrace-night.json';
import survey from '../../../examples/sky-survey.json';
import { LARGEST_FILE } from '@/core/document/schema';
import { POST as pattern } from './pattern/route';
import { POST as prove } from './prove/route';

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
