/** What every kind says of itself, mechanism or base. */
import type { Shape } from '../shapes/shape';
import type { HostSize } from './context';
import type { Parameter, ParameterValues } from './parameter';

/** Where a shape of the workshop can be put to use in a new mechanism, and what the button says. */
export interface ShapeUse {
  readonly says: string;
  /** Shapes of several parts are not offered it. */
  readonly ofOnePart?: true;
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
  /** Where what a hand moves is stopped. */
  readonly stops?: readonly string[];
}
export type Turn = keyof Turns;

export interface AnyKind {
  readonly id: string;
  readonly title: string;
  /** What it is, in a sentence, where it is offered. */
  readonly says: string;
  /** Its sign: how it stands on what carries it, seen from the end, as path data in a square of 16. */
  readonly sign: string;
  readonly parameters: readonly Parameter[];
  readonly turns: (values: ParameterValues) => Turns;
  /** What a number comes to that is left empty, by its key; null where that is not known from the numbers alone. */
  readonly empty?: (values: ParameterValues, key: string) => number | null;
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
  /** Numbers that say nothing with these values. */
  readonly silent?: (values: ParameterValues) => readonly string[];
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
