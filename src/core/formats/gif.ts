/** Frames of pixels as an animation that goes on and on (GIF89a), by a general encoder. */
import { applyPalette, GIFEncoder, quantize } from 'gifenc';

export interface Pixels {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, opacity for each pixel, row by row from the top. */
  readonly rgba: Uint8ClampedArray | Uint8Array;
}
const MOST_COLOURS = 256;

/** Frame by frame, so that progress can be told between. */
export class GifWriter {
  private readonly gif = GIFEncoder();
  private first = true;

  /** @param delayMs shown for so long */
  add({ width, height, rgba }: Pixels, delayMs: number): void {
    const palette = quantize(rgba, MOST_COLOURS);
    const index = applyPalette(rgba, palette);
    this.gif.writeFrame(index, width, height, { palette, delay: delayMs, ...(this.first ? { repeat: 0 } : {}) });
    this.first = false;
  }
  bytes(): Uint8Array {
    this.gif.finish();
    return this.gif.bytes();
  }
}
