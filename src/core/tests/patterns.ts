/** Crease patterns for tests: made from angles, so that closed forms can be held against them. */
import type { Assignment, CreasePattern } from '../assembly/crease-pattern';
import type { Vec2 } from '../plane/vec2';
import { degToRad } from '../units/angle';

/**
 * A disc-like sheet round one vertex. `sectors` in degrees counter-clockwise from crease 0; `roles` + valley, -
 * mountain; `first` drives.
 */
export function vertexPattern(sectors: readonly number[], roles: string, first = 0, radius = 50): CreasePattern {
  const angles = sectors.map((_, i) => sectors.slice(0, i).reduce((s, a) => s + a, 0));
  const vertices: Vec2[] = [
    [0, 0],
    ...angles.map((a): Vec2 => [radius * Math.cos(degToRad(a)), radius * Math.sin(degToRad(a))]),
  ];
  const order = [first, ...angles.keys()].filter((k, i, all) => all.indexOf(k) === i);
  const edges: CreasePattern['edges'][number][] = order.map((i) => ({
    from: 0,
    to: i + 1,
    assignment: roles[i] === '+' ? 'V' : 'M',
  }));
  angles.forEach((_, i) => edges.push({ from: i + 1, to: ((i + 1) % angles.length) + 1, assignment: 'B' }));
  return { vertices, edges };
}

/**
 * Grid of parallelograms: `columns` x `rows` cells of side `side`, zigzag lines of one role each, straight ones
 * alternating.
 */
export function parallelogramGrid(columns: number, rows: number, sectorDeg = 60, side = 20): CreasePattern {
  const [dx, dy] = [side * Math.sin(degToRad(sectorDeg)), side * Math.cos(degToRad(sectorDeg))];
  const id = (i: number, j: number): number => i * (rows + 1) + j;
  const vertices: Vec2[] = [];
  for (let i = 0; i <= columns; i++)
    for (let j = 0; j <= rows; j++) vertices.push([i * dx, j * side + (i % 2 ? dy : 0)]);
  const edges: { from: number; to: number; assignment: Assignment }[] = [];
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i < columns; i++)
      edges.push({ from: id(i, j), to: id(i + 1, j), assignment: j === 0 || j === rows ? 'B' : j % 2 ? 'V' : 'M' });
  for (let i = 0; i <= columns; i++)
    for (let j = 0; j < rows; j++)
      edges.push({
        from: id(i, j),
        to: id(i, j + 1),
        assignment: i === 0 || i === columns ? 'B' : (i + j) % 2 ? 'M' : 'V',
      });
  return { vertices, edges };
}

/** The pattern as the text of a FOLD file. */
export const foldText = ({ vertices, edges }: CreasePattern): string =>
  JSON.stringify({
    file_spec: 1.1,
    vertices_coords: vertices,
    edges_vertices: edges.map((e) => [e.from, e.to]),
    edges_assignment: edges.map((e) => e.assignment),
  });

type Line = readonly [from: Vec2, to: Vec2, assignment: Assignment];

/** Lines to a pattern: ends that agree are one vertex; valleys first, so that one drives. */
function patternOf(lines: readonly Line[]): CreasePattern {
  const vertices: Vec2[] = [];
  const at = new Map<string, number>();
  const vertex = (p: Vec2): number => {
    const key = p.map((x) => Math.round(x * 1e6)).join();
    if (!at.has(key)) at.set(key, vertices.push(p) - 1);
    return at.get(key)!;
  };
  const ordered = [...lines].sort((p, q) => Number(q[2] === 'V') - Number(p[2] === 'V'));
  return {
    vertices,
    edges: ordered.map(([from, to, assignment]) => ({ from: vertex(from), to: vertex(to), assignment })),
  };
}

/**
 * Waterbomb tessellation: cells with valley diagonals, rows shifted by half a cell; every inner vertex has 6
 * creases.
 */
