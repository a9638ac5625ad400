/** Making steps in words. */
import { nameOfMechanism, nameOfPart } from '../document/words';
import type { Design } from '../document/design';
import { CARD, ownerOfId } from '../ids';
import type { StepKind } from './scatter';

const DOING: Readonly<Record<StepKind, string>> = {
  cut: 'cutting',
  score: 'scoring',
  fold: 'folding',
  glueX: 'gluing, along',
  glueY: 'gluing, across',
  glueTurn: 'gluing, turned',
};
export const STEP_UNIT: Readonly<Record<StepKind, 'mm' | '°'>> = {
  cut: 'mm',
  score: 'mm',
  fold: '°',
  glueX: 'mm',
  glueY: 'mm',
  glueTurn: '°',
};

/** "scoring: base of Step". @param pieceTitle of a piece by id */
export function wordsOfStep(
  design: Design,
  { kind, id }: { readonly kind: StepKind; readonly id: string },
  pieceTitle: (id: string) => string | undefined = () => undefined,
): string {
  if (kind !== 'cut') return `${DOING[kind]}: ${nameOfPart(design, id)}`;
  return `${DOING.cut}: ${pieceTitle(id) ?? (id === CARD ? 'the base card' : nameOfMechanism(design, ownerOfId(id)))}`;
}
