import { buildAssembly } from '../build/build';
import { settingOf } from '../document/settings';
import { card, findings as find, stand } from '../tests/cards';
import { setParameter } from '../document/fields';
import { gather, prove, seek, setLever } from '../proof/prove';
import { roomOf } from '../proof/room';
import { whatIf } from '../proof/what-if';
import { ENVELOPES, POST_FORMATS, SHEETS } from '../paper/sizes';
import { GSM_PER_LB_COVER } from '../paper/stocks';
import { leastClearance, thicknessMap, type Finding } from './index';
import { widthOf } from './glue-room';
import { poseOpen } from '../assembly/pose';
import { piercings } from './collision';

describe('published sizes', () => {
  // ISO 216: A-series sides halve, and keep 1 : sqrt 2 within rounding to whole mm; C sizes lie between (ISO 269).
  test('each A sheet is half the one before, rounded down', () => {
    const a = ['A2', 'A3', 'A4', 'A5'].map((id) => SHEETS.find((s) => s.id === id)!);
    a.slice(1).forEach((s, i) => {
      expect(s.longMm).toBe(a[i].shortMm);
      expect(s.shortMm).toBe(Math.floor(a[i].longMm / 2));
    });
  });
  test('every C envelope takes the A sheet of its number with room', () => {
    for (const [c, a] of [
      ['C4', 'A4'],
      ['C5', 'A5'],
    ]) {
      const [env, sheet] = [ENVELOPES.find((e) => e.id === c)!, SHEETS.find((s) => s.id === a)!];
      expect(env.shortMm).toBeGreaterThan(sheet.shortMm);
      expect(env.longMm).toBeGreaterThan(sheet.longMm);
    }
  });
  test('inch sizes are exact', () => {
    expect(ENVELOPES.find((e) => e.id === 'us-a7')!.longMm).toBeCloseTo(184.15, 10);
    expect(POST_FORMATS.find((p) => p.id === 'usps-letter')!.most.thickMm).toBeCloseTo(6.35, 10);
  });
  // ISO 536 and the US basis size, docs/mechanisms.md: 80 lb cover is 216 g/m².
  test('cover weight', () => expect(80 * GSM_PER_LB_COVER).toBeCloseTo(216, 0));
  test('every size names its source', () =>
    [...SHEETS, ...ENVELOPES, ...POST_FORMATS].forEach((s) => expect(s.source).not.toBe('')));
});

describe('overhang', () => {
  test.each([
    [60, 50, 10],
    [80, 21.5, 1.5],
    [50, 50, 0],
    [30, 20, 0],
  ])('a step %d deep and %d high reaches %d mm past 100 mm leaves', (depth, height, past) => {
    // docs/mechanisms.md 3: a point at depth d and height h reaches d + h when closed.
    const found = find(stand(card(), 'step-fold', { depth, height, width: 40 }), 'overhang');
    if (past === 0) expect(found).toHaveLength(0);
    else expect(found[0].measured).toBeCloseTo(past, 6);
  });
  test('its remedies go to the limit exactly, and clear it', () => {
    const design = stand(card(), 'step-fold', { depth: 60, height: 50, width: 40 });
    const [finding] = find(design, 'overhang');
    const remedies = seek(design, finding, [finding]).remedies!;
    const own = remedies.filter((r) => settingOf(design, r.mechanism, r.parameter) === null);
    expect(Object.fromEntries(own.map((r) => [r.parameter, r.value]))).toEqual({
      depth: 50,
      height: 40,
      reach: 110,
    });
    for (const r of own) expect(find(setLever(design, r.mechanism, r.parameter, r.value), 'overhang')).toHaveLength(0);
    // Its maker may mean it, by as much as it is; or send the card open flat.
    const others = remedies.filter((r) => !own.includes(r));
    expect(Object.fromEntries(others.map((r) => [r.parameter, r.value]))).toEqual({ 'step-fold-1': 10, sent: 1 });
    for (const r of others)
      expect(find(setLever(design, r.mechanism, r.parameter, r.value), 'overhang').map((f) => f.severity)).toEqual([
        'note',
      ]);
  });
  test('past the ends of the gutter and behind the fold, each side by name', () => {
    const side = find(stand(card(160), 'v-fold', { size: 60, offset: -60, lean: 45 }), 'overhang');
    expect(side.map((f) => f.aspect)).toContain('foot');
    // Closed, the spine lies at lean + fold = 135 degrees: its peak 60 cos 45° further on.
    expect(side.find((f) => f.aspect === 'foot')!.measured).toBeCloseTo(60 + 60 * Math.SQRT1_2 - 80, 6);
    expect(find(stand(card(), 'v-fold', { lean: 100, fold: 95, size: 40 }), 'overhang').map((f) => f.aspect)).toContain(
      'spine',
    );
  });
});

