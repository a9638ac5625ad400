'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useMemo } from 'react';
import { perforationCuts } from '@/core/pattern/making';
import { stockOf } from '@/core/document/design';
import { nameOfPart } from '@/core/document/words';
import { makingOf } from '@/core/sheets/drawing';
import { FacetLayers } from '../dress/FacetLayers';
import { StrutHandles } from './StrutHandles';
import type { Ring } from '@/core/plane/polygon';
import { pale } from '../common/files';
import { useActions, useStudio } from '@/store/context';
import type { Scene, ScenePiece } from '@/workers/protocol';

const GAP = 14;

interface Placed {
  readonly piece: ScenePiece;
  /** Shift of the piece on the drawing; y up. */
  readonly dx: number;
  readonly dy: number;
}

/** The page first, its glued pieces in columns to the right of it. */
function placePieces(pieces: readonly ScenePiece[]): { placed: Placed[]; width: number; height: number } {
  const boxes = pieces.map(({ rings }) => {
    const xs = rings[0].map((p) => p[0]);
    const ys = rings[0].map((p) => p[1]);
    return {
      x0: Math.min(...xs),
      y0: Math.min(...ys),
      w: Math.max(...xs) - Math.min(...xs),
      h: Math.max(...ys) - Math.min(...ys),
    };
  });
  const placed: Placed[] = [];
  const tall = boxes[0]?.h ?? 0;
  let [x, y, column] = [0, 0, 0];
  pieces.forEach((piece, i) => {
    const { x0, y0, w, h } = boxes[i];
    if (i > 0 && y > 0 && y + h > tall) {
      x += column + GAP;
      [y, column] = [0, 0];
    }
    // Columns hang from the top edge of the page.
    placed.push({ piece, dx: x - x0, dy: tall - y - h - y0 });
    y += h + GAP;
    column = Math.max(column, w);
    if (i === 0) {
      x += w + GAP;
      [y, column] = [0, 0];
    }
  });
  const lowest = Math.min(0, ...placed.map((p, i) => p.dy + boxes[i].y0));
  return {
    placed,
    width: Math.max(1, ...placed.map((p, i) => p.dx + boxes[i].x0 + boxes[i].w)),
    height: tall - lowest,
  };
}

const path = (rings: readonly Ring[]): string => rings.map((r) => `M${r.map((p) => p.join(' ')).join('L')}Z`).join('');

/** `onFacet`: what a click on a facet does, where that is not selecting its mechanism. */
export function FlatView({ onFacet }: { onFacet?: (facet: string) => void }) {
  const scene = useStudio((s) => s.scene);
  return (
    <Box
      as="section"
      aria-label="Flat"
      position="relative"
      minWidth="0"
      borderRight="1px solid var(--rule)"
      minHeight="0"
      overflow="hidden"
      display="flex"
      flexDirection="column"
    >
      <Box display="flex" justifyContent="space-between" gap="14px" p="12px 14px 0">
        <chakra.h2 className="heading">Flat</chakra.h2>
        <chakra.span
          className="dim"
          fontSize="12.5px"
          minWidth="0"
          overflow="hidden"
          textOverflow="ellipsis"
          whiteSpace="nowrap"
        >
          inside up · click a crease to stand something on it
        </chakra.span>
      </Box>
      <Box flex="1" minHeight="0" position="relative">
        {scene && <Drawing scene={scene} onFacet={onFacet} />}
      </Box>
    </Box>
  );
}

