/**
 * Glued piece whose own crease, the spine, meets the host's crease at an angle (docs/mechanisms.md): a spherical
 * four-bar about the point where they meet. Drawn about that point with glue line A at `lean` from x, the spine `fold`
 * further on, glue line B another `fold` on; tabs lie outside the panels.
 */
import type { CreaseLine } from '../../pattern/pattern';
import { centreOf, type Ring } from '../../plane/polygon';
import { add2, scale2, type Vec2 } from '../../plane/vec2';
import { compose, invert, placeOnSheet, type Rigid } from '../../linkage';
import { degToRad, radToDeg } from '../../units/angle';
import {
  EMPTY,
  LABEL_STEP,
  laidOnto,
  num,
  placedOn,
  type BuildContext,
  type Contribution,
  type GlueArea,
  type Host,
  type CreaseKind,
  type ParameterValues,
  type Piece,
} from '../kind';
import { alongCrease } from '../parameters';
import { GLUE_SET_BACK_MM } from './step-fold';

const heading = (rad: number): Vec2 => [Math.cos(rad), Math.sin(rad)];
const leftOf = ([x, y]: Vec2): Vec2 => [-y, x];

/** The host seen from its other end: x reversed, sides swapped. */
const reversed = (h: Host): Host => ({
  ...h,
  frame: { origin: h.frame.origin, along: scale2(h.frame.along, -1) },
  sideA: h.sideB,
  sideB: h.sideA,
  reachA: h.reachB,
  reachB: h.reachA,
});

/** Its outlines, whether there is room for it at all, and where it would begin along its glue line. */
interface Tab {
  readonly tab: Ring;
  readonly glue: Ring;
  readonly fits: boolean;
  readonly beginsMm: number;
}

/**
 * Tab beside a glue line that starts at the apex, on the side toward the gutter: set back so that it clears the
 * gutter, ends bevelled.
 */
function tabAlong(apex: Vec2, line: Vec2, outward: Vec2, lean: number, size: number, tab: number, relief: number): Tab {
  // At s along the line and w out from it the distance to the gutter is s sin(lean) - w cos(lean).
  const clear = (w: number, room: number): number =>
    Math.max(relief, (room + w * Math.max(0, Math.cos(lean))) / Math.max(Math.sin(lean), 0.05));
  const at = (s: number, w: number): Vec2 => add2(apex, add2(scale2(line, s), scale2(outward, w)));
  const bevel = Math.min(tab / 3, size / 6);
  const shape = (inner: number, room: number, outer: number): Ring => {
    const s0 = clear(inner, room);
    const s1 = Math.min(Math.max(clear(outer, room), s0 + bevel), size - bevel - 0.1);
    return [
      at(s0, inner),
      at(size - bevel, inner),
      at(size - 2 * bevel, outer),
      at(Math.min(s1, size - 2 * bevel - 0.1), outer),
    ];
  };
  const glue = shape(GLUE_SET_BACK_MM, relief + GLUE_SET_BACK_MM, tab);
  // The tab begins where it is clear of the gutter and must end before the glue line does.
  const beginsMm = Math.max(clear(0, relief), clear(GLUE_SET_BACK_MM, relief + GLUE_SET_BACK_MM));
  return { tab: shape(0, relief, tab), glue, fits: beginsMm + bevel < size - 2 * bevel, beginsMm };
}

/** What the parts of a V-fold are drawn from, in the axes of its host's crease, the apex up. */
interface Plan {
  readonly id: string;
  readonly piece: string;
  readonly stock: string;
  readonly host: Host;
  readonly apex: Vec2;
  readonly size: number;
  /** Ways that its creases run out from the apex. */
  readonly ways: { readonly glueA: Vec2; readonly spine: Vec2; readonly glueB: Vec2 };
  readonly tabA: Tab;
  readonly tabB: Tab;
  /** How its panels lie on the two sides of its host. */
  readonly placements: { readonly A: Rigid; readonly B: Rigid };
  /** Its spine is a valley. */
  readonly up: boolean;
  /** Its host turns over the whole way. */
  readonly full: boolean;
  readonly away: boolean;
}

