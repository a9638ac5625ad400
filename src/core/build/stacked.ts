/**
 * What lies over one face at one height and in one place: two sheets, or a sheet and another's foam, that belong to
 * different mechanisms and cannot both be there. Sheets that move are looked at by `collision`. mm.
 */
import type { Misfit } from '../assembly/misfit';
import type { LaidOut, PlacedMechanism } from '../assembly/assembly';
import { compose, invert, rotateOnly, type Rigid } from '../linkage';
import { insidePoint, intersect, mapRegion, regionArea, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { CLASH_FROM_MM2 } from '../tolerance';

/** Sheets that lap by less than this in height only touch. */
const TOUCHES_MM = 0.02;

/** Paper or foam on a body: where its lower and upper face lie over the middle of the facet it is drawn on. */
interface Slab {
  readonly facet: number;
  readonly region: Region;
  readonly low: number;
  readonly high: number;
}

export function stackClashes(
  laid: LaidOut,
  mechanisms: readonly PlacedMechanism[],
  caliperOf: (piece: string) => number,
): Misfit[] {
  const faces = new Map(mechanisms.flatMap((m) => (m.face ? [[m.id, m.face] as const] : [])));
  const { facets, parts } = laid;
  const cutWith = new Set(parts.pieces.flatMap((p) => (p.cutWith ? [p.id] : [])));
  const sheets = facets.flatMap((f, facet): Slab[] => {
    if (!faces.has(f.mechanism) || cutWith.has(f.piece)) return [];
    const half = caliperOf(f.piece) / 2;
    return [{ facet, region: [f.polygon], low: -half, high: half }];
  });
  const pads = (parts.foam ?? []).flatMap((pad): Slab[] => {
    const facet = facets.findIndex((f) => f.piece === pad.piece && f.id === pad.facet);
    const half = facet < 0 ? 0 : caliperOf(pad.piece) / 2;
    return facet < 0 ? [] : [{ facet, region: pad.region, low: half, high: half + pad.thickMm }];
  });
  const found = new Map<string, Misfit>();
  for (const a of [...sheets, ...pads])
    for (const b of sheets) {
      const [p, q] = [facets[a.facet], facets[b.facet]];
      if (p.mechanism === q.mechanism || p.body !== q.body) continue;
      if (!sameFace(faces.get(p.mechanism)!, faces.get(q.mechanism)!)) continue;
      const key = [p.mechanism, q.mechanism].sort().join('|');
      const areaMm2 = found.has(key) ? 0 : sharedMm2(a, b, compose(invert(p.toBody), q.toBody));
      if (areaMm2 < CLASH_FROM_MM2) continue;
      // Whichever comes later in the design is told to move.
      const order = mechanisms.map((m) => m.id);
      const [first, second] = order.indexOf(p.mechanism) < order.indexOf(q.mechanism) ? [p, q] : [q, p];
      const at = insidePoint(second.polygon);
      const what = { kind: 'clash', mechanism: second.mechanism, piece: second.piece, what: first.mechanism } as const;
      found.set(key, { ...what, at, sizeMm: Math.sqrt(areaMm2), areaMm2 });
    }
  return [...found.values()];
}

type Face = NonNullable<PlacedMechanism['face']>;
const sameFace = (a: Face, b: Face): boolean => a.facet === b.facet && a.side === b.side;

/** Area that two slabs share where they are at one height; `between` takes b's axes to a's. */
function sharedMm2(a: Slab, b: Slab, between: Rigid): number {
  const up = rotateOnly(between, [0, 0, 1])[2];
  if (Math.abs(up) < 1 - 1e-9) return 0;
  const [low, high] = [between[11] + b.low, between[11] + b.high];
  if (Math.min(a.high, high) - Math.max(a.low, low) < TOUCHES_MM) return 0;
  const there = mapRegion(
    b.region,
    ([x, y]): Vec2 => [between[0] * x + between[1] * y + between[3], between[4] * x + between[5] * y + between[7]],
    up < 0,
  );
  return regionArea(intersect(a.region, there));
}
