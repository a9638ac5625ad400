'use client';
import { openOf } from '@/core/drives';
import { useEffect, useState } from 'react';
import { removeMechanism } from '@/core/document/standing';
import { useStudioStore } from '@/store/context';
import { CARD } from '@/core/ids';
import { otherSide } from '@/core/kinds';
import { STAGES } from '@/store/studio';
import { useClipboard } from '../build/useClipboard';
import { keptNow, readYesNo } from '../common/kept';
import { rowsOf } from './rows';

/** Keys of the workbench, and what they do. The sheet of keys shows this list. */
export const KEYS: readonly (readonly [keys: string, does: string])[] = [
  ['N', 'Stand something on the gutter or a crease'],
  ['[  ]', 'Close or open by 5°'],
  ['{  }', 'Close or open by 1°'],
  ['Home  End', 'Closed, open flat'],
  ['P', 'Play the travel, or stop it'],
  ['1 … 6', 'Go to a stage'],
  ['O', 'Turn the sheet over: inside up, outside up'],
  ['J  K', 'Next, previous in the build list'],
  ['Backspace', 'Remove what is selected'],
  ['Ctrl C', 'Copy what is selected, with what stands on it'],
  ['Ctrl V', 'Put in what was copied, also from another card'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['↑  ↓ in a number', 'One more or less; with Shift ten, with Alt a tenth'],
  ['Escape', 'Back out'],
  ['?', 'These keys'],
];

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Where a browser undoes what was typed: a list or a choice of a few has nothing of its own to undo. */
const undoesItself = (target: EventTarget | null): boolean =>
  typing(target) && !(target instanceof HTMLSelectElement) && !(target as Element).matches(WITHOUT_TEXT);
const WITHOUT_TEXT = ['radio', 'checkbox', 'range', 'color', 'file'].map((type) => `input[type=${type}]`).join();

/** Listens for the keys; returns whether the sheet of keys is shown. */
export function useKeys(): [boolean, (shown: boolean) => void] {
  const store = useStudioStore();
  const [shown, setShown] = useState(false);
  const { copy, paste } = useClipboard();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const s = store.getState();
      const { actions } = s;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z' && !undoesItself(event.target)) {
        event.preventDefault();
        return event.shiftKey ? actions.redo() : actions.undo();
      }
      if (command && event.key.toLowerCase() === 'y' && !undoesItself(event.target)) {
        event.preventDefault();
        return actions.redo();
      }
      if (command || event.altKey || typing(event.target)) return;
      if (event.key === 'Escape') {
        setShown(false);
        if (s.adding) actions.add(null);
        else if (s.playing) actions.play(false);
        else actions.select(CARD);
        return;
      }
      // Whoever speaks to the page, or rests on the keys, switches single letters off.
      if (event.key.length === 1 && keptNow('keys', readYesNo) === false) return;
      // While a dialog is open its own keys are the only ones.
      if (s.adding || document.querySelector('dialog[open]')) return;
      const putOn = (): void => actions.add(s.scene?.hosts[0]?.crease ?? null);
      const move = (by: number): void => {
        const ids = rowsOf(s.design).map((r) => r.id);
        const next = ids[ids.indexOf(s.selected) + by];
        if (next) actions.select(next);
      };
      const does: Record<string, () => void> = {
        n: putOn,
        N: putOn,
        '[': () => actions.scrub(openOf(s.state) - 5),
        ']': () => actions.scrub(openOf(s.state) + 5),
        '{': () => actions.scrub(openOf(s.state) - 1),
        '}': () => actions.scrub(openOf(s.state) + 1),
        Home: () => actions.scrub(0),
        End: () => actions.scrub(180),
        p: () => actions.play(!s.playing),
        o: () => actions.turnUp(otherSide(s.sideUp)),
        j: () => move(1),
        k: () => move(-1),
        '?': () => setShown(true),
        Backspace: () =>
          s.selected !== CARD &&
          actions.edit(`remove ${s.design.mechanisms.find((m) => m.id === s.selected)?.name ?? ''}`, (d) =>
            removeMechanism(d, s.selected),
          ),
      };
      const stage = STAGES[Number(event.key) - 1];
      if (stage) actions.go(stage);
      else if (Object.hasOwn(does, event.key)) {
        event.preventDefault();
        does[event.key]();
      }
    };
    const free = (event: Event): boolean =>
      !typing(event.target) && !document.querySelector('dialog[open]') && String(getSelection() ?? '') === '';
    const onCopy = (event: ClipboardEvent): void => {
      if (!free(event) || store.getState().selected === CARD) return;
      event.preventDefault();
      void copy();
    };
    const onPaste = (event: ClipboardEvent): void => {
      if (!free(event)) return;
      event.preventDefault();
      paste(event.clipboardData?.getData('text/plain') ?? '');
    };
    window.addEventListener('keydown', onKey);
    window.addEventListener('copy', onCopy);
    window.addEventListener('paste', onPaste);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('copy', onCopy);
      window.removeEventListener('paste', onPaste);
    };
  }, [store, copy, paste]);
  return [shown, setShown];
}
