'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { Design } from '@/core/document/design';
import { addProject, listProjects, RefusedError, setRemoved, type Projects } from '@/store/projects';
import { onTabs } from '@/store/tabs';
import { StoreTrouble } from '@/store/trouble';
import { onWorkerNews } from '@/workers/client';
import { readDesignFrom } from '../common/files';
import { bringDemo, bringDemoOnce } from './demo';

/** Something that is said at the head of the page. */
export interface Notice {
  readonly text: string;
  readonly bad?: boolean;
  readonly undo?: () => void;
}
/** Cards of this browser, and what is done with them; what goes wrong is said. */
export interface Cards {
  /** Null until they were looked for. */
  readonly found: Projects | null;
  readonly notice: Notice | null;
  readonly say: (notice: Notice | null) => void;
  readonly refresh: () => Promise<void>;
  /** Takes a card in; it is opened, or stands among the others. */
  readonly keep: (design: Design, open: boolean) => Promise<void>;
  readonly bringIn: (files: Iterable<File>) => Promise<void>;
  readonly bringDemo: () => Promise<void>;
  /** Puts a card on the shelf of removed ones, or back. */
  readonly shelve: (id: string, name: string, removed: boolean) => Promise<void>;
}

export function useCards(withDemo: boolean): Cards {
  const router = useRouter();
  const [notice, say] = useState<Notice | null>(null);
  const { found, refresh } = useListed(withDemo, say);
  useEffect(() => onWorkerNews((text) => say({ text: `${text}.` })), []);

  /** Why a card did not come in, or null. */
  const takeIn = async (design: Design, open: boolean): Promise<string | null> => {
    try {
      const { id, trouble } = await addProject(design);
      // One that could not be stored is opened, so that it can be worked on and saved as a file.
      if (open) router.push(`/card?id=${id}`);
      else await refresh();
      return trouble && !open ? `${trouble.message}. “${design.name}” is in this tab only; save it as a file.` : null;
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      return `“${design.name}” was not taken in: ${error.message}. Nothing was lost.`;
    }
  };
  const keep: Cards['keep'] = async (design, open) => {
    const why = await takeIn(design, open);
    if (why) say({ text: why, bad: true });
  };
  const bringIn: Cards['bringIn'] = async (files) => {
    const list = [...files];
    const wrong: string[] = [];
    for (const file of list) {
      const read = await readDesignFrom(file);
      const why = read.ok ? await takeIn(read.design, list.length === 1) : read.why;
      if (why) wrong.push(why);
    }
    if (wrong.length > 0) say({ text: wrong.join(' '), bad: true });
  };
  const shelve: Cards['shelve'] = async (id, name, removed) => {
    try {
      await setRemoved(id, removed);
      await refresh();
      const undo = (): void => void shelve(id, name, false);
      say(
        removed ? { text: `${name} was put on the shelf of removed cards.`, undo } : { text: `${name} was put back.` },
      );
    } catch (error) {
      say({ text: `${sayTrouble(error)}. ${name} is where it was.`, bad: true });
    }
  };
  const demo = async (): Promise<void> => {
    await bringDemo().catch(() => undefined);
    await refresh();
  };
  return { found, notice, say, refresh, keep, bringIn, bringDemo: demo, shelve };
}

/** The cards as they are, read again whenever another tab changes them. */
function useListed(withDemo: boolean, say: (notice: Notice) => void) {
  const [found, setFound] = useState<Projects | null>(null);
  const refresh = useCallback(async () => {
    try {
      setFound(await listProjects());
    } catch (error) {
      setFound((known) => known ?? { projects: [], unread: [], shelf: [] });
      const text = `${sayTrouble(error)}. Cards that you bring in or begin stay open in this tab; save them as files.`;
      say({ text, bad: true });
    }
  }, [say]);
  useEffect(() => {
    void (async () => {
      if (withDemo) await bringDemoOnce().catch(() => undefined);
      await refresh();
    })();
    return onTabs((message) => {
      if (message.kind !== 'yield') void refresh();
    });
  }, [refresh, withDemo]);
  return { found, refresh };
}

const sayTrouble = (error: unknown): string =>
  error instanceof StoreTrouble ? error.message : 'This browser’s storage does not answer';
