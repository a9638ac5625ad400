/** Older documents, brought up one version at a time. Nothing is dropped. */

type Raw = Record<string, unknown>;

/** Steps from version n to n + 1. */
const STEPS: Readonly<Record<number, (design: Raw) => Raw>> = {
  // Version 2 keeps shapes and layers, and mats that may differ by side, in corners and in how they are fixed.
  1: (d) => ({ ...d, rhabdoplex: 2, shapes: d.shapes ?? [], layers: d.layers ?? [] }),
};

/** The same document in the newest version it can be brought to; what is not a document is handed back as it is. */
export function migrate(value: Raw): Raw {
  let design = value;
  for (let version = design.rhabdoplex; typeof version === 'number' && STEPS[version]; version = design.rhabdoplex)
    design = STEPS[version](design);
  return design;
}
