/** Shapes that stand at a size with contacts of a chosen width. */
import { regionBox, type Box2, type Region } from '../plane/polygon';
import { leastTrim, trimmed } from './level';
import { standing } from './outline';

export interface Fitted {
  /** Standing as `standing` leaves it. */
  readonly region: Region;
  /** Edges at which no trim gives the contact. */
  readonly missing: readonly ('top' | 'bottom')[];
  /** The box of what was drawn that now fills the height: what was outside it is trimmed off. */
  readonly kept: Box2;
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
    const left = trimmed(whole, 'bottom', by ?? 0);
    return { region: standing(left, null), missing: by === null ? ['bottom'] : [], kept: regionBox(left) };
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
  let kept = regionBox(drawn);
  const missing = new Set<'top' | 'bottom'>();
  let before: Round | null = null;
  for (let k = 0, scale = widthRatio(region, drawn); k < MOST_ROUNDS && edges.length > 0; k++) {
    const cut = edges.reduce<Region>((r, edge) => {
      const by = leastTrim(r, edge, contactMm / scale);
      if (by === null) missing.add(edge);
      return trimmed(r, edge, by ?? 0);
    }, drawn);
    if (cut.length === 0) break;
    region = standing(cut, height, width);
    kept = regionBox(cut);
    const settled = widthRatio(region, cut);
    if (cut === drawn || Math.abs(settled / scale - 1) < SETTLED) break;
    const round = { scale, gives: settled };
    scale = before ? nearerTo(before, round) : settled;
    before = round;
  }
  return { region, missing: [...missing], kept };
}

/** A scale that was tried, and what the trim for it makes of the whole. */
interface Round {
  readonly scale: number;
  readonly gives: number;
}
/** Where a line through two rounds gives what it takes; the second's own answer where that lies far off. */
function nearerTo(a: Round, b: Round): number {
  const [da, db] = [a.gives - a.scale, b.gives - b.scale];
  const met = b.scale - (db * (b.scale - a.scale)) / (db - da);
  return Math.abs(met / b.gives - 1) < NEAR_PART ? met : b.gives;
}
const NEAR_PART = 0.5;

const widthRatio = (a: Region, b: Region): number => {
  const wide = (r: Region): number => regionBox(r).max[0] - regionBox(r).min[0];
  return wide(a) / wide(b);
};
