/**
 * The stack of a card that lies flat, layer by layer where it really is; over a face as high as what is fixed there
 * reaches. A map, not a sum.
 */
import { carrierOf, sameFace, type FaceOf } from '../assembly/carrier';
import { onFacet, type Pose } from '../assembly/pose';
import type { Vec3 } from '../linkage';
import { ringsOf, type Region } from '../plane/polygon';
import { caliperOf, type Evidence } from './rule';

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

/** Paper or foam as the map takes it: where it lies, and how thick it is or how high over its face it reaches. */
interface Sheet {
  readonly rings: readonly (readonly Vec3[])[];
  readonly mm: number;
  /**
   * Over a face, of all that lies there the highest counts: between sheets there may be room. What is folded onto
   * itself lies at one height by its design: there each sheet is so much more.
   */
  readonly face?: FaceOf;
  readonly foldedMm?: number;
}

export function thicknessMap(evidence: Pick<Evidence, 'assembly' | 'brief'>, closed: Pose): ThicknessMap {
  const sheets = [...paperOf(evidence, closed), ...overFaces(evidence, closed)];
  const map = emptyMap(sheets.flatMap((l) => l.rings.flat()));
  const add = (k: number, mm: number): void => {
    map.mm[k] += mm;
    map.layers[k]++;
  };
  for (const { rings, mm, face } of sheets) if (face === undefined) cellsIn(map, rings, (k) => add(k, mm));
  for (const face of facesOf(sheets)) {
    const tops = new Float32Array(map.mm.length);
    const own = sheets.filter((l) => l.face && sameFace(l.face, face));
    for (const height of new Set(own.map((l) => l.mm))) {
      const here = new Float32Array(map.mm.length);
      for (const { rings, mm, foldedMm = 0 } of own.filter((l) => l.mm === height))
        cellsIn(map, rings, (k) => {
          here[k] = here[k] === 0 ? mm : here[k] + foldedMm;
          tops[k] = Math.max(tops[k], here[k]);
          map.layers[k]++;
        });
    }
    tops.forEach((mm, k) => (map.mm[k] += mm));
  }
  let best = 0;
  map.mm.forEach((v, k) => {
    if (v > map.mm[best]) best = k;
  });
  const { origin, cellMm, columns } = map;
  const at = [
    origin[0] + ((best % columns) + 0.5) * cellMm,
    origin[1] + (Math.floor(best / columns) + 0.5) * cellMm,
  ] as const;
  return { ...map, greatest: { mm: map.mm[best] ?? 0, layers: map.layers[best] ?? 0, at } };
}

/** Each once, in the order they come. */
function facesOf(sheets: readonly Sheet[]): FaceOf[] {
  const faces: FaceOf[] = [];
  for (const { face } of sheets) if (face && !faces.some((f) => sameFace(f, face))) faces.push(face);
  return faces;
}

const ringsAt = (closed: Pose, facet: number, region: Region): Vec3[][] =>
  region.flatMap(ringsOf).map((ring) => ring.map((p) => onFacet(closed, facet, p)));

