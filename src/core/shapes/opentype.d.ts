/** The part of opentype.js that is used; the package ships no types. */
declare module 'opentype.js' {
  export interface PathCommand {
    readonly type: 'M' | 'L' | 'C' | 'Q' | 'Z';
    readonly x: number;
    readonly y: number;
    readonly x1: number;
    readonly y1: number;
    readonly x2: number;
    readonly y2: number;
  }
  export interface Path {
    readonly commands: readonly PathCommand[];
    toPathData(digits?: number): string;
  }
  export interface Glyph {
    readonly index: number;
    readonly advanceWidth: number;
    getPath(x: number, y: number, size: number): Path;
  }
  export interface Font {
    readonly unitsPerEm: number;
    readonly ascender: number;
    readonly descender: number;
    readonly tables: { readonly os2?: { readonly sCapHeight?: number; readonly sxHeight?: number } };
    getKerningValue(left: Glyph, right: Glyph): number;
    charToGlyph(char: string): Glyph;
  }
  export function parse(bytes: ArrayBuffer): Font;
}
