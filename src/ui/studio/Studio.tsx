'use client';
import { Box, VisuallyHidden } from '@chakra-ui/react';
import { useEffect, type ComponentType } from 'react';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import { carriedDrive, type Stage } from '@/store/studio';
import { leaveCard } from '@/workers/client';
import { AddDialog } from '../build/AddDialog';
import { BringDialog } from '../shapes/BringDialog';
import { Workshop } from '../shapes/Workshop';
import { ShowSheet } from '../posed/ShowSheet';
import { ScreenSheet } from '../views/ScreenSheet';
import { TemplateDialog } from '../template/TemplateDialog';
import { Guard } from '../common/Guard';
import { Bands } from './Bands';
import { BuildList } from './BuildList';
import { Header, STAGE_NAMES } from './Header';
import { Spoken } from './Spoken';
import { loadStages, STAGE_PARTS } from './stages';
import { ShortcutSheet } from './ShortcutSheet';
import { TravelStrip } from './TravelStrip';
import { useLeaving } from './useLeaving';
import { useKeys } from './useKeys';

const WITH_TRAVEL = new Set<Stage>(['build', 'dress', 'prove']);
const DIALOGS: readonly (readonly [part: string, dialog: ComponentType])[] = [
  ['add sheet', AddDialog],
  ['sheet for bringing in', BringDialog],
  ['workshop', Workshop],
  ['template sheet', TemplateDialog],
  ['screen sheet', ScreenSheet],
  ['sheet of pictures', ShowSheet],
];

/** A whole travel takes this long to play, ms. */
const PLAY_MS = 3000;

/** The workbench: build list on the left in every stage, the stage in the middle, the travel along the bottom. */
export function Studio() {
  const stage = useStudio((s) => s.stage);
  const Shown = STAGE_PARTS[stage];
  const playing = useStudio((s) => s.playing);
  const name = useStudio((s) => s.design.name);
  const store = useStudioStore();
  const { move, play } = useActions();
  const [keysShown, setKeysShown] = useKeys();

  useEffect(() => {
    document.title = `${name} · Rhabdoplex`;
  }, [name]);
  useLeaving(store);
  useEffect(() => leaveCard, []);
  useEffect(() => {
    if (!('requestIdleCallback' in window)) return void loadStages();
    const idle = requestIdleCallback(() => void loadStages());
    return () => cancelIdleCallback(idle);
  }, []);
  useEffect(() => {
    if (!playing) return;
    const value = (): number => store.getState().state[carriedDrive(store.getState()).id];
    let direction = value() >= carriedDrive(store.getState()).to - 0.1 ? -1 : 1;
    let last = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      const { id, from, to, round } = carriedDrive(store.getState());
      const next = value() + (direction * (now - last) * (to - from)) / PLAY_MS;
      last = now;
      // What goes on round goes on round; all else there and back.
      if (!round && (next >= to || next <= from)) direction = -direction;
      move(id, next);
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, move, store]);
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
        <Box
          as="main"
          minWidth="0"
          minHeight="0"
          bg="sheet"
          display="grid"
          gridTemplateRows="auto minmax(0, 1fr)"
          gridTemplateColumns="minmax(0, 1fr)"
          aria-label={`${stage} stage`}
        >
          <VisuallyHidden asChild>
            <h1>
              {name}, {STAGE_NAMES[stage]}
            </h1>
          </VisuallyHidden>
          <Bands />
          <Box position="relative" minHeight="0" minWidth="0">
            <Guard key={stage} part={`${stage} stage`}>
              <Shown />
            </Guard>
          </Box>
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
      <Spoken />
      <ShortcutSheet shown={keysShown} onClose={() => setKeysShown(false)} />
    </Box>
  );
}
