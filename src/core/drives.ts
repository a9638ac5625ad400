/** What a person moves, and how far: drives, and the state of a card as a value for each. */

import { degToRad, radToDeg } from './units/angle';

export type DriveUnit = 'deg' | 'mm';
export interface Drive {
  /** `open`, or `MECH.NAME`. */
  readonly id: string;
  readonly label: string;
  readonly unit: DriveUnit;
  /** Ends of its travel, degrees or mm. */
  readonly from: number;
  readonly to: number;
  /** Where it is when the card is posted. */
  readonly rest: number;
  /** Its way ends where this joint meets its stop, `MECHANISM.NAME`: `to` is no further than that. */
  readonly until?: string;
  /** This drive has to be at its end before a hand can move that one from rest: a tab is folded up behind a foot. */
  readonly needs?: string;
  /** It goes on round: past its end it begins again. */
  readonly round?: true;
}
/** A value for every drive by id, in its own unit. */
export type State = Readonly<Record<string, number>>;

export const OPEN = 'open';
/** Angle between the inside faces of the leaves. */
export const OPENING: Drive = { id: OPEN, label: 'Opening', unit: 'deg', from: 0, to: 180, rest: 0 };

/** Opened to an angle, degrees, everything else at rest. */
export const openTo = (deg: number): State => ({ [OPEN]: deg });
export const openOf = (state: State): number => state[OPEN];
export const CLOSED = openTo(0);
export const FLAT = openTo(180);

/** A drive's value as its joints have it, rad or mm: of the opening that is the gutter's fold. */
export const toJoint = ({ id, unit }: Drive, value: number): number =>
  unit === 'mm' ? value : degToRad(id === OPEN ? 180 - value : value);
export const fromJoint = ({ id, unit }: Drive, value: number): number =>
  unit === 'mm' ? value : id === OPEN ? 180 - radToDeg(value) : radToDeg(value);

/** The state with one drive moved. */
export const moved = (state: State, drive: string, value: number): State => ({ ...state, [drive]: value });

/** The state part of the way from one to another. */
export const betweenStates = (from: State, to: State, part: number): State =>
  Object.fromEntries(Object.keys(from).map((id) => [id, from[id] + (to[id] - from[id]) * part]));

/** Every drive at rest. */
export const restOf = (drives: readonly Drive[]): State => Object.fromEntries(drives.map((d) => [d.id, d.rest]));

/** The state as a hand would have it: what is not named at rest, what is out of range at the nearer end. */
export const within = (drives: readonly Drive[], state: State): State =>
  Object.fromEntries(drives.map((d) => [d.id, valueWithin(d, state[d.id] ?? d.rest)]));
/** Every drive's value in a state that is named; drives that are gone are left out. */
export const stateIn = (drives: readonly Drive[], named: { readonly drives: State }): State =>
  within(drives, named.drives);
export const valueWithin = ({ from, to, round }: Drive, value: number): number =>
  round && (value < from || value > to)
    ? value - Math.floor((value - from) / (to - from)) * (to - from)
    : Math.min(to, Math.max(from, value));

/** Whether a hand can bring a card into a state: what is moved has what it needs. */
export const canBe = (drives: readonly Drive[], state: State): boolean =>
  drives.every(({ id, rest, needs }) => {
    const other = needs === undefined ? undefined : drives.find((d) => d.id === needs);
    const value = (d: Drive): number => state[d.id] ?? d.rest;
    return !other || (state[id] ?? rest) === rest || value(other) >= other.to;
  });

/** A drive by its id, or by the end of it where only one ends so; null where none or several do. */
export function driveNamed(drives: readonly Drive[], name: string): Drive | null {
  const found = drives.filter((d) => d.id === name);
  const ending = found.length > 0 ? found : drives.filter((d) => d.id.endsWith(`.${name}`));
  return ending.length === 1 ? ending[0] : null;
}

/** States from one end of a drive to the other in even steps, the others held. */
export const travelStates = ({ id, from, to }: Drive, steps: number, held: State): State[] =>
  Array.from({ length: steps + 1 }, (_, k) => moved(held, id, from + ((to - from) * k) / steps));

/** A hand's travel is walked no more coarsely than this, and in so many steps at most. */
const HAND_STEP: Readonly<Record<DriveUnit, number>> = { deg: 15, mm: 5 };
const MOST_HAND_STEPS = 72;

export const handSteps = ({ from, to, unit }: Drive): number =>
  Math.min(MOST_HAND_STEPS, Math.max(4, Math.ceil((to - from) / HAND_STEP[unit])));

/** Whether something beside the opening is moved in a state. */
export const isByHand = (state: State): boolean =>
  Object.entries(state).some(([id, value]) => id !== OPEN && value !== 0);
