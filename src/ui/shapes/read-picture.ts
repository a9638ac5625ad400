import { MOST_PIXELS, type Raster } from '@/core/shapes/trace';

const LARGEST_PICTURE = 20_000_000;

/** The picture's pixels, scaled down where it has more than are traced. */
export async function readPicture(file: File): Promise<Raster> {
  if (!/^image\/(png|jpeg|webp)$/.test(file.type)) throw new Error(`${file.name} is not a PNG, JPEG or WebP picture.`);
  if (file.size > LARGEST_PICTURE)
    throw new Error(
      `${file.name} has ${Math.round(file.size / 1e6)} MB; pictures up to ${LARGEST_PICTURE / 1e6} MB are traced.`,
    );
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error(`${file.name} does not open as a picture; it may be cut short.`);
  });
  const k = Math.min(1, Math.sqrt(MOST_PIXELS / 2 / (bitmap.width * bitmap.height)));
  const [width, height] = [Math.max(1, Math.round(bitmap.width * k)), Math.max(1, Math.round(bitmap.height * k))];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}
