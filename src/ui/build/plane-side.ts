/** Planes of a stack as they are seen from its end, and what moving one does. */
import { setParameter, valuesOf } from '@/core/document/fields';
import type { Design } from '@/core/document/design';
import { listOf } from '@/core/kinds';

/**
 * In mm how far from the crease it stands, how high what it stands on is, and how high it is itself; `joins`: the plane
 * that its platform goes to.
 */
export interface SidePlane {
  readonly depth: number;
  readonly base: number;
  readonly height: number;
  readonly joins: number | null;
}
export type PlaneEnd = 'top' | 'foot';
export interface PlaneChange {
  readonly next: Design;
  readonly label: string;
}

export function planesOf(design: Design, id: string): SidePlane[] {
  const mechanism = design.mechanisms.find((m) => m.id === id);
  if (!mechanism) return [];
  return listOf(valuesOf(mechanism), 'planes').map((p) => ({
    depth: p.depth as number,
    base: (p.base ?? 0) as number,
    height: p.height as number,
    joins: (p.joins ?? null) as number | null,
  }));
}
export const topOf = ({ base, height }: SidePlane): number => base + height;

/** A plane's top or foot led to a place; what stands on its platform goes up and down with it. */
export function planeLed(design: Design, id: string, k: number, end: PlaneEnd, [x, y]: readonly number[]): PlaneChange {
  const planes = planesOf(design, id);
  const key = end === 'top' ? 'height' : 'depth';
  const value = halves(end === 'top' ? y - planes[k].base : x);
  const led = setParameter(design, id, `planes[${k}].${key}`, value);
  const stands = (p: SidePlane): boolean => p.base > 0 && Math.abs(p.base - topOf(planes[k])) < 1e-6;
  const next = planes.reduce(
    (d, p, i) =>
      end === 'top' && i !== k && stands(p) ? setParameter(d, id, `planes[${i}].base`, planes[k].base + value) : d,
    led,
  );
  return { next, label: `plane ${k + 1} ${key} ${value}` };
}
const halves = (mm: number): number => Math.max(1, Math.round(mm * 2) / 2);

/** A platform between two planes, from the one further out; taken away where it is there. */
export function platformBetween(design: Design, id: string, pair: readonly number[]): PlaneChange {
  const planes = planesOf(design, id);
  const [a, b] = [...pair].sort((i, j) => planes[j].depth - planes[i].depth);
  return {
    next: setParameter(design, id, `planes[${a}].joins`, planes[a].joins === b ? null : b),
    label: `platform from plane ${a + 1} to plane ${b + 1}`,
  };
}
