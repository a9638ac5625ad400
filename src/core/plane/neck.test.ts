/** Necks against plain distances, and against erosion by a second library (polygon-clipping of offset boxes). */
import fc from 'fast-check';
import polygonClipping, { type Polygon as Rings } from 'polygon-clipping';
import { narrowestGap } from './neck';
import { rectangle, type Ring } from './polygon';
import { distToSegment, type Vec2 } from './vec2';
import { narrowestNeck } from './web';

const sheet = (cuts: readonly Ring[], holes: readonly Ring[] = []) => ({
  paper: [{ outer: rectangle(0, 0, 100, 60), holes }],
  cuts,
});

describe('least width across paper', () => {
  test.each([
    [
      'the end of a slit before an edge',
      [
        [
          [50, 20],
          [50, 57.5],
        ],
      ],
      2.5,
    ],
    [
      'two slits side by side',
      [
        [
          [20, 10],
          [20, 50],
        ],
        [
          [22, 10],
          [22, 50],
        ],
      ],
      2,
    ],
    [
      'two slits end to end',
      [
        [
          [10, 30],
          [49, 30],
        ],
        [
          [50.5, 30],
          [90, 30],
        ],
      ],
      1.5,
    ],
    [
      'a slit that ends before another',
      [
        [
          [10, 30],
          [48.2, 30],
        ],
        [
          [50, 10],
          [50, 50],
        ],
      ],
      1.8,
    ],
    [
      'ends that pass each other',
      [
        [
          [10, 30],
          [51, 30],
        ],
        [
          [49, 31.2],
          [90, 31.2],
        ],
      ],
      1.2,
    ],
    [
      'a corner that points at an edge',
      [
        [
          [40, 40],
          [50, 58],
          [60, 40],
        ],
      ],
      2,
    ],
  ] as [string, Vec2[][], number][])('%s', (_, cuts, width) => {
    expect(narrowestGap(sheet(cuts), 3.2)!.widthMm).toBeCloseTo(width, 6);
    expect(narrowestNeck(sheet(cuts), 3.2)!.widthMm).toBeCloseTo(width, 6);
    // Just below, at and just above the limit.
    expect(narrowestGap(sheet(cuts), width + 1e-3)).not.toBeNull();
    expect(narrowestNeck(sheet(cuts), width)).toBeNull();
    expect(narrowestNeck(sheet(cuts), width - 1e-3)).toBeNull();
  });
  test('corners, notches and low bumps are no necks; a tongue longer than wide is', () => {
    const notch: Vec2[] = [
      [40, 60],
      [41, 50],
      [42, 60],
    ];
    expect(narrowestGap(sheet([notch.slice(0, 3)]), 3.2)).toBeNull();
    const tongue = (long: number): Ring[] => [
      [
        [50, 20],
        [50, 20 + long],
        [52, 20 + long],
        [52, 20],
      ],
    ];
    expect(narrowestGap(sheet(tongue(3.9)), 3.2)).toBeNull();
    expect(narrowestGap(sheet(tongue(4.1)), 3.2)!.widthMm).toBeCloseTo(2, 6);
  });
  test('a round hole beside an edge, at the true distance', () => {
    const hole = Array.from({ length: 90 }, (_, k): Vec2 => [
      30 + 10 * Math.cos((-k * Math.PI) / 45),
      48 + 10 * Math.sin((-k * Math.PI) / 45),
    ]);
    expect(narrowestGap(sheet([], [hole]), 3.2)!.widthMm).toBeCloseTo(2, 1);
  });
});

test('random upright slits: the neck is the least distance between two, or one and an edge, by brute force', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          x: fc.integer({ min: 4, max: 96 }),
          y: fc.integer({ min: 4, max: 40 }),
          h: fc.integer({ min: 6, max: 15 }),
        }),
        { minLength: 2, maxLength: 5 },
      ),
      (slits) => {
        const apart = slits.every((s, i) =>
          slits.every((t, k) => i === k || s.x !== t.x || s.y > t.y + t.h + 0.5 || t.y > s.y + s.h + 0.5),
        );
        fc.pre(apart);
        const cuts = slits.map((s): Vec2[] => [
          [s.x + 0.37, s.y],
          [s.x + 0.37, s.y + s.h],
        ]);
        let least = Infinity;
        cuts.forEach(([a, b], i) => {
          least = Math.min(least, a[0], 100 - a[0], a[1], 60 - b[1]);
          cuts.forEach(([c, d], k) => {
            if (k > i)
              least = Math.min(
                least,
                distToSegment(a, c, d),
                distToSegment(b, c, d),
                distToSegment(c, a, b),
                distToSegment(d, a, b),
              );
          });
        });
        const found = narrowestGap(sheet(cuts), 5);
        if (least >= 5) expect(found).toBeNull();
        else expect(found!.widthMm).toBeCloseTo(least, 6);
        // A second library: slits widened to just less than the neck leave the sheet in one part that just more joins
        // to an edge or to each other.
        const boxes = (by: number): Rings[] =>
          cuts.map(([a, b]) => [
            [
              [a[0] - by, a[1] - by],
              [a[0] + by, a[1] - by],
              [b[0] + by, b[1] + by],
              [b[0] - by, b[1] + by],
            ],
          ]);
        const [first, ...rest] = boxes(least / 2 / Math.SQRT2 - 1e-6);
        expect(polygonClipping.union(first, ...rest)).toHaveLength(cuts.length);
      },
    ),
    { numRuns: 80 },
  );
});
