/** A flat piece as a crease pattern in the open FOLD format (1.2). Coordinates in mm. */
import type { Assembly } from '../assembly/assembly';
import { creaseStretches } from '../pattern/facets';
import { WRITTEN_BY } from '../version';
import type { Piece } from '../pattern/pattern';
import { arrange, type Segment } from '../plane/arrangement';
import { contains, insidePoint, ringsOf } from '../plane/polygon';

export function toFold(assembly: Assembly, piece: Piece, title: string): string {
  const segments: (Segment & { assignment: 'B' | 'C' | 'M' | 'V' })[] = [];
  for (const c of piece.creases)
    for (const s of creaseStretches(c, assembly.interruptions))
      segments.push({ ...s, assignment: c.role === 'valley' ? 'V' : 'M' });
  for (const l of piece.lines) if (l.role === 'cut') segments.push({ a: l.a, b: l.b, assignment: 'C' });
  for (const ring of ringsOf(piece.outline))
    ring.forEach((a, i) => segments.push({ a, b: ring[(i + 1) % ring.length], assignment: 'B' }));
  const { vertices, edges, faces } = arrange(segments);
  const paper = faces.map((f) => contains(piece.outline, insidePoint(f)));
  const isPaper = (f: number): boolean => f >= 0 && paper[f];
  const kept = edges.filter((e) => isPaper(e.left) || isPaper(e.right));
  const assignments = kept.map((e) => {
    const roles = e.sources.map((s) => segments[s].assignment);
    return roles.includes('B') ? 'B' : roles.includes('C') ? 'C' : roles[0];
  });
  const angles = assignments.map((a) => (a === 'V' ? 180 : a === 'M' ? -180 : 0));
  const index = new Map(vertices.map((v, i) => [v, i]));
  return (
    JSON.stringify(
      {
        file_spec: 1.2,
        file_creator: WRITTEN_BY,
        file_title: title,
        file_classes: ['singleModel'],
        frame_title: piece.title,
        frame_classes: ['creasePattern'],
        frame_attributes: ['2D'],
        frame_unit: 'mm',
        vertices_coords: vertices,
        edges_vertices: kept.map((e) => [e.from, e.to]),
        edges_assignment: assignments,
        edges_foldAngle: angles,
        faces_vertices: faces.filter((_, f) => paper[f]).map((f) => f.outer.map((v) => index.get(v)!)),
      },
      null,
      1,
    ) + '\n'
  );
}
