/** A brought-in template as it is kept in the document: its lines, and what each is for. */
import type { TemplateRole } from '../pattern/pattern';
import type { Vec2 } from '../plane/vec2';

/** One end of a join: a place inside the facet it is on, and two points that come to lie on those of the other end. */
export interface JoinEnd {
  readonly inside: Vec2;
  readonly from: Vec2;
  readonly to: Vec2;
}
export const JOIN_KINDS = ['bond', 'pivot', 'slide'] as const;
/**
 * Two pieces joined: glued facet on facet, on a rivet (`from` its middle), or a pin of `b` in a slot of `a` (`from` and
 * `to` the ends of its way). Points as drawn in the file, before it is scaled.
 */
export interface TemplateJoin {
  readonly id: string;
  readonly kind: (typeof JOIN_KINDS)[number];
  readonly a: JoinEnd;
  readonly b: JoinEnd;
  /** `b` lies turned over on `a`: face to face. */
  readonly turned: boolean;
}

/** Longest id of a join. */
const LONGEST_JOIN = 34;
/** A name that no other join has: as wanted, or with a number. */
export function freeJoinId(joins: readonly TemplateJoin[], wanted: string): string {
  const taken = new Set(joins.map((j) => j.id));
  if (!taken.has(wanted)) return wanted;
  const stem = wanted.slice(0, LONGEST_JOIN);
  let n = 2;
  while (taken.has(`${stem}-${n}`)) n++;
  return `${stem}-${n}`;
}

export interface Template {
  readonly name: string;
  /** Everything is scaled together. */
  readonly scale: number;
  /** Mend what can be mended when it is put together. */
  readonly mended: boolean;
  readonly lines: readonly {
    readonly id: string;
    readonly group: string;
    readonly points: readonly Vec2[];
    readonly closed: boolean;
  }[];
  readonly groups: readonly {
    readonly key: string;
    readonly layer: string;
    readonly colour: string;
    readonly dashed: boolean;
    readonly role: TemplateRole;
  }[];
  /** Roles of single lines, by id, where they differ from their group's. */
  readonly picked: Readonly<Record<string, TemplateRole>>;
  /** Line that is the gutter; null: the longest crease of the largest piece. */
  readonly lead: string | null;
  readonly joins?: readonly TemplateJoin[];
  /** What its pieces are called, each by a place on its paper as drawn in the file. */
  readonly pieces?: readonly { readonly at: Vec2; readonly name: string }[];
}
