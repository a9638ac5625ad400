/** `glue-room`: glue areas are wide enough, lie on one facet, keep off creases and cuts, and do not lock the drive. */
import { CLOSED } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { adhesive } from '../paper/adhesives';
import { creaseStretches } from '../pattern/facets';
import type { GlueArea, Piece } from '../pattern/pattern';
import { edgesGap, edgesOf, type Edge } from '../plane/gap';
import { intersect, offset, regionArea, ringArea, subtract, type Region, type Ring } from '../plane/polygon';
import { AREA_ROUNDING, WELD_MM } from '../tolerance';
import type { Turn } from '../kinds';
import { gluedToMoving } from './glued-to-moving';
import { bearsLoad } from './loads';
import { shutOutline } from './shut';
import { basePiece, finding, leversOf, turnsOf, type Draft, type Evidence, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

/** Common practice, no source. */
export const LEAST_SET_BACK_MM = 1;
const leastWide = ({ adhesive: by = 'wet' }: GlueArea): number => adhesive(by).leastWideMm;

const regionOf = (ring: Ring): Region => [{ outer: ringArea(ring) > 0 ? ring : [...ring].reverse(), holes: [] }];
/** Whether a disc of a width fits. */
const holdsDisc = (ring: Ring, widthMm: number): boolean => offset(regionOf(ring), -widthMm / 2).length > 0;
/** Width of the widest disc that fits, mm. */
export function widthOf(ring: Ring): number {
  const region = regionOf(ring);
  let [wide, gone] = [0, Math.sqrt(Math.abs(ringArea(ring))) + 1];
  for (let k = 0; k < 24; k++) {
    const r = (wide + gone) / 2;
    if (offset(region, -r).length > 0) wide = r;
    else gone = r;
  }
  return 2 * wide;
}

/** Distance from a glue area to the nearest crease or cut of the piece it is stuck to, mm. */
function setBack(piece: Piece, assembly: Assembly, area: Ring): number {
  const lines = [
    ...piece.lines.filter((l) => l.role === 'cut').map((l): Edge => [l.a, l.b]),
    ...piece.creases.flatMap((c) => creaseStretches(c, assembly.interruptions).map((s): Edge => [s.a, s.b])),
  ];
  return edgesGap(edgesOf([{ outer: area, holes: [] }]), lines);
}

function checkArea(evidence: Evidence, carrier: Piece, glue: GlueArea): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  const out: Finding[] = [];
  const add = (
    draft: Pick<Draft, 'severity' | 'measured' | 'limit' | 'unit' | 'aspect' | 'message'>,
    ...turns: Turn[]
  ): void => {
    out.push(
      finding({
        ...draft,
        rule: 'glue-room',
        mechanism: glue.mechanism,
        piece: carrier.id,
        aspect: `${glue.id} ${draft.aspect}`,
        message: `${say.title(glue.mechanism)}: ${say.part(glue.id)} ${draft.message}`,
        subjects: [glue.id, glue.facet],
        levers: turnsOf(assembly, glue.mechanism, ...turns),
      }),
    );
  };
  if (glue.adhesive === 'tape' && bearsLoad(assembly, carrier)) {
    const message = 'is stuck with tape and bears a load: it lets go in time. Use strong tape or wet glue.';
    add({ severity: 'risk', measured: glue.thickMm ?? 0, aspect: 'tape', message });
  }
  // How wide it is, is only looked for where it is too narrow.
  const limit = leastWide(glue);
  const width = holdsDisc(glue.outline, limit - WELD_MM) ? Infinity : widthOf(glue.outline);
  if (width < limit - WELD_MM) {
    const tape = adhesive('strong-tape').leastWideMm;
    const instead = limit > tape && width >= tape - WELD_MM ? `, strong tape from ${say.mm(tape)}` : '';
    const message = `is ${say.mm(width)} wide; it holds from ${say.mm(limit)}${instead}.`;
    add({ severity: 'risk', measured: width, limit, aspect: 'width', message }, 'tabs');
  }
  const base = assembly.pieces.find((p) => p.id === glue.onto.piece)!;
  const facet = assembly.facets.find((f) => f.id === glue.onto.facet && f.piece === glue.onto.piece);
  if (!facet) return out;
  const ring = ringArea(glue.onto.outline) > 0 ? glue.onto.outline : [...glue.onto.outline].reverse();
  const size = Math.abs(ringArea(ring));
  const off = size - regionArea(intersect([{ outer: ring, holes: [] }], [facet.polygon]));
  if (off > AREA_ROUNDING * size + 1e-3) {
    const message = `does not lie on one facet: ${say.mm2(off)} of it miss ${say.partOf(facet.id)}.`;
    add(
      { severity: 'blocks', measured: off, unit: 'mm2', aspect: 'facet', message },
      'away',
      'along',
      'tabs',
      'relief',
    );
    return out;
  }
  const stuck = evidence.closed && gluedToMoving(evidence, evidence.closed, carrier, glue);
  if (stuck) {
    const [moving, meant] = [stuck.moving, stuck.meant].map((k) => say.partOf(assembly.facets[k].id));
    const message = `would stick to ${moving}, which moves over ${meant}: ${say.mm2(stuck.areaMm2)} of it lie there.`;
    add(
      { severity: 'blocks', measured: stuck.areaMm2, unit: 'mm2', aspect: 'moving', message },
      'along',
      'away',
      'place',
    );
  }
  const room = setBack(base, assembly, ring);
  if (room < LEAST_SET_BACK_MM - WELD_MM) {
    const limit = LEAST_SET_BACK_MM;
    const message = `comes within ${say.mm(room)} of a crease or cut; adhesive keeps ${say.mm(limit)} off.`;
    add({ severity: 'risk', measured: room, limit, aspect: 'set-back', message }, 'relief', 'along', 'away', 'tabs');
  }
  return out;
}

