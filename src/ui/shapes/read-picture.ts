import { MOST_PIXELS, type Raster } from '@/core/shapes/trace';
import { decodePicture, sizeOfPicture } from '../common/decode-picture';

const LARGEST_PICTURE = 20_000_000;

/** The picture's pixels, scaled down where it has more than are traced. */
export async function readPicture(file: File): Promise<Raster> {
  if (!/^image\/(png|jpeg|webp)$/.test(file.type)) throw new Error(`${file.name} is not a PNG, JPEG or WebP picture.`);
  if (file.size > LARGEST_PICTURE)
    throw new Error(
      `${file.name} has ${Math.round(file.size / 1e6)} MB; pictures up to ${LARGEST_PICTURE / 1e6} MB are traced.`,
    );
  try {
    const size = await sizeOfPicture(file);
    return pixelsOf(await decodePicture(file, size, Math.sqrt(MOST_PIXELS / 2 / (size.width * size.height))));
  } catch (error) {
    throw new Error(`${file.name} was not taken: ${(error as Error).message}.`);
  }
}

function pixelsOf(bitmap: ImageBitmap): Raster {
  const { width, height } = bitmap;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}
