/** What the views of every demo card say, before there is a page: words, no ids. Three cards are read in a browser. */
import { buildAssembly } from '@/core/build/build';
import { nameOfFace, nameOfMechanism, nameOfPart } from '@/core/document/words';
import { layOut } from '@/core/sheets/lay-out';
import { demoCards } from '@/core/tests/demo';
import { idsIn } from '@/core/tests/id-like';
import { shelveFonts } from '@/fonts/shelve';
import { sceneOf } from './scene';

beforeAll(shelveFonts);

/** Texts under keys that are for people, however deep. */
const FOR_PEOPLE = new Set(['name', 'title', 'label', 'says', 'text', 'why', 'words']);
function textsIn(value: unknown, key = ''): string[] {
  if (typeof value === 'string') return FOR_PEOPLE.has(key) ? [value] : [];
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return [];
  const own = Array.isArray(value) ? value.map((v) => [key, v] as const) : Object.entries(value);
  return own.flatMap(([k, v]) => textsIn(v, k));
}

test.each(demoCards())('%s', (_, design) => {
  const assembly = buildAssembly(design);
  const scene = sceneOf(design, assembly);
  const views = textsIn(scene);
  // At least the title of every piece.
  expect(views.length).toBeGreaterThanOrEqual(scene.pieces.length);
  const parts = [...scene.facets, ...scene.creases, ...scene.whole].map(({ id }) => nameOfPart(design, id));
  const stands = [...assembly.hosts.keys(), ...design.mechanisms.map((m) => m.on)].map((on) => nameOfPart(design, on));
  const owners = design.mechanisms.map((m) => nameOfMechanism(design, m.id));
  const faces = design.layers.flatMap((l) => [l.name, nameOfFace(design, l.facet, 'outside')]);
  const sheets = layOut(design, assembly).sheets.flatMap((s) => [s.name, ...s.placed.map((p) => p.drawing.title)]);
  const drives = assembly.drives.map((d) => d.label);
  const states = (design.states ?? []).map((s) => s.name);
  expect(idsIn([...views, ...parts, ...stands, ...owners, ...faces, ...sheets, ...drives, ...states])).toEqual([]);
});
