/** Order of work: a true topological order (by its definition, over random graphs), rings told; what is in reach. */
import fc from 'fast-check';
import { shelveFonts } from '../../fonts/shelve';
import { poseOpen } from '../assembly/pose';
import { CENTRE, type Design } from '../document/design';
import { valuesOf } from '../document/fields';
import { addMechanism, naturalMount, rebuiltAs } from '../document/standing';
import { isPartNamed } from '../ids';
import { BASES, faceMounting, KINDS, sharedOut, type ParameterValues } from '../kinds';
import { card, layered, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { buildAssembly } from './build';
import { inOrder, type Task } from './order';
import { coveredBy } from './reach';
import { turnedPlain } from './plain';
import { hardwareTitle, takenWords } from './taken';
import { workOf, WORK_GROUPS, workSteps } from './steps';

beforeAll(shelveFonts);

const graph = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 4 }), fc.array(fc.nat({ max: 11 }), { maxLength: 3 })), {
    minLength: 1,
    maxLength: 12,
  })
  .map((rows) => rows.map(([rank, needs], i): Task => ({ id: `t${i}`, rank, needs: needs.map((n) => `t${n}`) })));
/** Only what was given before is waited for: no ring can be in it. */
const acyclic = graph.map((tasks) =>
  tasks.map((t, i) => ({ ...t, needs: t.needs.filter((n) => Number(n.slice(1)) < i) })),
);

test('each comes after what it waits for, once; of those that are free the least rank, then the first', () => {
  fc.assert(
    fc.property(acyclic, (tasks) => {
      const { order, cycles } = inOrder(tasks);
      expect(cycles).toEqual([]);
      expect([...order.map((t) => t.id)].sort()).toEqual(tasks.map((t) => t.id).sort());
      const at = new Map(order.map((t, k) => [t.id, k]));
      for (const t of order) for (const n of t.needs) expect(at.get(n)!).toBeLessThan(at.get(t.id)!);
      order.forEach((t, k) => {
        const done = new Set(order.slice(0, k).map((x) => x.id));
        const free = order.slice(k).filter((x) => x.needs.every((n) => done.has(n)));
        const best = Math.min(...free.map((x) => x.rank));
        expect(t.rank).toBe(best);
      });
    }),
  );
});
test('a ring is told with those in it only, begun with its first, and everything still has its place', () => {
  const task = (id: string, ...needs: string[]): Task => ({ id, rank: 0, needs });
  const { order, cycles } = inOrder([task('a'), task('b', 'a', 'd'), task('c', 'b'), task('d', 'c'), task('e', 'd')]);
  expect(cycles.map((r) => [...r].sort())).toEqual([['b', 'c', 'd']]);
  expect(order.map((t) => t.id)).toEqual(['a', 'b', 'c', 'd', 'e']);
  fc.assert(
    fc.property(graph, (tasks) => {
      const found = inOrder(tasks);
      expect(found.order).toHaveLength(tasks.length);
      for (const ring of found.cycles)
        ring.forEach((id, k) => {
          const next = ring[(k + 1) % ring.length];
          expect(tasks.find((t) => t.id === id)!.needs).toContain(next);
        });
    }),
  );
});

describe('steps of the demo set', () => {
  test.each(demoCards())('%s: each after what it needs, in groups, nothing there before it is put there', (_, d) => {
    const { steps, rings } = workOf(d, buildAssembly(d));
    expect(rings).toEqual([]);
    const at = new Map(steps.map((s, k) => [s.id, k]));
    expect(at.size).toBe(steps.length);
    for (const s of steps) for (const n of s.needs) expect(at.get(n)!).toBeLessThan(at.get(s.id)!);
    expect(steps[0].group).toBe('cut');
    expect(steps.at(-1)!.group).toBe('try');
    // A group is left only for one that something in it had to wait for, or for good.
    steps.slice(1).forEach((s, k) => {
      const before = WORK_GROUPS.indexOf(steps[k].group);
      if (WORK_GROUPS.indexOf(s.group) < before) expect(s.needs.length).toBeGreaterThan(0);
    });
    for (const s of steps.filter((x) => x.group === 'glue' && x.glue.length > 0))
      expect(s.takes.length).toBeGreaterThan(0);
    // Each area is stuck once, each crease folded once.
    const { pieces, creases } = buildAssembly(d);
    expect(steps.flatMap((s) => s.glue).sort()).toEqual(pieces.flatMap((p) => p.glue.map((g) => g.id)).sort());
    expect(steps.flatMap((s) => s.folds).sort()).toEqual(creases.map((c) => c.id).sort());
  });
});

