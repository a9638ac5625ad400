/** A picture file as the document keeps it: PNG or JPEG, no larger than it needs to be to print well. */
import { LARGEST_PICTURE, type PrintedPicture } from '@/core/document/pictures';

/** Longest side a picture is kept with, px: a card's face at 300 to the inch. */
const MOST_SIDE_PX = 1800;
/** Larger files are not even read. */
const LARGEST_FILE = 40_000_000;
const TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/svg+xml'];
const QUALITIES = [0.88, 0.75, 0.6];

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
  const url = URL.createObjectURL(file);
  try {
    const image = await decoded(url);
    const [w, h] = [image.naturalWidth || MOST_SIDE_PX, image.naturalHeight || MOST_SIDE_PX];
    const k = Math.min(1, MOST_SIDE_PX / Math.max(w, h));
    const [widthPx, heightPx] = [w, h].map((px) => Math.max(1, Math.round(px * k)));
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [widthPx, heightPx];
    canvas.getContext('2d')!.drawImage(image, 0, 0, widthPx, heightPx);
    const tries: [PrintedPicture['mime'], number | undefined][] = [
      ['image/png', undefined],
      ...QUALITIES.map((q): ['image/jpeg', number] => ['image/jpeg', q]),
    ];
    for (const [mime, quality] of tries) {
      const data = canvas.toDataURL(mime, quality).split(',')[1];
      if (data.length <= LARGEST_PICTURE)
        return { ok: true, picture: { name: file.name.slice(0, 120), mime, widthPx, heightPx, data } };
    }
    return no('it is too large even when made smaller');
  } catch {
    return no('it does not read as a picture');
  } finally {
    URL.revokeObjectURL(url);
  }
}

function decoded(url: string): Promise<HTMLImageElement> {
  return new Promise((done, fail) => {
    const image = new Image();
    image.onload = () => done(image);
    image.onerror = () => fail(new Error('not a picture'));
    image.src = url;
  });
}

export const pictureUrl = ({ mime, data }: Pick<PrintedPicture, 'mime' | 'data'>): string =>
  `data:${mime};base64,${data}`;
