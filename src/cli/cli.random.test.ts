/** The command line against random parameters: closed forms hold, or the input is refused in one line. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { run } from './run';

const dir = mkdtempSync(join(tmpdir(), 'rhabdoplex-random-'));
const file = join(dir, 'card.json');
const rad = (deg: number): number => (deg * Math.PI) / 180;
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true }).map((x) => Number(x.toFixed(3)));

interface Report {
  residual_mm: number;
  facets: { id: string; points: [number, number, number][] }[];
  landmarks: Record<string, Record<string, [number, number, number]>>;
  measures: Record<string, Record<string, number>>;
}
async function pose(open: number): Promise<Report> {
  const { out } = await run(['pose', file, '--open', String(open)]);
  return JSON.parse(out!) as Report;
}

test('a cut step’s ridge, at any size and opening', async () => {
  await fc.assert(
    fc.asyncProperty(
      number(5, 60),
      number(5, 60),
      number(20, 150),
      number(-20, 20),
      number(0, 180),
      async (depth, height, width, offset, open) => {
        const made = await run([
          'new',
          file,
          '--card',
          '200x150',
          '--kind',
          'step-fold',
          `depth=${depth}`,
          `height=${height}`,
          `width=${width}`,
          `offset=${offset}`,
        ]);
        expect(made.code).toBe(0);
        const { landmarks, residual_mm } = await pose(open);
        const [x, y, z] = landmarks['step-fold-1'].ridge;
        expect(x).toBeCloseTo(offset, 6);
        expect(y).toBeCloseTo(depth + height * Math.cos(rad(open)), 6);
        expect(z).toBeCloseTo(height * Math.sin(rad(open)), 6);
        expect(residual_mm).toBeLessThan(1e-6);
      },
    ),
    { numRuns: 25 },
  );
});

test('what proves clear of overhang lies inside the leaves when closed', async () => {
  await fc.assert(
    fc.asyncProperty(number(5, 90), number(5, 90), async (depth, height) => {
      await run([
        'new',
        file,
        '--card',
        '200x100',
        '--kind',
        'step-fold',
        `depth=${depth}`,
        `height=${height}`,
        'width=50',
      ]);
      const proof = JSON.parse((await run(['prove', file, '--steps', '4'])).out!) as {
        findings: { rule: string; measured: number }[];
        closed: { overhang: { fore: number } };
      };
      const past = Math.max(0, depth + height - 100);
      const found = proof.findings.find((f) => f.rule === 'overhang');
      if (past > 0.002) expect(found!.measured).toBeCloseTo(past, 5);
      else expect(found).toBeUndefined();
      expect(proof.closed.overhang.fore).toBeCloseTo(past, 2);
    }),
    { numRuns: 12 },
  );
});

test('a remedy that is offered, applied by the command line, clears its finding', async () => {
  await fc.assert(
    fc.asyncProperty(number(55, 80), number(50, 80), async (depth, height) => {
      const make = (d: number): Promise<unknown> =>
        run(['new', file, '--card', '200x100', '--kind', 'step-fold', `depth=${d}`, `height=${height}`, 'width=50']);
      const overhang = async () => {
        const proof = JSON.parse((await run(['prove', file, '--steps', '4'])).out!) as {
          findings: { rule: string; remedies?: { parameter: string; value: number }[] }[];
        };
        return proof.findings.find((f) => f.rule === 'overhang');
      };
      await make(depth);
      const remedy = (await overhang())!.remedies!.find((r) => r.parameter === 'depth')!;
      await make(remedy.value);
      expect(await overhang()).toBeUndefined();
      // Nearest: a little more reaches out again.
      await make(remedy.value + 0.2);
      expect(await overhang()).toBeDefined();
    }),
    { numRuns: 6 },
  );
});

test('whatever is typed as a value, the answer is a design or one line', async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ maxLength: 40 }), async (text) => {
      const { code, out, error } = await run([
        'new',
        file,
        '--card',
        '200x100',
        '--kind',
        'step-fold',
        `depth=${text}`,
      ]);
      expect([0, 2]).toContain(code);
      if (code === 2) {
        expect(out).toBeUndefined();
        expect(error!.split('\n')).toHaveLength(1);
      }
    }),
    { numRuns: 150 },
  );
});

test('whatever a file holds, every reading verb refuses it in one line', async () => {
  const bad = join(dir, 'bad.json');
  await fc.assert(
    fc.asyncProperty(fc.oneof(fc.string(), fc.json(), fc.uint8Array({ maxLength: 60 })), async (content) => {
      writeFileSync(bad, content);
      for (const args of [
        ['check', bad],
        ['prove', bad],
        ['pose', bad, '--open', '90'],
        ['cutlist', bad],
        ['pattern', bad, '--as', 'svg', '--out', join(dir, 'x')],
        ['fold', bad],
      ]) {
        const { code, error } = await run(args);
        expect(code).toBe(2);
        expect(error!.split('\n')).toHaveLength(1);
      }
    }),
    { numRuns: 60 },
  );
});
