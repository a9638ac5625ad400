/**
 * How a card came out as it was made: whether it shuts, whether it is pulled taut on its way, how far something pokes
 * out, and how far edges that should meet do not.
 */
import { openTo } from '../drives';
import { poseAt, type Pose } from '../assembly/pose';
import { putTogether } from '../build/build';
import type { Assembly } from '../assembly/assembly';
import type { Design } from '../document/design';
import { applyRigid, type Rigid, type Vec3 } from '../linkage';
import { gather } from '../proof/evidence';
import { FLEX_RISK_MM, overhang } from '../rules';
import { fitsOf, spareOf, type Fit } from './fits';
import { madeNear, Making, madePose } from './made';
import { Astray, makingSteps, type MakingStep, type Scatter } from './scatter';

/** Openings at which a made card is looked at on its way, degrees. */
const ON_ITS_WAY = [45, 90, 135] as const;
/** Paper that does not close by more than this is felt, as in the rule for bending, mm. */
export const BINDS_FROM_MM = FLEX_RISK_MM;
/** Edges that should meet and are further apart are seen: common practice, no source, mm. */
export const SHOWS_FROM_MM = 1;
/** Edges of the base that lie no further inside than this are the ones that something pokes out past, mm. */
const SAME_EDGE_MM = 0.05;

/** One made card. */
export interface Fitness {
  /** What pokes out furthest past the mean of the edges it should stay behind; negative is room; null without parts. */
  readonly overhangMm: number | null;
  /** What does not close when it is shut; null where the design itself does not shut. */
  readonly closedGapMm: number | null;
  /** The same on its way, at worst. */
  readonly wayGapMm: number;
  /** How far edges of the base that should meet when it is shut do not. */
  readonly edgesMm: number;
  /** Least play of parts that slide and turn over what they need; null without any. */
  readonly playMm: number | null;
  /** Least that something covers over what it should; null where nothing has to. */
  readonly coverMm: number | null;
}
export const closes = ({ closedGapMm }: Fitness): boolean => closedGapMm !== null && closedGapMm <= BINDS_FROM_MM;
export const binds = ({ wayGapMm, playMm }: Fitness): boolean =>
  wayGapMm > BINDS_FROM_MM || (playMm !== null && playMm < 0);
export const pokesOut = ({ overhangMm }: Fitness, mayMm: number): boolean => overhangMm !== null && overhangMm > mayMm;
export const shows = ({ edgesMm, coverMm }: Fitness): boolean =>
  edgesMm > SHOWS_FROM_MM || (coverMm !== null && coverMm < 0);

export const meanOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

type Side = 'fore' | 'head' | 'foot';
/** How far out a place is on a side, in world axes of the shut card. */
const OUT: Readonly<Record<Side, (p: Vec3) => number>> = { fore: (p) => p[1], head: (p) => p[0], foot: (p) => -p[0] };

/** What a card is judged by before the worst of it is taken; lists of the same length and order for every card. */
export interface Marks {
  /** How far out each corner of each part lies, by side, mm. */
  readonly places: readonly (readonly number[])[];
  /** The same of the corners of each edge of the base, by side and edge. */
  readonly edges: readonly (readonly (readonly number[])[])[];
  /** What does not close: points of creases as their two sides have them, mm. */
  readonly gaps: readonly Vec3[];
}
/** Where a made card is looked at; places and edges are looked at where it is shut. */
export type When = 'shut' | 'on its way';

/** A design, ready to be made many times. */
export class Maker {
  readonly steps: readonly MakingStep[];
  readonly fits: readonly Fit[];
  private readonly making: Making;
  private readonly nominal: Assembly;
  private readonly closed: Pose | null;
  private readonly way: readonly Pose[];
  /** Sides of the base, each with the facets that reach furthest there, and those of their corners that do. */
  private readonly edges: readonly {
    readonly side: Side;
    readonly facets: readonly number[];
    readonly corners: readonly (readonly { readonly facet: number; readonly k: number }[])[];
  }[];

