/**
 * Planes parallel to side B, with platforms between (docs/mechanisms.md). A plane whose top is at height h and that
 * stands `depth` in front of side B is tied to it by a platform `depth` long at height h; a further plane may stand on
 * that platform, or a platform may end on a plane behind instead of on side B.
 */
import { isPartNamed, isPartOf } from '../../ids';
import { mapRegion, unite, type Region } from '../../plane/polygon';
import { frameAt, sub2, dot2 } from '../../plane/vec2';
import { rectShape } from '../../shapes/basics';
import { contactsAt, widthOfAll } from '../../shapes/level';
import { fitWithContacts } from '../../shapes/contact';
import { standing } from '../../shapes/outline';
import { LENGTH_EQUAL_MM } from '../../tolerance';
import {
  EMPTY,
  listOf,
  num,
  shapeOf,
  type BuildContext,
  type Contribution,
  type Host,
  type CreaseKind,
  type Lack,
  type Landmark,
  type ListItem,
  type Parameter,
  type ParameterValues,
} from '../kind';
import { alongCrease } from '../parameters';
import { cutFigure } from '../figures/page-figure';

export interface Plane {
  readonly depth: number;
  readonly base: number;
  readonly height: number;
  /** Null: that of its shape. */
  readonly width: number | null;
  readonly offset: number;
  /** Plane behind, counted from 0, on which its platform ends; null: on side B. */
  readonly joins: number | null;
}
const read = (item: ListItem): Plane => ({
  depth: item.depth as number,
  base: (item.base ?? 0) as number,
  height: item.height as number,
  width: (item.width ?? null) as number | null,
  offset: (item.offset ?? 0) as number,
  joins: (item.joins ?? null) as number | null,
});

/** A plain plane where there is no shape. */
const PLAIN_WIDTH = 60;

/**
 * Outline in (x, h), as high as the plane is, trimmed where its contacts are too narrow; `needed` mm were trimmed in
 * proportion.
 */
export function planeOutline(
  item: ListItem,
  contact: number,
  outline: BuildContext['outline'],
): { region: Region; missing: 'top' | 'foot' | null } {
  const plane = read(item);
  const shape = shapeOf(item, 'shape');
  if (!shape) return { region: standing(rectShape(plane.width ?? PLAIN_WIDTH, plane.height), null), missing: null };
  let region = trimmedTo(outline(shape), plane, contact);
  // The half turn of the page: see strut-figure.
  region = mapRegion(region, ([x, h]) => [-x, h], true);
  const lacks = (edge: 'top' | 'bottom', level: number): boolean =>
    widthOfAll(contactsAt(region, level, edge)) < LENGTH_EQUAL_MM;
  return { region, missing: lacks('top', plane.height) ? 'top' : lacks('bottom', 0) ? 'foot' : null };
}

/** A shape as high as its plane, trimmed only where its contacts, or those of one of its letters, are narrower. */
const trimmedTo = (drawn: Region, plane: Plane, contact: number): Region =>
  contact > 0
    ? fitWithContacts(drawn, plane.height, plane.width, ['bottom', 'top'], contact).region
    : standing(drawn, plane.height, plane.width);

