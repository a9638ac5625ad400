/** Decides of a card that is shut whether something sticks out of it, and of what hangs whether it stays upright. */
import { poseAt, type Pose } from '../src/core/assembly/pose';
import { buildAssembly } from '../src/core/build/build';
import { stockOf, type Design } from '../src/core/document/design';
import type { Judged } from './judge';
import { inside, slabsOf, toEdge } from './solids';

type P2 = readonly [number, number];

/** Past the outline by more than `SURELY_MM` sticks out, by less than `NOT_MM` does not. */
const [SURELY_MM, NOT_MM] = [0.002, 0.0005];

/** Where a place of a facet lies when the card is shut, seen from above. */
function shutAt(pose: Pose, facet: number, [x, y]: P2): P2 {
  const m = pose.placed[facet];
  return [m[0] * x + m[1] * y + m[3], m[4] * x + m[5] * y + m[7]];
}

/** Every corner, and places along the edges, of what is not the cover, against the leaves as they lie on each other. */
export function judgeShut(design: Design): Judged {
  const assembly = buildAssembly(design);
  const shut = poseAt(assembly, Object.fromEntries(assembly.drives.map((d) => [d.id, d.rest])));
  if (shut.stop) return { answer: 'undecided', why: 'it does not close' };
  const cover = assembly.base.facets().filter((f) => f.piece === 'card');
  const leaves = cover.map(({ id, polygon }) => {
    const facet = assembly.facets.findIndex((f) => f.id === id);
    return { outer: polygon.outer.map((p) => shutAt(shut, facet, p)), holes: [] };
  });
  let worst = 0;
  let where = '';
  assembly.facets.forEach((f, i) => {
    if (cover.some((c) => c.id === f.id)) return;
    const { outer } = f.polygon;
    outer.forEach((p, k) => {
      const q = outer[(k + 1) % outer.length];
      for (let t = 0; t < 1; t += 0.1) {
        const at = shutAt(shut, i, [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]);
        if (leaves.some((l) => inside(l, at))) continue;
        const past = Math.min(...leaves.map((l) => toEdge(l, at)));
        if (past > worst) [worst, where] = [past, f.id];
      }
    });
  });
  const why = `${where} sticks out by ${worst.toFixed(3)}`;
  return worst > SURELY_MM ? { answer: 'jams', why } : { answer: worst < NOT_MM ? 'moves' : 'undecided', why };
}

/** Weights of points strewn over what hangs, against its rivet, which is the origin of its own axes. */
export function judgeHanging(design: Design): Judged {
  const assembly = buildAssembly(design);
  const stock = (id: string) => stockOf(design, id);
  const slabs = slabsOf(assembly, stock);
  let least = { mm: Infinity, id: '' };
  for (const [i, f] of assembly.facets.entries()) {
    if (!f.id.includes('.carrier-')) continue;
    let [grams, moment] = [0, 0];
    for (const s of slabs.filter((x) => x.facet === i)) {
      const layer = assembly.layers.find((l) => l.id === s.layer);
      const piece = assembly.pieces.find((p) => p.id === f.piece)!;
      const gsm = stock(layer ? layer.stock : piece.stock).gsm;
      const ys = s.poly.outer.map((p) => p[1]);
      const [low, high] = [Math.min(...ys), Math.max(...ys)];
      const xs = s.poly.outer.map((p) => p[0]);
      const [left, right] = [Math.min(...xs), Math.max(...xs)];
      const STEPS = 160;
      for (let a = 0; a < STEPS; a++)
        for (let b = 0; b < STEPS; b++) {
          const at: P2 = [left + ((a + 0.5) / STEPS) * (right - left), low + ((b + 0.5) / STEPS) * (high - low)];
          if (!inside(s.poly, at)) continue;
          const weight = gsm * (right - left) * (high - low);
          grams += weight;
          moment += weight * at[1];
        }
    }
    if (-moment / grams < least.mm) least = { mm: -moment / grams, id: f.id };
  }
  const why = `${least.id} hangs ${least.mm.toFixed(2)} mm above the middle of its weight`;
  // A rivet of brass, which the judge leaves out, draws the middle towards itself by some hundredths.
  if (Math.abs(least.mm) < 0.1) return { answer: 'undecided', why };
  return { answer: least.mm < 0 ? 'jams' : 'moves', why };
}
