'use client';
import { Box, chakra } from '@chakra-ui/react';
import { IconCopy, IconDownload, IconTrash } from '@tabler/icons-react';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState, type DragEvent } from 'react';
import type { Picture } from '@/core/formats/picture';
import { blankDesign, type Design } from '@/core/document/design';
import { cardValues } from '@/core/document/fields';
import { formatLength } from '@/core/units/length';
import { deleteProject, listProjects, newProjectId, saveProject, type StoredProject } from '@/store/database';
import { engine, warmUp } from '@/workers/client';
import { Action } from '../common/Field';
import { designJson, fileName, readDesignFrom, saveAs } from '../common/files';
import { Mark } from '../common/Mark';
import { PosedPicture } from '../common/PosedPicture';
import { restoreDark } from '../theme';
import { bringDemo, bringDemoOnce } from './demo';

interface Notice {
  readonly text: string;
  readonly bad?: boolean;
  readonly undo?: () => void;
}

export function StartPage({ withDemo }: { withDemo: boolean }) {
  const router = useRouter();
  const [projects, setProjects] = useState<readonly StoredProject[] | null>(null);
  const [notice, setNotice] = useState<Notice | null>(null);
  const [over, setOver] = useState(false);
  const picker = useRef<HTMLInputElement>(null);

  const refresh = useCallback(async () => {
    try {
      const { projects: found, unreadable } = await listProjects();
      setProjects(found);
      if (unreadable > 0)
        setNotice({
          text:
            `${unreadable} ${unreadable === 1 ? 'card does' : 'cards do'} not read and ` +
            `${unreadable === 1 ? 'is' : 'are'} left untouched in this browser.`,
          bad: true,
        });
    } catch {
      setProjects([]);
      setNotice({
        text:
          'This browser keeps no data for this page, so cards cannot be saved here. Bring cards ' +
          'in and save them as files.',
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
  }, [refresh, withDemo]);

  const newest = projects?.[0]?.design;
  useEffect(() => {
    if (!newest) return;
    // Once the page has drawn its pictures.
    const later = setTimeout(() => warmUp(newest), 1200);
    return () => clearTimeout(later);
  }, [newest]);

  const keep = async (design: Design, open: boolean): Promise<void> => {
    const id = newProjectId();
    try {
      await saveProject({ id, updated: Date.now(), design });
    } catch {
      return setNotice({
        text: 'The card could not be stored: this browser has no room left. Nothing that was stored is lost.',
        bad: true,
      });
    }
    if (open) router.push(`/card?id=${id}`);
    else await refresh();
  };
  const bringIn = async (files: Iterable<File>): Promise<void> => {
    const list = [...files];
    for (const file of list) {
      const read = await readDesignFrom(file);
      if (!read.ok) return setNotice({ text: read.why, bad: true });
      await keep(read.design, list.length === 1);
    }
  };
  const remove = async (project: StoredProject): Promise<void> => {
    await deleteProject(project.id);
    await refresh();
    setNotice({
      text: `Removed ${project.design.name}.`,
      undo: () =>
        void saveProject(project)
          .then(refresh)
          .then(() => setNotice(null)),
    });
  };
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
        <Action strong onClick={() => void keep(blankDesign('Untitled card'), true)}>
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
        {projects === null ? (
          <chakra.p color="ink2">Looking for your cards…</chakra.p>
        ) : projects.length === 0 ? (
          <Box maxWidth="520px" my="8vh" mx="auto" textAlign="center">
            <chakra.h2 fontSize="20px" fontWeight="700">
              No cards here yet
            </chakra.h2>
            <chakra.p color="ink2" mb="18px">
              Begin with a plain card, drop a card file on this page, or look at the observatory’s three.
            </chakra.p>
            <Action onClick={() => void bringDemo().then(refresh)}>Bring in the observatory’s cards</Action>
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
                onCopy={() => void keep({ ...p.design, name: `${p.design.name}, again` }, false)}
                onRemove={() => void remove(p)}
                onError={(text) => setNotice({ text, bad: true })}
              />
            ))}
          </Box>
        )}
      </Box>
    </Box>
  );
}

interface ProjectCardProps {
  readonly project: StoredProject;
  readonly onOpen: () => void;
  readonly onCopy: () => void;
  readonly onRemove: () => void;
  readonly onError: (text: string) => void;
}

/** A true thumbnail: the card's own pose, solved for it. */
function ProjectCard({ project: { design, updated }, onOpen, onCopy, onRemove, onError }: ProjectCardProps) {
  const [picture, setPicture] = useState<Picture | null>(null);
  useEffect(() => {
    let live = true;
    void engine('study')
      .picture(design, 100)
      .then((answer) => {
        if (!live) return;
        if (answer.ok) setPicture(answer.value);
        else onError(`${design.name} cannot be posed: ${answer.why}.`);
      });
    return () => {
      live = false;
    };
    // The notice is only a way out; a new one does not need a new picture.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [design]);
  const { gutter, reachA } = cardValues(design);
  const show = (mm: unknown): string => formatLength(mm as number, design.units);
  const count = design.mechanisms.length;
  const size = `${show(gutter)} × ${show(reachA)} ${design.units}`;
  return (
    <Box
      as="li"
      bg="sheet"
      border="1px solid var(--rule)"
      borderRadius="card"
      boxShadow="0 1px 0 var(--rule), 0 6px 14px -10px var(--shade)"
      _hover={{ borderColor: 'accent' }}
    >
      <chakra.button
        type="button"
        className="plain"
        width="100%"
        p="14px 16px 8px"
        onClick={onOpen}
        aria-label={`Open ${design.name}`}
      >
        <Box height="170px" mb="8px">
          {picture && <PosedPicture picture={picture} height={170} label={`${design.name}, posed`} />}
        </Box>
        <Box fontWeight="700" fontSize="16px">
          {design.name}
        </Box>
        <Box color="ink2" fontSize="13px">
          {size} closed · {count} {count === 1 ? 'mechanism' : 'mechanisms'} ·{' '}
          {new Date(updated).toLocaleDateString(undefined, { day: 'numeric', month: 'short' })}
        </Box>
      </chakra.button>
      <Box display="flex" gap="6px" p="0 14px 12px">
        <Action small aria-label={`Duplicate ${design.name}`} onClick={onCopy}>
          <IconCopy size={15} aria-hidden />
        </Action>
        <Action
          small
          aria-label={`Save ${design.name} as a file`}
          onClick={() => saveAs(`${fileName(design.name)}.json`, designJson(design), 'application/json')}
        >
          <IconDownload size={15} aria-hidden />
        </Action>
        <Box flex="1" />
        <Action small aria-label={`Remove ${design.name}`} onClick={onRemove}>
          <IconTrash size={15} aria-hidden />
        </Action>
      </Box>
    </Box>
  );
}
