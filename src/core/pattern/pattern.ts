/** Flat pieces: outlines, lines with roles, glue areas. Lengths in mm, y up, inside face toward the viewer. */
import type { AdhesiveId } from '../paper/adhesives';
import type { Polygon, Region, Ring } from '../plane/polygon';
import type { Side } from '../side';
import type { Vec2 } from '../plane/vec2';

/** What a line is for. How a crease is produced (scored, perforated) is an output choice, see `making.ts`. */
export const LINE_ROLES = ['cut', 'valley', 'mountain', 'perforation', 'window', 'mark', 'glue'] as const;
export type LineRole = (typeof LINE_ROLES)[number];
/** What a line of a template may be for: a perforation folds up unless it is said to fold down. */
export const TEMPLATE_ROLES = [...LINE_ROLES, 'perforation-mountain'] as const;
export type TemplateRole = (typeof TEMPLATE_ROLES)[number];
export type CreaseRole = 'valley' | 'mountain';

export interface PatternLine {
  readonly role: 'cut' | 'mark';
  /** Side of the paper that a mark is drawn on; the inside unless said. */
  readonly side?: Side;
  readonly a: Vec2;
  readonly b: Vec2;
  readonly mechanism: string;
}

/** A straight crease of a piece. Other mechanisms may interrupt it where they stand on it. */
export interface CreaseLine {
  /** `MECHANISM.NAME`, unique in the document. */
  readonly id: string;
  readonly role: CreaseRole;
  readonly mechanism: string;
  readonly a: Vec2;
  readonly b: Vec2;
  /** Fold (rad, with sign) at the ends of the card's travel, where the design fixes it. */
  readonly ends: readonly [closed: number | undefined, open: number | undefined];
  /** Crease it stands on; its stiffness follows that one's fold. */
  readonly standsOn?: string;
  /** What a hand folds by a drive of its own: its fold without a sign, rad, `at` and so much a rad of the drive. */
  readonly drive?: { readonly id: string; readonly at: number; readonly rate: number };
}

export interface GlueArea {
  readonly id: string;
  readonly mechanism: string;
  readonly outline: Ring;
  /** Facet that carries the adhesive, by label. */
  readonly facet: string;
  /** Piece and facet label it is stuck to. */
  readonly onto: { readonly piece: string; readonly facet: string; readonly outline: Ring };
  /** What it is stuck with, wet glue unless said, and how thick that is, mm. */
  readonly adhesive?: AdhesiveId;
  readonly thickMm?: number;
}

/** Names the facet that holds a point. Chosen where nothing else of the design will cut. */
export interface FacetLabel {
  readonly name: string;
  readonly at: Vec2;
  readonly mechanism: string;
}

/** Paper that belongs to something, so that parts cut off its labelled facet are still known as its own. */
export interface OwnedArea {
  readonly name: string;
  readonly mechanism: string;
  readonly polygon: Polygon;
}

export interface Piece {
  readonly id: string;
  readonly title: string;
  readonly mechanism: string;
  readonly stock: string;
  readonly outline: Polygon;
  /** How far its middle lies off that of the leaf that carries it, mm; in its plane unless said. */
  readonly levelMm?: number;
  /** Over one face it is one sheet with what is alike and lies over it (`build/shared.ts`). */
  readonly shares?: 'front' | 'backing';
  /** It is cut as part of this piece, and stands for it where it lies. */
  readonly cutWith?: string;
  /** It is made to stand out behind the fold that carries it, on the side that this folds away from. */
  readonly behindFold?: true;
  /** Lies beside the card: cut and listed, but not posed with it. */
  readonly apart?: boolean;
  /** Cut so many times and glued over each other: they are as one. Once unless said. */
  readonly times?: number;
  /** What is cut out of a facet by a layer, by the layer's id. */
  readonly openings?: readonly { readonly layer: string; readonly facet: string; readonly region: Region }[];
  /** Paper inside a window that nothing ties to the rest. */
  readonly islands?: readonly Polygon[];
  readonly lines: readonly PatternLine[];
  /** What is drawn on it as areas; its outlines are among the lines. */
  readonly drawn?: readonly { readonly side: Side; readonly region: Region }[];
  readonly creases: readonly CreaseLine[];
  readonly glue: readonly GlueArea[];
  readonly labels: readonly FacetLabel[];
  /** Innermost last. */
  readonly owned?: readonly OwnedArea[];
}
