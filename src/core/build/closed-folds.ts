/**
 * How the creases of a card that is put together from flat pieces lie when it is shut: each unfolded or folded right
 * over, so that everything that is joined comes to the same place. Looked for by trying, facet by facet.
 */
import { GUTTER } from '../kinds';
import { applyRigid, compose, dist3, identity, invert, turnAbout, type Rigid } from '../linkage';
import type { FlatPattern } from '../pattern/facets';
import type { CreaseLine } from '../pattern/pattern';
import { sub2 } from '../plane/vec2';
import { LENGTH_EQUAL_MM } from '../tolerance';

export interface FlatCard {
  /** Facets and hinges by piece. */
  readonly patterns: ReadonlyMap<string, FlatPattern>;
  /** What lies on what, at rest. */
  readonly ties: readonly {
    readonly a: { readonly piece: string; readonly facet: string };
    readonly b: { readonly piece: string; readonly facet: string };
    readonly placement: Rigid;
  }[];
}

/** Facets looked at over all tries, at most; each try looks at all of them. */
const MOST_LOOKS = 4_000_000;

interface Link {
  readonly to: number;
  /** Frame of the other's piece in this one's: as it is, or across a crease, unfolded or folded over. */
  readonly ways: readonly Rigid[];
  readonly crease?: CreaseLine;
}

/** A way of lying shut: the fold of every crease, rad with its sign, and how far it lies out behind the spine, mm. */
export interface LyingShut {
  readonly folds: ReadonlyMap<string, number>;
  readonly behindMm: number;
}

/** Ways of lying shut, as they are found. */
export function* closedFolds({ patterns, ties }: FlatCard): Generator<LyingShut> {
  const facets = [...patterns].flatMap(([piece, { facets }]) => facets.map((f) => ({ ...f, piece })));
  const indexOf = new Map(facets.map((f, i) => [`${f.piece}|${f.id}`, i]));
  const links: Link[][] = facets.map(() => []);
  for (const [piece, { facets: own, hinges }] of patterns)
    for (const { a, b, crease } of hinges) {
      const [i, j] = [a, b].map((k) => indexOf.get(`${piece}|${own[k].id}`)!);
      const [dx, dy] = sub2(crease.b, crease.a);
      const long = Math.hypot(dx, dy);
      const over = turnAbout([...crease.a, 0], [dx / long, dy / long, 0], Math.PI);
      // The gutter is shut; what else folds right over is tried before what stays flat.
      const ways = crease.id === GUTTER ? [over] : [over, identity()];
      links[i].push({ to: j, ways, crease });
      links[j].push({ to: i, ways, crease });
    }
  for (const { a, b, placement } of ties) {
    const [i, j] = [a, b].map((t) => indexOf.get(`${t.piece}|${t.facet}`)!);
    links[i].push({ to: j, ways: [placement] });
    links[j].push({ to: i, ways: [invert(placement)] });
  }
  const still = facets.findIndex((f) => f.id === 'leafA');
  yield* tryFacets(facets, links, still);
}

type Corners = readonly { readonly polygon: { readonly outer: readonly (readonly [number, number])[] } }[];

function* tryFacets(facets: Corners, links: readonly Link[][], still: number): Generator<LyingShut> {
  const placed: (Rigid | null)[] = facets.map(() => null);
  const folds = new Map<string, boolean>();
  let tries = 0;

  const sameAt = (k: number, p: Rigid, q: Rigid): boolean =>
    facets[k].polygon.outer.every(
      ([x, y]) => dist3(applyRigid(p, [x, y, 0]), applyRigid(q, [x, y, 0])) < LENGTH_EQUAL_MM,
    );
  /** Which ways across a link are still open: a crease that is known folds one way only. */
  const open = ({ ways, crease }: Link): readonly Rigid[] => {
    const known = crease && folds.get(crease.id);
    return known === undefined || ways.length === 1 ? ways : [ways[known ? 0 : 1]];
  };
  const next = (): { from: number; link: Link } | null => {
    let best: { from: number; link: Link } | null = null;
    for (let i = 0; i < facets.length; i++) {
      if (!placed[i]) continue;
      for (const link of links[i]) {
        if (placed[link.to]) continue;
        if (open(link).length === 1) return { from: i, link };
        best ??= { from: i, link };
      }
    }
    return best;
  };
  /** What the facets that lie say of creases between them; false where that cannot be. */
  const agrees = (k: number): string[] | null => {
    const settled: string[] = [];
    for (const link of links[k]) {
      const other = placed[link.to];
      if (!other) continue;
      const way = open(link).find((w) => sameAt(link.to, compose(placed[k]!, w), other));
      if (!way) return undo(settled);
      if (link.crease && !folds.has(link.crease.id)) {
        folds.set(link.crease.id, link.ways.indexOf(way) === 0);
        settled.push(link.crease.id);
      }
    }
    return settled;
  };
  const undo = (settled: readonly string[]): null => {
    settled.forEach((id) => folds.delete(id));
    return null;
  };
  const roles = new Map(links.flatMap((l) => l.flatMap(({ crease }) => (crease ? [[crease.id, crease.role]] : []))));
  const signed = (id: string, over: boolean): number => (over ? (roles.get(id) === 'valley' ? Math.PI : -Math.PI) : 0);
  const found = (): LyingShut => ({
    folds: new Map([...folds].map(([id, over]) => [id, signed(id, over)])),
    behindMm: placed.reduce((out, m, k) => Math.max(out, m ? behind(m, facets[k]) : 0), 0),
  });
  function* walk(): Generator<LyingShut> {
    const step = next();
    if (!step) return yield found();
    for (const way of open(step.link)) {
      if (++tries * facets.length > MOST_LOOKS) return;
      placed[step.link.to] = compose(placed[step.from]!, way);
      const settled = agrees(step.link.to);
      if (settled) {
        yield* walk();
        undo(settled);
      }
      placed[step.link.to] = null;
    }
  }
  placed[still] = identity();
  yield* walk();
}

/** The gutter lies along x, the leaves at y > 0. */
const behind = (m: Rigid, { polygon }: Corners[number]): number =>
  polygon.outer.reduce((out, [x, y]) => Math.max(out, -applyRigid(m, [x, y, 0])[1]), 0);
