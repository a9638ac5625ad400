/** Every stretch of paper is one line in every file, drawn in as few paths as it can be; over all kinds. */
import interpolate from 'b-spline';
import DxfParser from 'dxf-parser';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import { exportDesign } from '../formats/export';
import { readSvg } from '../shapes/svg-read';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { card, SCALLOPED, shapedCard, stand } from '../tests/cards';
import { drawPieces, type DrawnLine } from './drawing';

const ALL: readonly (readonly [string, Design])[] = [
  ['plain card', card()],
  ['scalloped card', shapedCard(SCALLOPED, 104)],
  ['lined card', { ...card(), card: { ...card().card, parameters: { ...card().card.parameters, liner: 6 } } }],
  ['step', stand(card(), 'step-fold', {})],
  ['side step', stand(card(), 'step-fold', { edge: 'right', width: 40 })],
  [
    'side step on scallops',
    stand(shapedCard(SCALLOPED, 104), 'step-fold', { edge: 'left', width: 40, depth: 30, height: 20 }),
  ],
  ['glued step', stand(card(), 'step-fold', { build: 'glued' })],
  [
    'nested steps',
    stand(
      stand(card(), 'step-fold', { depth: 40, height: 40, width: 60 }),
      'step-fold',
      { depth: 12, height: 12, width: 20 },
      'step-fold-1.base',
    ),
  ],
  ['V-fold', stand(card(), 'v-fold', {})],
  [
    'strut figure with a hole',
    stand(card(200, 140), 'strut-figure', { shape: { path: 'M-30 0V-60H30V0ZM-10 -20V-40H10V-20Z' }, depth: 25 }),
  ],
  ['strut disc', stand(card(200, 140), 'strut-figure', { shape: { circle: 60 }, depth: 25 })],
  [
    'strut figure off the page',
    stand(card(190, 130), 'strut-figure', { shape: { circle: 60 }, depth: 25, offset: 80 }),
  ],
  [
    'planes',
    stand(card(200, 140), 'plane-stack', {
      planes: [
        { depth: 40, base: 0, height: 30, width: 80, offset: 0 },
        { depth: 20, base: 30, height: 30, width: 40, offset: 0 },
      ],
    }),
  ],
  [
    'strut figure drawn with Bézier curves',
    stand(card(200, 140), 'strut-figure', {
      shape: { path: 'M-30 0C-60 -50 10 -90 30 -40S60 -10 20 0Z' },
      depth: 25,
    }),
  ],
  ['half-cut', stand(card(), 'half-cut', {})],
  ['half-cut without a gap', stand(card(), 'half-cut', { relief: 0 })],
  ['floating band with a figure', stand(card(), 'floating-band', { figure: { circle: 40 } })],
];

type Stretch = readonly [Vec2, Vec2];
const stretches = (lines: readonly { points: readonly Vec2[]; closed: boolean }[]): Stretch[] =>
  lines.flatMap(({ points, closed }) =>
    (closed ? [...points, points[0]] : points).slice(1).map((b, i): Stretch => [points[i], b]),
  );
