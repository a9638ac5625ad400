import type { Kind, Parameter, ParameterUnit } from './kind';
import { floatingBand } from './floating-band';
import { foldCardParameters } from './fold-card';
import { halfCut } from './half-cut';
import { planeStack } from './plane-stack';
import { stepFold } from './step-fold';
import { strutFigure } from './strut-figure';
import { vFold } from './v-fold';

export * from './kind';
export { buildFoldCard, foldCardParameters, GUTTER, type BasePieces } from './fold-card';
export { strutTrade, type StrutTrade } from './strut-figure';

/** Kinds that stand on a crease, by id. To add one: docs/adding-a-mechanism.md. */
export const KINDS: ReadonlyMap<string, Kind> = new Map(
  [stepFold, planeStack, strutFigure, halfCut, floatingBand, vFold].map((k) => [k.id, k]),
);

export interface KindInfo {
  readonly id: string;
  readonly title: string;
  readonly parameters: readonly Parameter[];
}
/** Every kind with its parameters, the base card first. */
export const KIND_INFO: readonly KindInfo[] = [
  { id: 'fold-card', title: 'Plain card', parameters: foldCardParameters },
  ...[...KINDS.values()].map(({ id, title, parameters }) => ({ id, title, parameters })),
];
export type { ParameterUnit };
