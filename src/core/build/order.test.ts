/** Order of work: a true topological order (by its definition, over random graphs), rings told; what is in reach. */
import fc from 'fast-check';
import { shelveFonts } from '../../fonts/shelve';
import { poseOpen } from '../assembly/pose';
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { card, layered, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { buildAssembly } from './build';
import { inOrder, type Task } from './order';
import { coveredBy } from './reach';
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
  });
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