function build(values: ParameterValues, { id, host, outline, say }: BuildContext): Contribution {
  const items = listOf(values, 'planes');
  const planes = items.map(read);
  const contact = num(values, 'contact');
  const reach = Math.max(host.reachA, host.reachB);
  const parts: Contribution[] = [];
  const landmarks: Landmark[] = [];
  const contradictions: Contribution['contradictions'][number][] = [];
  const unheld: Lack[] = [];
  const hosts: Host[] = [];
  let joined = 0;
  // What is stood on is built first.
  const order = planes
    .map((_, i) => i)
    .sort(
      (a, b) =>
        (planes[a].joins === null ? 0 : 1) - (planes[b].joins === null ? 0 : 1) ||
        planes[a].base - planes[b].base ||
        a - b,
    );
  for (const i of order) {
    const plane = planes[i];
    const n = i + 1;
    const stands = standsOn(planes, i, id, host, hosts, say);
    if ('why' in stands) {
      contradictions.push({ key: `plane ${n} ${stands.key}`, what: `plane ${n} ${stands.why}`, mm: stands.mm });
      continue;
    }
    const { on, depth } = stands;
    const { region: own, missing } = planeOutline(items[i], contact, outline);
    if (missing) {
      const lacks = `plane ${n} has no straight ${missing === 'top' ? 'contact at its top' : 'foot'}`;
      unheld.push({
        key: `plane ${n} ${missing}`,
        what: `${lacks}: give contact a width, and the least is trimmed off`,
      });
    }
    // Along the stack's own crease; the crease it stands on has another middle.
    const shift = plane.offset - dot2(sub2(on.frame.origin, host.frame.origin), host.frame.along);
    const region = mapRegion(own, ([x, h]) => [x + shift, h]);
    const feet = contactsAt(region, 0, 'bottom');
    const holds = contactsAt(region, plane.height, 'top').map((c) => ({ ...c, level: plane.height }));
    joined += widthOfAll(holds);
    const many = region.length > 1;
    const numbered = (name: string, k: number): string => (k === 0 ? `${name}-${n}` : `${name}-${n}-${k + 1}`);
    const cut = cutFigure({
      id,
      host: on,
      region,
      depth,
      feet,
      holds,
      names: {
        part: (k) => (many ? `plane-${n}-${k + 1}` : `plane-${n}`),
        hold: (k) => numbered('platform', k),
        foot: (k) => numbered('foot', k),
        ridge: (k) => numbered('ridge', k),
        wall: (k) => numbered('wall', k),
      },
    });
    if (!missing)
      unheld.push(...cut.unheld.map((w) => ({ key: `plane ${n} ${w.key}`, what: `plane ${n}: ${w.what}` })));
    hosts.push(...cut.hosts);
    landmarks.push({
      name: `planes[${i}].top`,
      piece: host.piece,
      facet: cut.tip.facet,
      at: frameAt(on.frame, cut.tip.at[0], depth - cut.tip.at[1]),
    });
    parts.push({ ...EMPTY, ...cut });
  }
  const rooms = planes.map((p) => reach - (p.depth + p.base + p.height));
  return {
    ...EMPTY,
    lines: parts.flatMap((p) => p.lines),
    hostCreases: parts.flatMap((p) => p.hostCreases),
    labels: parts.flatMap((p) => p.labels),
    interruptions: parts.flatMap((p) => p.interruptions),
    waste: unite(parts.flatMap((p) => p.waste)),
    claims: unite(parts.flatMap((p) => p.claims)),
    hosts,
    landmarks,
    contradictions,
    unheld,
    owned: parts.flatMap((p) => p.owned),
    measures: () => ({
      room_mm: Math.min(...rooms),
      ...Object.fromEntries(rooms.map((r, i) => [`planes[${i}].room_mm`, r])),
      contacts_mm: joined,
    }),
  };
}

type Standing = { on: Host; depth: number } | { key: string; why: string; mm: number };

/** The crease a plane is built on, and its depth measured from there; or why there is none. */
function standsOn(
  planes: readonly Plane[],
  i: number,
  id: string,
  host: Host,
  built: readonly Host[],
  say: BuildContext['say'],
): Standing {
  const plane = planes[i];
  const along = (h: Host): number => dot2(sub2(h.frame.origin, host.frame.origin), host.frame.along);
  const over = (h: Host): boolean => Math.abs(along(h) - plane.offset) <= h.lengthMm / 2;
  const named = (name: string, n: number): Host[] =>
    built.filter((h) => isPartOf(h.crease, id) && isPartNamed(h.crease, `${name}-${n}`));
  const not = (key: string, why: string, mm = 0): Standing => ({ key, why, mm });
  if (plane.joins !== null) {
    const wrong = joinsWrongly(planes, i, plane.joins, say);
    if (wrong) return wrong;
    const foot = named('foot', plane.joins + 1).find(over);
    if (!foot) return not('joins', `is not in front of plane ${plane.joins + 1}, on which its platform ends`);
    return { on: foot, depth: plane.depth - planes[plane.joins].depth };
  }
  if (plane.base <= LENGTH_EQUAL_MM) return { on: host, depth: plane.depth };
  const under = planes.flatMap((p, k) =>
    k !== i && p.joins === null && Math.abs(p.base + p.height - plane.base) <= LENGTH_EQUAL_MM ? [k] : [],
  );
  const base = say(plane.base);
  if (under.length === 0) return not('base', `stands at ${base}, but no plane has its top there`, plane.base);
  const deep = under.filter((k) => planes[k].depth >= plane.depth - LENGTH_EQUAL_MM);
  const deepest = Math.max(...under.map((k) => planes[k].depth));
  if (deep.length === 0) {
    const why = `stands ${say(plane.depth)} deep on a platform that is only ${say(deepest)} deep`;
    return not('depth', why, plane.depth - deepest);
  }
  const wall = deep.flatMap((k) => named('wall', k + 1)).find(over);
  return wall
    ? { on: wall, depth: plane.depth }
    : not('beside', `stands beside the platform that is at ${base}, not on it`);
}

