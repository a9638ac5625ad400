/** Pictures made for the trace: black where asked for, white elsewhere. */
import { crc32, deflateSync } from 'node:zlib';

/** A PNG that says how large it is, and has next to nothing in it. */
export const hollowPng = (width: number, height: number): Buffer => {
  const small = greyPng(1, 1, () => false);
  small.writeUInt32BE(width, 16);
  small.writeUInt32BE(height, 20);
  small.writeUInt32BE(crc32(small.subarray(12, 29)) >>> 0, 29);
  return small;
};

/** A grey PNG (PNG specification, 1996: signature, IHDR, IDAT, IEND, each with its CRC). */
export function greyPng(width: number, height: number, dark: (x: number, y: number) => boolean): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body) >>> 0);
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  const rows = Buffer.alloc(height * (width + 1));
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) rows[y * (width + 1) + 1 + x] = dark(x, y) ? 0 : 255;
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
