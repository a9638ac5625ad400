/**
 * `loose-part`: nothing that should stay falls out when cut, every crease has paper on both sides, and what a
 * mechanism is cut from is there.
 */
import type { Misfit } from '../assembly/misfit';
import { matOfId, ownerOfId } from '../ids';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import { insidePoint, polygonArea, unite, type Polygon, type Region } from '../plane/polygon';
import { looseParts } from '../shapes/ties';
import { finding, turnsOf, type Cause, type Evidence, type Finding, type Rule } from './rule';
import { wordsFor, type Words } from './words';

export const loosePart: Rule = {
  id: 'loose-part',
  needs: 'pattern',
  check: (evidence) => {
    const { misfits } = evidence.assembly;
    const say = wordsFor(evidence);
    // What is on the same paper as another, off the paper, or held by nothing breaks its own cuts: said first and once.
    const broken = new Set<string>();
    for (const { kind, mechanism, what } of misfits) {
      if (kind === 'clash') broken.add(mechanism).add(what).add(evidence.assembly.base.mechanism);
      if (kind === 'unheld' || kind === 'off-paper') broken.add(mechanism);
    }
    const missing = new Set(misfits.filter((m) => m.kind === 'missing-facet').map((m) => m.mechanism));
    const out = new Map<string, Finding>();
    for (const m of misfits) {
      const cause = m.kind === 'hanging' ? ownerOfId(m.what) : m.mechanism;
      const said = firstSaid(m, say) ?? (broken.has(cause) ? null : laterSaid(m, say, missing));
      if (!said) continue;
      const found = madeOf(evidence.assembly, m, said);
      if (!out.has(found.id)) out.set(found.id, found);
    }
    return [...out.values(), ...evidence.assembly.layers.flatMap((layer) => ofLayer(evidence, layer))];
  },
};

/** What is cut to be stuck on: islands of it that would have to be laid by eye, and how many parts it falls into. */
function ofLayer(evidence: Evidence, layer: AttachedLayer): Finding[] {
  const { id, title, region, mechanism, piece, facet } = layer;
  const say = wordsFor(evidence);
  const islands = looseParts(region);
  const of = (draft: Pick<Finding, 'severity' | 'measured' | 'unit' | 'aspect' | 'message'>): Finding =>
    finding({
      ...draft,
      rule: 'loose-part',
      mechanism,
      piece,
      subjects: [id, evidence.assembly.facets[facet].id],
    });
  const parts = partsApart(region);
  return [
    ...(layer.glue.length > 0
      ? []
      : [
          of({
            ...{ severity: 'blocks', measured: 0, unit: 'mm2', aspect: `${id} glue` },
            message: `${title} is stuck by nothing: no part of it is left for adhesive.`,
          }),
        ]),
    ...islands.map((island, k) => {
      const areaMm2 = polygonArea(island);
      return of({
        ...{ severity: 'blocks', measured: areaMm2, unit: 'mm2', aspect: `${id} island ${k + 1}` },
        message:
          `${title}: ${say.mm2(areaMm2)} of it near ${say.place(insidePoint(island))} hang on nothing and fall out ` +
          `when it is cut; bridge them in the shape's workshop, or take them away.`,
      });
    }),
    // A mat was meant to be one; letters that stand apart are stuck on one by one.
    ...(parts > 1
      ? [
          of({
            ...{ severity: matOfId(id) ? 'risk' : 'note', measured: parts, unit: 'count', aspect: `${id} parts` },
            message: `${title} falls into ${parts} parts when it is cut; each is laid by itself.`,
          }),
        ]
      : []),
  ];
}

/** Parts that lie side by side, islands not counted: they are found by themselves. */
const partsApart = (region: Region): number => unite(region.map(({ outer }): Polygon => ({ outer, holes: [] }))).length;

interface Said {
  readonly aspect: string;
  readonly cause?: Cause;
  readonly message: string;
  readonly severity?: Finding['severity'];
}

function madeOf(assembly: Assembly, m: Misfit, { aspect, cause, message, severity = 'blocks' }: Said): Finding {
  return finding({
    rule: 'loose-part',
    severity,
    mechanism: m.mechanism,
    piece: m.piece,
    measured: m.areaMm2 ?? m.sizeMm,
    unit: m.areaMm2 === undefined ? 'mm' : 'mm2',
    aspect,
    ...(cause ? { cause } : {}),
    message,
    subjects: m.kind === 'unheld' || m.kind === 'off-paper' ? [m.mechanism] : [m.what],
    levers: turnsOf(assembly, m.mechanism, 'place', 'away', 'along', 'closing', 'strength', 'tabs'),
  });
}

function firstSaid(m: Misfit, say: Words): Said | null {
  const title = say.title(m.mechanism);
  switch (m.kind) {
    case 'unheld':
      return { aspect: `unheld ${m.key ?? m.what}`, cause: { of: 'unheld' }, message: `${title}: ${m.what}.` };
    case 'clash': {
      const paper = `${title} and ${say.title(m.what)} are cut from the same paper (${say.mm2(m.areaMm2!)} of it)`;
      return {
        aspect: `clash ${m.what}`,
        cause: { of: 'beside', mechanism: m.what },
        message: `${paper}; move one along, or stand it on the other.`,
      };
    }
    case 'off-paper': {
      const where = `${say.mm(m.sizeMm)} past the edge near ${say.place(m.at)}`;
      const lacks = `${title} runs off its paper: ${say.mm2(m.areaMm2!)} of it are missing, up to ${where}`;
      return { aspect: 'off-paper', message: `${lacks}.` };
    }
    case 'nowhere':
      return {
        aspect: `nowhere ${m.key ?? m.what}`,
        severity: 'risk',
        message: `${m.what}, which this card does not have. It is kept, but shows nowhere: move it, or take it out.`,
      };
    default:
      return null;
  }
}

function laterSaid(m: Misfit, say: Words, missing: ReadonlySet<string>): Said | null {
  const title = say.title(m.mechanism);
  const name = /facet-\d+$/.test(m.what) ? `a part near ${say.place(m.at)}` : `its ${say.part(m.what)}`;
  switch (m.kind) {
    case 'loose-part':
      return {
        aspect: m.what,
        message: `${title}: ${name} falls out when cut; nothing ties it to the rest of the piece.`,
      };
    case 'missing-facet':
      return {
        aspect: m.what,
        message: `${title}: ${name} has no paper to be cut from; it lies off the piece or on top of another cut.`,
      };
    case 'idle-crease':
      // A missing facet leaves its creases idle too: once is enough.
      if (missing.has(m.mechanism)) return null;
      return {
        aspect: m.what,
        message: `${title}: ${say.mm(m.sizeMm)} of ${name} has paper on one side only, or ends in air.`,
      };
    case 'hanging': {
      const paper = `${say.mm2(m.areaMm2!)} of paper near ${say.place(m.at)}`;
      return {
        aspect: `hanging ${m.what}`,
        severity: 'risk',
        message: `${title}: ${paper} hang on ${say.partOf(m.what)} alone and fold with nothing; cut it away or tie it.`,
      };
    }
    default:
      return null;
  }
}
