/**
 * Where a card wears: how often it will be opened is not ours to know, but where its paper bends far, is held by
 * little, rubs or slides is.
 */
import { foldDeg, type Pose } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import type { Assembly } from '../assembly/assembly';
import { stockOf, type Design } from '../document/design';
import { nameOfMechanism, nameOfPart } from '../document/words';
import { boxOf } from '../plane/polygon';
import { ownerOfId } from '../ids';
import { narrowestNeck, sheetOf } from '../plane/web';
import { dist2, lerp2, type Vec2 } from '../plane/vec2';
import { openOf } from '../drives';
import { gapsBelow, type Gap } from '../rules';
import { walk } from '../proof/evidence';
import { saidAt } from './words';

export type WearKind = 'bends' | 'narrow' | 'rubs' | 'slides';
export interface WearPlace {
  readonly kind: WearKind;
  readonly words: string;
  readonly mechanism: string;
  readonly piece: string;
  /** On its piece, mm. */
  readonly at: Vec2;
  /** Lines of it there: a crease; none for a place. */
  readonly lines: readonly (readonly [Vec2, Vec2])[];
  /** How far it bends (degrees), how wide it is, how near it comes, how far it slides (mm). */
  readonly measured: number;
  readonly unit: '°' | 'mm';
  /** 0 to 1: how much of what paper stands; for the colours of the map. */
  readonly part: number;
}

/** Necks up to so many times the least that the stock bears are told. */
const NECK_TIMES = 4;
/** Nearer than so many sheets, parts of a card made a little crooked rub: common practice, no source. */
const RUBS_SHEETS = 2;
const STEPS = 36;
/** Creases that turn less are not worn by it, degrees. */
const LEAST_TURN = 5;
const HALF_TURN = 180;
/** A slide as long as this is a long one, mm. */
const LONG_SLIDE_MM = 100;

/** Every place of a card that wears, the worst first. Throws DesignError. */
export function wearOf(design: Design): WearPlace[] {
  const assembly = buildAssembly(design);
  const travel = [...walk(assembly, STEPS)];
  const all = [
    ...bending(design, assembly, travel),
    ...necks(design, assembly),
    ...rubbing(design, assembly, travel),
    ...sliding(design, assembly),
  ];
  return all.sort((a, b) => b.part - a.part);
}

function bending(design: Design, assembly: Assembly, travel: readonly Pose[]): WearPlace[] {
  return assembly.creases.flatMap((c): WearPlace[] => {
    const folds = travel.map((p) => foldDeg(p, c));
    const turn = Math.max(...folds) - Math.min(...folds);
    const [first] = c.segments;
    if (!(turn > LEAST_TURN) || !first) return [];
    const lines = c.segments.map(({ a, b }) => [a, b] as const);
    const longest = c.segments.reduce((l, s) => (dist2(s.a, s.b) > dist2(l.a, l.b) ? s : l), first);
    return [
      {
        kind: 'bends',
        words: nameOfPart(design, c.id),
        mechanism: c.mechanism,
        piece: c.piece,
        at: lerp2(longest.a, longest.b, 0.5),
        lines,
        measured: turn,
        unit: '°',
        part: Math.min(1, turn / HALF_TURN),
      },
    ];
  });
}

function necks(design: Design, assembly: Assembly): WearPlace[] {
  return assembly.pieces.flatMap((piece): WearPlace[] => {
    const { leastWebMm } = stockOf(design, piece.stock);
    const cuts = piece.lines.filter((l) => l.role === 'cut');
    const neck = narrowestNeck(sheetOf(piece.outline, cuts), NECK_TIMES * leastWebMm);
    if (!neck) return [];
    return [
      {
        kind: 'narrow',
        words: `narrowest of ${piece.title}`,
        mechanism: piece.mechanism,
        piece: piece.id,
        at: neck.at,
        lines: [],
        measured: neck.widthMm,
        unit: 'mm',
        part: Math.min(1, leastWebMm / Math.max(neck.widthMm, 1e-6)),
      },
    ];
  });
}

/** Two mechanisms that come near each other on the way, at their nearest; shut, everything lies on everything. */
function rubbing(design: Design, assembly: Assembly, travel: readonly Pose[]): WearPlace[] {
  const thickest = Math.max(...assembly.pieces.map((p) => stockOf(design, p.stock).caliperMm));
  const nearest = new Map<string, { readonly gap: Gap; readonly open: number }>();
  for (const pose of travel) {
    const open = openOf(pose.state);
    if (open === 0) continue;
    for (const gap of gapsBelow(assembly, pose, RUBS_SHEETS * thickest)) {
      const key = [ownerOfId(gap.a), ownerOfId(gap.b)].sort().join(' ');
      if (gap.mm < (nearest.get(key)?.gap.mm ?? Infinity)) nearest.set(key, { gap, open });
    }
  }
  return [...nearest.values()].flatMap(({ gap: { mm, a, b }, open }): WearPlace[] => {
    const facet = assembly.facets.find((f) => f.id === a)!;
    const piece = assembly.pieces.find((p) => p.id === facet.piece)!;
    const least = RUBS_SHEETS * stockOf(design, piece.stock).caliperMm;
    if (mm > least) return [];
    return [
      {
        kind: 'rubs',
        words: `${nameOfPart(design, a)} and ${nameOfPart(design, b)}, ${saidAt(design, { open })},`,
        mechanism: ownerOfId(a),
        piece: piece.id,
        at: middle(facet.polygon.outer),
        lines: [],
        measured: mm,
        unit: 'mm',
        part: Math.min(1, 1 - mm / least / 2),
      },
    ];
  });
}

/** What a hand moves along: how far it slides. */
function sliding(design: Design, assembly: Assembly): WearPlace[] {
  return assembly.drives.slice(1).flatMap((drive): WearPlace[] => {
    const owner = ownerOfId(drive.id);
    const piece = assembly.pieces.find((p) => p.mechanism === owner);
    if (drive.unit !== 'mm' || !piece) return [];
    const far = Math.abs(drive.to - drive.from);
    return [
      {
        kind: 'slides',
        words: `${drive.label} of ${nameOfMechanism(design, owner)}`,
        mechanism: owner,
        piece: piece.id,
        at: middle(piece.outline.outer),
        lines: [],
        measured: far,
        unit: 'mm',
        part: Math.min(1, far / LONG_SLIDE_MM),
      },
    ];
  });
}

function middle(ring: readonly Vec2[]): Vec2 {
  const { min, max } = boxOf(ring);
  return lerp2(min, max, 0.5);
}
