/** What of a piece a hand points at: ends, middles, corners, then lines; each with what a line can be measured from. */
import { BOX_PLACES, inBox, LINE_PLACES, type Spot } from '@/core/kinds';
import type { Around } from '@/core/build/own-ends';
import type { Design } from '@/core/document/design';
import { nameOfPart } from '@/core/document/words';
import { dist2, distToSegment, dot2, lerp2, sub2, type Vec2 } from '@/core/plane/vec2';
import { SAME_POINT_MM } from '@/core/tolerance';
import type { Scene, SceneFrame } from '@/workers/protocol';
import { spotWords } from './own-words';

/** What is nearer than this is pointed at, pixels. */
export const REACH_PX = 9;

export interface Picked {
  readonly piece: string;
  readonly at: Vec2;
  /** "end of the gutter", "corner", "on the ridge of Step"; null for a free place. */
  readonly name: string | null;
  /** What it is on, where a spot can hang on that. */
  readonly spot?: Pick<Spot, 'of' | 'at'>;
  /** The line it is on, where it is no more than that. */
  readonly line?: Straight;
}
interface Straight {
  readonly a: Vec2;
  readonly b: Vec2;
}

/** Axes of a piece itself. */
export const ownAxes = (piece: string): SceneFrame => ({ piece, origin: [0, 0], x: [1, 0], y: [0, 1] });

/** What a new line on a piece may be measured from: all that is there. */
export const aroundNow = ({ facets, whole }: Scene, piece: string): Around => ({
  piece,
  facets: facets.filter((f) => f.piece === piece && !f.bent).map((f) => ({ id: f.id, outer: f.rings[0] })),
  lines: whole.filter((c) => c.piece === piece).map(({ id, a, b }) => ({ of: id, a, b })),
});

export interface Picking {
  readonly around: Around;
  /** Axes in which left and right, upper and lower of a facet are meant. */
  readonly frame: SceneFrame;
  /** Where what is led comes from: that place, and lines through it that go along with it, do not hold it back. */
  readonly leaving?: Vec2;
}

/** The nearest thing within reach, points before lines; else the place itself. */
export function pickAt(scene: Scene, { around, frame, leaving }: Picking, p: Vec2, within: number): Picked {
  const holds = ({ at, line }: Picked): boolean =>
    !leaving || (line ? distToSegment(leaving, line.a, line.b) : dist2(leaving, at)) > SAME_POINT_MM;
  const nearest = (list: readonly Picked[]): Picked | undefined =>
    list.filter((c) => dist2(c.at, p) < within && holds(c)).sort((a, b) => dist2(a.at, p) - dist2(b.at, p))[0];
  const points = [...namedPoints(scene.design, around, frame), ...cornersOf(scene, around.piece)];
  return nearest(points) ?? nearest(linesNear(scene, around, p)) ?? { piece: around.piece, at: p, name: null };
}

const ENDS: Readonly<Record<(typeof LINE_PLACES)[number], (line: Straight) => Vec2>> = {
  start: ({ a }) => a,
  middle: ({ a, b }) => lerp2(a, b, 0.5),
  end: ({ b }) => b,
};

/** Ends and middles of lines, corners, edges and middles of facets' boxes in the axes of what is drawn. */
function namedPoints(design: Design, { piece, lines, facets }: Around, frame: SceneFrame): Picked[] {
  const named = (spot: Pick<Spot, 'of' | 'at'>, at: Vec2): Picked => ({
    piece,
    at,
    name: spotWords(design, [], spot),
    spot,
  });
  const onLines = lines.flatMap((l) => LINE_PLACES.map((at) => named({ of: l.of, at }, ENDS[at](l))));
  const onFacets = facets.flatMap(({ id, outer }) => {
    const box = { outer: outer.map((p) => inFrame(p, frame)) };
    return BOX_PLACES.flatMap((x) =>
      BOX_PLACES.map((y) => named({ of: id, at: { x, y } }, fromFrame(inBox(box, { x, y }), frame))),
    );
  });
  return [...onLines, ...onFacets];
}

const cornersOf = ({ facets }: Scene, piece: string): Picked[] =>
  facets
    .filter((f) => f.piece === piece && !f.bent)
    .flatMap((f) => f.rings.flatMap((r) => r.map((at): Picked => ({ piece, at, name: 'corner' }))));

function linesNear(scene: Scene, { piece, lines }: Around, p: Vec2): Picked[] {
  const on = ({ a, b }: Straight): Vec2 => {
    const way = sub2(b, a);
    const long = dot2(way, way);
    return long > 0 ? lerp2(a, b, Math.min(1, Math.max(0, dot2(sub2(p, a), way) / long))) : a;
  };
  const plain =
    (name: string) =>
    (line: Straight): Picked => ({ piece, at: on(line), name, line });
  const held = lines.map(({ of, a, b }): Picked => {
    const at = on({ a, b });
    const part = dist2(a, b) > 0 ? dist2(a, at) / dist2(a, b) : 0;
    const spot = { of, at: Number(part.toFixed(4)) };
    return { piece, at, name: `on the ${nameOfPart(scene.design, of)}`, spot, line: { a, b } };
  });
  const edges = (scene.pieces.find((x) => x.id === piece)?.rings ?? []).flatMap((ring) =>
    ring.map((a, i) => ({ a, b: ring[(i + 1) % ring.length] })),
  );
  const cuts = scene.cuts.filter((c) => c.piece === piece);
  return [...held, ...edges.map(plain('on the edge')), ...cuts.map(plain('on a cut'))];
}

/** A place of a piece in the axes of a mechanism, and back. */
export function inFrame(p: Vec2, { origin, x, y }: SceneFrame): Vec2 {
  const d = sub2(p, origin);
  return [dot2(d, x), dot2(d, y)];
}
export const fromFrame = ([u, v]: Vec2, { origin, x, y }: SceneFrame): Vec2 => [
  origin[0] + u * x[0] + v * y[0],
  origin[1] + u * x[1] + v * y[1],
];

/** A picked place as a spot in the axes of a mechanism: hung on what it is on, else by its numbers. */
export function spotOf({ at, spot }: Picked, frame: SceneFrame): Spot {
  if (spot) return spot;
  const [x, y] = inFrame(at, frame);
  return { x: tidy(x), y: tidy(y) };
}
/** Far finer than anyone cuts, so that a corner is met. */
export const tidy = (mm: number): number => Number(mm.toFixed(4)) + 0;

/** A free place on whole millimetres, in the axes of a mechanism. */
export const onGrid = (p: Vec2, frame: SceneFrame): Vec2 => {
  const [u, v] = inFrame(p, frame);
  return fromFrame([Math.round(u), Math.round(v)], frame);
};

/** Everything on a piece that a spot may be measured from. */
export const namedSpots = (design: Design, around: Around, frame: SceneFrame): readonly Pick<Spot, 'of' | 'at'>[] =>
  namedPoints(design, around, frame).flatMap(({ spot }) => spot ?? []);
