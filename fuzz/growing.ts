/** Inputs that grow: for every reader, and for every list in a file, one of any length. */
import { blankDesign, newLayer, type Design } from '../src/core/document/design';
import { addMechanism } from '../src/core/document/standing';
import type { Shape, ShapeStep } from '../src/core/shapes/shape';
import type { Input } from './inputs';

export interface Growing {
  readonly name: string;
  readonly kind: Input['kind'];
  /** The shortest that is measured; the next is twice as long, and so on. */
  readonly from: number;
  /** What of it there is, at most: more of it no file holds. */
  readonly most?: number;
  readonly text: (n: number) => string;
}

/** What of it there is, how many at first, and at most. */
type Rising = readonly [what: string, from: number, text: (n: number) => string, most?: number];

const times = <T>(n: number, of: (k: number) => T): T[] => Array.from({ length: n }, (_, k) => of(k));
const rows = (n: number, of: (k: number) => string): string => times(n, of).join('');
/** Places in a square of 100 mm, none twice. */
const side = (n: number): number => Math.ceil(Math.sqrt(n));
const spot = (k: number, n: number): readonly [x: number, y: number] => [
  (100 * (k % side(n))) / side(n),
  (100 * Math.floor(k / side(n))) / side(n),
];
const cell = (n: number): number => 80 / side(n);

const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">${inside}</svg>`;
const square = (x: number, y: number, size: number): string => `M${x} ${y}h${size}v${size}h${-size}z`;
/** A ring of so many corners, in and out by turns. */
const toothed = (n: number): string => {
  const at = (k: number): string => {
    const [r, a] = [k % 2 ? 45 : 44, (2 * Math.PI * k) / n];
    return `${(50 + r * Math.cos(a)).toFixed(4)} ${(50 + r * Math.sin(a)).toFixed(4)}`;
  };
  return `M${times(n, at).join('L')}Z`;
};
const line = (k: number, n: number): string => {
  const [x, y] = spot(k, n);
  return `<path d="M${x} ${y}h${cell(n)}" stroke="#000" fill="none"/>`;
};
const crossing = (k: number, n: number): string =>
  k % 2 ? `<path d="M0 ${(100 * k) / n}H100"/>` : `<path d="M${(100 * k) / n} 0V100"/>`;

const SVG: readonly Rising[] = [
  ['corners of a path', 1000, (n) => svg(`<path d="${toothed(n)}"/>`)],
  ['arcs of 10 m', 20, (n) => svg(`<path d="M0 0${rows(n, (k) => `A10000 10000 0 1 ${k % 2} 90 ${k % 90}`)}Z"/>`)],
  ['curves of a path', 250, (n) => svg(`<path d="M0 0${rows(n, (k) => `C0 90 90 90 ${k % 90} 0`)}Z"/>`)],
  ['squares of a path', 100, (n) => svg(`<path d="${rows(n, (k) => square(...spot(k, n), cell(n)))}"/>`)],
  ['squares, one each', 100, (n) => svg(rows(n, (k) => `<path d="${square(...spot(k, n), cell(n))}"/>`))],
  ['groups in groups', 50, (n) => svg(`${'<g>'.repeat(n)}<path d="M0 0h50v50z"/>${'</g>'.repeat(n)}`)],
  ['uses of a square', 100, (n) => svg(`<path id="a" d="M0 0h50v50z"/>${'<use href="#a"/>'.repeat(n)}`)],
  ['uses of long words', 100, (n) => svg(`<text id="a">${'x'.repeat(n)}</text>${'<use href="#a"/>'.repeat(n)}`)],
  [
    'uses of what has a long attribute',
    100,
    (n) => svg(`<g id="a" data-a="${'x'.repeat(20 * n)}"><path d="M0 0h5v5z"/></g>${'<use href="#a"/>'.repeat(n)}`),
  ],
  ['uses of uses', 2, (n) => svg(`<path id="a0" d="M0 0h5v5z"/>${rows(n, (k) => link(k))}<use href="#a${n}"/>`)],
  ['turns of one attribute', 500, (n) => svg(`<path d="M0 0h50v50z" transform="${'rotate(1) '.repeat(n)}"/>`)],
  ['rules of a style', 500, (n) => svg(`<style>${rows(n, (k) => `.a${k}{fill:red}`)}</style><path d="M0 0h5v5z"/>`)],
  ['a comment', 50_000, (n) => svg(`<!--${'x'.repeat(n)}--><path d="M0 0h50v50z"/>`)],
];
const link = (k: number): string => `<g id="a${k + 1}"><use href="#a${k}"/><use href="#a${k}"/></g>`;

