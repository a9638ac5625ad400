/** SVG by the rules of its standard (SVG 1.1 and 2, CSS Values 3): units, viewBox, transforms, fill rules; and what is left out. */
import fc from 'fast-check';
import { regionArea, regionBox } from '../plane/polygon';
import { lengthPx, readSvg, shapeOfSvg } from './svg-read';

const svg = (body: string, attributes = 'width="100mm" height="80mm" viewBox="0 0 100 80"'): string => `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`;
const box = (text: string): number[] => {
  const { min, max } = regionBox(shapeOfSvg(readSvg(text)));
  return [min[0], min[1], max[0], max[1]];
};
const close = (a: readonly number[], b: readonly number[], mm = 0.011): void => a.forEach((v, i) => expect(Math.abs(v - b[i])).toBeLessThan(mm));

describe('units', () => {
  // CSS Values 3, section 6.2: 1in = 96px = 72pt = 6pc = 2.54cm = 25.4mm = 101.6q.
  test.each([['1in', 96], ['96px', 96], ['72pt', 96], ['6pc', 96], ['2.54cm', 96], ['25.4mm', 96], ['101.6q', 96], ['96', 96], ['1e1', 10], ['.5', 0.5]])('%s', (text, px) => expect(lengthPx(text)).toBeCloseTo(px, 9));
  test.each(['', '10%', '4 mm x', 'wide', '1/2in'])('%s is no length', (text) => expect(lengthPx(text)).toBeNull());
  test('a viewBox in a size of millimetres is true to scale; without either, a unit is 1/96 in', () => {
    close(box(svg('<rect x="10" y="20" width="30" height="5"/>')), [10, 80 - 25, 40, 60]);
    close(box(svg('<rect x="0" y="0" width="96" height="96"/>', '')), [0, 150 * 25.4 / 96 - 25.4, 25.4, 150 * 25.4 / 96]);
    close(box(svg('<rect width="10mm" height="1in"/>', 'width="50mm" height="50mm"')), [0, 50 - 25.4, 10, 50]);
    close(box(svg('<rect width="50" height="25"/>', 'width="2in" viewBox="0 0 50 25"')), [0, 0, 50.8, 25.4]);
  });
  test('preserveAspectRatio: met and centred, or stretched when none', () => {
    close(box(svg('<rect width="10" height="10"/>', 'width="40mm" height="20mm" viewBox="0 0 10 10"')), [10, 0, 30, 20]);
    close(box(svg('<rect width="10" height="10"/>', 'width="40mm" height="20mm" viewBox="0 0 10 10" preserveAspectRatio="none"')), [0, 0, 40, 20]);
  });
});

