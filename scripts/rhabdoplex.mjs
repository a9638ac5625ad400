/**
 * Starts the command line from one file that holds all of it: loading some three hundred modules one by one takes
 * longer than most answers. The file is made anew whenever a source has changed since.
 */
import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const KEPT = join(ROOT, 'node_modules', '.cache', 'rhabdoplex');

/** Every source by its name, size and time: whatever changes one of them asks for a new file. */
function stateOfSources() {
  const hash = createHash('sha256').update(process.version);
  const add = (path) => {
    const { size, mtimeMs } = statSync(path);
    hash.update(`${path} ${size} ${mtimeMs}\n`);
  };
  add(join(ROOT, 'package-lock.json'));
  add(fileURLToPath(import.meta.url));
  for (const floor of ['core', 'cli', 'fonts'])
    for (const entry of readdirSync(join(ROOT, 'src', floor), { recursive: true }).sort())
      if (/\.(ts|json)$/.test(entry)) add(join(ROOT, 'src', floor, entry));
  return hash.digest('hex').slice(0, 24);
}

async function bundled() {
  const { build } = await import('esbuild');
  const { outputFiles } = await build({
    absWorkingDir: ROOT,
    entryPoints: ['src/cli/main.ts'],
    bundle: true,
    write: false,
    minifySyntax: true,
    minifyWhitespace: true,
    platform: 'node',
    format: 'esm',
    // Its usual entry reads its tables from files beside it.
    alias: { 'css-tree': 'css-tree/dist/csstree.esm' },
    // Packages of the older kind ask for Node's modules by `require`.
    banner: { js: "import * as node from 'node:module';\nconst require = node.createRequire(import.meta.url);" },
    // It starts its threads from files of its own.
    external: ['piscina'],
    logLevel: 'error',
  });
  return outputFiles[0].contents;
}

/** Writes beside and then renames: two that start at once never read half a file. */
function keep(path, contents) {
  mkdirSync(KEPT, { recursive: true });
  const beside = join(KEPT, `${randomUUID()}.part`);
  writeFileSync(beside, contents);
  renameSync(beside, path);
  for (const other of readdirSync(KEPT))
    if (other.endsWith('.mjs') && join(KEPT, other) !== path) rmSync(join(KEPT, other), { force: true });
}

/** The file to start; where the checkout cannot be written to, one for this time only. */
async function madeFile() {
  const path = join(KEPT, `${stateOfSources()}.mjs`);
  if (existsSync(path)) return path;
  const contents = await bundled();
  try {
    keep(path, contents);
    return path;
  } catch {
    const once = mkdtempSync(join(tmpdir(), 'rhabdoplex-'));
    process.on('exit', () => rmSync(once, { recursive: true, force: true }));
    writeFileSync(join(once, 'main.mjs'), contents);
    return join(once, 'main.mjs');
  }
}

await import(pathToFileURL(await madeFile()).href);
