/** Lines that a person adds: what each is for, and what it is measured from. Axes of what they stand on, mm. */
import type { Shape } from '../../shapes/shape';
import type { Side } from '../../side';
import type { Amount } from './amount';

/** `open`: the fold that runs there ends; its paper stays flat. */
export const OWN_ROLES = ['cut', 'valley', 'mountain', 'window', 'open', 'mark'] as const;
export type OwnRole = (typeof OWN_ROLES)[number];

export const LINE_PLACES = ['start', 'middle', 'end'] as const;
export const BOX_PLACES = ['low', 'middle', 'high'] as const;
type BoxPlace = (typeof BOX_PLACES)[number];
/** On a line: an end, its middle, or a fraction of its length; on a facet a corner, edge or middle of its box. */
export type SpotAt = (typeof LINE_PLACES)[number] | number | { readonly x: BoxPlace; readonly y: BoxPlace };

/** A point, and what it hangs on. */
export interface Spot {
  /** A line of one's own by name, a crease or a facet by id; absent: the middle of what all stands on. */
  readonly of?: string;
  /** Of a line its start, of a facet its middle, unless said. */
  readonly at?: SpotAt;
  /** From there. */
  readonly x?: Amount;
  readonly y?: Amount;
}

/** Mirrored about the crease it stands on, about that one's middle, or both. */
export const MIRRORS = ['crease', 'middle', 'both'] as const;

/** How a line runs. */
export type OwnWay =
  | { readonly from: Spot; readonly to: Spot }
  /** Parallel to a line, so far to its left; beginning and ending so much inside of it. */
  | { readonly beside: string; readonly mm: Amount; readonly start?: Amount; readonly end?: Amount }
  /** Right across a facet, at a part of its height (`along`) or width (`across`), 0 to 1. */
  | { readonly facet: string; readonly part: Amount; readonly way: 'along' | 'across' }
  /** Along an outline, its middle at a spot. */
  | { readonly shape: Shape; readonly middle: Spot; readonly turnDeg?: Amount }
  | { readonly corners: readonly Spot[]; readonly closed?: boolean };

export type OwnLine = OwnWay & {
  /** Letters and digits, unique: creases and facets are named by it. */
  readonly name: string;
  readonly role: OwnRole;
  /** The side of the paper that a mark is drawn on; the inside unless said. */
  readonly side?: Side;
  /** Piece of its own that it is drawn on; absent: the paper that all stands on. */
  readonly piece?: string;
  readonly mirror?: (typeof MIRRORS)[number];
  /** So many in a row, each so much further. */
  readonly repeat?: { readonly times: number; readonly x: Amount; readonly y: Amount };
  /** Name of the crease that this is a further stretch of. */
  readonly partOf?: string;
  /** How far a crease is folded at the two ends of the card's travel, degrees; null: it follows. */
  readonly lies?: readonly [closed: number | null, open: number | null];
  /** Crease whose fold its stiffness follows; null: none; absent: that which all stands on. */
  readonly standsOn?: string | null;
  /** A hand folds it, by a drive of its own: from so many degrees, and so many a unit of the drive. */
  readonly drive?: { readonly id: string; readonly at: number; readonly rate: number };
};

export const MOST_OWN_LINES = 400;
export const MOST_REPEATS = 60;
/** Points of a line of several corners. */
export const MOST_CORNERS = 4000;
/** `fold1`: room is left for what is added to it in ids. */
export const OWN_NAME = /^[a-zA-Z][a-zA-Z0-9-]{0,27}$/;

/** A name that no other line has: `fold`, `fold2`, `fold3` … */
export function freeName(lines: readonly OwnLine[], stem: string): string {
  const taken = new Set(lines.map((l) => l.name));
  if (!taken.has(stem)) return stem;
  let n = 2;
  while (taken.has(`${stem}${n}`)) n++;
  return `${stem}${n}`;
}

const spotsOf = (line: OwnLine): readonly Spot[] =>
  'from' in line ? [line.from, line.to] : 'corners' in line ? line.corners : 'shape' in line ? [line.middle] : [];
/** What a line is measured from, by name or id. */
export const heldBy = (line: OwnLine): string[] => [
  ...spotsOf(line).flatMap((s) => s.of ?? []),
  ...('beside' in line ? [line.beside] : []),
  ...('facet' in line ? [line.facet] : []),
];

/** Every amount of a line. */
export const amountsOf = (line: OwnLine): Amount[] => [
  ...spotsOf(line).flatMap((s) => [s.x ?? 0, s.y ?? 0]),
  ...('beside' in line ? [line.mm, line.start ?? 0, line.end ?? 0] : []),
  ...('facet' in line ? [line.part] : []),
  ...('shape' in line ? [line.turnDeg ?? 0] : []),
  ...(line.repeat ? [line.repeat.x, line.repeat.y] : []),
];

/** A line with one of its spots changed. */
export function withSpot(line: OwnLine, end: 'from' | 'to' | 'middle' | number, spot: Spot): OwnLine {
  if (typeof end === 'number')
    return 'corners' in line ? { ...line, corners: line.corners.map((s, k) => (k === end ? spot : s)) } : line;
  return end in line ? ({ ...line, [end]: spot } as OwnLine) : line;
}