/** Every kind and base, as it comes and with all that it may have beside. */
const MORE: Readonly<Record<string, readonly ParameterValues[]>> = {
  'half-cut': [{ figureMargin: 4 }],
  'floating-band': [{ figure: { circle: 40 } }],
  'step-fold': [{ build: 'glued', tab: 10 }],
  'leaf-bundle': [{ stack: [{ shape: { circle: 20 }, count: 3, height: 20 }] }],
  'twist-fold': [{ train: { panels: 4, panel: 30, width: 30 } }],
  pocket: [{ flap: { width: 30, height: 20 } }],
  'carrier-wheel': [{ cushion: 2, spacers: [{ thickness: 1 }, { thickness: 2 }] }],
  'track-slider': [{ cushion: 1 }],
  'folded-figure': [{ glued: 'lower' }],
  'fold-card': [{ liner: 4 }],
  easel: [{ stopBy: 'tab' }, { stopBy: 'edge' }, { levels: [{ from: 60, width: 70, height: 80 }] }],
  'box-frame': [{ tongue: 12 }, { tab: 8, panels: [{ at: 9, height: 30 }] }],
};
const variants = (id: string): [string, ParameterValues][] =>
  [{}, ...(MORE[id] ?? [])].map((v): [string, ParameterValues] => [`${id} ${Object.keys(v).join()}`, v]);
const mechanisms = [...KINDS.values()].flatMap((kind) =>
  variants(kind.id).flatMap(([name, values]): [string, Design][] => {
    const base = card(240, 170);
    const put = (mount: ReturnType<typeof naturalMount>) => addMechanism(base, kind.id, mount, values).design;
    const face = faceMounting(kind);
    return [
      ...(kind.mount === 'crease' ? [[name, put(naturalMount(base, kind.id))] as [string, Design]] : []),
      ...(face ? [[`${name} on a face`, put(naturalMount(base, kind.id, face.natural))] as [string, Design]] : []),
    ];
  }),
);
/** The same turned into lines and pieces of one's own. */
const plain = mechanisms
  .filter(([, d]) => d.mechanisms[0].kind !== 'own-lines')
  .map(([name, d]): [string, Design] => [`${name}, turned plain`, turnedPlain(d, d.mechanisms[0].id)]);
const bases = [...BASES.values()].flatMap((base) =>
  variants(base.id).map(([name, values]): [string, Design] => {
    const plain = rebuiltAs(card(200, 150), base.id);
    const { card: own } = plain;
    return [name, { ...plain, card: { ...own, parameters: { ...own.parameters, ...values } } }];
  }),
);

describe('the work on every kind and base', () => {
  const all = [...mechanisms, ...plain, ...bases];
  const worked = (d: Design) => {
    const assembly = buildAssembly(d);
    return { assembly, steps: workOf(d, assembly).steps };
  };
  const times = (lists: readonly (readonly string[])[], id: string): number =>
    lists.filter((list) => list.includes(id)).length;

  test.each(all)('%s: each glue area is stuck in one step, each crease folded in one', (_, d) => {
    const { assembly, steps } = worked(d);
    const glue = assembly.pieces.flatMap((p) => p.glue.map((g) => g.id));
    const creases = assembly.creases.map((c) => c.id);
    const wrong = [
      ...glue.filter((id) => times(steps.map((s) => s.glue), id) !== 1), // prettier-ignore
      ...creases.filter((id) => times(steps.map((s) => s.folds), id) !== 1), // prettier-ignore
    ];
    expect(wrong).toEqual([]);
  });

  test.each(all)('%s: what a step handles, folds or sticks is there by then, and all is there at its end', (_, d) => {
    const { assembly, steps } = worked(d);
    const owner = new Map(assembly.facets.map((f) => [f.id, f.mechanism]));
    for (const { id, shown, absent, subjects, glue } of steps) {
      const areas = assembly.pieces.flatMap((p) => p.glue).filter((g) => glue.includes(g.id));
      const used = [...subjects.filter((f) => owner.has(f)), ...areas.flatMap((g) => [g.facet, g.onto.facet])];
      expect([id, used.filter((f) => absent.includes(f) || !shown.includes(owner.get(f)!))]).toEqual([id, []]);
    }
    expect(steps.at(-1)!.absent).toEqual([]);
    expect([...owner.values()].filter((m) => !steps.at(-1)!.shown.includes(m))).toEqual([]);
  });

  test.each(all)('%s: what is bought is taken once; what is glued has its adhesive', (_, d) => {
    const { assembly, steps } = worked(d);
    const taken = steps.flatMap((s) => s.takes);
    const counted = (things: readonly { what: string; sizesMm?: readonly number[]; count: number }[]): object => {
      const counts: Record<string, number> = {};
      for (const h of things) counts[hardwareTitle(h, 'mm')] = (counts[hardwareTitle(h, 'mm')] ?? 0) + h.count;
      return counts;
    };
    const got = taken.filter((t) => t.of === 'bought');
    expect(counted(got)).toEqual(counted(assembly.hardware));
    for (const s of steps) if (s.glue.length > 0) expect(s.takes.length).toBeGreaterThan(0);
    if (assembly.foam.length > 0) expect(taken.filter((t) => t.of === 'foam')).toHaveLength(1);
  });

  test.each(mechanisms.filter(([, d]) => d.mechanisms[0].mount))('%s: what is left loose gets no glue', (_, d) => {
    const { assembly } = worked(d);
    const [m] = d.mechanisms;
    const steps = faceMounting(KINDS.get(m.kind))!.order(valuesOf(m));
    const areas = assembly.pieces.flatMap((p) => p.glue);
    const glued = sharedOut(areas.map((g) => g.id), steps.map((s) => s.glue ?? [])); // prettier-ignore
    steps.forEach(({ leaves = [] }, k) => {
      const stuck = areas.filter((g) => glued[k].includes(g.id)).map((g) => g.facet);
      expect(stuck.filter((f) => leaves.some((name) => isPartNamed(f, name)))).toEqual([]);
    });
  });
});