describe('drawing', () => {
  test.each<[string, string, number]>([
    ['circle', '<circle cx="50" cy="40" r="10"/>', Math.PI * 100],
    ['ellipse', '<ellipse cx="50" cy="40" rx="20" ry="5"/>', Math.PI * 100],
    ['rounded rectangle', '<rect x="10" y="10" width="40" height="20" rx="4"/>', 800 - (4 - Math.PI) * 16],
    ['corner radii that differ', '<rect x="10" y="10" width="40" height="20" rx="8" ry="4"/>', 800 - (4 - Math.PI) * 32],
    ['polygon', '<polygon points="0,0 30,0 0,40"/>', 600],
    ['path with relative lines and arcs', '<path d="M10 10h20a5 5 0 0 1 0 10h-20z"/>', 200 + (Math.PI * 25) / 2],
    // Each hump: ∫ y dx of the cubic = 60.
    ['path of smooth curves', '<path d="M0 0 C0 10 10 10 10 0 S 20 -10 20 0 Z"/>', 120],
    ['fill rule non-zero', '<path d="M0 0H30V30H0ZM10 10H20V20H10Z"/>', 900],
    ['fill rule even-odd', '<path fill-rule="evenodd" d="M0 0H30V30H0ZM10 10H20V20H10Z"/>', 800],
    ['style before attribute', '<path style="fill-rule:evenodd" fill-rule="nonzero" d="M0 0H30V30H0ZM10 10H20V20H10Z"/>', 800],
    ['what is hidden', '<rect width="10" height="10"/><rect display="none" x="20" width="50" height="50"/><g visibility="hidden"><rect x="20" width="9" height="9"/></g>', 100],
    ['stroke only, closed', '<g fill="none" stroke="#000"><rect width="20" height="10"/></g>', 200],
  ])('%s', (_, body, area) => expect(Math.abs(regionArea(shapeOfSvg(readSvg(svg(body)))) - area)).toBeLessThan(0.6));

  test('groups and transforms compose as the standard says, outermost first', () => {
    close(box(svg('<g transform="translate(10 5)"><g transform="scale(2)"><rect x="1" y="1" width="4" height="3"/></g></g>')), [12, 80 - 13, 20, 80 - 7]);
    close(box(svg('<rect transform="rotate(90 20 20)" x="20" y="20" width="10" height="4"/>')), [16, 50, 20, 60]);
    close(box(svg('<rect transform="matrix(1 0 0 1 3 4) skewX(45)" width="10" height="10"/>')), [3, 66, 23, 76]);
  });
  test('any turn and shift keeps the area', () => {
    fc.assert(fc.property(fc.double({ min: -180, max: 180, noNaN: true }), fc.double({ min: -30, max: 30, noNaN: true }), (deg, dx) => {
      expect(regionArea(shapeOfSvg(readSvg(svg(`<g transform="rotate(${deg.toFixed(4)}) translate(${dx.toFixed(3)},7)"><path d="M0 0H30V20H10Z"/></g>`))))).toBeCloseTo(500, 3);
    }), { numRuns: 30 });
  });
});

describe('what is not a shape', () => {
  test('text, images, scripts, links and style sheets are left out and named', () => {
    const d = readSvg(svg('<text x="1" y="9">Hi</text><image href="x.png"/><script>alert(1)</script><style>.a{fill:red}</style><a href="javascript:alert(1)"><rect width="10" height="10" onclick="alert(1)"/></a><use href="#r"/>'));
    expect(d.leftOut).toEqual(expect.arrayContaining(['text', 'an image', 'a script', 'a style sheet', 'a link (its shapes are kept)', 'a reference to another element (use)']));
    expect(regionArea(shapeOfSvg(d))).toBeCloseTo(100, 6);
    expect(JSON.stringify(d)).not.toMatch(/alert|javascript|x\.png/);
  });
  test.each([
    ['not XML', 'hello', /no <svg> element|not SVG/],
    ['cut short', '<svg><path d="M0 0', /not SVG|no <svg>/],
    ['entities', '<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg>&a;</svg>', /entities/],
    ['a path that is none', svg('<path d="M0 0 L 10"/>'), /not SVG path data/],
    ['a transform that is none', svg('<rect width="9" height="9" transform="spin(3)"/>'), /not one SVG knows/],
    ['nothing to see', svg('<g/>'), /no path or shape/],
    ['open lines only', svg('<line x1="0" y1="0" x2="9" y2="9" stroke="black"/>'), /no closed outline/],
    ['endless size', `${'<svg>'}${' '.repeat(5_000_001)}</svg>`, /at most 5 MB/],
    ['far away', svg('<rect transform="scale(1e9)" width="9" height="9"/>'), /100 m away/],
    ['nested without end', svg('<g>'.repeat(80) + '<rect width="1" height="1"/>' + '</g>'.repeat(80)), /nested deeper/],
  ])('%s is refused in one line', (_, text, why) => {
    expect(() => shapeOfSvg(readSvg(text))).toThrow(why);
  });
  test('random text never gets through as anything but an error of ours', () => {
    fc.assert(fc.property(fc.string({ maxLength: 200 }), (junk) => {
      try {
        readSvg(`<svg ${junk}><path d="${junk.replace(/["<&]/g, '')}"/></svg>`);
      } catch (error) {
        expect((error as Error).constructor.name).toBe('ShapeError');
        expect((error as Error).message).not.toMatch(/\n/);
      }
    }), { numRuns: 200 });
  });
});