function planOf(values: ParameterValues, { id, stock, host: given }: BuildContext): Plan {
  const away = values.point === 'away';
  const host = away === given.sign > 0 ? reversed(given) : given;
  const lean = degToRad(num(values, 'lean'));
  const fold = degToRad(num(values, 'fold'));
  const [size, tab, relief] = [num(values, 'size'), num(values, 'tab'), num(values, 'relief')];
  const apex: Vec2 = [num(values, 'offset') * (away ? -1 : 1), 0];
  const ways = { glueA: heading(lean), spine: heading(lean + fold), glueB: heading(lean + 2 * fold) };
  const toHost = placedOn(host);
  return {
    // Each crease runs out from the apex; on leaf B glue line B lies at -lean.
    placements: { A: toHost, B: compose(toHost, aboutApex(apex, -2 * (lean + fold))) },
    ...{ id, piece: `${id}.panels`, stock, host, apex, size, ways, away },
    tabA: tabAlong(apex, ways.glueA, scale2(leftOf(ways.glueA), -1), lean, size, tab, relief),
    tabB: tabAlong(apex, ways.glueB, leftOf(ways.glueB), lean, size, tab, relief),
    up: values.crease === 'valley',
    full: host.ends[0] === Math.PI,
  };
}

function build(values: ParameterValues, context: BuildContext): Contribution {
  const plan = planOf(values, context);
  const { id, piece, host, size, ways, tabA, apex, placements } = plan;
  const room = `it would begin ${context.say(tabA.beginsMm)} from the point of a glue line ${context.say(size)} long`;
  return {
    ...EMPTY,
    pieces: [bodyOf(plan)],
    unheld: tabA.fits
      ? []
      : [{ key: 'tabs', what: `its tabs have no room beside the crease: ${room}, so nothing holds it to the page` }],
    bonds: (['A', 'B'] as const).map((side) => ({
      id: `${id}.bond${side}`,
      a: { piece: host.piece, facet: host[`side${side}`] },
      b: { piece, facet: `${id}.tab${side}` },
      placement: placements[side],
    })),
    hosts: hostsOf(plan),
    landmarks: [
      { name: 'peak', piece, facet: `${id}.panelA`, at: endOf(plan, ways.spine) },
      { name: 'apex', piece, facet: `${id}.panelA`, at: apex },
    ],
    measures: (pose): Record<string, number> => {
      const peak = pose.local('peak');
      const foot = pose.local('apex');
      if (!peak || !foot) return {};
      const d = [peak[0] - foot[0], peak[1] - foot[1], peak[2] - foot[2]];
      // Angle between the spine and the way the glue lines run; atan2 keeps its digits near 0 and 180.
      return { crease_deg: radToDeg(Math.atan2(Math.hypot(d[1], d[2]), (plan.away ? -1 : 1) * d[0])) };
    },
  };
}

/** The end of a crease. */
const endOf = ({ apex, size }: Plan, way: Vec2): Vec2 => add2(apex, scale2(way, size));

function bodyOf(plan: Plan): Piece {
  const { id, piece, stock, host, apex, ways, tabA, tabB, placements, up, full } = plan;
  const crease = (name: keyof Plan['ways'], valley: boolean, closed: number): CreaseLine => ({
    id: `${id}.${name}`,
    role: valley ? 'valley' : 'mountain',
    mechanism: id,
    a: apex,
    b: endOf(plan, ways[name]),
    standsOn: host.crease,
    ends: [full ? closed : undefined, undefined],
  });
  const inside = (way: Vec2, toward: Vec2): Vec2 =>
    add2(apex, add2(scale2(way, LABEL_STEP * 20), scale2(toward, LABEL_STEP)));
  const glue = (side: 'A' | 'B', outline: readonly Vec2[]): GlueArea => ({
    id: `${id}.glue${side}`,
    mechanism: id,
    outline,
    facet: `${id}.tab${side}`,
    onto: { piece: host.piece, facet: host[`side${side}`], outline: laidOnto(placements[side], outline) },
  });
  const label = (name: string, at: Vec2) => ({ name: `${id}.${name}`, at, mechanism: id });
  return {
    id: piece,
    title: 'V-fold',
    mechanism: id,
    stock,
    outline: {
      outer: [
        apex,
        ...(tabA.fits ? [tabA.tab[0], tabA.tab[3], tabA.tab[2], tabA.tab[1]] : []),
        endOf(plan, ways.glueA),
        endOf(plan, ways.spine),
        endOf(plan, ways.glueB),
        ...(tabB.fits ? [tabB.tab[1], tabB.tab[2], tabB.tab[3], tabB.tab[0]] : []),
      ],
      holes: [],
    },
    lines: [],
    creases: [
      crease('glueA', true, up ? 0 : Math.PI),
      crease('spine', up, up ? Math.PI : -Math.PI),
      crease('glueB', true, up ? 0 : Math.PI),
    ],
    glue: tabA.fits ? [glue('A', tabA.glue), glue('B', tabB.glue)] : [],
    labels: [
      ...(tabA.fits ? [label('tabA', centreOf(tabA.tab))] : []),
      label('panelA', inside(ways.glueA, leftOf(ways.glueA))),
      label('panelB', inside(ways.glueB, scale2(leftOf(ways.glueB), -1))),
      ...(tabB.fits ? [label('tabB', centreOf(tabB.tab))] : []),
    ],
  };
}

