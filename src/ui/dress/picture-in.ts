/** A picture file as the document keeps it: PNG or JPEG, no larger than it needs to be to print well. */
import { LARGEST_PICTURE, type PrintedPicture } from '@/core/document/pictures';
import { decodePicture, sizeOfPicture } from '../common/decode-picture';

/** Longest side a picture is kept with, px: a card's face at 300 to the inch. */
const MOST_SIDE_PX = 1800;
/** Larger files are not even read. */
const LARGEST_FILE = 40_000_000;
const TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/svg+xml'];
const TRIES: readonly (readonly [PrintedPicture['mime'], number | undefined])[] = [
  ['image/png', undefined],
  ['image/jpeg', 0.88],
  ['image/jpeg', 0.75],
  ['image/jpeg', 0.6],
];

export type TakenPicture =
  { readonly ok: true; readonly picture: Omit<PrintedPicture, 'id'> } | { readonly ok: false; readonly why: string };

/** Drawn anew by the browser, so that nothing but its pixels comes in. */
export async function takePicture(file: File): Promise<TakenPicture> {
  const no = (why: string): TakenPicture => ({
    ok: false,
    why: `${file.name} was not taken: ${why}. Nothing was lost.`,
  });
  if (!TYPES.includes(file.type)) return no('it is no PNG, JPEG, WebP or SVG');
  if (file.size > LARGEST_FILE)
    return no(`it has ${Math.round(file.size / 1e6)} MB; at most ${LARGEST_FILE / 1e6} are read`);
  try {
    const canvas = await drawnSmaller(file);
    const [widthPx, heightPx] = [canvas.width, canvas.height];
    for (const [mime, quality] of TRIES) {
      const data = await base64Of(
        await canvas.convertToBlob({ type: mime, quality }).catch(() => Promise.reject(unreadable())),
      );
      if (data.length <= LARGEST_PICTURE)
        return { ok: true, picture: { name: file.name.slice(0, 120), mime, widthPx, heightPx, data } };
    }
    return no('it is too large even when made smaller');
  } catch (error) {
    return no((error as Error).message);
  }
}

const unreadable = (): Error => new Error('it does not read as a picture');

/** A picture no larger than it is kept with. */
async function drawnSmaller(file: File): Promise<OffscreenCanvas> {
  const drawing = file.type === 'image/svg+xml';
  const source = drawing ? await drawingOf(file) : await bitmapOf(file);
  const [w, h] = 'naturalWidth' in source ? sizeOfDrawing(source) : [source.width, source.height];
  const k = Math.min(1, MOST_SIDE_PX / Math.max(w, h));
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(w * k)), Math.max(1, Math.round(h * k)));
  try {
    canvas.getContext('2d')!.drawImage(source, 0, 0, canvas.width, canvas.height);
  } catch {
    throw unreadable();
  }
  if (!('naturalWidth' in source)) source.close();
  return canvas;
}
const sizeOfDrawing = (image: HTMLImageElement): [number, number] => [
  image.naturalWidth || MOST_SIDE_PX,
  image.naturalHeight || MOST_SIDE_PX,
];

async function bitmapOf(file: File): Promise<ImageBitmap> {
  const size = await sizeOfPicture(file);
  return decodePicture(file, size, MOST_SIDE_PX / Math.max(size.width, size.height));
}

/** A drawing has no pixels before it is drawn; the browser loads nothing that it names. */
async function drawingOf(file: File): Promise<HTMLImageElement> {
  const url = URL.createObjectURL(file);
  try {
    return await loaded(url);
  } finally {
    URL.revokeObjectURL(url);
  }
}
function loaded(url: string): Promise<HTMLImageElement> {
  return new Promise((done, fail) => {
    const image = new Image();
    image.onload = () => done(image);
    image.onerror = () => fail(unreadable());
    image.src = url;
  });
}

async function base64Of(blob: Blob): Promise<string> {
  const url = await new Promise<string>((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => fail(new Error('it could not be kept'));
    reader.readAsDataURL(blob);
  });
  return url.split(',')[1];
}

export const pictureUrl = ({ mime, data }: Pick<PrintedPicture, 'mime' | 'data'>): string =>
  `data:${mime};base64,${data}`;
