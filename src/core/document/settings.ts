/**
 * Numbers and choices of other stages that a remedy may turn: what a card is cut from, how it is sent, what is meant to
 * stick out of it. A choice is turned by its place in the list of what it can be.
 */
import { OPEN, OPENING } from '../drives';
import { idOfLayer, MEANT, POST, SHEETS, stateOfSetting, stockOfSetting } from '../ids';
import { STANCES, type NamedState } from '../kinds';
import { SHEETS as SHEET_SIZES } from '../paper/sizes';
import type { Design, Layer } from './design';
import { withEntry } from './entries';
import { nameOfMechanism, nameOfPart, STANCE_WORDS } from './words';
import { envelopesOf } from './post';
import { statesOf } from './states';

export interface Setting {
  /** Stage and name: "Sheets, margin". */
  readonly label: string;
  /** The number (mm unless said), or the place of what is chosen. */
  readonly value: number;
  readonly unit?: 'deg';
  readonly range: { readonly min: number; readonly max: number };
  /** Names of what it can be, where it is a choice. */
  readonly choices?: readonly string[];
  readonly set: (value: number) => Design;
}

/** The setting that a lever names; null where it names none, or one that this card does not have. */
export function settingOf(design: Design, mechanism: string, parameter: string): Setting | null {
  if (mechanism === SHEETS && parameter === 'marginMm') return margin(design);
  if (mechanism === POST && parameter === 'sent') return sent(design);
  if (mechanism === POST && parameter === 'envelope') return envelope(design);
  if (mechanism === MEANT) return meant(design, parameter);
  const stock = stockOfSetting(mechanism);
  if (stock !== null && parameter === 'sheet') return sheet(design, stock);
  if (stock !== null && parameter === 'grain') return grain(design, stock);
  if (stock !== null && parameter === 'marginMm') return ownMargin(design, stock);
  const state = stateOfSetting(mechanism);
  if (state !== null) return parameter === 'stance' ? stance(design, state) : opening(design, state);
  const layer = design.layers.find((l) => l.id === idOfLayer(mechanism));
  if (layer && parameter === 'onFacet') return onFacet(design, layer);
  return layer && parameter === 'trimmed' ? trimmed(design, layer) : null;
}

const margin = (design: Design): Setting => ({
  label: 'Sheets, margin',
  value: design.sheets.marginMm,
  range: { min: 0, max: 100 },
  set: (marginMm) => ({ ...design, sheets: { ...design.sheets, marginMm } }),
});

/** The margin of one stock, where it has one of its own. */
function ownMargin(design: Design, id: string): Setting | null {
  const stock = design.stocks.find((s) => s.id === id);
  if (stock?.marginMm === undefined) return null;
  return {
    label: `Sheets, margin of ${stock.name}`,
    value: stock.marginMm,
    range: { min: 0, max: 100 },
    set: (marginMm) => ({ ...design, stocks: design.stocks.map((s) => (s === stock ? { ...s, marginMm } : s)) }),
  };
}

/** A choice among things that have names. */
function choice<T>(
  label: string,
  all: readonly { readonly name: string; readonly is: T }[],
  now: number,
  set: (is: T) => Design,
): Setting {
  return {
    label,
    value: now,
    range: { min: 0, max: all.length - 1 },
    choices: all.map((one) => one.name),
    set: (k) => set(all[Math.min(all.length - 1, Math.max(0, Math.round(k)))].is),
  };
}

function sent(design: Design): Setting {
  const { sent: now, ...post } = design.post;
  const all = [
    { name: 'shut', is: false },
    { name: 'open flat', is: true },
  ];
  return choice('Brief, sent', all, now === 'open' ? 1 : 0, (open) => ({
    ...design,
    post: open ? { ...post, sent: 'open' } : post,
  }));
}

/** Envelopes from the smallest: the next that takes the card is the nearest. */
function envelope(design: Design): Setting | null {
  const all = [...envelopesOf(design)].sort((a, b) => a.shortMm * a.longMm - b.shortMm * b.longMm);
  const now = all.findIndex((e) => e.id === design.post.envelope);
  return now < 0
    ? null
    : choice(
        'Brief, envelope',
        all.map(({ id, name }) => ({ name, is: id })),
        now,
        (id) => ({
          ...design,
          post: { ...design.post, envelope: id },
        }),
      );
}

