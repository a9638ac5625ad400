/**
 * An off-centre fold with an insert that folds out (docs/mechanisms.md). Flat axes, mm: x along the fold from its
 * middle, the back panel at y > 0 lies still, the short flap at y < 0 turns. The insert is glued inside the back panel
 * with its fold toward the fore edge, and folds out over that.
 */
import { openTo } from '../../drives';
import { partId, CARD } from '../../ids';
import { shiftBy } from '../../linkage';
import { rectangle } from '../../plane/polygon';
import {
  LABEL_STEP,
  num,
  type Base,
  type BaseContext,
  type BaseKind,
  type Host,
  type ParameterValues,
  type Piece,
  THE_REST,
} from '../kind';
import { lengths } from '../parameters';
import { GUTTER, POSTED } from './fold-card';

const INSERT = 'insert';
export const INSERT_FOLD = partId(CARD, 'insertFold');
/** Adhesive stays this far off the insert's fold and its edges, mm; common practice, no source. */
const GLUE_INSET_MM = 3;

/** Where the parts lie, mm. */
interface Sizes {
  readonly height: number;
  /** The flap, the back panel. */
  readonly flap: number;
  readonly back: number;
  /** The insert: its height, the panel that is glued, the one that folds out. */
  readonly tall: number;
  readonly glued: number;
  readonly free: number;
  /** Its fold, from that of the base. */
  readonly foldAt: number;
}

function sizesOf(values: ParameterValues): Sizes {
  const [length, height, score] = ['length', 'height', 'score'].map((k) => num(values, k));
  const [insertLength, tall, glued] = ['insertLength', 'insertHeight', 'insertScore'].map((k) => num(values, k));
  const back = length - score;
  return { height, flap: score, back, tall, glued, free: insertLength - glued, foldAt: (back + glued) / 2 };
}

/** Sizes that leave a panel nothing, as they are wrong. */
function lacking({ flap, back, free }: Sizes): string | null {
  if (back <= flap) return `its back panel of ${back} mm is no longer than its flap of ${flap} mm; score it nearer`;
  if (free <= 0) return 'its insert is scored beyond its own length';
  return null;
}

function build(values: ParameterValues, { stock, pageStock, refuse }: BaseContext): Base {
  const sizes = sizesOf(values);
  const { height, flap, back, tall, glued, free, foldAt } = sizes;
  const wrong = lacking(sizes);
  if (wrong) refuse(wrong);
  const half = height / 2;
  const card: Piece = {
    id: CARD,
    title: 'Card',
    mechanism: CARD,
    stock,
    outline: { outer: rectangle(-half, -flap, half, back), holes: [] },
    lines: [],
    glue: [],
    creases: [{ id: GUTTER, role: 'valley', mechanism: CARD, a: [-half, 0], b: [half, 0], ends: [Math.PI, 0] }],
    labels: [
      { name: 'leafA', at: [-half + LABEL_STEP, back - LABEL_STEP], mechanism: CARD },
      { name: 'leafB', at: [-half + LABEL_STEP, -flap + LABEL_STEP], mechanism: CARD },
    ],
  };
  const patch = rectangle(-tall / 2 + GLUE_INSET_MM, -glued + GLUE_INSET_MM, tall / 2 - GLUE_INSET_MM, -GLUE_INSET_MM);
  const drive = partId(CARD, INSERT);
  const insert: Piece = {
    id: INSERT,
    title: 'Insert',
    mechanism: CARD,
    stock: pageStock,
    outline: { outer: rectangle(-tall / 2, -glued, tall / 2, free), holes: [] },
    lines: [],
    creases: [
      {
        id: INSERT_FOLD,
        role: 'valley',
        mechanism: CARD,
        a: [-tall / 2, 0],
        b: [tall / 2, 0],
        // At rest it is shut, whatever the flap does.
        ends: [Math.PI, Math.PI],
        drive: { id: drive, at: Math.PI, rate: -1 },
      },
    ],
    glue: [
      {
        id: partId(CARD, 'insertGlue'),
        mechanism: CARD,
        outline: patch,
        facet: 'insertA',
        onto: { piece: CARD, facet: 'leafA', outline: patch.map(([x, y]) => [x, y + foldAt]) },
      },
    ],
    labels: [
      { name: 'insertA', at: [-tall / 2 + LABEL_STEP, -LABEL_STEP], mechanism: CARD },
      { name: 'insertB', at: [-tall / 2 + LABEL_STEP, LABEL_STEP], mechanism: CARD },
    ],
  };
  const host = (
    own: Pick<Host, 'crease' | 'piece' | 'sideA' | 'sideB' | 'reachA' | 'reachB' | 'stock' | 'ends'>,
  ): Host => ({
    ...own,
    frame: { origin: [0, 0], along: [1, 0] },
    lengthMm: own.piece === CARD ? height : tall,
    sign: 1,
  });
  return {
    pieces: [card, insert],
    bonds: [
      {
        id: partId(CARD, 'insertBond'),
        a: { piece: CARD, facet: 'leafA' },
        b: { piece: INSERT, facet: 'insertA' },
        placement: shiftBy([0, foldAt, 0]),
      },
    ],
    hosts: [
      host({
        ...{ crease: GUTTER, piece: CARD, sideA: 'leafA', sideB: 'leafB', stock },
        ...{ reachA: back, reachB: flap, ends: [Math.PI, 0] },
      }),
      host({
        ...{ crease: INSERT_FOLD, piece: INSERT, sideA: 'insertB', sideB: 'insertA', stock: pageStock },
        ...{ reachA: free, reachB: glued, ends: [Math.PI, Math.PI] },
      }),
    ],
    lead: { crease: GUTTER, still: 'leafA', turning: 'leafB' },
    drives: [{ id: drive, label: 'insert', unit: 'deg', from: 0, to: 180, rest: 0 }],
    measures: () => measured(sizes, num(values, 'mat')),
    inner: [INSERT],
    interruptions: [],
  };
}

