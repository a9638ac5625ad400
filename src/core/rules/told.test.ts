/** What findings say they measured, on whom they lay it, and which fields they point to. */
import { poseOpen } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { ringArea, ringsOf } from '../plane/polygon';
import { card, findings, layered, stand } from '../tests/cards';
import { seeded } from '../linkage/random';
import { thicknessMap } from './index';

describe('sheet-fit', () => {
  test('says the longer side of the piece and the room there is: A4 less two margins of 5 mm', () => {
    const [found] = findings(card(400, 100), 'sheet-fit');
    expect([found.measured, found.limit]).toEqual([400, 287]);
    const [tall] = findings(card(200, 260), 'sheet-fit');
    expect([tall.measured, tall.limit]).toEqual([520, 287]);
  });
});

describe('the map of the closed stack', () => {
  test.each([
    ['a V-fold, whose panels are slanted', stand(card(), 'v-fold', { size: 60, lean: 50 })],
    ['a disc on struts', stand(card(200, 140), 'strut-figure', { shape: { circle: 60 }, depth: 25 })],
    ['a step', stand(card(180, 90, 120), 'step-fold', { depth: 30, height: 20, width: 60 })],
  ])('%s: cells by their layers give back the area of all paper, and its middle', (_, design) => {
    const assembly = buildAssembly(design);
    const closed = poseOpen(assembly, 0);
    const map = thicknessMap({ assembly, brief: { stock: () => ({ caliperMm: 0.3 }) } } as never, closed);
    let [cells, along, away] = [0, 0, 0];
    map.layers.forEach((n, k) => {
      cells += n;
      along += n * (map.origin[0] + ((k % map.columns) + 0.5) * map.cellMm);
      away += n * (map.origin[1] + (Math.floor(k / map.columns) + 0.5) * map.cellMm);
    });
    // Area by the shoelace formula, first moments by triangles from the origin.
    let [area, mx, my] = [0, 0, 0];
    assembly.facets.forEach((f, i) =>
      ringsOf(f.polygon).forEach((ring) => {
        const m = closed.placed[i];
        const placed = ring.map(([x, y]) => [m[0] * x + m[1] * y + m[3], m[4] * x + m[5] * y + m[7]] as const);
        const sign = Math.sign(ringArea(placed)) * Math.sign(ringArea(ring));
        placed.forEach((p, k) => {
          const q = placed[(k + 1) % placed.length];
          const twice = sign * (p[0] * q[1] - p[1] * q[0]);
          area += twice / 2;
          mx += (twice * (p[0] + q[0])) / 6;
          my += (twice * (p[1] + q[1])) / 6;
        });
      }),
    );
    expect((cells * map.cellMm ** 2) / area).toBeCloseTo(1, 2);
    expect(Math.abs(along / cells - mx / area)).toBeLessThan(map.cellMm);
    expect(Math.abs(away / cells - my / area)).toBeLessThan(map.cellMm);
  });
});

describe('collision', () => {
  test('is laid on what moves: a mechanism before the card, a layer before a mechanism', () => {
    const random = seeded(5);
    const between = (a: number, b: number): number => a + (b - a) * random();
    let withCard = 0;
    for (let k = 0; k < 40; k++) {
      const d = stand(
        stand(card(180, between(70, 110), between(70, 110)), 'v-fold', {
          size: between(40, 90),
          lean: between(30, 70),
          offset: between(-50, 50),
          point: random() < 0.5 ? 'toward' : 'away',
        }),
        'step-fold',
        { depth: between(20, 50), height: between(20, 50), width: between(30, 60), offset: between(-50, 50) },
      );
      for (const f of findings(layered(d, { shape: { circle: 30 } }), 'collision', 12)) {
        const parts = f.subjects.map((s) => s.split('.')[0]);
        if (parts.includes('layer')) expect(f.message).toMatch(/Moon/);
        if (!parts.some((p) => p.startsWith('leaf') || p === 'layer')) continue;
        withCard++;
        expect(f.mechanism === 'card' && !parts.includes('layer')).toBe(false);
      }
    }
    expect(withCard).toBeGreaterThan(0);
  });
});

describe('overhang points to what moves it', () => {
  const keys = (d: Parameters<typeof findings>[0]): Record<string, string[]> =>
    Object.fromEntries(
      findings(d, 'overhang').map((f) => [f.aspect, f.levers.map((l) => `${l.mechanism}.${l.parameter}`)]),
    );
  test('fore: depth, height and the card’s reach; ends: the place along the crease and the gutter', () => {
    const fore = keys(stand(card(200, 100), 'step-fold', { depth: 70, height: 50, width: 40 })).fore;
    expect(fore).toEqual(expect.arrayContaining(['step-fold-1.depth', 'step-fold-1.height', 'card.reach']));
    expect(fore.some((k) => k.endsWith('.offset') || k === 'card.gutter')).toBe(false);
    const head = keys(stand(card(160), 'v-fold', { size: 60, offset: 60, lean: 45, point: 'away' })).head;
    expect(head).toEqual(expect.arrayContaining(['v-fold-1.offset', 'v-fold-1.size', 'card.gutter']));
    expect(head.some((k) => k.startsWith('card.reach'))).toBe(false);
  });
  test('of a step on a step: those of the lower one too', () => {
    const lower = stand(card(200, 60), 'step-fold', { depth: 40, height: 15, width: 80 });
    const upper = stand(lower, 'step-fold', { depth: 14, height: 12, width: 30 }, 'step-fold-1.base');
    const told = Object.values(keys(upper)).flat();
    expect(told).toEqual(expect.arrayContaining(['step-fold-2.depth', 'step-fold-1.depth', 'step-fold-1.height']));
  });
});

describe('what lies nowhere is named and kept', () => {
  const d = layered(stand(card(), 'step-fold', { depth: 30, height: 20, width: 40 }), { facet: 'step-fold-9.riser' });
  test('a layer, a dressing and a way of making, each once; those that are somewhere are not', () => {
    const lost = {
      ...d,
      dressing: [
        { facet: 'leafC', mats: [] },
        { facet: 'leafA', mats: [] },
      ],
      making: {
        ...d.making,
        creases: { 'card.gutter': { way: 'score' as const }, 'step-fold-9.ridge': { way: 'score' as const } },
      },
    };
    const told = findings(lost, 'loose-part').map((f) => `${f.severity} ${f.aspect}`);
    expect(told).toEqual([
      'risk nowhere layer l1',
      'risk nowhere dressing leafC',
      'risk nowhere making step-fold-9.ridge',
    ]);
    expect(findings(lost, 'loose-part')[0].message).toMatch(/^Moon lies on the .*It is kept/);
  });
  test('moved to a facet that is there it is no longer told', () => {
    expect(findings(d, 'loose-part')).toHaveLength(1);
    expect(findings({ ...d, layers: d.layers.map((l) => ({ ...l, facet: 'leafB' })) }, 'loose-part')).toEqual([]);
  });
});
