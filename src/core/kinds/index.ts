import type { Kind, Parameter, ParameterUnit } from './kind';
import { floatingBand } from './on-crease/floating-band';
import { foldCardParameters } from './bases/fold-card';
import { halfCut } from './on-crease/half-cut';
import { planeStack } from './on-crease/plane-stack';
import { stepFold } from './on-crease/step-fold';
import { strutFigure } from './on-crease/strut-figure';
import { vFold } from './on-crease/v-fold';
import { carrierWheel } from './on-facet/carrier-wheel';
import { liftTab } from './on-facet/lift-tab';
import { pocket } from './on-facet/pocket';
import { trackSlider } from './on-facet/track-slider';
import { waterfall } from './on-facet/waterfall';
import { volvelle } from './on-facet/volvelle';

export * from './kind';
export { buildFoldCard, foldCardParameters, GUTTER, type BasePieces } from './bases/fold-card';
export { strutTrade, type StrutTrade } from './on-crease/strut-figure';

/** Kinds of mechanism, by id. To add one: docs/adding-a-mechanism.md. */
export const KINDS: ReadonlyMap<string, Kind> = new Map(
  [
    stepFold,
    planeStack,
    strutFigure,
    halfCut,
    floatingBand,
    vFold,
    volvelle,
    trackSlider,
    liftTab,
    waterfall,
    carrierWheel,
    pocket,
  ].map((k) => [k.id, k]),
);

export interface KindInfo {
  readonly id: string;
  readonly title: string;
  readonly parameters: readonly Parameter[];
}
/** Every kind with its parameters, the base card first. */
export const kindInfo = (): KindInfo[] => [
  { id: 'fold-card', title: 'Plain card', parameters: foldCardParameters },
  ...[...KINDS.values()].map(({ id, title, parameters }) => ({ id, title, parameters })),
];
export type { ParameterUnit };
