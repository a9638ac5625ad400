/** Work done in parts, on one machine or on many: `--part K/N`, and `--join` of what the parts wrote. */
import { readText, UsageError } from './arguments';

const MOST_PARTS = 10_000;

/** K of N, counted from 1. */
export function readPart(text: string | undefined): readonly [k: number, n: number] | null {
  if (text === undefined) return null;
  const [, k, n] = /^(\d{1,5})\/(\d{1,5})$/.exec(text) ?? [];
  const part = [Number(k), Number(n)] as const;
  if (k === undefined || part[0] < 1 || part[0] > part[1] || part[1] > MOST_PARTS)
    throw new UsageError(`--part is "${text.slice(0, 20)}"; it must be K/N such as 2/8, K from 1 to N`);
  return part;
}

/** What parts wrote as JSON, each told apart by its mark. */
export function readParts<T>(files: readonly string[], mark: string): T[] {
  if (files.length === 0) throw new UsageError('--join wants the files that the parts wrote: --join A B …');
  return files.map((path) => {
    try {
      const value: unknown = JSON.parse(readText(path, 'what a part wrote'));
      if (typeof value === 'object' && value !== null && (value as { part_of?: unknown }).part_of === mark)
        return value as T;
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
    }
    throw new UsageError(`${path} is not what ${mark} --part writes`);
  });
}
