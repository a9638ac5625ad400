/** The vocabulary of what is derived from a design: pieces, facets, creases, what is stuck on them. Never saved. */
import type { Drive } from '../drives';
import type {
  Base,
  Bend,
  Bond,
  Contribution,
  Demand,
  Face,
  Filler,
  FoamPad,
  Footing,
  Hardware,
  Host,
  Landmark,
  MovingJoint,
  Side,
  Turns,
} from '../kinds';
import type { Linkage, Rigid, Travel } from '../linkage';
import type { FlatPattern, Interruption } from '../pattern/facets';
import type { CreaseRole, Piece } from '../pattern/pattern';
import type { Segment } from '../plane/arrangement';
import type { Polygon, Region } from '../plane/polygon';
import type { Misfit } from './misfit';

export interface Facet {
  readonly id: string;
  readonly piece: string;
  readonly mechanism: string;
  readonly polygon: Polygon;
  readonly body: number;
  /** Frame of the facet's piece in that of its body. */
  readonly toBody: Rigid;
  /** How far it lies off the leaf that carries it when the card is shut, by design, mm. */
  readonly levelMm: number;
  /** Of paper that bends, the strips it is posed in: what it is a part of, and its places along that. */
  readonly bent?: { readonly bend: string; readonly fromMm: number; readonly toMm: number };
}

export interface Crease {
  readonly id: string;
  readonly role: CreaseRole;
  readonly mechanism: string;
  readonly piece: string;
  /** Where it has paper on both sides, in the flat piece. */
  readonly segments: readonly Segment[];
  /** Facets by index: b is on the left of its direction. */
  readonly a: number;
  readonly b: number;
  /** Below 0: none; its two sides move as one, or what bends folds it. */
  readonly joint: number;
  readonly bend?: string;
}

export interface PlacedMechanism {
  readonly id: string;
  readonly kind: string;
  readonly title: string;
  readonly host: Host | null;
  /** What it is fixed on, where that is no crease. */
  readonly face?: Face;
  readonly landmarks: readonly Landmark[];
  readonly measures: Contribution['measures'];
  readonly demands: readonly Demand[];
  /** Feet that an edge is to stop. */
  readonly footings?: readonly Footing[];
  /** Its numbers, by what they do. */
  readonly turns: Turns;
}

/** Paper stuck on a facet: a mat or a layer, flat or on foam. */
export interface AttachedLayer {
  readonly id: string;
  readonly title: string;
  readonly mechanism: string;
  /** Side of the facet's paper that it is stuck on. */
  readonly side: Side;
  /** Index of the facet that carries it, and that facet's piece: the outline is in its axes. */
  readonly facet: number;
  readonly piece: string;
  readonly region: Region;
  /** Where it is stuck to what it lies on. */
  readonly glue: Region;
  readonly stock: string;
  readonly colour?: string;
  readonly foamMm: number;
  readonly foam: Region;
  readonly foamInsetMm: number;
  /** 1 lies on the facet, 2 on that, and so on. */
  readonly order: number;
  /** A second one like it goes under the inside. */
  readonly doubled: boolean;
}

/** What everything stands on. */
export interface BaseOf {
  readonly mechanism: string;
  /** Its facets as they are before anything is cut from them, in the axes of their pieces. */
  readonly facets: () => readonly {
    readonly id: string;
    readonly polygon: Polygon;
    readonly piece: string;
    /** It has to stay inside the cover when that is shut, and is no part of its outline. */
    readonly inner: boolean;
  }[];
}

export interface Assembly {
  readonly base: BaseOf;
  readonly lead: Parts['lead'];
  /** What a person moves, the opening first. */
  readonly drives: readonly Drive[];
  readonly layers: readonly AttachedLayer[];
  readonly pieces: readonly Piece[];
  readonly interruptions: readonly Interruption[];
  readonly facets: readonly Facet[];
  readonly creases: readonly Crease[];
  readonly bonds: readonly Bond[];
  readonly bends: readonly Bend[];
  readonly mechanisms: readonly PlacedMechanism[];
  readonly foam: readonly FoamPad[];
  readonly fillers: readonly Filler[];
  readonly hardware: readonly Hardware[];
  /** What can be stood on, by crease id. */
  readonly hosts: ReadonlyMap<string, Host>;
  readonly misfits: readonly Misfit[];
  readonly linkage: Linkage;
  readonly travel: Travel;
  /** Bodies that belong to the leaves. */
  readonly leafBodies: ReadonlySet<number>;
  /** Bodies that something ties to the card; where the others lie is not known. */
  readonly tiedBodies: ReadonlySet<number>;
}

export interface Parts {
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  readonly interruptions: readonly Interruption[];
  readonly mechanisms: readonly PlacedMechanism[];
  /** What is moved by hand beside the opening. */
  readonly drives?: readonly Drive[];
  /** What the opening of this base has of its own. */
  readonly opening?: Partial<Drive>;
  readonly moving?: readonly MovingJoint[];
  readonly bends?: readonly Bend[];
  readonly foam?: readonly FoamPad[];
  readonly fillers?: readonly Filler[];
  readonly hardware?: readonly Hardware[];
  readonly hosts: ReadonlyMap<string, Host>;
  readonly contradictions?: readonly Misfit[];
  readonly base: BaseOf;
  /** The crease that the card's opening turns, and the facets it joins; the first lies still. */
  readonly lead: Base['lead'];
}

/** Parts with their facets found and their bodies told apart, before anything is stuck on them. */
export interface LaidOut {
  readonly parts: Parts;
  readonly facets: readonly Facet[];
  readonly flat: FlatPatterns;
  readonly indexOf: ReadonlyMap<string, number>;
  readonly bodies: Bodies;
}

/** The facets found on each piece, by piece. */
export type FlatPatterns = ReadonlyMap<string, FlatPattern>;

export interface Bodies {
  readonly bodyOf: readonly number[];
  /** Frame of each facet's piece in that of its body. */
  readonly toBody: readonly Rigid[];
  readonly count: number;
  /** Bonds that would hold two facets in two places at once. */
  readonly contradictions: readonly Misfit[];
}