  /** The card as drawn. */
  readonly asDrawn: Fitness;
  /** How far it may poke out: not at all, unless it is drawn to reach an edge or past it, and that is no fault. */
  readonly mayOverhangMm: number;

  /** Throws DesignError. */
  constructor(design: Design, scatter: Scatter) {
    const { assembly, parts } = putTogether(design);
    this.nominal = assembly;
    this.steps = makingSteps(parts, scatter);
    this.making = new Making(parts, assembly);
    this.fits = fitsOf(assembly);
    const evidence = gather(design, 'closed', 0, assembly);
    this.closed = evidence.closed;
    this.way = ON_ITS_WAY.map((open) => poseAt(assembly, openTo(open))).filter((p) => !p.stop);
    this.edges = this.closed ? this.edgesOf(this.closed) : [];
    this.asDrawn = this.make(this.steps.map(() => 0));
    const { overhangMm } = this.asDrawn;
    const isFault = overhangMm === null || overhangMm < 0 || overhang.check(evidence).length > 0;
    this.mayOverhangMm = isFault ? 0 : overhangMm + SHOWS_FROM_MM;
  }

  /**
   * @param amounts how far each step goes astray, mm or degrees
   * @param onItsWay whether it is looked at half open too, or only shut
   */
  make(amounts: ArrayLike<number>, onItsWay = true): Fitness {
    const astray = new Astray(this.steps, amounts);
    const made = this.making.card(astray);
    const closed = this.closed && madePose(made, this.closed);
    const gaps = onItsWay ? this.way.map((pose) => madePose(made, pose).gapMm) : [];
    const lies = closed ? this.shut(closed.placed, astray) : { overhangMm: null, edgesMm: 0 };
    return { ...lies, closedGapMm: closed && closed.gapMm, wayGapMm: Math.max(0, ...gaps), ...this.spare(astray) };
  }

  /** Poses of the bodies of a made card. */
  bodies(amounts: ArrayLike<number>, when: When): readonly (readonly Rigid[])[] {
    const made = this.making.card(new Astray(this.steps, amounts));
    return this.poses(when).map((pose) => madePose(made, pose).bodies);
  }

  /**
   * The marks of a card whose steps went astray next to another's, to first order: what the solver's derivatives are
   * read from.
   * @param beside poses of the other's bodies
   */
  marks(amounts: ArrayLike<number>, when: When, beside: readonly (readonly Rigid[])[]): Marks {
    const astray = new Astray(this.steps, amounts);
    const made = this.making.card(astray);
    const near = this.poses(when).map((pose, k) => madeNear(made, pose, beside[k]));
    const gaps = near.flatMap((n) => n.gaps);
    if (when === 'on its way' || !this.closed) return { places: [], edges: [], gaps };
    const [{ placed }] = near;
    const places = this.partPlaces(placed, astray);
    const out = (side: Side, facet: number, k: number): number =>
      OUT[side](this.cornersOf(facet, placed, astray)[k].at);
    return {
      places: this.edges.map(({ side }) => places.map(OUT[side])),
      edges: this.edges.map(({ side, corners }) => corners.map((list) => list.map((c) => out(side, c.facet, c.k)))),
      gaps,
    };
  }
  private poses(when: When): readonly Pose[] {
    return when === 'on its way' ? this.way : this.closed ? [this.closed] : [];
  }

  /** Least that is left to parts that move, and of what is to be covered. */
  private spare(astray: Astray): Pick<Fitness, 'playMm' | 'coverMm'> {
    const least = (list: readonly Fit[]): number | null =>
      list.length > 0 ? Math.min(...list.map((f) => spareOf(f, astray))) : null;
    return {
      playMm: least(this.fits.filter((f) => f.rule !== 'covered')),
      coverMm: least(this.fits.filter((f) => f.rule === 'covered')),
    };
  }

