/** Reads font files. Apart from the shelf of fonts, because the reader is large and most cards have no letters. */
import { parse, type Font } from 'opentype.js';

/** A font from its bytes: WOFF, TrueType or OpenType. */
export const readFontFile = (bytes: ArrayBuffer): Font => parse(bytes);
