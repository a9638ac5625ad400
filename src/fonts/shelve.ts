/** Fonts from their packages, for Node: the command line, route handlers, tests. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FONTS, fontShelved, provideFont } from '../core/shapes/fonts';

/** Bytes of a font that ships; null for an id that does not. */
export function readFont(id: string): Uint8Array<ArrayBuffer> | null {
  const font = FONTS.find((f) => f.id === id);
  return font ? Uint8Array.from(readFileSync(join(process.cwd(), 'node_modules', ...font.file))) : null;
}

/** Shelve every font that ships. */
export function shelveFonts(): void {
  for (const { id } of FONTS) if (!fontShelved(id)) provideFont(id, readFont(id)!.buffer);
}
