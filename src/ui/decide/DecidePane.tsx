'use client';
import { Box } from '@chakra-ui/react';
import { Panes } from '../common/Panes';
import { WhatIf } from '../prove/WhatIf';
import { MapPane } from './MapPane';
import { ScatterPane } from './ScatterPane';
import { SearchPane } from './SearchPane';
import { VariantsPane } from './VariantsPane';
import { WearPane } from './WearPane';

const PANES = [
  {
    id: 'what-if',
    name: 'What if',
    pane: (
      <Box height="max(230px, calc(46vh - 130px))" display="grid">
        <WhatIf />
      </Box>
    ),
  },
  { id: 'variants', name: 'Variants', pane: <VariantsPane /> },
  { id: 'search', name: 'Search', pane: <SearchPane /> },
  { id: 'map', name: 'Two numbers', pane: <MapPane /> },
  { id: 'scatter', name: 'Scatter', pane: <ScatterPane /> },
  { id: 'wear', name: 'Wear', pane: <WearPane /> },
] as const;

export type Deciding = (typeof PANES)[number]['id'];

/** Where one weighs: taller or safer, wider or truer, and how forgiving it is. */
export function DecidePane({ shown, onShow }: { readonly shown: Deciding; readonly onShow: (id: Deciding) => void }) {
  return (
    <Box as="section" aria-label="Deciding" overflowY="auto" minHeight="0" minWidth="0">
      <Panes label="Deciding" shown={shown} panes={PANES} onShow={onShow} sticky />
    </Box>
  );
}
