'use client';
import { Box, chakra, VisuallyHidden } from '@chakra-ui/react';
import { IconCopy, IconDownload, IconTrash } from '@tabler/icons-react';
import { useEffect, useRef, useState } from 'react';
import type { Glance } from '@/core/formats/glance';
import { formatLength } from '@/core/units/length';
import { glanceAt } from '@/store/glances';
import type { ListedProject } from '@/store/projects';
import { designText } from '@/core/document/design-text';
import { Action } from '../common/Action';
import { fileName, saveAs } from '../common/files';
import { whenInSight } from '../common/folding';
import { PosedPicture } from '../common/PosedPicture';

interface ProjectCardProps {
  readonly project: ListedProject;
  readonly onOpen: () => void;
  readonly onCopy: () => void;
  readonly onRemove: () => void;
  readonly onError: (text: string) => void;
}

/** How a card looks, once it is in sight: a list may be longer than anyone looks through. */
function useGlance(project: ListedProject, onError: (text: string) => void) {
  const place = useRef<HTMLLIElement>(null);
  const [seen, setSeen] = useState<Glance | null>(null);
  useEffect(() => {
    let live = true;
    const look = async (): Promise<void> => {
      const answer = await glanceAt(project);
      if (!live) return;
      if (answer.ok) setSeen(answer.value);
      else onError(`${project.design.name} cannot be posed: ${answer.why}.`);
    };
    const leave = whenInSight(place.current!, () => void look());
    return () => {
      live = false;
      leave();
    };
    // The list is read anew for each change of any card; and the notice is only a way out.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [project.id, project.revision, project.updated]);
  return { place, seen };
}

/** A true thumbnail: the card's own pose, solved for it. */
export function ProjectCard({ project, onOpen, onCopy, onRemove, onError }: ProjectCardProps) {
  const { id, design, updated, size } = project;
  const { place, seen } = useGlance(project, onError);
  // Until it is put together its base tells about how large it is.
  const closed = seen
    ? `${seen.closedMm.map((mm) => formatLength(mm, design.units)).join(' × ')} ${design.units} closed`
    : `about ${size} ${design.units}`;
  const count = design.mechanisms.length;
  const built = seen?.builtAs;
  const holds = [...(built ? [built] : []), ...(built && count === 0 ? [] : [counted(count)])];
  return (
    <chakra.li
      ref={place}
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
          onClick={() => saveAs(`${fileName(design.name)}.json`, designText(design), 'application/json')}
        >
          <IconDownload size={15} aria-hidden />
        </Action>
        <Box flex="1" />
        <Action small aria-label={`Remove ${design.name}`} onClick={onRemove}>
          <IconTrash size={15} aria-hidden />
        </Action>
      </Box>
    </chakra.li>
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
