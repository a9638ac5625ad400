/** Front panels of any outline: as large as drawn, foam and finger notch found on it. */
import { buildAssembly } from '../../build/build';
import type { Design } from '../../document/design';
import { polygonArea } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { gather } from '../../proof/evidence';
import { closedStack } from '../../rules/stack-map';
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
  // Of an equilateral triangle the inner radius is half the outer one; its middle lies below that of its box.
  const polygon = [90, 210, 330].map((deg): Vec2 => [70 * Math.cos(degToRad(deg)), 70 * Math.sin(degToRad(deg))]);
  const turn = { radius: 30, panel: { polygon }, pivot: { x: 0, y: -17.5 } };
  const nearest = (part: string, notch: number): number =>
    Math.min(...pieceOf('volvelle', { ...turn, notch }, part).outline.outer.map(([x, y]) => Math.hypot(x, y + 17.5)));

  test.each([6, 8, 12])('its notch lies at the slanted side next to it: %d mm show', (notch) => {
    expect(nearest('front', notch)).toBeCloseTo(30 - notch, 1);
    expect(nearest('backing', notch)).toBeCloseTo(30 - notch, 1);
  });
  test('without a notch it is whole', () => {
    expect(nearest('backing', 0)).toBeCloseTo(70, 6);
  });
});

/** As it lies shut, over the carriers of the mechanism. */
const shutThickness = (d: Design): number => closedStack(gather(d, 'closed'))!.greatest.mm;

describe('cushions under carriers', () => {
  const heightOf = (kind: string, part: string, cushion: number): number => {
    const a = buildAssembly(on(kind, { cushion }));
    return a.facets.find((f) => f.id === `${kind}-1.${part}`)!.levelMm;
  };
  test.each([
    ['carrier-wheel', 'carrier-1'],
    ['track-slider', 'carrier'],
  ])('%s: what it carries lies so much higher, and the stack is told with it', (kind, part) => {
    expect(heightOf(kind, part, 2) - heightOf(kind, part, 0)).toBeCloseTo(2, 9);
    const thick = (cushion: number): number => shutThickness(on(kind, { cushion }));
    expect(thick(2) - thick(0)).toBeCloseTo(2, 5);
  });
  test('they are counted, one for each carrier, and none where there are none', () => {
    const told = (cushion: number) =>
      buildAssembly(on('carrier-wheel', { cushion, spokes: 5 })).hardware.filter((h) => h.what.startsWith('Cushion'));
    expect(told(1.5)).toMatchObject([{ what: 'Cushion', sizesMm: [1.5], count: 5 }]);
    expect(told(0)).toEqual([]);
  });
});
