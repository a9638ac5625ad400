/** The built application, served on a port of its own for the browser tests. */
import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';

const freePort = (): Promise<number> =>
  new Promise((done, fail) => {
    const probe = createServer();
    probe.once('error', fail);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });

export async function serve(demo = true): Promise<{ base: string; stop: () => void }> {
  const port = await freePort();
  const child: ChildProcess = spawn('node_modules/.bin/next', ['start', '-p', String(port), '-H', '127.0.0.1'], {
    stdio: 'ignore',
    detached: true,
    env: { ...process.env, NODE_ENV: 'production', RHABDOPLEX_DEMO: demo ? '1' : '0', NEXT_TELEMETRY_DISABLED: '1' },
  });
  const base = `http://127.0.0.1:${port}`;
  const deadline = Date.now() + 60_000;
  for (;;) {
    try {
      if ((await fetch(base)).ok) break;
    } catch {
      // Not up yet.
    }
    if (Date.now() > deadline) throw new Error('the application did not start; is it built?');
    await new Promise((wait) => setTimeout(wait, 200));
  }
  return {
    base,
    stop: () => {
      if (child.pid) process.kill(-child.pid);
    },
  };
}
