/** `overhang`: closed, nothing reaches past the leaves' outline. */
import { CLOSED } from '../drives';
import { onFacet, poseAt, type Pose } from '../assembly/pose';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import type { Turn } from '../kinds';
import type { Vec3 } from '../linkage';
import { preparePolygon } from '../plane/prepared';
import { regionArea, unite } from '../plane/polygon';
import { OVERHANG_FROM_MM, SIZE_ROUNDING_MM } from '../tolerance';
import { MEANT, ownerOfId, POST } from '../ids';
import {
  baseExtent,
  coverFacets,
  finding,
  isBase,
  leversOf,
  turnsOf,
  type Evidence,
  type Lever,
  type Rule,
} from './rule';
import { shutOutline } from './shut';
import { wordsFor } from './words';

export const SIDES = ['head', 'foot', 'fore', 'spine'] as const;
export type Side = (typeof SIDES)[number];
export type Overhang = Record<Side, number>;

/**
 * Mm past each side at the closed pose, never below 0, for the facets that `wanted` picks. Head is the high end along
 * the gutter.
 */
export function overhangOf(
  assembly: Assembly,
  closed: Pose,
  wanted: (mechanism: string) => boolean = () => true,
  past = pastOutline(assembly),
): Overhang {
  const facets = assembly.facets.flatMap((f, i) =>
    wanted(f.mechanism) ? f.polygon.outer.map((p) => onFacet(closed, i, p)) : [],
  );
  const layers = assembly.layers.filter((l) => wanted(l.mechanism)).flatMap((l) => onLayer(closed, l));
  return greatest(past, [...facets, ...layers]);
}

/** What reaches past the box round the shut base, mm: its envelope has to be larger by that. */
export const pastItsBox = (assembly: Assembly, closed: Pose): Overhang =>
  overhangOf(assembly, closed, () => true, pastBox(assembly));

const onLayer = (closed: Pose, { facet, region }: AttachedLayer): Vec3[] =>
  region.flatMap((p) => p.outer.map((q) => onFacet(closed, facet, q)));

function greatest(past: Past, places: readonly Vec3[]): Overhang {
  const out: Overhang = { head: 0, foot: 0, fore: 0, spine: 0 };
  for (const [x, y] of places) {
    const over = past(x, y);
    for (const side of SIDES) out[side] = Math.max(out[side], over[side]);
  }
  for (const side of SIDES) if (out[side] < OVERHANG_FROM_MM) out[side] = 0;
  return out;
}

const NONE: Overhang = { head: 0, foot: 0, fore: 0, spine: 0 };

type Past = (x: number, y: number) => Overhang;

/** How far a place lies past each side of the box round the closed base, mm: what an envelope sees. */
function pastBox(assembly: Assembly): Past {
  const { foot, head, spine, fore } = baseExtent(assembly);
  return (x, y) => ({ head: x - head, foot: foot - x, fore: y - fore, spine: spine - y });
}

/** Of the box round a shut base so much may be missing for it to be that box, mm². */
const BOX_MM2 = 0.01;

/**
 * How far a place lies past each side of the closed base, mm: of its true outline, which is all that its leaves cover
 * together. Where one leaf is the wider and the other the longer, the corner between them is no paper.
 */
function pastOutline(assembly: Assembly): Past {
  const { foot, head, spine, fore } = baseExtent(assembly);
  const middle = (foot + head) / 2;
  const box = pastBox(assembly);
  const closed = poseAt(assembly, CLOSED);
  if (closed.stop) return box;
  const lying = coverFacets(assembly).flatMap(({ id, polygon }) => {
    const facet = assembly.facets.findIndex((f) => f.id === id);
    return facet < 0 ? [] : [shutOutline(closed, facet, { outer: polygon.outer, holes: [] })];
  });
  const outline = unite(lying);
  if ((head - foot) * (fore - spine) - regionArea(outline) < BOX_MM2) return box;
  const leaves = outline.map(({ outer }) => preparePolygon({ outer, holes: [] }));
  return (x, y) => {
    if (leaves.some((p) => p.contains([x, y]))) return NONE;
    // Past the silhouette: by the distance to it, on the side it lies.
    const by = Math.min(...leaves.map((p) => p.distanceToEdge([x, y])));
    if (y < 0) return { ...NONE, spine: x > foot && x < head ? by : spine - y };
    const beside = Math.abs(x - middle) / (head - middle) > y / fore;
    const side: Side = beside ? (x > middle ? 'head' : 'foot') : 'fore';
    return { ...NONE, [side]: by };
  };
}

const WHERE: Record<Side, string> = {
  head: 'past the head (the high end of the gutter)',
  foot: 'past the foot (the low end of the gutter)',
  fore: 'past the fore edge',
  spine: 'out behind the fold',
};
const WAY: Record<Side, Turn> = { head: 'along', foot: 'along', fore: 'away', spine: 'behind' };
/** A facet of the page may be out because of what it is cut from: levers climb to what a mechanism stands on. */
function levers(assembly: Assembly, mechanism: string, side: Side): Lever[] {
  const hostId = assembly.mechanisms.find((m) => m.id === mechanism)?.host?.crease;
  const below = hostId && !isBase(assembly, ownerOfId(hostId)) ? ownerOfId(hostId) : null;
  const ways: Turn = side === 'fore' ? 'away' : 'along';
  return [
    ...turnsOf(assembly, mechanism, WAY[side]),
    ...(below ? turnsOf(assembly, below, ways) : []),
    ...turnsOf(assembly, assembly.base.mechanism, ways),
  ];
}

