/** States of a card that people name: each is a value for every drive, and how the card is left alone there. */
import { FLAT } from '../drives';
import { POSTED, type NamedState } from '../kinds';
import { baseKindOf, cardValues } from './fields';
import type { Design } from './design';

/** Sent open flat: as far as it opens. */
const SENT_OPEN: NamedState = { ...POSTED, drives: FLAT };

/** Those its maker names, else those of its base; how a brought-in template is left is not known. */
export function statesOf(design: Design): readonly NamedState[] {
  if (design.states) return design.states;
  const own = baseKindOf(design).states(cardValues(design));
  const sent = design.post.sent === 'open' ? own.map((s) => (s === POSTED ? SENT_OPEN : s)) : own;
  return design.card.template ? sent.filter((s) => s.stance === undefined) : sent;
}