  /** As made, shut and on its way: the card with its edges and facets as they came out, for pictures. */
  stood(amounts: ArrayLike<number>): { readonly assembly: Assembly; readonly pose: Pose }[] {
    const astray = new Astray(this.steps, amounts);
    const made = this.making.card(astray);
    const facets = made.facets.map((f, i) => ({ ...f, polygon: this.making.outline(i, astray) }));
    const assembly: Assembly = { ...this.nominal, ...made, facets };
    const poses = [...this.poses('shut'), ...this.poses('on its way')];
    return poses.map((pose) => ({ assembly, pose: { ...pose, placed: madePose(made, pose).placed } }));
  }

  /** Facets of the base whose edge is the outermost on a side when it is shut. */
  private edgesOf(closed: Pose) {
    const leaves = this.leafFacets();
    const none = new Astray([], []);
    return (['fore', 'head', 'foot'] as const).map((side) => {
      const outs = leaves.map((i) => this.outOf(i, closed.placed, none, side));
      const most = Math.max(...outs);
      const facets = leaves.filter((_, k) => outs[k] > most - SAME_EDGE_MM);
      const corners = facets.map((facet) =>
        this.cornersOf(facet, closed.placed, none).flatMap(({ at }, k) =>
          OUT[side](at) > most - SAME_EDGE_MM ? [{ facet, k }] : [],
        ),
      );
      return { side, facets, corners };
    });
  }
  private leafFacets(): number[] {
    const { facets, base, leafBodies } = this.nominal;
    return facets.flatMap((f, i) => (f.mechanism === base.mechanism && leafBodies.has(f.body) ? [i] : []));
  }
  /** Corners of a facet in world axes; `key` is that of the same corner of another facet of its piece. */
  private cornersOf(facet: number, placed: readonly Rigid[], astray: Astray) {
    const { piece } = this.nominal.facets[facet];
    return this.making.corners(facet, astray).map(({ drawn, made }) => ({
      key: `${piece} ${drawn[0].toFixed(5)} ${drawn[1].toFixed(5)}`,
      at: applyRigid(placed[facet], [made[0], made[1], 0]),
    }));
  }
  private outOf(facet: number, placed: readonly Rigid[], astray: Astray, side: Side): number {
    return Math.max(...this.cornersOf(facet, placed, astray).map((c) => OUT[side](c.at)));
  }

  private shut(placed: readonly Rigid[], astray: Astray) {
    const edges = this.edges.map(({ side, facets }) => {
      const outs = facets.map((i) => this.outOf(i, placed, astray, side));
      return { side, mean: meanOf(outs), apart: Math.max(...outs) - Math.min(...outs) };
    });
    const places = this.partPlaces(placed, astray);
    const past = edges.flatMap(({ side, mean }) => places.map((p) => OUT[side](p) - mean));
    return {
      overhangMm: past.length > 0 ? Math.max(...past) : null,
      edgesMm: Math.max(0, ...edges.map((e) => e.apart)),
    };
  }
  /** Corners of all that is no leaf. Of a corner that several facets have: the middle of where they have it. */
  private partPlaces(placed: readonly Rigid[], astray: Astray): Vec3[] {
    const leaves = new Set(this.leafFacets());
    const sums = new Map<string, { sum: Vec3; count: number }>();
    placed.forEach((_, i) => {
      if (leaves.has(i)) return;
      for (const { key, at } of this.cornersOf(i, placed, astray)) {
        const { sum, count } = sums.get(key) ?? { sum: [0, 0, 0], count: 0 };
        sums.set(key, { sum: [sum[0] + at[0], sum[1] + at[1], sum[2] + at[2]], count: count + 1 });
      }
    });
    const stuck = this.nominal.layers.flatMap(({ facet, region }) =>
      region.flatMap((r) => r.outer.map(([x, y]) => applyRigid(placed[facet], [x, y, 0]))),
    );
    return [
      ...[...sums.values()].map(({ sum, count }): Vec3 => [sum[0] / count, sum[1] / count, sum[2] / count]),
      ...stuck,
    ];
  }
}
