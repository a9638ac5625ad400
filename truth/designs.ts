/** Designs drawn at random within some 2 mm of where they would jam. */
import { addMechanism } from '../src/core/document/standing';
import { blankDesign, CENTRE, newLayer, type Design, type Layer } from '../src/core/document/design';
import { buildAssembly, tryBuild } from '../src/core/build/build';
import { gather } from '../src/core/proof/evidence';
import { RULES } from '../src/core/rules';
import { KINDS, type ParameterValues } from '../src/core/kinds';

export type Random = () => number;
export interface Drawn {
  readonly family: string;
  readonly design: Design;
}

const between = (random: Random, low: number, high: number): number => low + (high - low) * random();
const round = (x: number): number => Math.round(x * 100) / 100;
const one = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];

function card(random: Random): Design {
  const plain = blankDesign('drawn', 190, round(between(random, 120, 140)));
  const parameters = { ...plain.card.parameters, reachB: round(between(random, 120, 140)) };
  return { ...plain, card: { ...plain.card, stock: 'card-240', parameters } };
}
const fixed = (
  d: Design,
  kind: string,
  parameters: ParameterValues,
  at: Partial<typeof CENTRE>,
  on = 'leafB',
): Design => addMechanism(d, kind, { on, mount: { ...CENTRE, side: 'inside', ...at } }, parameters).design;
const stuck = (d: Design, layer: Partial<Layer>): Design => ({
  ...d,
  layers: [
    ...d.layers,
    {
      ...newLayer({
        ...{ id: `l${d.layers.length + 1}`, name: 'Bar', facet: 'leafA' },
        ...{ shape: { width: 6, height: 30 }, as: 'layer', stock: 'card-240' },
      }),
      ...layer,
    },
  ],
});

const SLIDER = { width: 90, height: 44, path: { line: 50 }, slot: 6, carrier: 18, foamInset: 2 };

/** A bar on the front, on the backing or under the front, beside the way or over it, flat or on foam. */
function bar(random: Random): Design {
  const d = fixed(card(random), 'track-slider', SLIDER, { turnDeg: one(random, [0, 90]) });
  const [facet, side] = one(random, [
    ['front', 'inside'],
    ['front', 'outside'],
    ['backing', 'inside'],
  ] as const);
  const reach = facet === 'front' && side === 'inside' ? SLIDER.carrier / 2 : 19.05 / 2;
  const high = round(between(random, 3, 6));
  const far = reach + high / 2 + between(random, -2, 2);
  return stuck(d, {
    facet: `track-slider-1.${facet}`,
    side,
    shape: { width: round(between(random, 4, 16)), height: high },
    ...{ x: round(between(random, -20, 20)), y: round(far * one(random, [1, -1])) },
    foamMm: one(random, [0, 0, 1]),
    foamInsetMm: 0,
  });
}

/** Two things on one face, side by side, within 2 mm of meeting. */
function beside(random: Random): Design {
  const radius = round(between(random, 24, 30));
  const panel = 2 * radius - round(between(random, 4, 10));
  const gap = round(between(random, -2, 2));
  const disc = { width: panel, height: panel, radius, notch: 0, windows: [{ inner: 9, outer: 18, span: 40, at: 90 }] };
  const d = fixed(card(random), 'volvelle', disc, { y: 35 });
  const [kind, values, half] = one(random, [
    ['pocket', { width: 60, height: 36, insertWidth: 40, insertHeight: 30, notch: 9 }, 18],
    ['carrier-wheel', { spokes: 3, arm: 18, hub: 10, carrier: { width: 8, height: 12, hang: 4 } }, 30],
    ['volvelle', { ...disc, radius: 24, width: 40, height: 40 }, 24],
  ] as const);
  return fixed(d, kind, values as ParameterValues, { y: round(35 - radius - half - gap) });
}

/** Two wheels so far apart that their carriers meet at some turns of both, or just do not. */
function both(random: Random): Design {
  const wheel = (): { values: ParameterValues; reach: number } => {
    const arm = round(between(random, 14, 22));
    const carrier = { width: round(between(random, 6, 14)), height: round(between(random, 8, 18)), hang: 3 };
    const low = carrier.height - carrier.hang;
    const values = { spokes: one(random, [2, 3]), arm, hub: 8, hole: 0.5, rivet: 0.5, carrier };
    return { values, reach: arm + Math.hypot(carrier.width / 2, low) };
  };
  const [a, b] = [wheel(), wheel()];
  const turned = between(random, 0, 90);
  const apart = (a.reach + b.reach) * between(random, 0.75, 1.02);
  const [x, y] = [(apart / 2) * Math.cos((turned * Math.PI) / 180), (apart / 2) * Math.sin((turned * Math.PI) / 180)];
  const d = fixed(card(random), 'carrier-wheel', a.values, { x: round(-x), y: round(-y) });
  return fixed(d, 'carrier-wheel', b.values, { x: round(x), y: round(y) });
}

