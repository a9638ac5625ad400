/** What a mechanism kind is: parameters, and what it contributes to the design it stands in. */
import type { CreaseLine, FacetLabel, GlueArea, OwnedArea, PatternLine, Piece } from '../pattern/pattern';
import type { Interruption } from '../pattern/facets';
import type { Making } from '../pattern/making';
import type { Polygon, Region } from '../plane/polygon';
import type { Frame2, Vec2 } from '../plane/vec2';
import type { Shape } from '../shapes/shape';
import type { OwnLine } from './own/own-line';
import { otherSide, SIDES, type Side } from '../side';
import type { Drive, State } from '../drives';
import { applyRigid, compose, placeOnSheet, type Bow, type Motion, type Rigid, type Vec3 } from '../linkage';

export type ParameterUnit =
  'mm' | 'deg' | 'count' | 'choice' | 'shape' | 'list' | 'group' | 'path' | 'text' | 'lines' | 'parts';

export interface Parameter {
  readonly key: string;
  readonly label: string;
  readonly unit: ParameterUnit;
  /** Null: follows from others (`note` says how). */
  readonly default: ParameterValue;
  readonly min?: number;
  readonly max?: number;
  readonly choices?: readonly string[];
  /** What an entry of a list, or a group, holds. */
  readonly fields?: readonly Parameter[];
  /** A field of a list's entry that may be left out. */
  readonly optional?: true;
  /** Of a group: sizes that are known by a name. */
  readonly presets?: readonly { readonly name: string; readonly values: Group }[];
  /** Word that may stand in place of a list, where the program chooses; or of a number, where it follows. */
  readonly word?: string;
  readonly note: string;
}
/** Numbers that belong together: the ways of a place, the sizes of a token. */
export type Group = Readonly<Record<string, number>>;
/** The way a token runs, placed by its middle; mm and degrees. */
export type Path =
  | { readonly line: number }
  | { readonly arc: number; readonly from: number; readonly to: number }
  /** SVG path data, y down. */
  | { readonly curve: string }
  /** Round the outline of a shape, without ends. */
  | { readonly ring: Shape };
export type FieldValue = number | string | null | Shape | Group | Path;
/** An entry of a list; missing fields take their defaults. */
export type ListItem = Readonly<Record<string, FieldValue>>;
export type ParameterValue = FieldValue | readonly ListItem[] | readonly OwnLine[] | PlainParts;
/** Parts of a mechanism as plain data; what they hold is the business of `own/parts.ts`. */
export interface PlainParts {
  readonly pieces: readonly unknown[];
}
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

export { otherSide, SIDES, type Side };

/** The face of a facet that something is fixed on. */
export interface Face {
  readonly facet: string;
  readonly piece: string;
  readonly side: Side;
  /** From the mount's axes (x to the reader's right, y up, z off the paper, mm) to those of the piece. */
  readonly placement: Rigid;
  /** The facet in the mount's axes. */
  readonly outline: Polygon;
  readonly caliperMm: number;
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
  /** The curve of what bends, by id. */
  bow(bend: string): Bow | undefined;
}

/** Nothing is posed: what measures say of the flat pieces alone. */
export const NO_POSE: PoseReader = { local: () => undefined, closed: () => undefined, bow: () => undefined };

/** A facet of a piece; or a carriage, `MECHANISM.NAME`: a frame without paper, where one part makes two motions. */
export type Carried = { readonly piece: string; readonly facet: string } | { readonly carriage: string };

/** One part moves against another: a rivet, a track, a crease between pieces. */
export interface MovingJoint {
  /** `MECHANISM.NAME`. */
  readonly id: string;
  /** What it ties; `b` moves against `a`. */
  readonly a: Carried;
  readonly b: Carried;
  /** In the axes of piece a. */
  readonly motion: Motion;
  /** Frame of piece b in that of piece a while the joint's value is 0. */
  readonly placement: Rigid;
  readonly role: -1 | 0 | 1;
  /** Value from a drive, in rad or mm of both; absent: it is solved for. */
  readonly driven?: {
    readonly drive: string;
    readonly at: number;
    readonly rate: number;
    readonly between?: readonly [from: number, to: number];
  };
  /** At rest, and at the drive's other end, where known. */
  readonly ends: readonly [rest: number | undefined, other: number | undefined];
  /** Two points of its line, in the axes of piece a. */
  readonly span: readonly [Vec3, Vec3];
  /** Of glue that may part where the paper must bend: the corners of its area, in the axes of piece a. */
  readonly patch?: readonly Vec3[];
}

/**
 * Paper that bends between the two lines it is hinged at, as a strip that cannot stretch: neither rigid nor creased.
 * It runs along y of its piece, its lines lie along x.
 */
export interface Bend {
  /** `MECHANISM.NAME`. */
  readonly id: string;
  readonly piece: string;
  /** What bends, and what carries its ends at greater and at lesser y. */
  readonly facet: string;
  readonly ends: readonly [high: string, low: string];
  readonly creases: readonly [high: string, low: string];
  /** Between its lines, the middle at y = 0; and where it begins along them, mm. */
  readonly lengthMm: number;
  readonly from: number;
}

