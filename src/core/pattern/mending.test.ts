/**
 * Faults of brought-in lines, against going through all lines for each of them (the test's own, by the definition of
 * a distance to a stretch), with lines strewn at random on a coarse grid so that many meet and many lie on others.
 */
import fc from 'fast-check';
import type { Vec2 } from '../plane/vec2';
import { ChangingLines, LineIndex } from './line-index';
import { findFaults, mend, WIDEST_AIR_MM, WIDEST_GAP_MM, type TemplateLine } from './mending';

const grid = fc.integer({ min: 0, max: 24 }).map((k) => k / 2);
const spot = fc.tuple(grid, grid);
const line = fc
  .tuple(spot, spot, fc.constantFrom('cut', 'valley', 'mountain', 'mark'))
  .filter(([a, b]) => a[0] !== b[0] || a[1] !== b[1]);
const lines = fc
  .array(line, { minLength: 2, maxLength: 30 })
  .map((all) =>
    all.map(([a, b, role], k): TemplateLine => ({ id: `l${k}`, role, closed: false, points: [a, b] }) as TemplateLine),
  );

const apart = (p: Vec2, a: Vec2, b: Vec2): number => {
  const [x, y] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.min(1, Math.max(0, ((p[0] - a[0]) * x + (p[1] - a[1]) * y) / (x * x + y * y)));
  return Math.hypot(p[0] - a[0] - t * x, p[1] - a[1] - t * y);
};
const isPaper = (l: TemplateLine): boolean => l.role !== 'mark';
const isFold = (l: TemplateLine): boolean => l.role === 'valley' || l.role === 'mountain';
const onto = (l: TemplateLine, k: TemplateLine): boolean =>
  l.points.every((p) => apart(p, k.points[0], k.points[1]) <= 0.01);

test('what lies on another is named once, and what it lies on stays', () => {
  fc.assert(
    fc.property(lines, (all) => {
      const faults = findFaults(all).filter((f) => f.kind === 'doubled');
      const dropped = new Set(faults.map((f) => f.lines[0]));
      expect(dropped.size).toBe(faults.length);
      const byId = new Map(all.map((l) => [l.id, l]));
      for (const { lines: ids } of faults) {
        const [gone, kept] = ids.map((id) => byId.get(id)!);
        expect(onto(gone, kept)).toBe(true);
        expect(dropped.has(kept.id)).toBe(false);
        expect(isFold(gone) && !isFold(kept)).toBe(false);
      }
      // None that stays lies on another that stays.
      const live = all.filter((l) => isPaper(l) && !dropped.has(l.id));
      for (const l of live) expect(live.filter((k) => k !== l && onto(l, k))).toEqual([]);
    }),
  );
});

test('ends are open just where no other line is near, and by as much', () => {
  fc.assert(
    fc.property(lines, (all) => {
      const faults = findFaults(all);
      const gone = new Set(faults.filter((f) => f.kind === 'doubled').map((f) => f.lines[0]));
      const live = all.filter((l) => !gone.has(l.id));
      const key = (id: string, [x, y]: Vec2): string => `${id} ${x} ${y}`;
      const told = new Map(faults.filter((f) => f.kind !== 'doubled').map((f) => [key(f.lines[0], f.at), f]));
      for (const l of live.filter(isPaper))
        for (const at of l.points) {
          const others = live.filter((k) => k !== l && isPaper(k));
          const near = Math.min(...others.map((k) => apart(at, k.points[0], k.points[1])));
          const fault = told.get(key(l.id, at));
          if (isFold(l)) expect(fault?.kind).toBe(near > 0.01 ? 'air' : undefined);
          else {
            expect(fault?.kind).toBe(near > 0.01 && near <= WIDEST_GAP_MM ? 'gap' : undefined);
            if (fault) expect(fault.mm).toBeCloseTo(near, 9);
          }
        }
    }),
  );
});

test('a crease just short of a line by what may be a slip is run on to it; further off it stays', () => {
  const wall: TemplateLine = {
    id: 'wall',
    role: 'cut',
    closed: false,
    points: [
      [50, -90],
      [50, 90],
    ],
  };
  const foot: TemplateLine = {
    ...wall,
    id: 'foot',
    points: [
      [0, -90],
      [0, 90],
    ],
  };
  const ended = (shortMm: number): number => {
    const crease: TemplateLine = {
      id: 'fold',
      role: 'valley',
      closed: false,
      points: [
        [0, 7],
        [50 - shortMm, 7],
      ],
    };
    return mend([wall, foot, crease]).find((l) => l.id === 'fold')!.points[1][0];
  };
  expect([0.02, WIDEST_AIR_MM - 0.01, WIDEST_AIR_MM].map(ended)).toEqual([50, 50, 50]);
  expect(ended(WIDEST_AIR_MM + 0.01)).toBeCloseTo(50 - WIDEST_AIR_MM - 0.01, 9);
});

test('lines by place: none that is near is left out, also while lines change', () => {
  const moves = fc.array(fc.tuple(fc.nat({ max: 200 }), spot, spot), { maxLength: 150 });
  fc.assert(
    fc.property(lines, moves, spot, fc.double({ min: 0, max: 6, noNaN: true }), (all, changes, at, by) => {
      const changing = new ChangingLines(all);
      for (const [k, a, b] of changes) changing.put({ ...all[k % all.length], points: [a, b] });
      for (const index of [new LineIndex(changing.lines), changing]) {
        const found = new Set(index.near([at], by).map((s) => s.line));
        for (const l of changing.lines) if (apart(at, l.points[0], l.points[1]) <= by) expect(found).toContain(l);
      }
      expect(changing.near([at], by).every((s) => changing.byId(s.line.id) === s.line)).toBe(true);
    }),
  );
});
