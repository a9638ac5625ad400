/** Frames of a film against poses, and its bytes as a decoder of others (omggif) reads them. */
import { GifReader } from 'omggif';
import { buildAssembly } from '../build/build';
import { poseAt } from '../assembly/pose';
import { restOf } from '../drives';
import { shelveFonts } from '../../fonts/shelve';
import { demoCards } from '../tests/demo';
import { drawPicture } from './picture';
import { filmFrames, filmStates, frameOf } from './film';
import { GifWriter } from './gif';

beforeAll(shelveFonts);
const demo = (file: string) => demoCards().find(([name]) => name === file)![1];

test('it goes there and back, the ends once each, slow at the ends', () => {
  const states = filmStates({ from: { open: 0 }, to: { open: 180 }, frames: 5 });
  const open = states.map((s) => s.open);
  expect(open).toHaveLength(8);
  [0, 26.36, 90, 153.64, 180, 153.64, 90, 26.36].forEach((v, k) => expect(open[k]).toBeCloseTo(v, 1));
});

test.each(['terrace-night', 'meteor-night'])('%s: each frame is the card as it stands then', (file) => {
  const design = demo(file);
  const assembly = buildAssembly(design);
  const rest = { ...restOf(assembly.drives), open: 120 };
  const to = Object.fromEntries(assembly.drives.map((d) => [d.id, d.to]));
  const frames = [...filmFrames(design, assembly, { from: rest, to, frames: 4 })];
  expect(frames).toHaveLength(6);
  for (const { state, picture } of frames)
    expect(picture).toEqual(drawPicture(design, assembly, poseAt(assembly, state)));
  const box = frameOf(frames.map((f) => f.picture));
  for (const { picture } of frames)
    for (const [x, y] of picture.parts.flatMap((p) => p.points)) {
      expect(x).toBeGreaterThanOrEqual(box.x - 1e-6);
      expect(x).toBeLessThanOrEqual(box.x + box.width + 1e-6);
      expect(y).toBeGreaterThanOrEqual(box.y - 1e-6);
      expect(y).toBeLessThanOrEqual(box.y + box.height + 1e-6);
    }
});

test('a decoder reads the frames back: sizes, times, pixels, and that it goes on', () => {
  const [width, height] = [40, 24];
  const colours = [
    [10, 20, 30],
    [200, 120, 60],
    [250, 250, 245],
  ];
  const frame = (shift: number) =>
    Uint8Array.from(
      { length: width * height * 4 },
      (_, i) => [...colours[(Math.floor(i / 4) + shift) % 3], 255][i % 4],
    );
  const writer = new GifWriter();
  for (const shift of [0, 1, 2]) writer.add({ width, height, rgba: frame(shift) }, 80);
  const reader = new GifReader(Buffer.from(writer.bytes()));
  expect([reader.width, reader.height, reader.numFrames(), reader.loopCount()]).toEqual([width, height, 3, 0]);
  for (const k of [0, 1, 2]) {
    expect(reader.frameInfo(k).delay).toBe(8);
    const out = new Uint8Array(width * height * 4);
    reader.decodeAndBlitFrameRGBA(k, out);
    const wanted = frame(k);
    // The palette keeps five or six bits of each colour.
    out.forEach((v, i) => expect(Math.abs(v - wanted[i])).toBeLessThanOrEqual(8));
  }
});
