/**
 * SVG by the rules of its standard (SVG 1.1 and 2, CSS Values 3): units, viewBox, transforms, fill rules; and what is
 * left out.
 */
import fc from 'fast-check';
import { regionArea, regionBox } from '../plane/polygon';
import { lengthPx, readSvg, shapeOfSvg } from './svg-read';

const svg = (body: string, attributes = 'width="100mm" height="80mm" viewBox="0 0 100 80"'): string =>
  `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`;
const box = (text: string): number[] => {
  const { min, max } = regionBox(shapeOfSvg(readSvg(text)));
  return [min[0], min[1], max[0], max[1]];
};
const close = (a: readonly number[], b: readonly number[], mm = 0.011): void =>
  a.forEach((v, i) => expect(Math.abs(v - b[i])).toBeLessThan(mm));

describe('units', () => {
  // CSS Values 3, section 6.2: 1in = 96px = 72pt = 6pc = 2.54cm = 25.4mm = 101.6q.
  test.each([
    ['1in', 96],
    ['96px', 96],
    ['72pt', 96],
    ['6pc', 96],
    ['2.54cm', 96],
    ['25.4mm', 96],
    ['101.6q', 96],
    ['96', 96],
    ['1e1', 10],
    ['.5', 0.5],
  ])('%s', (text, px) => expect(lengthPx(text)).toBeCloseTo(px, 9));
  test.each(['', '10%', '4 mm x', 'wide', '1/2in'])('%s is no length', (text) => expect(lengthPx(text)).toBeNull());
  test('a viewBox in a size of millimetres is true to scale; without either, a unit is 1/96 in', () => {
    close(box(svg('<rect x="10" y="20" width="30" height="5"/>')), [10, 80 - 25, 40, 60]);
    close(box(svg('<rect x="0" y="0" width="96" height="96"/>', '')), [
      0,
      (150 * 25.4) / 96 - 25.4,
      25.4,
      (150 * 25.4) / 96,
    ]);
    close(box(svg('<rect width="10mm" height="1in"/>', 'width="50mm" height="50mm"')), [0, 50 - 25.4, 10, 50]);
    close(box(svg('<rect width="50" height="25"/>', 'width="2in" viewBox="0 0 50 25"')), [0, 0, 50.8, 25.4]);
  });
  test('preserveAspectRatio: met and centred, or stretched when none', () => {
    close(
      box(svg('<rect width="10" height="10"/>', 'width="40mm" height="20mm" viewBox="0 0 10 10"')),
      [10, 0, 30, 20],
    );
    close(
      box(
        svg(
          '<rect width="10" height="10"/>',
          'width="40mm" height="20mm" viewBox="0 0 10 10" preserveAspectRatio="none"',
        ),
      ),
      [0, 0, 40, 20],
    );
  });
});

