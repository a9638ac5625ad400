/** What people read names things in words: no id of a crease, facet, measure or number stands in it. */
import type { Assembly } from '../assembly/assembly';
import { buildAssembly } from '../build/build';
import { gripsOf, numbersOf } from '../build/grips';
import { snapsOf } from '../build/snaps';
import { workOf } from '../build/steps';
import { setParameter, parameterOf } from '../document/fields';
import type { Design } from '../document/design';
import { labelOfLever, measureWords, nameOfPart } from '../document/words';
import { remedyWords } from '../document/remedy-words';
import { allMeasures, poseAt } from '../assembly/pose';
import { restOf } from '../drives';
import { cutListCsv } from '../formats/csv';
import { cutList } from '../sheets/cutlist';
import { KINDS } from '../kinds';
import { examine, leverValue, prove } from '../proof/prove';
import { RULES } from '../rules';
import { shelveFonts } from '../../fonts/shelve';
import { demoCards } from './demo';
import { idsIn } from './id-like';

beforeAll(shelveFonts);

test('the pattern knows an id from words', () => {
  const ids = ['card.gutter', 'leafA', 'ridge_y', 'wall-3', 'figureHeight', 'FigureHeight 110', 'planes[0].depth'];
  for (const id of ids) expect(idsIn([`the ${id} of it`])).not.toEqual([]);
  expect(idsIn(['Depth 18 → 13.8 mm, or height.', 'sheets.pdf', 'V-fold at 45°', '1 1/2 in', 'half-cut'])).toEqual([]);
});

describe.each(demoCards())('%s', (_, design) => {
  let assembly: Assembly;
  beforeAll(() => {
    assembly = buildAssembly(design);
  });

  test('creases, facets, glue, numbers and measures have words', () => {
    const parts = [
      ...assembly.pieces.flatMap((p) => [...p.creases.map((c) => c.id), ...p.glue.map((g) => g.id)]),
      ...assembly.facets.map((f) => f.id),
    ];
    const numbers = ['card', ...design.mechanisms.map((m) => m.id)].flatMap((id) =>
      numbersOf(design, id).map((key) => labelOfLever(design, id, key)),
    );
    const measures = Object.values(allMeasures(assembly, poseAt(assembly, restOf(assembly.drives)), null)).flatMap(
      (own) => Object.entries(own).map(([key, value]) => measureWords(key, value, 'mm').name),
    );
    expect(idsIn([...parts.map((id) => nameOfPart(design, id)), ...numbers, ...measures])).toEqual([]);
  });

  test('steps, cut list and what a drag lines up with are told in words', () => {
    const { steps } = workOf(design, assembly);
    const told = steps.flatMap((s) => [s.title, s.text]);
    const [, ...rows] = cutListCsv(cutList(design, assembly)).split('\n');
    const [m] = design.mechanisms;
    const grips = m ? gripsOf(design, m.id).slice(0, 4) : [];
    const snaps = grips.flatMap((g) => snapsOf(design, assembly, g, g.lines[0]).map((s) => s.name));
    // The first column of the list is the name of the piece in files.
    expect(idsIn([...told, ...rows.map((r) => r.replace(/^[^,]*,/, '')), ...snaps])).toEqual([]);
  });
});

test('findings and their remedies are told in words, also of cards that were spoilt', () => {
  const said: string[] = [];
  // Rules that say they never block do not.
  const mild = new Set(RULES.filter((r) => r.neverBlocks).map((r) => r.id));
  const tell = (d: Design, remedies: boolean): void => {
    for (const f of (remedies ? prove : examine)(d, 6).findings) {
      said.push(f.message);
      if (mild.has(f.rule)) expect([f.rule, f.severity]).not.toContain('blocks');
      for (const r of f.remedies ?? []) said.push(remedyWords(d, r, leverValue(d, r.mechanism, r.parameter) ?? 0));
    }
  };
  // Remedies of every second card, findings of all.
  demoCards().forEach(([, d], k) => {
    const [m] = d.mechanisms;
    const key = m && numbersOf(d, m.id)[0];
    if (key) tell(setParameter(d, m.id, key, Number(parameterOf(d, m.id, key)) * 1.7), k % 2 === 0);
  });
  expect(said.length).toBeGreaterThan(20);
  expect(idsIn(said)).toEqual([]);
});

test('titles, labels and notes of every kind are words', () => {
  const told = [...KINDS.values()].flatMap((k) => [
    k.title,
    k.says,
    ...k.parameters.flatMap((p) => [p.label, p.note, ...(p.fields ?? []).flatMap((f) => [f.label, f.note])]),
  ]);
  expect(idsIn(told)).toEqual([]);
});
