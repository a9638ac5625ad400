/** Reading crease patterns in the open FOLD format (1.1 and 1.2): flat, assigned, checked. */
import Joi from 'joi';
import type { Assignment, CreasePattern } from '../assembly/crease-pattern';
import type { Vec2 } from '../plane/vec2';
import { dist2 } from '../plane/vec2';
import { WELD_MM } from '../tolerance';
import { readJson } from '../document/schema';

export type ReadPattern =
  { readonly ok: true; readonly pattern: CreasePattern } | { readonly ok: false; readonly why: string };

const MOST_EDGES = 20_000;
const LARGEST_COORDINATE = 1e5;

const coordinate = Joi.number().min(-LARGEST_COORDINATE).max(LARGEST_COORDINATE).unsafe();
const schema = Joi.object({
  vertices_coords: Joi.array().items(Joi.array().items(coordinate).min(2).max(3)).min(3).max(MOST_EDGES).required(),
  edges_vertices: Joi.array()
    .items(Joi.array().items(Joi.number().integer().min(0)).length(2))
    .min(3)
    .max(MOST_EDGES)
    .required(),
  edges_assignment: Joi.array().items(Joi.string().max(1)).required(),
  edges_foldAngle: Joi.array().items(Joi.number().min(-360).max(360).allow(null)),
}).unknown(true);

export function readFold(text: string): ReadPattern {
  const no = (why: string): ReadPattern => ({ ok: false, why });
  const json = readJson(text, 'a FOLD file');
  if (!json.ok) return json;
  const checked = schema.validate(json.value, { convert: false, errors: { wrap: { label: false } } });
  if (checked.error) return no(`not a flat crease pattern: ${checked.error.message.slice(0, 200)}`);
  const file = checked.value as {
    vertices_coords: number[][];
    edges_vertices: [number, number][];
    edges_assignment: string[];
    edges_foldAngle?: (number | null)[];
  };
  const { vertices_coords: coords, edges_vertices: ends, edges_assignment: assigned, edges_foldAngle: angles } = file;
  const raised = coords.findIndex((c) => Math.abs(c[2] ?? 0) > WELD_MM);
  if (raised >= 0)
    return no(
      `not a flat crease pattern: vertices_coords[${raised}] has height ${coords[raised][2]}; give the unfolded sheet`,
    );
  if (assigned.length !== ends.length)
    return no(`edges_assignment has ${assigned.length} entries for ${ends.length} edges; it needs one for each`);
  if (angles && angles.length !== ends.length)
    return no(`edges_foldAngle has ${angles.length} entries for ${ends.length} edges; it needs one for each`);
  const vertices = coords.map(([x, y]): Vec2 => [x, y]);
  const edges: CreasePattern['edges'][number][] = [];
  for (const [i, [from, to]] of ends.entries()) {
    if (from >= vertices.length || to >= vertices.length)
      return no(`edges_vertices[${i}] names vertex ${Math.max(from, to)}, but there are ${vertices.length}`);
    if (from === to || dist2(vertices[from], vertices[to]) <= WELD_MM) return no(`edge ${i} has no length`);
    const assignment = assigned[i];
    if (assignment === 'U') return no(`edge ${i} is unassigned (U); assign M, V or F to fold it`);
    // J, a join, is paper that goes on: flat, like F.
    if (!'MVFBCJ'.includes(assignment) || assignment === '')
      return no(`edges_assignment[${i}] is "${assignment}"; it must be M, V, F, B, C or J`);
    const angle = angles?.[i] ?? undefined;
    if (angle !== undefined && ((assignment === 'M' && angle > 0) || (assignment === 'V' && angle < 0)))
      return no(
        `edges_foldAngle[${i}] is ${angle}, but the edge is assigned ${assignment}; valley angles are positive`,
      );
    edges.push({
      from,
      to,
      assignment: (assignment === 'J' ? 'F' : assignment) as Assignment,
      ...(angle === undefined ? {} : { foldDeg: angle }),
    });
  }
  return { ok: true, pattern: { vertices, edges } };
}
