'use client';
import { Box, chakra } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState, type DragEvent } from 'react';
import { PROGRAM_VERSION } from '@/core/version';
import { blankIn } from '@/core/document/design';
import type { ListedProject } from '@/store/projects';
import { warmUp } from '@/workers/client';
import { Action } from '../common/Action';
import { unitsKept } from '../common/kept';
import { Mark } from '../common/Mark';
import { restoreDark } from '../theme';
import { ProjectCard } from './ProjectCard';
import { Shelf } from './Shelf';
import { UnreadCards } from './UnreadCards';
import { useCards, type Cards, type Notice } from './useCards';

/** Comes with the kinds, when it is asked for. */
const Beginnings = dynamic(() => import('./Beginnings').then((m) => m.Beginnings), { ssr: false });

/** The workers are woken once the page has drawn its pictures, ms. */
const WAKE_AFTER_MS = 1200;

export function StartPage({ withDemo }: { withDemo: boolean }) {
  const cards = useCards(withDemo);
  const { found, notice, say, refresh, keep, shelve } = cards;
  const [over, setOver] = useState(false);
  /** Null until it was asked for. */
  const [beginning, setBeginning] = useState<boolean | null>(null);
  useEffect(restoreDark, []);
  useWaking(found?.projects ?? NONE);
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void cards.bringIn(event.dataTransfer.files);
  };
  const sayBad = (text: string): void => say({ text, bad: true });
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
      <Head cards={cards} onBeginFrom={() => setBeginning(true)} />
      {notice && <NoticeBar notice={notice} onClose={() => say(null)} />}
      <Box as="main" p="28px">
        {found === null && <chakra.p color="ink2">Looking for your cards…</chakra.p>}
        {found?.projects.length === 0 && <NoCards onDemo={() => void cards.bringDemo()} />}
        {found && found.projects.length > 0 && <CardList projects={found.projects} cards={cards} />}
        {found && (
          <>
            <UnreadCards
              unread={found.unread}
              onKeep={(design) => keep(design, false)}
              onSay={sayBad}
              onChanged={() => void refresh()}
            />
            <Shelf
              shelf={found.shelf}
              onPutBack={(card) => void shelve(card.id, card.name, false)}
              onSay={sayBad}
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
            void keep(design, true);
          }}
        />
      )}
      <Box as="footer" px="28px" pb="20px" fontSize="13px">
        Version {PROGRAM_VERSION} ·{' '}
        <a href="/licences" style={{ textDecoration: 'underline' }}>
          what ships with it, and its licences
        </a>
      </Box>
    </Box>
  );
}

const NONE: readonly ListedProject[] = [];
/** Wakes the workers for the newest card, once its list has been looked at for a moment. */
function useWaking(projects: readonly ListedProject[]): void {
  useEffect(() => {
    if (projects.length === 0) return;
    const designs = projects.map((p) => p.design);
    const lightest = designs.reduce((a, b) => (b.mechanisms.length < a.mechanisms.length ? b : a));
    const later = setTimeout(() => warmUp(designs[0], lightest), WAKE_AFTER_MS);
    return () => clearTimeout(later);
  }, [projects]);
}

function Head({ cards, onBeginFrom }: { readonly cards: Cards; readonly onBeginFrom: () => void }) {
  const picker = useRef<HTMLInputElement>(null);
  return (
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
      <Action onClick={onBeginFrom}>Begin from…</Action>
      <Action strong onClick={() => void cards.keep(blankIn(unitsKept(), 'Untitled card'), true)}>
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
          void cards.bringIn(e.currentTarget.files ?? []);
          e.currentTarget.value = '';
        }}
      />
    </Box>
  );
}

function NoticeBar({ notice, onClose }: { readonly notice: Notice; readonly onClose: () => void }) {
  return (
    <Box
      role={notice.bad ? 'alert' : 'status'}
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
      <Action small onClick={onClose}>
        Close
      </Action>
    </Box>
  );
}

const NoCards = ({ onDemo }: { readonly onDemo: () => void }) => (
  <Box maxWidth="520px" my="8vh" mx="auto" textAlign="center">
    <chakra.h2 fontSize="20px" fontWeight="700">
      No cards here yet
    </chakra.h2>
    <chakra.p color="ink2" mb="18px">
      Begin with a plain card, drop a card file on this page, or look at the observatory’s cards.
    </chakra.p>
    <Action onClick={onDemo}>Bring in the observatory’s cards</Action>
  </Box>
);

function CardList({ projects, cards }: { readonly projects: readonly ListedProject[]; readonly cards: Cards }) {
  const router = useRouter();
  return (
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
          onCopy={() => void cards.keep({ ...p.design, name: againName(p.design.name) }, false)}
          onRemove={() => void cards.shelve(p.id, p.design.name, true)}
          onError={(text) => cards.say({ text, bad: true })}
        />
      ))}
    </Box>
  );
}

/** The name of a copy; as long as names may be. */
const againName = (name: string): string => `${name.slice(0, 113)}, again`;
