/**
 * What a mechanism is made of beside its lines, as plain data in the axes of what it stands on: pieces of its own, what
 * is glued and what moves. A kind that is turned into plain lines keeps these so.
 */
import { underOwner } from '../../ids';
import { applyRigid, compose, invert, rotateOnly, type Motion, type Rigid, type Vec3 } from '../../linkage';
import { mapRegion, type Polygon, type Region, type Ring } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import type { Carried, Contribution, GlueArea, Host, MovingJoint } from '../kind';

export const PART_LISTS = [
  'labels',
  'owned',
  'waste',
  'claims',
  'interruptions',
  'hosts',
  'landmarks',
  'pieces',
  'bonds',
  'joints',
  'drives',
  'bends',
  'foam',
  'fillers',
  'hardware',
  'demands',
] as const;
export type Parts = Pick<Contribution, (typeof PART_LISTS)[number]>;

/** Names that stand for those of what it is put on: they are filled in where it is built. */
export interface Places {
  readonly id: string;
  readonly piece: string;
  readonly sideA: string;
  readonly sideB: string;
  readonly crease: string;
}
const MARKS: readonly (readonly [mark: string, place: Exclude<keyof Places, 'id'>])[] = [
  ['~crease', 'crease'],
  ['~piece', 'piece'],
  ['~sideA', 'sideA'],
  ['~sideB', 'sideB'],
];
const OWN = '~';
/** Stands for the stock of the mechanism's own pieces. */
export const OWN_STOCK = '~stock';

/** Placeholders instead of names. */
export function unnamed(name: string, places: Places): string {
  const own = underOwner(name, places.id, OWN);
  if (own !== null) return own;
  return MARKS.find(([, place]) => places[place] !== '' && places[place] === name)?.[0] ?? name;
}
/** Names instead of placeholders. */
export function named(mark: string, places: Places): string {
  const own = underOwner(mark, OWN, places.id);
  if (own !== null) return own;
  const place = MARKS.find(([m]) => m === mark)?.[1];
  return place ? places[place] : mark;
}

/** Every text in plain data, and what has no value in JSON, put through a change. */
export function changeText(value: unknown, change: (text: string) => string): unknown {
  if (typeof value === 'string') return change(value);
  if (value instanceof Float64Array) return [...value];
  if (Array.isArray(value)) return value.map((v) => (v === undefined ? null : changeText(v, change)));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, v]) => (v === undefined ? [] : [[key, changeText(v, change)]])),
  );
}

type Move = (p: Vec2) => Vec2;
const flat =
  (move: Rigid): Move =>
  ([x, y]) => {
    const [u, v] = applyRigid(move, [x, y, 0]);
    return [u, v];
  };

/** Parts moved with the piece they are on, `onto` from its own axes to others. */
export function movedParts(parts: Parts, piece: string, onto: Rigid): Parts {
  const move = flat(onto);
  const mirrors = onto[10] < 0;
  const back = invert(onto);
  const on = <T extends { readonly piece: string }>(list: readonly T[], change: (part: T) => T): T[] =>
    list.map((part) => (part.piece === piece ? change(part) : part));
  const region = (r: Region): Region => mapRegion(r, move, mirrors);
  const ring = (r: Ring): Ring => (mirrors ? [...r].reverse() : r).map(move);
  const polygon = (p: Polygon): Polygon => region([p])[0];
  const tied = <T extends { readonly a: Carried; readonly b: Carried; readonly placement: Rigid }>(tie: T): T => {
    if (isOn(tie.a, piece)) return { ...tie, placement: compose(onto, tie.placement) };
    return isOn(tie.b, piece) ? { ...tie, placement: compose(tie.placement, back) } : tie;
  };
  return {
    ...parts,
    labels: parts.labels.map((l) => ({ ...l, at: move(l.at) })),
    owned: parts.owned.map((o) => ({ ...o, polygon: polygon(o.polygon) })),
    waste: region(parts.waste),
    claims: region(parts.claims),
    hosts: on(parts.hosts, (h) => movedHost(h, onto)),
    landmarks: on(parts.landmarks, (l) => ({ ...l, at: move(l.at) })),
    pieces: parts.pieces.map((p) => ({
      ...p,
      glue: p.glue.map((g): GlueArea =>
        g.onto.piece === piece ? { ...g, onto: { ...g.onto, outline: ring(g.onto.outline) } } : g,
      ),
    })),
    bonds: parts.bonds.map(tied),
    joints: parts.joints.map((j) => (isOn(j.a, piece) ? movedJoint(tied(j), onto) : tied(j))),
    foam: on(parts.foam, (f) => ({
      ...f,
      region: region(f.region),
      keepOff: region(f.keepOff),
      leftOut: region(f.leftOut),
    })),
    fillers: on(parts.fillers, (f) => ({ ...f, region: region(f.region) })),
  };
}

const isOn = (carried: Carried, piece: string): boolean => 'piece' in carried && carried.piece === piece;

function movedHost(host: Host, onto: Rigid): Host {
  const [x, y] = rotateOnly(onto, [...host.frame.along, 0]);
  return { ...host, frame: { origin: flat(onto)(host.frame.origin), along: [x, y] } };
}

function movedJoint(joint: MovingJoint, onto: Rigid): MovingJoint {
  const point = (p: Vec3): Vec3 => applyRigid(onto, p);
  return {
    ...joint,
    motion: movedMotion(joint.motion, onto),
    span: [point(joint.span[0]), point(joint.span[1])],
    ...(joint.patch ? { patch: joint.patch.map(point) } : {}),
  };
}

const movedMotion = (motion: Motion, onto: Rigid): Motion =>
  motion.kind === 'track'
    ? {
        ...motion,
        start: applyRigid(onto, motion.start),
        heading: rotateOnly(onto, motion.heading),
        normal: rotateOnly(onto, motion.normal),
      }
    : { ...motion, point: applyRigid(onto, motion.point), axis: rotateOnly(onto, motion.axis) };
