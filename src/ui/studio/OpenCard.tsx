'use client';
import { Box, chakra } from '@chakra-ui/react';
import Link from 'next/link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState, type ComponentType } from 'react';
import { loadProject } from '@/store/load';
import { addProject, type UnreadProject } from '@/store/projects';
import { StoreTrouble } from '@/store/trouble';
import { StudioContext } from '@/store/context';
import { createStudio, STAGES, type Stage, type StudioStore } from '@/store/studio';
import { prepare } from '@/workers/client';
import { useMeasuring } from '../build/measure-store';
import { UnreadCard } from '../start/UnreadCards';
import { restoreDark } from '../theme';
import { loadStage } from './stages';

/**
 * Gone back to the cards within the page, the router keeps the whole workbench that was left: the page is loaded anew,
 * once all of the card is stored. What is stored nowhere lives in this page, which then stays.
 */
function beginAnew(): void {
  if (window.location.pathname === '/') window.location.reload();
}

/** The workbench with the stage to begin in; loaded while the card is read and the workers start. */
async function workbench(stage: Stage): Promise<ComponentType> {
  const [{ Studio }] = await Promise.all([import('./Studio'), loadStage(stage)]);
  return Studio;
}

/** Under which address a card was opened that goes on as another one: it stays open, only its address is new. */
const openedAs = new Map<string, string>();
/** The address names the card that is written, so that a reload opens that. */
const followed = (store: StudioStore, key: string): (() => void) =>
  store.subscribe(({ id }, before) => {
    if (id === before.id) return;
    openedAs.set(id, key);
    const address = new URL(window.location.href);
    address.searchParams.set('id', id);
    window.history.replaceState(null, '', address);
  });

/** Reads the card named in the address and opens it; says what is wrong where it cannot. */
export function OpenCard() {
  const params = useSearchParams();
  const router = useRouter();
  const named = params.get('id') ?? '';
  const id = openedAs.get(named) ?? named;
  const [opened, setOpened] = useState<
    { store: StudioStore; Studio: ComponentType } | { why: string; unread?: UnreadProject } | null
  >(null);
  useEffect(() => {
    restoreDark();
    let store: StudioStore | null = null;
    let stopFollowing = (): void => undefined;
    let live = true;
    const asked = params.get('stage') as Stage;
    const stage = STAGES.includes(asked) ? asked : 'build';
    prepare('pose');
    prepare('proof');
    const read = loadProject(id).catch((error: unknown) => ({
      ok: false as const,
      why: `${error instanceof StoreTrouble ? error.message : 'This browser’s storage does not answer'}.`,
    }));
    Promise.all([read, workbench(stage)]).then(
      ([found, Studio]) => {
        if (!live) return;
        if (!found.ok) return setOpened(found);
        store = createStudio(found, stage);
        stopFollowing = followed(store, id);
        store.start();
        setOpened({ store, Studio });
      },
      () => live && setOpened({ why: 'The workbench could not be loaded: see that its server is still running.' }),
    );
    return () => {
      live = false;
      stopFollowing();
      for (const [address, key] of openedAs) if (key === id) openedAs.delete(address);
      useMeasuring.getState().toggle(false);
      void store?.close().then((stored) => stored && beginAnew());
    };
    // The stage in the address is where to begin; going on to another stage must not open the card again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  if (opened === null)
    return (
      <chakra.p p="40px" color="ink2">
        Opening the card…
      </chakra.p>
    );
  if ('why' in opened) {
    return (
      <Box p="40px" maxWidth="560px">
        <chakra.h1 fontSize="20px" fontWeight="700">
          The card was not opened
        </chakra.h1>
        <chakra.p my="10px">{opened.why}</chakra.p>
        {opened.unread && (
          <UnreadCard
            card={opened.unread}
            onKeep={async (design) => router.replace(`/card?id=${(await addProject(design)).id}`)}
            onSay={(why) => setOpened({ why })}
            onChanged={() => router.push('/')}
          />
        )}
        <Link href="/" style={{ textDecoration: 'underline' }}>
          Back to your cards
        </Link>
      </Box>
    );
  }
  return (
    <StudioContext.Provider value={opened.store}>
      <opened.Studio />
    </StudioContext.Provider>
  );
}
