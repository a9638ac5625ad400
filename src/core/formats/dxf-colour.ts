/**
 * Colours of DXF: an index, or 24 bits. Of the index, 1 to 9 have names; 10 to 249 go round the circle of hues in 24
 * steps of 15 degrees with five values and two saturations; 250 to 255 are greys. From memory; checked against the
 * table of a general reader.
 */
const NAMED = ['000000', 'ff0000', 'ffff00', '00ff00', '00ffff', '0000ff', 'ff00ff', 'ffffff', '808080', 'c0c0c0'];
const VALUES = [1, 0.8, 0.6, 0.5, 0.3];
const DARKEST_GREY = 51;

/** `#rrggbb` of a colour index; what is none is black. */
export function indexColour(index: number): string {
  if (index < NAMED.length) return `#${NAMED[index] ?? NAMED[0]}`;
  if (index > 255) return `#${NAMED[0]}`;
  if (index >= 250) return hex([0, 0, 0].map(() => DARKEST_GREY + ((255 - DARKEST_GREY) * (index - 250)) / 5));
  const hue = (Math.floor(index / 10) - 1) / 4;
  const value = VALUES[(index % 10) >> 1];
  const saturation = index % 2 === 0 ? 1 : 0.5;
  // Red, green and blue of a hue in sixths of the circle, value and saturation.
  return hex(
    [5, 3, 1].map((n) => {
      const k = (n + hue) % 6;
      return 255 * value * (1 - saturation * Math.max(0, Math.min(k, 4 - k, 1)));
    }),
  );
}
export const trueColour = (bits: number): string => `#${(bits & 0xffffff).toString(16).padStart(6, '0')}`;

const hex = (parts: readonly number[]): string =>
  `#${parts.map((x) => Math.floor(x).toString(16).padStart(2, '0')).join('')}`;
