/**
 * What a drawing offers to be joined by, against shapes whose sizes are given; a glued step of our own, drawn with its
 * glue on both pieces, found and joined by itself and posed as our own.
 */
import fc from 'fast-check';
import { landmarksOf, poseAt } from '../assembly/pose';
import type { Template } from '../document/template';
import { roundHole, slotOf } from '../pattern/recognise';
import type { TemplateLine } from '../pattern/mending';
import type { Vec2 } from '../plane/vec2';
import { card, stand } from '../tests/cards';
import { drawnLine, plainTemplate } from '../tests/templates';
import { buildAssembly } from './build';
import { keptOf, templateLines } from './template';
import { proposeJoins, roleChoices, settleJoins } from './template-proposals';

const ring = (id: string, points: readonly Vec2[], role: TemplateLine['role'] = 'window'): TemplateLine => ({
  id,
  role,
  closed: true,
  points,
});
const circle = ([x, y]: Vec2, radius: number, n = 40): Vec2[] =>
  Array.from({ length: n }, (_, k) => {
    const turn = (2 * Math.PI * k) / n;
    return [x + radius * Math.cos(turn), y + radius * Math.sin(turn)];
  });
/** A slot from p to q, its ends half discs. */
const slot = (p: Vec2, q: Vec2, width: number): Vec2[] => {
  const turn = Math.atan2(q[1] - p[1], q[0] - p[0]);
  const end = ([x, y]: Vec2, from: number): Vec2[] =>
    Array.from({ length: 13 }, (_, k) => {
      const at = turn + from + (Math.PI * k) / 12;
      return [x + (width / 2) * Math.cos(at), y + (width / 2) * Math.sin(at)];
    });
  return [...end(q, -Math.PI / 2), ...end(p, Math.PI / 2)];
};
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const spot = fc.tuple(real(-100, 100), real(-100, 100)) as fc.Arbitrary<Vec2>;

test('round holes are found with their middle and size, up to 12 mm across; squares and wider ones are not', () => {
  fc.assert(
    fc.property(spot, real(0.5, 5.9), fc.integer({ min: 16, max: 80 }), (at, radius, n) => {
      const hole = roundHole(ring('o', circle(at, radius, n)))!;
      expect(hole.diameterMm).toBeCloseTo(2 * radius, 6);
      hole.centre.forEach((x, k) => expect(x).toBeCloseTo(at[k], 6));
    }),
  );
  expect(roundHole(ring('o', circle([0, 0], 6)))).not.toBeNull();
  expect(roundHole(ring('o', circle([0, 0], 6.01)))).toBeNull();
  expect(roundHole(ring('o', circle([0, 0], 3, 4)))).toBeNull();
  expect(roundHole(ring('o', slot([0, 0], [5, 0], 4)))).toBeNull();
  expect(roundHole({ ...ring('o', circle([0, 0], 3)), closed: false })).toBeNull();
});

test('slots are found with the way of a pin in them, turned any way, their ends round or square', () => {
  fc.assert(
    fc.property(spot, real(0, Math.PI), real(8, 80), real(2, 8), (p, turn, long, width) => {
      const q: Vec2 = [p[0] + long * Math.cos(turn), p[1] + long * Math.sin(turn)];
      const found = slotOf(ring('s', slot(p, q, width)))!;
      expect(found.widthMm).toBeCloseTo(width, 6);
      const ends = [found.from, found.to].sort(
        (a, b) => Math.hypot(a[0] - p[0], a[1] - p[1]) - Math.hypot(b[0] - p[0], b[1] - p[1]),
      );
      [p, q].forEach((want, k) => want.forEach((x, c) => expect(ends[k][c]).toBeCloseTo(x, 6)));
    }),
  );
  const square = slotOf(
    ring('s', [
      [0, 0],
      [40, 0],
      [40, 6],
      [0, 6],
    ]),
  )!;
  expect([square.from, square.to].flat().map((x) => Math.round(x))).toEqual([3, 3, 37, 3]);
  expect(
    slotOf(
      ring('s', [
        [0, 0],
        [10, 0],
        [10, 8],
        [0, 8],
      ]),
    ),
  ).toBeNull();
  expect(
    slotOf(
      ring('s', [
        [0, 0],
        [40, 0],
        [20, 6],
      ]),
    ),
  ).toBeNull();
});

