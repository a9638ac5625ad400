/** Shapes that stand at a size with contacts of a chosen width. */
import { regionBox, type Region } from '../plane/polygon';
import { leastTrim, trimmed } from './level';
import { standing } from './outline';

export interface Fitted {
  /** Standing as `standing` leaves it. */
  readonly region: Region;
  /** Edges at which no trim gives the contact. */
  readonly missing: readonly ('top' | 'bottom')[];
}

/** Rounds after which a fit is taken as it is; it settles within a few. */
const MOST_ROUNDS = 12;
/** It has settled where its scale changes by less than this part: far below a micrometre of any card. */
const SETTLED = 1e-10;
/** Remedies and room bars ask for the same fit while they change other things: kept as long as the drawn shape is. */
const known = new WeakMap<Region, Map<string, Fitted>>();

/**
 * A drawn shape at a height (and width, where one is given), trimmed at its edges by the least that leaves them
 * contacts `contactMm` wide. What is left after trimming is scaled back to the height, and contacts with it: found by
 * going back and forth.
 */
export const fitWithContacts = (
  drawn: Region,
  height: number,
  width: number | null,
  edges: readonly ('top' | 'bottom')[],
  contactMm: number,
): Fitted =>
  remember(drawn, [height, width, edges.join(), contactMm].join('/'), () =>
    fit(drawn, height, width, edges, contactMm),
  );

/**
 * A drawn shape at a height, its foot trimmed by the least that leaves a contact `contactMm` wide. What is left is not
 * scaled back: across it is as large as it was drawn for that height.
 */
export const withFoot = (drawn: Region, height: number, contactMm: number): Fitted =>
  remember(drawn, ['foot', height, contactMm].join('/'), () => {
    const whole = standing(drawn, height);
    const by = leastTrim(whole, 'bottom', contactMm);
    return { region: standing(trimmed(whole, 'bottom', by ?? 0), null), missing: by === null ? ['bottom'] : [] };
  });

function remember(drawn: Region, key: string, work: () => Fitted): Fitted {
  const own = known.get(drawn) ?? new Map<string, Fitted>();
  known.set(drawn, own);
  const fitted = own.get(key) ?? work();
  own.set(key, fitted);
  return fitted;
}

function fit(
  drawn: Region,
  height: number,
  width: number | null,
  edges: readonly ('top' | 'bottom')[],
  contactMm: number,
): Fitted {
  let region = standing(drawn, height, width);
  const missing = new Set<'top' | 'bottom'>();
  for (let k = 0, scale = widthRatio(region, drawn); k < MOST_ROUNDS && edges.length > 0; k++) {
    const cut = edges.reduce<Region>((r, edge) => {
      const by = leastTrim(r, edge, contactMm / scale);
      if (by === null) missing.add(edge);
      return trimmed(r, edge, by ?? 0);
    }, drawn);
    if (cut.length === 0) break;
    region = standing(cut, height, width);
    const settled = widthRatio(region, cut);
    if (cut === drawn || Math.abs(settled / scale - 1) < SETTLED) break;
    scale = settled;
  }
  return { region, missing: [...missing] };
}

const widthRatio = (a: Region, b: Region): number => {
  const wide = (r: Region): number => regionBox(r).max[0] - regionBox(r).min[0];
  return wide(a) / wide(b);
};
