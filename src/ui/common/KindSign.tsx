import { CARD } from '@/core/ids';
import { KINDS } from '@/core/kinds';

/** The base: a card that stands open. */
const CARD_SIGN = 'M2 10 L8 4 L14 10';

/** Seen from the end: how a kind stands on what carries it. */
export function KindSign({ kind, hue = 'currentColor' }: { kind: string; hue?: string }) {
  const path = kind === CARD ? CARD_SIGN : (KINDS.get(kind)?.sign ?? 'M1 8 H15');
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" style={{ flex: 'none' }}>
      <path d={path} fill="none" stroke={hue} strokeWidth="1.6" />
    </svg>
  );
}
