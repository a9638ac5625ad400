/** The document: what a person edits and saves. Plain JSON; lengths in mm, angles in degrees. */
import type { NamedState, ParameterValues, Side } from '../kinds';
import type { AdhesiveId } from '../paper/adhesives';
import type { MachineProfile } from '../paper/machine';
import { STARTER_STOCKS, type Stock } from '../paper/stocks';
import type { Making } from '../pattern/making';
import type { Corners } from '../plane/polygon';
import type { Shape, ShapeAsset, ShapeShelf, TextShape } from '../shapes/shape';
import { roundedForCutting, type LengthUnit } from '../units/length';
import type { Delta } from './delta';
import type { PrintedPicture } from './pictures';
import type { Template } from './template';

export const DESIGN_VERSION = 2;

/** A place on a face: from the facet's middle, as its reader sees it, mm; turned counter-clockwise. */
export interface Mount {
  readonly side: Side;
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
}

/** In the middle, upright. */
export const CENTRE: Mount = { side: 'inside', x: 0, y: 0, turnDeg: 0 };

export interface Mechanism {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  /** Crease it stands on, `card.gutter` or `MECHANISM.CREASE`; or facet it is fixed on, with its place there. */
  readonly on: string;
  readonly mount?: Mount;
  /** Missing keys take the kind's defaults. */
  readonly parameters: ParameterValues;
  /** Stock of its own pieces. */
  readonly stock: string;
}

