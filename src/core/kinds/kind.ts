/** What a mechanism kind is: parameters, and what it contributes to the design it stands in. */
import type { CreaseLine, FacetLabel, GlueArea, OwnedArea, PatternLine, Piece } from '../pattern/pattern';
import type { Interruption } from '../pattern/facets';
import type { Polygon, Region } from '../plane/polygon';
import type { Frame2, Vec2 } from '../plane/vec2';
import type { Shape } from '../shapes/shape';
import { compose, placeOnSheet, type Rigid, type Vec3 } from '../linkage';

export type ParameterUnit = 'mm' | 'deg' | 'count' | 'choice' | 'shape' | 'list';

export interface Parameter {
  readonly key: string;
  readonly label: string;
  readonly unit: ParameterUnit;
  /** Null: follows from others (`note` says how). */
  readonly default: ParameterValue;
  readonly min?: number;
  readonly max?: number;
  readonly choices?: readonly string[];
  /** What an entry of a list holds. */
  readonly fields?: readonly Parameter[];
  /** Word that may stand in place of a list: the program chooses. */
  readonly word?: string;
  readonly note: string;
}
export type FieldValue = number | string | null | Shape;
/** An entry of a list; missing fields take their defaults. */
export type ListItem = Readonly<Record<string, FieldValue>>;
export type ParameterValue = FieldValue | readonly ListItem[];
export type ParameterValues = Readonly<Record<string, ParameterValue>>;

/**
 * The crease something stands on, as it lies in its flat piece. Local x runs along it from its middle, y into side A.
 */
export interface Host {
  /** Id of the crease. */
  readonly crease: string;
  readonly piece: string;
  readonly frame: Frame2;
  readonly lengthMm: number;
  /** Facets on the two sides, by label: A on the left of the frame's x. */
  readonly sideA: string;
  readonly sideB: string;
  /** +1: closes toward the viewer of the inside face; -1: away from them. */
  readonly sign: 1 | -1;
  /** Size of its fold (rad) at the ends of the card's travel, where known. */
  readonly ends: readonly [closed: number | undefined, open: number | undefined];
  /** How far side A and side B reach from the crease, mm. */
  readonly reachA: number;
  readonly reachB: number;
  readonly stock: string;
}

/** Two facets of different pieces that are glued together. */
export interface Bond {
  readonly id: string;
  readonly a: { readonly piece: string; readonly facet: string };
  readonly b: { readonly piece: string; readonly facet: string };
  /** Frame of piece b in that of piece a. */
  readonly placement: Rigid;
}

export interface Landmark {
  readonly name: string;
  readonly piece: string;
  readonly facet: string;
  readonly at: Vec2;
}

/** What measures may read. Points in mm. */
export interface PoseReader {
  /**
   * In the axes of what the mechanism stands on: x along, y into side A, z on the side that closes. Undefined where
   * the landmark's facet is missing.
   */
  local(landmark: string): Vec3 | undefined;
  /** The same at the closed pose; undefined where the design does not close. */
  closed(landmark: string): Vec3 | undefined;
}

/** Something a part lacks: `key` stays the same while the numbers in the sentence change. */
export interface Lack {
  readonly key: string;
  readonly what: string;
}

export interface Contribution {
  /** Added to the piece it stands on. */
  readonly lines: readonly PatternLine[];
  readonly hostCreases: readonly CreaseLine[];
  readonly labels: readonly FacetLabel[];
  readonly interruptions: readonly Interruption[];
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  /** Creases that others can stand on. */
  readonly hosts: readonly Host[];
  readonly landmarks: readonly Landmark[];
  readonly measures: (pose: PoseReader) => Record<string, number>;
  /** Parameters that say two things at once: what, and by how many mm they differ. */
  readonly contradictions: readonly { readonly key: string; readonly what: string; readonly mm: number }[];
  /** Parts that nothing holds, that lack their paper or cannot move free: what, in words. */
  readonly unheld: readonly Lack[];
  /** Paper of the host's piece that falls out as waste. */
  readonly waste: Region;
  /** Paper of the host's piece that it takes for itself; nothing that stands beside it may take it too. */
  readonly claims: Region;
  /** Its facets' whole areas on the host's piece. */
  readonly owned: readonly OwnedArea[];
}

export interface BuildContext {
  readonly id: string;
  readonly host: Host;
  readonly stock: string;
  /** Outline of a shape, mm, y up. Throws ShapeError. */
  readonly outline: (shape: Shape) => Region;
  /** Paper of the host's piece as it is before this is cut from it. */
  readonly paper: Polygon;
  /** A length in words, in the unit of the card. */
  readonly say: (mm: number) => string;
}

/** A mechanism that stands on a crease. */
export interface Kind {
  readonly id: string;
  readonly title: string;
  readonly parameters: readonly Parameter[];
  readonly build: (values: ParameterValues, context: BuildContext) => Contribution;
}

export const EMPTY: Contribution = {
  lines: [],
  hostCreases: [],
  labels: [],
  interruptions: [],
  pieces: [],
  bonds: [],
  hosts: [],
  landmarks: [],
  measures: () => ({}),
  contradictions: [],
  unheld: [],
  waste: [],
  claims: [],
  owned: [],
};

export const num = (values: ParameterValues, key: string): number => values[key] as number;
export const shapeOf = (values: Readonly<Record<string, ParameterValue>>, key: string): Shape | null => {
  const value = values[key];
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Shape) : null;
};
export const listOf = (values: ParameterValues, key: string): readonly ListItem[] =>
  Array.isArray(values[key]) ? (values[key] as readonly ListItem[]) : [];

/** Small step from a corner into a facet, for its label: nothing else of a design comes this close to a corner (mm). */
export const LABEL_STEP = 0.02;

const TURN_OVER: Rigid = Float64Array.of(-1, 0, 0, 0, 0, 1, 0, 0, 0, 0, -1, 0);

/**
 * Where a glued piece, drawn in local axes, lies on the host's piece. On a mountain crease it is glued from behind:
 * turned over about local y, so that sides A and B stay and x is mirrored.
 */
export function placedOn(host: Host): Rigid {
  const flat = placeOnSheet(host.frame.origin, host.frame.along);
  return host.sign > 0 ? flat : compose(flat, TURN_OVER);
}
export type { CreaseLine, FacetLabel, GlueArea, PatternLine, Piece };
