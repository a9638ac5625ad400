'use client';
import { memo, useMemo } from 'react';
import { makingOf } from '@/core/sheets/drawing';
import { perforationCuts } from '@/core/pattern/making';
import { stockOf, type Design } from '@/core/document/design';
import { nameOfPart } from '@/core/document/words';
import type { Segment } from '@/core/plane/arrangement';
import type { Side } from '@/core/kinds';
import type { CreaseRole } from '@/core/pattern/pattern';
import { useActions } from '@/store/context';
import { canBeDressed, type Scene, type SceneCrease, type ScenePiece } from '@/workers/protocol';
import { pale } from '../common/files';
import { FacetLayers } from '../dress/FacetLayers';
import { FlatArt } from './FlatArt';
import { ringPath } from './ring-path';

export { ringPath } from './ring-path';

const linePath = (lines: readonly Pick<Segment, 'a' | 'b'>[]): string =>
  lines.map(({ a, b }) => `M${a.join(' ')}L${b.join(' ')}`).join('');

interface PieceProps {
  readonly scene: Scene;
  readonly piece: ScenePiece;
  /** The side that lies up. */
  readonly side: Side;
}

/** The paper of a piece. What is pointed at lies over it (`FlatLights`), so that this is drawn once for a design. */
export const FlatFacets = memo(function FlatFacets({
  scene,
  piece,
  side,
  onFacet,
}: PieceProps & { readonly onFacet?: (facet: string) => void }) {
  const { light, select } = useActions();
  const { design } = scene;
  const facets = scene.facets.filter((f) => f.piece === piece.id);
  const stock = stockOf(design, piece.stock);
  return (
    <>
      {facets.map((f) => (
        <path
          key={f.id}
          className="facet"
          data-facet={f.id}
          d={ringPath(f.rings)}
          fillRule="evenodd"
          fill={pale(f.colours[side] ?? (side === 'inside' ? stock.insideColour : stock.outsideColour))}
          onPointerEnter={() => light([f.id])}
          onClick={() => (onFacet && canBeDressed(f) ? onFacet(f.id) : select(f.mechanism))}
        >
          <title>{nameOfPart(design, f.bent ?? f.id)}</title>
        </path>
      ))}
    </>
  );
});

/** Seen from the outside a valley is a mountain. */
const seenAs = (role: CreaseRole, side: Side): CreaseRole =>
  side === 'inside' ? role : role === 'valley' ? 'mountain' : 'valley';

/** How a crease is drawn: as what is cut of a perforation, or as a line of its role as seen from a side. */
function strokesOf(
  design: Design,
  crease: SceneCrease,
  s: Segment,
  side: Side,
): { readonly look: string; readonly d: string } {
  const make = makingOf(design, crease.id, crease.role);
  const cuts = make.way === 'perforate' ? perforationCuts(s, make.cutMm, make.gapMm) : [];
  return cuts.length > 0
    ? { look: 'perforated', d: linePath(cuts) }
    : { look: seenAs(crease.role, side), d: linePath([s]) };
}

/** Layers, glue, cuts and creases of a piece: all lines of one look are one path. */
export const FlatLines = memo(function FlatLines({ scene, piece, side }: PieceProps) {
  const looks = useMemo(() => {
    const out = new Map<string, string>();
    for (const crease of scene.creases)
      if (crease.piece === piece.id)
        for (const s of crease.segments) {
          const { look, d } = strokesOf(scene.design, crease, s, side);
          out.set(look, (out.get(look) ?? '') + d);
        }
    return [...out];
  }, [scene, piece, side]);
  // Creases that fold nothing, as they end in air: they are there to be drawn on.
  const idle = useMemo(() => {
    const folding = new Set(scene.creases.map((c) => c.id));
    return scene.whole.filter((c) => c.piece === piece.id && !folding.has(c.id));
  }, [scene, piece]);
  const cuts = scene.cuts.filter((c) => c.piece === piece.id);
  return (
    <>
      {scene.facets
        .filter((f) => f.piece === piece.id)
        .map((f) => (
          <FacetLayers key={f.id} facet={f} scene={scene} side={side} />
        ))}
      <FlatArt scene={scene} piece={piece.id} side={side} />
      {scene.glue
        .filter((g) => g.piece === piece.id)
        .map((g) => (
          <path key={g.id} d={ringPath([g.outline])} className="line glue" style={{ fill: 'url(#glue-hatch)' }} />
        ))}
      {piece.rings.length > 1 && (
        <path data-window="" d={ringPath(piece.rings.slice(1))} fill="url(#window-hatch)" pointerEvents="none" />
      )}
      <path className="line cut" d={ringPath(piece.rings)} />
      <path className="line cut" d={linePath(cuts.filter((c) => !c.drawn))} />
      <path className="line mark" d={linePath(cuts.filter((c) => c.drawn === side))} />
      {idle.map((c) => (
        <path key={c.id} className={`line ${seenAs(c.role, side)} idle`} d={linePath([c])} />
      ))}
      {looks.map(([look, d]) => (
        <path key={look} className={`line ${look}`} d={d} />
      ))}
    </>
  );
});

/** What takes hold of the creases that something can stand on. */
export const FlatGrabs = memo(function FlatGrabs({ scene, piece }: { scene: Scene; piece: string }) {
  const { light, add } = useActions();
  const hosts = useMemo(() => new Set(scene.hosts.map((h) => h.crease)), [scene]);
  return (
    <>
      {scene.creases
        .filter((c) => c.piece === piece && hosts.has(c.id))
        .map((c, i) => (
          <path
            key={`${c.id}${i}`}
            className="grab"
            d={linePath(c.segments)}
            data-crease={c.id}
            onPointerEnter={() => light([c.id])}
            onClick={() => add(c.id)}
          >
            <title>{`${nameOfPart(scene.design, c.id)}, ${c.role}: stand something on it`}</title>
          </path>
        ))}
    </>
  );
});
