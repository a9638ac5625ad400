'use client';
import { Box, chakra } from '@chakra-ui/react';
import { GUIDES, GUTTER, KINDS, type Kind } from '@/core/kinds';
import { addMechanism, naturalMount } from '@/core/document/standing';
import { blankDesign, type Design } from '@/core/document/design';
import { fittingFace, fittingParameters } from '@/core/document/fitting';
import { KindPicture } from '../build/KindPicture';
import { Sheet } from '../common/Sheet';
import { TILE } from '../common/tile';

const [GUTTER_MM, REACH_MM] = [180, 130];

/** A plain card with one mechanism of a kind on it, at sizes that suit it. */
export function beginning(kind: Kind): Design {
  const card = blankDesign(`${kind.title} card`, GUTTER_MM, REACH_MM);
  return kind.mount === 'crease'
    ? addMechanism(
        card,
        kind.id,
        GUTTER,
        fittingParameters(kind.id, { lengthMm: GUTTER_MM, reachA: REACH_MM, reachB: REACH_MM }),
      ).design
    : addMechanism(
        card,
        kind.id,
        naturalMount(card, kind.id),
        fittingFace(kind.id, { widthMm: REACH_MM, heightMm: GUTTER_MM }),
      ).design;
}

/** Cards to begin from: each kind, moving, and what it is good for. */
export function Beginnings({
  shown,
  onClose,
  onBegin,
}: {
  readonly shown: boolean;
  readonly onClose: () => void;
  readonly onBegin: (design: Design) => void;
}) {
  return (
    <Sheet title="Begin from" shown={shown} onClose={onClose} width={920}>
      {shown && (
        <Box display="grid" gridTemplateColumns="1fr 1fr 1fr" gap="14px">
          {[...KINDS.values()].map((k, i) => (
            <chakra.button
              {...TILE}
              key={k.id}
              data-first={i === 0 ? '' : undefined}
              data-begin={k.id}
              onClick={() => onBegin(beginning(k))}
              p="12px"
            >
              <KindPicture kind={k.id} title={k.title} height={110} />
              <Box fontWeight="700" mt="6px">
                {k.title}
              </Box>
              <Box className="dim" fontSize="13px">
                {GUIDES[k.id].goodFor}
              </Box>
            </chakra.button>
          ))}
        </Box>
      )}
    </Sheet>
  );
}
