/**
 * Breaks the core on purpose, one small edit at a time, and counts how many the tests notice:
 * npm run mutate [-- edits seed]. Works in a copy of the checkout; not part of CI, it takes a while.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { seeded } from '../src/core/linkage/random';

const FOLDERS = ['src/core/rules', 'src/core/proof', 'src/core/linkage'];
/** Tests asked first by the folder of the edit, and those asked where the first notice nothing. */
const FIRST: Readonly<Record<string, readonly string[]>> = {
  'src/core/rules': ['core/rules/'],
  'src/core/proof': ['core/proof/'],
  'src/core/linkage': ['core/linkage/'],
};
const THEN = [['core/rules/', 'core/linkage/', 'core/kinds/', 'core/proof/', 'core/assembly/', 'core/sheets/']];
const RUN_MS = 240_000;

/** What an edit puts in place of what. */
const EDITS: readonly (readonly [RegExp, string])[] = [
  [/ < /g, ' >= '],
  [/ > /g, ' <= '],
  [/ <= /g, ' > '],
  [/ >= /g, ' < '],
  [/ && /g, ' || '],
  [/ === /g, ' !== '],
  [/ !== /g, ' === '],
  [/Math\.max\(/g, 'Math.min('],
  [/Math\.min\(/g, 'Math.max('],
  [/ \+ /g, ' - '],
  [/ - /g, ' + '],
  [/return true;/g, 'return false;'],
  [/\.filter\(\((\w+)\) => /g, '.filter(($1) => !'],
];

interface Edit {
  readonly file: string;
  readonly at: number;
  readonly was: string;
  readonly now: string;
  readonly line: number;
}

/** Every place where an edit can be made: code only, neither comments, nor imports, nor words. */
function placesIn(root: string, file: string): Edit[] {
  const text = readFileSync(join(root, file), 'utf8');
  const plain = text
    .replace(/\/\*[\s\S]*?\*\//g, (c) => c.replace(/[^\n]/g, '#'))
    .replace(/\/\/.*$/gm, (c) => '#'.repeat(c.length))
    .replace(/^import[\s\S]*?;$/gm, (c) => c.replace(/[^\n]/g, '#'))
    .replace(/'[^'\n]*'|`[^`]*`/g, (c) => c.replace(/[^\n]/g, '#'));
  return EDITS.flatMap(([pattern, put]) =>
    [...plain.matchAll(pattern)].map((m): Edit => {
      const was = m[0];
      const now = was.replace(new RegExp(pattern.source), put);
      return { file, at: m.index, was, now, line: text.slice(0, m.index).split('\n').length };
    }),
  );
}

const notices = (root: string, patterns: readonly string[]): boolean =>
  spawnSync('npx', ['jest', '--selectProjects', 'core', '--bail', '--testPathPatterns', ...patterns], {
    cwd: root,
    stdio: 'ignore',
    timeout: RUN_MS,
  }).status !== 0;

function main(): void {
  const [count = 30, seed = 1] = process.argv.slice(2).map(Number);
  const files = FOLDERS.flatMap((f) =>
    readdirSync(f)
      .filter((n) => n.endsWith('.ts') && !n.includes('.test.'))
      .map((n) => join(f, n)),
  );
  // Copied before it is read: what is edited meanwhile in the checkout makes no difference.
  const root = mkdtempSync(join(tmpdir(), 'mutate-'));
  for (const part of ['src', 'examples', 'jest.config.js', 'next.config.ts', 'package.json', 'tsconfig.json'])
    cpSync(part, join(root, part), { recursive: true });
  symlinkSync(resolve('node_modules'), join(root, 'node_modules'));
  const all = files.flatMap((file) => placesIn(root, file));
  const random = seeded(seed);
  const chosen = Array.from({ length: count }, () => all[Math.floor(random() * all.length)]);
  let noticed = 0;
  chosen.forEach(({ file, at, was, now, line }, k) => {
    const copy = join(root, file);
    const text = readFileSync(copy, 'utf8');
    writeFileSync(copy, text.slice(0, at) + now + text.slice(at + was.length));
    const seen = [FIRST[dirname(file)], ...THEN].some((patterns) => notices(root, patterns));
    writeFileSync(copy, text);
    if (seen) noticed++;
    console.log(`${k + 1}/${count} ${seen ? 'noticed' : 'NOT NOTICED'} ${file}:${line} "${was}" -> "${now}"`);
  });
  rmSync(root, { recursive: true, force: true });
  console.log(`${noticed} of ${count} edits were noticed: ${((100 * noticed) / count).toFixed(0)} %`);
}
main();
