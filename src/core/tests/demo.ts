/** The demo set, read as the application reads it. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Design } from '../document/design';
import { readDesign } from '../document/schema';

const EXAMPLES = join(__dirname, '../../../examples');
/** Name of the file and its card, for `test.each`. */
export const demoCards = (): [string, Design][] =>
  readdirSync(EXAMPLES)
    .filter((f) => f.endsWith('.json'))
    .map((file) => {
      const read = readDesign(readFileSync(join(EXAMPLES, file), 'utf8'));
      if (!read.ok) throw new Error(`${file}: ${read.why}`);
      return [file.replace('.json', ''), read.design];
    });
