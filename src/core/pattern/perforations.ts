/** Perforations that come as single dashes, joined into the creases they stand for. mm. */
import { dist2, distToLine, dot2, lerp2, scale2, sideOf, sub2, type Vec2 } from '../plane/vec2';
import { LineIndex } from './line-index';
import { isCrease, isPerforated, reach, type TemplateLine } from './mending';

/**
 * Paper between two dashes of one perforation is no wider than this, or than two dashes; common practice, no source.
 */
const WIDEST_BRIDGE_MM = 6;
/** Dashes stray this little from their line: what a drawing program rounds to. */
const IN_LINE_MM = 0.02;

interface Dash {
  readonly line: TemplateLine;
  readonly a: Vec2;
  readonly b: Vec2;
}

/**
 * The lines with each row of dashes as one crease, run on to the lines that the row stops short of. Whole lines stay
 * as they are.
 */
export function joinPerforations(lines: readonly TemplateLine[]): readonly TemplateLine[] {
  const dashes = lines.filter(
    (l) => isPerforated(l) && !l.closed && l.points.length === 2 && dist2(l.points[0], l.points[1]) > 0,
  );
  if (dashes.length === 0) return lines;
  const isDash = new Set(dashes);
  const solid = lines.filter((l) => !isDash.has(l) && (isCrease(l) || l.role === 'cut' || l.role === 'window'));
  const gone = new Set<string>();
  const creases = new Map<string, TemplateLine>();
  const rows = rowsOf(dashes, new LineIndex(solid));
  // Rows of other creases stand for the lines they lie on.
  const stands = rows.map((r): TemplateLine => ({ ...r[0].line, points: [r[0].a, r[r.length - 1].b] }));
  const all = new LineIndex([...solid, ...stands]);
  const whole = rows.map((row, k) => creaseOf(row, all, stands[k]));
  rows.forEach((row, i) => {
    const crease = whole[i];
    if (!crease) return;
    row.forEach((d) => gone.add(d.line.id));
    creases.set(row[0].line.id, crease);
  });
  return lines.flatMap((l) => creases.get(l.id) ?? (gone.has(l.id) ? [] : [l]));
}

/** Dashes of one role that follow each other on one line, with nothing but paper between. */
function rowsOf(dashes: readonly TemplateLine[], solid: LineIndex<TemplateLine>): Dash[][] {
  const left = new Set(dashes);
  const rows: Dash[][] = [];
  for (const seed of dashes) {
    if (!left.has(seed)) continue;
    const [a, b] = seed.points;
    const along = scale2(sub2(b, a), 1 / dist2(a, b));
    const x = (p: Vec2): number => dot2(sub2(p, a), along);
    const inLine = [...left]
      .filter((l) => l.role === seed.role && l.points.every((p) => distToLine(p, a, b) <= IN_LINE_MM))
      .map((line): Dash =>
        x(line.points[0]) <= x(line.points[1])
          ? { line, a: line.points[0], b: line.points[1] }
          : { line, a: line.points[1], b: line.points[0] },
      )
      .sort((p, q) => x(p.a) - x(q.a));
    let row: Dash[] = [];
    for (const dash of inLine) {
      const last = row[row.length - 1];
      if (
        last &&
        (x(dash.a) - x(last.b) > Math.max(WIDEST_BRIDGE_MM, 2 * dist2(dash.a, dash.b)) ||
          crossed(last.b, dash.a, solid))
      ) {
        rows.push(row);
        row = [];
      }
      row.push(dash);
      left.delete(dash.line);
    }
    if (row.length > 0) rows.push(row);
  }
  return rows;
}

const crossed = (a: Vec2, b: Vec2, solid: LineIndex<TemplateLine>): boolean =>
  solid
    .near([a, b], 0)
    .some(({ a: p, b: q }) => sideOf(a, b, p) * sideOf(a, b, q) < 0 && sideOf(p, q, a) * sideOf(p, q, b) < 0);

/**
 * A row as one crease with its own making; null for a single dash with nothing to run on to: that may be a whole
 * line.
 */
function creaseOf(row: readonly Dash[], all: LineIndex<TemplateLine>, itself: TemplateLine): TemplateLine | null {
  const [first, last] = [row[0], row[row.length - 1]];
  const bridges = row.slice(1).map((d, i) => dist2(row[i].b, d.a));
  const mean = (v: readonly number[]): number => v.reduce((s, x) => s + x, 0) / v.length;
  const cutMm = mean(row.map((d) => dist2(d.a, d.b)));
  const end = (dash: Dash, at: Vec2): Vec2 | null => reach({ points: [dash.a, dash.b] }, at, all, itself);
  const ends = [end(first, first.a), end(last, last.b)];
  if (row.length === 1 && (!ends[0] || !ends[1] || dist2(first.a, ends[0]) + dist2(first.b, ends[1]) < IN_LINE_MM))
    return null;
  const gapMm = bridges.length > 0 ? Math.min(...bridges) : dist2(first.a, ends[0]!) + dist2(first.b, ends[1]!);
  const outwards = (from: Vec2, to: Vec2): Vec2 => lerp2(from, to, 1 + gapMm / 2 / dist2(from, to));
  const points = [ends[0] ?? outwards(first.b, first.a), ends[1] ?? outwards(last.a, last.b)];
  // Down to the micrometre, so that as many dashes fit as were there.
  return {
    id: first.line.id,
    role: first.line.role,
    closed: false,
    points,
    joined: row.map((d) => d.line.id),
    making: { way: 'perforate', cutMm: round3(cutMm), gapMm: Math.floor(gapMm * 1000 + 1e-3) / 1000 },
  };
}
const round3 = (x: number): number => Math.round(x * 1000) / 1000;
