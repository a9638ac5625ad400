/** Crease patterns for tests: made from angles, so that closed forms can be held against them. */
import type { Assignment, CreasePattern } from '../assembly/crease-pattern';
import type { Vec2 } from '../plane/vec2';
import { degToRad } from '../units/angle';

/** A disc-like sheet round one vertex. `sectors` in degrees counter-clockwise from crease 0; `roles` + valley, - mountain; `first` drives. */
export function vertexPattern(sectors: readonly number[], roles: string, first = 0, radius = 50): CreasePattern {
  const angles = sectors.map((_, i) => sectors.slice(0, i).reduce((s, a) => s + a, 0));
  const vertices: Vec2[] = [[0, 0], ...angles.map((a): Vec2 => [radius * Math.cos(degToRad(a)), radius * Math.sin(degToRad(a))])];
  const order = [first, ...angles.keys()].filter((k, i, all) => all.indexOf(k) === i);
  const edges: CreasePattern['edges'][number][] = order.map((i) => ({ from: 0, to: i + 1, assignment: roles[i] === '+' ? 'V' : 'M' }));
  angles.forEach((_, i) => edges.push({ from: i + 1, to: ((i + 1) % angles.length) + 1, assignment: 'B' }));
  return { vertices, edges };
}

/** Grid of parallelograms: `columns` x `rows` cells of side `side`, zigzag lines of one role each, straight ones alternating. */
export function parallelogramGrid(columns: number, rows: number, sectorDeg = 60, side = 20): CreasePattern {
  const [dx, dy] = [side * Math.sin(degToRad(sectorDeg)), side * Math.cos(degToRad(sectorDeg))];
  const id = (i: number, j: number): number => i * (rows + 1) + j;
  const vertices: Vec2[] = [];
  for (let i = 0; i <= columns; i++) for (let j = 0; j <= rows; j++) vertices.push([i * dx, j * side + (i % 2 ? dy : 0)]);
  const edges: { from: number; to: number; assignment: Assignment }[] = [];
  for (let j = 0; j <= rows; j++) for (let i = 0; i < columns; i++) edges.push({ from: id(i, j), to: id(i + 1, j), assignment: j === 0 || j === rows ? 'B' : j % 2 ? 'V' : 'M' });
  for (let i = 0; i <= columns; i++) for (let j = 0; j < rows; j++) edges.push({ from: id(i, j), to: id(i, j + 1), assignment: i === 0 || i === columns ? 'B' : (i + j) % 2 ? 'M' : 'V' });
  return { vertices, edges };
}

/** The pattern as the text of a FOLD file. */
export const foldText = ({ vertices, edges }: CreasePattern): string =>
  JSON.stringify({ file_spec: 1.1, vertices_coords: vertices, edges_vertices: edges.map((e) => [e.from, e.to]), edges_assignment: edges.map((e) => e.assignment) });
