/** Front panels of any outline: as large as drawn, foam and finger notch found on it. */
import { buildAssembly } from '../../build/build';
import { polygonArea } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { degToRad } from '../../units/angle';
import { card, findings, stand } from '../../tests/cards';
import type { ParameterValues } from '../kind';

const on = (kind: string, parameters: ParameterValues) => stand(card(200, 200), kind, parameters, 'leafB');
const pieceOf = (kind: string, parameters: ParameterValues, part: string) =>
  buildAssembly(on(kind, parameters)).pieces.find((p) => p.id === `${kind}-1.${part}`)!;
const areaOf = (kind: string, parameters: ParameterValues, part: string): number => {
  const { outline } = pieceOf(kind, parameters, part);
  return polygonArea(outline);
};
const CIRCLE = { circle: 100 };

describe('the panel of a sliding token', () => {
  const slide = { path: { line: 40 }, panel: CIRCLE };

  test('is as large as its shape: backing of π r², the front without slot and its round ends', () => {
    const whole = Math.PI * 50 ** 2;
    expect(areaOf('track-slider', slide, 'backing') / whole).toBeCloseTo(1, 3);
    expect(areaOf('track-slider', slide, 'front')).toBeCloseTo(whole - 40 * 6 - Math.PI * 9, -2);
  });
  test('a token of 19.05 mm that runs nearly to its edge is told, one of more room is not', () => {
    // Its rim goes out to `way / 2 + 9.525`; 2 mm inside a circle of 50 mm are asked.
    const most = 2 * (50 - 2 - 19.05 / 2);
    const told = (way: number) =>
      findings(on('track-slider', { ...slide, path: { line: way } }), 'captive').filter((f) => f.aspect === 'panel');
    expect(told(most + 0.2)).toHaveLength(1);
    expect(told(most - 0.2)).toEqual([]);
  });
  test('of two parts it is refused', () => {
    const parts = { path: 'M0 0 H20 V20 H0 Z M40 0 H60 V20 H40 Z' };
    expect(() => buildAssembly(on('track-slider', { ...slide, panel: parts }))).toThrow(/2 parts/);
  });
});

describe('the panel of a disc', () => {
  // Of an equilateral triangle the inner radius is half the outer one; its middle lies a quarter of that below its box's.
  const polygon = [90, 210, 330].map((deg): Vec2 => [70 * Math.cos(degToRad(deg)), 70 * Math.sin(degToRad(deg))]);
  const turn = { radius: 30, panel: { polygon }, pivot: { x: 0, y: -17.5 } };
  const nearest = (part: string, notch: number): number =>
    Math.min(...pieceOf('volvelle', { ...turn, notch }, part).outline.outer.map(([x, y]) => Math.hypot(x, y + 17.5)));

  test.each([6, 8, 12])(
    'its notch lies on a slanted side where the disc is nearest: %d mm of the disc show',
    (notch) => {
      expect(nearest('front', notch)).toBeCloseTo(30 - notch, 1);
      expect(nearest('backing', notch)).toBeCloseTo(30 - notch, 1);
    },
  );
  test('without a notch it is whole', () => {
    expect(nearest('backing', 0)).toBeCloseTo(70, 6);
  });
});
