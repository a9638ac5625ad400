/**
 * A plate on a broken cover: leans and feet by the law of cosines over random sizes, where it stops, what its stop
 * must be, what it weighs on, and what stands on its creases.
 */
import fc from 'fast-check';
import { canBe, OPEN, restOf, stateIn } from '../../drives';
import type { Assembly } from '../../assembly/assembly';
import { allMeasures, landmarksOf, onFacet, poseAt, type Pose } from '../../assembly/pose';
import { buildAssembly, DesignError } from '../../build/build';
import { workSteps } from '../../build/steps';
import { blankDesign, type Design } from '../../document/design';
import { checkDesign } from '../../document/schema';
import { statesOf } from '../../document/states';
import { setLever } from '../../proof/levers';
import { briefOf } from '../../proof/evidence';
import { prove } from '../../proof/prove';
import { reportPose } from '../../proof/report';
import { cutList } from '../../sheets/cutlist';
import { findings, layered, stand } from '../../tests/cards';
import { BASES, type ParameterValues } from '..';

const TRADE = { width: 107.95, height: 107.95 };
const easel = (parameters: ParameterValues): Design => {
  const plain = blankDesign('easel');
  return { ...plain, card: { ...plain.card, construction: 'easel', parameters: { ...TRADE, ...parameters } } };
};
const cardOf = (a: Assembly, pose: Pose): Record<string, number> => allMeasures(a, pose, null).card;
const standing = (d: Design): Record<string, number> => {
  const a = buildAssembly(d);
  return cardOf(a, poseAt(a, { open: 180 }));
};
const rad = (deg: number): number => (deg * Math.PI) / 180;
/** Lean of the plate for strut c, plate foot to break g, foot s from the hinge (law of cosines). */
const leanOf = (c: number, g: number, s: number): number =>
  (Math.acos((s * s + g * g - c * c) / (2 * s * g)) * 180) / Math.PI;

describe('reference values of the design notes', () => {
  test.each([
    [53.975, 80, 42.176176],
    [53.975, 60, 56.233278],
    [45, 90, 27.642211],
  ])('break %d, stop %d: it comes to rest at a lean of %d°', (bend, stop, lean) => {
    expect(standing(easel({ break: bend, stop })).lean_deg).toBeCloseTo(lean, 6);
  });
  test.each([
    [53.975, [93.487443, 76.332178, 53.975]],
    [45, [97.762745, 86.135572, 71.936348]],
  ])('break %d: the foot at openings of 30, 45 and 60°', (bend, feet) => {
    const a = buildAssembly(easel({ break: bend, stop: 40 }));
    const found = [30, 45, 60].map((open) => cardOf(a, poseAt(a, { open })).foot_mm);
    // Rounded to six places there.
    found.forEach((mm, k) => expect(Math.abs(mm - feet[k])).toBeLessThan(1e-6));
  });
});

const sizes = fc
  .record({
    width: fc.double({ min: 60, max: 220, noNaN: true }),
    part: fc.double({ min: 0.3, max: 0.7, noNaN: true }),
    at: fc.double({ min: 0.15, max: 0.9, noNaN: true }),
  })
  .map(({ width, part, at }) => {
    const strut = width * part;
    const flap = width - strut;
    // Nearer, the plate would lean over its own foot.
    const least = strut > flap ? Math.sqrt(strut * strut - flap * flap) : flap - strut;
    return { width, height: 100, break: strut, stop: least + (width - least) * at };
  });

test('it stops where the law of cosines has its foot at the stop, and goes no further', () => {
  fc.assert(
    fc.property(sizes, (p) => {
      const a = buildAssembly(easel(p));
      const [c, g] = [p.break, p.width - p.break];
      const opening = (Math.acos((c * c + p.stop * p.stop - g * g) / (2 * c * p.stop)) * 180) / Math.PI;
      expect(a.drives[0].to).toBeCloseTo(opening, 7);
      const end = poseAt(a, { open: 180 });
      expect(end.stop).toBeUndefined();
      expect(end.state[OPEN]).toBe(a.drives[0].to);
      const { lean_deg, foot_mm } = cardOf(a, end);
      expect(foot_mm).toBeCloseTo(p.stop, 7);
      expect(lean_deg).toBeCloseTo(leanOf(c, g, p.stop), 6);
    }),
    { numRuns: 60 },
  );
});

