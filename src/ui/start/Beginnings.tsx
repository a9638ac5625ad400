'use client';
import { Box, chakra } from '@chakra-ui/react';
import { GUIDES, GUTTER, KINDS, type Kind } from '@/core/kinds';
import { addMechanism, naturalMount } from '@/core/document/standing';
import { blankIn, type Design } from '@/core/document/design';
import { fittingFace, fittingParameters } from '@/core/document/fitting';
import { roundedForCutting, type LengthUnit } from '@/core/units/length';
import { unitsKept } from '../common/kept';
import { KindPicture } from '../build/KindPicture';
import { Sheet } from '../common/Sheet';
import { TILE } from '../common/tile';

const [GUTTER_MM, REACH_MM] = [180, 130];

/** A plain card with one mechanism of a kind on it, at sizes that suit it. */
export function beginning(kind: Kind, units: LengthUnit = 'mm'): Design {
  const card = blankIn(units, `${kind.title} card`, GUTTER_MM, REACH_MM);
  const [gutter, reach] = [GUTTER_MM, REACH_MM].map((mm) => roundedForCutting(mm, units));
  return kind.mount === 'crease'
    ? addMechanism(
        card,
        kind.id,
        GUTTER,
        fittingParameters(kind.id, { lengthMm: gutter, reachA: reach, reachB: reach }, units),
      ).design
    : addMechanism(
        card,
        kind.id,
        naturalMount(card, kind.id),
        fittingFace(kind.id, { widthMm: reach, heightMm: gutter }, units),
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
              onClick={() => onBegin(beginning(k, unitsKept()))}
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
