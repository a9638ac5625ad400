/** A plate doubled about a straight edge: a leaf over it that opens by itself (docs/mechanisms.md, `easel`). */
import { partId, CARD } from '../../ids';
import { mapRegion, unite } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { levelAt } from '../../shapes/level';
import { SAME_LEVEL_MM } from '../../tolerance';
import type { BaseContext, CreaseLine, Piece } from '../kind';

/** The facet over the plate, and what opens it: its crease has the same name. */
export const LEAF = 'leaf';
const LEAF_DRIVE = partId(CARD, LEAF);

/** A leaf hangs on no less of its fold, mm; common practice, no source. */
const LEAST_HINGE_MM = 10;
/** Where a plate is doubled: not at all, or about the fold at its left or top as its reader sees it. */
export const FOLDS = ['none', 'left', 'top'] as const;
export type PlateFold = (typeof FOLDS)[number];

/** The plate with a leaf over it, joined along its fold; the leaf is opened by a drive of its own. */
export function doubled(
  piece: Piece,
  fold: PlateFold,
  refuse: BaseContext['refuse'],
): { piece: Piece; drive?: string } {
  if (fold === 'none') return { piece };
  const drive = LEAF_DRIVE;
  // Turned so that the fold lies along x, the plate above it.
  const { outer } = piece.outline;
  const edge = fold === 'left' ? Math.min(...outer.map((p) => p[0])) : Math.max(...outer.map((p) => p[1]));
  const laid = ([x, y]: Vec2): Vec2 => (fold === 'left' ? [y, x - edge] : [x, edge - y]);
  const back = ([u, v]: Vec2): Vec2 => (fold === 'left' ? [v + edge, u] : [u, edge - v]);
  const flat = mapRegion([piece.outline], laid, true);
  const joined = levelAt(flat, SAME_LEVEL_MM);
  if (joined.length !== 1 || joined[0].to - joined[0].from < LEAST_HINGE_MM)
    refuse(`its plate has no one straight edge at its ${fold} to be folded about; choose another shape or fold`);
  const [{ from, to }] = joined;
  const whole = unite(
    flat,
    mapRegion(flat, ([u, v]): Vec2 => [u, -v], true),
  );
  const crease: CreaseLine = {
    id: drive,
    role: 'valley',
    mechanism: CARD,
    a: back([from, 0]),
    b: back([to, 0]),
    ends: [Math.PI, undefined],
    drive: { id: drive, at: Math.PI, rate: -1 },
  };
  const [own] = piece.labels;
  const [u, v] = laid(own.at);
  return {
    drive,
    piece: {
      ...piece,
      outline: mapRegion(whole, back, true)[0],
      creases: [crease],
      labels: [own, { ...own, name: LEAF, at: back([u, -v]) }],
    },
  };
}
