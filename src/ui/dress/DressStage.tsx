'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState, type KeyboardEvent } from 'react';
import { moveLayers } from '@/core/project/placing';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Field';
import { FlatView } from '../build/FlatView';
import { PosedView } from '../build/PosedView';
import { FindingCard } from '../prove/FindingCard';
import { ShapeThumb } from '../shapes/ShapePicture';
import { FacetPanel } from './FacetPanel';
import { LayersPanel } from './LayersPanel';

/** Arrow keys move the picked layers by this, with Shift by a fifth of it (mm). */
const STEP_MM = 1;

/** Shapes, layers and mats on the facets: click a facet, bring a shape in, drag it to its place. */
export function DressStage() {
  const { selectFacet, edit } = useActions();
  const picked = useStudio((s) => s.layers);
  const keys = (e: KeyboardEvent): void => {
    const move = ({ ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] } as Record<string, [number, number]>)[e.key];
    const target = e.target as HTMLElement;
    if (!move || picked.length === 0 || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return;
    e.preventDefault();
    e.stopPropagation();
    const k = e.shiftKey ? STEP_MM / 5 : STEP_MM;
    edit(`move ${picked.length === 1 ? picked[0] : `${picked.length} layers`}`, (d) => moveLayers(d, picked, move[0] * k, move[1] * k));
  };
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr) minmax(0, 0.85fr) 318px" height="100%" minHeight="0" onKeyDown={keys} tabIndex={-1}>
      <FlatView onFacet={selectFacet} />
      <PosedView />
      <DressPanel />
    </Box>
  );
}

function DressPanel() {
  const [tab, setTab] = useState<'shapes' | 'facet' | 'layers'>('shapes');
  const findings = useStudio((s) => s.proof?.findings)?.filter((f) => f.rule === 'foam' || (f.rule === 'loose-part' && f.mechanism === 'card'));
  return (
    <Box as="section" aria-label="Dressing" bg="panel" overflowY="auto" minHeight="0" display="flex" flexDirection="column">
      <Box role="tablist" aria-label="Dressing" display="flex" borderBottom="1px solid var(--rule)" position="sticky" top="0" bg="panel" zIndex="1" px="8px" pt="6px">
        {([['shapes', 'Shapes'], ['layers', 'Layers'], ['facet', 'Facet and mats']] as const).map(([id, name]) => (
          <chakra.button key={id} type="button" role="tab" aria-selected={tab === id} onClick={() => setTab(id)} px="9px" py="6px" cursor="pointer" fontWeight={tab === id ? 700 : 400} borderBottom={tab === id ? '3px solid var(--accent)' : '3px solid transparent'}>{name}</chakra.button>
        ))}
      </Box>
      <Box p="12px 14px" flex="1">
        {tab === 'shapes' && <ShelfPanel />}
        {tab === 'layers' && <LayersPanel />}
        {tab === 'facet' && <FacetPanel />}
        {findings?.map((f) => <FindingCard key={`${f.rule}${f.aspect}`} finding={f} />)}
      </Box>
    </Box>
  );
}

/** The card's shapes; one click opens one at work. */
function ShelfPanel() {
  const shapes = useStudio((s) => s.design.shapes);
  const { show } = useActions();
  return (
    <>
      <Box display="flex" gap="6px" flexWrap="wrap" mb="12px">
        <Action strong small onClick={() => show({ kind: 'bring' })}>Bring in a shape…</Action>
        <Action small onClick={() => show({ kind: 'template' })}>Whole template…</Action>
      </Box>
      {shapes.length === 0 && <chakra.p className="dim">No shapes yet. Bring one in: from the Quillmoor set, by exact sizes, lettered, from an SVG drawing, or traced from a picture.</chakra.p>}
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="8px">
        {shapes.map((s) => (
          <chakra.button key={s.id} type="button" data-asset={s.id} onClick={() => show({ kind: 'workshop', asset: s.id })} bg="sheet" border="1px solid var(--rule)" borderRadius="card" p="7px" cursor="pointer" textAlign="left" _hover={{ borderColor: 'accent' }}>
            <ShapeThumb shape={{ asset: s.id }} height={62} label={s.name} />
            <Box fontSize="13px" fontWeight="600" mt="3px">{s.name}</Box>
            <Box className="dim" fontSize="12px">{s.steps.length === 0 ? 'as it came' : `${s.steps.length} ${s.steps.length === 1 ? 'step' : 'steps'}`}</Box>
          </chakra.button>
        ))}
      </Box>
    </>
  );
}