/** Foam or thick tape between two sheets, on a facet of a piece. */
export interface FoamPad {
  readonly id: string;
  readonly piece: string;
  readonly facet: string;
  /** In the axes of the piece. */
  readonly region: Region;
  readonly thickMm: number;
  /** The number that is its thickness, by key. */
  readonly lever: string;
  /** What moves under it, with the room that keeps; in the axes of the piece. */
  readonly keepOff: Region;
  /** Strips that are too narrow to be cut, and so are left out; in the axes of the piece. */
  readonly leftOut: Region;
}

/** What stands between sheets or over them beside foam: spacers, heads of rivets, the thickness of a token. */
export interface Filler {
  readonly name: string;
  /** It goes with this facet. */
  readonly piece: string;
  readonly facet: string;
  /** In the axes of the piece. */
  readonly region: Region;
  /** Its lower face over the middle of the facet's sheet, mm. */
  readonly fromMm: number;
  readonly thickMm: number;
  readonly look: 'spacer' | 'rivet' | 'token';
  /** The number that is its thickness, by key. */
  readonly lever?: string;
}

/** What is counted and bought, not cut: rivets, coins. */
export interface Hardware {
  readonly what: string;
  readonly count: number;
  /** Whose it is; of the base unless said. */
  readonly mechanism?: string;
}

/** What must hold of a part that moves, as its kind measures it; the rule says it where it does not. */
export interface Demand {
  readonly rule: 'captive' | 'bind' | 'grip' | 'covered' | 'web' | 'stands';
  /** Tells several of one rule and mechanism apart. */
  readonly aspect: string;
  /** What is measured, as a sentence begins: "The disc covers window 2 by". */
  readonly says: string;
  readonly measured: number;
  readonly unit: 'mm' | 'deg';
  /** It is measured off the paper, between sheets: no cut edge takes part in it. */
  readonly offPaper?: true;
  /** Below this it is a risk. */
  readonly least: number;
  /** Below this it cannot work at all. */
  readonly blocksUnder: number;
  readonly levers: readonly string[];
  /** Parts it is about, by id. */
  readonly subjects: readonly string[];
  /** The drive's value where it happens. */
  readonly at?: { readonly drive: string; readonly value: number };
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
  /** What is moved by hand, `MECHANISM.NAME`. */
  readonly drives: readonly Drive[];
  readonly joints: readonly MovingJoint[];
  readonly bends: readonly Bend[];
  readonly foam: readonly FoamPad[];
  readonly fillers: readonly Filler[];
  readonly hardware: readonly Hardware[];
  readonly demands: readonly Demand[];
}

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

/** Where a shape of the workshop can be put to use in a new mechanism, and what the button says. */
export interface ShapeUse {
  readonly says: string;
  /** Values for a shape that is to be so high, mm. */
  readonly values: (shape: Shape, heightMm: number) => ParameterValues;
  /** The same letter by letter, each with its own values: its outline, what it stands on, its place along that, mm. */
  readonly letters?: {
    readonly says: string;
    readonly values: (letter: Shape, host: HostSize, offsetMm: number) => ParameterValues;
  };
}

/**
 * Numbers that remedies turn, by what they do, those that do most first: `height`, `planes[0].depth`, `at.x` of where
 * it is fixed. A number may do several things.
 */
export interface Turns {
  /** Where it is fixed on its face. */
  readonly place?: readonly string[];
  /** How far it reaches away from what it stands on. */
  readonly away?: readonly string[];
  /** Where it stands along that, and how wide it is. */
  readonly along?: readonly string[];
  /** How far it comes out behind that. */
  readonly behind?: readonly string[];
  /** Whether its parts meet as it opens and closes. */
  readonly closing?: readonly string[];
  /** The room it leaves the crease it stands on. */
  readonly relief?: readonly string[];
  /** What it is glued by. */
  readonly tabs?: readonly string[];
  /** How large its paper is. */
  readonly size?: readonly string[];
  /** How much of it a narrow part keeps. */
  readonly strength?: readonly string[];
  /** Where its weight lies. */
  readonly weight?: readonly string[];
}
export type Turn = keyof Turns;

/** All that is to be known of a mechanism, or of a base, for every floor and the interface. */
export type Kind = CreaseKind | FaceKind;
/** It stands on a crease that two facets share. */
export interface CreaseKind extends AnyKind {
  readonly mount: 'crease';
  /** Sizes of a new one that suit the crease it is put on. */
  readonly fitting: (host: HostSize, whole: Whole) => ParameterValues;
  readonly build: (values: ParameterValues, context: BuildContext) => Contribution;
  /** It can be fixed on a face as well. */
  readonly onFace?: FaceMounting;
}
/** How something is fixed on a face of a facet. */
export interface FaceMounting {
  /** Where it goes unless said. */
  readonly natural: Side;
  /** It goes on the leaf that the cover closes over. */
  readonly behindCover?: true;
  /** How it is put together, a sentence for each step. */
  readonly order: readonly string[];
  /** Sizes of a new one that suit the face it is put on. */
  readonly fitting: (face: FaceSize, whole: Whole) => ParameterValues;
  readonly build: (values: ParameterValues, context: FaceContext) => Contribution;
}
/** It is fixed on a face of a facet. */
export interface FaceKind extends AnyKind, FaceMounting {
  readonly mount: 'face';
  /** Values of its drive at which it is stopped to be looked at. */
  readonly stops?: (values: ParameterValues) => readonly number[];
}
/** How a kind is fixed on faces; null for one that only stands on creases. */
export const faceMounting = (kind: Kind | undefined): FaceMounting | null =>
  kind?.mount === 'face' ? kind : kind?.mount === 'crease' ? (kind.onFace ?? null) : null;
