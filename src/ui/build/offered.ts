/** What the add sheet offers: the kinds that fit where the person clicked, in the order of the list of kinds. */
import { faceMounting, KINDS, type Kind } from '@/core/kinds';

export const offeredOn = (mount: Kind['mount']): Kind[] =>
  [...KINDS.values()].filter((k) => k.mount === mount || (mount === 'face' && faceMounting(k) !== null));
