'use client';
import { copiedText } from '@/core/document/several';
import { useActions, useStudioStore } from '@/store/context';
import { keepOwn } from '@/store/own-mechanisms';
import { Action } from '../common/Action';

/**
 * Kept in this browser as a mechanism of one's own, with its named sizes, for this card and others. Several are kept as
 * one, under the name of the first.
 */
export function KeepOwn({ ids }: { readonly ids: readonly string[] }) {
  const store = useStudioStore();
  const { say, warn } = useActions();
  const put = async (): Promise<void> => {
    const { design } = store.getState();
    const { name } = design.mechanisms.find((x) => x.id === ids[0])!;
    const why = await keepOwn({ name, text: copiedText(design, ids) });
    if (why) warn(`${name} was not kept: ${why}.`);
    else say(`${name} is kept: put it on from the list of mechanisms, on any card.`);
  };
  return (
    <Action small title="Used again from the list of mechanisms, on this card and others" onClick={() => void put()}>
      Keep as my own
    </Action>
  );
}