function measured({ height, flap, back, tall, glued, free, foldAt }: Sizes, mat: number): Record<string, number> {
  // Shut, the panel that folds out lies back over the other from the fold.
  const [low, high] = [Math.min(0, foldAt - Math.max(glued, free)), Math.max(back, foldAt)];
  return {
    flap_mm: flap,
    back_mm: back,
    insert_glued_mm: glued,
    insert_free_mm: free,
    flap_mat_width_mm: flap - mat,
    back_mat_width_mm: back - mat,
    mat_height_mm: height - mat,
    insert_mat_width_mm: glued - mat,
    insert_mat_height_mm: tall - mat,
    shut_width_mm: high - low,
    shut_height_mm: Math.max(height, tall),
    spread_width_mm: flap + Math.max(back, foldAt + free),
    overhang_mm: Math.max(0, -low, (tall - height) / 2),
  };
}

const size = lengths(5, 1500);

/** Parts of a card of so much gutter and reach: the flap is a little more than half of the back panel. */
const FLAP_PART = 0.55;

export const gateInsert: BaseKind = {
  id: 'gate-insert',
  mount: 'base',
  title: 'Off-centre card with an insert',
  says: 'A short flap over a long back panel, and inside it an insert that folds out over the fore edge.',
  sign: 'M1 12 H15 M1 12 V5 H7 M5 9 H14 V6 H7',
  parameters: [
    size('length', 'Length', 215.9, 'Of the base before it is folded.'),
    size('height', 'Height', 107.95, 'Of the base along its fold.'),
    size('score', 'Flap', 76.2, 'From the free edge of the flap to its fold.'),
    size('insertLength', 'Insert, length', 215.9, 'Before it is folded.'),
    size('insertHeight', 'Insert, height', 82.55, 'Along its fold.'),
    size('insertScore', 'Insert, glued part', 107.95, 'From its edge to its fold: the part that is glued.'),
    {
      key: 'mat',
      label: 'Mats smaller by',
      unit: 'mm',
      default: 3.2,
      min: 0,
      max: 50,
      note: 'In all, each way. Common practice, no source: 3.2 mm (1/8 in).',
    },
  ],
  order: () => [
    {
      title: 'Fold the cover and the insert',
      text: 'Fold both along their scores, press the folds flat, and open them again.',
      openDeg: 120,
      parts: ['leafA', 'leafB', 'insertA', 'insertB'],
      folds: [THE_REST],
    },
    {
      title: 'Glue the insert in',
      text: 'Shut, its fold toward the fore edge, the same room on both sides; glue under the lower part only.',
      openDeg: 150,
      parts: ['insertA', 'insertB'],
      glue: [THE_REST],
      leaves: ['insertB'],
    },
  ],
  brief: ['length', 'height', 'score', 'insertLength', 'insertHeight', 'insertScore', 'mat'],
  fitting: ({ gutter, reach }) => {
    const flap = Math.round(reach * FLAP_PART);
    const [part, tall] = [Math.round(reach * 0.8), Math.round(gutter * 0.8)];
    return {
      length: reach + flap,
      height: gutter,
      score: flap,
      insertLength: 2 * part,
      insertHeight: tall,
      insertScore: part,
    };
  },
  sizes: (v) => ({ gutter: num(v, 'height'), reach: num(v, 'length') - num(v, 'score') }),
  turns: () => ({ away: ['length', 'insertLength'], along: ['height', 'insertHeight'], size: ['length', 'height'] }),
  sizeOf: (v, say) => `${say(num(v, 'height'))} × ${say(num(v, 'length') - num(v, 'score'))}`,
  states: () => [
    POSTED,
    { id: 'spread', name: 'Spread out', drives: { ...openTo(180), [partId(CARD, INSERT)]: 180 }, stance: 'lying' },
  ],
  crease: GUTTER,
  face: (_, side) => (side === 'outside' ? 'leafB' : 'leafA'),
  behind: 'leafA',
  words: { leafA: 'back', leafB: 'flap' },
  // A book whose cover is short: its fold at the left.
  up: () => [-1, 0],
  build,
};
