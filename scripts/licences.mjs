// The licences of everything that ships with the application: made by the build, from the packages as installed.
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** Name, version, licence and its text of each package that is needed at run time, by name. */
export function licences(root = ROOT) {
  const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
  const shipped = Object.entries(packages).filter(
    ([path, p]) => path !== '' && !p.dev && !p.devOptional && existsSync(join(root, path, 'package.json')),
  );
  const found = shipped.map(([path]) => {
    const { name, version, license } = JSON.parse(readFileSync(join(root, path, 'package.json'), 'utf8'));
    const text = readdirSync(join(root, path))
      .filter((file) => /^(licen[cs]e|copying|ofl)/i.test(file))
      .map((file) => readFileSync(join(root, path, file), 'utf8').trim())
      .join('\n\n');
    return { name, version, licence: typeof license === 'string' ? license : (license?.type ?? 'see its text'), text };
  });
  const key = (p) => `${p.name}@${p.version}`;
  return [...new Map(found.map((p) => [key(p), p])).values()].sort((a, b) => (key(a) < key(b) ? -1 : 1));
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const all = licences();
  const own = readFileSync(join(ROOT, 'LICENSE'), 'utf8').trim();
  mkdirSync(join(ROOT, 'public'), { recursive: true });
  writeFileSync(
    join(ROOT, 'public', 'licences.txt'),
    [
      `Rhabdoplex\n\n${own}`,
      ...all.map((p) => `${p.name} ${p.version} (${p.licence})\n\n${p.text || 'Its package holds no text of it.'}`),
    ].join(`\n\n${'-'.repeat(80)}\n\n`),
  );
  const list = all.map(({ name, version, licence }) => ({ name, version, licence }));
  writeFileSync(join(ROOT, 'public', 'licences.json'), JSON.stringify(list));
  console.log(`Licences of ${all.length} packages: public/licences.txt`);
}
