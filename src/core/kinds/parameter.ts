/** Numbers, shapes and lists that say how large a mechanism is and where it stands. */
import type { Shape } from '../shapes/shape';
import type { OwnLine } from './own/own-line';

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
  /** What they are called, where that is not what they are. */
  readonly choiceWords?: Readonly<Record<string, string>>;
  /** What an entry of a list, or a group, holds. */
  readonly fields?: readonly Parameter[];
  /** Of a list: what one entry is called, as a label. */
  readonly entry?: string;
  /** A field of a list's entry that may be left out. */
  readonly optional?: true;
  /** Of a group: sizes that are known by a name. */
  readonly presets?: readonly { readonly name: string; readonly values: Group }[];
  /** Of a shape: the number beside it that is its height, and the one that stretches it where it is set. */
  readonly highAs?: string;
  readonly wideAs?: string;
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

export const num = (values: ParameterValues, key: string): number => values[key] as number;
export const shapeOf = (values: Readonly<Record<string, ParameterValue>>, key: string): Shape | null => {
  const value = values[key];
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Shape) : null;
};
export const groupOf = (values: ParameterValues, key: string): Group => values[key] as Group;
export const listOf = (values: ParameterValues, key: string): readonly ListItem[] =>
  Array.isArray(values[key]) ? (values[key] as readonly ListItem[]) : [];
/** What a choice can be, as it is called. */
export const choicesIn = ({ choices = [], choiceWords = {} }: Pick<Parameter, 'choices' | 'choiceWords'>) =>
  choices.map((id) => ({ id, name: choiceWords[id] ?? id }));