test('on its way every length is kept, loops close, and the foot stays on the base (closed form)', () => {
  fc.assert(
    fc.property(sizes, fc.double({ min: 0, max: 1, noNaN: true }), (p, part) => {
      const a = buildAssembly(easel(p));
      const open = a.drives[0].to * part;
      const pose = poseAt(a, { open });
      expect(pose.stop).toBeUndefined();
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
      const { foot, break: bent } = landmarksOf(a, pose, a.mechanisms[0]);
      const [c, g] = [p.break, p.width - p.break];
      const turn = rad(open);
      expect(foot[2]).toBeCloseTo(0, 8);
      expect(foot[1]).toBeCloseTo(c * Math.cos(turn) + Math.sqrt(g * g - (c * Math.sin(turn)) ** 2), 7);
      expect(Math.hypot(bent[1], bent[2])).toBeCloseTo(c, 8);
      expect(Math.hypot(bent[1] - foot[1], bent[2] - foot[2])).toBeCloseTo(g, 8);
    }),
    { numRuns: 60 },
  );
});

test('the plate lifts off the base with all that stands on it, and lies flat for writing', () => {
  const a = buildAssembly(easel({ stop: 80 }));
  const leaf = a.facets.findIndex((f) => f.id === 'leafA');
  const flap = a.facets.findIndex((f) => f.id === 'flap');
  const up = poseAt(a, { open: 40, 'card.plate': 70 });
  const down = poseAt(a, { open: 40 });
  // Turned about the hinge as one: the foot keeps its distance from it.
  const [p, q] = [up, down].map((pose) => onFacet(pose, flap, [0, -107.95]));
  expect(Math.hypot(p[1], p[2])).toBeCloseTo(Math.hypot(q[1], q[2]), 7);
  expect((Math.atan2(p[2], p[1]) * 180) / Math.PI).toBeCloseTo(70, 6);
  const flat = poseAt(
    a,
    stateIn(
      a.drives,
      statesOf(easel({})).find((s) => s.id === 'writing')!,
    ),
  );
  for (const i of [leaf, flap]) expect(onFacet(flat, i, [10, i === leaf ? 50 : -90])[2]).toBeCloseTo(0, 9);
  expect(onFacet(flat, flap, [0, -107.95])[1]).toBeCloseTo(-107.95, 7);
});

