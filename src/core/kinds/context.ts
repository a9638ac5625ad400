/** What a mechanism is built from: the crease or face it stands on, and the paper there. */
import type { Polygon, Region } from '../plane/polygon';
import type { Shape } from '../shapes/shape';
import type { Interruption } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import type { Face, Host } from './contribution';

/** The piece that something is put on, with all that was cut into it before. */
export interface PieceSoFar {
  readonly piece: Piece;
  readonly interruptions: readonly Interruption[];
}

/** What a mechanism on a face is built from. */
export interface FaceContext {
  readonly id: string;
  readonly face: Face;
  readonly so: PieceSoFar;
  readonly stock: string;
  readonly caliperMm: number;
  /** Outline of a shape, mm, y up. Throws ShapeError. */
  readonly outline: (shape: Shape) => Region;
  /** A length in words, in the unit of the card. */
  readonly say: (mm: number) => string;
}
/** The face a new mechanism is put on, mm: as its reader sees it. */
export interface FaceSize {
  readonly widthMm: number;
  readonly heightMm: number;
}

export interface BuildContext {
  readonly id: string;
  readonly host: Host;
  readonly so: PieceSoFar;
  readonly stock: string;
  /** Outline of a shape, mm, y up. Throws ShapeError. */
  readonly outline: (shape: Shape) => Region;
  /** Paper of the host's piece as it is before this is cut from it. */
  readonly paper: Polygon;
  /** A length in words, in the unit of the card. */
  readonly say: (mm: number) => string;
}

/** The crease a new mechanism is put on, mm. */
export interface HostSize {
  readonly lengthMm: number;
  readonly reachA: number;
  readonly reachB: number;
}
/** A starting size as it is cut: on a whole mark of the card's unit, and not less than `least` (mm). */
export type Whole = (mm: number, least: number) => number;
