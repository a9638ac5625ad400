/** The plain base: two leaves that meet at the gutter, with or without a liner glued inside (handbook section 3). */
import { rectangle } from '../plane/polygon';
import { identity } from '../linkage';
import { LABEL_STEP, num, type Bond, type Host, type Parameter, type ParameterValues, type Piece } from './kind';
import { GLUE_SET_BACK_MM } from './step-fold';

export const GUTTER = 'card.gutter';
/** Adhesive under a liner stays this far off the gutter (mm), so that both folds stay free; common practice, no source. */
const LINER_RELIEF_MM = 2;

export interface BasePieces {
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  readonly gutter: Host;
  readonly measures: Record<string, number>;
}

export const foldCardParameters: readonly Parameter[] = [
  { key: 'gutter', label: 'Gutter', unit: 'mm', default: 200, min: 10, max: 2000, note: 'Length of the fold.' },
  { key: 'reachA', label: 'Reach of leaf A', unit: 'mm', default: 140, min: 10, max: 1000, note: 'From the gutter to the fore edge of the leaf that lies still.' },
  { key: 'reachB', label: 'Reach of leaf B', unit: 'mm', default: 140, min: 10, max: 1000, note: 'From the gutter to the fore edge of the leaf that turns.' },
  { key: 'fold', label: 'Fold at the', unit: 'choice', default: 'side', choices: ['side', 'top'], note: 'Where the fold lies when the card is read.' },
  { key: 'liner', label: 'Liner margin', unit: 'mm', default: 0, min: 0, max: 100, note: 'The pop-up page as a sheet of its own, this much smaller on every side; 0 for none.' },
];

/** `stock` is of the base, `pageStock` of the liner. */
export function buildFoldCard(values: ParameterValues, stock: string, pageStock: string): BasePieces {
  const [gutter, reachA, reachB, liner] = ['gutter', 'reachA', 'reachB', 'liner'].map((k) => num(values, k));
  const lined = liner > 0;
  const page = leaves(lined ? 'liner' : 'card', GUTTER, 'leaf', lined ? 'Liner' : 'Card', lined ? pageStock : stock, gutter - 2 * liner, reachA - liner, reachB - liner);
  const host: Host = {
    crease: GUTTER, piece: page.id, frame: { origin: [0, 0], along: [1, 0] }, lengthMm: gutter - 2 * liner,
    sideA: 'leafA', sideB: 'leafB', sign: 1, ends: [Math.PI, 0], reachA, reachB, stock: page.stock,
  };
  const measures = { hinge_mm: gutter, ...(lined ? { liner_width_mm: reachA + reachB - 2 * liner, liner_height_mm: gutter - 2 * liner } : {}) };
  if (!lined) return { pieces: [page], bonds: [], gutter: host, measures };
  const base = leaves('card', 'card.cover', 'coverLeaf', 'Card', stock, gutter, reachA, reachB);
  const half = gutter / 2 - liner - GLUE_SET_BACK_MM;
  const under = (side: 'A' | 'B', reach: number) => {
    const [y0, y1] = [LINER_RELIEF_MM, reach - liner - GLUE_SET_BACK_MM];
    const outline = side === 'A' ? rectangle(-half, y0, half, y1) : rectangle(-half, -y1, half, -y0);
    return { id: `card.glue${side}`, mechanism: 'card', outline, facet: `leaf${side}`, onto: { piece: 'card', facet: `coverLeaf${side}`, outline } };
  };
  const bond = (side: 'A' | 'B'): Bond => ({ id: `card.liner${side}`, a: { piece: 'liner', facet: `leaf${side}` }, b: { piece: 'card', facet: `coverLeaf${side}` }, placement: identity() });
  return { pieces: [{ ...page, glue: [under('A', reachA), under('B', reachB)] }, base], bonds: [bond('A'), bond('B')], gutter: host, measures };
}

function leaves(id: string, crease: string, leaf: string, title: string, stock: string, length: number, reachA: number, reachB: number): Piece {
  const half = length / 2;
  return {
    id, title, stock, mechanism: 'card',
    outline: { outer: rectangle(-half, -reachB, half, reachA), holes: [] },
    lines: [],
    creases: [{ id: crease, role: 'valley', mechanism: 'card', a: [-half, 0], b: [half, 0], ends: [Math.PI, 0] }],
    glue: [],
    labels: [
      { name: `${leaf}A`, at: [-half + LABEL_STEP, reachA - LABEL_STEP], mechanism: 'card' },
      { name: `${leaf}B`, at: [-half + LABEL_STEP, -reachB + LABEL_STEP], mechanism: 'card' },
    ],
  };
}
