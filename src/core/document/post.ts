/** Envelopes, limits of the post and sheets of a card: the listed ones and its maker's own. */
import { ENVELOPE_EASE_MM, ENVELOPES, POST_FORMATS, sheetById, type FlatSize, type PostFormat } from '../paper/sizes';
import type { Stock } from '../paper/stocks';
import { baseKindOf, cardValues, setParameter, sizeOfBase } from './fields';
import { CARD } from '../ids';
import { SIZE_ROUNDING_MM } from '../tolerance';
import type { Design, OwnEnvelope, OwnFormat } from './design';

const OWN_SOURCE = 'as its maker says';
const envelope = ({ id, name, shortMm, longMm }: OwnEnvelope): FlatSize => ({
  id,
  name,
  shortMm: Math.min(shortMm, longMm),
  longMm: Math.max(shortMm, longMm),
  source: OWN_SOURCE,
});
const format = ({ id, name, most }: OwnFormat): PostFormat => ({ id, name, most, source: OWN_SOURCE });

type Posted = Pick<Design, 'post'>;
/** The listed envelopes, then its own. */
export const envelopesOf = ({ post }: Posted): readonly FlatSize[] => [
  ...ENVELOPES,
  ...(post.own?.envelopes ?? []).map(envelope),
];
export const formatsOf = ({ post }: Posted): readonly PostFormat[] => [
  ...POST_FORMATS,
  ...(post.own?.formats ?? []).map(format),
];
/** The envelope that it is sent in; null without one. */
export const envelopeOf = (design: Posted): FlatSize | null => {
  const { envelope: id } = design.post;
  return id === null ? null : (envelopesOf(design).find((e) => e.id === id) ?? null);
};
export const formatOf = (design: Posted): PostFormat | null => {
  const { format: id } = design.post;
  return id === null ? null : (formatsOf(design).find((f) => f.id === id) ?? null);
};

/** Envelopes that take a card of two sides with the ease it needs, the smallest first. */
export function envelopesFor(design: Posted, sides: readonly [number, number]): FlatSize[] {
  const [short, long] = [Math.min(...sides), Math.max(...sides)];
  const room = (mm: number): number => mm - ENVELOPE_EASE_MM + SIZE_ROUNDING_MM;
  return envelopesOf(design)
    .filter((e) => short <= room(e.shortMm) && long <= room(e.longMm))
    .sort((a, b) => a.shortMm * a.longMm - b.shortMm * b.longMm);
}

/** The sheet that a stock comes in. */
export const sheetOf = ({ sheet, ownSheet }: Pick<Stock, 'sheet' | 'ownSheet'>): FlatSize =>
  ownSheet ? envelope({ id: sheet, name: `${ownSheet.shortMm} × ${ownSheet.longMm}`, ...ownSheet }) : sheetById(sheet)!;

/** The card at a closed size; whether it stands upright or lies stays as it is. */
export function atSize(
  design: Design,
  { shortMm, longMm }: { readonly shortMm: number; readonly longMm: number },
): Design {
  const now = sizeOfBase(design);
  const base = baseKindOf(design);
  const size = now.gutter >= now.reach ? { gutter: longMm, reach: shortMm } : { gutter: shortMm, reach: longMm };
  const fresh = base.fitting(size);
  // What says nothing of its size stays: a fold on top, a liner.
  const before = base.fitting(now);
  const values = cardValues(design);
  return Object.entries(fresh).reduce(
    (d, [key, value]) =>
      typeof value === 'number' && value !== before[key] && values[key] !== value
        ? setParameter(d, CARD, key, value)
        : d,
    design,
  );
}
