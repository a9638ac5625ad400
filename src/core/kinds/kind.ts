/** What a mechanism kind is: how it stands, its sizes, and how it is built. */
import { otherSide, SIDES, type Side } from '../side';
import type { AnyKind } from './any-kind';
import type { BuildContext, FaceContext, FaceSize, HostSize, Whole } from './context';
import type { Contribution } from './contribution';
import type { ParameterValues } from './parameter';
import type { FaceStep } from './work-step';

export * from './any-kind';
export * from './base-kind';
export * from './context';
export * from './contribution';
export * from './parameter';
export * from './work-step';
export { otherSide, SIDES, type Side };
export type { CreaseLine, FacetLabel, GlueArea, PatternLine, Piece } from '../pattern/pattern';

/** All that is to be known of a mechanism, or of a base, for every floor and the interface. */
export type Kind = CreaseKind | FaceKind;
/** It stands on a crease that two facets share. */
export interface CreaseKind extends AnyKind {
  readonly mount: 'crease';
  /** Sizes of a new one that suit the crease it is put on. */
  readonly fitting: (host: HostSize, whole: Whole) => ParameterValues;
  readonly build: (values: ParameterValues, context: BuildContext) => Contribution;
  /** How what is cut from its sheet is folded, where that is not pushed forward out of it. */
  readonly foldedSo?: string;
  /** It can be fixed on a face as well. */
  readonly onFace?: FaceMounting;
}
/** How something is fixed on a face of a facet. */
export interface FaceMounting {
  /** Where it goes unless said. */
  readonly natural: Side;
  /** It goes on the leaf that the cover closes over. */
  readonly behindCover?: true;
  /** How it is put together, step after step. */
  readonly order: (values: ParameterValues) => readonly FaceStep[];
  /** Sizes of a new one that suit the face it is put on. */
  readonly fitting: (face: FaceSize, whole: Whole) => ParameterValues;
  readonly build: (values: ParameterValues, context: FaceContext) => Contribution;
}
/** It is fixed on a face of a facet. */
export interface FaceKind extends AnyKind, FaceMounting {
  readonly mount: 'face';
  /** Values of its drive at which it is stopped to be looked at. */
  readonly stops?: (values: ParameterValues) => readonly number[];
}
/** How a kind is fixed on faces; null for one that only stands on creases. */
export const faceMounting = (kind: Kind | undefined): FaceMounting | null =>
  kind?.mount === 'face' ? kind : kind?.mount === 'crease' ? (kind.onFace ?? null) : null;
