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

const SIGNS: Readonly<Record<string, string>> = {
  card: 'M2 10 L8 4 L14 10',
  'step-fold': 'M2 13 L2 3 M2 13 L14 13 M2 7 L8 7 L8 13',
  'plane-stack': 'M2 2 V14 H15 M2 6 H7 V14 M7 9 H12 V14',
  'strut-figure': 'M2 2 V14 H15 M8 14 V5 M2 7 H8',
  'half-cut': 'M2 9 H5 M11 9 H14 M5 9 A3 5 0 0 1 11 9 M3 9 V14 H13 V9',
  'floating-band': 'M1 13 H15 M3 13 L5 7 L8 9 L11 7 L13 13 M5 4 L8 6 L11 4',
  'v-fold': 'M1 12 L15 12 M8 12 L3 3 M8 12 L13 3',
};

/** Seen from the end: how a kind stands on what carries it. */
export function KindSign({ kind, hue = 'currentColor' }: { kind: string; hue?: string }) {
  const path = SIGNS[kind] ?? 'M1 8 H15';
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" style={{ flex: 'none' }}>
      <path d={path} fill="none" stroke={hue} strokeWidth="1.6" />
    </svg>
  );
}
