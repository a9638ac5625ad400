/** Files in and out of the browser. */
import type { Design } from '@/core/document/design';
import { LARGEST_FILE } from '@/core/document/json';

export function saveAs(name: string, bytes: Uint8Array | string, type: string): void {
  const url = URL.createObjectURL(new Blob([typeof bytes === 'string' ? bytes : new Uint8Array(bytes)], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Paper as a drawing shows it: pale, so that lines read on every stock and in both themes. */
export const pale = (colour: string): string => `color-mix(in srgb, ${colour} 38%, var(--sheet))`;

/** A name that every file system takes. */
export const fileName = (title: string): string =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60) || 'card';

type ReadText = { readonly ok: true; readonly text: string } | { readonly ok: false; readonly why: string };

/** The text of a file of at most `most` characters; a larger one is not even read. `what`: "a card". */
export async function textOf(file: File, most: number, what: string): Promise<ReadText> {
  if (file.size <= most) return { ok: true, text: await file.text() };
  const size = `${file.name} has ${Math.round(file.size / 1e6)} MB`;
  return { ok: false, why: `${size}; ${what} has at most ${most / 1e6} MB. Nothing was lost.` };
}

export async function readDesignFrom(file: File): Promise<{ ok: true; design: Design } | { ok: false; why: string }> {
  const whole = await textOf(file, LARGEST_FILE, 'a card');
  if (!whole.ok) return whole;
  // What reads a card comes with the first file: pages that only list cards do without it.
  const { readDesign } = await import('@/core/document/schema');
  const read = readDesign(whole.text);
  return read.ok ? read : { ok: false, why: `${file.name} was not opened: ${read.why}. Nothing was lost.` };
}
