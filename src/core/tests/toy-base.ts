/** A base that no file names: leaf A has an ear that reaches behind the gutter, so that least and greatest differ. */
import { CARD } from '../ids';
import { BASES, GUTTER, num, PLAIN_BASE, type Base, type BaseKind, type ParameterValues } from '../kinds';
import type { Vec2 } from '../plane/vec2';

const HALF = { low: -60, ear: 42, high: 60, leafB: 38 };

function build(values: ParameterValues, stock: string): Base {
  const [far, ear] = [num(values, 'far'), num(values, 'ear')];
  const { low, high } = HALF;
  const outer: Vec2[] = [
    [low, -far],
    [HALF.leafB, -far],
    [HALF.leafB, 0],
    [HALF.ear, 0],
    [HALF.ear, -ear],
    [high, -ear],
    [high, far],
    [low, far],
  ];
  const crease = { id: GUTTER, a: [low, 0] as Vec2, b: [HALF.leafB, 0] as Vec2 };
  return {
    pieces: [
      {
        id: CARD,
        title: 'Eared card',
        mechanism: CARD,
        stock,
        outline: { outer, holes: [] },
        lines: [],
        glue: [],
        creases: [{ ...crease, role: 'valley', mechanism: CARD, ends: [Math.PI, 0] }],
        labels: [
          { name: 'leafA', at: [low + 0.1, far - 0.1], mechanism: CARD },
          { name: 'leafB', at: [low + 0.1, 0.1 - far], mechanism: CARD },
        ],
      },
    ],
    bonds: [],
    hosts: [
      {
        crease: GUTTER,
        piece: CARD,
        frame: { origin: [(low + HALF.leafB) / 2, 0], along: [1, 0] },
        lengthMm: HALF.leafB - low,
        sideA: 'leafA',
        sideB: 'leafB',
        sign: 1,
        ends: [Math.PI, 0],
        reachA: far,
        reachB: far,
        stock,
      },
    ],
    lead: { crease: GUTTER, still: 'leafA', turning: 'leafB' },
    measures: () => ({ ear_mm: ear }),
    interruptions: [],
  };
}

const length = (key: string, label: string, most: number) =>
  ({ key, label, unit: 'mm', default: most / 4, min: 1, max: most, note: '' }) as const;

export const toyBase: BaseKind = {
  ...BASES.get(PLAIN_BASE)!,
  id: 'toy-ear',
  title: 'Eared card',
  parameters: [length('far', 'Far', 400), length('ear', 'Ear', 60)],
  brief: ['far', 'ear'],
  fitting: ({ reach }) => ({ far: reach, ear: 10 }),
  silent: undefined,
  order: () => [],
  sizes: (v) => ({ gutter: HALF.high - HALF.low, reach: num(v, 'far') }),
  turns: () => ({ away: ['far', 'ear'], along: [], size: ['far'] }),
  levers: {},
  sizeOf: (v, say) => `eared ${say(num(v, 'far'))}`,
  face: () => 'leafB',
  up: () => [0, 1],
  build: (values, { stock }) => build(values, stock),
};

/** Adds it for as long as a test runs. */
export function withToyBase(): void {
  const bases = BASES as Map<string, BaseKind>;
  beforeAll(() => void bases.set(toyBase.id, toyBase));
  afterAll(() => void bases.delete(toyBase.id));
}