test('sweep is absent unless the card must stay inside, and then finds the worst opening', () => {
  const design = stand(card(), 'step-fold', { depth: 60, height: 50, width: 40 });
  expect(find(design, 'sweep')).toHaveLength(0);
  const [finding] = find({ ...design, card: { ...design.card, stayInside: true } }, 'sweep');
  expect(finding.drive.open).toBe(0);
  expect(finding.measured).toBeCloseTo(10, 6);
});

describe('collision', () => {
  const crossing = stand(stand(card(), 'step-fold', { depth: 40, height: 40, width: 40 }), 'v-fold', {
    size: 60,
    offset: -40,
    lean: 45,
    fold: 90,
  });
  test('a v-fold that runs into a step is found, with the openings between which it does', () => {
    const [finding] = find(crossing, 'collision');
    expect(finding.severity).toBe('blocks');
    expect(finding.span!.to).toBeGreaterThan(finding.span!.from);
    expect([finding.mechanism, finding.aspect].sort()).toEqual(['step-fold-1', 'v-fold-1']);
  });
  test('paper that only touches, and joined facets, do not collide', () => {
    const side = stand(stand(card(), 'step-fold', { depth: 40, height: 40, width: 40, offset: -30 }), 'step-fold', {
      depth: 30,
      height: 30,
      width: 30,
      offset: 30,
    });
    expect(find(side, 'collision')).toHaveLength(0);
    expect(
      find(stand(side, 'step-fold', { depth: 12, height: 12, width: 20 }, 'step-fold-1.base'), 'collision'),
    ).toHaveLength(0);
  });
  test('the broad phase leaves nothing out: every pair pierced by brute force is found', () => {
    const assembly = buildAssembly(crossing);
    const evidence = gather(crossing, 'pattern', 0, assembly);
    for (const open of [30, 60, 90]) {
      const pose = poseOpen(assembly, open);
      const hits = piercings(evidence, pose);
      // Doubling every paper's edges cannot change what is found: the same poses, facets in the other order.
      const turned = {
        ...assembly,
        facets: [...assembly.facets].reverse(),
        creases: assembly.creases.map((c) => ({
          ...c,
          a: assembly.facets.length - 1 - c.a,
          b: assembly.facets.length - 1 - c.b,
        })),
      };
      const again = piercings({ ...evidence, assembly: turned }, { ...pose, placed: [...pose.placed].reverse() });
      expect(again.map((h) => [turned.facets[h.a].id, turned.facets[h.b].id].sort().join()).sort()).toEqual(
        hits.map((h) => [assembly.facets[h.a].id, assembly.facets[h.b].id].sort().join()).sort(),
      );
    }
  });
});

test('clearance of two steps side by side is the gap between them', () => {
  const assembly = buildAssembly(
    stand(stand(card(), 'step-fold', { depth: 30, height: 30, width: 40, offset: -30 }), 'step-fold', {
      depth: 30,
      height: 30,
      width: 40,
      offset: 30,
    }),
  );
  expect(leastClearance(assembly, poseOpen(assembly, 90))!.mm).toBeCloseTo(20, 6);
  expect(
    leastClearance(
      buildAssembly(stand(card(), 'step-fold', {})),
      poseOpen(buildAssembly(stand(card(), 'step-fold', {})), 90),
    ),
  ).toBeNull();
});

