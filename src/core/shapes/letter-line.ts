/**
 * Letters of a word that stand on a line and are held along another: where they are trimmed, which of them touch.
 *
 *       ───┬──┬───┬─┬──  line at the top       A word is drawn whole; what lies past either line is trimmed off, the
 *          │▗▖│ ╲ ╱ │                          least that leaves each letter a contact as wide as is asked for.
 *       ───┴──┴──╳──┴──  line at the foot      The point of a V is trimmed until it is that wide.
 */
import { mapRegion, regionBox, type Region } from '../plane/polygon';
import { fitWithContacts } from './contact';
import { contactsAt, endsAt, levelAt, widthOfAll } from './level';

/** A part of the shape, and the width of its contacts, mm; null where it ends too far from a line to be held there. */
export interface Letter {
  readonly from: number;
  readonly to: number;
  readonly footMm: number | null;
  readonly topMm: number | null;
}
/** Lengths in mm, the line of the feet at height 0. */
export interface LetterLine {
  /** All that was drawn, and what is left of it. */
  readonly drawn: Region;
  readonly left: Region;
  readonly topMm: number;
  readonly letters: readonly Letter[];
  /** The contact that a line so far above the lowest point drawn leaves the letter that has least of it. */
  readonly contacts: readonly { readonly upMm: number; readonly contactMm: number }[];
}

/** So many places for the line are weighed, up to this share of the height. */
const PLACES = 60;
const HIGHEST_PART = 0.4;
/** Parts that touch by less do not, mm. */
const TOUCHES_MM = 0.05;

export function letterLine(shape: Region, height: number, width: number | null, contactMm: number): LetterLine {
  const { region: left, kept } = fitWithContacts(shape, height, width, ['bottom', 'top'], contactMm);
  const own = regionBox(left);
  const [sx, sy] = [0, 1].map((k) => (own.max[k] - own.min[k]) / (kept.max[k] - kept.min[k]));
  const drawn = mapRegion(shape, ([x, y]) => [own.min[0] + (x - kept.min[0]) * sx, (y - kept.min[1]) * sy]);
  const whole = regionBox(drawn);
  const touching = (part: Region[number], edge: 'top' | 'bottom'): number | null => {
    const box = regionBox([part]);
    if (!endsAt(box, whole, edge)) return null;
    const contacts = contactsAt(left, edge === 'top' ? height : 0, edge);
    const within = contacts.filter((c) => c.from >= box.min[0] - TOUCHES_MM && c.to <= box.max[0] + TOUCHES_MM);
    const mm = widthOfAll(within);
    return mm < TOUCHES_MM ? 0 : mm;
  };
  const letters = drawn
    .map((part): Letter => {
      const { min, max } = regionBox([part]);
      return { from: min[0], to: max[0], footMm: touching(part, 'bottom'), topMm: touching(part, 'top') };
    })
    .sort((a, b) => a.from - b.from);
  const feet = drawn.filter((part) => endsAt(regionBox([part]), whole, 'bottom'));
  const contacts = Array.from({ length: PLACES }, (_, k) => {
    const upMm = ((k + 0.5) / PLACES) * HIGHEST_PART * (whole.max[1] - whole.min[1]);
    const at = whole.min[1] + upMm;
    return { upMm, contactMm: Math.min(...feet.map((part) => widthOfAll(levelAt([part], at)))) };
  });
  return { drawn, left, topMm: height, letters, contacts };
}

/** The contact to ask for, so that the line of the feet lies about so far above the lowest point drawn, mm. */
export function contactForLine({ contacts }: LetterLine, upMm: number): number {
  const below = contacts.filter((c) => c.upMm <= upMm);
  return below.reduce((most, c) => Math.max(most, c.contactMm), 0);
}
