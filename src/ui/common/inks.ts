/** Colours of the theme as they are now, for what draws on a canvas: by name, as `--ink` or `var(--ink)`. */
export function inksNow(): (name: string) => string {
  const css = getComputedStyle(document.documentElement);
  return (name) => css.getPropertyValue(name.replace(/^var\(|\)$/g, '')).trim();
}