/** A waterfall, and what stands on the gutter or is stuck beside it. */
function tumbling(random: Random): Design {
  const pitch = round(between(random, 7, 12));
  const high = round(between(random, 26, 34));
  const values = { count: 3, panelHeight: high, panelWidth: 34, pitch, beltWidth: 12, rivetGap: 18, strap: 8 };
  const d = fixed(card(random), 'waterfall', values, { x: round(between(random, -10, 20)) });
  return one(random, [
    () => addMechanism(d, 'v-fold', undefined, { size: round(between(random, 20, 60)), lean: 35 }).design,
    () =>
      addMechanism(d, 'step-fold', undefined, { depth: 20, height: round(between(random, 10, 60)), width: 50 }).design,
    () =>
      stuck(d, {
        ...{ facet: 'leafB', shape: { width: 20, height: 8 }, foamMm: one(random, [0, 1, 3]), foamInsetMm: 0 },
        ...{ x: round(between(random, -40, 40)), y: round(between(random, -60, 60)) },
      }),
  ])();
}

/** A strip that lifts a ridge, before something stuck on beside it. */
function lifting(random: Random): Design {
  const d = fixed(
    card(random),
    'lift-tab',
    { lower: 24, upper: 24, width: 36, strip: 12 },
    { x: round(between(random, -15, 15)) },
  );
  return stuck(d, {
    facet: one(random, ['leafB', 'lift-tab-1.upper', 'lift-tab-1.lower']),
    shape: { width: round(between(random, 8, 20)), height: 8 },
    ...{ x: round(between(random, -20, 20)), y: round(between(random, -10, 10)) },
    foamMm: one(random, [0, 2]),
    foamInsetMm: 0,
  });
}

/** Something that folds up to the edge of its card when that is shut, or a hair past it. */
function shutUp(random: Random): Design {
  const [reachA, reachB] = [round(between(random, 70, 110)), round(between(random, 70, 110))];
  const plain = blankDesign('drawn', 200, reachA);
  const d: Design = { ...plain, card: { ...plain.card, parameters: { ...plain.card.parameters, reachB } } };
  const reach = Math.max(reachA, reachB);
  const past = between(random, -2, 2);
  const depth = round(between(random, 15, 35));
  const high = round(reach - depth + past);
  const shorter = Math.min(reachA, reachB);
  return one(random, [
    () =>
      stand(d, 'step-fold', {
        build: 'glued',
        depth,
        height: round(Math.min(high, shorter - 5)),
        riser: high,
        tread: round(depth + high - Math.min(high, shorter - 5)),
        width: 50,
      }),
    () =>
      stand(d, 'v-fold', {
        size: round(between(random, 30, 70)),
        lean: round(between(random, 20, 60)),
        offset: round(between(random, -80, 80)),
      }),
    () => inserted(random, past),
  ])();
}
const stand = (d: Design, kind: string, parameters: ParameterValues): Design =>
  addMechanism(d, kind, undefined, parameters).design;

/** An off-centre card whose insert ends near the edge of its cover. */
function inserted(random: Random, past: number): Design {
  const plain = blankDesign('drawn');
  const [back, height] = [round(between(random, 100, 140)), round(between(random, 90, 120))];
  const glued = round(between(random, 60, 90));
  const free = round((back + glued) / 2 + past);
  const sizes = {
    ...{ length: round(back * 1.5), height, score: round(back * 0.5) },
    ...{ insertLength: glued + free, insertScore: glued },
    insertHeight: round(height + between(random, -4, 4)),
  };
  return { ...plain, card: { ...plain.card, construction: 'gate-insert', parameters: sizes } };
}

/** Carriers hung near the middle of their weight, with something stuck on one of them. */
function hanging(random: Random): Design {
  const height = round(between(random, 20, 30));
  const carrier = { width: 16, height, hang: round(between(random, height / 2 - 6, height / 2 + 2)) };
  const d = fixed(card(random), 'carrier-wheel', { spokes: 3, arm: 34, hub: 10, carrier, hole: 0.5, rivet: 0.5 }, {});
  return stuck(d, {
    facet: 'carrier-wheel-1.carrier-1',
    shape: { width: 12, height: 6 },
    y: round(between(random, -height / 2, height / 2)),
  });
}

