'use client';
import { temporal } from 'zundo';
import { useState } from 'react';
import { createStore, useStore } from 'zustand';
import type { Template } from '@/core/document/template';

/** So many are kept. */
const MOST_STEPS = 100;

const stepsFrom = (template: Template | null) =>
  createStore<{ template: Template | null }>()(
    temporal(() => ({ template }), { limit: MOST_STEPS, equality: (a, b) => a.template === b.template }),
  );

/** What is said of a template in a dialog that keeps nothing until it is left; each step can be taken back. */
export function useTemplateSteps(first: Template | null) {
  const [steps, setSteps] = useState(() => stepsFrom(first));
  return {
    template: useStore(steps, (s) => s.template),
    mayUndo: useStore(steps.temporal, (s) => s.pastStates.length > 0),
    mayRedo: useStore(steps.temporal, (s) => s.futureStates.length > 0),
    undo: () => steps.temporal.getState().undo(),
    redo: () => steps.temporal.getState().redo(),
    change: (f: (t: Template) => Template) => steps.setState(({ template: t }) => ({ template: t && f(t) })),
    begin: (t: Template) => setSteps(stepsFrom(t)),
  };
}
