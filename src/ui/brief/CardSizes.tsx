'use client';
import { Box, chakra } from '@chakra-ui/react';
import { CARD_SIZES, largestFor, type CardSize } from '@/core/paper/card-sizes';
import { atSize, envelopeOf } from '@/core/document/post';
import { sizeOfBase } from '@/core/document/fields';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { useKept } from '../common/kept';

/** A size that a person keeps for their next cards, mm. */
interface Favourite {
  readonly shortMm: number;
  readonly longMm: number;
}
const MOST_FAVOURITES = 12;
function readFavourites(value: unknown): readonly Favourite[] | null {
  if (!Array.isArray(value)) return null;
  return value
    .filter(
      (v: Partial<Favourite> | null): v is Favourite =>
        typeof v?.shortMm === 'number' && typeof v.longMm === 'number' && v.shortMm >= 10 && v.longMm <= 5000,
    )
    .slice(0, MOST_FAVOURITES);
}

/** Closed sizes in one click: common ones, the largest that suits the envelope, one's own. */
export function CardSizes() {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const [favourites, keep] = useKept('favourites', NONE, readFavourites);
  const now = sizeOfBase(design);
  const [shortMm, longMm] = [Math.min(now.gutter, now.reach), Math.max(now.gutter, now.reach)];
  const is = (s: Favourite): boolean => Math.abs(s.shortMm - shortMm) < 0.05 && Math.abs(s.longMm - longMm) < 0.05;
  const said = (s: Favourite): string =>
    `${formatLength(s.shortMm, design.units)} × ${formatLength(s.longMm, design.units)}`;
  const envelope = envelopeOf(design);
  const largest = envelope && largestFor(envelope);
  const put = (name: string, size: Favourite): void => edit(`size ${name}`, (d) => atSize(d, size));
  // Sizes of the card's own system first.
  const listed = [...CARD_SIZES].sort((a, b) => Number(b.unit === design.units) - Number(a.unit === design.units));
  return (
    <Box mb="12px">
      <Box display="flex" flexWrap="wrap" gap="4px" role="group" aria-label="Card sizes" mb="6px">
        {listed.slice(0, MOST_SHOWN).map((s: CardSize) => (
          <Action key={s.id} small on={is(s)} aria-pressed={is(s)} title={said(s)} onClick={() => put(s.name, s)}>
            {s.name}
          </Action>
        ))}
        {favourites.map((f) => (
          <Action key={said(f)} small on={is(f)} aria-pressed={is(f)} onClick={() => put(said(f), f)}>
            {said(f)}
          </Action>
        ))}
      </Box>
      <Box display="flex" flexWrap="wrap" gap="4px">
        {envelope && largest && (
          <Action
            small
            on={is(largest)}
            data-testid="largest"
            title={`The largest that goes into ${envelope.name} with its ease`}
            onClick={() => put(`for ${envelope.name}`, largest)}
          >
            Largest for {envelope.name}: {said(largest)}
          </Action>
        )}
        {favourites.some(is) ? (
          <Action small onClick={() => keep(favourites.filter((f) => !is(f)))}>
            Forget this size
          </Action>
        ) : (
          <Action
            small
            disabled={favourites.length >= MOST_FAVOURITES}
            onClick={() => keep([...favourites, { shortMm, longMm }])}
          >
            Keep this size
          </Action>
        )}
      </Box>
      {!listed.some(is) && !favourites.some(is) && (
        <chakra.p className="dim" m="4px 0 0" fontSize="12.5px">
          Now {said({ shortMm, longMm })} {design.units}, none of these.
        </chakra.p>
      )}
    </Box>
  );
}
const NONE: readonly Favourite[] = [];
/** More would push the numbers themselves out of sight. */
const MOST_SHOWN = 8;
