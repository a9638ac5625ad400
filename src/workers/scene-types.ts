/** A design derived for the drawings: plain data that crosses from a worker. */
import type { Vec3 } from '@/core/linkage';
import type { Drive, State } from '@/core/drives';
import type { Side } from '@/core/kinds';
import type { CreaseRole } from '@/core/pattern/pattern';
import type { Ring } from '@/core/plane/polygon';
import type { Vec2 } from '@/core/plane/vec2';
import type { Segment } from '@/core/plane/arrangement';
import type { Design } from '@/core/document/design';
import type { PictureFrame } from '@/core/build/artwork';
import type { Opening } from '@/core/build/margins';

export interface ScenePiece {
  readonly id: string;
  readonly title: string;
  readonly mechanism: string;
  readonly stock: string;
  readonly rings: readonly Ring[];
}
export interface SceneFacet {
  readonly id: string;
  readonly piece: string;
  readonly mechanism: string;
  readonly rings: readonly Ring[];
  /** Own colours of its sides, where it is dressed in some. */
  readonly colours: Readonly<Record<Side, string | undefined>>;
  readonly mats: readonly {
    readonly id: string;
    readonly side: Side;
    readonly rings: readonly Ring[];
    readonly foam: readonly Ring[];
    /** Where its glue ends before its paper does: at its facet's folds and edges, or where its maker has it end. */
    readonly glue: readonly Ring[];
    readonly colour: string;
    readonly caliperMm: number;
    /** Its face over that side of the facet, with all that is under it, mm. */
    readonly liftMm: number;
  }[];
  /** Foam, spacers, heads of rivets and tokens that go with it: from and to over the middle of its sheet, mm. */
  readonly fills: readonly {
    readonly rings: readonly Ring[];
    readonly from: number;
    readonly to: number;
    readonly look: Look;
  }[];
  /** What is drawn on it, by side. */
  readonly drawn: readonly { readonly side: Side; readonly rings: readonly Ring[] }[];
  /** The drive that a hand moves it by, where that is not the opening. */
  readonly moves?: string;
  /** How far it lies above its plane because it is glued on something, mm. */
  readonly liftMm: number;
  /** A strip of paper that bends: of which part. */
  readonly bent?: string;
}
/** What bends takes nothing stuck flat on it. */
export const canBeDressed = ({ bent }: SceneFacet): boolean => bent === undefined;
export interface SceneCrease {
  readonly id: string;
  readonly role: CreaseRole;
  readonly mechanism: string;
  readonly piece: string;
  readonly segments: readonly Segment[];
}
export interface SceneHost {
  readonly crease: string;
  readonly piece: string;
  /** Middle of the crease along its piece, mm. */
  readonly x: number;
  /** Its middle and its direction, in the axes of its piece. */
  readonly origin: Vec2;
  readonly along: Vec2;
  readonly lengthMm: number;
  readonly reachA: number;
  readonly reachB: number;
}
/** Axes on a piece, mm: x and y may be mirrored, as on the outside. */
export interface SceneFrame {
  readonly piece: string;
  readonly origin: Vec2;
  readonly x: Vec2;
  readonly y: Vec2;
}
export interface SceneGlue {
  readonly id: string;
  readonly mechanism: string;
  readonly piece: string;
  readonly outline: Ring;
}
/** A design, derived, without its pose. */
export interface Scene extends Derived {
  readonly design: Design;
}
/** What a worker makes of a design for the drawings; the design itself stays where it is. */
export interface Derived {
  readonly pieces: readonly ScenePiece[];
  readonly facets: readonly SceneFacet[];
  readonly creases: readonly SceneCrease[];
  readonly cuts: readonly {
    readonly piece: string;
    readonly mechanism: string;
    readonly a: readonly [number, number];
    readonly b: readonly [number, number];
    /** The side it is drawn on, where it is not cut. */
    readonly drawn?: Side;
  }[];
  readonly glue: readonly SceneGlue[];
  /** What layers cut out of facets, in the axes of their pieces, and how much of it nothing is stuck over. */
  readonly openings: readonly (Omit<Opening, 'region'> & { readonly rings: readonly Ring[] })[];
  readonly hosts: readonly SceneHost[];
  /** Facets on which a foot comes to rest against an edge. */
  readonly footings: readonly string[];
  /** Facets that something can be fixed on, and how large they are as they are read, mm. */
  readonly faces: readonly SceneFace[];
  readonly artwork: readonly SceneArt[];
  /** What lies above each other over a face, by mechanism. */
  readonly stacks: Readonly<Record<string, readonly StackLayer[]>>;
  /** Which way is right and up on the face that a mechanism is fixed on, in the axes of its piece, by mechanism. */
  readonly axes: Readonly<Record<string, { readonly piece: string; readonly right: Vec2; readonly up: Vec2 }>>;
  /** The axes that a mechanism is drawn in, on the piece it is put on, by mechanism. */
  readonly frames: Readonly<Record<string, SceneFrame>>;
  /** Creases from end to end, with the parts that something has ended. */
  readonly whole: readonly {
    readonly id: string;
    readonly role: CreaseRole;
    readonly piece: string;
    readonly a: Vec2;
    readonly b: Vec2;
  }[];
  /** What is moved by hand, the opening first. */
  readonly drives: readonly Drive[];
  /** Where its base is while it opens, seen from above, mm: absent of a plain card, which opens about its gutter. */
  readonly ground?: { readonly x: number; readonly y: number; readonly radius: number };
}
/** Places in world axes, mm, and the drive's value at each. */
export interface Way {
  readonly values: readonly number[];
  readonly places: readonly Vec3[];
}
/** What stands between sheets or over them. */
export type Look = 'foam' | 'spacer' | 'rivet' | 'token';
/** A sheet, or foam between sheets: from and to, mm above the middle of the sheet that carries all. */
export interface StackLayer {
  readonly name: string;
  readonly kind: 'face' | 'sheet' | 'moving' | 'foam' | Look;
  readonly from: number;
  readonly to: number;
  /** The number that is its thickness, by key, where it is one of its mechanism's. */
  readonly lever?: string;
}
/** What is printed on a facet, or on a layer of it, in the axes of its piece. */
export type SceneArt = {
  readonly id: string;
  readonly facet: number;
  readonly side: Side;
  /** What of it is seen. */
  readonly clip: readonly Ring[];
  /** Its face over the plane of the facet, mm. */
  readonly liftMm: number;
} & (
  | { readonly picture: string; readonly frame: PictureFrame }
  | { readonly ink: readonly Ring[]; readonly colour: string }
);
export interface SceneFace {
  readonly facet: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Its axes as its reader has them on the inside. */
  readonly frame: SceneFrame;
}
export interface ScenePose {
  readonly state: State;
  /** 12 numbers a facet: its piece's frame in world axes, row by row, mm. */
  readonly placed: Float64Array;
  readonly foldDeg: Float64Array;
  readonly measures: Record<string, Record<string, number>>;
  readonly stopped: boolean;
  readonly flexMm: number;
}