/** A mat: the outline of a facet, inset, from a stock, on it. The next one lies on the one before. */
export interface Mat {
  readonly insetMm: number;
  /** Inset by side instead of evenly, mm. */
  readonly sides?: { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
  /** Sharp unless said. */
  readonly corners?: Corners;
  readonly stock: string;
  /** Colour of its own; that of its stock unless said. */
  readonly colour?: string;
  /** Fixed on foam of this thickness, mm; flat unless said. */
  readonly foamMm?: number;
  /** How far the foam stays inside it, mm. */
  readonly foamInsetMm?: number;
  /** A second one like it lies under the inside. */
  readonly doubled?: boolean;
}
/**
 * A shape on a facet: a layer of paper, a window cut out of it, or a drawing. Placed from a corner, edge or the middle
 * of the facet, so that it stays there when sizes change; on the outside left and right are as they are seen there.
 */
export interface Layer {
  readonly id: string;
  readonly name: string;
  readonly facet: string;
  /** The side of the paper it is seen on; inside unless said. */
  readonly side?: Side;
  readonly shape: Shape;
  readonly as: 'layer' | 'window' | 'drawn';
  readonly from: { readonly x: 'low' | 'middle' | 'high'; readonly y: 'low' | 'middle' | 'high' };
  /** From there to the same place of the shape, mm. */
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
  /** Scaled to these; null follows from the other, both null: as drawn. */
  readonly width: number | null;
  readonly height: number | null;
  readonly stock: string;
  readonly colour?: string;
  /** 0: bonded flat. */
  readonly foamMm: number;
  readonly foamInsetMm: number;
  readonly doubled?: boolean;
  /** Cut off where its facet ends, however far its shape would reach. */
  readonly trimmed?: boolean;
  /** Where it is stuck; all over unless said. The rest of it is free paper. */
  readonly glued?: Glued;
  /** It stops the foot that rests on its facet: it lies where that comes to rest, and goes along with it. */
  readonly stops?: boolean;
}
/** Where a layer is stuck to what it lies on: where all that is said here holds, lengths in mm. */
export interface Glued {
  /** On the facet that carries it alone, wherever else it reaches. */
  readonly onFacet?: boolean;
  /** So far inside its edge, all round. */
  readonly insetMm?: number;
  /** So much of it is left free on a side, of its box as that is seen. */
  readonly free?: { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
}

/** A layer as it starts: of its shape's own size, in the middle of its facet, bonded flat. */
export const newLayer = (own: Pick<Layer, 'id' | 'name' | 'facet' | 'side' | 'shape' | 'as' | 'stock'>): Layer => ({
  ...own,
  from: { x: 'middle', y: 'middle' },
  x: 0,
  y: 0,
  turnDeg: 0,
  width: null,
  height: null,
  foamMm: 0,
  foamInsetMm: 3,
});
/** A picture or words printed on a facet or layer, clipped to its shape. */
export interface Artwork {
  readonly id: string;
  readonly name: string;
  /** Facet, or layer as `layer.ID`. */
  readonly on: string;
  /** The side of a facet; inside unless said. A layer is printed on its face. */
  readonly side?: Side;
  readonly what: { readonly picture: string } | { readonly text: TextShape; readonly colour: string };
  /** Its middle from that of what it is on, as that is seen, mm; turned to the left. */
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
  /** Of a picture; its height follows. */
  readonly widthMm: number;
  /** Printed so far past the edge, mm. */
  readonly bleedMm: number;
}
/** Which edge a sheet is turned over about to print its back; none: fronts only. */
export type Backs = 'none' | 'long' | 'short';

/** Where a piece was put on a sheet. */
export interface Place {
  readonly piece: string;
  /** Which of its kind, from 1. */
  readonly copy: number;
  /** Id of the sheet on the shelf, as `card-240/whole/1`. */
  readonly sheet: string;
  /** Where the origin of the piece's axes lies on the sheet, mm; turned to the left. */
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
  /** It stays there when the rest is nested again. */
  readonly locked?: boolean;
}
/** Where the lower left of a sheet lies on a bed, from 0; turned a quarter to the left. */
export interface OnBed {
  readonly bed: number;
  readonly x: number;
  readonly y: number;
  readonly turned?: boolean;
}
export interface SheetChoices {
  readonly marginMm: number;
  readonly spacingMm: number;
  readonly copies: number;
  /** How many more of a piece, by its id. */
  readonly spares?: Readonly<Record<string, number>>;
  /** Pieces that may lie with their longest crease across the grain, by id: an offcut may then be enough. */
  readonly anyGrain?: readonly string[];
  /** Of the nesting: another one finds another layout. */
  readonly seed?: number;
  readonly places?: readonly Place[];
  /** Printed before it is cut: marks to register by, and backs. */
  readonly print?: { readonly marks: boolean; readonly backs: Backs };
  /** A cutting bed that takes several sheets at once; where sheets lie on it that were put somewhere, by their id. */
  readonly bed?: {
    readonly widthMm: number;
    readonly heightMm: number;
    readonly at: Readonly<Record<string, OnBed>>;
  };
}
/** How a glue area is stuck, where its maker says so. */
export interface Gluing {
  /** Of the area, by id. */
  readonly glue: string;
  readonly adhesive: AdhesiveId;
  /** Thickness, where it is foam. */
  readonly foamMm?: number;
  /** Set in so much further from its edges than its kind has it; below 0 out, mm. */
  readonly insetMm?: number;
}

/** What a maker calls a facet or a crease, by its id. */
export interface PartName {
  readonly of: string;
  readonly name: string;
}

/** A mechanism, a piece of the base or a layer (`layer.ID`) that may pass the edge of the shut card by so much, mm. */
export interface MeantOut {
  readonly of: string;
  readonly mm: number;
}

/** The stock of one piece, both by id. */
export interface CutFrom {
  readonly piece: string;
  readonly stock: string;
}

export interface Dressing {
  /** Facet, by id. */
  readonly facet: string;
  /** The side of the paper that is dressed; inside unless said. */
  readonly side?: Side;
  readonly colour?: string;
  readonly mats: readonly Mat[];
}

/** An envelope that is not listed, mm. */
export interface OwnEnvelope {
  readonly id: string;
  readonly name: string;
  readonly shortMm: number;
  readonly longMm: number;
}
/** What some post takes at most, mm. */
export interface OwnFormat {
  readonly id: string;
  readonly name: string;
  readonly most: { readonly shortMm: number; readonly longMm: number; readonly thickMm: number };
}

export interface Design {
  readonly rhabdoplex: typeof DESIGN_VERSION;
  readonly name: string;
  readonly units: LengthUnit;
  readonly card: {
    /** Kind of the base; a plain card unless said. */
    readonly construction?: string;
    readonly parameters: ParameterValues;
    readonly stock: string;
    /** Stock of the liner, where there is one. */
    readonly pageStock: string;
    /** A brought-in template takes the place of the plain card. */
    readonly template?: Template;
    /** It may not stick out while it opens: for a card opened in a sleeve or beside a neighbour. */
    readonly stayInside: boolean;
  };
  readonly stocks: readonly Stock[];
  readonly post: {
    readonly envelope: string | null;
    readonly format: string | null;
    /** Envelopes and limits that its maker keeps beside the listed ones. */
    readonly own?: { readonly envelopes: readonly OwnEnvelope[]; readonly formats: readonly OwnFormat[] };
    /** How it lies in its envelope: shut unless said. */
    readonly sent?: 'open';
  };
  readonly mechanisms: readonly Mechanism[];
  readonly dressing: readonly Dressing[];
  readonly layers: readonly Layer[];
  /** Shapes kept for use anywhere in the card. */
  readonly shapes: readonly ShapeAsset[];
  readonly making: {
    readonly all: Making;
    readonly roles?: { readonly valley?: Making; readonly mountain?: Making };
    readonly creases: Readonly<Record<string, Making>>;
  };
  readonly sheets: SheetChoices;
  readonly pictures?: readonly PrintedPicture[];
  readonly artwork?: readonly Artwork[];
  /** The machine that cuts it. */
  readonly machine?: MachineProfile;
  /** Steps of the work that are done, by id. */
  readonly done?: readonly string[];
  /** Glue that is not as its kind has it. */
  readonly gluing?: readonly Gluing[];
  /** Pieces that are cut from another stock than their kind has them from. */
  readonly cutFrom?: readonly CutFrom[];
  /** Facets and creases by the names that their maker gave them. */
  readonly names?: readonly PartName[];
  /** What is meant to stick out of the shut card, and by how much. */
  readonly meantOut?: readonly MeantOut[];
  /** States that its maker names; those of its base unless said. */
  readonly states?: readonly NamedState[];
  /** Variants of it, as differences from it. */
  readonly variants?: readonly Variant[];
  readonly notes: string;
}

/** Another state of a card, kept beside it. */
export interface Variant {
  readonly id: string;
  readonly name: string;
  /** From the card to the variant; null where they are alike. */
  readonly delta: Delta | null;
}

/** A plain card with nothing on it. */
export function blankDesign(name: string, gutter = 200, reach = 140): Design {
  return {
    rhabdoplex: DESIGN_VERSION,
    name,
    units: 'mm',
    card: {
      parameters: { gutter, reachA: reach, reachB: reach, fold: 'side', liner: 0 },
      stock: 'card-240',
      pageStock: 'card-160',
      stayInside: false,
    },
    stocks: STARTER_STOCKS,
    post: { envelope: null, format: null },
    mechanisms: [],
    dressing: [],
    layers: [],
    shapes: [],
    making: { all: { way: 'score' }, creases: {} },
    sheets: { marginMm: 5, spacingMm: 3, copies: 1 },
    notes: '',
  };
}

/** A new card of about a size for someone who measures so: in inches on marks of a ruler, and cut from Letter. */
export function blankIn(units: LengthUnit, name: string, gutter = 200, reach = 140): Design {
  const mark = (mm: number): number => roundedForCutting(mm, units);
  const plain = blankDesign(name, mark(gutter), mark(reach));
  if (units === 'mm') return plain;
  const { marginMm, spacingMm, ...sheets } = plain.sheets;
  return {
    ...plain,
    units,
    stocks: plain.stocks.map((s) => ({ ...s, sheet: INCH_SHEET, leastWebMm: mark(s.leastWebMm) })),
    sheets: { ...sheets, marginMm: mark(marginMm), spacingMm: mark(spacingMm) },
  };
}
const INCH_SHEET = 'letter';

/** The side of the paper something lies on; older files say none and mean the inside. */
export const sideOf = (what: { readonly side?: Side }): Side => what.side ?? 'inside';
/** Colour and mats of one side of a facet. */
export const dressingOf = (design: Design, facet: string, side: Side): Dressing | undefined =>
  design.dressing.find((d) => d.facet === facet && sideOf(d) === side);

/** Marks to register by stand in the corners of a sheet, and need this much room along its edges, mm. */
export const MARKS_ROOM_MM = 10;
/** The edge of a sheet of a stock that nothing is laid on, mm. */
export function marginOf(
  { sheets: { marginMm, print } }: Pick<Design, 'sheets'>,
  stock: Pick<Stock, 'marginMm'>,
): number {
  const own = stock.marginMm ?? marginMm;
  return print?.marks ? Math.max(own, MARKS_ROOM_MM) : own;
}

/** Kept shapes by id. */
export const shelfOf = (design: Design): ShapeShelf => new Map(design.shapes.map((a) => [a.id, a]));

export const stockOf = (design: Design, id: string): Stock =>
  design.stocks.find((s) => s.id === id) ?? design.stocks[0];