const tags = (...pairs: readonly (string | number)[]): string => `${pairs.join('\n')}\n`;
const dxf = (entities: string, blocks = ''): string =>
  `${blocks && `0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n`}0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const dxfLine = (k: number, n: number): string => {
  const [x, y] = spot(k, n);
  return tags(0, 'LINE', 8, 'cut', 10, x, 20, y, 11, x + cell(n), 21, y);
};
const block = (name: string, inside: string): string =>
  tags(0, 'BLOCK', 8, 0, 2, name, 10, 0, 20, 0) + inside + tags(0, 'ENDBLK');
const insert = (name: string, k: number): string => tags(0, 'INSERT', 8, 0, 2, name, 10, k % 100, 20, k % 97);
const vertices = (n: number): string =>
  tags(0, 'LWPOLYLINE', 8, 'cut', 90, n, 70, 1) +
  rows(n, (k) => tags(10, 50 + 45 * Math.cos((2 * Math.PI * k) / n), 20, 50 + 45 * Math.sin((2 * Math.PI * k) / n)));
const spline = (n: number): string =>
  tags(0, 'SPLINE', 8, 'cut', 71, 3, 72, n + 4, 73, n) +
  rows(n + 4, (k) => tags(40, Math.min(Math.max(k - 3, 0), n - 3))) +
  rows(n, (k) => tags(10, (100 * k) / n, 20, k % 7));

const DXF: readonly Rising[] = [
  ['lines', 250, (n) => dxf(rows(n, (k) => dxfLine(k, n)))],
  ['vertices of a polyline', 1000, (n) => dxf(vertices(n))],
  ['poles of a spline', 125, (n) => dxf(spline(n))],
  ['arcs', 250, (n) => dxf(rows(n, (k) => tags(0, 'ARC', 8, 'cut', 10, k % 99, 20, 0, 40, 50, 50, 0, 51, 359)))],
  [
    'blocks placed',
    100,
    (n) =>
      dxf(
        rows(n, (k) => insert('A', k)),
        block('A', dxfLine(0, 1)),
      ),
  ],
  [
    'a block of words, placed',
    50,
    (n) =>
      dxf(
        rows(n, (k) => insert('A', k)),
        block(
          'A',
          rows(20 * n, () => tags(0, 'TEXT', 8, 0, 1, 'x')),
        ),
      ),
  ],
  [
    'blocks in blocks',
    2,
    (n) =>
      dxf(
        insert('B0', 0),
        rows(n, (k) => block(`B${k}`, insert(`B${k + 1}`, 0).repeat(2))),
      ),
  ],
  ['kinds of lines', 25, (n) => dxf(rows(n, (k) => dxfLine(k, n).replace('cut', `layer ${k}`)))],
  ['a tag of many signs', 50_000, (n) => dxf(tags(0, 'TEXT', 8, 'x'.repeat(n), 1, 'x') + dxfLine(0, 1))],
];

const PLT: readonly Rising[] = [
  ['points of a line', 1000, (n) => `IN;SP1;PU0,0;PD${times(n, (k) => `${k % 4000},${(7 * k) % 4000}`).join()};`],
  ['lines', 500, (n) => `IN;SP1;${rows(n, (k) => `PU${k % 4000},0;PD${k % 4000},4000;`)}`],
  ['arcs', 100, (n) => `IN;SP1;${rows(n, (k) => `PU${k % 4000},0;PD;AA0,0,350;`)}`],
  ['words that say nothing', 1000, (n) => `IN;${'XX1,2;'.repeat(n)}SP1;PU0,0;PD9,9;`],
];
const GCODE: readonly Rising[] = [
  ['moves', 1000, (n) => `G21\nG90\nG1 Z0 F1200\n${rows(n, (k) => `G1 X${k % 200} Y${(7 * k) % 100}\n`)}`],
  ['arcs', 100, (n) => `G21\nG90\nG1 Z0\n${rows(n, (k) => `G2 X${k % 2 ? 0 : 100} Y0 I${k % 2 ? -50 : 50} J0\n`)}`],
  ['comments', 1000, (n) => `G21\n${'(nothing at all)\n'.repeat(n)}G1 Z0\nG1 X9 Y9\n`],
];

/** A star: creases from one point to a ring of others, mountain and valley by turns. */
const star = (n: number): string => {
  const even = 2 * Math.ceil(n / 2);
  const at = times(even, (k) => [Math.cos, Math.sin].map((f) => 100 * f((2 * Math.PI * k) / even)));
  const edges = [...times(even, (k) => [k + 1, ((k + 1) % even) + 1]), ...times(even, (k) => [0, k + 1])];
  const assigned = [...times(even, () => 'B'), ...times(even, (k) => (k % 2 ? 'M' : 'V'))];
  return fold([[0, 0], ...at], edges, assigned);
};
/** A strip with so many pleats. */
const pleats = (n: number): string => {
  const at = times(n + 1, (k) => [k, 0]).concat(times(n + 1, (k) => [k, 50]));
  const rims = times(n, (k) => [k, k + 1]).concat(times(n, (k) => [n + 1 + k, n + 2 + k]));
  const folds = times(n + 1, (k) => [k, n + 1 + k]);
  const assigned = [...rims.map(() => 'B'), ...folds.map((_, k) => (k === 0 || k === n ? 'B' : k % 2 ? 'M' : 'V'))];
  return fold(at, [...rims, ...folds], assigned);
};
const fold = (at: readonly unknown[], edges: readonly unknown[], assigned: readonly string[]): string =>
  JSON.stringify({ file_spec: 1.2, vertices_coords: at, edges_vertices: edges, edges_assignment: assigned });

const plain = (change: (d: Design) => unknown): string => JSON.stringify(change(blankDesign('grown')));
const steps = (list: readonly ShapeStep[]): string =>
  plain((d) => ({
    ...d,
    shapes: [{ id: 'a', name: 'A', source: { circle: 2 }, steps: list }],
    layers: [layer(0, { asset: 'a' })],
  }));
const layer = (k: number, shape: Design['layers'][number]['shape']) => ({
  ...newLayer({ id: `l${k + 1}`, name: `Layer ${k + 1}`, facet: 'leafA', shape, as: 'layer', stock: 'card-160' }),
  x: (k % 20) * 4 - 40,
  y: Math.floor(k / 20) * 4 - 30,
});
const stood = (n: number, kind: string, on: (k: number) => string | undefined, sizes: object): string =>
  plain((d) =>
    times(n, (k) => k).reduce((so, k) => addMechanism(so, kind, on(k), { ...sizes, offset: offsetOf(k, n) }).design, d),
  );
const offsetOf = (k: number, n: number): number => Math.round((1000 * (180 * (k + 0.5))) / n - 90_000) / 1000;

const layers = (n: number, shape: Shape, change: object = {}): string =>
  plain((d) => ({ ...d, layers: times(n, (k) => ({ ...layer(k, shape), ...change })) }));
const PROJECT: readonly Rising[] = [
  ['steps', 25, (n) => stood(n, 'step-fold', () => undefined, { width: 150 / n, depth: 9, height: 9 }), 400],
  ['layers', 19, (n) => layers(n, { circle: 3 }), 300],
  ['layers over each other', 19, (n) => layers(n, { circle: 60 }, { x: 0, y: 0 }), 300],
  ['corners of a shape', 500, (n) => layers(1, { path: toothed(n) })],
  ['rows of rows of a shape', 2, (n) => steps(times(n, () => ROW))],
  ['letters of a text', 10, (n) => layers(1, { text: { string: 'o'.repeat(n), font: 'righteous', size: 9 } }), 200],
  ['stocks', 6, (n) => plain((d) => ({ ...d, stocks: [...d.stocks, ...stocksLike(d, n)] })), 100],
  ['variants', 5, (n) => plain((d) => ({ ...d, variants: variantsOf(n) })), 20],
  ['notes', 1000, (n) => plain((d) => ({ ...d, notes: 'x'.repeat(n) }))],
  ['lists in lists', 1000, (n) => `{"rhabdoplex":2,"name":${'['.repeat(n)}${']'.repeat(n)}}`],
  ['numbers of many digits', 1000, (n) => plain((d) => d).replace('"reachA":140', `"reachA":1${'0'.repeat(n)}`)],
];
const ROW: ShapeStep = { do: 'row', count: 2, pitch: 3, deg: 0 };
const stocksLike = ({ stocks }: Design, n: number) => times(n, (k) => ({ ...stocks[0], id: `s${k}` }));
const variantsOf = (n: number) => times(n, (k) => ({ id: `v${k}`, name: `Variant ${k}`, delta: null }));

const VALUE: readonly Rising[] = [
  ['digits', 1000, (n) => '9'.repeat(n)],
  ['terms of a sum', 500, (n) => times(n, () => '1').join(' + ')],
  ['brackets', 500, (n) => `${'('.repeat(n)}1${')'.repeat(n)}`],
  ['things of a list', 500, (n) => times(n, () => '26 @-40..-20').join(', ')],
  ['spaces', 5000, (n) => `1${' '.repeat(n)}mm`],
];
const MACHINE = (n: number): string =>
  JSON.stringify({ rhabdoplexMachine: 1, name: 'x'.repeat(n), extra: times(n, () => ({})) });

const as =
  (...kinds: readonly Input['kind'][]) =>
  ([what, from, text, most]: Rising): Growing[] =>
    kinds.map((kind): Growing => ({ name: `${kind}: ${what}`, kind, from, text, ...(most ? { most } : {}) }));

export const GROWING: readonly Growing[] = [
  ...SVG.flatMap(as('svg', 'template.svg', 'cut.svg')),
  ...(
    [
      ['lines', 250, (n) => svg(rows(n, (k) => line(k, n)))],
      ['lines that cross', 50, (n) => svg(`<g stroke="#000" fill="none">${rows(n, (k) => crossing(k, n))}</g>`)],
      ['kinds of lines', 25, (n) => svg(rows(n, (k) => line(k, n).replace('#000', `rgb(${k % 255},${k >> 8},9)`)))],
      ['squares with a crease', 25, (n) => svg(rows(n, (k) => creased(k, n)))],
    ] as (readonly [string, number, (n: number) => string])[]
  ).flatMap(as('template.svg', 'cut.svg')),
  ...DXF.flatMap(as('template.dxf', 'cut.dxf')),
  ...PLT.flatMap(as('cut.plt')),
  ...GCODE.flatMap(as('cut.gcode')),
  ...as('fold')(['creases of a star', 20, star]),
  ...as('fold')(['pleats of a strip', 20, pleats]),
  ...PROJECT.flatMap(as('project')),
  ...VALUE.flatMap(as('value')),
  ...as('machine')(['things', 1000, MACHINE]),
];
function creased(k: number, n: number): string {
  const [[x, y], size] = [spot(k, n), cell(n)];
  const fold = `<path d="M${x} ${y + size / 2}h${size}" stroke="blue" fill="none"/>`;
  return `<path d="${square(x, y, size)}" stroke="#000" fill="none"/>${fold}`;
}
