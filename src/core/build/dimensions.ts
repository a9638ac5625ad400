/** Numbers as they stand on a drawing: from where to where each is measured, found from what follows it. */
import type { Assembly } from '../assembly/assembly';
import { parameterOf } from '../document/fields';
import type { Design } from '../document/design';
import { ringsOf } from '../plane/polygon';
import { add2, distToSegment, dot2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import type { Grip, GripLine } from './grips';

/** A number between two points of a piece, its axes, mm; they lie as far apart as it is. */
export interface Dimension {
  readonly mechanism: string;
  readonly parameter: string;
  readonly piece: string;
  readonly from: Vec2;
  readonly to: Vec2;
  /** The side that it is drawn on, away from what is measured; of length 1, square to it. */
  readonly out: Vec2;
}

/** Both ends lie where they should to this, mm. */
const ON_LINE_MM = 0.01;
/** Shorter ones have no room to be read, mm. */
const SHORTEST_MM = 1;

/**
 * One dimension for each number that is a distance on a flat piece: between two lines that it moves apart, or from a
 * line that stays to one that it moves by as much. Numbers that are none of these have no place on the drawing.
 */
export function dimensionsOf(design: Design, assembly: Assembly, grips: readonly Grip[]): Dimension[] {
  const byNumber = new Map<string, Grip[]>();
  for (const g of grips) byNumber.set(g.parameter, [...(byNumber.get(g.parameter) ?? []), g]);
  const centres = centresOf(grips);
  return [...byNumber.values()].flatMap((own) => {
    const value = Number(parameterOf(design, own[0].mechanism, own[0].parameter));
    if (!(Math.abs(value) >= SHORTEST_MM)) return [];
    const found = [...acrossTwo(own, value), ...fromWhatStays(assembly, own, value)];
    const best = outermost(found, centres);
    return best ? [{ mechanism: own[0].mechanism, parameter: own[0].parameter, ...best }] : [];
  });
}

type Between = Pick<Dimension, 'piece' | 'from' | 'to'>;
const middle = ({ a, b }: GripLine): Vec2 => lerp2(a, b, 0.5);
/** Where on a line it may be measured: at its ends, where numbers are out of the way. */
const placesOn = (line: GripLine): readonly Vec2[] => [line.a, line.b, middle(line)];

/** The middle of all that can be taken hold of, by piece. */
function centresOf(grips: readonly Grip[]): Map<string, Vec2> {
  const ends = new Map<string, Vec2[]>();
  for (const { piece, lines } of grips)
    ends.set(piece, [...(ends.get(piece) ?? []), ...lines.flatMap((l) => [l.a, l.b])]);
  return new Map([...ends].map(([piece, all]) => [piece, scale2(all.reduce(add2, [0, 0]), 1 / all.length)]));
}

/** Of several places that which lies furthest out from the middle of all that can be taken hold of. */
function outermost(
  found: readonly Between[],
  centres: ReadonlyMap<string, Vec2>,
): (Between & Pick<Dimension, 'out'>) | null {
  let best: (Between & Pick<Dimension, 'out'>) | null = null;
  let furthest = -Infinity;
  for (const b of found) {
    const centre = centres.get(b.piece)!;
    const way = sub2(b.to, b.from);
    const normal = scale2([-way[1], way[0]], 1 / Math.hypot(...way));
    const off = dot2(sub2(lerp2(b.from, b.to, 0.5), centre), normal);
    if (Math.abs(off) <= furthest + 1e-6) continue;
    furthest = Math.abs(off);
    best = { ...b, out: off < 0 ? scale2(normal, -1) : normal };
  }
  return best;
}

/** Between two parallel lines that go apart by as much as the number grows. */
function acrossTwo(grips: readonly Grip[], value: number): Between[] {
  return grips.flatMap((p) =>
    grips
      .filter((q) => q.piece === p.piece)
      .flatMap((q) => p.lines.flatMap((l) => q.lines.flatMap((m) => betweenLines(p.piece, l, m, value)))),
  );
}
function betweenLines(piece: string, l: GripLine, m: GripLine, value: number): Between[] {
  const apart = sub2(m.way, l.way);
  if (Math.abs(dot2(apart, apart) - 1) > 1e-6 || dot2(l.way, m.way) >= 0) return [];
  const off = dot2(sub2(middle(m), middle(l)), apart);
  if (Math.abs(off - value) >= ON_LINE_MM) return [];
  return placesOn(l).map((from) => ({ piece, from, to: add2(from, scale2(apart, off)) }));
}

/** From a crease or an edge that lies as far behind a line as the number says. */
function fromWhatStays(assembly: Assembly, grips: readonly Grip[], value: number): Between[] {
  return grips.flatMap(({ piece, lines }) =>
    lines.flatMap((line) => {
      if (Math.abs(dot2(line.way, line.way) - 1) > 1e-6) return [];
      return placesOn(line)
        .map((to) => ({ piece, from: sub2(to, scale2(line.way, value)), to }))
        .filter(({ from }) => isOnLine(assembly, piece, from));
    }),
  );
}

function isOnLine({ pieces, hosts }: Assembly, id: string, p: Vec2): boolean {
  const piece = pieces.find((x) => x.id === id);
  if (!piece) return false;
  const near = (a: Vec2, b: Vec2): boolean => distToSegment(p, a, b) < ON_LINE_MM;
  return (
    piece.creases.some((c) => near(c.a, c.b)) ||
    [...hosts.values()].some(({ piece: on, frame: { origin, along }, lengthMm }) => {
      const half = scale2(along, lengthMm / 2);
      return on === id && near(sub2(origin, half), add2(origin, half));
    }) ||
    ringsOf(piece.outline).some((ring) => ring.some((a, i) => near(a, ring[(i + 1) % ring.length])))
  );
}
