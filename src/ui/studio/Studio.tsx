'use client';
import { Box } from '@chakra-ui/react';
import { useEffect, type ComponentType } from 'react';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import type { Stage } from '@/store/studio';
import { AddDialog } from '../build/AddDialog';
import { BuildStage } from '../build/BuildStage';
import { BriefStage } from '../brief/BriefStage';
import { DressStage } from '../dress/DressStage';
import { MakeStage } from '../make/MakeStage';
import { ProveStage } from '../prove/ProveStage';
import { SheetsStage } from '../sheets/SheetsStage';
import { BringDialog } from '../shapes/BringDialog';
import { Workshop } from '../shapes/Workshop';
import { TemplateDialog } from '../template/TemplateDialog';
import { Guard } from '../common/Guard';
import { Bands } from './Bands';
import { BuildList } from './BuildList';
import { Header } from './Header';
import { ShortcutSheet } from './ShortcutSheet';
import { TravelStrip } from './TravelStrip';
import { useLeaving } from './useLeaving';
import { useKeys } from './useKeys';

const WITH_TRAVEL = new Set<Stage>(['build', 'dress', 'prove']);
const STAGE_PARTS: Readonly<Record<Stage, ComponentType>> = {
  brief: BriefStage,
  build: BuildStage,
  dress: DressStage,
  prove: ProveStage,
  sheets: SheetsStage,
  make: MakeStage,
};
const DIALOGS: readonly (readonly [part: string, dialog: ComponentType])[] = [
  ['add sheet', AddDialog],
  ['sheet for bringing in', BringDialog],
  ['workshop', Workshop],
  ['template sheet', TemplateDialog],
];

/** The workbench: build list on the left in every stage, the stage in the middle, the travel along the bottom. */
export function Studio() {
  const stage = useStudio((s) => s.stage);
  const Shown = STAGE_PARTS[stage];
  const playing = useStudio((s) => s.playing);
  const name = useStudio((s) => s.design.name);
  const store = useStudioStore();
  const { scrub, play } = useActions();
  const [keysShown, setKeysShown] = useKeys();

  useEffect(() => {
    document.title = `${name} · Rhabdoplex`;
  }, [name]);
  useLeaving(store);
  useEffect(() => {
    if (!playing) return;
    let direction = store.getState().openDeg >= 179.9 ? -1 : 1;
    let last = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      const next = store.getState().openDeg + direction * (now - last) * 0.06;
      last = now;
      if (next >= 180 || next <= 0) direction = -direction;
      scrub(next);
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, scrub, store]);
  useEffect(() => () => play(false), [play]);

  return (
    <Box
      height="100vh"
      minWidth="1000px"
      display="grid"
      gridTemplateRows={`54px minmax(0, 1fr) ${WITH_TRAVEL.has(stage) ? '170px' : '0px'}`}
      overflow="hidden"
    >
      <Header onKeys={() => setKeysShown(true)} />
      <Box display="grid" gridTemplateColumns="228px minmax(0, 1fr)" minHeight="0">
        <Guard part="build list">
          <BuildList />
        </Guard>
        <Box as="main" minWidth="0" minHeight="0" bg="sheet" position="relative" aria-label={`${stage} stage`}>
          <Bands />
          <Guard key={stage} part={`${stage} stage`}>
            <Shown />
          </Guard>
        </Box>
      </Box>
      {WITH_TRAVEL.has(stage) && (
        <Guard part="travel strip">
          <TravelStrip />
        </Guard>
      )}
      {DIALOGS.map(([part, Dialog]) => (
        <Guard key={part} part={part}>
          <Dialog />
        </Guard>
      ))}
      <ShortcutSheet shown={keysShown} onClose={() => setKeysShown(false)} />
    </Box>
  );
}
