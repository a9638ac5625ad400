/** What is derived from a design: pieces, facets, joints. Never saved. */
import type { Bond, Contribution, Host, Landmark } from '../kinds';
import { creaseMotion, compose, identity, invert, Travel, type Joint, type Linkage, type Rigid, applyRigid } from '../linkage';
import { findFacets, type FlatPattern, type Interruption } from '../pattern/facets';
import type { CreaseRole, Piece } from '../pattern/pattern';
import { ringArea, type Polygon, type Region } from '../plane/polygon';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { WELD_MM } from '../tolerance';
import type { Segment } from '../plane/arrangement';

export interface Facet {
  readonly id: string;
  readonly piece: string;
  readonly mechanism: string;
  readonly polygon: Polygon;
  readonly body: number;
  /** Frame of the facet's piece in that of its body. */
  readonly toBody: Rigid;
}

export interface Crease {
  readonly id: string;
  readonly role: CreaseRole;
  readonly mechanism: string;
  readonly piece: string;
  /** Where it has paper on both sides, in the flat piece. */
  readonly segments: readonly Segment[];
  /** Facets by index: b is on the left of its direction. */
  readonly a: number;
  readonly b: number;
  readonly joint: number;
}

/** Something of the design that cannot be made as it stands; found while it is put together. */
export interface Misfit {
  readonly kind: 'missing-facet' | 'idle-crease' | 'loose-part' | 'contradiction' | 'unheld' | 'clash';
  readonly mechanism: string;
  readonly piece: string;
  readonly what: string;
  readonly at: Vec2;
  readonly sizeMm: number;
}

export interface PlacedMechanism {
  readonly id: string;
  readonly kind: string;
  readonly title: string;
  readonly host: Host | null;
  readonly landmarks: readonly Landmark[];
  readonly measures: Contribution['measures'];
}

/** Paper stuck on a facet: a mat or a layer, flat or on foam. */
export interface AttachedLayer {
  readonly id: string;
  readonly title: string;
  readonly mechanism: string;
  /** Index of the facet that carries it, and that facet's piece: the outline is in its axes. */
  readonly facet: number;
  readonly piece: string;
  readonly region: Region;
  readonly stock: string;
  readonly colour?: string;
  readonly foamMm: number;
  readonly foam: Region;
  readonly foamInsetMm: number;
  /** 1 lies on the facet, 2 on that, and so on. */
  readonly order: number;
  /** A second one like it goes under the inside. */
  readonly doubled: boolean;
}

export interface Assembly {
  readonly layers: readonly AttachedLayer[];
  readonly pieces: readonly Piece[];
  readonly interruptions: readonly Interruption[];
  readonly facets: readonly Facet[];
  readonly creases: readonly Crease[];
  readonly bonds: readonly Bond[];
  readonly mechanisms: readonly PlacedMechanism[];
  /** What can be stood on, by crease id. */
  readonly hosts: ReadonlyMap<string, Host>;
  readonly misfits: readonly Misfit[];
  readonly linkage: Linkage;
  readonly travel: Travel;
  /** Bodies that belong to the leaves. */
  readonly leafBodies: ReadonlySet<number>;
}

export interface Parts {
  /** What is stuck on facets, once they are known. */
  readonly attach?: (facets: readonly Facet[]) => readonly AttachedLayer[];
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  readonly interruptions: readonly Interruption[];
  readonly mechanisms: readonly PlacedMechanism[];
  readonly hosts: ReadonlyMap<string, Host>;
  readonly contradictions?: readonly Misfit[];
  /** The crease that the card's opening turns, and the facets it joins; the first lies still. */
  readonly lead: { readonly crease: string; readonly still: string; readonly turning: string };
}

/** Put the parts together: facets by arrangement, bodies by bonds, joints by creases. */
export function assemble(all: Parts): Assembly {
  // Pieces apart are cut and listed only.
  const parts = { ...all, pieces: all.pieces.filter((p) => !p.apart) };
  const flat = new Map(parts.pieces.map((p) => [p.id, findFacets(p, parts.interruptions)]));
  const drafts = parts.pieces.flatMap((piece) => flat.get(piece.id)!.facets.map((f) => ({ ...f, piece })));
  const indexOf = new Map(drafts.map((f, i) => [`${f.piece.id}|${f.id}`, i]));
  const still = drafts.findIndex((f) => f.id === parts.lead.still);
  const { bodyOf, toBody, bodies } = mergeBonded(drafts.length, Math.max(0, still), parts.bonds, indexOf);

  const facets: Facet[] = drafts.map((f, i) => ({
    id: f.id, piece: f.piece.id, polygon: f.polygon, body: bodyOf[i], toBody: toBody[i],
    mechanism: f.mechanism ?? f.piece.mechanism,
  }));
  const { creases, joints } = makeJoints(parts, flat, facets, indexOf);
  const linkage: Linkage = { bodies, joints, range: [Math.PI, 0] };
  return {
    pieces: all.pieces, interruptions: parts.interruptions, bonds: parts.bonds, mechanisms: parts.mechanisms, hosts: parts.hosts,
    layers: parts.attach?.(facets) ?? [],
    facets, creases, linkage, travel: new Travel(linkage),
    misfits: findMisfits(parts, flat, facets, indexOf),
    leafBodies: new Set(facets.filter((f) => f.id === parts.lead.still || f.id === parts.lead.turning).map((f) => f.body)),
  };
}

