'use client';
import { Box } from '@chakra-ui/react';
import { BASES, GUIDES, GUTTER, KINDS, PLAIN_BASE, type BaseKind, type Kind } from '@/core/kinds';
import { addMechanism, naturalMount, rebuiltAs } from '@/core/document/standing';
import { blankIn, type Design } from '@/core/document/design';
import { fittingFace, fittingParameters } from '@/core/document/fitting';
import { roundedForCutting, type LengthUnit } from '@/core/units/length';
import { unitsKept } from '../common/kept';
import { KindTile } from '../build/KindTile';
import { Sheet } from '../common/Sheet';

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

/** A card built as a base other than the plain one, of about the same size. */
export const beginningAs = (base: BaseKind, units: LengthUnit = 'mm'): Design =>
  rebuiltAs(blankIn(units, base.title, GUTTER_MM, REACH_MM), base.id);

/** What a card can be begun from: as it is built, then what stands on a plain one. */
const BEGINNINGS: readonly {
  readonly id: string;
  readonly title: string;
  readonly says: string;
  readonly begin: (units: LengthUnit) => Design;
}[] = [
  ...[...BASES.values()]
    .filter((b) => b.id !== PLAIN_BASE)
    .map((b) => ({ id: b.id, title: b.title, says: b.says, begin: (units: LengthUnit) => beginningAs(b, units) })),
  ...[...KINDS.values()].map((k) => ({
    ...{ id: k.id, title: k.title, says: GUIDES[k.id].goodFor },
    begin: (units: LengthUnit) => beginning(k, units),
  })),
];

/** Cards to begin from: each base and each kind, moving, and what it is good for. */
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
          {BEGINNINGS.map(({ id, title, says, begin }, i) => (
            <KindTile
              key={id}
              kind={id}
              title={title}
              says={says}
              height={110}
              data-first={i === 0 ? '' : undefined}
              data-begin={id}
              onClick={() => onBegin(begin(unitsKept()))}
            />
          ))}
        </Box>
      )}
    </Sheet>
  );
}
