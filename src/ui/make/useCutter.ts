'use client';
/** A run of the simulated cutter: begun, followed at a pace of one's own, paused, given up. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { DEFAULT_MACHINE, type Pass } from '@/core/paper/machine';
import type { Ring } from '@/core/plane/polygon';
import type { CutReport } from '@/core/simulate/report';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { CutBegun, CutMore, CutWhat } from '@/workers/protocol';

/** How many seconds of the machine pass in one of ours. */
export const PACES = [1, 10, 60] as const;
export type Pace = (typeof PACES)[number];

export interface Cutting {
  readonly begun: CutBegun;
  /** What is cut so far, by stroke. */
  readonly cut: ReadonlyMap<number, { readonly pass: Pass; readonly points: Ring }>;
  readonly at: Pick<CutMore, 'seconds' | 'axis' | 'down' | 'done' | 'stroke'>;
  readonly report: CutReport | null;
}

export interface Cutter {
  readonly cutting: Cutting | null;
  readonly running: boolean;
  readonly why: string | null;
  readonly pace: Pace;
  readonly begin: (what: CutWhat) => void;
  readonly beginFile: (file: { readonly name: string; readonly text: string }) => void;
  readonly pause: (on: boolean) => void;
  readonly setPace: (pace: Pace) => void;
  readonly giveUp: () => void;
}

const AT_START = { seconds: 0, axis: [0, 0] as const, down: false, stroke: 0, done: false };
/** The page asks for more so often, ms. */
const ASK_MS = 50;

/** The card's machine, or one that cuts lines as they are drawn. */
export const useMachine = () => useStudio((s) => s.design.machine) ?? DEFAULT_MACHINE;

export function useCutter(): Cutter {
  const design = useStudio((s) => s.design);
  const machine = useMachine();
  const [cutting, setCutting] = useState<Cutting | null>(null);
  const [running, setRunning] = useState(false);
  const [why, setWhy] = useState<string | null>(null);
  const [pace, setPace] = useState<Pace>(10);
  const run = useRef(0);
  const start = useCallback((ask: () => ReturnType<ReturnType<typeof engine>['beginCut']>): void => {
    const mine = ++run.current;
    setCutting(null);
    setWhy(null);
    void ask().then((a) => {
      if (mine !== run.current) return;
      if (!a.ok) return setWhy(`Nothing is cut: ${a.why}.`);
      setCutting({ begun: a.value, cut: new Map(), at: AT_START, report: null });
      setRunning(true);
    });
  }, []);
  const begin = useCallback(
    (what: CutWhat) => start(() => engine('cutter').beginCut(design, what, machine)),
    [design, machine, start],
  );
  const beginFile = useCallback(
    ({ name, text }: { name: string; text: string }) => start(() => engine('cutter').beginFile(text, name, machine)),
    [machine, start],
  );
  const giveUp = useCallback((): void => {
    run.current++;
    setRunning(false);
    setCutting(null);
  }, []);
  useEffect(() => {
    if (!running) return;
    const mine = run.current;
    let live = true;
    let last = performance.now();
    let asked = 0;
    let timer: ReturnType<typeof setTimeout>;
    setCutting((c) => {
      asked = c?.at.seconds ?? 0;
      return c;
    });
    const more = async (): Promise<void> => {
      const now = performance.now();
      asked += ((now - last) / 1000) * pace;
      last = now;
      const a = await engine('cutter').cutOn(asked);
      if (!live || mine !== run.current) return;
      if (!a.ok) {
        setRunning(false);
        return setWhy(`The cutting ended: ${a.why}.`);
      }
      setCutting((c) => c && goneOn(c, a.value));
      if (a.value.done) setRunning(false);
      else timer = setTimeout(() => void more(), ASK_MS);
    };
    timer = setTimeout(() => void more(), ASK_MS);
    return () => {
      live = false;
      clearTimeout(timer);
    };
  }, [running, pace]);
  const pause = (on: boolean): void => setRunning(!on && cutting !== null && !cutting.at.done);
  return { cutting, running, why, pace, begin, beginFile, pause, setPace, giveUp };
}

/** What was cut before, and what came since: a stroke that was begun goes on. */
function goneOn(c: Cutting, { strokes, report, ...at }: CutMore): Cutting {
  const cut = new Map(c.cut);
  for (const { stroke, pass, points } of strokes) {
    const known = cut.get(stroke);
    cut.set(stroke, { pass, points: known ? [...known.points, ...points] : points });
  }
  return { ...c, cut, at, report };
}