export function waterbombGrid(columns: number, rows: number, side = 20): CreasePattern {
  const lines: Line[] = [];
  const halves = 2 * columns;
  const x = (i: number): number => (i * side) / 2;
  for (let j = 0; j < rows; j++) {
    for (let i = 0; i <= halves; i++) {
      const along: Assignment = i === 0 || i === halves ? 'B' : 'M';
      const [low, middle, high]: Vec2[] = [j, j + 0.5, j + 1].map((y) => [x(i), y * side]);
      if ((i + j) % 2 === 0) {
        lines.push([low, high, along]);
        continue;
      }
      lines.push([low, middle, along], [middle, high, along]);
      for (const k of [i - 1, i + 1])
        if (k >= 0 && k <= halves) for (const y of [j, j + 1]) lines.push([middle, [x(k), y * side], 'V']);
    }
  }
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i < halves; i++)
      lines.push([[x(i), j * side], [x(i + 1), j * side], j === 0 || j === rows ? 'B' : 'M']);
  return patternOf(lines);
}

/** Triangles in rows: level valleys, slanted mountains; every inner vertex has 6 creases. */
export function triangleGrid(columns: number, rows: number, width = 20, height = 15): CreasePattern {
  const x = (i: number, j: number): number => i * width + (j % 2 ? width / 2 : 0);
  const at = (i: number, j: number): Vec2 => [x(i, j), j * height];
  const lines: Line[] = [];
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i < columns; i++) lines.push([at(i, j), at(i + 1, j), j === 0 || j === rows ? 'B' : 'V']);
  for (let j = 0; j < rows; j++)
    for (let i = 0; i <= columns; i++)
      for (const k of j % 2 === 0 ? [i - 1, i] : [i, i + 1])
        if (k >= 0 && k <= columns)
          lines.push([at(i, j), at(k, j + 1), i === k && (i === 0 || i === columns) ? 'B' : 'M']);
  return patternOf(lines);
}

/** A square that twists, its four pleats, all its own sides mountains. */
export function squareTwist(side = 20, turnDeg = 30, reach = 60): CreasePattern {
  const corner = (k: number): Vec2 => {
    const t = Math.PI / 4 + (k * Math.PI) / 2 + degToRad(turnDeg);
    return [(side / Math.SQRT2) * Math.cos(t), (side / Math.SQRT2) * Math.sin(t)];
  };
  const ways: readonly Vec2[] = [
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
  ];
  const toEdge = (p: Vec2, d: Vec2): Vec2 => {
    const t = Math.min(...[0, 1].map((i) => (d[i] === 0 ? Infinity : (Math.sign(d[i]) * reach - p[i]) / d[i])));
    return [p[0] + d[0] * t, p[1] + d[1] * t];
  };
  const lines: Line[] = [];
  const rim: Vec2[] = [
    [reach, reach],
    [-reach, reach],
    [-reach, -reach],
    [reach, -reach],
  ];
  for (let k = 0; k < 4; k++) {
    const [out, beside] = [toEdge(corner(k), ways[k]), toEdge(corner(k), ways[(k + 3) % 4])];
    lines.push([corner(k), corner((k + 1) % 4), 'M'], [corner(k), out, 'M'], [corner(k), beside, 'V']);
    rim.push(out, beside);
  }
  rim.sort((p, q) => Math.atan2(p[1], p[0]) - Math.atan2(q[1], q[0]));
  rim.forEach((p, i) => lines.push([p, rim[(i + 1) % rim.length], 'B']));
  return patternOf(lines);
}

/** Squares in squares with their diagonals: the creases of a hyperbolic paraboloid. */
export function squaresInSquares(count: number, step = 15): CreasePattern {
  const corner = (k: number, i: number): Vec2 =>
    [
      [k, k],
      [-k, k],
      [-k, -k],
      [k, -k],
    ][i].map((x) => x * step) as unknown as Vec2;
  const lines: Line[] = [];
  for (let i = 0; i < 4; i++) {
    for (let k = 1; k <= count; k++)
      lines.push([corner(k, i), corner(k, (i + 1) % 4), k === count ? 'B' : k % 2 ? 'M' : 'V']);
    for (let k = 0; k < count; k++) lines.push([corner(k, i), corner(k + 1, i), i % 2 ? 'M' : 'V']);
  }
  return patternOf(lines);
}
