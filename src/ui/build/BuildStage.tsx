'use client';
import { Box } from '@chakra-ui/react';
import { FlatView } from './FlatView';
import { ParameterPanel } from './ParameterPanel';
import { PosedView } from '../posed/PosedView';
import { ViewPair } from '../views/ViewPair';

/** Flat and posed, side by side, always the same thing; numbers on the right. */
export function BuildStage() {
  return (
    <Box
      display="grid"
      gridTemplateColumns="minmax(0, 1fr) 290px"
      gridTemplateRows="minmax(0, 1fr)"
      height="100%"
      minHeight="0"
    >
      <ViewPair flat={<FlatView />} posed={<PosedView />} />
      <ParameterPanel />
    </Box>
  );
}