describe('what must hold', () => {
  const told = (p: ParameterValues, rule: 'stands' | 'flex'): string[] =>
    findings(easel(p), rule).map((f) => `${f.severity} ${f.aspect}`);
  test('a stop as tall as flap and plate at its foot, 0.3 and 0.2 mm thick; a remedy makes it so', () => {
    expect(told({ stopHeight: 0.49 }, 'stands')).toEqual(['blocks stop height']);
    expect(told({ stopHeight: 0.5 }, 'stands')).toEqual([]);
    const low = easel({ stopHeight: 0.4 });
    const [remedy] = prove(low, 6).findings.find((f) => f.rule === 'stands')!.remedies!;
    expect(findings(setLever(low, remedy.mechanism, remedy.parameter, remedy.value), 'stands')).toEqual([]);
  });
  test('a strip is cut so many times as make it tall enough, from its own stock where it has one', () => {
    const strip = (sizes: ParameterValues, own?: string) => {
      const d = easel({ stop: 80, stopWidth: 9, ...sizes });
      const design = own ? { ...d, cutFrom: [{ piece: 'stop', stock: own }] } : d;
      return cutList(design, buildAssembly(design)).filter((row) => /^stop/i.test(row.title));
    };
    // Of card 0.3 mm thick, and of paper 0.2 mm thick.
    expect(strip({ stopHeight: 0.9 })[0]).toMatchObject({ title: 'Stop', width_mm: 107.95, height_mm: 9, count: 3 });
    expect(strip({ stopHeight: 0.91 })[0].count).toBe(4);
    expect(strip({ stopHeight: 0.9 }, 'card-160')[0]).toMatchObject({ stock: 'Light card, white', count: 5 });
    expect(strip({ stopHeight: 3.6 })[0].count).toBe(12);
    // Too tall to be glued up: it is got as it is.
    expect(strip({ stopHeight: 3.7 })[0]).toMatchObject({ counted: true, count: 1 });
    expect(strip({ stopHeight: 6, stopBy: 'tab' })).toEqual([]);
  });
  test('the stop between |g - c| and the fore edge: 17.95 and 107.95 with the break at 45', () => {
    const places = (sizes: ParameterValues) => told(sizes, 'stands').filter((t) => t.endsWith('place'));
    expect(places({ break: 45, stop: 17.9 })).toEqual(['blocks stop place']);
    expect(places({ break: 45, stop: 18.5 })).toEqual(['risk stop place']);
    expect(places({ break: 45, stop: 18.95 })).toEqual([]);
    expect(places({ break: 45, stop: 106.95 })).toEqual([]);
    expect(places({ break: 45, stop: 107 })).toEqual(['risk stop place']);
  });
  test('a strip past the fore edge sticks out by what it is too wide, just inside, at and past it', () => {
    const past = (stopWidth: number) =>
      findings(easel({ width: 107.95, stop: 100, stopWidth }), 'overhang').map((f) => [
        f.severity,
        f.aspect.split(' ').pop(),
        Number(f.measured.toFixed(6)),
      ]);
    expect([7.9, 7.95].map(past)).toEqual([[], []]);
    expect(past(12)).toEqual([['blocks', 'fore', 4.05]]);
  });
  test('a plate that is wider than its cover sticks out of it', () => {
    const told = (width: number) =>
      findings(easel({ width: 107.95, height: 107.95, plate: { rect: { width, height: 90 } } }), 'overhang').map(
        (f) => `${f.severity} ${f.aspect}`,
      );
    expect(told(107.95)).toEqual([]);
    expect(told(108.2)).toEqual(['blocks plate head', 'blocks plate foot']);
  });
  test('a strut longer than the flap is pulled taut before its foot gets to a stop that is too near', () => {
    expect(told({ break: 63, stop: 10 }, 'flex')).toEqual(['blocks stop open']);
  });
  test.each([
    ['a break past the fore edge', { break: 120 }, /past its fore edge/],
    ['a stop past the fore edge', { stop: 120 }, /set it nearer/],
  ])('%s is refused with the reason', (_, wrong, why) => {
    expect(() => buildAssembly(easel(wrong))).toThrow(DesignError);
    expect(() => buildAssembly(easel(wrong))).toThrow(why);
  });
});

test('its weight lies inside the base by statics: three rectangles and their middles', () => {
  const p = { break: 50, stop: 80 };
  const d = easel(p);
  const a = buildAssembly(d);
  const { tip_mm } = reportPose(a, { open: 180 }, false, briefOf(d)).measures.card;
  const [w, c, s] = [107.95, 50, 80];
  const g = w - c;
  const lean = rad(leanOf(c, g, s));
  // Along the base from the hinge: base, strut and flap of 240 g/m², the plate of 160.
  const bent = s - g * Math.cos(lean);
  const parts = [
    [240 * w, w / 2],
    [240 * c, bent / 2],
    [240 * g, (bent + s) / 2],
    [160 * w, s - (w / 2) * Math.cos(lean)],
    // The stop: 2 mm of board of 0.8 g/cm³, 8 mm wide.
    [1600 * 8, s + 4],
  ];
  const weight = parts.reduce((sum, [m]) => sum + m, 0);
  const at = parts.reduce((sum, [m, y]) => sum + m * y, 0) / weight;
  // The middles of flap and plate are 0.25 mm apart.
  expect(Math.abs(tip_mm - Math.min(at, w - at))).toBeLessThan(0.25);
});