test('a half-cut is not pushed forward: its sheet folds behind it, and its figure is stuck on after that', () => {
  const said = (more: ParameterValues): string => {
    const d = stand(card(200, 100), 'half-cut', { shape: { circle: 50 }, rise: 20, ...more });
    return workSteps(d, buildAssembly(d)).find((s) => s.id.endsWith('.half-cut-1'))!.text;
  };
  expect(said({})).toMatch(/^Fold the sheet behind it/);
  expect(said({ figureMargin: 3 })).toMatch(/^Fold the sheet behind it.*Stick figure to the back\.$/);
});

test('what a step takes is said in the unit of the card', () => {
  const foam = { of: 'foam', thickMm: 3.175 } as const;
  const spacers = { of: 'bought', what: 'Spacer', sizesMm: [3.175], count: 2 } as const;
  expect([foam, spacers].map((t) => takenWords(t, 'mm'))).toEqual(['foam, 3.175 mm', '2 × spacer 3.175 mm']);
  expect([foam, spacers].map((t) => takenWords(t, 'in'))).toEqual(['foam, 1/8 in', '2 × spacer 1/8 in']);
  expect(takenWords({ of: 'adhesive', id: 'strong-tape' }, 'in')).toBe('strong tape');
});

describe('within reach', () => {
  test('what would cover the glue of another comes after it, whatever was added first', () => {
    const low = { size: 26, lean: 50 };
    // A high box spans the middle of the gutter, a small V-fold stands under it.
    const build = (first: 'v' | 'box'): Design => {
      const box = (d: Design): Design =>
        stand(d, 'step-fold', { depth: 45, height: 45, width: 90, build: 'glued', tab: 10 }, 'card.gutter');
      const v = (d: Design): Design => stand(d, 'v-fold', low, 'card.gutter');
      return first === 'v' ? box(v(card(200, 110))) : v(box(card(200, 110)));
    };
    for (const first of ['v', 'box'] as const) {
      const d = build(first);
      const a = buildAssembly(d);
      const over = coveredBy(a, poseOpen(a, 110));
      expect(over.get('v-fold-1')!.has('step-fold-1')).toBe(over.get('v-fold-1')!.size > 0);
      const ids = workSteps(d, a).map((s) => s.id);
      if (over.get('v-fold-1')!.has('step-fold-1'))
        expect(ids.indexOf('glue.v-fold-1')).toBeLessThan(ids.indexOf('glue.step-fold-1'));
    }
  });
  test('layers of a part that moves go on when it is there, those of the base while it lies flat', () => {
    const d = stand(card(200, 100), 'v-fold', { size: 40 });
    const on = layered(d, { facet: 'leafA' }, { facet: 'v-fold-1.panelA', id: 'l9', shape: { circle: 6 } });
    const facet = buildAssembly(d).facets.find((f) => f.mechanism === 'v-fold-1')!.id;
    const design = { ...on, layers: on.layers.map((l, k) => (k === 1 ? { ...l, facet } : l)) };
    const ids = workSteps(design, buildAssembly(design)).map((s) => s.id);
    expect(ids.indexOf('layers.card')).toBeLessThan(ids.indexOf('glue.v-fold-1'));
    expect(ids.indexOf('layers.v-fold-1')).toBeGreaterThan(ids.indexOf('glue.v-fold-1'));
  });
  test('of what is put on a face, each step lights what its sentence names, and shows no part before its time', () => {
    const d = addMechanism(card(200, 140), 'carrier-wheel', { on: 'leafB', mount: CENTRE }, {}).design;
    const steps = workSteps(d, buildAssembly(d)).filter((s) => s.id.startsWith('put.'));
    expect(steps.length).toBeGreaterThan(1);
    const lit = steps.map((s) => s.subjects.join());
    expect(new Set(lit).size).toBeGreaterThan(1);
    for (const s of steps) for (const f of s.subjects) expect(s.absent).not.toContain(f);
    expect(steps.at(-1)!.absent).toEqual([]);
  });
});
