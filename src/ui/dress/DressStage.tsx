'use client';
import { CARD } from '@/core/ids';
import { Box, chakra } from '@chakra-ui/react';
import { useState, type KeyboardEvent } from 'react';
import { moveLayers } from '@/core/build/placing';
import { useActions, useStudio } from '@/store/context';
import { TILE } from '../common/tile';
import { Panes } from '../common/Panes';
import { Action } from '../common/Action';
import { FlatView } from '../build/FlatView';
import { PosedView } from '../posed/PosedView';
import { ViewPair } from '../views/ViewPair';
import { FindingCard } from '../prove/FindingCard';
import { ShapeThumb } from '../shapes/ShapePicture';
import { FacetPanel } from './FacetPanel';
import { LayersPanel } from './LayersPanel';
import { PrintPanel } from './PrintPanel';

/** Arrow keys move the picked layers by this, with Shift by a fifth of it (mm). */
const STEP_MM = 1;

/** Shapes, layers and mats on the facets: click a facet, bring a shape in, drag it to its place. */
export function DressStage() {
  const { selectFacet, edit } = useActions();
  const picked = useStudio((s) => s.layers);
  const sideUp = useStudio((s) => s.sideUp);
  const keys = (e: KeyboardEvent): void => {
    const move = (
      { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] } as Record<
        string,
        [number, number]
      >
    )[e.key];
    const target = e.target as HTMLElement;
    if (!move || picked.length === 0 || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return;
    e.preventDefault();
    e.stopPropagation();
    const k = e.shiftKey ? STEP_MM / 5 : STEP_MM;
    edit(`move ${picked.length === 1 ? picked[0] : `${picked.length} layers`}`, (d) =>
      moveLayers(d, picked, (sideUp === 'inside' ? move[0] : -move[0]) * k, move[1] * k),
    );
  };
  return (
    <Box
      display="grid"
      gridTemplateColumns="minmax(0, 1fr) 318px"
      gridTemplateRows="minmax(0, 1fr)"
      height="100%"
      minHeight="0"
      onKeyDown={keys}
      tabIndex={-1}
    >
      <ViewPair flat={<FlatView onFacet={selectFacet} />} posed={<PosedView />} />
      <DressPanel />
    </Box>
  );
}

function DressPanel() {
  const [tab, setTab] = useState<'shapes' | 'facet' | 'layers' | 'print'>('shapes');
  const findings = useStudio((s) => s.proof?.findings)?.filter(
    (f) => f.rule === 'foam' || (f.rule === 'loose-part' && f.mechanism === CARD),
  );
  return (
    <Box
      as="section"
      aria-label="Dressing"
      bg="panel"
      overflowY="auto"
      minHeight="0"
      display="flex"
      flexDirection="column"
    >
      <Panes label="Dressing" shown={tab} panes={PANES} onShow={setTab} sticky />
      <Box p="0 14px 12px" flex="1">
        {findings?.map((f) => (
          <FindingCard key={f.id} finding={f} />
        ))}
      </Box>
    </Box>
  );
}

const PANES = [
  { id: 'shapes', name: 'Shapes', pane: <ShelfPanel /> },
  { id: 'layers', name: 'Layers', pane: <LayersPanel /> },
  { id: 'facet', name: 'Facet and mats', pane: <FacetPanel /> },
  { id: 'print', name: 'Print', pane: <PrintPanel /> },
] as const;

/** The card's shapes; one click opens one at work. */
function ShelfPanel() {
  const shapes = useStudio((s) => s.design.shapes);
  const { show } = useActions();
  return (
    <>
      <Box display="flex" gap="6px" flexWrap="wrap" mb="12px">
        <Action strong small onClick={() => show({ kind: 'bring' })}>
          Bring in a shape…
        </Action>
        <Action small onClick={() => show({ kind: 'template' })}>
          Whole template…
        </Action>
      </Box>
      {shapes.length === 0 && (
        <chakra.p className="dim">
          No shapes yet. Bring one in: from the Quillmoor set, by exact sizes, lettered, from an SVG drawing, or traced
          from a picture.
        </chakra.p>
      )}
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="8px">
        {shapes.map((s) => (
          <chakra.button
            {...TILE}
            key={s.id}
            data-asset={s.id}
            onClick={() => show({ kind: 'workshop', asset: s.id })}
            p="7px"
          >
            <ShapeThumb shape={{ asset: s.id }} height={62} label={s.name} />
            <Box fontSize="13px" fontWeight="600" mt="3px">
              {s.name}
            </Box>
            <Box className="dim" fontSize="12px">
              {s.steps.length === 0 ? 'as it came' : `${s.steps.length} ${s.steps.length === 1 ? 'step' : 'steps'}`}
            </Box>
          </chakra.button>
        ))}
      </Box>
    </>
  );
}
