/**
 * Sizes of pictures, read from files put together by hand after their standards: PNG (ISO/IEC 15948), JPEG (ISO/IEC
 * 10918-1, EXIF as in CIPA DC-008), WebP (RFC 9649).
 */
import { MOST_MEGAPIXELS, sizeOfPicture } from './decode-picture';

const u32 = (n: number): number[] => [n >>> 24, (n >>> 16) & 255, (n >>> 8) & 255, n & 255];
const u16 = (n: number): number[] => [n >>> 8, n & 255];
const text = (s: string): number[] => [...s].map((c) => c.charCodeAt(0));
const fileOf = (bytes: readonly number[]): Blob => new Blob([Uint8Array.from(bytes)]);

const png = (width: number, height: number): Blob =>
  fileOf([
    ...[137, 80, 78, 71, 13, 10, 26, 10],
    ...[...u32(13), ...text('IHDR'), ...u32(width), ...u32(height), 8, 0, 0, 0, 0, ...u32(0)],
  ]);
/** What a JPEG file begins with (ISO/IEC 10918-5). */
const JFIF = [255, 224, ...u16(16), ...text('JFIF'), 0, 1, 2, 0, ...u16(1), ...u16(1), 0, 0];
/** A start of frame of one component, after as much application data as is asked for. */
const jpeg = (width: number, height: number, before: readonly number[] = JFIF): Blob =>
  fileOf([255, 216, ...before, 255, 192, ...u16(11), 8, ...u16(height), ...u16(width), 1, 1, 17, 0, 255, 217]);
/** EXIF with one entry: orientation (0x0112), a short, big-endian. */
const turned = (orientation: number): number[] => {
  const tiff = [
    ...text('MM'),
    0,
    42,
    ...u32(8),
    ...u16(1),
    ...u16(0x112),
    ...u16(3),
    ...u32(1),
    ...u16(orientation),
    0,
    0,
  ];
  const body = [...text('Exif'), 0, 0, ...tiff, ...u32(0)];
  return [255, 225, ...u16(body.length + 2), ...body];
};

test.each([
  ['a PNG', png(640, 400), { width: 640, height: 400 }],
  ['a JPEG', jpeg(640, 400), { width: 640, height: 400 }],
  [
    'a JPEG after 600 kB of what a camera wrote',
    jpeg(
      640,
      400,
      Array.from({ length: 10 }, () => [255, 226, ...u16(65535), ...new Array<number>(65533).fill(7)]).flat(),
    ),
    { width: 640, height: 400 },
  ],
  ['a JPEG that lies upside down', jpeg(640, 400, turned(3)), { width: 640, height: 400 }],
  ['a JPEG that lies on its side', jpeg(640, 400, turned(6)), { width: 400, height: 640 }],
])('%s', async (_, file, size) => {
  expect(await sizeOfPicture(file)).toEqual(size);
});

test('as many pixels as are read, and one row more', async () => {
  const side = Math.sqrt(MOST_MEGAPIXELS * 1e6);
  expect(side).toBe(8000);
  expect(await sizeOfPicture(png(side, side))).toEqual({ width: side, height: side });
  await expect(sizeOfPicture(png(side, side + 1))).rejects.toThrow('8000 × 8001 pixels; at most 64 million');
  await expect(sizeOfPicture(jpeg(16_000, 16_000))).rejects.toThrow('16000 × 16000 pixels');
});

test.each([
  ['nothing', []],
  ['words', text('not a picture at all, but long enough to be one')],
  ['a signature alone', [137, 80, 78, 71, 13, 10, 26, 10]],
  ['no width', [137, 80, 78, 71, 13, 10, 26, 10, ...u32(13), ...text('IHDR'), ...u32(0), ...u32(9), 8, 0, 0, 0, 0]],
])('%s is no picture', async (_, bytes) => {
  await expect(sizeOfPicture(fileOf(bytes))).rejects.toThrow('it does not read as a picture');
});
