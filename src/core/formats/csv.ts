/** The cut list as CSV. */
import Papa from 'papaparse';
import type { CutListRow } from '../sheets/cutlist';

export function cutListCsv(rows: readonly CutListRow[]): string {
  const flat = rows.map((r) => ({
    piece: r.piece,
    title: r.title,
    width_mm: r.width_mm,
    height_mm: r.height_mm,
    stock: r.stock,
    colour: r.colour,
    count: r.count,
    side: r.side ?? '',
    creases: r.creases.map((c) => `${c.name}, ${c.role}, ${c.made}`).join('; '),
    glue: r.glue.join('; '),
  }));
  // Names are the user's own: a leading = or + must not become a formula in a spreadsheet.
  return Papa.unparse(flat, { escapeFormulae: true, newline: '\n' }) + '\n';
}
