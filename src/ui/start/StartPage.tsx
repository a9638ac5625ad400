'use client';
import { Box, chakra } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState, type DragEvent } from 'react';
import { blankDesign, type Design } from '@/core/document/design';
import {
  addProject,
  listProjects,
  RefusedError,
  setRemoved,
  type Projects,
  type StoredProject,
} from '@/store/projects';
import { onTabs } from '@/store/tabs';
import { StoreTrouble } from '@/store/trouble';
import { onWorkerNews, warmUp } from '@/workers/client';
import { Action } from '../common/Action';
import { readDesignFrom } from '../common/files';
import { Mark } from '../common/Mark';
import { ProjectCard } from './ProjectCard';
import { Shelf } from './Shelf';
import { UnreadCards } from './UnreadCards';
import { restoreDark } from '../theme';
import { bringDemo, bringDemoOnce } from './demo';

/** Comes with the kinds, when it is asked for. */
const Beginnings = dynamic(() => import('./Beginnings').then((m) => m.Beginnings), { ssr: false });

interface Notice {
  readonly text: string;
  readonly bad?: boolean;
  readonly undo?: () => void;
}

export function StartPage({ withDemo }: { withDemo: boolean }) {
  const router = useRouter();
  const [found, setFound] = useState<Projects | null>(null);
  const [notice, setNotice] = useState<Notice | null>(null);
  const [over, setOver] = useState(false);
  /** Null until it was asked for. */
  const [beginning, setBeginning] = useState<boolean | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  const projects = found?.projects;

  const refresh = useCallback(async () => {
    try {
      setFound(await listProjects());
    } catch (error) {
      setFound((known) => known ?? { projects: [], unread: [], shelf: [] });
      setNotice({
        text: `${sayTrouble(error)}. Cards that you bring in or begin stay open in this tab; save them as files.`,
        bad: true,
      });
    }
  }, []);
  useEffect(() => {
    restoreDark();
    void (async () => {
      if (withDemo) await bringDemoOnce().catch(() => undefined);
      await refresh();
    })();
    // Other tabs add, remove and change cards.
    return onTabs((message) => {
      if (message.kind !== 'yield') void refresh();
    });
  }, [refresh, withDemo]);
  useEffect(() => onWorkerNews((text) => setNotice({ text: `${text}.` })), []);

  const newest = projects?.[0]?.design;
  useEffect(() => {
    if (!newest) return;
    // Once the page has drawn its pictures.
    const later = setTimeout(() => warmUp(newest), 1200);
    return () => clearTimeout(later);
  }, [newest]);

  /** Why a card did not come in, or null; it is opened where `open` says so. */
  const keep = async (design: Design, open: boolean): Promise<string | null> => {
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
  const attempt = async (work: Promise<string | null>): Promise<void> => {
    const why = await work;
    if (why) setNotice({ text: why, bad: true });
  };
  const bringIn = async (files: Iterable<File>): Promise<void> => {
    const list = [...files];
    const wrong: string[] = [];
    for (const file of list) {
      const read = await readDesignFrom(file);
      const why = read.ok ? await keep(read.design, list.length === 1) : read.why;
      if (why) wrong.push(why);
    }
    if (wrong.length > 0) setNotice({ text: wrong.join(' '), bad: true });
  };
  const shelve = async (id: string, name: string, removed: boolean): Promise<void> => {
    try {
      await setRemoved(id, removed);
      await refresh();
      setNotice(
        removed
          ? { text: `${name} was put on the shelf of removed cards.`, undo: () => void shelve(id, name, false) }
          : { text: `${name} was put back.` },
      );
    } catch (error) {
      setNotice({ text: `${sayTrouble(error)}. ${name} is where it was.`, bad: true });
    }
  };
  const remove = (project: StoredProject): Promise<void> => shelve(project.id, project.design.name, true);
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void bringIn(event.dataTransfer.files);
  };

  return (
    <Box
      minHeight="100vh"
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      outline={over ? '4px dashed var(--accent)' : undefined}
      outlineOffset="-10px"
    >
      <Box as="header" bg="board" px="28px" py="18px" display="flex" alignItems="center" gap="14px" flexWrap="wrap">
        <Mark size={38} />
        <Box flex="1" minWidth="240px">
          <chakra.h1 fontSize="23px" fontWeight="700" m="0" lineHeight="1.15">
            Rhabdoplex
          </chakra.h1>
          <chakra.p m="0" color="ink2">
            Pop-up cards that are proved before they are cut.
          </chakra.p>
        </Box>
        <Action onClick={() => picker.current?.click()}>Bring in a card file</Action>
        <Action onClick={() => setBeginning(true)}>Begin from…</Action>
        <Action strong onClick={() => void attempt(keep(blankDesign('Untitled card'), true))}>
          Begin a card
        </Action>
        <input
          ref={picker}
          type="file"
          accept=".json,application/json"
          multiple
          hidden
          aria-label="Card files"
          onChange={(e) => {
            void bringIn(e.currentTarget.files ?? []);
            e.currentTarget.value = '';
          }}
        />
      </Box>
      {notice && (
        <Box
          role="status"
          mx="28px"
          mt="16px"
          px="14px"
          py="9px"
          bg={notice.bad ? 'var(--bad-wash)' : 'wash'}
          borderLeft="4px solid"
          borderColor={notice.bad ? 'bad' : 'accent'}
          display="flex"
          gap="14px"
          alignItems="center"
        >
          <Box flex="1">{notice.text}</Box>
          {notice.undo && (
            <Action small onClick={notice.undo}>
              Put it back
            </Action>
          )}
          <Action small onClick={() => setNotice(null)}>
            Close
          </Action>
        </Box>
      )}
      <Box as="main" p="28px">
        {found === null || !projects ? (
          <chakra.p color="ink2">Looking for your cards…</chakra.p>
        ) : projects.length === 0 ? (
          <Box maxWidth="520px" my="8vh" mx="auto" textAlign="center">
            <chakra.h2 fontSize="20px" fontWeight="700">
              No cards here yet
            </chakra.h2>
            <chakra.p color="ink2" mb="18px">
              Begin with a plain card, drop a card file on this page, or look at the observatory’s cards.
            </chakra.p>
            <Action
              onClick={() =>
                void bringDemo()
                  .catch(() => undefined)
                  .then(refresh)
              }
            >
              Bring in the observatory’s cards
            </Action>
          </Box>
        ) : (
          <Box
            as="ul"
            listStyleType="none"
            m="0"
            p="0"
            display="grid"
            gridTemplateColumns="repeat(auto-fill, minmax(290px, 1fr))"
            gap="22px"
          >
            {projects.map((p) => (
              <ProjectCard
                key={p.id}
                project={p}
                onOpen={() => router.push(`/card?id=${p.id}`)}
                onCopy={() => void attempt(keep({ ...p.design, name: againName(p.design.name) }, false))}
                onRemove={() => void remove(p)}
                onError={(text) => setNotice({ text, bad: true })}
              />
            ))}
          </Box>
        )}
        {found && (
          <>
            <UnreadCards
              unread={found.unread}
              onKeep={(design) => attempt(keep(design, false))}
              onSay={(text) => setNotice({ text, bad: true })}
              onChanged={() => void refresh()}
            />
            <Shelf
              shelf={found.shelf}
              onPutBack={(card) => void shelve(card.id, card.name, false)}
              onSay={(text) => setNotice({ text, bad: true })}
              onChanged={() => void refresh()}
            />
          </>
        )}
      </Box>
      {beginning !== null && (
        <Beginnings
          shown={beginning}
          onClose={() => setBeginning(false)}
          onBegin={(design) => {
            setBeginning(false);
            void attempt(keep(design, true));
          }}
        />
      )}
      <Box as="footer" px="28px" pb="20px" fontSize="13px">
        <a href="/licences">What ships with it, and its licences</a>
      </Box>
    </Box>
  );
}

const sayTrouble = (error: unknown): string =>
  error instanceof StoreTrouble ? error.message : 'This browser’s storage does not answer';

/** The name of a copy; as long as names may be. */
const againName = (name: string): string => `${name.slice(0, 113)}, again`;