function Drawing({ scene, onFacet }: { scene: Scene; onFacet?: (facet: string) => void }) {
  const selected = useStudio((s) => s.selected);
  const chosen = useStudio((s) => s.facet);
  const lit = useStudio((s) => s.lit);
  const findings = useStudio((s) => s.proof?.findings);
  const { select, light, add } = useActions();
  const { placed, width, height } = useMemo(() => placePieces(scene.pieces), [scene]);
  const hosts = useMemo(() => new Set(scene.hosts.map((h) => h.crease)), [scene]);
  const bad = useMemo(
    () => new Set(findings?.filter((f) => f.severity === 'blocks').flatMap((f) => f.subjects) ?? []),
    [findings],
  );
  const { design } = scene;
  return (
    <svg
      role="group"
      aria-label="Flat pattern"
      // Out of the flow: the drawing takes the room there is and never asks for more.
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', padding: '10px 16px 14px' }}
      viewBox={`${-2} ${-2} ${width + 4} ${height + 4}`}
      preserveAspectRatio="xMidYMid meet"
      onPointerLeave={() => light([])}
    >
      <defs>
        <pattern id="glue-hatch" width="2.4" height="2.4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2.4" height="2.4" fill="none" />
          <path d="M0 0 V2.4" stroke="var(--glue)" strokeWidth="0.7" />
        </pattern>
        <pattern
          id="window-hatch"
          width="3.4"
          height="3.4"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <path d="M0 0 V3.4" stroke="var(--ink-2)" strokeWidth="0.22" />
        </pattern>
      </defs>
      {placed.map(({ piece, dx, dy }) => (
        <g
          key={piece.id}
          transform={`translate(${dx} ${placedTop(placed, height) - dy}) scale(1 -1)`}
          data-piece={piece.id}
        >
          {scene.facets
            .filter((f) => f.piece === piece.id)
            .map((f) => {
              const on = lit.includes(f.id) || chosen === f.id;
              return (
                <path
                  key={f.id}
                  className="facet"
                  data-facet={f.id}
                  d={path(f.rings)}
                  fillRule="evenodd"
                  fill={on ? 'var(--accent-wash)' : pale(f.colour ?? stockOf(design, piece.stock).insideColour)}
                  stroke={
                    bad.has(f.id)
                      ? 'var(--bad)'
                      : on || (f.mechanism === selected && selected !== 'card')
                        ? 'var(--accent)'
                        : 'none'
                  }
                  strokeWidth={1.6}
                  style={{ vectorEffect: 'non-scaling-stroke' }}
                  onPointerEnter={() => light([f.id])}
                  onClick={() => (onFacet ? onFacet(f.id) : select(f.mechanism))}
                >
                  <title>{nameOfPart(design, f.id)}</title>
                </path>
              );
            })}
          {scene.facets
            .filter((f) => f.piece === piece.id)
            .map((f) => (
              <FacetLayers key={f.id} facet={f} scene={scene} />
            ))}
          {scene.glue
            .filter((g) => g.piece === piece.id)
            .map((g) => (
              <path
                key={g.id}
                d={path([g.outline])}
                fill="url(#glue-hatch)"
                className={`line glue${lit.includes(g.id) ? ' lit' : ''}`}
                style={{ fill: 'url(#glue-hatch)' }}
              />
            ))}
          {piece.rings.length > 1 && (
            <path data-window="" d={path(piece.rings.slice(1))} fill="url(#window-hatch)" pointerEvents="none" />
          )}
          <path className="line cut" d={path(piece.rings)} />
          {(['cut', 'mark'] as const).map((role) => (
            <path
              key={role}
              className={`line ${role}`}
              d={scene.cuts
                .filter((c) => c.piece === piece.id && c.mark === (role === 'mark'))
                .map((c) => `M${c.a.join(' ')}L${c.b.join(' ')}`)
                .join('')}
            />
          ))}
          {scene.creases
            .filter((c) => c.piece === piece.id)
            .map((c, i) =>
              c.segments.map((s, k) => {
                const d = `M${s.a.join(' ')}L${s.b.join(' ')}`;
                const make = makingOf(design, c.id, c.role);
                // What is cut of a perforation, and the paper that stays between.
                const cuts =
                  make.way === 'perforate'
                    ? perforationCuts(s, make.cutMm, make.gapMm)
                        .map((q) => `M${q.a.join(' ')}L${q.b.join(' ')}`)
                        .join('') || null
                    : null;
                return (
                  <g key={`${c.id}${i}.${k}`}>
                    <path
                      className={`line ${cuts ? 'perforated' : c.role}${lit.includes(c.id) ? ' lit' : ''}`}
                      d={cuts ?? d}
                    />
                    {hosts.has(c.id) && (
                      <path
                        className="grab"
                        d={d}
                        data-crease={c.id}
                        onPointerEnter={() => light([c.id])}
                        onClick={() => add(c.id)}
                      >
                        <title>{`${nameOfPart(design, c.id)}, ${c.role}: stand something on it`}</title>
                      </path>
                    )}
                  </g>
                );
              }),
            )}
          <StrutHandles scene={scene} piece={piece.id} />
        </g>
      ))}
    </svg>
  );
}

/** Height of the page: y of the drawing is measured down from its top edge. */
const placedTop = (placed: readonly Placed[], height: number): number => {
  const first = placed[0];
  if (!first) return height;
  const ys = first.piece.rings[0].map((p) => p[1]);
  return Math.max(...ys) + first.dy;
};
