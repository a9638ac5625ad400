/** Text to outlines, with the font's own metrics and kerning. */
import type { Font, Glyph, PathCommand } from 'opentype.js';
import { unite, regionFromRings, type Region, type Ring } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { bezierPoints, CURVE_TOLERANCE_MM } from './curve';
import { fontOf } from './fonts';
import { ShapeError, type TextShape } from './shape';

/** Distance of base lines in ems; common practice, no source. */
const LINE_STEP = 1.2;
export const LONGEST_TEXT = 200;

/** Letters as they stand on the base line (y = 0), from x = 0; further lines below. mm, y up. */
export function textRegion(text: TextShape): Region {
  return letters(text).reduce<Region>((all, l) => unite(all, l.region), []);
}

export interface Letter {
  readonly letter: string;
  readonly region: Region;
}

/** Each letter of a text, where it stands in its word. */
export function letters({ string, font: id, size, spacing = 0 }: TextShape): Letter[] {
  if (string.length > LONGEST_TEXT)
    throw new ShapeError(`the text has ${string.length} letters; at most ${LONGEST_TEXT} are set`);
  const font = fontOf(id);
  const missing = [...string].find((c) => /\S/.test(c) && font.charToGlyph(c).index === 0);
  if (missing) throw new ShapeError(`the font has no letter "${missing}"`);
  const scale = size / font.unitsPerEm;
  return string.split('\n').flatMap((line, row) => {
    let x = 0;
    let before: Glyph | null = null;
    return [...line].flatMap((letter): Letter[] => {
      const glyph = font.charToGlyph(letter);
      if (before) x += kerning(font, before, glyph) * scale + spacing;
      const region = glyphRegion(glyph.getPath(x, row * LINE_STEP * size, size).commands);
      x += glyph.advanceWidth * scale;
      before = glyph;
      return region.length > 0 ? [{ letter, region }] : [];
    });
  });
}

/** Font units between two letters; a font whose tables the library does not read is set without. */
function kerning(font: Font, left: Glyph, right: Glyph): number {
  try {
    return font.getKerningValue(left, right) || 0;
  } catch {
    return 0;
  }
}

function glyphRegion(commands: readonly PathCommand[]): Region {
  const rings: Ring[] = [];
  let ring: Vec2[] = [];
  const finish = (): void => {
    if (ring.length > 2) rings.push(ring);
    ring = [];
  };
  for (const c of commands) {
    const last = ring[ring.length - 1];
    if (c.type === 'M') {
      finish();
      ring = [[c.x, -c.y]];
    } else if (c.type === 'L') ring.push([c.x, -c.y]);
    else if (c.type === 'C')
      ring.push(...bezierPoints([last, [c.x1, -c.y1], [c.x2, -c.y2], [c.x, -c.y]], CURVE_TOLERANCE_MM));
    else if (c.type === 'Q') ring.push(...bezierPoints([last, [c.x1, -c.y1], [c.x, -c.y]], CURVE_TOLERANCE_MM));
    else finish();
  }
  finish();
  // Font outlines fill by winding number; contours of one glyph may overlap.
  return regionFromRings(rings, 'nonzero');
}
