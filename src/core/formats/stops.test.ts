/** Every stop of a turned disc as a picture: each content stands upright in the window where the first one does. */
import { shelveFonts } from '../../fonts/shelve';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { CENTRE, type Design } from '../document/design';
import type { ParameterValues, Side } from '../kinds';
import { card } from '../tests/cards';
import { stopPictures } from './stops';

beforeAll(shelveFonts);

const disc = (values: ParameterValues, side: Side = 'outside', turnDeg = 0): Design =>
  addMechanism(card(200, 140), 'volvelle', { on: 'leafB', mount: { ...CENTRE, side, turnDeg } }, values).design;
const WINDOW = { inner: 20, outer: 34, span: 40, at: 90 };
/** Middles of what is drawn within the window, and how far it reaches up and across, mm on the page. */
function inked(design: Design): { readonly value: number; readonly boxes: readonly (readonly number[])[] }[] {
  return stopPictures(design, buildAssembly(design), 'volvelle-1').map(({ value, picture }) => {
    const { x, y, width, height } = picture.box;
    const [cx, cy] = [x + width / 2, y + height / 2];
    const ink = picture.parts
      .filter((p) => p.fill === '#2c3338')
      .map((p) => p.points.map(([u, v]) => [u - cx, v - cy]));
    // The window is above the pivot, within 20 degrees of upright and between its radii.
    const seen = ink.filter((ring) =>
      ring.every(
        ([u, v]) => v < 0 && Math.abs(Math.atan2(u, -v)) < 0.35 && Math.hypot(u, v) > 20 && Math.hypot(u, v) < 34,
      ),
    );
    const boxes = seen.map((ring) => {
      const of = (k: number): number[] => ring.map((p) => p[k]);
      const ends = [0, 1].flatMap((k) => [Math.min(...of(k)), Math.max(...of(k))]);
      return ends.map((v) => +v.toFixed(6) + 0);
    });
    return { value, boxes };
  });
}

test.each(['inside', 'outside'] as const)('%s: one content on all sectors looks alike at all stops', (side) => {
  // prettier-ignore
  const F = {
    polygon: [[0, 0], [2, 0], [2, 4], [6, 4], [6, 6], [2, 6], [2, 8], [7, 8], [7, 10], [0, 10]],
  };
  const contents = Array.from({ length: 6 }, () => ({ shape: F as never, size: 8 }));
  const stops = inked(disc({ sectors: 6, windows: [WINDOW] as never, contents: contents as never, notch: 0 }, side));
  expect(stops.map((s) => s.value)).toEqual([0, 60, 120, 180, 240, 300]);
  for (const { boxes } of stops) expect(boxes).toEqual(stops[0].boxes);
  expect(stops[0].boxes).toHaveLength(1);
  // Upright: as high as it was asked for, its middle on the upright through the pivot.
  const [[x0, x1, y0, y1]] = stops[0].boxes;
  expect(y1 - y0).toBeCloseTo(8, 5);
  expect(x0 + x1).toBeCloseTo(0, 5);
  expect((y0 + y1) / 2).toBeCloseTo(-27, 5);
});

test('each stop shows its own content, and a mount that is turned is seen as its reader sees it', () => {
  const contents = [5, 6, 7].map((size) => ({ shape: { circle: 1 }, size }));
  const values = { sectors: 3, windows: [WINDOW], contents, notch: 0 } as unknown as ParameterValues;
  const heights = (d: Design): number[] => inked(d).map(({ boxes: [[, , y0, y1]] }) => +(y1 - y0).toFixed(1));
  expect(heights(disc(values))).toEqual([5, 6, 7]);
  expect(heights(disc(values, 'inside', 90))).toEqual([5, 6, 7]);
});

test('what has no stops has no pictures', () => {
  const d = addMechanism(card(), 'lift-tab', { on: 'leafB', mount: { ...CENTRE, side: 'inside' } }, {}).design;
  expect(stopPictures(d, buildAssembly(d), 'lift-tab-1')).toEqual([]);
});

test('spacers, tokens and heads of rivets stand where their sheets leave room, each by its own thickness', () => {
  const on = (kind: string, values: ParameterValues) =>
    buildAssembly(addMechanism(card(240, 180), kind, { on: 'leafB', mount: CENTRE }, values).design);
  const spacers = [{ thickness: 1 }, { thickness: 0.4 }, { thickness: 2 }];
  const wheel = on('carrier-wheel', { spacers: spacers as never });
  const level = (id: string): number => wheel.pieces.find((p) => p.id === `carrier-wheel-1.${id}`)!.levelMm!;
  const stack = wheel.fillers.filter((f) => f.look === 'spacer');
  expect(stack.map((f) => f.thickMm)).toEqual([1, 0.4, 2]);
  // From the back wheel to the one that turns without a gap: half a sheet, the spacers, half a sheet.
  const caliper = card().stocks.find((s) => s.id === 'card-240')!.caliperMm;
  stack.forEach((f, k) => {
    const below = k === 0 ? caliper / 2 : stack[k - 1].fromMm + stack[k - 1].thickMm;
    expect(f.fromMm).toBeCloseTo(below, 9);
  });
  expect(level('wheel') - level('back')).toBeCloseTo(stack[2].fromMm + stack[2].thickMm + caliper / 2, 9);
  const slider = on('track-slider', { token: { diameter: 19, thickness: 1.4 } });
  const [token] = slider.fillers;
  expect([token.fromMm, token.thickMm]).toEqual([-0.7, 1.4]);
});
