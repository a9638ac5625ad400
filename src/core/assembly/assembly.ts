/** What is derived from a design: pieces, facets, joints. Never saved. */
import { OPENING, type Drive } from '../drives';
import { tiedBodies, Travel } from '../linkage';
import { findFacets } from '../pattern/facets';
import { mergeBonded } from './bonding';
import { findMisfits } from './find-misfits';
import { bentStrips, middleStrip, tiedBends } from './bends';
import { makeJoints } from './joints';
import { movingJoints, rangeOf, untilContact } from './moving';
import type { Assembly, AttachedLayer, Facet, LaidOut, Parts } from './parts';

export type { Misfit } from './misfit';
export type { Assembly, AttachedLayer, BaseOf, Crease, Facet, LaidOut, Parts, PlacedMechanism } from './parts';

/** Facets by arrangement, bodies by bonds. Pieces apart are cut and listed only. */
export function layOut(all: Parts): LaidOut {
  const parts = { ...all, pieces: all.pieces.filter((p) => !p.apart) };
  const flat = new Map(parts.pieces.map((p) => [p.id, findFacets(p, parts.interruptions)]));
  const bends = parts.bends ?? [];
  const drafts = parts.pieces.flatMap((piece) =>
    flat.get(piece.id)!.facets.flatMap((f) => bentStrips(bends, piece, f).map((part) => ({ ...part, piece }))),
  );
  const indexOf = new Map(drafts.map((f, i) => [`${f.piece.id}|${f.id}`, i]));
  // What bends is known by its own name too: that of the strip in its middle.
  for (const { id, piece, facet } of bends) indexOf.set(`${piece}|${facet}`, middleStrip(drafts, id));
  const still = drafts.findIndex((f) => f.id === parts.lead.still);
  const bodies = mergeBonded(drafts, Math.max(0, still), parts.bonds, indexOf);
  const facets = drafts.map((f, i): Facet => ({
    id: f.id,
    piece: f.piece.id,
    polygon: f.polygon,
    body: bodies.bodyOf[i],
    toBody: bodies.toBody[i],
    mechanism: f.mechanism ?? f.piece.mechanism,
    levelMm: f.piece.levelMm ?? 0,
    ...(f.bent ? { bent: f.bent } : {}),
  }));
  return { parts: all, facets, flat, indexOf, bodies };
}

/** The same parts glued a little otherwise: facets stay, where they lie in their bodies does not. */
export function glued(laid: LaidOut, bonds: Parts['bonds']): LaidOut {
  const still = laid.facets.findIndex((f) => f.id === laid.parts.lead.still);
  const bodies = mergeBonded(laid.facets, Math.max(0, still), bonds, laid.indexOf);
  return {
    ...laid,
    parts: { ...laid.parts, bonds },
    facets: laid.facets.map((f, i) => ({ ...f, body: bodies.bodyOf[i], toBody: bodies.toBody[i] })),
    bodies,
  };
}

const onCover = ({ still, turning, covers = [] }: Parts['lead'], facet: string): boolean =>
  facet === still || facet === turning || covers.includes(facet);

/** Creases, and the linkage that they make with what is moved by hand. */
export function linked({ parts: all, facets, flat, indexOf, bodies }: LaidOut) {
  const parts = { ...all, pieces: all.pieces.filter((p) => !p.apart) };
  const asked: readonly Drive[] = [{ ...OPENING, ...parts.opening }, ...(parts.drives ?? [])];
  const { creases, joints: folding } = makeJoints(parts, flat, facets, indexOf);
  const moving = movingJoints(parts.moving ?? [], asked, facets, indexOf, bodies.count);
  const { linkage, drives } = untilContact(
    {
      bodies: moving.bodies,
      joints: [...folding, ...moving.joints],
      drives: asked.map(rangeOf),
    },
    asked,
  );
  return { parts, creases, linkage, drives };
}

/** Put the parts together: joints by creases, and what is stuck on the facets. */
export function assemble(laid: LaidOut, layers: readonly AttachedLayer[] = []): Assembly {
  const { parts: all, facets, flat, indexOf, bodies } = laid;
  const { parts, creases, linkage, drives } = linked(laid);
  return {
    base: all.base,
    lead: all.lead,
    pieces: all.pieces,
    interruptions: parts.interruptions,
    bonds: parts.bonds,
    bends: parts.bends ?? [],
    mechanisms: parts.mechanisms,
    foam: parts.foam ?? [],
    fillers: parts.fillers ?? [],
    hardware: parts.hardware ?? [],
    hosts: parts.hosts,
    layers,
    facets,
    creases,
    linkage,
    travel: new Travel(linkage),
    misfits: [...findMisfits(parts, flat, indexOf), ...bodies.contradictions],
    drives,
    tiedBodies: tiedBends(facets, tiedBodies(linkage)),
    leafBodies: new Set(facets.filter((f) => onCover(parts.lead, f.id)).map((f) => f.body)),
  };
}
