/** What is done, one step after another, to put a part of a card together: facts, beside the sentence that says it. */
import { isPartNamed } from '../ids';
import type { AdhesiveId } from '../paper/adhesives';
import type { Hardware } from './contribution';

/** Of glue, creases and what is bought all that no other step names; of parts every one. */
export const THE_REST = '*';

/**
 * A step of work. Parts, glue areas and creases are named as their kind names them, without the id of its mechanism: a
 * name stands for all that only a number tells apart, `carrier` for `carrier-1` and `carrier-2`.
 */
export interface WorkFacts {
  /** What is said of it, with a way to say a length (mm) as its reader measures. */
  readonly text: string | ((length: (mm: number) => string) => string);
  /** Parts that are handled: they are there from this step on, and lit in it. */
  readonly parts: readonly string[];
  /** Glue areas that are stuck in it. */
  readonly glue?: readonly string[];
  /** Creases that are folded in it. */
  readonly folds?: readonly string[];
  /** What it takes beside paper and what sticks; `THE_REST` where that is all that no other step takes. */
  readonly takes?: readonly Omit<Hardware, 'mechanism'>[] | typeof THE_REST;
  /** What sticks something in it that has no glue area of its own. */
  readonly sticks?: AdhesiveId;
  /** The foam between its sheets goes on in it. */
  readonly foam?: true;
  /** Parts that it has to leave loose. */
  readonly leaves?: readonly string[];
}

/** A step of putting a mechanism on a face. */
export interface FaceStep extends WorkFacts {
  /** Tells it apart from the others of its kind, in words of letters. */
  readonly id: string;
}

/** A step of putting a base together. */
export interface BaseStep extends WorkFacts {
  readonly title: string;
  readonly openDeg: number;
}

/** The parts that a step handles, of those of one owner. */
export const handledIn = ({ parts }: WorkFacts, ids: readonly string[]): string[] =>
  ids.filter((id) => parts.some((name) => name === THE_REST || isPartNamed(id, name)));

/**
 * Which of some parts each step names: an id goes to the first that does, what none names to the one that takes the
 * rest.
 *
 * @param ids of one owner, as `carrier-wheel-1.back`
 * @param named the names that each step has, in order
 */
export function sharedOut(ids: readonly string[], named: readonly (readonly string[])[]): string[][] {
  const rest = named.findIndex((names) => names.includes(THE_REST));
  const stepOf = (id: string): number => {
    const own = named.findIndex((names) => names.some((name) => isPartNamed(id, name)));
    return own < 0 ? rest : own;
  };
  return named.map((_, k) => ids.filter((id) => stepOf(id) === k));
}
