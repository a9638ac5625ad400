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
  return [...byNumber.values()].flatMap((own) => {
    const value = Number(parameterOf(design, own[0].mechanism, own[0].parameter));
    if (!(Math.abs(value) >= SHORTEST_MM)) return [];
    const between = acrossTwo(own, value) ?? fromWhatStays(assembly, own, value);
    return between ? [{ mechanism: own[0].mechanism, parameter: own[0].parameter, ...between }] : [];
  });
}

type Between = Pick<Dimension, 'piece' | 'from' | 'to'>;
const middle = ({ a, b }: GripLine): Vec2 => lerp2(a, b, 0.5);

/** Between two parallel lines that go apart by as much as the number grows. */
function acrossTwo(grips: readonly Grip[], value: number): Between | null {
  for (const p of grips)
    for (const q of grips) {
      if (p.piece !== q.piece) continue;
      for (const l of p.lines)
        for (const m of q.lines) {
          const apart = sub2(m.way, l.way);
          if (Math.abs(dot2(apart, apart) - 1) > 1e-6 || dot2(l.way, m.way) >= 0) continue;
          // Measured where the first line has its middle.
          const from = middle(l);
          const off = dot2(sub2(middle(m), from), apart);
          if (Math.abs(off - value) < ON_LINE_MM) return { piece: p.piece, from, to: add2(from, scale2(apart, off)) };
        }
    }
  return null;
}

/** From a crease or an edge that lies as far behind a line as the number says. */
function fromWhatStays(assembly: Assembly, grips: readonly Grip[], value: number): Between | null {
  for (const { piece, lines } of grips)
    for (const line of lines) {
      if (Math.abs(dot2(line.way, line.way) - 1) > 1e-6) continue;
      const to = middle(line);
      const from = sub2(to, scale2(line.way, value));
      if (isOnLine(assembly, piece, from)) return { piece, from, to };
    }
  return null;
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
