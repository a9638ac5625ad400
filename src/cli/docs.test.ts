/** What the documents say of the house is so: each part is named, and what is named is there. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PROGRAM_VERSION } from '../core/version';
import { BASES, KINDS } from '../core/kinds';
import { RULES } from '../core/rules';
import { VERBS } from './verbs';
import { decideVerbs } from './decide-verbs';
import { helpOf } from './help';

const read = (path: string): string => readFileSync(path, 'utf8');
const documents = [
  'README.md',
  'CONTRIBUTING.md',
  'SECURITY.md',
  ...readdirSync('docs').map((f) => join('docs', f)),
].filter((f) => f.endsWith('.md'));

test('every link from one document to another, or to a picture, leads somewhere', () => {
  const broken = documents.flatMap((from) =>
    [...read(from).matchAll(/\]\(([^)#:]+)(?:#[^)]*)?\)/g)]
      .map(([, to]) => join(from, '..', to))
      .filter((to) => !existsSync(to)),
  );
  expect(broken).toEqual([]);
});

test('the README leads to every document, and every picture of the application is shown somewhere', () => {
  const readme = read('README.md');
  for (const f of documents.slice(1)) expect(readme).toContain(`(${f})`);
  const shown = documents.map(read).join('\n');
  for (const picture of readdirSync('docs/screenshots')) expect(shown).toContain(picture);
});

test('the floors of the house are all told, in their order from below', () => {
  const text = read('docs/architecture.md');
  const folders = readdirSync('src/core', { withFileTypes: true }).filter((d) => d.isDirectory() && d.name !== 'tests');
  for (const { name } of folders) expect(text).toMatch(new RegExp(`^  ${name}/ `, 'm'));
  const told = [...text.matchAll(/^ {2}([a-z]+)\/ /gm)].map(([, name]) => name);
  for (const name of told) expect(existsSync(join('src/core', name))).toBe(true);
});

test('files that a document names by their path are there', () => {
  const named = documents
    .filter((f) => !f.endsWith('decisions.md'))
    .flatMap((f) =>
      [...read(f).matchAll(/`((?:src|scripts|truth|fuzz|bench|e2e)\/[\w./-]+\.(?:tsx?|mjs))`/g)].map((m) => m[1]),
    );
  expect(named.length).toBeGreaterThan(5);
  expect(named.filter((f) => !existsSync(f))).toEqual([]);
});

test('every kind, base and rule has its place in the mechanisms', () => {
  const text = read('docs/mechanisms.md');
  for (const id of [...KINDS.keys(), ...BASES.keys(), ...RULES.map((r) => r.id)]) expect(text).toContain(`\`${id}\``);
});

test('every verb of the command line has its help, and the README shows none that is not there', () => {
  const verbs = [...Object.keys(VERBS), ...Object.keys(decideVerbs(() => Promise.reject())), 'batch'];
  for (const verb of verbs) expect(helpOf(verb)).toContain(`rhabdoplex ${verb}`);
  const shown = [...read('README.md').matchAll(/rhabdoplex -- ([a-z]+)/g)].map((m) => m[1]);
  for (const verb of shown) expect(verbs).toContain(verb);
});

test('the changelog begins with this version, or with what comes after it', () => {
  const [first, second] = [...read('CHANGELOG.md').matchAll(/^## (\S+)/gm)].map((m) => m[1]);
  expect(first === 'Unreleased' ? second : first).toBe(PROGRAM_VERSION);
});
