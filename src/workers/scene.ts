/** What the flat and the posed view draw of a design, as plain data that crosses to the interface. */
import type { Assembly } from '@/core/assembly/assembly';
import { stockOf, type Design } from '@/core/document/design';
import { ringsOf } from '@/core/plane/polygon';
import type { Derived, SceneFacet } from './protocol';

/**
 * A facet glued on another lies a caliper above it; glued from behind, below it, which is up in its own turned frame.
 */
function liftOf(design: Design, assembly: Assembly, facet: Assembly['facets'][number]): number {
  const bond = assembly.bonds.find((b) => b.b.piece === facet.piece && b.b.facet === facet.id);
  if (!bond) return 0;
  const caliper = (piece: string): number =>
    stockOf(design, assembly.pieces.find((p) => p.id === piece)!.stock).caliperMm;
  return bond.b.piece === 'card'
    ? -caliper(bond.a.piece)
    : caliper(facet.piece) + (bond.placement[10] < 0 ? caliper(bond.a.piece) : 0);
}

export function sceneOf(design: Design, assembly: Assembly): Derived {
  return {
    pieces: assembly.pieces.map(({ id, title, mechanism, stock, outline, islands }) => ({
      id,
      title,
      mechanism,
      stock,
      rings: [outline, ...(islands ?? [])].flatMap(ringsOf),
    })),
    facets: assembly.facets.map((f, i) => {
      const dressing = design.dressing.find((d) => d.facet === f.id);
      return {
        id: f.id,
        piece: f.piece,
        mechanism: f.mechanism,
        rings: ringsOf(f.polygon),
        liftMm: liftOf(design, assembly, f),
        ...(dressing?.colour ? { colour: dressing.colour } : {}),
        mats: matsOf(design, assembly, i),
      };
    }),
    creases: [
      ...assembly.creases.map(({ id, role, mechanism, piece, segments }) => ({ id, role, mechanism, piece, segments })),
      ...assembly.pieces
        .filter((p) => p.apart)
        .flatMap((p) =>
          p.creases.map((c) => ({ id: c.id, role: c.role, mechanism: c.mechanism, piece: p.id, segments: [c] })),
        ),
    ],
    cuts: assembly.pieces.flatMap((p) =>
      p.lines.map(({ a, b, mechanism, role }) => ({ piece: p.id, mechanism, a, b, mark: role === 'mark' })),
    ),
    glue: assembly.pieces.flatMap((p) =>
      p.glue.map((g) => ({ id: g.id, mechanism: g.mechanism, piece: p.id, outline: g.outline })),
    ),
    hosts: [...assembly.hosts.values()].map(({ crease, frame, lengthMm, reachA, reachB }) => ({
      crease,
      x: frame.origin[0],
      lengthMm,
      reachA,
      reachB,
    })),
  };
}

/** What is stuck on a facet, each on all that was stuck there before. */
function matsOf(design: Design, assembly: Assembly, facet: number): SceneFacet['mats'] {
  let liftMm = 0;
  return assembly.layers
    .filter((l) => l.facet === facet)
    .map((l) => {
      const { caliperMm, insideColour } = stockOf(design, l.stock);
      liftMm += l.foamMm + caliperMm;
      return {
        id: l.id,
        rings: l.region.flatMap(ringsOf),
        foam: l.foam.flatMap(ringsOf),
        colour: l.colour ?? insideColour,
        caliperMm,
        liftMm,
      };
    });
}
