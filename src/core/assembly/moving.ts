/** What is moved by hand, as drives and joints of the linkage. */
import { fromJoint, OPEN, toJoint, type Drive } from '../drives';
import type { Carried, MovingJoint } from '../kinds';
import {
  applyRigid,
  compose,
  contactOf,
  identity,
  invert,
  OPENING_RANGE,
  rotateOnly,
  type DriveRange,
  type Joint,
  type Linkage,
  type Motion,
  type Rigid,
  type Vec3,
} from '../linkage';
import type { Facet } from './parts';

/** A drive in the unit of its joints, from where it is at rest; what follows it lies flat there. */
export function rangeOf(drive: Drive): DriveRange {
  const [from, to, rest] = [drive.from, drive.to, drive.rest].map((v) => toJoint(drive, v));
  // Opened flat the gutter has no fold.
  if (drive.id === OPEN) return { ...OPENING_RANGE, range: [from, to], rest };
  return { range: [from, to], rest, flat: rest };
}

/** Drives that end where a joint meets its stop, with that as their end. */
export function untilContact(
  linkage: Linkage,
  drives: readonly Drive[],
): { linkage: Linkage; drives: readonly Drive[] } {
  const cut = drives.map((drive, k): Drive => {
    const joint = drive.until === undefined ? -1 : linkage.joints.findIndex((j) => j.id === drive.until);
    const value = joint < 0 ? null : contactOf(linkage, k, joint);
    return value === null ? drive : { ...drive, to: fromJoint(drive, value) };
  });
  return { linkage: { ...linkage, drives: cut.map(rangeOf) }, drives: cut };
}

/**
 * Joints between the bodies of what they name; those between facets of one body move nothing. Carriages are bodies
 * after those of the facets.
 * @param bodies how many the facets have
 * @returns bodies in all
 */
export function movingJoints(
  moving: readonly MovingJoint[],
  drives: readonly Drive[],
  facets: readonly Facet[],
  indexOf: ReadonlyMap<string, number>,
  bodies: number,
): { joints: Joint[]; bodies: number } {
  const carriages = new Map<string, number>();
  const partAt = (part: Carried): Pick<Facet, 'body' | 'toBody'> | undefined => {
    if ('carriage' in part) {
      const body = carriages.get(part.carriage) ?? bodies + carriages.size;
      carriages.set(part.carriage, body);
      return { body, toBody: identity() };
    }
    const i = indexOf.get(`${part.piece}|${part.facet}`);
    return i === undefined ? undefined : facets[i];
  };
  const joints = moving.flatMap((m): Joint[] => {
    const [a, b] = [partAt(m.a), partAt(m.b)];
    if (!a || !b || a.body === b.body) return [];
    const drive = drives.findIndex((d) => d.id === m.driven?.drive);
    return [
      {
        id: m.id,
        a: a.body,
        b: b.body,
        motion: carriedBy(a.toBody, m.motion),
        placement: compose(compose(a.toBody, m.placement), invert(b.toBody)),
        role: m.role,
        ends: m.ends,
        span: [applyRigid(a.toBody, m.span[0]), applyRigid(a.toBody, m.span[1])],
        ...(m.patch ? { patch: m.patch.map((p) => applyRigid(a.toBody, p)) } : {}),
        ...(m.driven ? { driven: { ...m.driven, drive } } : {}),
      },
    ];
  });
  return { joints, bodies: bodies + carriages.size };
}

function carriedBy(frame: Rigid, motion: Motion): Motion {
  const at = (p: Vec3): Vec3 => applyRigid(frame, p);
  const turned = (v: Vec3): Vec3 => rotateOnly(frame, v);
  return motion.kind === 'track'
    ? { ...motion, start: at(motion.start), heading: turned(motion.heading), normal: turned(motion.normal) }
    : { ...motion, point: at(motion.point), axis: turned(motion.axis) };
}
