/** A brought-in template as it is kept in the document: its lines, and what each is for. */
import type { TemplateRole } from '../pattern/pattern';
import type { Vec2 } from '../plane/vec2';

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
}
