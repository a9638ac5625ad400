/** What a base is: the card that everything else stands on. */
import type { Interruption } from '../pattern/facets';
import type { Making } from '../pattern/making';
import type { Piece } from '../pattern/pattern';
import type { Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import type { Drive, State } from '../drives';
import type { Shape } from '../shapes/shape';
import type { Side } from '../side';
import type { AnyKind } from './any-kind';
import type { Bond, Demand, Filler, Hardware, Host, Landmark, MovingJoint, PoseReader } from './contribution';
import type { ParameterValues } from './parameter';
import type { BaseStep } from './work-step';

/** It is the base of the card: what everything else stands on. */
export interface BaseKind extends AnyKind {
  readonly mount: 'base';
  /** Its numbers where the card is begun: by key, or several that are one while they are equal. */
  readonly brief: readonly (string | AsOne)[];
  /** Those of them that are set there and nowhere else. */
  readonly briefOnly?: readonly string[];
  /** How its own pieces are put together, before anything stands on it, and how far open it is for that. */
  readonly order: (values: ParameterValues) => readonly BaseStep[];
  /** Sizes for a card whose gutter is so long and whose leaves reach so far, mm. */
  readonly fitting: (size: BaseSize) => ParameterValues;
  /** The size it stands for, mm: what another base of that size is begun with. */
  readonly sizes: (values: ParameterValues) => BaseSize;
  /** What is set by one lever: `reach` of both leaves. Its own numbers stand for themselves. */
  readonly levers?: Readonly<Record<string, readonly string[]>>;
  /** States that people name of such a card, unless its maker says others. */
  readonly states: (values: ParameterValues) => readonly NamedState[];
  /** How it stands by itself, where that is what it is built for: its weight is measured for that in every pose. */
  readonly stands?: Stance;
  /** Where its paper lies flat; opened to 180 unless said. */
  readonly flat?: State;
  /** The crease that something stands on unless it is said. */
  readonly crease: string;
  /** The face that is read first on a side. */
  readonly face: (values: ParameterValues, side: Side) => string;
  /** The leaf that the cover closes over, where there is one. */
  readonly behind?: string;
  /** The way a facet of it is read, up, in the axes of its piece. */
  readonly up: (values: ParameterValues, facet: string, side: Side) => Vec2;
  readonly build: (values: ParameterValues, context: BaseContext) => Base;
}
/** Numbers that are set together while they are equal, and what they are called then. */
export interface AsOne {
  readonly keys: readonly string[];
  readonly label: string;
  readonly note: string;
}
/** How a card is left alone: lying on its still leaf, standing as it is read, or as a tent on both fore edges. */
export const STANCES = ['lying', 'upright', 'tent'] as const;
export type Stance = (typeof STANCES)[number];
/** A state of all drives that people name: "for the post", "on the shelf". */
export interface NamedState {
  readonly id: string;
  readonly name: string;
  /** Values of drives; those left out are at rest. */
  readonly drives: State;
  /** How it is left alone there; absent: it is in the hand, or in its envelope. */
  readonly stance?: Stance;
}
export interface BaseSize {
  readonly gutter: number;
  readonly reach: number;
}
export interface BaseContext {
  readonly stock: string;
  /** Stock of a page of its own. */
  readonly pageStock: string;
  /** The stock of one piece, by its id: its maker's choice, else that of the base. */
  readonly stockFor: (piece: string) => string;
  /** Thickness of a stock, mm. */
  readonly caliperOf: (stock: string) => number;
  /** Outline of a shape, mm, y up. Throws ShapeError. */
  readonly outline: (shape: Shape) => Region;
  /** Numbers that cannot be together: says why and ends. */
  readonly refuse: (why: string) => never;
}
/** A foot that comes to rest against the edge of what lies on its ground. Axes of the ground's piece, mm. */
export interface Footing {
  readonly piece: string;
  readonly facet: string;
  /** The facet whose edge is the foot. */
  readonly foot: string;
  /** Where it rests: it lies along x, and slides toward greater y. */
  readonly stopMm: number;
  /** Half of its length, and how thick it is. */
  readonly halfMm: number;
  readonly tallMm: number;
  /** Before the name of what is found of it. */
  readonly aspect: string;
  /** The number that is its place, by key. */
  readonly lever: string;
}

/** The pieces of a base, and what they offer. */
export interface Base {
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  /** Creases that can be stood on, the natural one first. */
  readonly hosts: readonly Host[];
  /** The crease that the opening turns, the facet that lies still and the one that turns. */
  readonly lead: {
    readonly crease: string;
    readonly still: string;
    readonly turning: string;
    /** The crease is not led by the opening: it follows from joints of the base. */
    readonly follows?: true;
    /** Facets of the cover beside these two. */
    readonly covers?: readonly string[];
  };
  /** What the opening has of its own: where it ends, what it is called. */
  readonly opening?: Partial<Drive>;
  /** What else of it is moved by hand. */
  readonly drives?: readonly Drive[];
  readonly joints?: readonly MovingJoint[];
  readonly fillers?: readonly Filler[];
  readonly hardware?: readonly Hardware[];
  readonly demands?: readonly Demand[];
  readonly footings?: readonly Footing[];
  readonly landmarks?: readonly Landmark[];
  readonly measures: (pose: PoseReader) => Record<string, number>;
  /** Parts of creases without paper, where the base is shaped. */
  readonly interruptions: readonly Interruption[];
  /** Pieces that have to stay inside the cover when it is shut, by id: they are no part of its outline. */
  readonly inner?: readonly string[];
  /** How creases that came with the base were produced, by id. */
  readonly making?: Readonly<Record<string, Making>>;
}
