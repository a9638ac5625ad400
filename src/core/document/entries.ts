/** Lists of a document that say something of single parts by id, and are left out where they say nothing. */
import type { CutFrom, Design, MeantOut, PartName } from './design';
import { ownerOfId } from '../ids';

/** The lists, with the key by which their entries name a part. */
interface Lists {
  readonly cutFrom: CutFrom;
  readonly meantOut: MeantOut;
  readonly names: PartName;
}
const partOf = (entry: CutFrom | MeantOut | PartName): string => ('piece' in entry ? entry.piece : entry.of);

/** A design whose list says this of a part, or nothing of it. */
export function withEntry<L extends keyof Lists>(
  design: Design,
  list: L,
  part: string,
  entry: Lists[L] | null,
): Design {
  const { [list]: now, ...rest } = design;
  const others = ((now ?? []) as readonly Lists[L][]).filter((e) => partOf(e) !== part);
  const all = entry ? [...others, entry] : others;
  return { ...(rest as Design), ...(all.length > 0 ? { [list]: all } : {}) };
}

/** What a design's lists say of the parts of some mechanisms. */
export type Said = Partial<Pick<Design, keyof Lists>>;
export const LISTS: readonly (keyof Lists)[] = ['cutFrom', 'meantOut', 'names'];
export function saidOf(design: Design, wanted: (mechanism: string) => boolean): Said {
  return Object.fromEntries(
    LISTS.flatMap((list) => {
      const own = (design[list] ?? []).filter((e) => wanted(ownerOfId(partOf(e))));
      return own.length > 0 ? [[list, own]] : [];
    }),
  );
}
