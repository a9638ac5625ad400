/** What a rule is, what it is given, and what it finds (docs/mechanisms.md, rules). */
import { CLOSED, FLAT, type State } from '../drives';
import type { Assembly, Facet } from '../assembly/assembly';
import { onFacet, poseAt, type Pose } from '../assembly/pose';
import type { NamedState, Stance, Turn } from '../kinds';
import type { FlatSize, PostFormat } from '../paper/sizes';
import type { Stock } from '../paper/stocks';
import { boxOf } from '../plane/polygon';
import type { Piece } from '../pattern/pattern';
import type { Vec2 } from '../plane/vec2';
import type { LengthUnit } from '../units/length';

export const RULE_IDS = [
  'flat-fold',
  'flex',
  'overhang',
  'sweep',
  'collision',
  'web',
  'loose-part',
  'glue-room',
  'foam',
  'thickness',
  'gutter-relief',
  'post-size',
  'sheet-fit',
  'grain',
  'tip',
  'captive',
  'bind',
  'grip',
  'covered',
  'stands',
  'stock',
] as const;
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

/** What stands in the way, for those who say it in two words. */
export type Cause =
  | { readonly of: 'beside'; readonly mechanism: string }
  | { readonly of: 'past'; readonly side: 'fore' | 'spine' | 'head' | 'foot' }
  | { readonly of: 'unheld' | 'stays-open' | 'contradiction' };

export interface Finding {
  /** The same finding keeps its id while its numbers change: rule, mechanism and aspect. */
  readonly id: string;
  readonly rule: RuleId;
  readonly severity: Severity;
  readonly mechanism: string;
  readonly piece: string;
  readonly measured: number;
  readonly limit: number;
  readonly unit: Unit;
  readonly drive: State;
  /** Openings between which it holds, where that is more than one. */
  readonly span?: { readonly from: number; readonly to: number };
  readonly message: string;
  /** Facets, creases or glue areas it is about, by id. */
  readonly subjects: readonly string[];
  /**
   * Tells two findings of one rule and mechanism apart (the side, the neighbour); carries no number that may
   * change.
   */
  readonly aspect: string;
  readonly cause?: Cause;
  readonly levers: readonly Lever[];
  readonly remedies?: readonly Remedy[];
  /** Where no single parameter clears it: the nearest try, and what was still found then. */
  readonly nearest?: Remedy & { readonly left: string };
  /** The card is too large to look for remedies of all its findings at once: none were looked for yet. */
  readonly unsought?: true;
}

/** What a rule says of one finding; what is left out is as in most: in mm, with the card flat, nothing to light. */
export type Draft = Pick<Finding, 'rule' | 'severity' | 'mechanism' | 'measured' | 'aspect' | 'message'> &
  Partial<Pick<Finding, 'piece' | 'limit' | 'unit' | 'span' | 'subjects' | 'levers' | 'cause'>> & {
    /** Where it happens; open flat unless said. */
    readonly at?: State;
    /** What it is about, where that is not the mechanism it is laid to. */
    readonly about?: string;
  };

/** The one place where findings are made. */
export function finding({ at = FLAT, about, ...draft }: Draft): Finding {
  return {
    piece: '',
    limit: 0,
    unit: 'mm',
    subjects: [],
    levers: [],
    ...draft,
    drive: at,
    id: [draft.rule, about ?? draft.mechanism, draft.aspect].join(' '),
  };
}

/** What the card is for, as far as rules need it. */
export interface Brief {
  /** A facet, crease or glue area without whose it is: "riser". */
  readonly words: (part: string) => string;
  /** What lengths are said in. */
  readonly units: LengthUnit;
  readonly stayInside: boolean;
  /** It goes into its envelope open flat, not shut. */
  readonly sentOpen: boolean;
  /** How far a mechanism, a piece of the base or a layer is meant to stick out of the shut card, mm. */
  readonly meantOutMm: (of: string) => number;
  readonly envelope: FlatSize | null;
  readonly post: PostFormat | null;
  readonly stock: (id: string) => Stock;
  readonly states: readonly NamedState[];
  /** How the base stands by itself, where it is built for that. */
  readonly stands?: Stance;
  /** The way a facet of the base is read, up, in the axes of its piece. */
  readonly up: (facet: string) => Vec2;
  /** Strip round the sheet that is not printed or cut. */
  readonly sheetMarginMm: (stock: Stock) => number;
  readonly sheet: (stock: Stock) => FlatSize | undefined;
}

