import { CARD } from '@/core/ids';
import { KINDS } from '@/core/kinds';

/** Our mark: a strip of card with two folds, and the small fold signs used in lists. */
export function Mark({ size = 28 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 28 28" aria-hidden="true">
      <path d="M3 22 L10 7 L17 20 L25 5" fill="none" stroke="var(--ink)" strokeWidth="2.6" strokeLinejoin="round" />
      <path
        d="M6.4 14.8 L20.6 13.2"
        fill="none"
        stroke="var(--mountain)"
        strokeWidth="2"
        strokeDasharray="4 1.6 1 1.6"
      />
    </svg>
  );
}

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
