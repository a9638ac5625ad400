/**
 * What a shape is, as it is saved: a source with parameters, never a baked outline.
 * Lengths in mm. Shapes have y up, but for SVG path data, which keeps the standard's y down.
 */
import type { Corners } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';

export interface TextShape {
  readonly string: string;
  /** Id of a font that ships with the application, see `fonts.ts`. */
  readonly font: string;
  /** Size of the em, mm. */
  readonly size: number;
  /** Further apart than the font has them, mm. */
  readonly spacing?: number;
}

/** Where an outline comes from. */
export type Shape =
  | { readonly circle: number }
  | { readonly ellipse: { readonly width: number; readonly height: number } }
  | { readonly rect: { readonly width: number; readonly height: number; readonly corner?: number } }
  | { readonly width: number; readonly height: number }
  /** Corners on a circle of that diameter, one corner up. */
  | { readonly regular: { readonly sides: number; readonly diameter: number } }
  | { readonly star: { readonly points: number; readonly outer: number; readonly inner: number } }
  /** Part of a ring: radius of its middle line, width across, degrees from the right, counter-clockwise. */
  | { readonly arc: { readonly radius: number; readonly width: number; readonly from: number; readonly to: number } }
  /** Straight sides under a half round. */
  | { readonly arch: { readonly width: number; readonly height: number } }
  /** An ellipse edged with round bumps. */
  | { readonly cloud: { readonly width: number; readonly height: number; readonly bumps: number } }
  | { readonly polygon: readonly Vec2[] }
  | { readonly path: string; readonly rule?: 'nonzero' | 'evenodd' }
  | { readonly text: TextShape }
  /** A shape kept in the document. */
  | { readonly asset: string };

export type Edge = 'left' | 'right' | 'top' | 'bottom';

interface Placed {
  readonly with: Shape;
  /** Shift of the other shape, mm, and its turn about its own origin, degrees. */
  readonly x: number;
  readonly y: number;
  readonly deg: number;
}

/** What is done to a shape, in order; each step keeps its numbers until the shape is flattened. */
export type ShapeStep =
  | ({ readonly do: 'unite' } & Placed)
  | ({ readonly do: 'subtract' } & Placed)
  | ({ readonly do: 'intersect' } & Placed)
  /** What lies in one of the two only. */
  | ({ readonly do: 'outside' } & Placed)
  /** What lies left (or right) of a line through a point, seen along its direction. */
  | {
      readonly do: 'split';
      readonly x: number;
      readonly y: number;
      readonly deg: number;
      readonly keep: 'left' | 'right';
    }
  | { readonly do: 'offset'; readonly by: number; readonly corners: Corners }
  /** About the middle or an edge of the shape; `keep` unites it with what it was. */
  | { readonly do: 'mirror'; readonly about: Edge | 'upright' | 'level'; readonly keep: boolean }
  /** Front and back joined along a fold of at least `hinge` mm, `overlap` mm or more inside the edge. */
  | { readonly do: 'double'; readonly edge: Edge; readonly overlap: number; readonly hinge: number }
  /** Copies along the outline: `count` of them, or as many as `spacing` gives (the other is null). */
  | {
      readonly do: 'distribute';
      readonly what: Shape;
      readonly size: number;
      readonly count: number | null;
      readonly spacing: number | null;
      readonly side: 'outside' | 'inside';
    }
  | { readonly do: 'row'; readonly count: number; readonly pitch: number; readonly deg: number }
  | { readonly do: 'drop-holes'; readonly below: number | null }
  | { readonly do: 'simplify'; readonly tolerance: number }
  | { readonly do: 'nudge'; readonly ring: number; readonly point: number; readonly dx: number; readonly dy: number }
  /** Least cut off an edge that leaves a straight contact of this width in all. */
  | { readonly do: 'trim'; readonly edge: 'top' | 'bottom'; readonly contact: number }
  /**
   * Ties to every island of a window, or to every loose part of what is cut from paper itself. `turn` null: the
   * shortest way; `moved` sets single ones.
   */
  | {
      readonly do: 'ties';
      /** Unless said by what it is used for: a layer is paper, all else a window. */
      readonly of?: 'window' | 'paper';
      readonly width: number;
      readonly count: number;
      readonly turn: number | null;
      readonly moved: readonly { readonly island: number; readonly turn: number }[];
    }
  /** One of the two may be null: proportions kept. */
  | { readonly do: 'size'; readonly width: number | null; readonly height: number | null }
  | { readonly do: 'turn'; readonly deg: number };

export interface ShapeAsset {
  readonly id: string;
  readonly name: string;
  readonly source: Shape;
  readonly steps: readonly ShapeStep[];
}

/** Largest drawing that is read, SVG or DXF, in characters. */
export const LARGEST_DRAWING = 5_000_000;

/** A shape that cannot be made: what, and what would be right. */
export class ShapeError extends Error {}

/** Shapes that a shape may name. */
export type ShapeShelf = ReadonlyMap<string, ShapeAsset>;

const papers = new WeakMap<ShapeShelf, ShapeShelf>();
/** The same shapes as they are where they are paper themselves: ties that say nothing else are bridges. */
export function asPaper(shelf: ShapeShelf): ShapeShelf {
  const known = papers.get(shelf);
  if (known) return known;
  const tied = (step: ShapeStep): ShapeStep => (step.do === 'ties' && !step.of ? { ...step, of: 'paper' } : step);
  const paper = new Map([...shelf].map(([id, asset]) => [id, { ...asset, steps: asset.steps.map(tied) }]));
  papers.set(shelf, paper);
  return paper;
}

/** Ids of the assets a shape and its steps name. */
export function assetsNamed(shape: Shape, steps: readonly ShapeStep[] = []): string[] {
  const own = 'asset' in shape ? [shape.asset] : [];
  return [
    ...own,
    ...steps.flatMap((s) => ('with' in s ? assetsNamed(s.with) : 'what' in s ? assetsNamed(s.what) : [])),
  ];
}