/** Why a plane's platform cannot end on the plane it names. */
function joinsWrongly(
  planes: readonly Plane[],
  i: number,
  joins: number,
  say: BuildContext['say'],
): { key: string; why: string; mm: number } | null {
  const [plane, behind] = [planes[i], planes[joins] as Plane | undefined];
  if (!behind || joins === i)
    return { key: 'joins', why: `ends its platform on plane ${joins + 1}, which is not there`, mm: 0 };
  if (behind.joins === i)
    return { key: 'joins', why: `and plane ${joins + 1} end their platforms on each other`, mm: 0 };
  if (Math.abs(behind.base - plane.base) > LENGTH_EQUAL_MM) {
    const two = `stands at ${say(plane.base)} and ends its platform on a plane that stands at ${say(behind.base)}`;
    return { key: 'base', why: `${two}; both must stand on the same`, mm: Math.abs(behind.base - plane.base) };
  }
  const ends = 'the plane behind it on which its platform ends';
  if (behind.depth >= plane.depth) {
    const why = `must be deeper than ${ends} (${say(behind.depth)})`;
    return { key: 'depth', why, mm: behind.depth - plane.depth };
  }
  if (behind.height <= plane.height) {
    const why = `is not lower than ${ends} (${say(behind.height)})`;
    return { key: 'height', why, mm: plane.height - behind.height };
  }
  return null;
}

const PLANE: readonly Parameter[] = [
  {
    key: 'depth',
    label: 'Depth',
    unit: 'mm',
    default: 30,
    min: 1,
    max: 1000,
    note: 'How far in front of side B it stands; its platform is as long.',
  },
  {
    key: 'base',
    label: 'Stands at',
    unit: 'mm',
    default: 0,
    min: 0,
    max: 1000,
    note: '0 on the leaf, or the height of the platform it stands on.',
  },
  { key: 'height', label: 'Height', unit: 'mm', default: 40, min: 1, max: 1000, note: 'From its foot to its top.' },
  {
    key: 'width',
    label: 'Width',
    unit: 'mm',
    default: null,
    min: 1,
    max: 2000,
    note: 'Of a plain plane 60 unless set; a shape keeps its proportions unless it is set.',
  },
  alongCrease(),
  {
    key: 'joins',
    label: 'Platform ends on',
    unit: 'count',
    default: null,
    min: 0,
    max: 50,
    note: 'Number of a plane behind, counted from 0; side B unless set.',
  },
  {
    key: 'shape',
    label: 'Shape',
    unit: 'shape',
    default: null,
    highAs: 'height',
    wideAs: 'width',
    note: 'Its outline; a rectangle unless set.',
  },
];

export const planeStack: CreaseKind = {
  id: 'plane-stack',
  mount: 'crease',
  title: 'Planes',
  says: 'Planes that stand one behind the other, each tied back by a platform others can stand on.',
  sign: 'M2 2 V14 H15 M2 6 H7 V14 M7 9 H12 V14',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    const part = (k: number, least: number): number => whole(Math.min(reachA, reachB) * k, least);
    const behind = { depth: part(0.35, 4), base: 0, height: part(0.3, 4), width: whole(lengthMm * 0.5, 8), offset: 0 };
    const before = { depth: part(0.2, 3), base: part(0.3, 4), height: part(0.25, 3) };
    return { planes: [behind, { ...before, width: whole(lengthMm * 0.3, 6), offset: 0 }] };
  },
  turns: (values) => {
    const each = (...keys: string[]): string[] =>
      listOf(values, 'planes').flatMap((_, k) => keys.map((key) => `planes[${k}].${key}`));
    return {
      away: each('height', 'depth'),
      along: each('offset', 'width'),
      size: each('width'),
      strength: ['contact'],
    };
  },
  holds: (crease) => {
    const [, part, n] = /^(foot|ridge|wall)-(\d+)/.exec(crease) ?? [];
    return part ? [`planes[${Number(n) - 1}].${part === 'foot' ? 'depth' : 'height'}`] : [];
  },
  sizeOf: (v) => {
    const { length } = listOf(v, 'planes');
    return `${length} ${length === 1 ? 'plane' : 'planes'}`;
  },
  editors: ['planes'],
  raises: true,
  shapeUse: {
    says: 'As a plane',
    values: (shape, height) => ({
      planes: [{ depth: Math.max(2, Math.round(height * 0.4)), base: 0, height, offset: 0, shape }],
      contact: 8,
    }),
  },
  parameters: [
    {
      key: 'planes',
      label: 'Planes',
      unit: 'list',
      entry: 'Plane',
      default: [{ depth: 40, base: 0, height: 30, width: 80, offset: 0 }],
      fields: PLANE,
      note: 'Each parallel to side B, tied to it by a platform from its top.',
    },
    {
      key: 'contact',
      label: 'Contact',
      unit: 'mm',
      default: 0,
      min: 0,
      max: 500,
      note:
        'Least straight width at the top and foot of a shape; what is narrower is trimmed by the ' +
        'least that gives it. 0: shapes as they are.',
    },
  ],
  build,
};
