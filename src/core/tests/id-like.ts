/** What reads like a name for files: `card.gutter`, `leafA`, `ridge_y`, `wall-3`, `figureHeight`, `planes[0]`. */
const ID_LIKE: readonly RegExp[] = [
  /(?<![\w/])[a-z][a-z0-9-]*\.[A-Za-z][A-Za-z0-9-]*\b/g,
  /\b[a-z]+[A-Z][A-Za-z0-9]*\b/g,
  /\b[A-Z][a-z]+[A-Z][a-z]+\b/g,
  /\b[a-z0-9]+_[a-z0-9_]+\b/gi,
  /\b[a-z]+-\d+\b/g,
  /\b[a-z]+\[\d+\]/g,
];
/** Names of files are for people too; and the units of things. */
const NO_ID = /^(?:[\w-]+\.(?:json|svg|dxf|pdf|fold|glb|csv|zip|hpgl|gcode|plt|nc|png|jpe?g|webp)|e\.g|i\.e)$/i;

/** Parts of these texts that read like ids, each with the text it stands in. */
export const idsIn = (texts: readonly string[]): string[] =>
  texts.flatMap((text) =>
    [...new Set(ID_LIKE.flatMap((p) => text.match(p) ?? []))]
      .filter((w) => !NO_ID.test(w))
      .map((w) => `${w} in: ${text.slice(0, 160)}`),
  );