test('heavy at the top it falls over backwards, and a stop further out is said to hold it', () => {
  const d = layered(easel({ break: 40, stop: 40 }), {
    facet: 'plate',
    shape: { circle: 100 },
    y: 45,
    stock: 'card-160',
  });
  const stocks = d.stocks.map((s) => (s.id === 'card-160' ? { ...s, gsm: 2000 } : s));
  const heavy = { ...d, stocks };
  const found = prove(heavy, 6).findings.find((f) => f.rule === 'tip')!;
  expect(found.severity).toBe('blocks');
  const moved = setLever(setLever(heavy, 'card', 'break', 54), 'card', 'stop', 80);
  expect(findings(moved, 'tip')).toEqual([]);
});

test('a card of the trade is clear, shut as thick as its sheets and its stop, each state told', () => {
  const proof = prove({ ...easel({ stop: 80 }), post: { envelope: 'us-a2', format: 'usps-letter' } }, 12);
  expect(proof.findings.filter((f) => f.severity !== 'note')).toEqual([]);
  expect(proof.closed).toMatchObject({ width_mm: 107.95, height_mm: 107.95 });
  // Base, strut or flap, plate, and the stop between: 0.3 + 0.3 + 0.2 + 2.
  expect(proof.closed!.thickness_mm).toBeCloseTo(2.8, 4);
  expect(proof.states.map((s) => [s.name, s.reached])).toEqual([
    ['For the post', true],
    ['On the shelf', true],
    ['For writing', true],
  ]);
});