test('web: the strip between two slits, measured, and its remedies clear it', () => {
  const design = stand(stand(card(), 'step-fold', { depth: 40, height: 40, width: 40, offset: -22 }), 'step-fold', {
    depth: 30,
    height: 30,
    width: 40,
    offset: 20,
  });
  const [finding] = find(design, 'web');
  expect(finding.measured).toBeCloseTo(2, 1);
  const remedies = seek(design, finding, [finding]).remedies!;
  expect(remedies.length).toBeGreaterThan(0);
  for (const r of remedies) expect(find(setLever(design, r.mechanism, r.parameter, r.value), 'web')).toHaveLength(0);
  expect(find(stand(card(), 'step-fold', {}), 'web')).toHaveLength(0);
});

test('loose-part: a step deeper than its leaf has no paper to be cut from', () => {
  const [finding] = find(stand(card(), 'step-fold', { depth: 130, height: 20, width: 60 }), 'loose-part');
  expect(finding.severity).toBe('blocks');
  expect(finding.message).toMatch(/30\.0 mm past the edge/);
  expect(finding.measured).toBeCloseTo(60 * 30, 6);
});

describe('glue-room', () => {
  test('width of a glue area is that of the widest strip in it', () =>
    expect(
      widthOf([
        [0, 0],
        [30, 0],
        [30, 7],
        [0, 7],
      ]),
    ).toBeCloseTo(7, 4));
  test('a tab too narrow, and a tab off its facet', () => {
    expect(
      find(stand(card(), 'step-fold', { depth: 40, height: 25, build: 'glued', tab: 5 }), 'glue-room').every(
        (f) => f.severity === 'risk' && f.limit === 6,
      ),
    ).toBe(true);
    expect(
      find(stand(card(), 'step-fold', { depth: 95, height: 25, build: 'glued', tab: 12 }), 'glue-room').some(
        (f) => f.unit === 'mm2' && f.severity === 'blocks',
      ),
    ).toBe(true);
    expect(
      find(stand(card(), 'step-fold', { depth: 40, height: 25, build: 'glued', tab: 12 }), 'glue-room'),
    ).toHaveLength(0);
  });
});

describe('flat-fold and flex', () => {
  test('a gap names its size, and lengths that close are offered', () => {
    const design = stand(card(), 'step-fold', {
      depth: 40,
      height: 25,
      riser: 30,
      tread: 40,
      width: 60,
      build: 'glued',
    });
    const [finding] = find(design, 'flat-fold');
    expect(finding.measured).toBeCloseTo(5, 9);
    const remedies = seek(design, finding, [finding]).remedies!;
    expect(remedies.map((r) => `${r.parameter} ${r.value}`)).toEqual(expect.arrayContaining(['riser 25', 'tread 45']));
  });
  test('cut from the page, riser and tread that do not add up are named', () => {
    expect(
      find(stand(card(), 'step-fold', { depth: 30, height: 20, riser: 20, tread: 35 }), 'flat-fold').some(
        (f) => f.aspect === 'contradiction sum' && f.measured === 5,
      ),
    ).toBe(true);
  });
  test('a taut v-fold stops the card, and says where', () => {
    const [finding] = find(stand(card(), 'v-fold', { lean: 60, fold: 40, size: 40 }), 'flex');
    expect(finding.measured).toBeCloseTo(95.843, 2);
    expect(finding.message).toMatch(/taut/);
  });
});

