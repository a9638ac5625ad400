'use client';
import { copiedText, pasted } from '@/core/document/several';
import { CARD } from '@/core/ids';
import { useActions, useStudioStore } from '@/store/context';
import { chosenIn } from '@/store/studio';

/** What was copied last in this tab, for browsers that do not give their clipboard. */
let last = '';

/** Copy and paste of mechanisms, also from card to card. */
export function useClipboard() {
  const store = useStudioStore();
  const { edit, say, select, selectAlso } = useActions();
  const copy = async (): Promise<void> => {
    const s = store.getState();
    const ids = chosenIn(s).filter((id) => id !== CARD);
    if (ids.length === 0) return say('Choose what to copy in the build list first.');
    last = copiedText(s.design, ids);
    await navigator.clipboard?.writeText(last).catch(() => undefined);
    say(`Copied ${ids.length === 1 ? 'one mechanism' : `${ids.length} mechanisms`} with what stands on them.`);
  };
  /** Text that the browser hands over; else what was copied here. */
  const paste = (text: string): void => {
    const { design } = store.getState();
    const given = pasted(design, text);
    const put = given.ok || last === '' ? given : pasted(design, last);
    if (!put.ok) return say(`Nothing was put in: ${put.why}.`);
    edit(`put in ${put.ids.length === 1 ? 'one mechanism' : `${put.ids.length} mechanisms`}`, () => put.design);
    put.ids.forEach((id, k) => (k === 0 ? select(id) : selectAlso(id)));
  };
  const pasteNow = async (): Promise<void> => {
    const text = await navigator.clipboard?.readText().catch(() => last);
    paste(text ?? last);
  };
  return { copy, paste, pasteNow };
}
