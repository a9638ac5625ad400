/** Our mark: a strip of card with two folds. */
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
