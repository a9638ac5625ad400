/** What the solver starts from and falls back on, by itself: seeds of a vertex, least bending, exact ends. */
import fc from 'fast-check';
import { assembleCreasePattern } from '../assembly/crease-pattern';
import { foldDeg, poseOpen } from '../assembly/pose';
import { parallelogramGrid, vertexPattern } from '../tests/patterns';
import { degToRad } from '../units/angle';
import { leastBending } from './bending';
import { placeBodies } from './bodies';
import { solveOrder } from './blocks';
import type { Linkage } from './joint';
import { loopState } from './loop-error';
import { seeded } from './random';
import { applyRigid, compose, norm3, sub3, turnAbout, type Rigid, type Vec3 } from './rigid';
import { vertexSeeds } from './vertex';

describe('seeds of a flat-foldable vertex', () => {
  // Huffman 1976: the loop closes exactly for the right half-angle ratio, so one of the seeds needs no solving at all.
  test('one of them closes the loop to rounding, on both branches, for any sectors and any known fold', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 160, noNaN: true }),
        fc.double({ min: 20, max: 160, noNaN: true }),
        fc.constantFrom('+-++', '-+++', '++-+', '+++-', '-+--'),
        fc.double({ min: 5, max: 120, noNaN: true }),
        (a, b, roles, foldedDeg) => {
          fc.pre(Math.abs(a - b) > 2 && Math.abs(a + b - 180) > 2);
          const { assembly } = assembleCreasePattern(vertexPattern([a, b, 180 - a, 180 - b], roles));
          const { linkage } = assembly;
          const block = solveOrder(linkage).blocks.find((k) => k.loops.length > 0)!;
          const q = new Float64Array(linkage.joints.length);
          const known = block.loops[0].steps.map((s) => s.joint).find((j) => !block.unknowns.includes(j))!;
          q[known] = linkage.joints[known].role * degToRad(foldedDeg);
          const seeds = vertexSeeds(linkage, block, new Float64Array(q.length), q);
          expect(seeds.length).toBeGreaterThanOrEqual(4);
          const off = seeds.map((seed) => {
            const full = q.slice();
            block.unknowns.forEach((j, k) => (full[j] = seed[k]));
            return loopState(linkage, block.loops[0], full).sizeMm;
          });
          const pose = poseOpen(assembly, 180 - foldedDeg);
          // Roles that no such vertex can have stop at once; then no seed has to fit.
          if (!pose.stop && Math.abs(foldDeg(pose, assembly.creases[0])) > 1)
            expect(Math.min(...off)).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 150 },
    );
  });
  test('a vertex that is not flat-foldable, and one of six creases, has none', () => {
    for (const sectors of [
      [70, 100, 115, 75],
      [60, 60, 60, 60, 60, 60],
    ]) {
      const { linkage } = assembleCreasePattern(vertexPattern(sectors, '+-+-+-'.slice(0, sectors.length))).assembly;
      const block = solveOrder(linkage).blocks.find((k) => k.loops.length > 0)!;
      const q = new Float64Array(linkage.joints.length);
      expect(vertexSeeds(linkage, block, q, q)).toEqual([]);
    }
  });
});

describe('least bending', () => {
  const { assembly } = assembleCreasePattern(parallelogramGrid(4, 4));
  const { linkage } = assembly;
  const pose = poseOpen(assembly, 70);
  /** Sum of squared distances between the two sides of every crease, at both its ends: the test's own. */
  const cost = ({ joints }: Linkage, bodies: readonly Rigid[]): number =>
    joints
      .flatMap((j) => j.span.map((p: Vec3) => norm3(sub3(applyRigid(bodies[j.a], p), applyRigid(bodies[j.b], p)))))
      .reduce((sum, gap) => sum + gap * gap, 0);
  /** Bodies that hang on body 0 by driven joints alone stay where they are. */
  const fixed = new Set<number>([0]);
  for (let grew = true; grew;) {
    grew = false;
    for (const j of linkage.joints)
      if (j.driven && fixed.has(j.a) !== fixed.has(j.b)) {
        fixed.add(j.a).add(j.b);
        grew = true;
      }
  }
  const random = seeded(11);
  const shaken = (bodies: readonly Rigid[], mm: number, stays: ReadonlySet<number>): Rigid[] =>
    bodies.map((b, i) => {
      if (stays.has(i)) return b;
      const axis: Vec3 = [random() - 0.5, random() - 0.5, random() - 0.5];
      const about: Vec3 = [b[3], b[7], b[11]];
      const turned = compose(turnAbout(about, axis.map((x) => x / norm3(axis)) as unknown as Vec3, mm / 40), b).slice();
      for (const k of [3, 7, 11]) turned[k] += (random() - 0.5) * mm;
      return turned;
    });
  const bodies = placeBodies(linkage, pose.folds.q);
  test('facets that were shaken out of a pose that closes come back to one that does', () => {
    const start = shaken(bodies, 2, fixed);
    expect(cost(linkage, start)).toBeGreaterThan(1);
    const { bodies: found, gap } = leastBending(linkage, start, pose.folds.q);
    expect(cost(linkage, found)).toBeLessThan(1e-6);
    expect(gap.mm).toBeLessThan(1e-3);
  });
  test('where nothing closes it is a minimum: no small move of the facets makes the gaps smaller', () => {
    // The driven facet stands 1 mm from where it belongs.
    const start = shaken(bodies, 1, new Set([0]));
    const { bodies: found } = leastBending(linkage, start, pose.folds.q);
    const least = cost(linkage, found);
    expect(least).toBeGreaterThan(1e-3);
    expect(least).toBeLessThan(cost(linkage, start));
    fixed.forEach((i) => expect(found[i]).toEqual(start[i]));
    for (let k = 0; k < 60; k++) expect(cost(linkage, shaken(found, 0.02, fixed))).toBeGreaterThan(least * (1 - 1e-6));
  });
});
