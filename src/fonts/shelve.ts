/** Fonts from their packages, for Node: the command line, route handlers, tests. */
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { readFontFile } from '../core/shapes/font-file';
import { FONTS, fontShelved, provideFont } from '../core/shapes/fonts';

/** Folders that may hold the packages: where the program was started, and above the script that was started. */
function homes(): string[] {
  const above: string[] = [process.cwd()];
  for (let at = dirname(process.argv[1] ?? ''); !above.includes(at); at = dirname(at)) above.push(at);
  return above;
}

/** Bytes of a font that ships; null for an id that does not. */
export function readFont(id: string): Uint8Array<ArrayBuffer> | null {
  const font = FONTS.find((f) => f.id === id);
  if (!font) return null;
  const files = homes().map((home) => join(home, 'node_modules', ...font.file));
  return Uint8Array.from(readFileSync(files.find(existsSync) ?? files[0]));
}

/** Shelve every font that ships. */
export function shelveFonts(): void {
  for (const { id } of FONTS) if (!fontShelved(id)) provideFont(id, () => readFontFile(readFont(id)!.buffer));
}
