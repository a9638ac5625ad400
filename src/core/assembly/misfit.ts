/** What of a design cannot be made as it stands; found while it is put together. */
import type { Vec2 } from '../plane/vec2';

export type MisfitKind =
  /** A facet has no paper to be cut from. */
  | 'missing-facet'
  /** A crease has paper on one side only, or ends in air. */
  | 'idle-crease'
  /** Paper falls out that should stay. */
  | 'loose-part'
  /** Paper hangs on one crease alone, and nothing moves it. */
  | 'hanging'
  /** Parameters or bonds say two things at once. */
  | 'contradiction'
  /** A part is held by nothing. */
  | 'unheld'
  /** Two mechanisms want the same paper. */
  | 'clash'
  /** A mechanism wants paper that is not there. */
  | 'off-paper'
  /** Something is laid, dressed or made on a facet or crease that the design does not have. */
  | 'nowhere';

export interface Misfit {
  readonly kind: MisfitKind;
  readonly mechanism: string;
  readonly piece: string;
  /** The facet, crease or other mechanism it is about, or a sentence. */
  readonly what: string;
  /** Tells several of one kind and mechanism apart, where `what` is a sentence. */
  readonly key?: string;
  readonly at: Vec2;
  readonly sizeMm: number;
  /** Paper it is about, mm². */
  readonly areaMm2?: number;
}

/** Mechanisms whose paper is missing or wanted twice: what is computed of their loops means nothing. */
export const unsoundMechanisms = (misfits: readonly Misfit[]): ReadonlySet<string> =>
  new Set(
    misfits.flatMap((m) => {
      if (m.kind === 'clash') return [m.mechanism, m.what];
      return m.kind === 'missing-facet' || m.kind === 'off-paper' || m.kind === 'unheld' ? [m.mechanism] : [];
    }),
  );