test('a plate of any shape stands on its foot; a step stands on the break and follows it', () => {
  const shaped = easel({ plate: { circle: 80 }, plateHeight: 90, stop: 80 });
  expect(standing(shaped).top_mm).toBeCloseTo(90 * Math.sin(rad(42.176176)) + 0.25 * Math.cos(rad(42.176176)), 4);
  const d = stand(easel({ stop: 60 }), 'step-fold', { depth: 12, height: 10, width: 20 }, 'card.break');
  expect(checkDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  const a = buildAssembly(d);
  const pose = poseAt(a, { open: 180 });
  expect(pose.stop).toBeUndefined();
  const step = a.mechanisms.find((m) => m.id === 'step-fold-1')!;
  const { ridge } = landmarksOf(a, pose, step);
  const { break: bent } = landmarksOf(a, pose, a.mechanisms[0]);
  // Its ridge is as far from the break as 12 along the strut and 10 along the flap put together (law of cosines).
  const between = 180 - 2 * a.drives[0].to;
  const far = Math.sqrt(144 + 100 + 240 * Math.cos(rad(between)));
  expect(Math.hypot(ridge[1] - bent[1], ridge[2] - bent[2])).toBeCloseTo(far, 5);
});

test('it is begun from the size of a card, worked flat, and stood up in its last picture', () => {
  const d = easel(BASES.get('easel')!.fitting({ gutter: 120, reach: 150 }));
  const a = buildAssembly(d);
  expect(a.misfits).toEqual([]);
  expect(restOf(a.drives)).toEqual({ open: 0, 'card.plate': 0 });
  const steps = workSteps(d, a);
  expect(steps[0].state).toEqual({ open: 0, 'card.plate': 180 });
  expect(steps.map((s) => s.title)).toContain('Set the stop');
});

describe('levels: smaller easels on the plate of the one behind', () => {
  const level = fc
    .record({
      width: fc.double({ min: 30, max: 60, noNaN: true }),
      part: fc.double({ min: 0.35, max: 0.5, noNaN: true }),
      at: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
      from: fc.double({ min: 2, max: 20, noNaN: true }),
    })
    .map(({ width, part, at, from }) => {
      const [strut, flap] = [width * part, width * (1 - part)];
      return { width, height: 60, break: strut, from, stop: flap - strut + (width - flap + strut) * at };
    });

  test('each leans by the law of cosines from the plate behind, and stands on it where it is said', () => {
    fc.assert(
      fc.property(level, level, (one, two) => {
        const d = easel({ stop: 80, levels: [one, two] });
        const a = buildAssembly(d);
        expect(a.misfits).toEqual([]);
        const shelf = statesOf(d).find((s) => s.id === 'shelf')!;
        const pose = poseAt(a, stateIn(a.drives, shelf));
        expect(pose.stop).toBeUndefined();
        const m = cardOf(a, pose);
        [one, two].forEach((l, k) => {
          const lean = leanOf(l.break, l.width - l.break, l.stop);
          expect(m[`levels[${k}].lean_deg`]).toBeCloseTo(lean, 6);
          expect(m[`levels[${k}].foot_mm`]).toBeCloseTo(l.stop, 7);
        });
        // From the foot of the base's plate up along that, then up along the level's, each in its own plane.
        const along = (deg: number, mm: number): [number, number] => [
          -mm * Math.cos(rad(deg)),
          mm * Math.sin(rad(deg)),
        ];
        const marks = landmarksOf(a, pose, a.mechanisms[0]);
        const tilt = leanOf(53.975, 53.975, 80);
        const [y, z] = along(tilt, one.from + one.width - one.stop);
        const foot = marks.level_1_foot;
        // Sheets lie on each other: plate and base of the level are half a millimetre off the lines of their folds.
        expect(Math.hypot(foot[1] - 80 - y, foot[2] - z)).toBeLessThan(0.6);
        const [u, v] = along(tilt + leanOf(one.break, one.width - one.break, one.stop), one.width);
        expect(Math.hypot(marks.level_1_top[1] - foot[1] - u, marks.level_1_top[2] - foot[2] - v)).toBeLessThan(0.3);
      }),
      { numRuns: 25 },
    );
  });

  test('shut they lie flat on each other; each goes no further than its own stop, whatever the others do', () => {
    const d = easel({ stop: 80, levels: [{ width: 60, height: 60, stop: 45 }] });
    const a = buildAssembly(d);
    const [opening, , own] = a.drives;
    expect(own.id).toBe('card.level-1.open');
    expect(own.to).toBeCloseTo(leanOf(30, 30, 45), 7);
    const alone = poseAt(a, { [own.id]: 180 });
    expect(alone.state).toMatchObject({ open: 0, [own.id]: own.to });
    expect(cardOf(a, alone)['levels[0].lean_deg']).toBeCloseTo(leanOf(30, 30, 45), 6);
    expect(opening.to).toBeCloseTo(buildAssembly(easel({ stop: 80 })).drives[0].to, 9);
    const proof = prove(d, 12);
    expect(proof.findings.filter((f) => f.severity !== 'note')).toEqual([]);
    // Twice ground, cover, plate and a stop of 2 mm: 0.3 + 0.3 + 0.2 + 2.
    expect(proof.closed!.thickness_mm).toBeCloseTo(5.6, 4);
    expect(proof.measures.card.closed_thickness_mm).toBeCloseTo(5.6, 9);
  });

  test('leans add up: a plate past upright falls on its face, by the sum of two arc cosines', () => {
    // Half way broken a plate leans by acos(stop / width): 42.18 and so much more.
    const stopAt = (deg: number): number => 60 * Math.cos(rad(deg - leanOf(53.975, 53.975, 80)));
    const told = (deg: number): string[] =>
      findings(easel({ stop: 80, levels: [{ width: 60, height: 60, stop: stopAt(deg) }] }), 'stands').map(
        (f) => `${f.severity} ${f.aspect}`,
      );
    expect(told(89.99)).toEqual([]);
    expect(told(90.01)).toEqual(['blocks level-1-lean']);
  });

  test('a stop of a level that is too low blocks, by its own number', () => {
    const low = (stopHeight: number): Design =>
      easel({ stop: 80, levels: [{ width: 60, height: 60, stop: 45, stopHeight }] });
    expect(findings(low(0.5), 'stands')).toEqual([]);
    const [found] = findings(low(0.49), 'stands');
    expect([found.severity, found.levers[0].parameter]).toEqual(['blocks', 'levels[0].stopHeight']);
    expect(() => buildAssembly(easel({ levels: [{ width: 60, height: 60, stop: 70 }] }))).toThrow(/nearer/);
  });
});

test('a stop may be a tab folded up out of the base: flat in the post, as high as it is long on the shelf', () => {
  const d = easel({ stop: 80, stopBy: 'tab', stopHeight: 6 });
  const a = buildAssembly(d);
  const tab = a.facets.findIndex((f) => f.id === 'tab');
  const heights = (state: Record<string, number>): number[] =>
    a.facets[tab].polygon.outer.map((p) => onFacet(poseAt(a, state), tab, p)[2]);
  expect(Math.max(...heights({}))).toBeCloseTo(0, 9);
  const shelf = statesOf(d).find((s) => s.id === 'shelf')!;
  expect(shelf.drives).toMatchObject({ 'card.tab': 90 });
  expect(Math.max(...heights(shelf.drives))).toBeCloseTo(6, 9);
  expect(a.fillers).toEqual([]);
  // Behind the foot: a hand folds it up once that has come past.
  expect([0, 30, a.drives[0].to].map((open) => canBe(a.drives, { open, 'card.tab': 90 }))).toEqual([
    false,
    false,
    true,
  ]);
  expect(canBe(a.drives, { open: 30, 'card.tab': 0 })).toBe(true);
  expect(prove(d, 12).findings.filter((f) => f.severity !== 'note')).toEqual([]);
  expect(findings(easel({ stop: 80, stopBy: 'tab', stopHeight: 0.4 }), 'stands')[0].severity).toBe('blocks');
  expect(() => buildAssembly(easel({ stop: 20, break: 40, stopBy: 'tab', stopHeight: 20 }))).toThrow(/tab/);
});

test('a plate doubled about a straight edge is a card that stands: its leaf opens by itself, mirrored', () => {
  for (const plateFold of ['left', 'top']) {
    const d = easel({ stop: 80, plateFold });
    const a = buildAssembly(d);
    expect(a.misfits).toEqual([]);
    const at = (facet: string, v: number, p: readonly [number, number]) =>
      onFacet(
        poseAt(a, { open: 180, 'card.leaf': v }),
        a.facets.findIndex((f) => f.id === facet),
        p,
      );
    const [x, y] = plateFold === 'left' ? [40, 30] : [10, 80];
    const over = plateFold === 'left' ? ([-107.95 - x, y] as const) : ([x, 2 * 107.95 - y] as const);
    // Shut it lies on the plate, point on point.
    at('leaf', 0, over).forEach((c, k) => expect(c).toBeCloseTo(at('plate', 0, [x, y])[k], 9));
    // Laid out it goes on in the plane of the plate: as far from the fold on the other side.
    const [p, q] = [at('plate', 180, [x, y]), at('leaf', 180, over)];
    expect(Math.hypot(...p.map((c, k) => c - q[k]))).toBeCloseTo(Math.hypot(over[0] - x, over[1] - y), 8);
  }
  const round = easel({ stop: 80, plate: { circle: 90 }, plateFold: 'left' });
  expect(() => buildAssembly(round)).toThrow(DesignError);
  expect(() => buildAssembly(round)).toThrow(/straight edge at its left/);
});

test('what a hand turns is the part that its joint moves: strut, tab and leaf, never what carries them', () => {
  const d = easel({
    stop: 80,
    stopBy: 'tab',
    stopHeight: 5,
    plateFold: 'top',
    levels: [{ width: 60, height: 60, stop: 50 }],
  });
  const a = buildAssembly(d);
  const moved = (drive: string): string[] => {
    const k = a.drives.findIndex((x) => x.id === drive);
    const bodies = a.linkage.joints.flatMap((j) => (j.driven?.drive === k ? [j.b] : []));
    return a.facets.filter((f) => bodies.includes(f.body)).map((f) => f.id);
  };
  expect(moved('card.level-1.open')).toEqual(['level-1-strut']);
  expect(moved('card.tab')).toEqual(['tab']);
  expect(moved('card.leaf')).toEqual(['leaf']);
});
