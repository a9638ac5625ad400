/**
 * How ids are made, and taken apart again; nobody else knows. A part is `MECHANISM.PART`; the leaves of the base stand
 * without their owner (`leafA`). A layer is `layer.ID` and the k-th mat of a facet `FACET.mat-K`, counted from 1; on
 * its outside `FACET.outer-mat-K`.
 */
import type { Side } from './side';

/** Owner of everything that belongs to the base. */
export const CARD = 'card';
const LAYER = 'layer';

/** Owners of choices of other stages, as a remedy names them: about sheets, the post, what is meant to stick out. */
export const SHEETS = 'card.sheets';
export const POST = 'card.post';
export const MEANT = 'card.meant';
/** Owner of the choices about a state that has a name. */
const STATE = 'card.state-';
export const stateSetting = (state: string): string => `${STATE}${state}`;
/** The id of the state whose choices an owner names, or null for anything else. */
export const stateOfSetting = (id: string): string | null => (id.startsWith(STATE) ? id.slice(STATE.length) : null);
/** Owner of the choices about a stock. */
const STOCK = 'card.stock-';
export const stockSetting = (stock: string): string => `${STOCK}${stock}`;
/** The id of the stock whose choices an owner names, or null for anything else. */
export const stockOfSetting = (id: string): string | null => (id.startsWith(STOCK) ? id.slice(STOCK.length) : null);

export const partId = (owner: string, part: string): string => `${owner}.${part}`;
/** The mechanism a crease, facet or glue area belongs to; of an id without a part the id itself. */
export const ownerOfId = (id: string): string => {
  const dot = id.indexOf('.');
  return dot < 0 ? id : id.slice(0, dot);
};
/** What it is of its owner: `base` of `step-fold-1.base`. */
export const partOfId = (id: string): string => id.slice(id.lastIndexOf('.') + 1);

/** Whether a part is the one of a name, or one of several that a number tells apart: `carrier-2` is a `carrier`. */
export function isPartNamed(id: string, name: string): boolean {
  const part = id.slice(id.indexOf('.') + 1);
  return part === name || (part.startsWith(`${name}-`) && /^\d+$/.test(part.slice(name.length + 1)));
}

/** The name that a part shares with others of other numbers, `carrier` of `carrier-2`; null where it has no number. */
export const sharedName = (id: string): string | null => /^(.+)-\d+$/.exec(partOfId(id))?.[1] ?? null;

/** Paper that cuts part from a facet, counted from 2. */
export const cutOffId = (facet: string, n: number): string => `${facet}-part-${n}`;
export const isCutOff = (id: string): boolean => /-part-\d+$/.test(id);

/** Whether a part belongs to an owner. */
export const isPartOf = (id: string, owner: string): boolean => id.startsWith(`${owner}.`);
/** An id, or that of a part of it, under another owner; null for anything else. */
export function underOwner(id: string, from: string, to: string): string | null {
  if (id === from) return to;
  return isPartOf(id, from) ? `${to}${id.slice(from.length)}` : null;
}
/** What a part of a part is of, in words: "level 1" of `card.level-1.open`; nothing where it is of its owner itself. */
export const wordsWithin = (id: string): string => wordsOfPart(id.split('.').slice(1, -1).join('-'));
/** The last key of a number's path: `height` of `planes[1].height`. */
export const lastKey = (path: string): string => path.slice(path.lastIndexOf('.') + 1);

export const layerId = (id: string): string => partId(LAYER, id);
/** The document's id of a layer, or null for anything else. */
export const idOfLayer = (id: string): string | null =>
  id.startsWith(`${LAYER}.`) ? id.slice(LAYER.length + 1) : null;

export const matId = (facet: string, k: number, side: Side = 'inside'): string =>
  partId(facet, side === 'inside' ? `mat-${k}` : `outer-mat-${k}`);
/** Facet, number and side of a mat, or null for anything else. */
export function matOfId(id: string): { facet: string; k: number; side: Side } | null {
  const match = /^(.+)\.(outer-)?mat-(\d+)$/.exec(id);
  return match && { facet: match[1], k: Number(match[3]), side: match[2] ? 'outside' : 'inside' };
}

/** A part's name as words: `leafA` reads "leaf A", `backLeftTab` "back left tab", `plane-2` "plane 2". */
export const wordsOfPart = (id: string): string =>
  partOfId(id)
    .replace(/-/g, ' ')
    .replace(/([a-z])([A-Z0-9])/g, '$1 $2')
    .replace(/ [A-Z](?=[a-z])/g, (first) => first.toLowerCase());
