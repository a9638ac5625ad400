/** Making steps, and what is wanted, in words. */
import { inSentence, measureWords, nameOfMechanism, nameOfPart } from '../document/words';
import type { Design } from '../document/design';
import { CARD, ownerOfId } from '../ids';
import { atState } from '../rules';
import { OPEN } from '../drives';
import type { StepKind } from './scatter';
import { type CARD_MEASURES, type At, type Measured } from './wants';

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

export const nameOfOwner = (design: Design, id: string): string =>
  id === CARD ? 'base card' : nameOfMechanism(design, id);

const CARD_WORDS: Readonly<Record<(typeof CARD_MEASURES)[number], string>> = {
  width_mm: 'closed, across',
  height_mm: 'closed, along the gutter',
  thickness_mm: 'thickness closed',
  overhang_mm: 'past its edges, closed',
  lift_mm: 'highest point',
};
const isOfCard = (key: string): key is keyof typeof CARD_WORDS => key in CARD_WORDS;

/** "Step: ridge height", "Card: highest point". */
export function nameOfMeasure(design: Design, { mechanism, measure }: Pick<Measured, 'mechanism' | 'measure'>): string {
  if (mechanism === CARD && isOfCard(measure)) return `Card: ${CARD_WORDS[measure]}`;
  const name = measureWords(measure, 0, design.units).name;
  return `${nameOfOwner(design, mechanism)}: ${inSentence(name)}`;
}
/** "at 90°, slide at 30", "when closed". */
export const saidAt = (design: Design, { open, drives }: At): string =>
  atState({ ...drives, [OPEN]: open }, (id) => nameOfMechanism(design, id));
