'use client';
import { Box, chakra } from '@chakra-ui/react';
import { IconFlipVertical } from '@tabler/icons-react';
import { useMemo, useRef, useState } from 'react';
import { otherSide, type OwnRole } from '@/core/kinds';
import { useActions, useStudio } from '@/store/context';
import { shown } from '@/store/studio-state';
import type { Scene } from '@/workers/protocol';
import { Action } from '../common/Action';
import { Hint } from '../common/Hint';
import { useFull } from '../views/ViewPair';
import { LayerGlue } from '../dress/LayerGlue';
import { Corner, ViewTools } from '../views/ViewTools';
import { useTrueSize } from '../views/true-size';
import { useViewport } from '../views/useViewport';
import { FlatCarry } from './FlatCarry';
import { FlatDefs } from './FlatDefs';
import { FlatDimensions } from './FlatDimensions';
import { DRAWN, FlatDraw } from './FlatDraw';
import { FlatGlue } from './FlatGlue';
import { FlatGrips } from './FlatGrips';
import { CreaseLights, FacetLights } from './FlatLights';
import { FlatMeasure } from './FlatMeasure';
import { FlatSweeps, useSweeps } from './FlatSweeps';
import { MeasureNote, MeasureSwitch } from './MeasureNote';
import { useMeasuring } from './measure-store';
import { FlatOwnEnds } from './FlatOwnEnds';
import { FlatRulers } from './FlatRulers';
import { FlatFacets, FlatGrabs, FlatLines } from './FlatSheet';
import { partShown, placedTop, placePieces } from './placed-pieces';
import { OWN_ROLE_WORDS } from './own-words';
import { StrutHandles } from './StrutHandles';
import { useGrips } from './useGrips';

/** What the pointer does on the drawing: takes hold of things, measures between them, or draws lines. */
export type FlatMode = 'hold' | 'measure' | 'draw';

