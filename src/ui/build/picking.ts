/** What of a piece a hand points at: ends, middles, corners, then lines; each with what a line can be measured from. */
import type { Spot } from '@/core/kinds';
import { nameOfPart } from '@/core/document/words';
import { boxOf } from '@/core/plane/polygon';
import { dist2, dot2, lerp2, sub2, type Vec2 } from '@/core/plane/vec2';
import type { Scene, SceneFrame } from '@/workers/protocol';

export interface Picked {
  readonly piece: string;
  readonly at: Vec2;
  /** "end of gutter", "corner", "on ridge of Step"; null for a free place. */
  readonly name: string | null;
  /** What it is on, where a spot can hang on that. */
  readonly spot?: Pick<Spot, 'of' | 'at'>;
  /** The line it is on, where it is no more than that. */
  readonly line?: { readonly id: string | null; readonly a: Vec2; readonly b: Vec2 };
}

interface Candidate extends Picked {
  readonly off: number;
}

/** The nearest thing within reach, points before lines; else the place itself. */
export function pickAt(scene: Scene, piece: string, p: Vec2, within: number): Picked {
  const points = pointsOf(scene, piece).map((c): Candidate => ({ ...c, off: dist2(c.at, p) }));
  const lines = linesOf(scene, piece, p).map((c): Candidate => ({ ...c, off: dist2(c.at, p) }));
  const nearest = (list: readonly Candidate[]): Candidate | undefined =>
    list.filter((c) => c.off < within).sort((a, b) => a.off - b.off)[0];
  const best = nearest(points) ?? nearest(lines);
  if (!best) return { piece, at: p, name: null };
  const { off: _, ...picked } = best;
  return picked;
}

const PLACES = ['low', 'middle', 'high'] as const;
const CORNER_WORDS: Readonly<Record<string, string>> = {
  'low low': 'lower left',
  'high low': 'lower right',
  'low high': 'upper left',
  'high high': 'upper right',
};

function pointsOf(scene: Scene, piece: string): Picked[] {
  const { design } = scene;
  const creases = scene.whole
    .filter((c) => c.piece === piece)
    .flatMap(({ id, a, b }): Picked[] =>
      (
        [
          ['start', a],
          ['middle', lerp2(a, b, 0.5)],
          ['end', b],
        ] as const
      ).map(([at, place]) => ({
        piece,
        at: place,
        name: `${at === 'middle' ? 'middle' : 'end'} of ${nameOfPart(design, id)}`,
        spot: { of: id, at },
      })),
    );
  const facets = scene.facets
    .filter((f) => f.piece === piece && !f.bent)
    .flatMap((f): Picked[] => {
      const { min, max } = boxOf(f.rings[0]);
      const on = (k: 0 | 1, word: (typeof PLACES)[number]): number =>
        word === 'low' ? min[k] : word === 'high' ? max[k] : (min[k] + max[k]) / 2;
      return PLACES.flatMap((x) =>
        PLACES.map((y): Picked => {
          const corner = CORNER_WORDS[`${x} ${y}`];
          const what = corner ?? (x === 'middle' && y === 'middle' ? 'middle' : 'edge');
          return {
            piece,
            at: [on(0, x), on(1, y)],
            name: `${what} of ${nameOfPart(design, f.id)}`,
            spot: { of: f.id, at: { x, y } },
          };
        }),
      );
    });
  const corners = scene.facets
    .filter((f) => f.piece === piece && !f.bent)
    .flatMap((f) => f.rings.flatMap((r) => r.map((at): Picked => ({ piece, at, name: 'corner' }))));
  return [...creases, ...facets, ...corners];
}

function linesOf(scene: Scene, piece: string, p: Vec2): Picked[] {
  const { design } = scene;
  const on = (a: Vec2, b: Vec2): Vec2 => {
    const way = sub2(b, a);
    const long = dot2(way, way);
    return long > 0 ? lerp2(a, b, Math.min(1, Math.max(0, dot2(sub2(p, a), way) / long))) : a;
  };
  const creases = scene.whole
    .filter((c) => c.piece === piece)
    .map(({ id, a, b }): Picked => {
      const at = on(a, b);
      const part = dist2(a, b) > 0 ? dist2(a, at) / dist2(a, b) : 0;
      return {
        piece,
        at,
        name: `on ${nameOfPart(design, id)}`,
        spot: { of: id, at: Number(part.toFixed(4)) },
        line: { id, a, b },
      };
    });
  const edges = (scene.pieces.find((x) => x.id === piece)?.rings ?? []).flatMap((ring) =>
    ring.map((a, i): Picked => {
      const b = ring[(i + 1) % ring.length];
      return { piece, at: on(a, b), name: 'on the edge', line: { id: null, a, b } };
    }),
  );
  const cuts = scene.cuts
    .filter((c) => c.piece === piece)
    .map(({ a, b }): Picked => ({ piece, at: on(a, b), name: 'on a cut', line: { id: null, a, b } }));
  return [...creases, ...edges, ...cuts];
}

/** A picked place as a spot in the axes of a mechanism: hung on what it is on, else by its numbers. */
export function spotOf({ at, spot }: Picked, { origin, x, y }: SceneFrame): Spot {
  if (spot) return spot;
  const d = sub2(at, origin);
  return { x: tidy(dot2(d, x)), y: tidy(dot2(d, y)) };
}
const tidy = (mm: number): number => Math.round(mm * 10) / 10 + 0;

/** Whole millimetres for a free place, in the axes of a mechanism. */
export function onGrid(p: Vec2, { origin, x, y }: SceneFrame): Vec2 {
  const d = sub2(p, origin);
  const [u, v] = [Math.round(dot2(d, x)), Math.round(dot2(d, y))];
  return [origin[0] + u * x[0] + v * y[0], origin[1] + u * x[1] + v * y[1]];
}

/** Every point of a piece that has a name, once. */
export function namedSpots(scene: Scene, piece: string): readonly Pick<Spot, 'of' | 'at'>[] {
  const seen = new Set<string>();
  return pointsOf(scene, piece).flatMap(({ spot }) => {
    const key = JSON.stringify(spot);
    if (!spot || seen.has(key)) return [];
    seen.add(key);
    return [spot];
  });
}