/** What lies on what is under it: facets cut from the card or glued flat, mats and layers with their foam. */
function paperOf(evidence: Pick<Evidence, 'assembly' | 'brief'>, closed: Pose): Sheet[] {
  const { assembly, brief } = evidence;
  const facets = assembly.facets.flatMap((f, i): Sheet[] =>
    carrierOf(assembly, i) ? [] : [{ rings: ringsAt(closed, i, [f.polygon]), mm: caliperOf(evidence, f) }],
  );
  // An island of foam is filled twice over its paper.
  const stuck = assembly.layers.flatMap((l): Sheet[] => [
    { rings: ringsAt(closed, l.facet, l.region), mm: brief.stock(l.stock).caliperMm },
    ...(l.foam.length > 0 ? [{ rings: ringsAt(closed, l.facet, l.foam), mm: l.foamMm }] : []),
  ]);
  // What stands on the base itself, as a stop does.
  const stops = assembly.fillers.flatMap(({ piece, facet, region, thickMm }): Sheet[] => {
    const i = assembly.facets.findIndex((f) => f.piece === piece && f.id === facet);
    return i < 0 || carrierOf(assembly, i) ? [] : [{ rings: ringsAt(closed, i, region), mm: thickMm }];
  });
  const glue = assembly.pieces
    .flatMap((p) => p.glue)
    .flatMap(({ thickMm = 0, onto }): Sheet[] => {
      const i = thickMm > 0 ? assembly.facets.findIndex((f) => f.piece === onto.piece && f.id === onto.facet) : -1;
      return i < 0 ? [] : [{ rings: ringsAt(closed, i, [{ outer: onto.outline, holes: [] }]), mm: thickMm }];
    });
  return [...facets, ...stuck, ...stops, ...glue];
}

/** What is fixed over faces, each as high as it reaches over the paper of its face: sheets, foam, spacers, rivets. */
function overFaces(evidence: Pick<Evidence, 'assembly' | 'brief'>, closed: Pose): Sheet[] {
  const { assembly } = evidence;
  const cutWith = new Set(assembly.pieces.flatMap((p) => (p.cutWith ? [p.id] : [])));
  const folds = new Set(assembly.pieces.flatMap((p) => (p.creases.length > 0 ? [p.id] : [])));
  const ground = (facet: number): number => {
    const carrier = carrierOf(assembly, facet)!;
    const under = assembly.mechanisms.find((m) => m.face && sameFace(m.face, carrier))!.face!;
    return under.caliperMm / 2;
  };
  const sheets = assembly.facets.flatMap((f, i): Sheet[] => {
    const face = carrierOf(assembly, i);
    if (!face || cutWith.has(f.piece)) return [];
    const caliper = caliperOf(evidence, f);
    const rings = ringsAt(closed, i, [f.polygon]);
    return [
      { rings, mm: f.levelMm + caliper / 2 - ground(i), face, ...(folds.has(f.piece) ? { foldedMm: caliper } : {}) },
    ];
  });
  const fills = [...assembly.foam.map((pad) => ({ ...pad, fromMm: null })), ...assembly.fillers].flatMap(
    ({ piece, facet, region, thickMm, fromMm }): Sheet[] => {
      const i = assembly.facets.findIndex((f) => f.piece === piece && f.id === facet);
      const face = i < 0 ? null : carrierOf(assembly, i);
      if (!face) return [];
      const f = assembly.facets[i];
      const from = fromMm ?? caliperOf(evidence, f) / 2;
      return [{ rings: ringsAt(closed, i, region), mm: f.levelMm + from + thickMm - ground(i), face }];
    },
  );
  return [...sheets, ...fills];
}

function emptyMap(points: readonly Vec3[]): Omit<ThicknessMap, 'greatest'> {
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
  return {
    origin: [x0, y0],
    cellMm,
    columns,
    rows,
    mm: new Float32Array(columns * rows),
    layers: new Uint16Array(columns * rows),
  };
}

/** Scan lines through the middles of the cells; even-odd, so holes count as such. */
function cellsIn(
  map: Omit<ThicknessMap, 'greatest'>,
  rings: readonly (readonly (readonly number[])[])[],
  take: (cell: number) => void,
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
      for (let c = from; c <= to; c++) take(row * columns + c);
    }
  }
}

/** Stack over a point of the closed card, mm. */
export function stackAt(map: ThicknessMap, [x, y]: readonly [number, number]): number {
  const c = Math.floor((x - map.origin[0]) / map.cellMm);
  const r = Math.floor((y - map.origin[1]) / map.cellMm);
  return c < 0 || r < 0 || c >= map.columns || r >= map.rows ? 0 : map.mm[r * map.columns + c];
}