describe('drawing', () => {
  test.each<[string, string, number]>([
    ['circle', '<circle cx="50" cy="40" r="10"/>', Math.PI * 100],
    ['ellipse', '<ellipse cx="50" cy="40" rx="20" ry="5"/>', Math.PI * 100],
    ['rounded rectangle', '<rect x="10" y="10" width="40" height="20" rx="4"/>', 800 - (4 - Math.PI) * 16],
    [
      'corner radii that differ',
      '<rect x="10" y="10" width="40" height="20" rx="8" ry="4"/>',
      800 - (4 - Math.PI) * 32,
    ],
    ['polygon', '<polygon points="0,0 30,0 0,40"/>', 600],
    ['path with relative lines and arcs', '<path d="M10 10h20a5 5 0 0 1 0 10h-20z"/>', 200 + (Math.PI * 25) / 2],
    // Each hump: ∫ y dx of the cubic = 60.
    ['path of smooth curves', '<path d="M0 0 C0 10 10 10 10 0 S 20 -10 20 0 Z"/>', 120],
    ['fill rule non-zero', '<path d="M0 0H30V30H0ZM10 10H20V20H10Z"/>', 900],
    ['fill rule even-odd', '<path fill-rule="evenodd" d="M0 0H30V30H0ZM10 10H20V20H10Z"/>', 800],
    [
      'style before attribute',
      '<path style="fill-rule:evenodd" fill-rule="nonzero" d="M0 0H30V30H0ZM10 10H20V20H10Z"/>',
      800,
    ],
    [
      'what is hidden',
      '<rect width="10" height="10"/><rect display="none" x="20" width="50" height="50"/><g ' +
        'visibility="hidden"><rect x="20" width="9" height="9"/></g>',
      100,
    ],
    ['stroke only, closed', '<g fill="none" stroke="#000"><rect width="20" height="10"/></g>', 200],
  ])('%s', (_, body, area) => expect(Math.abs(regionArea(shapeOfSvg(readSvg(svg(body)))) - area)).toBeLessThan(0.6));

  test('groups and transforms compose as the standard says, outermost first', () => {
    close(
      box(
        svg('<g transform="translate(10 5)"><g transform="scale(2)"><rect x="1" y="1" width="4" height="3"/></g></g>'),
      ),
      [12, 80 - 13, 20, 80 - 7],
    );
    close(box(svg('<rect transform="rotate(90 20 20)" x="20" y="20" width="10" height="4"/>')), [16, 50, 20, 60]);
    close(box(svg('<rect transform="matrix(1 0 0 1 3 4) skewX(45)" width="10" height="10"/>')), [3, 66, 23, 76]);
  });
  test('any turn and shift keeps the area', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.double({ min: -30, max: 30, noNaN: true }),
        (deg, dx) => {
          expect(
            regionArea(
              shapeOfSvg(
                readSvg(
                  svg(
                    `<g transform="rotate(${deg.toFixed(4)}) translate(${dx.toFixed(3)},7)"><path ` +
                      `d="M0 0H30V20H10Z"/></g>`,
                  ),
                ),
              ),
            ),
          ).toBeCloseTo(500, 3);
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('style sheets (Selectors 3, CSS Cascade 3)', () => {
  const strokes = (css: string, body: string): string[] =>
    readSvg(svg(`<defs><style>${css}</style></defs>${body}`)).lines.map(
      (l) => `${l.stroke}${l.dashed ? ' dashed' : ''}`,
    );
  test.each<[string, string, string, string[]]>([
    [
      'by class',
      '.f{stroke:#00f;stroke-dasharray:3 1}',
      '<path class="f" d="M0 0H9"/><path d="M0 9H9"/>',
      ['#00f dashed', 'none'],
    ],
    ['by element and by id', 'line{stroke:red}#k{stroke:lime}', '<line x2="9"/><line id="k" x2="9"/>', ['red', 'lime']],
    [
      'an id outweighs classes, classes outweigh names, whatever the order',
      '#k{stroke:lime}.a.b{stroke:blue}.a{stroke:red}path{stroke:black}',
      '<path id="k" class="a b" d="M0 0H9"/><path class="b a" d="M0 0H9"/><path class="a" d="M0 ' +
        '0H9"/><path d="M0 0H9"/>',
      ['lime', 'blue', 'red', 'black'],
    ],
    ['of equal weight the later one', '.a{stroke:red}.b{stroke:blue}', '<path class="a b" d="M0 0H9"/>', ['blue']],
    [
      'a sheet outweighs an attribute, an own style outweighs the sheet',
      '.a{stroke:red}',
      '<path class="a" stroke="blue" d="M0 0H9"/><path class="a" style="stroke:lime" d="M0 0H9"/>',
      ['red', 'lime'],
    ],
    [
      'inherited through groups',
      '.g{stroke:navy}',
      '<g class="g"><path d="M0 0H9"/><path stroke="inherit" d="M0 0H9"/></g>',
      ['navy', 'navy'],
    ],
    [
      'in CDATA, with a comment',
      '<![CDATA[/* folds */ .f { stroke : teal }]]>',
      '<path class="f" d="M0 0H9"/>',
      ['teal'],
    ],
    ['what a sheet hides', '.off{display:none}', '<path class="off" d="M0 0H9"/><path d="M0 0H9"/>', ['none']],
  ])('%s', (_, css, body, want) => expect(strokes(css, body)).toEqual(want));
  test('what depends on where an element stands, and conditions, are named', () => {
    const { leftOut } = readSvg(
      svg(
        '<style>@import url(x.css); @media print{path{stroke:red}} g > path{stroke:red} ' +
          'path:hover{stroke:red} p{color:red}</style><path d="M0 0H9"/>',
      ),
    );
    expect([...leftOut].sort()).toEqual([
      '@import in a style sheet',
      '@media in a style sheet',
      'style rules for elements by where they stand',
    ]);
  });
  test('a sheet that is none does no harm', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 120 }), (junk) => {
        // Without the one property that may rightly hide the line.
        const css = junk.replace(/[<&\]]|display|visibility/g, '');
        expect(readSvg(svg(`<style>${css}</style><path d="M0 0H9"/>`)).lines).toHaveLength(1);
      }),
      { numRuns: 100 },
    );
  });
});

