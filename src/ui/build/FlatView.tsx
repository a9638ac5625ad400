'use client';
import { Box, chakra } from '@chakra-ui/react';
import { IconFlipVertical } from '@tabler/icons-react';
import { useMemo } from 'react';
import { otherSide } from '@/core/kinds';
import { Action } from '../common/Field';
import { CreaseLights, FacetLights } from './FlatLights';
import { FlatFacets, FlatGrabs, FlatLines } from './FlatSheet';
import { StrutHandles } from './StrutHandles';
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

/** `onFacet`: what a click on a facet does, where that is not selecting its mechanism. */
export function FlatView({ onFacet }: { onFacet?: (facet: string) => void }) {
  const scene = useStudio((s) => s.scene);
  const sideUp = useStudio((s) => s.sideUp);
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
      <Box display="flex" justifyContent="space-between" alignItems="center" gap="14px" p="12px 14px 0">
        <chakra.h2 className="heading">Flat</chakra.h2>
        <SideUp />
        <chakra.span
          className="dim"
          fontSize="12.5px"
          minWidth="0"
          overflow="hidden"
          textOverflow="ellipsis"
          whiteSpace="nowrap"
        >
          {sideUp === 'inside' ? 'click a crease to stand something on it' : 'mirrored, as it lies turned over'}
        </chakra.span>
      </Box>
      <Box flex="1" minHeight="0" position="relative">
        {scene && <Drawing scene={scene} onFacet={onFacet} />}
      </Box>
    </Box>
  );
}

/** Which side of the sheet lies up; turns it over. */
function SideUp() {
  const sideUp = useStudio((s) => s.sideUp);
  const { turnUp } = useActions();
  return (
    <Action small onClick={() => turnUp(otherSide(sideUp))} aria-label={`${sideUp} up; turn the sheet over`}>
      <chakra.span display="inline-flex" alignItems="center" gap="5px" whiteSpace="nowrap">
        <IconFlipVertical size={14} aria-hidden /> {sideUp} up
      </chakra.span>
    </Action>
  );
}

function Drawing({ scene, onFacet }: { scene: Scene; onFacet?: (facet: string) => void }) {
  const { light } = useActions();
  const { placed, width, height } = useMemo(() => placePieces(scene.pieces), [scene]);
  const side = useStudio((s) => s.sideUp);
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
      {/* Turned over, everything is its own mirror image. */}
      <g data-side={side} transform={side === 'outside' ? `translate(${width} 0) scale(-1 1)` : undefined}>
        {placed.map(({ piece, dx, dy }) => (
          <g
            key={piece.id}
            transform={`translate(${dx} ${placedTop(placed, height) - dy}) scale(1 -1)`}
            data-piece={piece.id}
          >
            <FlatFacets scene={scene} piece={piece} side={side} onFacet={onFacet} />
            <FacetLights scene={scene} piece={piece.id} />
            <FlatLines scene={scene} piece={piece} side={side} />
            <CreaseLights scene={scene} piece={piece.id} />
            <FlatGrabs scene={scene} piece={piece.id} />
            <StrutHandles scene={scene} piece={piece.id} />
          </g>
        ))}
      </g>
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
