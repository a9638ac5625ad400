/** Patterns that the flat view fills with. */
export function FlatDefs() {
  return (
    <defs>
      <pattern id="glue-hatch" width="2.4" height="2.4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="2.4" height="2.4" fill="none" />
        <path d="M0 0 V2.4" stroke="var(--glue)" strokeWidth="0.7" />
      </pattern>
      <pattern id="window-hatch" width="3.4" height="3.4" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0 V3.4" stroke="var(--ink-2)" strokeWidth="0.22" />
      </pattern>
    </defs>
  );
}
