/** A design as its file has it. */
import { PROGRAM_VERSION } from '../version';
import type { Design } from './design';

/** It says which version of the program wrote it; what is kept in a browser, and what is read, does not. */
export function designText(design: Design): string {
  const { rhabdoplex, ...rest } = design;
  return `${JSON.stringify({ rhabdoplex, writtenBy: PROGRAM_VERSION, ...rest }, null, 1)}\n`;
}
