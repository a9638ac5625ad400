'use client';
import { useMemo } from 'react';
import { copiedText, pasted } from '@/core/document/several';
import { CARD } from '@/core/ids';
import { useActions, useStudioStore } from '@/store/context';
import { chosenIn } from '@/store/studio';

/** What was copied last in this tab, where the browser does not take it into its clipboard. */
let kept = '';

const said = (count: number): string => (count === 1 ? 'one mechanism' : `${count} mechanisms`);

/** Copy and paste of mechanisms, also from card to card. */
export function useClipboard() {
  const store = useStudioStore();
  const { edit, say, warn, select, selectAlso } = useActions();
  return useMemo(
    () => ({
      copy: async (): Promise<void> => {
        const s = store.getState();
        const ids = chosenIn(s).filter((id) => id !== CARD);
        if (ids.length === 0) return say('Choose what to copy in the build list first.');
        const text = copiedText(s.design, ids);
        const taken = await (navigator.clipboard?.writeText(text).then(
          () => true,
          () => false,
        ) ?? false);
        kept = taken ? '' : text;
        say(`Copied ${said(ids.length)} with what stands on them.`);
      },
      /** Text that the browser hands over; or what was copied here. */
      paste: (text: string): void => {
        const put = pasted(store.getState().design, kept === '' ? text : kept);
        if (!put.ok) return warn(`Nothing was put in: ${put.why}.`);
        edit(`put in ${said(put.ids.length)}`, () => put.design);
        put.ids.forEach((id, k) => (k === 0 ? select(id) : selectAlso(id)));
      },
    }),
    [store, edit, say, warn, select, selectAlso],
  );
}