/** Facets joined by bonds move as one body; body 0 holds the facet that lies still. */
function mergeBonded(count: number, still: number, bonds: readonly Bond[], indexOf: ReadonlyMap<string, number>): { bodyOf: number[]; toBody: Rigid[]; bodies: number } {
  const links: { to: number; placement: Rigid }[][] = Array.from({ length: count }, () => []);
  for (const bond of bonds) {
    const a = indexOf.get(`${bond.a.piece}|${bond.a.facet}`);
    const b = indexOf.get(`${bond.b.piece}|${bond.b.facet}`);
    if (a === undefined || b === undefined) continue;
    links[a].push({ to: b, placement: bond.placement });
    links[b].push({ to: a, placement: invert(bond.placement) });
  }
  const bodyOf = new Array<number>(count).fill(-1);
  const toBody = Array.from({ length: count }, identity);
  let bodies = 0;
  for (const seed of [still, ...Array(count).keys()]) {
    if (count === 0 || bodyOf[seed] >= 0) continue;
    bodyOf[seed] = bodies;
    const queue = [seed];
    for (let h = 0; h < queue.length; h++) {
      for (const { to, placement } of links[queue[h]]) {
        if (bodyOf[to] >= 0) continue;
        bodyOf[to] = bodies;
        toBody[to] = compose(toBody[queue[h]], placement);
        queue.push(to);
      }
    }
    bodies++;
  }
  return { bodyOf, toBody, bodies };
}

/** Collinear stretches of crease between the same two bodies are one joint. */
function makeJoints(parts: Parts, flat: ReadonlyMap<string, FlatPattern>, facets: readonly Facet[], indexOf: ReadonlyMap<string, number>): { creases: Crease[]; joints: Joint[] } {
  const joints: Joint[] = [];
  const creases: Crease[] = [];
  const jointOf = new Map<string, number>();
  const hinges = parts.pieces.flatMap((piece) => flat.get(piece.id)!.hinges.map((hinge) => ({ piece: piece.id, hinge })));
  // The lead turns even where its crease is wholly taken up by what stands on it.
  const leadHost = parts.hosts.get(parts.lead.crease)!;
  const still = indexOf.get(`${leadHost.piece}|${parts.lead.still}`);
  const turning = indexOf.get(`${leadHost.piece}|${parts.lead.turning}`);
  const leadCrease = parts.pieces.flatMap((p) => p.creases).find((c) => c.id === parts.lead.crease)!;
  if (still !== undefined && turning !== undefined && facets[still].body !== facets[turning].body) {
    // Facet b is on the left: the leaf that turns lies on the right of the gutter's own direction.
    addJoint(leadCrease.id, leadCrease.b, leadCrease.a, facets[still], facets[turning], leadCrease);
  }
  for (const { piece, hinge } of hinges) {
    const [a, b] = [base(facets, indexOf, piece, hinge.a, flat), base(facets, indexOf, piece, hinge.b, flat)];
    const joint = facets[a].body === facets[b].body ? -1 : known(hinge.crease.id, facets[a].body, facets[b].body) ?? addJoint(hinge.crease.id, hinge.segments[0].a, hinge.segments[hinge.segments.length - 1].b, facets[a], facets[b], hinge.crease);
    creases.push({ id: hinge.crease.id, role: hinge.crease.role, mechanism: hinge.crease.mechanism, piece, segments: hinge.segments, a, b, joint });
  }
  const follow = new Map<string, number>();
  creases.forEach((c) => c.joint >= 0 && follow.set(c.id, c.joint));
  const standsOn = new Map(parts.pieces.flatMap((p) => p.creases.map((c) => [c.id, c.standsOn] as const)));
  const linked = joints.map((j) => {
    const host = standsOn.get(j.id);
    return host === undefined || host === parts.lead.crease || !follow.has(host) ? j : { ...j, follows: follow.get(host) };
  });
  return { creases, joints: linked };

  function known(id: string, a: number, b: number): number | undefined {
    return jointOf.get(`${id}|${Math.min(a, b)}|${Math.max(a, b)}`);
  }
  function addJoint(id: string, from: Vec2, to: Vec2, a: Facet, b: Facet, crease: Piece['creases'][number]): number {
    const inBody = (p: Vec2): Vec2 => {
      const [x, y] = applyRigid(a.toBody, [p[0], p[1], 0]);
      return [x, y];
    };
    const sheet = creaseMotion(from, to) as Extract<Joint['motion'], { kind: 'turn' }>;
    const axis: readonly [number, number, number] = [
      a.toBody[0] * sheet.axis[0] + a.toBody[1] * sheet.axis[1], a.toBody[4] * sheet.axis[0] + a.toBody[5] * sheet.axis[1], a.toBody[8] * sheet.axis[0] + a.toBody[9] * sheet.axis[1],
    ];
    const [p, r] = [inBody(from), inBody(to)];
    const driven = crease.id === parts.lead.crease || (crease.ends[0] === Math.PI && crease.ends[1] === 0 && crease.mechanism === 'card');
    joints.push({
      id, a: a.body, b: b.body,
      motion: { kind: 'turn', point: applyRigid(a.toBody, [from[0], from[1], 0]), axis },
      placement: sameFrame(a.toBody, b.toBody) ? null : compose(a.toBody, invert(b.toBody)),
      role: crease.role === 'valley' ? 1 : -1,
      ends: crease.ends,
      span: [[p[0], p[1], a.toBody[11]], [r[0], r[1], a.toBody[11]]],
      ...(driven ? { driven: { at: 0, rate: crease.role === 'valley' ? 1 : -1 } } : {}),
    });
    jointOf.set(`${id}|${Math.min(a.body, b.body)}|${Math.max(a.body, b.body)}`, joints.length - 1);
    return joints.length - 1;
  }
}

