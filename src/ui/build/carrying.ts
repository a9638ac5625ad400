/** A whole mechanism moved: along its crease, over its facet, onto another crease or facet; or a copy of it. */
import { faceMounting, KINDS } from '@/core/kinds';
import { parametersOf } from '@/core/document/fields';
import { freeId, standingOn } from '@/core/document/standing';
import { CENTRE, type Design, type Mechanism } from '@/core/document/design';
import { ownerOfId } from '@/core/ids';
import { dot2, sub2, type Vec2 } from '@/core/plane/vec2';
import type { Scene, SceneHost } from '@/workers/protocol';

/** Where a hand has carried something, in the axes of the piece there. */
export interface Carry {
  readonly id: string;
  /** Piece whose axes these are. */
  readonly piece: string;
  /** How far the hand has gone from where it took hold. */
  readonly by: Vec2;
  /** Crease or facet under it, where that is another. */
  readonly onto: string | null;
  readonly at: Vec2;
  readonly copy: boolean;
}

const OFFSET = 'offset';
/** Places rest on half millimetres. */
const tidy = (mm: number): number => Math.round(mm * 2) / 2 + 0;

export const canBeCarried = (m: Mechanism): boolean =>
  m.mount !== undefined || parametersOf(m.kind).some((p) => p.key === OFFSET);

/** The design with a mechanism where it was carried; a copy leaves the first where it is. */
export function carried(design: Design, scene: Scene, carry: Carry): Design {
  const m = design.mechanisms.find((x) => x.id === carry.id);
  if (!m) return design;
  const moved = carry.onto === null ? movedBy(scene, m, carry) : putOnto(scene, m, carry.onto, carry.at);
  if (!moved) return design;
  if (carry.copy) {
    const copy = { ...moved, id: freeId(design, m.kind) };
    return { ...design, mechanisms: [...design.mechanisms, copy] };
  }
  return { ...design, mechanisms: design.mechanisms.map((x) => (x === m ? moved : x)) };
}

/** Pieces of its own are drawn in the axes of what carries them. */
function movedBy(scene: Scene, m: Mechanism, { by, piece }: Carry): Mechanism | null {
  if (m.mount) {
    const face = scene.axes[m.id];
    if (!face) return null;
    const [x, y] = face.piece === piece ? [dot2(by, face.right), dot2(by, face.up)] : by;
    return { ...m, mount: { ...m.mount, x: tidy(m.mount.x + x), y: tidy(m.mount.y + y) } };
  }
  const host = scene.hosts.find((h) => h.crease === m.on);
  return host ? withOffset(m, offsetOf(m) + (host.piece === piece ? dot2(by, host.along) : by[0])) : null;
}

/** On another crease, its middle under the hand; on another facet, in its middle. */
function putOnto(scene: Scene, m: Mechanism, onto: string, at: Vec2): Mechanism | null {
  const host = scene.hosts.find((h) => h.crease === onto);
  if (host && KINDS.get(m.kind)?.mount === 'crease') {
    const { mount: _, ...plain } = m;
    return withOffset({ ...plain, on: onto }, alongOf(host, at));
  }
  if (host || !faceMounting(KINDS.get(m.kind)) || !m.mount) return null;
  return { ...m, on: onto, mount: { ...CENTRE, ...m.mount, x: 0, y: 0 } };
}

const offsetOf = (m: Mechanism): number => (typeof m.parameters[OFFSET] === 'number' ? m.parameters[OFFSET] : 0);
const withOffset = (m: Mechanism, offset: number): Mechanism =>
  parametersOf(m.kind).some((p) => p.key === OFFSET)
    ? { ...m, parameters: { ...m.parameters, [OFFSET]: tidy(offset) } }
    : m;
const alongOf = (host: SceneHost, at: Vec2): number => dot2(sub2(at, host.origin), host.along);

/** Where it may go: not onto itself, nor onto what stands on it. */
export const mayGoOnto = (design: Design, id: string, onto: string): boolean => {
  const m = design.mechanisms.find((x) => x.id === id);
  return m !== undefined && onto !== m.on && !standingOn(design, id).includes(ownerOfId(onto));
};