/** What may stick out by itself: a mechanism with all that is on it, or what is stuck on the base. */
interface Part {
  /** What its maker says of it is said under this: a mechanism, a piece of the base, a layer. */
  readonly key: string;
  readonly mechanism: string;
  readonly piece: string;
  readonly title: string;
  readonly aspect: string;
  readonly subjects: readonly string[];
  readonly levers: (side: Side) => Lever[];
  readonly past: (past: Past) => Overhang;
}

function partsOf({ assembly, closed }: Evidence & { readonly closed: Pose }, title: (id: string) => string): Part[] {
  const mechanisms = assembly.mechanisms.filter((m) => !isBase(assembly, m.id));
  return [
    ...mechanisms.map(({ id }): Part => {
      const own = assembly.facets.filter((f) => f.mechanism === id);
      const behind = assembly.pieces.some((p) => p.mechanism === id && p.behindFold);
      return {
        key: id,
        mechanism: id,
        piece: own[0]?.piece,
        title: title(id),
        aspect: '',
        subjects: own.map((f) => f.id),
        levers: (side) => levers(assembly, id, side),
        past: (past) => {
          const over = overhangOf(assembly, closed, (m) => m === id, past);
          return behind ? { ...over, spine: 0 } : over;
        },
      };
    }),
    ...innerPieces(assembly).map((piece): Part => {
      const facets = assembly.facets.filter((f) => f.piece === piece.id);
      return {
        key: piece.id,
        mechanism: piece.mechanism,
        piece: piece.id,
        title: piece.title,
        aspect: `${piece.id} `,
        subjects: facets.map((f) => f.id),
        levers: () => turnsOf(assembly, piece.mechanism, 'away', 'along', 'size'),
        past: (past) =>
          greatest(
            past,
            assembly.facets.flatMap((f, i) =>
              f.piece === piece.id ? f.polygon.outer.map((p) => onFacet(closed, i, p)) : [],
            ),
          ),
      };
    }),
    // A strip that is stuck on the base.
    ...assembly.fillers.flatMap(({ name, piece, facet, region }): Part[] => {
      const on = assembly.facets.findIndex((f) => f.piece === piece && f.id === facet);
      if (on < 0 || !isBase(assembly, assembly.facets[on].mechanism)) return [];
      const { mechanism } = assembly.facets[on];
      return [
        {
          ...{ key: piece, mechanism, piece, title: name, aspect: `${facet} ${name} `, subjects: [facet] },
          levers: () => turnsOf(assembly, mechanism, 'size', 'away'),
          past: (past) =>
            greatest(
              past,
              region.flatMap((p) => p.outer.map((q) => onFacet(closed, on, q))),
            ),
        },
      ];
    }),
    ...assembly.layers
      .filter((l) => isBase(assembly, l.mechanism))
      .map((layer): Part => ({
        key: layer.id,
        mechanism: layer.mechanism,
        piece: layer.piece,
        title: layer.title,
        aspect: `${layer.id} `,
        subjects: [layer.id],
        levers: () => leversOf(layer.id, 'x', 'y', 'width', 'height', 'trimmed'),
        past: (past) => greatest(past, onLayer(closed, layer)),
      })),
  ];
}

/** Pieces of the base that have to stay inside its cover. */
function innerPieces({ base, pieces }: Assembly): Assembly['pieces'] {
  const inner = new Set(base.facets().flatMap((f) => (f.inner ? [f.piece] : [])));
  return pieces.filter((p) => inner.has(p.id));
}

export const overhang: Rule = {
  id: 'overhang',
  needs: 'closed',
  check: (evidence) => {
    const { assembly, closed, brief } = evidence;
    if (!closed) return [];
    const say = wordsFor(evidence);
    const onlyOpen = brief.sentOpen ? ': it can be sent open flat only' : '';
    const [outline, box] = [pastOutline(assembly), pastBox(assembly)];
    return partsOf({ ...evidence, closed }, say.title).flatMap((part) => {
      const past = part.past(outline);
      // Past a shaped outline but inside its box it shows, and goes into the envelope all the same.
      const boxed = part.past(box);
      const meantMm = brief.meantOutMm(part.key);
      return SIDES.filter((side) => past[side] > 0).map((side) => {
        const meant = past[side] <= meantMm + SIZE_ROUNDING_MM;
        const allowed = meant ? ', as meant' : meantMm > 0 ? `; ${say.mm(meantMm)} are meant` : '';
        return finding({
          rule: 'overhang',
          severity: brief.sentOpen || meant ? 'note' : boxed[side] > 0 ? 'blocks' : 'risk',
          mechanism: part.mechanism,
          piece: part.piece,
          measured: past[side],
          limit: meantMm,
          at: CLOSED,
          // What is meant, or matters to nobody, is another finding: a remedy may make it one.
          aspect: `${part.aspect}${side}${meant ? ' as meant' : brief.sentOpen ? ' sent open' : ''}`,
          cause: { of: 'past', side },
          message: `${part.title} reaches ${say.mm(past[side])} ${WHERE[side]} when closed${allowed}${onlyOpen}.`,
          subjects: part.subjects,
          levers: meant
            ? []
            : [...part.levers(side), ...leversOf(MEANT, part.key), ...(boxed[side] > 0 ? leversOf(POST, 'sent') : [])],
        });
      });
    });
  },
};