/** `onFacet`: what a click on a facet does, where that is not selecting its mechanism. */
export function FlatView({ onFacet }: { onFacet?: (facet: string) => void }) {
  const scene = useStudio((s) => s.scene);
  return (
    <Box
      as="section"
      aria-label="Flat"
      position="relative"
      minWidth="0"
      minHeight="0"
      overflow="hidden"
      display="flex"
      flexDirection="column"
    >
      {scene && <Drawing scene={scene} onFacet={onFacet} />}
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

/** What the next line is for. */
function Roles({ role, onPick }: { readonly role: OwnRole; readonly onPick: (role: OwnRole) => void }) {
  return (
    <Box role="group" aria-label="What the line is for" display="flex" flexWrap="wrap" gap="3px" p="6px 12px 0 14px">
      {DRAWN.map((r) => (
        <Action
          key={r}
          small
          on={role === r}
          aria-pressed={role === r}
          title={OWN_ROLE_WORDS[r].says}
          onClick={() => onPick(r)}
        >
          {OWN_ROLE_WORDS[r].name}
        </Action>
      ))}
    </Box>
  );
}

/** Room about the drawing, mm. */
const ROUND_MM = 4;

function Drawing({ scene, onFacet }: { scene: Scene; onFacet?: (facet: string) => void }) {
  const { light } = useActions();
  const { placed, width, height } = useMemo(() => placePieces(scene.pieces), [scene]);
  const side = useStudio((s) => s.sideUp);
  const selected = useStudio((s) => s.selected);
  const [draws, setDraws] = useState(false);
  const { on: measures, toggle: measure, point } = useMeasuring();
  const mode: FlatMode = measures ? 'measure' : draws ? 'draw' : 'hold';
  const [role, setRole] = useState<OwnRole>('valley');
  const svg = useRef<SVGSVGElement>(null);
  const all = { x: -ROUND_MM, y: -ROUND_MM, w: width + 2 * ROUND_MM, h: height + 2 * ROUND_MM };
  const viewport = useViewport(svg, all);
  const { grips, own, dimensions, late } = useGrips();
  const sweeps = useSweeps();
  const behind = useStudio((s) => s.scene?.design !== shown(s));
  const { full, toggle } = useFull();
  const trueSize = useTrueSize();
  const top = placedTop(placed, height);
  const turned = side === 'outside';
  const chosen = useMemo(
    () => partShown(placed, top, scene, selected, turned ? width : null),
    [placed, top, scene, selected, turned, width],
  );
  const holds = mode === 'hold';
  return (
    <>
      <Box display="flex" flexWrap="wrap" alignItems="center" gap="4px 10px" p="8px 12px 0 14px">
        <chakra.h2 className="heading">Flat</chakra.h2>
        <SideUp />
        <Box role="group" aria-label="On the drawing" display="flex" gap="4px">
          <MeasureSwitch />
          <Action
            small
            on={mode === 'draw'}
            aria-pressed={mode === 'draw'}
            onClick={() => {
              setDraws(mode !== 'draw');
              measure(false);
            }}
          >
            Draw lines
          </Action>
        </Box>
      </Box>
      {mode === 'draw' && <Roles role={role} onPick={setRole} />}
      <Box flex="1" minHeight="0" position="relative" margin="6px 0 0">
        <FlatRulers svg={svg} view={viewport.view} mirrored={turned ? width : null} bottom={top}>
          {(scale) => (
            <svg
              ref={svg}
              role="group"
              tabIndex={0}
              aria-label="Flat pattern: plus and minus zoom, arrow keys move it, 0 fits all"
              className="flat-drawing"
              data-mode={mode}
              aria-busy={late || behind}
              viewBox={viewport.viewBox}
              preserveAspectRatio="xMidYMid meet"
              onPointerLeave={() => {
                light([]);
                if (measures) point(null);
              }}
              {...viewport.handlers}
            >
              <FlatDefs />
              {/* Turned over, everything is its own mirror image. */}
              <g data-side={side} transform={turned ? `translate(${width} 0) scale(-1 1)` : undefined}>
                {placed.map(({ piece, dx, dy }) => (
                  <g key={piece.id} transform={`translate(${dx} ${top - dy}) scale(1 -1)`} data-piece={piece.id}>
                    <FlatFacets scene={scene} piece={piece} side={side} onFacet={onFacet} />
                    <FacetLights scene={scene} piece={piece.id} />
                    <FlatLines scene={scene} piece={piece} side={side} />
                    <FlatSweeps sweeps={sweeps} piece={piece.id} />
                    <CreaseLights scene={scene} piece={piece.id} />
                    {holds && !onFacet && <FlatCarry scene={scene} piece={piece.id} />}
                    {holds && <FlatGrabs scene={scene} piece={piece.id} />}
                    {holds && <FlatGrips grips={grips} piece={piece.id} scale={scale} turned={turned} />}
                    {holds && !onFacet && <FlatGlue scene={scene} piece={piece.id} />}
                    {holds && onFacet && <LayerGlue scene={scene} piece={piece.id} />}
                    {holds && <StrutHandles scene={scene} piece={piece.id} />}
                    {holds && <FlatOwnEnds scene={scene} piece={piece.id} own={own} />}
                    <FlatDimensions dimensions={dimensions} piece={piece.id} scale={scale} turned={turned} />
                    {mode === 'measure' && <FlatMeasure scene={scene} piece={piece.id} />}
                    {mode === 'draw' && <FlatDraw scene={scene} piece={piece.id} role={role} own={own} />}
                  </g>
                ))}
              </g>
            </svg>
          )}
        </FlatRulers>
        {holds && <Hint over />}
        {measures && <MeasureNote scene={scene} view="flat" />}
        <Corner>
          <ViewTools
            of="Flat"
            zoomBy={viewport.zoomBy}
            fit={viewport.fit}
            fitSelection={chosen ? () => viewport.fitTo(chosen) : undefined}
            trueSize={() => trueSize((pxPerMm) => viewport.toScale(pxPerMm))}
            full={full === 'flat'}
            onFull={() => toggle('flat')}
          />
        </Corner>
      </Box>
    </>
  );
}