/** Less than this past its facet is rounding, mm². */
const PAST_FROM_MM2 = 1;

/** Layers that reach past what carries them and lie over something that moves against it: stuck to their own only. */
function pastItsFacet(evidence: Evidence): Finding[] {
  const { assembly, closed } = evidence;
  if (!closed) return [];
  const say = wordsFor(evidence);
  return assembly.layers.flatMap((layer): Finding[] => {
    const { facet, glue, id } = layer;
    const own = assembly.facets[facet];
    const past = subtract(glue, [own.polygon]);
    if (regionArea(past) <= PAST_FROM_MM2) return [];
    const there = past.map((p) => shutOutline(closed, facet, p));
    const areaOver = (k: number): number =>
      regionArea(intersect(there, [shutOutline(closed, k, assembly.facets[k].polygon)]));
    const over = assembly.facets
      .map((f, k) => ({ f, mm2: f.body === own.body ? 0 : areaOver(k) }))
      .reduce((most, o) => (o.mm2 > most.mm2 ? o : most));
    if (over.mm2 <= PAST_FROM_MM2) return [];
    return [
      finding({
        rule: 'glue-room',
        severity: 'note',
        mechanism: layer.mechanism,
        piece: layer.piece,
        measured: over.mm2,
        unit: 'mm2',
        at: CLOSED,
        aspect: `${id} past`,
        message:
          `${layer.title} reaches past ${say.partOf(own.id)}, over ${say.partOf(over.f.id)} when shut: ` +
          `stick it to ${say.partOf(own.id)} only.`,
        subjects: [id, own.id, over.f.id],
        levers: leversOf(id, 'onFacet', 'trimmed'),
      }),
    ];
  });
}

export const glueRoom: Rule = {
  id: 'glue-room',
  needs: 'closed',
  check: (evidence) => {
    const { assembly } = evidence;
    const out = assembly.pieces.flatMap((p) => p.glue.flatMap((g) => checkArea(evidence, p, g)));
    out.push(...pastItsFacet(evidence));
    if (assembly.leafBodies.size === 1 && assembly.bonds.length > 0)
      out.push(
        finding({
          rule: 'glue-room',
          severity: 'blocks',
          mechanism: assembly.base.mechanism,
          piece: basePiece(assembly).id,
          measured: assembly.bonds.length,
          unit: 'count',
          at: CLOSED,
          aspect: 'locked',
          message: 'Glue ties the two leaves to each other: the card cannot open.',
          subjects: assembly.bonds.map((b) => b.id),
        }),
      );
    return out;
  },
};
