/** The picture of a step: what it is about lit, seen from where it shows; where glue goes and how it folds over it. */
import type { Assembly } from '../assembly/assembly';
import { foldDeg, onFacet, poseAt, type Pose } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { onlyWith, type WorkStep } from '../build/steps';
import type { Design } from '../document/design';
import { add3, dot3, scale3, sub3, unit3, type Vec3 } from '../linkage';
import { dist2, lerp2, type Vec2 } from '../plane/vec2';
import { pageSeenFrom, type Picture } from './picture';
import { pictureOfStep } from './seen-from';
import type { StepMark } from './step-mark';

export interface StepPicture {
  readonly picture: Picture;
  readonly marks: readonly StepMark[];
  /** What it is about, by id. */
  readonly lit: ReadonlySet<string>;
}

/** Arrows are drawn for folds of at least this, deg, at most so many a picture: more would hide it. */
const FOLD_FROM_DEG = 12;
const MOST_ARROWS = 4;
/** An arrow is so far from its crease as it is long, at most, mm. */
const ARROW_MM = 22;
const ARC_STEPS = 10;

/** What stands by that step, posed; the card as it is once everything is there is given to begin with. */
export function stepPicture(design: Design, step: WorkStep): StepPicture {
  const part = onlyWith(design, step.shown);
  const assembly = buildAssembly(part);
  const pose = poseAt(assembly, step.state);
  const lit = new Set(step.subjects);
  const absent = new Set(step.absent);
  const { picture, from } = pictureOfStep(part, assembly, pose, lit, (i) => !absent.has(assembly.facets[i].id));
  const page = pageSeenFrom(from);
  const drawn = (points: readonly Vec3[]) => points.map(page);
  const marks: StepMark[] = [
    ...glueOutlines(assembly, pose, step.glue).map((r): StepMark => ({ kind: 'glue', points: drawn(r) })),
    ...foldWays(assembly, pose, step.folds).map((w): StepMark => ({ kind: 'fold', points: drawn(w) })),
  ];
  return { picture, marks, lit };
}

/** Where glue goes, on the paper that it is stuck to. */
function glueOutlines({ pieces, facets }: Assembly, pose: Pose, ids: readonly string[]): Vec3[][] {
  const wanted = new Set(ids);
  return pieces
    .flatMap((p) => p.glue)
    .filter((g) => wanted.has(g.id))
    .flatMap(({ onto }) => {
      const facet = facets.findIndex((f) => f.id === onto.facet && f.piece === onto.piece);
      return facet < 0 ? [] : [onto.outline.map((p) => onFacet(pose, facet, p))];
    });
}

/** From where a side would lie if its crease were flat to where it is, about the crease. */
function foldWays(assembly: Assembly, pose: Pose, ids: readonly string[]): Vec3[][] {
  const wanted = new Set(ids);
  return assembly.creases
    .filter((c) => wanted.has(c.id) && c.segments.length > 0 && Math.abs(foldDeg(pose, c)) >= FOLD_FROM_DEG)
    .slice(0, MOST_ARROWS)
    .map(({ segments, a, b }) => {
      const longest = segments.reduce((best, s) => (dist2(s.a, s.b) > dist2(best.a, best.b) ? s : best));
      const length = dist2(longest.a, longest.b);
      const middle = lerp2(longest.a, longest.b, 0.5);
      const mm = Math.min(ARROW_MM, length / 2);
      // To the left of the crease, where side b is.
      const off: Vec2 = [
        middle[0] - ((longest.b[1] - longest.a[1]) * mm) / length,
        middle[1] + ((longest.b[0] - longest.a[0]) * mm) / length,
      ];
      const centre = onFacet(pose, a, middle);
      return arc(centre, sub3(onFacet(pose, a, off), centre), sub3(onFacet(pose, b, off), centre));
    });
}

/** From one arm to another of equal length about their common end; by way of their middle where they are opposite. */
function arc(centre: Vec3, from: Vec3, to: Vec3): Vec3[] {
  const mm = Math.hypot(...from);
  const [u, v] = [unit3(from), unit3(to)];
  const angle = Math.acos(Math.min(1, Math.max(-1, dot3(u, v))));
  const across = sub3(v, scale3(u, dot3(u, v)));
  const side = Math.hypot(...across) > 0 ? unit3(across) : u;
  return Array.from({ length: ARC_STEPS + 1 }, (_, k) => {
    const t = (angle * k) / ARC_STEPS;
    return add3(centre, add3(scale3(u, mm * Math.cos(t)), scale3(side, mm * Math.sin(t))));
  });
}