const sameFrame = (a: Rigid, b: Rigid): boolean => a.every((x, i) => x === b[i]);

const base = (facets: readonly Facet[], indexOf: ReadonlyMap<string, number>, piece: string, local: number, flat: ReadonlyMap<string, FlatPattern>): number =>
  indexOf.get(`${piece}|${flat.get(piece)!.facets[local].id}`)!;

function findMisfits(parts: Parts, flat: ReadonlyMap<string, FlatPattern>, facets: readonly Facet[], indexOf: ReadonlyMap<string, number>): Misfit[] {
  const out: Misfit[] = [...(parts.contradictions ?? [])];
  for (const piece of parts.pieces) {
    const pattern = flat.get(piece.id)!;
    for (const label of piece.labels) {
      if (indexOf.has(`${piece.id}|${label.name}`)) continue;
      out.push({ kind: 'missing-facet', mechanism: label.mechanism, piece: piece.id, what: label.name, at: label.at, sizeMm: 0 });
    }
    for (const { crease, segment } of pattern.idle) {
      // Along an edge or slit nothing is meant to fold; only a crease that ends in air, or runs off the paper, is a fault.
      if (onEdge(piece, segment)) continue;
      const sizeMm = Math.hypot(segment.b[0] - segment.a[0], segment.b[1] - segment.a[1]);
      out.push({ kind: 'idle-crease', mechanism: crease.mechanism, piece: piece.id, what: crease.id, at: segment.a, sizeMm });
    }
    out.push(...looseParts(piece, pattern, parts.bonds));
  }
  return out;
}

const onEdge = (piece: Piece, { a, b }: Segment): boolean => {
  const mid: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const ring = piece.outline.outer;
  return ring.some((p, i) => distToSegment(mid, p, ring[(i + 1) % ring.length]) < 10 * WELD_MM);
};

/** Groups of facets that nothing ties to the rest of their piece. */
function looseParts(piece: Piece, pattern: FlatPattern, bonds: readonly Bond[]): Misfit[] {
  const group = pattern.facets.map((_, i) => i);
  const find = (i: number): number => (group[i] === i ? i : (group[i] = find(group[i])));
  for (const h of pattern.hinges) group[find(h.a)] = find(h.b);
  const held = (i: number): boolean => bonds.some((b) => [b.a, b.b].some((s) => s.piece === piece.id && s.facet === pattern.facets[i].id));
  const groups = new Map<number, number[]>();
  pattern.facets.forEach((_, i) => groups.set(find(i), [...(groups.get(find(i)) ?? []), i]));
  const all = [...groups.values()];
  const area = (g: number[]): number => g.reduce((s, i) => s + Math.abs(ringArea(pattern.facets[i].polygon.outer)), 0);
  const main = all.reduce<number[]>((best, g) => (area(g) > area(best) ? g : best), all[0] ?? []);
  return all.filter((g) => g !== main && !g.some(held)).map((g): Misfit => {
    const facet = pattern.facets[g[0]];
    return { kind: 'loose-part', mechanism: piece.labels.find((l) => l.name === facet.id)?.mechanism ?? piece.mechanism, piece: piece.id, what: facet.id, at: facet.polygon.outer[0], sizeMm: Math.sqrt(area(g)) };
  });
}
