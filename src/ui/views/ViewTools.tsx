'use client';
import { Box, chakra } from '@chakra-ui/react';
import {
  IconArrowsMaximize,
  IconArrowsMinimize,
  IconCamera,
  IconFocusCentered,
  IconMinus,
  IconPlus,
  IconZoomReset,
} from '@tabler/icons-react';
import type { ComponentType, ReactNode } from 'react';
import { ZOOM_STEP } from './viewport';

export interface ViewToolsProps {
  readonly of: string;
  readonly zoomBy: (factor: number) => void;
  readonly fit: () => void;
  /** What is selected, in the middle; absent where nothing is. */
  readonly fitSelection?: () => void;
  readonly trueSize?: () => void;
  /** Makes a picture or a film of it. */
  readonly picture?: () => void;
  /** This view has all the room. */
  readonly full: boolean;
  readonly onFull: () => void;
}

/** How near a view is looked at, and whether it has all the room. */
export function ViewTools({ of, zoomBy, fit, fitSelection, trueSize, picture, full, onFull }: ViewToolsProps) {
  return (
    <Box role="group" aria-label={`${of} view`} display="flex" gap="2px" alignItems="center">
      <Tool icon={IconMinus} name="Smaller" onClick={() => zoomBy(1 / ZOOM_STEP)} />
      <Tool icon={IconPlus} name="Larger" onClick={() => zoomBy(ZOOM_STEP)} />
      <Tool icon={IconZoomReset} name="Fit all" onClick={fit} />
      {fitSelection && <Tool icon={IconFocusCentered} name="Fit what is selected" onClick={fitSelection} />}
      {trueSize && (
        <chakra.button
          type="button"
          className="plain"
          title="True size on this screen"
          aria-label="1:1, true size on this screen"
          onClick={trueSize}
          px="5px"
          minHeight="24px"
          fontSize="12.5px"
          fontWeight="600"
        >
          1:1
        </chakra.button>
      )}
      {picture && <Tool icon={IconCamera} name="Picture or film…" onClick={picture} />}
      <Tool
        icon={full ? IconArrowsMinimize : IconArrowsMaximize}
        name={full ? 'Both views' : 'This view alone'}
        onClick={onFull}
      />
    </Box>
  );
}

function Tool({
  icon: Icon,
  name,
  onClick,
}: {
  readonly icon: ComponentType<{ size: number; 'aria-hidden': true }>;
  readonly name: string;
  readonly onClick: () => void;
}) {
  return (
    <chakra.button
      type="button"
      className="plain"
      title={name}
      aria-label={name}
      onClick={onClick}
      display="grid"
      placeItems="center"
      width="26px"
      height="26px"
      borderRadius="4px"
      _hover={{ bg: 'wash' }}
    >
      <Icon size={15} aria-hidden />
    </chakra.button>
  );
}

/** The lower right of a view, over what is drawn there. */
export function Corner({ children }: { readonly children: ReactNode }) {
  return (
    <Box
      position="absolute"
      right="8px"
      bottom="8px"
      bg="sheet"
      border="1px solid var(--rule)"
      borderRadius="card"
      p="2px"
      zIndex="1"
    >
      {children}
    </Box>
  );
}
