/** The stages of the workbench; each is loaded when it is first gone to, or once nothing else is to be done. */
import dynamic from 'next/dynamic';
import type { ComponentType } from 'react';
import type { Stage } from '@/store/studio';

const LOAD = {
  brief: () => import('../brief/BriefStage').then((m) => m.BriefStage),
  build: () => import('../build/BuildStage').then((m) => m.BuildStage),
  dress: () => import('../dress/DressStage').then((m) => m.DressStage),
  prove: () => import('../prove/ProveStage').then((m) => m.ProveStage),
  sheets: () => import('../sheets/SheetsStage').then((m) => m.SheetsStage),
  make: () => import('../make/MakeStage').then((m) => m.MakeStage),
} satisfies Readonly<Record<Stage, () => Promise<ComponentType>>>;

export const STAGE_PARTS: Readonly<Record<Stage, ComponentType>> = {
  brief: dynamic(LOAD.brief, { ssr: false }),
  build: dynamic(LOAD.build, { ssr: false }),
  dress: dynamic(LOAD.dress, { ssr: false }),
  prove: dynamic(LOAD.prove, { ssr: false }),
  sheets: dynamic(LOAD.sheets, { ssr: false }),
  make: dynamic(LOAD.make, { ssr: false }),
};

/** Loads every stage, so that going to one waits for nothing, and works where the server is gone by then. */
export const loadStages = (): Promise<unknown> => Promise.allSettled(Object.values(LOAD).map((load) => load()));
/** Loads one stage; begun before it is shown. */
export const loadStage = (stage: Stage): Promise<unknown> => LOAD[stage]();