/** Its creases, for what is to stand on them. */
function hostsOf(plan: Plan): Host[] {
  const { id, piece, stock, apex, size, ways, up, full } = plan;
  const host = (name: keyof Plan['ways'], sign: 1 | -1, sideA: string, sideB: string, closed: number): Host => ({
    crease: `${id}.${name}`,
    piece,
    frame: { origin: add2(apex, scale2(ways[name], size / 2)), along: ways[name] },
    lengthMm: size,
    sideA: `${id}.${sideA}`,
    sideB: `${id}.${sideB}`,
    sign,
    ends: [full ? closed : undefined, undefined],
    reachA: size,
    reachB: size,
    stock,
  });
  const glued = up ? 0 : Math.PI;
  return [
    host('glueA', 1, 'panelA', 'tabA', glued),
    host('spine', up ? 1 : -1, 'panelB', 'panelA', Math.PI),
    host('glueB', 1, 'tabB', 'panelB', glued),
  ];
}

const aboutApex = (apex: Vec2, angle: number): Rigid =>
  compose(
    compose(placeOnSheet(apex, [1, 0]), placeOnSheet([0, 0], heading(angle))),
    invert(placeOnSheet(apex, [1, 0])),
  );

export const vFold: CreaseKind = {
  id: 'v-fold',
  mount: 'crease',
  title: 'V-fold',
  says: 'A glued piece whose spine rises out of the crease as the card opens.',
  sign: 'M1 12 L15 12 M8 12 L3 3 M8 12 L13 3',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    const size = whole(Math.min(Math.min(reachA, reachB) * 0.6, lengthMm * 0.5), 8);
    return { size, tab: whole(Math.min(12, size * 0.3), 4) };
  },
  turns: () => ({
    away: ['size', 'lean'],
    along: ['offset', 'size'],
    behind: ['lean', 'fold', 'size'],
    closing: ['fold', 'lean'],
    relief: ['relief'],
    tabs: ['tab', 'size'],
    size: ['size'],
  }),
  sizeOf: (v) => `lean ${num(v, 'lean')}°`,
  ownPiece: () => true,
  parameters: [
    {
      key: 'lean',
      label: 'Lean of the glue lines',
      unit: 'deg',
      default: 45,
      min: 5,
      max: 150,
      note: 'Angle between each glue line and the crease it stands on.',
    },
    {
      key: 'fold',
      label: 'Spine to glue line',
      unit: 'deg',
      default: 90,
      min: 5,
      max: 150,
      note:
        'Angle between the piece’s own crease and its glue lines. Smaller than the lean it goes ' +
        'taut before the card is flat.',
    },
    {
      key: 'size',
      label: 'Length of the spine',
      unit: 'mm',
      default: 50,
      min: 5,
      max: 1000,
      note: 'The glue lines are as long.',
    },
    alongCrease('Where the spine meets the crease, from its middle.'),
    { key: 'tab', label: 'Glue tab', unit: 'mm', default: 10, min: 2, max: 100, note: 'Width of the tabs.' },
    {
      key: 'relief',
      label: 'Tabs off the crease',
      unit: 'mm',
      default: 1.5,
      min: 0,
      max: 50,
      note: 'Room between the tabs and the crease they stand on, so that the fold stays free.',
    },
    {
      key: 'point',
      label: 'Point',
      unit: 'choice',
      default: 'toward',
      choices: ['toward', 'away'],
      note: 'Toward: the glue lines run to the high end along the crease; away: to the low end.',
    },
    {
      key: 'crease',
      label: 'Spine folds as',
      unit: 'choice',
      default: 'valley',
      choices: ['valley', 'mountain'],
      note:
        'Of the two poses that close: valley the one further from the crease, mountain the one ' +
        'nearer to it (only where fold is smaller than lean).',
    },
  ],
  build,
};
