/**
 * What goes otherwise than drawn when a card is made: where it is cut, scored, folded and glued. Each making step of
 * each part is one number of its own, normally distributed.
 */
import type { Unjoined } from '../build/build';

/** Standard deviations. */
export interface Scatter {
  /** Cut edges of a piece, inwards or outwards, mm. */
  readonly cutMm: number;
  /** A crease beside where it is drawn, mm. */
  readonly scoreMm: number;
  /** A fold out of the direction of its crease, degrees. */
  readonly foldDeg: number;
  /** A glued part along and across, mm, and how far it is turned, degrees. */
  readonly glueMm: number;
  readonly glueDeg: number;
}

/** Of a careful maker with a knife and a bone folder: common practice, no source. */
export const USUAL_SCATTER: Scatter = { cutMm: 0.15, scoreMm: 0.25, foldDeg: 0.1, glueMm: 0.4, glueDeg: 0.25 };
export const MOST_SCATTER = { mm: 5, deg: 5 } as const;

export type StepKind = 'cut' | 'score' | 'fold' | 'glueX' | 'glueY' | 'glueTurn';
/** One making step, and how far it usually goes astray. */
export interface MakingStep {
  readonly kind: StepKind;
  /** Piece, crease or bond. */
  readonly id: string;
  /** Standard deviation, mm or degrees. */
  readonly sigma: number;
}

/** Every step that a card takes, in the order of its parts: the same card has the same list. */
export function makingSteps({ laid }: Unjoined, scatter: Scatter): MakingStep[] {
  const pieces = laid.parts.pieces.filter((p) => !p.apart);
  const creases = [...new Set(pieces.flatMap((p) => p.creases.map((c) => c.id)))];
  const steps = [
    ...pieces.map((p): MakingStep => ({ kind: 'cut', id: p.id, sigma: scatter.cutMm })),
    ...creases.flatMap((id): MakingStep[] => [
      { kind: 'score', id, sigma: scatter.scoreMm },
      { kind: 'fold', id, sigma: scatter.foldDeg },
    ]),
    ...laid.parts.bonds.flatMap(({ id }): MakingStep[] => [
      { kind: 'glueX', id, sigma: scatter.glueMm },
      { kind: 'glueY', id, sigma: scatter.glueMm },
      { kind: 'glueTurn', id, sigma: scatter.glueDeg },
    ]),
  ];
  return steps.filter((s) => s.sigma > 0);
}

/** How far each step of one made card went astray, mm or degrees, by kind and id. */
export class Astray {
  private readonly amounts = new Map<string, number>();
  constructor(steps: readonly MakingStep[], amounts: ArrayLike<number>) {
    steps.forEach(({ kind, id }, k) => this.amounts.set(`${kind} ${id}`, amounts[k]));
  }
  of(kind: StepKind, id: string): number {
    return this.amounts.get(`${kind} ${id}`) ?? 0;
  }
}
