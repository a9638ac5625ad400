/**
 * The front of a pocket: a rectangle, any shape, or as the facet that it is glued to. It is glued along its edge but
 * for the mouth, and the insert rests on the glue.
 *
 *       ╭──┬───────┬──╮   mouth, as wide as the insert and its play
 *       │░░│       │░░│
 *       │░░│insert │░░│   ░ the edge that is glued
 *        ╲░╰───────╯░╱    floor: the highest glue under the insert
 *          ╲░░░░░░░╱
 */
import { outlineGap } from '../../plane/gap';
import { boxOf, intersect, largest, offset, rectangle, regionBox, subtract } from '../../plane/polygon';
import type { Polygon, Region, Ring } from '../../plane/polygon';
import { ShapeError } from '../../shapes/shape';
import { num, shapeOf, type FaceContext, type ParameterValues } from '../kind';
import { centred } from './common';

export interface PocketFront {
  /** Before a notch or a flap is cut from it, in the mount's axes, mm. */
  readonly outline: Region;
  /** Areas of its glue, each with its name. */
  readonly glue: readonly { readonly name: string; readonly outline: Ring }[];
  /** Where the insert rests, and where the front ends above it. */
  readonly floor: number;
  readonly top: number;
  /** Room beside the insert at each of its sides, where it is least; negative where it has none. */
  readonly sidePlay: number;
  /** Least paper between a flap and the glue, or the edge; not above 0 where it reaches into them. */
  flapRoom(flap: Polygon): number;
}

/** Glue keeps so far inside the edge, and off what slides beside it, mm; common practice, no source. */
const GLUE_INSIDE_MM = 1;
/** Looked at so much above what the insert rests on. */
const ABOVE_FLOOR_MM = 0.01;

export function pocketFront(values: ParameterValues, context: FaceContext): PocketFront {
  const shape = shapeOf(values, 'shape');
  if (values.outline === 'card') return shaped(likeItsCard(values, context), values);
  return shape ? shaped(centred(context.outline(shape)), values) : rectangular(values);
}

/** Of its facet what lies up to the height of the pocket, round three sides. */
function likeItsCard(values: ParameterValues, { face }: FaceContext): Region {
  const { min, max } = boxOf(face.outline.outer);
  return intersect(
    [face.outline],
    [{ outer: rectangle(min[0] - 1, min[1] - 1, max[0] + 1, min[1] + num(values, 'height')), holes: [] }],
  );
}

function rectangular(values: ParameterValues): PocketFront {
  const [width, height, tape] = ['width', 'height', 'tape'].map((k) => num(values, k));
  const [x, y] = [width / 2 - GLUE_INSIDE_MM, height / 2 - GLUE_INSIDE_MM];
  const wide = tape - 2 * GLUE_INSIDE_MM;
  return {
    outline: [{ outer: rectangle(-width / 2, -height / 2, width / 2, height / 2), holes: [] }],
    glue: [
      { name: 'left', outline: rectangle(-x, -y, -x + wide, y) },
      { name: 'right', outline: rectangle(x - wide, -y, x, y) },
      { name: 'foot', outline: rectangle(-x + wide, -y, x - wide, -y + wide) },
    ],
    floor: -height / 2 + tape,
    top: height / 2,
    sidePlay: (width - 2 * tape - num(values, 'insertWidth')) / 2,
    flapRoom: ({ outer }) => {
      const { min, max } = boxOf(outer);
      return Math.min(
        width / 2 - tape - max[0],
        min[0] + width / 2 - tape,
        min[1] + height / 2 - tape,
        height / 2 - max[1],
      );
    },
  };
}

function shaped(outline: Region, values: ParameterValues): PocketFront {
  const whole = largest(outline);
  if (!whole) throw new ShapeError('the front of the pocket has no paper; give it a shape, or let it be higher');
  const { tape, insertWidth, play } = Object.fromEntries(
    ['tape', 'insertWidth', 'play'].map((k) => [k, num(values, k)]),
  );
  const { min, max } = boxOf(whole.outer);
  const half = insertWidth / 2 + play;
  const middle = (min[1] + max[1]) / 2;
  const band = (from: number, to: number): Region =>
    subtract(subtract(offset([whole], -from), offset([whole], -to)), [column(half, middle, max[1] + 1)]);
  const glued = subtract(subtract([whole], offset([whole], -tape)), [column(half, middle, max[1] + 1)]);
  const under = intersect(glued, [column(half, min[1] - 1, middle)]);
  const floor = under.length > 0 ? regionBox(under).max[1] : min[1] + tape;
  const beside = intersect(glued, [
    { outer: rectangle(min[0] - 1, floor + ABOVE_FLOOR_MM, max[0] + 1, max[1] + 1), holes: [] },
  ]);
  const nearest = beside.flatMap((p) => p.outer).reduce((least, [x]) => Math.min(least, Math.abs(x)), max[0]);
  const over = intersect([whole], [column(ABOVE_FLOOR_MM, min[1] - 1, max[1] + 1)]);
  const widest = Math.min(-min[0], max[0]) - tape;
  return {
    outline: [whole],
    glue: band(GLUE_INSIDE_MM, tape - GLUE_INSIDE_MM).map((p, k) => ({ name: `edge-${k + 1}`, outline: p.outer })),
    floor,
    top: over.length > 0 ? regionBox(over).max[1] : max[1],
    sidePlay: Math.min(nearest, widest) - insertWidth / 2,
    flapRoom: (flap) =>
      intersect([flap], glued).length > 0
        ? 0
        : Math.min(outlineGap([flap], glued), outlineGap([flap], [{ ...whole, holes: [] }])),
  };
}

const column = (half: number, from: number, to: number): Polygon => ({
  outer: rectangle(-half, from, half, to),
  holes: [],
});
