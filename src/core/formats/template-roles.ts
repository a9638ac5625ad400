/** Guesses what the lines of other people's files are for. */
import { hsl, rgb } from 'd3-color';
import { TEMPLATE_ROLES, type TemplateRole } from '../pattern/pattern';

/** What a line is for, by what its file says: our own role, words in its layer, dashes, colour. */
export function guessRole(said: string, layer: string, colour: string, dashed: boolean, dashDot = false): TemplateRole {
  if ((TEMPLATE_ROLES as readonly string[]).includes(said)) return said as TemplateRole;
  const word = layer.toLowerCase();
  if (/glue|adhes|tape/.test(word)) return 'glue';
  if (/window|waste/.test(word)) return 'window';
  if (/perf/.test(word)) return /mount|ridge/.test(word) ? 'perforation-mountain' : 'perforation';
  if (/mount|ridge/.test(word)) return 'mountain';
  if (/valley/.test(word)) return 'valley';
  if (/mark|draw|print|note|guide/.test(word)) return 'mark';
  if (/fold|crease|score/.test(word)) return dashDot || /dot/.test(word) ? 'mountain' : 'valley';
  if (/cut|edge|outline|knife/.test(word)) return 'cut';
  // Dashes of two lengths are mountains, of one length valleys (common practice in diagrams of paper folding, no
  // source).
  if (dashDot) return 'mountain';
  const hue = hueOf(colour);
  // Colours are taken only where they are plain: blue and green for folds, red for the other fold; black is a cut.
  if (hue !== null && hue > 90 && hue < 270) return 'valley';
  if (hue !== null && (hue < 40 || hue > 330)) return 'mountain';
  return dashed ? 'valley' : 'cut';
}

/** Hue of a plain colour, degrees, in any notation of CSS; null for greys, pale tints and what is no colour. */
function hueOf(colour: string): number | null {
  const { r, g, b } = rgb(colour);
  return Math.max(r, g, b) - Math.min(r, g, b) >= 0.35 * 255 ? hsl(colour).h : null;
}
