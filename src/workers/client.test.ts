import { readFileSync } from 'node:fs';
import { newestWins, PURPOSES } from './client';
import type { Answer } from './protocol';

test('one request in flight; only the newest of those that wait is asked', async () => {
  const asked: number[] = [];
  const taken: Answer<number>[] = [];
  let release: (() => void)[] = [];
  const ask = newestWins<[number], number>(
    (n) =>
      new Promise((done) => {
        asked.push(n);
        release.push(() => done({ ok: true, value: n }));
      }),
    (a) => taken.push(a),
  );
  [1, 2, 3, 4].forEach((n) => ask(n));
  expect(asked).toEqual([1]);
  const finish = async (): Promise<void> => {
    const now = release;
    release = [];
    now.forEach((r) => r());
    await new Promise((r) => setTimeout(r));
  };
  await finish();
  await finish();
  expect(asked).toEqual([1, 4]);
  expect(taken).toEqual([
    { ok: true, value: 1 },
    { ok: true, value: 4 },
  ]);
});

test('a worker that fails settles as an answer, and the next request still goes', async () => {
  const taken: Answer<number>[] = [];
  let fail = true;
  const ask = newestWins<[], number>(
    async () => {
      if (fail) throw new Error('gone');
      return { ok: true, value: 7 };
    },
    (a) => taken.push(a),
  );
  ask();
  await new Promise((r) => setTimeout(r));
  fail = false;
  ask();
  await new Promise((r) => setTimeout(r));
  expect(taken).toEqual([
    { ok: false, why: 'gone' },
    { ok: true, value: 7 },
  ]);
});

test('the architecture names every worker there is', () => {
  const text = readFileSync('docs/architecture.md', 'utf8');
  for (const purpose of PURPOSES) expect(text).toContain(`\`${purpose}\``);
});