describe('thickness', () => {
  test('the map counts layers where they lie', () => {
    const design = stand(card(), 'step-fold', { depth: 30, height: 20, width: 60 });
    const evidence = gather(design, 'closed', 0);
    const map = thicknessMap(evidence, evidence.closed!);
    // Leaf A, riser, tread and leaf B over each other between 30 and 50 mm: four sheets of 0.3 mm; two elsewhere.
    expect(map.greatest.mm).toBeCloseTo(1.2, 5);
    expect(map.greatest.layers).toBe(4);
    expect(map.layers[Math.floor(map.rows * 0.9) * map.columns + 4]).toBe(2);
    const paper = map.mm.reduce((s, x) => s + x, 0) * map.cellMm ** 2;
    // Volume of paper: area of the sheet times its caliper, whatever way it is folded.
    expect(paper).toBeCloseTo(200 * 200 * 0.3, -2);
  });
  test('too thick for a letter', () => {
    const thick = card();
    const design = {
      ...stand({ ...thick, stocks: thick.stocks.map((s) => ({ ...s, caliperMm: 2 })) }, 'step-fold', {}),
      post: { envelope: null, format: 'uk-letter' },
    };
    expect(find(design, 'thickness')[0].measured).toBeCloseTo(8, 4);
  });
});

test('gutter-relief asks for the paper that folds inside', () => {
  const [finding] = find(stand(card(), 'v-fold', { relief: 0.1, size: 50 }), 'gutter-relief');
  expect(finding.limit).toBeGreaterThanOrEqual(0.5);
  expect(seek(stand(card(), 'v-fold', { relief: 0.1, size: 50 }), finding, [finding]).remedies![0].parameter).toBe(
    'relief',
  );
});

describe('post-size', () => {
  const posted = (gutter: number, reach: number, envelope: string | null, format: string | null): Finding[] =>
    find({ ...card(gutter, reach), post: { envelope, format } }, 'post-size');
  test('C6 takes 111 x 159 with its ease', () => {
    expect(posted(159, 111, 'C6', null)).toHaveLength(0);
    expect(posted(160, 111, 'C6', null)[0].measured - posted(160, 111, 'C6', null)[0].limit).toBeCloseTo(1, 9);
  });
  // USPS Domestic Mail Manual 101 (from memory): square letters do not go through the machines.
  test('a square card is a risk as a letter, a tiny one is refused', () => {
    expect(posted(130, 130, null, 'usps-letter').map((f) => f.aspect)).toEqual(['aspect']);
    expect(posted(100, 70, null, 'usps-letter').some((f) => f.aspect.startsWith('least'))).toBe(true);
  });
});

test('sheet-fit: too large blocks, across the grain is a note', () => {
  expect(find(card(400, 200), 'sheet-fit')[0].severity).toBe('blocks');
  expect(find(card(190, 140), 'sheet-fit')).toHaveLength(0);
  expect(find(card(190, 140), 'grain')[0].severity).toBe('note');
  expect(find(card(270, 90), 'sheet-fit')).toHaveLength(0);
});

describe('the proof as a whole', () => {
  test('a sound card is clear, and its travel is charted to both ends', () => {
    const proof = prove(stand(card(270, 90), 'step-fold', { depth: 30, height: 20, width: 40 }), 12);
    expect(proof.verdict).toBe('clear');
    expect(proof.travel.map((t) => t.open)).toEqual(Array.from({ length: 13 }, (_, k) => 15 * k));
    expect(proof.travel[6].lift_mm).toBeCloseTo(20, 6);
    expect(proof.travel[0].reach_mm).toBeCloseTo(-40, 6);
    expect(proof.closed!.overhang.fore).toBe(0);
  });
  test('room of a number ends where the rule does, and says which', () => {
    const room = roomOf(stand(card(), 'step-fold', { depth: 30, height: 40, width: 40 }), 'step-fold-1', 'depth')!;
    expect(room.clear!.high.value).toBeCloseTo(60, 0);
    expect(room.clear!.high.by).toBe('fore edge');
  });
  test('what if tells what a value would do', () => {
    const design = stand(card(), 'step-fold', { depth: 30, height: 40, width: 40 });
    expect(whatIf(design, 'step-fold-1', 'depth', 80)).toMatchObject({
      reachMm: expect.closeTo(20, 6),
      liftMm: expect.closeTo(40, 6),
      blocks: 1,
    });
    expect(setParameter(design, 'step-fold-1', 'depth', 80).mechanisms[0].parameters.depth).toBe(80);
  });
});
