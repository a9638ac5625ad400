/** A design that takes a brought-in template for its card. */
import { GUTTER, type Host } from '../kinds';
import { baseKindOf, setParameter } from '../document/fields';
import { removeMechanism } from '../document/standing';
import type { CutFrom, Design } from '../document/design';
import type { Template } from '../document/template';
import { CARD, ownerOfId } from '../ids';
import { contains, insidePoint } from '../plane/polygon';
import { scale2, type Vec2 } from '../plane/vec2';
import { stockOfPiece } from './own-stocks';
import { buildTemplate, sheetsNamed } from './template';

/** A stock that a piece of a template is cut from, by a place on its paper as drawn in the file. */
export interface PieceStock {
  readonly at: Vec2;
  readonly stock: string;
}

/**
 * What stands on the gutter stays; what stood on other creases of the old card goes with them. Creases that came
 * perforated are cut so again. The card's own numbers become those of the template, pieces are cut from what was said.
 * Throws ShapeError where the template is no card.
 */
export function withTemplate(design: Design, template: Template, stocks: readonly PieceStock[] = []): Design {
  const { making = {}, hosts } = buildTemplate(template, design.card.stock);
  const orphans = design.mechanisms.filter((m) => m.on !== GUTTER && m.on.startsWith('card.'));
  const kept = orphans.reduce(
    (d, { id }) => (d.mechanisms.some((m) => m.id === id) ? removeMechanism(d, id) : d),
    design,
  );
  const others = Object.entries(kept.making.creases).filter(([crease]) => !crease.startsWith('card.'));
  const { cutFrom = [], ...rest } = sizedAs(
    kept,
    hosts.find((h) => h.crease === GUTTER)!,
  );
  const own = cutFrom.filter(({ piece }) => kept.mechanisms.some((m) => m.id === ownerOfId(piece)));
  const [card, ...asked] = stocksOf(template, [...stocks, ...keptStocks(design, template)], design.card.stock);
  const all = [...own, ...asked.filter(({ stock }) => stock !== card.stock)];
  return {
    ...rest,
    card: { ...rest.card, stock: card.stock, template },
    ...(all.length > 0 ? { cutFrom: all } : {}),
    making: { ...kept.making, creases: { ...Object.fromEntries(others), ...making } },
  };
}

/** Every piece of a template with what it is cut from, the card itself first. */
function stocksOf(template: Template, stocks: readonly PieceStock[], usual: string): CutFrom[] {
  const placed = stocks.map(({ at, stock }) => ({ at: scale2(at, template.scale), stock }));
  return sheetsNamed(template).map(({ id, sheet }) => ({
    piece: id,
    stock: placed.find(({ at }) => contains(sheet.rest, at))?.stock ?? usual,
  }));
}

/** What the pieces of a card's template are cut from, where another is the same drawing with other roles or joins. */
export function keptStocks(design: Design, other: Template): PieceStock[] {
  const now = design.card.template;
  if (!now || now.lines.length !== other.lines.length || now.lines.some((l, k) => l.id !== other.lines[k].id))
    return [];
  return sheetsNamed({ ...now, scale: 1 }).map(({ id, sheet }) => ({
    at: insidePoint(sheet.rest),
    stock: stockOfPiece(design, id, design.card.stock),
  }));
}

/** A card as long along its fold, and as deep to both sides of it, as the template's; a base of other numbers stays. */
function sizedAs(design: Design, { lengthMm, reachA, reachB }: Host): Design {
  const known = new Map(baseKindOf(design).parameters.map((p) => [p.key, p]));
  return Object.entries({ gutter: lengthMm, reachA, reachB }).reduce((d, [key, mm]) => {
    const own = known.get(key);
    const value = Number(mm.toFixed(DECIMALS));
    return own && value >= own.min! && value <= own.max! ? setParameter(d, CARD, key, value) : d;
  }, design);
}
/** Of a length that is written down, mm. */
const DECIMALS = 4;
