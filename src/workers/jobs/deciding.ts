/** Studies, searches and maps: many proofs of cards like this one. */
import { judged } from '@/core/decide/map';
import { searchSlabs, withValues } from '@/core/decide/target';
import { wearOf } from '@/core/decide/wear';
import { judgeNow, makeMap, makeStudy } from '../decide';
import type { Engine } from '../protocol';
import { breathe, withFonts } from './at-hand';

export const deciding: Pick<Engine, 'study' | 'slabs' | 'map' | 'place' | 'wear' | 'judge'> = {
  study: (design, ask, onMore) => withFonts(design, () => makeStudy(design, ask, breathe, onMore)),
  slabs: (design, ask, slabs, onPart) => withFonts(design, () => searchSlabs(design, ask, slabs, onPart)),
  map: (design, ask, onMore) => withFonts(design, () => makeMap(design, ask, breathe, onMore)),
  place: (design, { x, y, measure }, at) => withFonts(design, () => judged(withValues(design, [x, y], at), measure)),
  wear: (design) => withFonts(design, () => wearOf(design)),
  judge: (design, state) => withFonts(design, () => judgeNow(design, state)),
};
