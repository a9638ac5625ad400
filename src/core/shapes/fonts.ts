/**
 * Fonts that ship with the application. They come from outside the core (a file, a request; see `font-file.ts`):
 * `provideFont` shelves them once, and a shape with text says so where its font is not on the shelf.
 */
import type { Font } from 'opentype.js';
import { ShapeError } from './shape';

export interface FontInfo {
  readonly id: string;
  readonly name: string;
  /** Counters are held by gaps in the strokes: safe to cut as a window without ties. */
  readonly stencil: boolean;
  /** Package and file that carry it. */
  readonly file: readonly [packageName: string, file: string];
}

const of = (id: string, name: string, weight = 400, stencil = false): FontInfo => ({
  id,
  name,
  stencil,
  file: [`@fontsource/${id}`, `files/${id}-latin-${weight}-normal.woff`],
});

/** All under open licences (SIL OFL 1.1). */
export const FONTS: readonly FontInfo[] = [
  of('stardos-stencil', 'Stardos Stencil', 700, true),
  of('saira-stencil-one', 'Saira Stencil One', 400, true),
  of('alfa-slab-one', 'Alfa Slab One'),
  of('abril-fatface', 'Abril Fatface'),
  of('bebas-neue', 'Bebas Neue'),
  of('cinzel', 'Cinzel', 700),
  of('josefin-sans', 'Josefin Sans', 700),
  of('fredoka', 'Fredoka', 700),
  of('lora', 'Lora', 700),
  of('righteous', 'Righteous'),
];

const shelf = new Map<string, () => Font>();
const parsed = new Map<string, Font>();

/** Shelve a font; it is read when something is first set in it. Ids outside `FONTS` are a caller's mistake. */
export function provideFont(id: string, read: () => Font): void {
  if (!FONTS.some((f) => f.id === id)) throw new RangeError(`Font ${id} is not among those that ship.`);
  shelf.set(id, read);
}
export const fontShelved = (id: string): boolean => shelf.has(id);

/** What plain text is set in, where no font is named. */
export const PLAIN_FONT = 'josefin-sans';

/** Ids of the fonts that a document, or a part of one, sets text in. */
export function fontsNamed(value: unknown): string[] {
  const json = JSON.stringify(value) ?? '';
  const plain = json.includes('"text":"');
  return FONTS.map((f) => f.id).filter((id) => json.includes(`"font":"${id}"`) || (plain && id === PLAIN_FONT));
}

export function fontOf(id: string): Font {
  const known = parsed.get(id);
  if (known) return known;
  const read = shelf.get(id);
  if (!read && !FONTS.some((f) => f.id === id))
    throw new ShapeError(`there is no font "${id}"; known are ${FONTS.map((f) => f.id).join(', ')}`);
  if (!read) throw new ShapeError(`font "${id}" has not been loaded yet`);
  const font = read();
  parsed.set(id, font);
  return font;
}
