'use client';
/** The layout of the open card, with the cards that share its sheets, and the search for a tighter one. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Design } from '@/core/document/design';
import { MOST_PLACES } from '@/core/document/sheet-schema';
import { placesOf } from '@/core/sheets/layout';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { Laid } from '@/workers/protocol';

export interface Searching {
  readonly part: number;
  readonly rounds: number;
}
export interface LaidOut {
  readonly laid: Laid | null;
  readonly why: string | null;
  readonly searching: Searching | null;
  readonly search: (seconds: number) => void;
  /** Ends the search and keeps what it found. */
  readonly stop: () => void;
  /** Ends it and leaves everything as it was. */
  readonly giveUp: () => void;
}

export function useLaid(guests: readonly Design[]): LaidOut {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const [laid, setLaid] = useState<Laid | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const [searching, setSearching] = useState<Searching | null>(null);
  const busy = useRef(false);
  /** Gives up the search that is going on, with the worker that is at it. */
  const giving = useRef<AbortController | null>(null);
  const [again, setAgain] = useState(0);
  useEffect(() => {
    if (busy.current) return;
    let live = true;
    void engine('study')
      .layout(design, guests)
      .then((a) => {
        if (!live) return;
        if (a.ok) setLaid(a.value);
        setWhy(a.ok ? null : a.why);
      });
    return () => {
      live = false;
    };
  }, [design, guests, again]);
  // A search ends with its stage, and what it found is kept.
  useEffect(
    () => () => {
      if (busy.current) void engine('nest').stopNest();
    },
    [],
  );
  const search = useCallback(
    (seconds: number): void => {
      if (busy.current) return;
      busy.current = true;
      const given = new AbortController();
      giving.current = given;
      setSearching({ part: 0, rounds: 0 });
      const onRound = (best: Laid, part: number): void => {
        if (!busy.current) return;
        setLaid(best);
        setSearching({ part, rounds: best.layout.rounds });
      };
      void engine('nest', given.signal)
        .nest(design, guests, seconds, onRound)
        .then((a) => {
          busy.current = false;
          setSearching(null);
          if (given.signal.aborted) return setAgain((n) => n + 1);
          if (!a.ok) return setWhy(`Nothing was changed: ${a.why}.`);
          const places = placesOf(a.value.layout);
          setLaid(a.value);
          if (places.length <= MOST_PLACES) edit('sheets laid out', (d) => ({ ...d, sheets: { ...d.sheets, places } }));
        });
    },
    [design, guests, edit],
  );
  const stop = useCallback((): void => void engine('nest').stopNest(), []);
  const giveUp = useCallback((): void => giving.current?.abort(), []);
  return { laid, why, searching, search, stop, giveUp };
}
