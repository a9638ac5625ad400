/** What is used of gifenc, which ships no types. */
declare module 'gifenc' {
  type Palette = readonly (readonly number[])[];
  export function quantize(rgba: Uint8Array | Uint8ClampedArray, colours: number): Palette;
  export function applyPalette(rgba: Uint8Array | Uint8ClampedArray, palette: Palette): Uint8Array;
  export function GIFEncoder(): {
    writeFrame(
      index: Uint8Array,
      width: number,
      height: number,
      options: { palette: Palette; delay: number; repeat?: number },
    ): void;
    finish(): void;
    bytes(): Uint8Array<ArrayBuffer>;
  };
}
declare module 'omggif' {
  export class GifReader {
    constructor(bytes: Uint8Array);
    readonly width: number;
    readonly height: number;
    numFrames(): number;
    loopCount(): number;
    frameInfo(k: number): { readonly delay: number };
    decodeAndBlitFrameRGBA(k: number, out: Uint8Array): void;
  }
}