describe('elements used again (SVG 2, section 5.6)', () => {
  test('use draws an element where it says, with its own transform outside its x and y', () => {
    close(
      box(svg('<defs><rect id="r" width="4" height="3"/></defs><use href="#r" x="10" y="5" transform="scale(2)"/>')),
      [20, 80 - 16, 28, 80 - 10],
    );
    expect(
      regionArea(
        shapeOfSvg(
          readSvg(svg('<rect id="r" width="4" height="3"/><use xlink:href="#r" x="50"/><use href="#r" y="20"/>')),
        ),
      ),
    ).toBeCloseTo(36, 6);
  });
  test('of two elements with one id the first in the file is used (DOM, getElementById)', () => {
    expect(
      regionArea(
        shapeOfSvg(
          readSvg(
            svg(
              '<defs><g><rect id="r" width="4" height="3"/></g><rect id="r" width="9" ' +
                'height="9"/></defs><use href="#r"/>',
            ),
          ),
        ),
      ),
    ).toBeCloseTo(12, 6);
  });
  test('what a use says of fill and stroke is inherited by what it draws', () => {
    const { lines } = readSvg(
      svg(
        '<defs><path id="p" d="M0 0H9"/><path id="q" stroke="red" d="M0 0H9"/></defs><use href="#p" ' +
          'stroke="blue"/><use href="#q" stroke="blue"/>',
      ),
    );
    expect(lines.map((l) => l.stroke)).toEqual(['blue', 'red']);
  });
  test('a symbol is met in the size of its use and centred, a nested svg in its own', () => {
    close(
      box(
        svg(
          '<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol><use href="#s" ' +
            'x="10" y="10" width="40" height="20"/>',
        ),
      ),
      [20, 50, 40, 70],
    );
    close(
      box(
        svg(
          '<svg x="10" y="20" width="30" height="30" viewBox="0 0 3 3"><rect x="1" y="1" width="1" height="1"/></svg>',
        ),
      ),
      [20, 40, 30, 50],
    );
    close(box(svg('<svg x="5" y="5"><rect width="10" height="10"/></svg>')), [5, 65, 15, 75]);
  });
  test.each([
    ['itself', '<g id="a"><use href="#a"/><path d="M0 0H9"/></g>', /uses itself/],
    ['each other', '<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/><path d="M0 0H9"/></g>', /uses itself/],
    ['another file', '<use href="other.svg#a"/><path d="M0 0H9"/>', /outside the file/],
  ])('what uses %s is named, the rest read', (_, body, words) => {
    const d = readSvg(svg(body));
    expect(d.leftOut.join()).toMatch(words);
    expect(d.lines.length).toBeGreaterThan(0);
  });
  test('uses that multiply without end are refused', () => {
    const tower = Array.from(
      { length: 12 },
      (_, k) => `<g id="g${k + 1}">${`<use href="#g${k}"/>`.repeat(10)}</g>`,
    ).join('');
    expect(() => readSvg(svg(`<g id="g0"><path d="M0 0H9"/></g>${tower}`))).toThrow(/more than 5000 lines/);
    expect(() => readSvg(svg(`<g id="g0"/>${tower}`))).toThrow(/more than 20000 elements/);
  });
});

describe('what is not a shape', () => {
  test('text, images, scripts and links are left out and named', () => {
    const d = readSvg(
      svg(
        '<text x="1" y="9">Hi</text><image ' +
          'href="x.png"/><script>alert(1)</script><style>.a{fill:red}</style><a href="javascript:alert(1)"><rect width="10" height="10" onclick="alert(1)"/></a><use href="#r"/>',
      ),
    );
    expect(d.leftOut).toEqual(
      expect.arrayContaining([
        'text',
        'an image',
        'a script',
        'a link (its shapes are kept)',
        'a use of "#r", which is not in the file',
      ]),
    );
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
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (junk) => {
        try {
          readSvg(`<svg ${junk}><path d="${junk.replace(/["<&]/g, '')}"/></svg>`);
        } catch (error) {
          expect((error as Error).constructor.name).toBe('ShapeError');
          expect((error as Error).message).not.toMatch(/\n/);
        }
      }),
      { numRuns: 200 },
    );
  });
});
