/** Films and still pictures painted in a worker, from the solver's own drawings. */
import type { Assembly } from '@/core/assembly/assembly';
import type { Design } from '@/core/document/design';
import { filmFrames, filmStates, frameOf, type FilmChoice } from '@/core/formats/film';
import { GifWriter } from '@/core/formats/gif';
import type { Picture } from '@/core/formats/picture';

/** How large the longer side is, pixels; and what lies behind the card: a colour, or nothing. */
export interface PaintChoice {
  readonly sizePx: number;
  readonly ground: string | null;
}
export const LARGEST_PX = 4000;
/** Empty round the card, part of the longer side. */
const MARGIN = 0.04;
const EDGE = '#2c333866';

/** A film of the travel; `breathe` lets messages in between frames, `onFrame` is told how far it has come. */
export async function makeFilm(
  design: Design,
  assembly: Assembly,
  choice: FilmChoice & PaintChoice & { readonly seconds: number },
  breathe: () => Promise<void>,
  onFrame: (part: number) => void,
): Promise<Uint8Array> {
  const count = filmStates(choice).length;
  const pictures: Picture[] = [];
  for (const { picture } of filmFrames(design, assembly, choice)) {
    pictures.push(picture);
    onFrame(pictures.length / count / 2);
    await breathe();
  }
  const box = frameOf(pictures);
  const writer = new GifWriter();
  const delay = (1000 * choice.seconds) / count;
  for (const [k, picture] of pictures.entries()) {
    const canvas = painted(picture, box, { ...choice, ground: choice.ground ?? '#ffffff' });
    const { width, height } = canvas;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
    writer.add({ width, height, rgba: data }, delay);
    onFrame(0.5 + (k + 1) / count / 2);
    await breathe();
  }
  return writer.bytes();
}

/** One picture as PNG. */
export async function makeStill(picture: Picture, choice: PaintChoice): Promise<Uint8Array> {
  const blob = await painted(picture, picture.box, choice).convertToBlob({ type: 'image/png' });
  return new Uint8Array(await blob.arrayBuffer());
}

function painted(picture: Picture, box: Picture['box'], { sizePx, ground }: PaintChoice): OffscreenCanvas {
  const long = Math.max(box.width, box.height) * (1 + 2 * MARGIN);
  const scale = Math.min(LARGEST_PX, sizePx) / long;
  const margin = (long * MARGIN) / (1 + 2 * MARGIN);
  const px = (mm: number): number => Math.max(2, Math.round((mm + 2 * margin) * scale));
  const canvas = new OffscreenCanvas(px(box.width), px(box.height));
  const pen = canvas.getContext('2d')!;
  if (ground !== null) {
    pen.fillStyle = ground;
    pen.fillRect(0, 0, canvas.width, canvas.height);
  }
  pen.setTransform(scale, 0, 0, scale, (margin - box.x) * scale, (margin - box.y) * scale);
  pen.lineJoin = 'round';
  pen.lineWidth = 1.2 / scale;
  for (const { points, holes, fill, goesOn } of picture.parts) {
    const path = new Path2D();
    for (const ring of [points, ...holes]) {
      ring.forEach(([x, y], k) => (k === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
      path.closePath();
    }
    pen.fillStyle = fill;
    pen.fill(path, 'evenodd');
    // Strips of what bends have no edges between them.
    pen.strokeStyle = goesOn ? fill : EDGE;
    pen.stroke(path);
  }
  return canvas;
}