const ON_CREASE = ['step-fold', 'v-fold', 'half-cut', 'floating-band', 'strut-figure', 'plane-stack', 'step-strips'];

/** Its lengths some way off those it starts with. */
function resized(random: Random, kind: string): ParameterValues {
  const own = KINDS.get(kind)!.parameters.filter((p) => p.unit === 'mm' && typeof p.default === 'number');
  const some = own.filter((p) => p.default !== 0 && random() < 0.7);
  return Object.fromEntries(some.map((p) => [p.key, round((p.default as number) * between(random, 0.7, 1.4))]));
}

/** Two things on the gutter of uneven leaves, a third on one of those, and a bar stuck on somewhere. */
function rising(random: Random): Design {
  for (;;) {
    const plain = blankDesign('drawn', round(between(random, 150, 200)), round(between(random, 80, 140)));
    const parameters = { ...plain.card.parameters, reachB: round(between(random, 80, 140)) };
    let d: Design = { ...plain, card: { ...plain.card, parameters } };
    const at = between(random, -50, 20);
    for (const offset of [at, at + between(random, 10, 70)]) {
      const kind = one(random, ON_CREASE);
      d = stand(d, kind, { ...resized(random, kind), offset: round(offset) });
    }
    const built = tryBuild(d);
    if (!built) continue;
    const creases = [...built.hosts.keys()].filter((id) => !id.startsWith('card.'));
    const third = one(random, ON_CREASE);
    const nested = addMechanism(d, third, one(random, creases), resized(random, third)).design;
    if (creases.length > 0 && random() < 0.6 && tryBuild(nested)) d = nested;
    const whole = random() < 0.4 ? barOn(random, d) : d;
    if (liesFlat(whole)) return whole;
  }
}

/** Nothing keeps it from being told clear before it is opened: what happens then is the question. */
function liesFlat(d: Design): boolean {
  const assembly = tryBuild(d);
  if (!assembly) return false;
  const closed = gather(d, 'closed', 0, assembly);
  return RULES.every((r) => r.needs === 'travel' || r.check(closed).every((f) => f.severity !== 'blocks'));
}

/** A bar in the middle of a facet, as wide as half of it at most. */
function barOn(random: Random, d: Design): Design {
  const { facets } = buildAssembly(d);
  const facet = one(random, facets);
  const { outer } = facet.polygon;
  const [xs, ys] = [outer.map((p) => p[0]), outer.map((p) => p[1])];
  const [wide, high] = [xs, ys].map((v) => Math.max(...v) - Math.min(...v));
  const shape = { width: round(between(random, 3, Math.max(4, wide / 2))), height: round(Math.max(3, high / 4)) };
  return stuck(d, { facet: facet.id, shape, foamMm: one(random, [0, 1, 3]), foamInsetMm: 0 });
}

const ON_FACE = ['volvelle', 'track-slider', 'lift-tab', 'waterfall', 'carrier-wheel', 'pocket', 'z-window'];

/** Two things fixed on the leaves, of any kinds, often one on the gutter, sometimes a bar on any of it. */
function mixed(random: Random): Design {
  for (;;) {
    let d = card(random);
    for (let k = 0; k < 2; k++) {
      const kind = one(random, ON_FACE);
      const at = { x: round(between(random, -50, 50)), y: round(between(random, -30, 30)) };
      const mount = { ...at, turnDeg: one(random, [0, 0, 90, 180]) };
      d = fixed(d, kind, resized(random, kind), mount, one(random, ['leafA', 'leafB']));
    }
    if (random() < 0.7) {
      const kind = one(random, [...ON_CREASE, 'leaf-bundle']);
      d = stand(d, kind, { ...resized(random, kind), offset: round(between(random, -60, 40)) });
    }
    if (!tryBuild(d)) continue;
    const whole = random() < 0.3 ? barOn(random, d) : d;
    if (liesFlat(whole)) return whole;
  }
}

const HAND: Readonly<Record<string, (random: Random) => Design>> = { bar, beside, tumbling, lifting };
const OTHERS = { both, shut: shutUp, hanging, rising, mixed } as const;
export type OtherFamily = keyof typeof OTHERS;
const FAMILIES: Readonly<Record<string, (random: Random) => Design>> = { ...HAND, ...OTHERS };
export const families = Object.keys(FAMILIES);
export const isByHand = (family: string): boolean => family in HAND;

/** The next design of a family; those that cannot be put together are drawn again. */
export function draw(family: string, random: Random): Drawn {
  return { family, design: FAMILIES[family](random) };
}
