/** What is derived from a design: pieces, facets, joints. Never saved. */
import { OPENING, type Drive } from '../drives';
import { tiedBodies, Travel } from '../linkage';
import { findFacets } from '../pattern/facets';
import { mergeBonded } from './bonding';
import { findMisfits } from './find-misfits';
import { makeJoints } from './joints';
import { movingJoints, rangeOf, untilContact } from './moving';
import type { Assembly, AttachedLayer, Facet, LaidOut, Parts } from './parts';

export type { Misfit } from './misfit';
export type { Assembly, AttachedLayer, BaseOf, Crease, Facet, LaidOut, Parts, PlacedMechanism } from './parts';

/** Facets by arrangement, bodies by bonds. Pieces apart are cut and listed only. */
export function layOut(all: Parts): LaidOut {
  const parts = { ...all, pieces: all.pieces.filter((p) => !p.apart) };
  const flat = new Map(parts.pieces.map((p) => [p.id, findFacets(p, parts.interruptions)]));
  const drafts = parts.pieces.flatMap((piece) => flat.get(piece.id)!.facets.map((f) => ({ ...f, piece })));
  const indexOf = new Map(drafts.map((f, i) => [`${f.piece.id}|${f.id}`, i]));
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
  }));
  return { parts: all, facets, flat, indexOf, bodies };
}

const onCover = ({ still, turning, covers = [] }: Parts['lead'], facet: string): boolean =>
  facet === still || facet === turning || covers.includes(facet);

/** Put the parts together: joints by creases, and what is stuck on the facets. */
export function assemble(laid: LaidOut, layers: readonly AttachedLayer[] = []): Assembly {
  const { parts: all, facets, flat, indexOf, bodies } = laid;
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
  return {
    base: all.base,
    lead: all.lead,
    pieces: all.pieces,
    interruptions: parts.interruptions,
    bonds: parts.bonds,
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
    tiedBodies: tiedBodies(linkage),
    leafBodies: new Set(facets.filter((f) => onCover(parts.lead, f.id)).map((f) => f.body)),
  };
}
