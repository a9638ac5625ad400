/** `thickness`: the closed stack, layer by layer where it really lies. A map, not a sum. */
import { CLOSED } from '../drives';
import { onFacet, type Pose } from '../assembly/pose';
import { ringsOf, type Region } from '../plane/polygon';
import { basePiece, caliperOf, finding, type Evidence, type Rule } from './rule';
import { wordsFor } from './words';

export interface ThicknessMap {
  /** Lower corner of the first cell, mm, closed pose: along the gutter, away from it. */
  readonly origin: readonly [number, number];
  readonly cellMm: number;
  readonly columns: number;
  readonly rows: number;
  /** Stack at the middle of each cell, mm, row by row from the gutter's side. */
  readonly mm: Float32Array;
  readonly layers: Uint16Array;
  readonly greatest: { readonly mm: number; readonly layers: number; readonly at: readonly [number, number] };
}

const stacks = new WeakMap<Evidence, ThicknessMap | null>();
/** The map of the evidence's closed pose, worked out once for all who ask; null where it does not close. */
export function closedStack(evidence: Evidence): ThicknessMap | null {
  let map = stacks.get(evidence);
  if (map === undefined) {
    map = evidence.closed && thicknessMap(evidence, evidence.closed);
    stacks.set(evidence, map);
  }
  return map;
}

/** Cells along the longer side; a strip narrower than a cell is not seen. */
const CELLS = 280;

export function thicknessMap(evidence: Pick<Evidence, 'assembly' | 'brief'>, closed: Pose): ThicknessMap {
  const { assembly } = evidence;
  // What is cut as one with another lies in that one's paper.
  const doubled = new Set(assembly.pieces.flatMap((p) => (p.cutWith ? [p.id] : [])));
  const facets = assembly.facets.map((f, i) => ({
    doubled: doubled.has(f.piece),
    rings: ringsOf(f.polygon).map((ring) => ring.map((p) => onFacet(closed, i, p))),
    caliper: caliperOf(evidence, f),
  }));
  // Mats and layers, and foam where it is; an island of foam is filled twice over its paper.
  const stuck = assembly.layers.flatMap((l) => {
    const rings = (region: Region) =>
      region.flatMap(ringsOf).map((ring) => ring.map((p) => onFacet(closed, l.facet, p)));
    return [
      { rings: rings(l.region), caliper: evidence.brief.stock(l.stock).caliperMm },
      ...(l.foam.length > 0 ? [{ rings: rings(l.foam), caliper: l.foamMm }] : []),
    ];
  });
  const pads = assembly.foam.flatMap(({ piece, facet, region, thickMm }) => {
    const i = assembly.facets.findIndex((f) => f.piece === piece && f.id === facet);
    const rings = region.flatMap(ringsOf).map((ring) => ring.map((p) => onFacet(closed, i, p)));
    return i < 0 ? [] : [{ rings, caliper: thickMm }];
  });
  const layers = [...facets.filter((f) => !f.doubled), ...stuck, ...pads];
  const points = layers.flatMap((l) => l.rings.flat());
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of points) {
    x0 = Math.min(x0, x);
    x1 = Math.max(x1, x);
    y0 = Math.min(y0, y);
    y1 = Math.max(y1, y);
  }
  const cellMm = Math.max(x1 - x0, y1 - y0) / CELLS;
  const columns = Math.max(1, Math.ceil((x1 - x0) / cellMm));
  const rows = Math.max(1, Math.ceil((y1 - y0) / cellMm));
  const map = {
    origin: [x0, y0] as const,
    cellMm,
    columns,
    rows,
    mm: new Float32Array(columns * rows),
    layers: new Uint16Array(columns * rows),
  };
  for (const { rings, caliper } of layers) fillPolygon(map, rings, caliper);
  let best = 0;
  map.mm.forEach((v, k) => {
    if (v > map.mm[best]) best = k;
  });
  const at = [x0 + ((best % columns) + 0.5) * cellMm, y0 + (Math.floor(best / columns) + 0.5) * cellMm] as const;
  return { ...map, greatest: { mm: map.mm[best] ?? 0, layers: map.layers[best] ?? 0, at } };
}

/** Scan lines through the middles of the cells; even-odd, so holes count as such. */
function fillPolygon(
  map: Omit<ThicknessMap, 'greatest'>,
  rings: readonly (readonly (readonly number[])[])[],
  caliper: number,
): void {
  const { origin, cellMm, columns, rows } = map;
  const ys = rings.flatMap((ring) => ring.map((p) => p[1]));
  const first = Math.max(0, Math.floor((Math.min(...ys) - origin[1]) / cellMm - 0.5));
  const last = Math.min(rows - 1, Math.ceil((Math.max(...ys) - origin[1]) / cellMm));
  for (let row = first; row <= last; row++) {
    const y = origin[1] + (row + 0.5) * cellMm;
    const crossings: number[] = [];
    for (const ring of rings) {
      ring.forEach((p, i) => {
        const q = ring[(i + 1) % ring.length];
        if (p[1] > y !== q[1] > y) crossings.push(p[0] + ((q[0] - p[0]) * (y - p[1])) / (q[1] - p[1]));
      });
    }
    crossings.sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const from = Math.max(0, Math.ceil((crossings[k] - origin[0]) / cellMm - 0.5));
      const to = Math.min(columns - 1, Math.floor((crossings[k + 1] - origin[0]) / cellMm - 0.5));
      for (let c = from; c <= to; c++) {
        map.mm[row * columns + c] += caliper;
        map.layers[row * columns + c]++;
      }
    }
  }
}

/** Stack over a point of the closed card, mm. */
export function stackAt(map: ThicknessMap, [x, y]: readonly [number, number]): number {
  const c = Math.floor((x - map.origin[0]) / map.cellMm);
  const r = Math.floor((y - map.origin[1]) / map.cellMm);
  return c < 0 || r < 0 || c >= map.columns || r >= map.rows ? 0 : map.mm[r * map.columns + c];
}

export const thickness: Rule = {
  id: 'thickness',
  needs: 'closed',
  check: (evidence) => {
    const { assembly, brief } = evidence;
    const map = brief.post && closedStack(evidence);
    if (!map || !brief.post) return [];
    const { greatest } = map;
    const { most, least, name } = brief.post;
    const over = greatest.mm > most.thickMm;
    const under = least !== undefined && greatest.mm < least.thickMm;
    if (!over && !under) return [];
    const limit = over ? most.thickMm : least!.thickMm;
    const say = wordsFor(evidence);
    return [
      finding({
        rule: 'thickness',
        severity: 'blocks',
        mechanism: assembly.base.mechanism,
        piece: basePiece(assembly).id,
        measured: greatest.mm,
        limit,
        at: CLOSED,
        aspect: over ? 'most' : 'least',
        message:
          `Closed it is ${say.fine(greatest.mm)} thick (${greatest.layers} layers at ${say.place(greatest.at)}); ` +
          `${name} takes ${over ? 'at most' : 'at least'} ${say.fine(limit)}.`,
      }),
    ];
  },
};
