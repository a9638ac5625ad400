/** What a rule is, what it is given, and what it finds (handbook section 1). */
import type { Assembly, Facet } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import type { FlatSize, PostFormat } from '../paper/sizes';
import type { Stock } from '../paper/stocks';

export const RULE_IDS = ['flat-fold', 'flex', 'overhang', 'sweep', 'collision', 'web', 'loose-part', 'glue-room', 'foam', 'thickness', 'gutter-relief', 'post-size', 'sheet-fit', 'tip'] as const;
export type RuleId = (typeof RULE_IDS)[number];
export type Severity = 'blocks' | 'risk' | 'note';
export type Unit = 'mm' | 'deg' | 'mm2' | 'ratio' | 'count';

/** A parameter whose change may clear a finding. */
export interface Lever {
  readonly mechanism: string;
  readonly parameter: string;
}
export interface Remedy extends Lever {
  readonly value: number;
}

export interface Finding {
  readonly rule: RuleId;
  readonly severity: Severity;
  readonly mechanism: string;
  readonly piece: string;
  readonly measured: number;
  readonly limit: number;
  readonly unit: Unit;
  readonly drive: { readonly open: number };
  /** Openings between which it holds, where that is more than one. */
  readonly span?: { readonly from: number; readonly to: number };
  readonly message: string;
  /** Facets, creases or glue areas it is about, by id. */
  readonly subjects: readonly string[];
  /** Tells two findings of one rule and mechanism apart: the side, the neighbour. */
  readonly aspect: string;
  readonly levers: readonly Lever[];
  readonly remedies?: readonly Remedy[];
}

/** What the card is for, as far as rules need it. */
export interface Brief {
  readonly stayInside: boolean;
  readonly envelope: FlatSize | null;
  readonly post: PostFormat | null;
  readonly stock: (id: string) => Stock;
  /** Strip round the sheet that is not printed or cut. */
  readonly sheetMarginMm: number;
  readonly sheet: (id: string) => FlatSize | undefined;
}

export interface Evidence {
  readonly assembly: Assembly;
  readonly brief: Brief;
  /** Null where the travel does not reach the closed pose. */
  readonly closed: Pose | null;
  /** Poses from closed to open, as far as the travel goes. */
  readonly travel: readonly Pose[];
  /** It is only asked whether something is found, not how large it is: searches ask so many times. */
  readonly rough?: boolean;
}

export interface Rule {
  readonly id: RuleId;
  /** What it looks at: only the flat pieces, the closed pose too, or the whole travel. */
  readonly needs: 'pattern' | 'closed' | 'travel';
  readonly check: (evidence: Evidence) => Finding[];
}

export const caliperOf = ({ assembly, brief }: Pick<Evidence, 'assembly' | 'brief'>, facet: Facet): number =>
  brief.stock(assembly.pieces.find((p) => p.id === facet.piece)!.stock).caliperMm;

/** How far the base reaches: along the gutter to each side of its middle, and from the gutter. */
export function baseExtent(assembly: Assembly): { half: number; reachA: number; reachB: number } {
  const { outer } = assembly.pieces.find((p) => p.id === 'card')!.outline;
  const xs = outer.map((p) => p[0]);
  const ys = outer.map((p) => p[1]);
  return { half: Math.max(...xs), reachA: Math.max(...ys), reachB: -Math.min(...ys) };
}

/** One decimal, as a maker reads it. */
export const mm = (value: number): string => `${Math.abs(value) < 0.05 && value !== 0 ? value.toFixed(2) : value.toFixed(1)} mm`;
export const atDeg = (open: number): string => (open < 0.05 ? 'when closed' : open > 179.95 ? 'open flat' : `at ${open.toFixed(0)}°`);
export const titleOf = (assembly: Assembly, mechanism: string): string =>
  mechanism === 'card' ? 'The card' : assembly.mechanisms.find((m) => m.id === mechanism)?.title ?? mechanism;

/** Levers of one mechanism, those it has. */
export const leversOf = (mechanism: string, ...parameters: string[]): Lever[] => parameters.map((parameter) => ({ mechanism, parameter }));