/** It is the base of the card: what everything else stands on. */
export interface BaseKind extends AnyKind {
  readonly mount: 'base';
  /** Its numbers where the card is begun, each with those that follow it while they are equal. */
  readonly brief: readonly (readonly string[])[];
  /** How its own pieces are put together, before anything stands on it, and how far open it is for that. */
  readonly order: (values: ParameterValues) => readonly OrderStep[];
  /** Numbers that say nothing with these values. */
  readonly silent?: (values: ParameterValues) => readonly string[];
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
/** A step of putting a base together. */
export interface OrderStep {
  readonly title: string;
  readonly text: string;
  readonly openDeg: number;
  /** Facets it is about, by id. */
  readonly parts: readonly string[];
}
/** How a card is left alone: lying on its still leaf, standing as it is read, or as a tent on both fore edges. */
export type Stance = 'lying' | 'upright' | 'tent';
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
  /** Thickness of a stock, mm. */
  readonly caliperOf: (stock: string) => number;
  /** Outline of a shape, mm, y up. Throws ShapeError. */
  readonly outline: (shape: Shape) => Region;
  /** Numbers that cannot be together: says why and ends. */
  readonly refuse: (why: string) => never;
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
  readonly landmarks?: readonly Landmark[];
  readonly measures: (pose: PoseReader) => Record<string, number>;
  /** Parts of creases without paper, where the base is shaped. */
  readonly interruptions: readonly Interruption[];
  /** How creases that came with the base were produced, by id. */
  readonly making?: Readonly<Record<string, Making>>;
}

interface AnyKind {
  readonly id: string;
  readonly title: string;
  /** What it is, in a sentence, where it is offered. */
  readonly says: string;
  /** Its sign: how it stands on what carries it, seen from the end, as path data in a square of 16. */
  readonly sign: string;
  readonly parameters: readonly Parameter[];
  readonly turns: (values: ParameterValues) => Turns;
  /** Numbers that a crease stands for where several move it, by its name, the first first: what a drag changes. */
  readonly holds?: (crease: string) => readonly string[];
  /** Creases and facets of others that its values name beside what it stands on: those are built before it. */
  readonly hangsOn?: (values: ParameterValues) => readonly string[];
  /** What is wrong with values that are each right by themselves, in words; null where nothing is. */
  readonly wrong?: (values: ParameterValues) => string | null;
  /** What its entries of a list are called by their maker: `numbers[0].value` the name of that number. */
  readonly namedEntry?: (values: ParameterValues, list: string, k: number) => string | undefined;
  /** Words for creases and facets of it whose names do not read as words. */
  readonly words?: Readonly<Record<string, string>>;
  /** Its size in a line of the build list; `say` gives a length without its unit. */
  readonly sizeOf: (values: ParameterValues, say: (mm: number) => string) => string;
  /** It carries a figure whose top is worth following over the travel. */
  readonly raises?: true;
  /** Whether it is a piece of its own with these values, and so of a stock of its own. */
  readonly ownPiece?: (values: ParameterValues) => boolean;
  /** Measures that are shown over the whole opening. */
  readonly charts?: readonly { readonly measure: string; readonly label: string }[];
  readonly shapeUse?: ShapeUse;
  /** Ways of working on it beside its numbers. */
  readonly editors?: readonly Editor[];
}
/**
 * `planes`: its planes from the side; `struts`: its struts and feet dragged along, and how they trade; `lines`: its
 * lines.
 */
export type Editor = 'planes' | 'struts' | 'lines';

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
  drives: [],
  joints: [],
  bends: [],
  foam: [],
  fillers: [],
  hardware: [],
  demands: [],
};

export const num = (values: ParameterValues, key: string): number => values[key] as number;
export const shapeOf = (values: Readonly<Record<string, ParameterValue>>, key: string): Shape | null => {
  const value = values[key];
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Shape) : null;
};
export const groupOf = (values: ParameterValues, key: string): Group => values[key] as Group;
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
/** A ring drawn in the axes of a glued piece, where it lies on the sheet that carries it. */
export const laidOnto = (placement: Rigid, ring: readonly Vec2[]): Vec2[] =>
  ring.map(([x, y]): Vec2 => {
    const [u, v] = applyRigid(placement, [x, y, 0]);
    return [u, v];
  });
export type { CreaseLine, FacetLabel, GlueArea, PatternLine, Piece };
