/** Pictures of a maker: their size is read from the head of the file before anything of them is decoded. */
import { imageSize } from 'image-size';

/** A decoded pixel takes four bytes: more than this many would take 256 MB, for a picture that is then made smaller. */
export const MOST_MEGAPIXELS = 64;
/** The size stands within so many bytes, whatever a camera has written before it. */
const HEAD_BYTES = 1_000_000;
/** EXIF (CIPA DC-008): from here on width and height change places. */
const TURNED_FROM = 5;

export interface PictureSize {
  readonly width: number;
  readonly height: number;
}

/** @throws Error in words, where it is no picture or has too many pixels; `file.name` is not said */
export async function sizeOfPicture(file: Blob): Promise<PictureSize> {
  const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
  const { width, height } = sizeIn(head);
  const megapixels = (width * height) / 1e6;
  if (megapixels > MOST_MEGAPIXELS)
    throw new Error(
      `it has ${width} × ${height} pixels; at most ${MOST_MEGAPIXELS} million are read, so make it smaller first`,
    );
  return { width, height };
}

function sizeIn(head: Uint8Array): PictureSize {
  const read = (() => {
    try {
      return imageSize(head);
    } catch {
      return null;
    }
  })();
  if (!read || !(read.width > 0 && read.height > 0)) throw new Error('it does not read as a picture');
  const { width, height, orientation = 1 } = read;
  return orientation >= TURNED_FROM ? { width: height, height: width } : { width, height };
}

/**
 * A picture's pixels, made smaller while it is decoded, off the page's thread.
 * @param size of the file's picture (`sizeOfPicture`)
 * @param by at most 1
 * @throws Error in words where it does not decode
 */
export async function decodePicture(file: Blob, { width, height }: PictureSize, by: number): Promise<ImageBitmap> {
  const scaled = (px: number): number => Math.max(1, Math.round(px * by));
  const smaller =
    by < 1 ? ({ resizeWidth: scaled(width), resizeHeight: scaled(height), resizeQuality: 'high' } as const) : {};
  try {
    return await createImageBitmap(file, smaller);
  } catch {
    throw new Error('it does not open as a picture; it may be cut short');
  }
}
