/** The program's version, as `package.json` has it (held by `version.test.ts`), and how files say what wrote them. */
export const PROGRAM_VERSION = '1.0.0';
export const WRITTEN_BY = `Rhabdoplex ${PROGRAM_VERSION}`;
