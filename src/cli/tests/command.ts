/** What tests of the command line share: run a verb, and see that it was done or refused. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run } from '../run';

/** The folder of this test run. */
export const dir = mkdtempSync(join(tmpdir(), 'rhabdoplex-cli-'));
/** A file of this test run. */
export const at = (name: string): string => join(dir, name);

/** What a verb that is done prints. */
export async function ok(...args: string[]): Promise<any> {
  const { code, out, error } = await run(args);
  expect([code, error]).toEqual([0, undefined]);
  return JSON.parse(out!);
}

/** Why a verb is refused, in one line. */
export async function refused(...args: string[]): Promise<string> {
  const { code, out, error } = await run(args);
  expect(code).toBe(2);
  expect(out).toBeUndefined();
  expect(error).not.toMatch(/\n/);
  return error!;
}
