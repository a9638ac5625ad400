/** Files in and out of the browser. */
import { LARGEST_FILE, readDesign } from '@/core/document/schema';
import type { Design } from '@/core/document/design';

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

export const designJson = (design: Design): string => `${JSON.stringify(design, null, 1)}\n`;

export async function readDesignFrom(file: File): Promise<{ ok: true; design: Design } | { ok: false; why: string }> {
  if (file.size > LARGEST_FILE)
    return {
      ok: false,
      why:
        `${file.name} has ${Math.round(file.size / 1e6)} MB; a card has at most ` +
        `${LARGEST_FILE / 1e6} MB. Nothing was lost.`,
    };
  const read = readDesign(await file.text());
  return read.ok ? read : { ok: false, why: `${file.name} was not opened: ${read.why}. Nothing was lost.` };
}
