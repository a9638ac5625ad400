/**
 * How parts that move fit as they were cut and glued: what their kinds measure and ask for (`Demand`), with the cut
 * edges of both parts off. A slot whose edges lie further in and a tab whose edges lie further out leave less play;
 * the same makes a head wider than its slot, and covers more.
 */
import type { Assembly } from '../assembly/assembly';
import type { Demand } from '../kinds';
import type { Astray } from './scatter';

type FitRule = Extract<Demand['rule'], 'bind' | 'captive' | 'covered'>;
/** What growing paper does to what is measured. */
const GROWN: Readonly<Record<FitRule, 1 | -1>> = { bind: -1, captive: 1, covered: 1 };
const isFit = (rule: Demand['rule']): rule is FitRule => Object.hasOwn(GROWN, rule);

export interface Fit {
  readonly mechanism: string;
  readonly rule: FitRule;
  readonly aspect: string;
  /** As drawn, over what it needs to work at all, mm. */
  readonly spareMm: number;
  readonly levers: readonly string[];
  /** Pieces whose cut edges it lies between. */
  readonly pieces: readonly string[];
  /** What of it is glued. */
  readonly bonds: readonly string[];
}

export function fitsOf({ mechanisms, facets, pieces, bonds }: Assembly): Fit[] {
  return mechanisms.flatMap((m) => {
    const own = pieces.filter((p) => p.mechanism === m.id).map((p) => p.id);
    const onto = m.face?.piece ?? m.host?.piece;
    const glued = bonds.filter((b) => own.includes(b.a.piece) || own.includes(b.b.piece)).map((b) => b.id);
    return m.demands.flatMap(({ rule, aspect, measured, blocksUnder, unit, offPaper, levers, subjects }): Fit[] => {
      if (unit !== 'mm' || offPaper || !isFit(rule)) return [];
      const named = facets.filter((f) => subjects.includes(f.id)).map((f) => f.piece);
      const between = [...new Set([...named, ...(named.length < 2 && onto ? [onto] : [])])];
      const spareMm = measured - blocksUnder;
      return [{ mechanism: m.id, rule, aspect, spareMm, levers, pieces: between, bonds: glued }];
    });
  });
}

/** What is left to spare in one made card; below 0 it does not work. */
export function spareOf({ rule, spareMm, pieces, bonds }: Fit, astray: Astray): number {
  const grown = pieces.reduce((sum, p) => sum + astray.of('cut', p), 0);
  // What is glued beside its place covers that much less on one side.
  const beside = Math.max(0, ...bonds.map((b) => Math.hypot(astray.of('glueX', b), astray.of('glueY', b))));
  return spareMm + GROWN[rule] * grown - (rule === 'covered' ? beside : 0);
}