const box = (x0: number, y0: number, x1: number, y1: number): Vec2[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const shift = (points: readonly Vec2[], dx: number): Vec2[] => points.map(([x, y]) => [x + dx, y]);

describe('a glued step of 40, 25, 30 and 45, its glue drawn on both pieces', () => {
  const own = buildAssembly(
    stand(card(200, 140), 'step-fold', { build: 'glued', depth: 40, height: 25, riser: 30, tread: 45, width: 60 }),
  );
  const [page, step] = [own.pieces.find((p) => p.id === 'card')!, own.pieces.find((p) => p.id !== 'card')!];
  const lines: Template['lines'] = [
    drawnLine('page', 'cut', true, ...page.outline.outer),
    drawnLine('gutter', 'valley', false, [-100, 0], [100, 0]),
    drawnLine('step', 'cut', true, ...shift(step.outline.outer, 300)),
    ...step.creases.map((c) => drawnLine(c.id, c.role, false, ...shift([c.a, c.b], 300))),
    // One tab's patch is a little narrower, so that each has one partner only.
    ...step.glue.flatMap((g, k) => {
      const less = (points: readonly Vec2[]): Vec2[] => points.map(([x, y]) => [x * (1 - 0.1 * k), y]);
      return [
        drawnLine(`on-page-${k}`, 'glue', true, ...less(g.onto.outline)),
        drawnLine(`on-step-${k}`, 'glue', true, ...shift(less(g.outline), 300)),
      ];
    }),
  ];

  test('its areas are offered pair by pair, each in the ways a rectangle can lie', () => {
    const offered = proposeJoins(plainTemplate(lines));
    expect(offered.map((p) => [...p.lines].sort())).toEqual([
      ['on-page-0', 'on-step-0'],
      ['on-page-1', 'on-step-1'],
    ]);
    for (const { ways } of offered) {
      expect(ways.length).toBe(4);
      expect(ways.filter((w) => w.turned).length).toBe(2);
      expect(ways.every((w) => w.kind === 'bond')).toBe(true);
    }
  });

  test('settled, it opens all the way, and its ridge is where ours is', () => {
    const t = plainTemplate(lines);
    const joins = settleJoins(t, proposeJoins(t));
    expect(joins.length).toBe(2);
    const again = buildAssembly({ ...card(200, 140), card: { ...card(200, 140).card, template: { ...t, joins } } });
    const ridge = own.mechanisms.find((m) => m.kind === 'step-fold')!;
    for (const open of [20, 90, 180]) {
      const [p, q] = [poseAt(own, { open }), poseAt(again, { open })];
      expect(q.stop).toBeUndefined();
      const { ridge: want } = landmarksOf(own, p, ridge);
      const near = again.creases
        .filter((c) => c.piece !== 'card')
        .map((c) => {
          const [m] = c.segments;
          const at = [(m.a[0] + m.b[0]) / 2, (m.a[1] + m.b[1]) / 2] as const;
          const placed = q.placed[c.a];
          return [0, 1, 2].map((k) => placed[4 * k] * at[0] + placed[4 * k + 1] * at[1] + placed[4 * k + 3]);
        })
        .map((m) => Math.hypot(m[1] - want[1], m[2] - want[2]));
      expect(Math.min(...near)).toBeLessThan(1e-6);
    }
  });
});

/** A page with a hole, a slot and a peephole; a wheel, and a token with its pin. */
const MOVED = [
  drawnLine('page', 'cut', true, ...box(-100, -80, 100, 80)),
  drawnLine('gutter', 'valley', false, [-100, 0], [100, 0]),
  drawnLine('hole', 'window', true, ...circle([40, -40], 1.5)),
  drawnLine('way', 'window', true, ...slot([-60, -30], [-10, -30], 5)),
  drawnLine('wheel', 'cut', true, ...circle([200, 0], 30, 60)),
  drawnLine('axle', 'window', true, ...circle([200, 0], 1.5)),
  drawnLine('token', 'cut', true, ...circle([300, 0], 9, 60)),
  drawnLine('pin', 'window', true, ...circle([300, 0], 2.45)),
  drawnLine('peep', 'window', true, ...circle([-40, 40], 4)),
];

test('marks of one shape on two pieces are offered, and left to a person; a mark without its like is not', () => {
  const arrow = (dx: number): Vec2[] =>
    shift(
      [
        [0, 0],
        [12, 0],
        [12, 6],
        [4, 9],
      ],
      dx,
    );
  const lines = [
    drawnLine('page', 'cut', true, ...box(-100, -80, 100, 80)),
    drawnLine('gutter', 'valley', false, [-100, 0], [100, 0]),
    drawnLine('here', 'mark', true, ...arrow(20)),
    drawnLine('note', 'mark', true, ...box(-60, 20, -40, 30)),
    drawnLine('tag', 'cut', true, ...box(190, -20, 240, 30)),
    drawnLine('this', 'mark', true, ...arrow(200)),
  ];
  const t = plainTemplate(lines);
  const [offer, ...more] = proposeJoins(t);
  expect(more).toEqual([]);
  expect([offer.by, [...offer.lines].sort()]).toEqual(['mark', ['here', 'this']]);
  // A shape without symmetry comes onto its like in one way only.
  expect(offer.ways.map((w) => w.turned)).toEqual([false]);
  expect(settleJoins(t, [offer])).toEqual([]);
});

test('holes of one size on two pieces go on a rivet, one that fits a slot slides in it; others are not offered', () => {
  const lines = MOVED;
  const t = plainTemplate(lines);
  const told = proposeJoins(t).map((p) => `${p.ways[0].kind} ${[...p.lines].sort().join(' ')}`);
  expect(told.sort()).toEqual(['pivot axle hole', 'slide axle way', 'slide pin way']);
  const joins = settleJoins(t, proposeJoins(t));
  expect(joins.map((j) => j.kind).sort()).toEqual(['pivot', 'slide']);
  const a = buildAssembly({ ...card(200, 160), card: { ...card(200, 160).card, template: { ...t, joins } } });
  const [turn, slide] = [
    a.drives.find((d) => d.unit === 'deg' && d.id !== 'open')!,
    a.drives.find((d) => d.unit === 'mm')!,
  ];
  expect(turn.to).toBe(360);
  expect(slide.to).toBeCloseTo(50, 6);
  // Joined, neither leaves the leaf it is on: every corner stays as far above it as its paper.
  const pose = poseAt(a, { open: 180, [turn.id]: 77, [slide.id]: 31 });
  const wheel = a.facets.findIndex((f) => f.polygon.outer.length > 50);
  expect(Math.abs(pose.placed[wheel][11])).toBeLessThan(1e-9);
});

test('roles that fold flat are offered for a page that came without, the gutter a valley, picked ones kept', () => {
  const lines = [
    drawnLine('page', 'cut', true, ...box(-100, -80, 100, 80)),
    drawnLine('left', 'valley', false, [-100, 0], [0, 0]),
    drawnLine('right', 'valley', false, [0, 0], [60, 0]),
    drawnLine('up', 'valley', false, [0, 0], [50, 80]),
    drawnLine('down', 'valley', false, [0, 0], [50, -80]),
  ];
  lines[2] = drawnLine('right', 'valley', false, [0, 0], [100, 0]);
  const t = plainTemplate(lines);
  const choices = roleChoices(t);
  // The gutter is drawn in two lengths; a choice for all four, each with three of one role and one of the other.
  expect(choices.length).toBeGreaterThan(0);
  for (const c of choices) {
    const roles = ['left', 'right', 'up', 'down'].map((id) => c[id]);
    expect(Math.abs(roles.filter((r) => r === 'valley').length - 2)).toBe(1);
  }
  const kept = roleChoices({ ...t, picked: { up: 'mountain' } });
  expect(kept.length).toBeGreaterThan(0);
  expect(kept.every((c) => c.up === 'mountain')).toBe(true);
  expect(roleChoices(plainTemplate(lines.slice(0, 2)))).toEqual([]);
});

test('scaled, holes of rivets and the width of slots stay as they are, the way of the pin does not', () => {
  const lines = MOVED;
  const t = plainTemplate(lines);
  const large = { ...t, scale: 2, joins: settleJoins(t, proposeJoins(t)) };
  const kept = keptOf(large).map((k) => `${k.what} ${k.line}`);
  expect(kept.sort()).toEqual(['hole axle', 'hole hole', 'hole pin', 'slot way']);
  const made = templateLines(large);
  const of = (id: string) => made.find((l) => l.id === id)!;
  expect(roundHole(of('hole'))).toMatchObject({ diameterMm: expect.closeTo(3, 6) });
  roundHole(of('hole'))!.centre.forEach((x, k) => expect(x).toBeCloseTo([80, -80][k], 6));
  expect(roundHole(of('peep'))).toBeNull();
  const way = slotOf(of('way'))!;
  expect(way.widthMm).toBeCloseTo(5, 6);
  expect(Math.hypot(way.to[0] - way.from[0], way.to[1] - way.from[1])).toBeCloseTo(100, 6);
  expect(keptOf({ ...large, scale: 1 })).toEqual([]);
});
