'use client';
import { Box, chakra } from '@chakra-ui/react';
import Link from 'next/link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { loadProject } from '@/store/load';
import { addProject, type UnreadProject } from '@/store/projects';
import { StoreTrouble } from '@/store/trouble';
import { StudioContext } from '@/store/context';
import { createStudio, STAGES, type Stage, type StudioStore } from '@/store/studio';
import { useMeasuring } from '../build/measure-store';
import { UnreadCard } from '../start/UnreadCards';
import { restoreDark } from '../theme';
import { Studio } from './Studio';

/**
 * Gone back to the cards within the page, the router keeps the whole workbench that was left: the page is loaded anew,
 * once all of the card is stored. What is stored nowhere lives in this page, which then stays.
 */
function beginAnew(): void {
  if (window.location.pathname === '/') window.location.reload();
}

/** Reads the card named in the address and opens it; says what is wrong where it cannot. */
export function OpenCard() {
  const params = useSearchParams();
  const router = useRouter();
  const id = params.get('id') ?? '';
  const [opened, setOpened] = useState<{ store: StudioStore } | { why: string; unread?: UnreadProject } | null>(null);
  useEffect(() => {
    restoreDark();
    let store: StudioStore | null = null;
    let live = true;
    void loadProject(id)
      .catch((error: unknown) => ({
        ok: false as const,
        why: `${error instanceof StoreTrouble ? error.message : 'This browser’s storage does not answer'}.`,
      }))
      .then((found) => {
        if (!live) return;
        if (!found.ok) return setOpened(found);
        const asked = params.get('stage') as Stage;
        store = createStudio(found, STAGES.includes(asked) ? asked : 'build');
        store.start();
        setOpened({ store });
      });
    return () => {
      live = false;
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
      <Studio />
    </StudioContext.Provider>
  );
}
