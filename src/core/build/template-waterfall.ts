/**
 * A waterfall among the pieces of a template, as it is sold to be put together: panels that are alike, a belt scored
 * across at even distances, and perhaps a strap and the card it goes into. No linkage of flat pieces rolls a belt over
 * a strap; the kind does, so the pieces say its sizes.
 *
 *      panels ≥ 2        belt, scored across      strap
 *     ┌───┐┌───┐┌───┐    ┌─┬─┬─┬──────────┐    ┌─────────┐
 *     │   ││   ││   │    │ ╎ ╎ ╎          │    │ o     o │
 *     └───┘└───┘└───┘    └─┴─┴─┴──────────┘    └─────────┘
 */
import type { Design } from '../document/design';
import { addMechanism } from '../document/standing';
import type { Template } from '../document/template';
import { partId } from '../ids';
import { KINDS, type ParameterValues } from '../kinds';
import { isCrease, type TemplateLine } from '../pattern/mending';
import { roundHole } from '../pattern/recognise';
import { contains, distanceToEdge, insidePoint, polygonArea } from '../plane/polygon';
import { dist2, dot2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { withTemplate, type PieceStock } from './bring';
import { sheetsNamed, templateLines, type NamedSheet } from './template';

/** Pieces of one size differ by less, mm. */
const SAME_SIZE_MM = 0.5;
/** A panel fills so much of its box, or it is another shape. */
const FILLS = 0.85;
/** Fewer alike are a pair of something. */
const LEAST_PANELS = 2;
/** Folds that run the same way differ by less, degrees. */
const SAME_WAY_DEG = 1;
/** Paper of a strap beyond each of its rivets, where none are drawn, mm; common practice, no source. */
const RIVET_EDGE_MM = 6;
const KIND = 'waterfall';

/** What was found: pieces by their ids, and the sizes they give. */
export interface FoundWaterfall {
  readonly panels: readonly string[];
  readonly belt: string;
  readonly strap: string | null;
  /** A piece with a fold that it goes into. */
  readonly card: string | null;
  readonly values: ParameterValues;
}

/** A piece with its folds, and how large it is along the belt and across it, mm. */
interface Part extends NamedSheet {
  readonly folds: readonly TemplateLine[];
  readonly along: number;
  readonly across: number;
}

/** Throws ShapeError where the lines make no pieces; null where they are no waterfall. */
export function waterfallIn(t: Template): FoundWaterfall | null {
  const lines = templateLines(t);
  const sheets = sheetsNamed(t).map((s) => ({ ...s, folds: foldsOn(s, lines) }));
  const way = sheets.flatMap(({ folds }) => folds).find((f) => beltPitch(f, sheets) !== null);
  if (!way) return null;
  const parts = sheets.map((s): Part => ({ ...s, ...sizeIn(s, way) }));
  const belt = parts
    .filter((p) => pitchOf(p.folds, way) !== null)
    .sort((a, b) => b.folds.length - a.folds.length || a.across - b.across)[0];
  const others = parts.filter((p) => p !== belt);
  const panels = alike(others.filter((p) => p.folds.length === 0 && fills(p)));
  if (panels.length < LEAST_PANELS || panels[0].across < belt.across) return null;
  const card = others.find(
    (p) => p.folds.length > 0 && polygonArea(p.sheet.whole) > polygonArea(panels[0].sheet.whole),
  );
  const strap = others
    .filter((p) => p.folds.length === 0 && !panels.includes(p) && p !== card)
    .sort((a, b) => polygonArea(a.sheet.whole) - polygonArea(b.sheet.whole))[0];
  const sizes: ParameterValues = {
    count: panels.length,
    panelHeight: panels[0].along,
    panelWidth: panels[0].across,
    pitch: pitchOf(belt.folds, way)!,
    beltWidth: belt.across,
    ...(strap ? strapSizes(strap, lines) : {}),
  };
  return {
    panels: panels.map((p) => p.id),
    belt: belt.id,
    strap: strap?.id ?? null,
    card: card?.id ?? null,
    values: Object.fromEntries(Object.entries(sizes).map(([key, v]) => [key, allowed(key, v as number)])),
  };
}

/**
 * The template's card with the waterfall on it, or the design's own card where the template has none; panels and belt
 * are cut from what was said of their pieces. Throws ShapeError where the card is none.
 */
export function withWaterfall(
  design: Design,
  t: Template,
  found: FoundWaterfall,
  stocks: readonly PieceStock[] = [],
): Design {
  const sheets = new Map(sheetsNamed(t).map((s) => [s.id, s]));
  const stockOf = (piece: string): string | undefined => {
    const { sheet } = sheets.get(piece)!;
    return stocks.find(({ at }) => contains(sheet.whole, scale2(at, t.scale)))?.stock;
  };
  const card = found.card === null ? design : withTemplate(design, onlyOn(t, sheets.get(found.card)!), stocks);
  const { design: made, id } = addMechanism(card, KIND, undefined, found.values);
  const belt = stockOf(found.belt);
  const panels = found.panels.flatMap((piece, k) => {
    const stock = stockOf(piece);
    return stock === undefined ? [] : [{ piece: partId(id, `panel-${k + 1}`), stock }];
  });
  return {
    ...made,
    mechanisms: made.mechanisms.map((m) => (m.id === id && belt !== undefined ? { ...m, stock: belt } : m)),
    ...(panels.length > 0 ? { cutFrom: [...(made.cutFrom ?? []), ...panels] } : {}),
  };
}

const foldsOn = ({ sheet }: NamedSheet, lines: readonly TemplateLine[]): TemplateLine[] =>
  lines.filter((l) => isCrease(l) && contains(sheet.whole, lerp2(l.points[0], l.points[l.points.length - 1], 0.5)));

const wayOf = ({ points }: TemplateLine): Vec2 => {
  const [x, y] = sub2(points[points.length - 1], points[0]);
  const long = Math.hypot(x, y);
  return [x / long, y / long];
};

/** Size along the belt and across it, which is the way of its folds. */
function sizeIn({ sheet }: NamedSheet, fold: TemplateLine): Pick<Part, 'along' | 'across'> {
  const [x, y] = wayOf(fold);
  const reach = (u: Vec2): number => {
    const at = sheet.outer.map((p) => dot2(p, u));
    return Math.max(...at) - Math.min(...at);
  };
  return { across: reach([x, y]), along: reach([-y, x]) };
}

/** Distance of even folds that run one way, mm; null where there are less than two, or they do not. */
function pitchOf(folds: readonly TemplateLine[], fold: TemplateLine): number | null {
  const [x, y] = wayOf(fold);
  const least = Math.cos((SAME_WAY_DEG * Math.PI) / 180);
  if (folds.length < 2 || folds.some((f) => Math.abs(dot2(wayOf(f), [x, y])) < least)) return null;
  const at = folds
    .map((f) => dot2(lerp2(f.points[0], f.points[f.points.length - 1], 0.5), [-y, x]))
    .sort((a, b) => a - b);
  const gaps = at.slice(1).map((v, k) => v - at[k]);
  const isEven = Math.max(...gaps) - Math.min(...gaps) < SAME_SIZE_MM;
  return isEven ? (at[at.length - 1] - at[0]) / gaps.length : null;
}

/** Whether a fold is one of a belt's: of several even ones, each across all of a piece that is longer than wide. */
function beltPitch(fold: TemplateLine, sheets: readonly (NamedSheet & Pick<Part, 'folds'>)[]): number | null {
  const own = sheets.find((s) => s.folds.includes(fold))!;
  const { along, across } = sizeIn(own, fold);
  const isAcross = own.folds.every((f) => dist2(f.points[0], f.points[f.points.length - 1]) > across - SAME_SIZE_MM);
  return isAcross && along > across ? pitchOf(own.folds, fold) : null;
}

const fills = ({ sheet, along, across }: Part): boolean => polygonArea(sheet.whole) > FILLS * along * across;

/** The most pieces of one size. */
function alike(parts: readonly Part[]): Part[] {
  const isLike = (a: Part) => (b: Part) =>
    Math.abs(a.along - b.along) < SAME_SIZE_MM && Math.abs(a.across - b.across) < SAME_SIZE_MM;
  return parts.map((p) => parts.filter(isLike(p))).sort((a, b) => b.length - a.length)[0] ?? [];
}

/** A strap is as wide as its shorter side; its rivets are where its two holes are, or near its ends. */
function strapSizes({ sheet, along, across }: Part, lines: readonly TemplateLine[]): ParameterValues {
  const holes = lines.flatMap((l) => {
    const hole = l.role === 'window' || l.role === 'cut' ? roundHole(l) : null;
    return hole && contains({ outer: sheet.outer, holes: [] }, hole.centre) ? [hole.centre] : [];
  });
  const rivetGap = holes.length === 2 ? dist2(holes[0], holes[1]) : Math.max(along, across) - 2 * RIVET_EDGE_MM;
  return { strap: Math.min(along, across), rivetGap };
}

/** As near as its field takes it, and as it is typed. */
function allowed(key: string, value: number): number {
  const { min = -Infinity, max = Infinity } = KINDS.get(KIND)!.parameters.find((p) => p.key === key)!;
  return Math.min(max, Math.max(min, Number(value.toFixed(DECIMALS))));
}
/** Of a length that is written down, mm. */
const DECIMALS = 2;

/** The lines of one piece as a template of its own. */
function onlyOn(t: Template, { sheet }: NamedSheet): Template {
  const whole = { outer: sheet.outer, holes: [] };
  const isOn = (points: readonly Vec2[]): boolean => {
    const scaled = points.map((p) => scale2(p, t.scale));
    const middles = scaled.slice(1).map((p, k) => lerp2(p, scaled[k], 0.5));
    return [...scaled, ...middles].some((p) => contains(whole, p) || distanceToEdge(whole, p) < EDGE_MM);
  };
  const { joins: _joins, pieces: _pieces, ...rest } = t;
  return {
    ...rest,
    lines: t.lines.filter((l) => isOn(l.points)),
    pieces: [{ at: scale2(insidePoint(whole), 1 / t.scale), name: t.name }],
  };
}
/** On an outline to within this, mm. */
const EDGE_MM = 0.01;