/** Length of a stretch that others run along too, mm. */
function doubled(all: readonly Stretch[]): number {
  let sum = 0;
  all.forEach(([a, b], i) => {
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const parts = Math.max(2, Math.ceil(length));
    for (let k = 0; k < parts; k++) {
      const t = (k + 0.5) / parts;
      const p: Vec2 = [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
      const along = (u: Vec2, v: Vec2): boolean =>
        Math.abs((v[0] - u[0]) * (b[1] - a[1]) - (v[1] - u[1]) * (b[0] - a[0])) <
        1e-3 * length * Math.hypot(v[0] - u[0], v[1] - u[1]);
      if (all.some(([u, v], j) => j !== i && along(u, v) && distToSegment(p, u, v) < 1e-4)) sum += length / parts;
    }
  });
  return sum;
}
/** Ends of paths of one way of making that meet: each could have been drawn on. */
function lifted(lines: readonly DrawnLine[]): number {
  const key = (p: Vec2): string => p.map((x) => x.toFixed(3)).join();
  return ['cut', 'window', 'valley', 'mountain'].reduce((n, role) => {
    const own = lines.filter((l) => l.role === role);
    const ends = own.filter((l) => !l.closed).flatMap((l) => [l.points[0], l.points[l.points.length - 1]].map(key));
    const meets = ends.filter((e, i) => ends.indexOf(e) !== i).length;
    const onRing = own
      .filter((l) => l.closed)
      .flatMap((l) => l.points.map(key))
      .filter((e) => ends.includes(e)).length;
    return n + meets + onRing;
  }, 0);
}

/** A cubic spline of the file, by the b-spline package. */
const splinePoints = (control: readonly { x: number; y: number }[], knots: number[]): Vec2[] => {
  const points = control.map((p) => [p.x, p.y]);
  const parts = 40 * (control.length - 1);
  return Array.from({ length: parts + 1 }, (_, k) => interpolate(k / parts, 3, points, knots) as unknown as Vec2);
};

describe.each(ALL)('%s', (_, d) => {
  const drawings = drawPieces(d, buildAssembly(d));
  test('no stretch is drawn twice, and none that meet are drawn apart', () => {
    for (const { lines } of drawings) {
      const worked = lines.filter((l) => l.role !== 'glue' && l.role !== 'mark');
      expect(doubled(stretches(worked))).toBeLessThan(1e-6);
      expect(lifted(worked)).toBe(0);
    }
  });
  test('nothing is drawn off the paper, in the file neither', async () => {
    for (const { lines, box, id } of drawings) {
      for (const [x, y] of lines.filter((l) => l.role !== 'glue').flatMap((l) => l.points)) {
        expect(x).toBeGreaterThanOrEqual(box.min[0] - 1e-6);
        expect(x).toBeLessThanOrEqual(box.max[0] + 1e-6);
        expect(y).toBeGreaterThanOrEqual(box.min[1] - 1e-6);
        expect(y).toBeLessThanOrEqual(box.max[1] + 1e-6);
      }
      const svg = new TextDecoder().decode(await exportDesign(d, { format: 'svg', piece: id }));
      const read = readSvg(svg);
      const { widthMm, heightMm } = read;
      for (const p of read.lines.flatMap((l) => l.points)) {
        expect(p[0]).toBeGreaterThanOrEqual(9.99);
        expect(p[0]).toBeLessThanOrEqual(widthMm! - 9.99);
        expect(Math.abs(p[1])).toBeLessThanOrEqual(heightMm! - 9.99);
      }
    }
  });
  test('SVG and DXF hold the same lengths, by role', async () => {
    const [{ id }] = drawings;
    const svg = readSvg(new TextDecoder().decode(await exportDesign(d, { format: 'svg', piece: id })));
    const length = (points: readonly Vec2[], closed: boolean): number =>
      (closed ? [...points, points[0]] : points)
        .slice(1)
        .reduce((n, p, i) => n + Math.hypot(p[0] - points[i][0], p[1] - points[i][1]), 0);
    const inSvg = svg.lines.reduce((n, l) => n + length(l.points, l.closed), 0);
    const dxf = new DxfParser().parseSync(
      new TextDecoder().decode(await exportDesign(d, { format: 'dxf', piece: id })),
    )!;
    const inDxf = dxf.entities.reduce((n, e) => {
      const { vertices, shape, controlPoints, knotValues } = e as unknown as {
        vertices: { x: number; y: number; bulge?: number }[];
        shape?: boolean;
        controlPoints?: { x: number; y: number }[];
        knotValues: number[];
      };
      if (controlPoints) return n + length(splinePoints(controlPoints, knotValues), false);
      const ring = shape ? [...vertices, vertices[0]] : vertices;
      return (
        n +
        ring.slice(1).reduce((m, p, i) => {
          const chord = Math.hypot(p.x - ring[i].x, p.y - ring[i].y);
          // A bulge is the tangent of a quarter of the angle swept (DXF reference, LWPOLYLINE group 42).
          const angle = 4 * Math.atan(Math.abs(ring[i].bulge ?? 0));
          return m + (angle === 0 ? chord : (chord * angle) / (2 * Math.sin(angle / 2)));
        }, 0)
      );
    }, 0);
    expect(inDxf / inSvg).toBeCloseTo(1, 3);
  });
});

test('a round figure goes out as arcs: few strokes, not a thousand chords', async () => {
  const d = stand(card(200, 140), 'strut-figure', { shape: { circle: 60 }, depth: 25 });
  const svg = new TextDecoder().decode(await exportDesign(d, { format: 'svg', piece: 'card' }));
  const radii = [...svg.matchAll(/A([\d.]+) /g)].map((m) => Number(m[1]));
  expect(radii.length).toBeGreaterThan(1);
  radii.forEach((r) => expect(r).toBeCloseTo(30, 4));
  expect([...svg.matchAll(/L/g)].length).toBeLessThan(60);
});
