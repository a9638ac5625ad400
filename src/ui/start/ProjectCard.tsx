'use client';
import { openTo } from '@/core/drives';
import { Box, chakra, VisuallyHidden } from '@chakra-ui/react';
import { IconCopy, IconDownload, IconTrash } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import { formatLength } from '@/core/units/length';
import type { ListedProject } from '@/store/projects';
import { engine } from '@/workers/client';
import type { Glance } from '@/workers/protocol';
import { Action } from '../common/Action';
import { designJson, fileName, saveAs } from '../common/files';
import { PosedPicture } from '../common/PosedPicture';

interface ProjectCardProps {
  readonly project: ListedProject;
  readonly onOpen: () => void;
  readonly onCopy: () => void;
  readonly onRemove: () => void;
  readonly onError: (text: string) => void;
}

/** A true thumbnail: the card's own pose, solved for it. */
export function ProjectCard({
  project: { id, design, updated, size },
  onOpen,
  onCopy,
  onRemove,
  onError,
}: ProjectCardProps) {
  const [seen, setSeen] = useState<Glance | null>(null);
  useEffect(() => {
    let live = true;
    void engine('study')
      .glance(design, openTo(100))
      .then((answer) => {
        if (!live) return;
        if (answer.ok) setSeen(answer.value);
        else onError(`${design.name} cannot be posed: ${answer.why}.`);
      });
    return () => {
      live = false;
    };
    // The notice is only a way out; a new one does not need a new picture.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [design]);
  // Until it is put together its base tells about how large it is.
  const closed = seen
    ? `${seen.closedMm.map((mm) => formatLength(mm, design.units)).join(' × ')} ${design.units} closed`
    : `about ${size} ${design.units}`;
  const count = design.mechanisms.length;
  const built = seen?.builtAs;
  const holds = [...(built ? [built] : []), ...(built && count === 0 ? [] : [counted(count)])];
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
        data-open={design.name}
        data-id={id}
      >
        <Box height="170px" mb="8px">
          {seen && <PosedPicture picture={seen.picture} height={170} label={`${design.name}, posed`} />}
        </Box>
        <Box fontWeight="700" fontSize="16px">
          <VisuallyHidden>Open </VisuallyHidden>
          {design.name}
        </Box>
        <Box color="ink2" fontSize="13px">
          {[closed, ...holds, dayOf(updated)].join(' · ')}
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

const counted = (count: number): string => `${count} ${count === 1 ? 'mechanism' : 'mechanisms'}`;

/** A day as people write it; a record may hold anything. */
export function dayOf(time: number): string {
  const date = new Date(time);
  return Number.isNaN(date.getTime())
    ? 'at an unknown time'
    : date.toLocaleDateString(undefined, { day: 'numeric', month: 'short' });
}
