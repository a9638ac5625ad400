/** States of a card that people name: each is a value for every drive, and how the card is left alone there. */
import type { NamedState } from '../kinds';
import { baseKindOf, cardValues } from './fields';
import type { Design } from './design';

/** Those its maker names, else those of its base; how a brought-in template is left is not known. */
export function statesOf(design: Design): readonly NamedState[] {
  if (design.states) return design.states;
  const own = baseKindOf(design).states(cardValues(design));
  return design.card.template ? own.filter((s) => s.stance === undefined) : own;
}