/** Sheets from the smallest. One of a size of its own stands before them all. */
function sheet(design: Design, id: string): Setting | null {
  const stock = design.stocks.find((s) => s.id === id);
  if (!stock) return null;
  const listed = [...SHEET_SIZES].sort((a, b) => a.shortMm * a.longMm - b.shortMm * b.longMm);
  const own = stock.ownSheet
    ? [{ name: `${stock.ownSheet.shortMm} x ${stock.ownSheet.longMm} mm`, is: stock.sheet }]
    : [];
  const all = [...own, ...listed.map((s) => ({ name: s.name, is: s.id }))];
  const now = stock.ownSheet ? 0 : all.findIndex((s) => s.is === stock.sheet);
  return choice(`Brief, sheet of ${stock.name}`, all, now, (next) => {
    const { ownSheet: _, ...rest } = stock;
    return { ...design, stocks: design.stocks.map((s) => (s === stock ? { ...rest, sheet: next } : s)) };
  });
}

/** Paper is sold with its grain either way; what has none is another paper. */
function grain(design: Design, id: string): Setting | null {
  const stock = design.stocks.find((s) => s.id === id);
  if (!stock || stock.grain === 'none') return null;
  const all = [
    { name: 'long', is: 'long' },
    { name: 'short', is: 'short' },
  ] as const;
  return choice(`Brief, grain of ${stock.name}`, all, stock.grain === 'long' ? 0 : 1, (next) => ({
    ...design,
    stocks: design.stocks.map((s) => (s === stock ? { ...s, grain: next } : s)),
  }));
}

const nameOfOwner = (design: Design, of: string): string =>
  design.mechanisms.some((m) => m.id === of) ? nameOfMechanism(design, of) : nameOfPart(design, of);

/** How far a mechanism, a piece of the base or a layer is meant to stick out of the shut card, mm. */
function meant(design: Design, of: string): Setting {
  return {
    label: `${nameOfOwner(design, of)}, meant to stick out by`,
    value: meantOutMm(design, of),
    range: { min: 0, max: 500 },
    set: (mm) => withEntry(design, 'meantOut', of, mm > 0 ? { of, mm } : null),
  };
}
export const meantOutMm = ({ meantOut = [] }: Pick<Design, 'meantOut'>, of: string): number =>
  meantOut.find((m) => m.of === of)?.mm ?? 0;

const withLayer = (design: Design, layer: Layer, change: Partial<Layer>): Design => ({
  ...design,
  layers: design.layers.map((l) => (l === layer ? { ...l, ...change } : l)),
});

/** Whether a layer is stuck to its own facet alone. */
function onFacet(design: Design, layer: Layer): Setting {
  const all = [
    { name: 'all over', is: false },
    { name: 'on its own facet', is: true },
  ];
  return choice(`${layer.name}, stuck`, all, layer.glued?.onFacet ? 1 : 0, (own) =>
    withLayer(design, layer, { glued: { ...layer.glued, onFacet: own } }),
  );
}

/** Whether a layer is cut off where its facet ends. */
function trimmed(design: Design, layer: Layer): Setting {
  const all = [
    { name: 'whole', is: false },
    { name: 'up to the edge of its facet', is: true },
  ];
  return choice(`${layer.name}, cut`, all, layer.trimmed ? 1 : 0, (own) => withLayer(design, layer, { trimmed: own }));
}

/** A design whose named state is another; those that come with its base are its own from then on. */
const withState = (design: Design, id: string, change: Partial<NamedState>): Design => ({
  ...design,
  states: statesOf(design).map((s) => (s.id === id ? { ...s, ...change } : s)),
});

/** How the card stands in a named state in which it is left alone. */
function stance(design: Design, id: string): Setting | null {
  const named = statesOf(design).find((s) => s.id === id);
  if (!named?.stance) return null;
  // What stands is laid down rather than put up as a tent: the next in the list is tried first.
  const all = [...STANCES].reverse().map((is) => ({ name: STANCE_WORDS[is], is }));
  const now = all.findIndex(({ is }) => is === named.stance);
  return choice(`Brief, ${named.name}`, all, now, (is) => withState(design, id, { stance: is }));
}

/** How far the card is open in a named state, degrees. */
function opening(design: Design, id: string): Setting | null {
  const named = statesOf(design).find((s) => s.id === id);
  const deg = named?.drives[OPEN];
  if (!named || deg === undefined) return null;
  return {
    label: `Brief, ${named.name}, opening`,
    unit: 'deg',
    value: deg,
    range: { min: OPENING.from, max: OPENING.to },
    set: (open) => withState(design, id, { drives: { ...named.drives, [OPEN]: open } }),
  };
}
