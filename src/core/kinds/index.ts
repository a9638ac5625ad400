import type { BaseKind, Kind, Parameter, ParameterUnit } from './kind';
import { floatingBand } from './on-crease/floating-band';
import { boxFrame } from './bases/box-frame';
import { easel } from './bases/easel';
import { foldCard } from './bases/fold-card';
import { gateInsert } from './bases/gate-insert';
import { halfCut } from './on-crease/half-cut';
import { leafBundle } from './on-crease/leaf-bundle';
import { planeStack } from './on-crease/plane-stack';
import { stepFold } from './on-crease/step-fold';
import { stepStrips } from './on-crease/step-strips';
import { strutFigure } from './on-crease/strut-figure';
import { vFold } from './on-crease/v-fold';
import { twistFold } from './on-crease/twist-fold';
import { carrierWheel } from './on-facet/carrier-wheel';
import { foldedFigure } from './on-facet/folded-figure';
import { liftTab } from './on-facet/lift-tab';
import { pocket } from './on-facet/pocket';
import { trackSlider } from './on-facet/track-slider';
import { waterfall } from './on-facet/waterfall';
import { volvelle } from './on-facet/volvelle';
import { zWindow } from './on-facet/z-window';
import { ownLines } from './own/own-lines';

export * from './kind';
export { GUTTER, POSTED } from './bases/fold-card';
export { GUIDES, type Guide } from './guide';
export { hostsIn } from './hosts-in';
export { amountIn, LONGEST_AMOUNT, namesIn, type Amount, type Numbers } from './own/amount';
export * from './own/own-line';
export { drawLines, inBox, spotsIn, type DrawnSpot } from './own/draw';
export { linesOf, numbersOf, OWN_LINES, partsOf } from './own/own-lines';
export { surroundings } from './own/on-piece';
export { changeText, movedParts, OWN_STOCK, PART_LISTS, unnamed, type Parts, type Places } from './own/parts';
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
    leafBundle,
    stepStrips,
    twistFold,
    volvelle,
    trackSlider,
    liftTab,
    waterfall,
    carrierWheel,
    pocket,
    zWindow,
    foldedFigure,
    ownLines,
  ].map((k) => [k.id, k]),
);

/** Kinds of base, by id; the first is what a card is unless its construction says otherwise. */
export const BASES: ReadonlyMap<string, BaseKind> = new Map(
  [foldCard, gateInsert, easel, boxFrame].map((k) => [k.id, k]),
);
export const PLAIN_BASE = foldCard.id;

/** A base or a mechanism by its id. */
export const kindById = (id: string): Kind | BaseKind | undefined => KINDS.get(id) ?? BASES.get(id);

export interface KindInfo {
  readonly id: string;
  readonly title: string;
  readonly parameters: readonly Parameter[];
}
/** Every kind with its parameters, bases first. */
export const kindInfo = (): KindInfo[] => [
  ...[...BASES.values(), ...KINDS.values()].map(({ id, title, parameters }) => ({ id, title, parameters })),
];
export type { ParameterUnit };

/** Parameters that kinds have alike, by key and unit. */
export function parametersInCommon(kinds: readonly string[]): readonly Parameter[] {
  const [first, ...rest] = kinds.map((id) => kindById(id)?.parameters ?? []);
  return (first ?? []).filter((p) => rest.every((list) => list.some((q) => q.key === p.key && q.unit === p.unit)));
}
