/** How rules speak: lengths in the unit of the card, names instead of ids. */
import { OPEN, openOf, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { CARD, ownerOfId, partOfId, wordsOfPart, wordsWithin } from '../ids';
import { formatArea, formatFine, formatSaid } from '../units/length';
import type { Evidence, RuleId } from './rule';

export interface Words {
  /** A length with its unit. */
  mm(value: number): string;
  /** The thickness of paper, to 0.01 mm or 0.001 in. */
  fine(value: number): string;
  /** An area with its unit. */
  mm2(value: number): string;
  /** A place on a piece: along, and away from the gutter. */
  place(at: readonly [number, number]): string;
  /** A mechanism by its title; the base is "The card". */
  title(mechanism: string): string;
  /** A facet, crease or glue area, as in "its riser". */
  part(id: string): string;
  /** The same with its owner: "the riser of Step". */
  partOf(id: string): string;
}

export function wordsFor({ assembly, brief }: Pick<Evidence, 'assembly' | 'brief'>): Words {
  const inches = brief.units === 'in';
  const mm = (value: number): string => formatSaid(value, brief.units);
  const title = (mechanism: string): string => titleOf(assembly, mechanism);
  return {
    mm,
    fine: (value) => formatFine(value, brief.units),
    mm2: (value) => formatArea(value, brief.units),
    place: ([x, y]) => (inches ? `${mm(x)}, ${mm(y)}` : `${x.toFixed(0)}, ${y.toFixed(0)} mm`),
    title,
    part: brief.words,
    partOf: (id) => {
      const owner = ownerOfId(id);
      if (owner !== id && owner !== CARD) return `the ${brief.words(id)} of ${title(owner)}`;
      // "plane 2" is a name; what a maker or a base calls it is a word.
      const word = brief.words(id);
      return word === wordsOfPart(id) ? word : `the ${word}`;
    },
  };
}

/** A mechanism's title; where several share one, with the number of its id. */
export function titleOf(assembly: Assembly, mechanism: string): string {
  if (mechanism === CARD) return 'The card';
  const m = assembly.mechanisms.find((x) => x.id === mechanism);
  if (!m) return mechanism;
  const alone = assembly.mechanisms.every((x) => x === m || x.title !== m.title);
  const number = /-(\d+)$/.exec(mechanism)?.[1];
  return alone || !number ? m.title : `${m.title} ${number}`;
}

/** Rules by name, as a person reads them. */
export const RULE_WORDS: Readonly<Record<RuleId, string>> = {
  'flat-fold': 'Folds flat',
  flex: 'Folds without bending',
  overhang: 'Stays inside, closed',
  sweep: 'Stays inside, opening',
  collision: 'Clears its neighbours',
  web: 'Paper wide enough',
  'loose-part': 'Holds together',
  'glue-room': 'Room for glue',
  foam: 'Foam',
  thickness: 'Thickness for the post',
  'gutter-relief': 'Room in the fold',
  'post-size': 'Size for the post',
  'sheet-fit': 'Fits its sheet',
  grain: 'Folds along the grain',
  tip: 'Stands upright',
  captive: 'Stays in',
  bind: 'Moves free',
  grip: 'Can be taken hold of',
  covered: 'Shows what it should',
  stands: 'Held by its stop',
  stock: 'Stiff enough to move',
};

/** A state as a maker says it: by the opening, and by what else is moved; `title` names a mechanism. */
export function atState(state: State, title: (mechanism: string) => string): string {
  const open = openOf(state);
  const opening = open < 0.05 ? 'when closed' : open > 179.95 ? 'open flat' : `at ${open.toFixed(0)}°`;
  const others = Object.entries(state).filter(([id, value]) => id !== OPEN && Math.abs(value) > 0.05);
  const alike = (id: string): boolean => others.some(([o]) => o !== id && partOfId(o) === partOfId(id));
  // `card.level-1.open` is the level's.
  const called = (id: string): string => [wordsWithin(id), wordsOfPart(id)].filter((word) => word !== '').join(' ');
  const name = (id: string): string => (alike(id) ? `${called(id)} of ${title(ownerOfId(id))}` : called(id));
  return [opening, ...others.map(([id, value]) => `${name(id)} at ${value.toFixed(0)}`)].join(', ');
}
