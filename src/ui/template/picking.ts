/** Lines of a template picked by hand: one, several, those in a box, all that are like one. */
import { SAME_LENGTH_MM } from '@/core/build/template-severing';
import { lengthOf, type TemplateLine } from '@/core/pattern/mending';
import type { Template } from '@/core/document/template';
import type { TemplateRole } from '@/core/pattern/pattern';
import type { Vec2 } from '@/core/plane/vec2';

/** Lines by id, in the order they were picked in. */
export type Picked = readonly string[];

/** What is picked once a line was clicked: that alone, or with Shift what was picked with it or without it. */
export const clicked = (picked: Picked, id: string, more: boolean): Picked =>
  !more ? [id] : picked.includes(id) ? picked.filter((p) => p !== id) : [...picked, id];

/** Lines that lie wholly between two corners. */
export function inBox(lines: readonly TemplateLine[], a: Vec2, b: Vec2): Picked {
  const [x0, x1] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const [y0, y1] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  const within = ([x, y]: Vec2): boolean => x >= x0 && x <= x1 && y >= y0 && y <= y1;
  return lines.filter((l) => l.points.every(within)).map((l) => l.id);
}

/** Lines drawn like some, and as long. */
export function alikeTo(template: Template, lines: readonly TemplateLine[], picked: Picked): Picked {
  const groupOf = new Map(template.lines.map((l) => [l.id, l.group]));
  const long = new Map(lines.map((l) => [l.id, lengthOf(l)]));
  const like = (p: string, id: string): boolean =>
    groupOf.get(p) === groupOf.get(id) && Math.abs(long.get(p)! - long.get(id)!) < SAME_LENGTH_MM;
  const known = picked.filter((p) => long.has(p));
  return lines.filter((l) => known.some((p) => like(p, l.id))).map((l) => l.id);
}

/** The line before or after the last that was picked, in the order of the drawing. */
export function beside(lines: readonly TemplateLine[], picked: Picked, by: 1 | -1): string | undefined {
  const at = lines.findIndex((l) => l.id === picked[picked.length - 1]);
  if (at < 0) return (by > 0 ? lines[0] : lines[lines.length - 1])?.id;
  return lines[(at + by + lines.length) % lines.length].id;
}

/** A template whose lines, with all the dashes of each, are for something else. */
export function withRole(t: Template, lines: readonly TemplateLine[], picked: Picked, role: TemplateRole): Template {
  const dashes = new Map(lines.map((l) => [l.id, l.joined ?? [l.id]]));
  const roles = Object.fromEntries(picked.flatMap((id) => (dashes.get(id) ?? [id]).map((d) => [d, role])));
  return { ...t, picked: { ...t.picked, ...roles } };
}