export interface Evidence {
  readonly assembly: Assembly;
  readonly brief: Brief;
  /** Null where the travel does not reach the closed pose. */
  readonly closed: Pose | null;
  /** Poses from closed to open, as far as the travel goes. */
  readonly travel: readonly Pose[];
  /** Poses of every other drive's travel, at several openings. */
  readonly byHand: readonly Pose[];
  /** Poses of the states that are named. */
  readonly named: readonly Pose[];
  /** It is only asked whether something is found, not how large it is: searches ask so many times. */
  readonly rough?: boolean;
}

export interface Rule {
  readonly id: RuleId;
  /** What it looks at: only the flat pieces, the closed pose too, or the whole travel. */
  readonly needs: 'pattern' | 'closed' | 'travel';
  /** It tells risks and notes only: who asks whether a card can be made need not ask it. */
  readonly neverBlocks?: true;
  readonly check: (evidence: Evidence) => Finding[];
}

export const caliperOf = ({ assembly, brief }: Pick<Evidence, 'assembly' | 'brief'>, facet: Facet): number =>
  brief.stock(assembly.pieces.find((p) => p.id === facet.piece)!.stock).caliperMm;

/** Whether a mechanism is the base. */
export const isBase = ({ base }: Pick<Assembly, 'base'>, mechanism: string): boolean => mechanism === base.mechanism;

/** The outermost piece of the base: it carries the others. */
export function basePiece({ pieces, base }: Pick<Assembly, 'pieces' | 'base'>): Piece {
  const own = pieces.filter((p) => p.mechanism === base.mechanism && !p.apart);
  return own.reduce((a, b) => (areaOfBox(b) > areaOfBox(a) ? b : a));
}
const areaOfBox = ({ outline }: Piece): number => {
  const { min, max } = boxOf(outline.outer);
  return (max[0] - min[0]) * (max[1] - min[1]);
};

/** Where the closed base ends, mm in world axes: along the gutter, and away from it. */
export interface BaseExtent {
  readonly foot: number;
  readonly head: number;
  readonly spine: number;
  readonly fore: number;
}
const extents = new WeakMap<Assembly, BaseExtent>();
/** The least and the greatest of the closed base, each side by itself. */
export function baseExtent(assembly: Assembly): BaseExtent {
  const known = extents.get(assembly) ?? measuredExtent(assembly);
  extents.set(assembly, known);
  return known;
}
/** Facets of the base that are its outline when it is shut, as they are before anything is cut from them. */
export const coverFacets = ({ base }: Pick<Assembly, 'base'>): ReturnType<Assembly['base']['facets']> =>
  base.facets().filter((f) => !f.inner);
function measuredExtent(assembly: Assembly): BaseExtent {
  const closed = poseAt(assembly, CLOSED);
  // Where it does not close, as its leaves would lie if they did.
  const lies = (facet: number, p: Vec2): readonly number[] =>
    closed.stop ? [p[0], Math.abs(p[1])] : onFacet(closed, facet, p);
  const corners = coverFacets(assembly).flatMap(({ id, polygon }) => {
    const facet = assembly.facets.findIndex((f) => f.id === id);
    return facet < 0 ? [] : polygon.outer.map((p) => lies(facet, p));
  });
  const [foot, head, spine, fore] = corners.reduce(
    ([x0, x1, y0, y1], [x, y]) => [Math.min(x0, x), Math.max(x1, x), Math.min(y0, y), Math.max(y1, y)],
    [Infinity, -Infinity, Infinity, -Infinity],
  );
  return { foot, head, spine, fore };
}

/** Numbers of a mechanism that do one thing or another, each once. */
export function turnsOf({ mechanisms }: Assembly, mechanism: string, ...turns: readonly Turn[]): Lever[] {
  const own = mechanisms.find((m) => m.id === mechanism)?.turns;
  return leversOf(mechanism, ...new Set(turns.flatMap((turn) => own?.[turn] ?? [])));
}
/** Levers of one mechanism, those it has. */
export const leversOf = (mechanism: string, ...parameters: string[]): Lever[] =>
  parameters.map((parameter) => ({ mechanism, parameter }));
