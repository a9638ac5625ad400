'use client';
import { Box } from '@chakra-ui/react';
import { useEffect } from 'react';
import { useActions, useStudio, useStudioStore } from '@/store/context';
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
import { BuildList } from './BuildList';
import { Header } from './Header';
import { ShortcutSheet } from './ShortcutSheet';
import { TravelStrip } from './TravelStrip';
import { useKeys } from './useKeys';

const WITH_TRAVEL = new Set(['build', 'dress', 'prove']);

/** The workbench: build list on the left in every stage, the stage in the middle, the travel along the bottom. */
export function Studio() {
  const stage = useStudio((s) => s.stage);
  const trouble = useStudio((s) => s.trouble);
  const playing = useStudio((s) => s.playing);
  const name = useStudio((s) => s.design.name);
  const store = useStudioStore();
  const { scrub, play } = useActions();
  const [keysShown, setKeysShown] = useKeys();

  useEffect(() => {
    document.title = `${name} · Rhabdoplex`;
  }, [name]);
  useEffect(() => {
    // What was typed a moment ago is stored before the page goes.
    const leave = (): void => {
      if (store.getState().saving !== 'saved') void store.save();
    };
    window.addEventListener('pagehide', leave);
    return () => window.removeEventListener('pagehide', leave);
  }, [store]);
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
        <BuildList />
        <Box as="main" minWidth="0" minHeight="0" bg="sheet" position="relative" aria-label={`${stage} stage`}>
          {trouble && (
            <Box
              role="alert"
              position="absolute"
              top="0"
              left="0"
              right="0"
              zIndex="5"
              bg="var(--bad-wash)"
              borderLeft="4px solid var(--bad)"
              px="12px"
              py="8px"
            >
              {trouble} The last change can be undone; nothing was lost.
            </Box>
          )}
          {stage === 'brief' && <BriefStage />}
          {stage === 'build' && <BuildStage />}
          {stage === 'dress' && <DressStage />}
          {stage === 'prove' && <ProveStage />}
          {stage === 'sheets' && <SheetsStage />}
          {stage === 'make' && <MakeStage />}
        </Box>
      </Box>
      {WITH_TRAVEL.has(stage) && <TravelStrip />}
      <AddDialog />
      <BringDialog />
      <Workshop />
      <TemplateDialog />
      <ShortcutSheet shown={keysShown} onClose={() => setKeysShown(false)} />
    </Box>
  );
}
