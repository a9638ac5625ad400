/** `gutter-relief`: layers folded over a crease have room; they are set back by what is stacked inside the fold. */
import { CLOSED } from '../drives';
import { onFacet } from '../assembly/pose';
import { applyRigid } from '../linkage';
import { centreOf } from '../plane/polygon';
import { distToSegment, type Vec2 } from '../plane/vec2';
import type { Assembly } from '../assembly/assembly';
import type { Bond } from '../kinds';
import type { CreaseLine } from '../pattern/pattern';
import { WELD_MM } from '../tolerance';
import { caliperOf, finding, turnsOf, type Finding, type Rule } from './rule';
import { wordsFor } from './words';
import { closedStack, stackAt } from './stack-map';

/** "A tiny fraction below the crease": common practice, no source. */
const LEAST_MM = 0.5;

export const gutterRelief: Rule = {
  id: 'gutter-relief',
  needs: 'closed',
  neverBlocks: true,
  check: (evidence) => {
    const { assembly, closed } = evidence;
    if (!closed || assembly.bonds.length === 0) return [];
    const map = closedStack(evidence)!;
    const say = wordsFor(evidence);
    const out: Finding[] = [];
    for (const m of assembly.mechanisms) {
      if (!m.host) continue;
      const crease = assembly.pieces.find((p) => p.id === m.host!.piece)!.creases.find((c) => c.id === m.host!.crease)!;
      for (const bond of assembly.bonds) {
        const i = assembly.facets.findIndex(
          (f) => f.piece === bond.b.piece && f.id === bond.b.facet && f.mechanism === m.id,
        );
        if (i < 0 || bond.a.piece !== m.host.piece) continue;
        const facet = assembly.facets[i];
        // What is made to stand out behind the fold is not inside it.
        if (assembly.pieces.some((p) => p.id === facet.piece && p.behindFold)) continue;
        // A piece that is itself creased there folds with it.
        if (foldsThere(assembly, bond, facet.piece, crease)) continue;
        const onHost = facet.polygon.outer.map(([x, y]): Vec2 => {
          const [u, v] = applyRigid(bond.placement, [x, y, 0]);
          return [u, v];
        });
        const room = Math.min(...onHost.map((p) => distToSegment(p, crease.a, crease.b)));
        const middle = onFacet(closed, i, centreOf(facet.polygon.outer));
        // A host without paper is a finding of its own.
        const side = assembly.facets.find((f) => f.id === m.host!.sideA);
        const outside = side ? 2 * caliperOf(evidence, side) : 0;
        const limit = Math.max(LEAST_MM, stackAt(map, [middle[0], middle[1]]) - outside);
        if (room >= limit) continue;
        const lies = `${say.part(facet.id)} lies ${say.mm(room)} from the crease it folds with`;
        out.push(
          finding({
            rule: 'gutter-relief',
            severity: 'risk',
            mechanism: m.id,
            piece: facet.piece,
            measured: room,
            limit,
            at: CLOSED,
            aspect: facet.id,
            subjects: [facet.id],
            levers: turnsOf(assembly, m.id, 'relief', 'away'),
            message: `${say.title(m.id)}: ${lies}; ${say.fine(limit)} of paper folds inside it there.`,
          }),
        );
      }
    }
    return out;
  },
};

/** The glued piece has a crease of its own along the host's. */
function foldsThere(assembly: Assembly, bond: Bond, piece: string, host: CreaseLine): boolean {
  return assembly.pieces
    .find((p) => p.id === piece)!
    .creases.some((c) =>
      [c.a, c.b].every(([x, y]) => {
        const [u, v] = applyRigid(bond.placement, [x, y, 0]);
        const [dx, dy] = [host.b[0] - host.a[0], host.b[1] - host.a[1]];
        return Math.abs((u - host.a[0]) * dy - (v - host.a[1]) * dx) / Math.hypot(dx, dy) < WELD_MM;
      }),
    );
}
