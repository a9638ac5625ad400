/** The desk in front of a worker: every question is answered, whatever becomes of the worker behind it. */
import { expose } from 'comlink';
import { Desk, type AskOptions, type WorkerLike } from './desk';
import type { Answer } from './protocol';

/** What the worker of a test does with a question. */
type Behaviour = 'answers' | 'is silent' | 'throws' | 'dies' | 'fails to load' | 'cannot be made';

/** A worker at the other end of a channel. */
class TestWorker {
  terminated = false;
  private readonly channel = new MessageChannel();
  private readonly errors = new Set<() => void>();
  freed: () => void = () => undefined;
  readonly gone = new Promise<void>((done) => (this.freed = done));

  constructor(readonly behaviour: Behaviour) {
    const { port1 } = this.channel;
    if (behaviour === 'fails to load') setTimeout(() => this.fail(), 5);
    else
      expose(
        {
          hold: async () => true,
          load: async () => {
            if (behaviour === 'throws') throw new Error('the work went wrong');
            if (behaviour === 'dies') setTimeout(() => this.die(), 5);
            if (behaviour !== 'answers') return new Promise(() => undefined);
            return { ok: true, value: 'done' };
          },
        },
        port1 as never,
      );
    this.channel.port2.start();
  }
  postMessage = (message: unknown, transfer: Transferable[] = []): void =>
    this.terminated ? undefined : this.channel.port2.postMessage(message, transfer as never);
  addEventListener(type: string, listener: (e: unknown) => void): void {
    if (type === 'message') this.channel.port2.addEventListener('message', listener as never);
    else this.errors.add(listener as () => void);
  }
  removeEventListener(type: string, listener: (e: unknown) => void): void {
    if (type === 'message') this.channel.port2.removeEventListener('message', listener as never);
  }
  terminate(): void {
    this.terminated = true;
    this.channel.port1.close();
    this.channel.port2.close();
    this.freed();
  }
  /** Ends as a worker does that runs out of memory: no word, only its lock comes free. */
  die(): void {
    this.freed();
  }
  fail(): void {
    this.errors.forEach((told) => told());
  }
}

function deskOf(...behaviours: Behaviour[]) {
  const workers: TestWorker[] = [];
  const news: string[] = [];
  const desk = new Desk('the test', {
    start: () => {
      const behaviour = behaviours[Math.min(workers.length, behaviours.length - 1)];
      const worker = new TestWorker(behaviour);
      workers.push(worker);
      if (behaviour === 'cannot be made') {
        worker.terminate();
        throw new Error('no workers here');
      }
      return worker as unknown as WorkerLike;
    },
    gone: () => workers.at(-1)!.gone,
    tell: (text) => news.push(text),
  });
  const ask = (options: Partial<AskOptions> = {}): Promise<Answer<unknown>> =>
    desk.ask<unknown>((remote) => remote.load({ revision: 1 }), { boundMs: 2000, ...options });
  return { desk, workers, news, ask };
}
const open: Desk[] = [];
const made = (...behaviours: Behaviour[]) => {
  const all = deskOf(...behaviours);
  open.push(all.desk);
  return all;
};
afterEach(() => open.splice(0).forEach((d) => d.close()));

test('an answer is an answer, and one worker gives many', async () => {
  const { ask, workers, news } = made('answers');
  expect(await ask()).toEqual({ ok: true, value: 'done' });
  expect(await Promise.all([ask(), ask()])).toHaveLength(2);
  expect([workers.length, news]).toEqual([1, []]);
});

test('work that throws is an answer too, and the worker stays', async () => {
  const { ask, workers } = made('throws');
  expect(await ask()).toEqual({ ok: false, why: 'the work went wrong' });
  expect(await ask()).toMatchObject({ ok: false });
  expect(workers).toHaveLength(1);
});

test.each<Behaviour>(['dies', 'fails to load', 'cannot be made'])(
  'a worker that %s: another one takes the question up, and it is told',
  async (first) => {
    const { ask, workers, news } = made(first, 'answers');
    expect(await ask()).toEqual({ ok: true, value: 'done' });
    expect(workers).toHaveLength(2);
    if (first !== 'cannot be made') {
      expect(workers[0].terminated).toBe(true);
      expect(news).toEqual(['the test stopped and was started again']);
    }
  },
);

test.each<Behaviour>(['dies', 'fails to load', 'cannot be made'])(
  'a question over which every worker %s is answered: it is put twice and no more',
  async (always) => {
    const { ask, workers } = made(always);
    expect(await ask()).toMatchObject({ ok: false, why: expect.stringMatching(/^the test stopped over this 2 times/) });
    expect(workers).toHaveLength(2);
  },
);

test('a bound: what takes longer is given up with its worker, and others are put again', async () => {
  const { ask, workers } = made('is silent', 'answers');
  const slow = ask({ boundMs: 40 });
  const other = ask();
  expect(await slow).toMatchObject({ ok: false, why: expect.stringMatching(/took longer/) });
  expect(await other).toEqual({ ok: true, value: 'done' });
  expect(workers.map((w) => w.terminated)).toEqual([true, false]);
});

test('given up on request: at once, without a word of a worker that stopped', async () => {
  const { ask, workers, news } = made('is silent', 'answers');
  const left = new AbortController();
  const asked = ask({ signal: left.signal });
  await new Promise((r) => setTimeout(r, 20));
  left.abort();
  expect(await asked).toMatchObject({ ok: false, stopped: true });
  expect(workers[0].terminated).toBe(true);
  expect(news).toEqual([]);
  expect(await ask({ signal: left.signal })).toMatchObject({ stopped: true });
  expect(await ask()).toEqual({ ok: true, value: 'done' });
});

test('closing leaves no worker behind', async () => {
  const { desk, ask, workers } = made('answers');
  await ask();
  desk.close();
  expect(workers.every((w) => w.terminated)).toBe(true);
});
