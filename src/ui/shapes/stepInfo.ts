/** The steps of the workshop: what each is called, starts with and asks for. */
import type { Parameter } from '@/core/kinds';
import type { Shape, ShapeStep } from '@/core/shapes/shape';
import { count, deg, mm, UNSET } from '../common/asked';

export interface StepInfo {
  readonly do: ShapeStep['do'];
  readonly name: string;
  readonly start: (other: Shape) => ShapeStep;
  readonly fields: readonly Parameter[];
  /** Key of a shape that it works with. */
  readonly shape?: 'with' | 'what';
}
const choice = (key: string, label: string, ...choices: string[]): Parameter => ({
  key,
  label,
  unit: 'choice',
  default: choices[0],
  choices,
  note: '',
});
const EDGES = ['left', 'right', 'top', 'bottom'];
const place = [mm('x', 'Shift right'), mm('y', 'Shift up'), deg('deg', 'Turn')];
const bool = (name: string, verb: 'unite' | 'subtract' | 'intersect' | 'outside'): StepInfo => ({
  do: verb,
  name,
  start: (other) => ({ do: verb, with: other, x: 0, y: 0, deg: 0 }),
  fields: place,
  shape: 'with',
});

export const STEP_INFO: readonly StepInfo[] = [
  bool('Unite with', 'unite'),
  bool('Take away', 'subtract'),
  bool('Keep what is in both', 'intersect'),
  bool('Keep what is in one only', 'outside'),
  {
    do: 'split',
    name: 'Split by a line',
    start: () => ({ do: 'split', x: 0, y: 20, deg: 0, keep: 'left' }),
    fields: [
      mm('x', 'Through, across'),
      mm('y', 'Through, up'),
      deg('deg', 'Direction'),
      choice('keep', 'Keep', 'left', 'right'),
    ],
  },
  {
    do: 'offset',
    name: 'Inset or outset',
    start: () => ({ do: 'offset', by: -2, corners: 'sharp' }),
    fields: [mm('by', 'Outward', -500, 500), choice('corners', 'Corners', 'sharp', 'round')],
  },
  {
    do: 'mirror',
    name: 'Mirror',
    start: () => ({ do: 'mirror', about: 'upright', keep: false }),
    fields: [choice('about', 'About', 'upright', 'level', ...EDGES), choice('keep', 'Keep both', 'false', 'true')],
  },
  {
    do: 'double',
    name: 'Double about an edge',
    start: () => ({ do: 'double', edge: 'bottom', overlap: 0, hinge: 20 }),
    fields: [
      choice('edge', 'Edge', 'bottom', 'top', 'left', 'right'),
      mm('overlap', 'Overlap', 0),
      mm('hinge', 'Joined fold, least', 0.1),
    ],
  },
  {
    do: 'distribute',
    name: 'Copies along the outline',
    start: () => ({ do: 'distribute', what: { circle: 6 }, size: 6, count: null, spacing: 6, side: 'outside' }),
    fields: [
      mm('size', 'Width of a copy', 0.1),
      count('count', 'Count', 1, 500, UNSET),
      mm('spacing', 'or spacing', 0.1, 2000, UNSET),
      choice('side', 'Side', 'outside', 'inside'),
    ],
    shape: 'what',
  },
  {
    do: 'row',
    name: 'Repeat in a row',
    start: () => ({ do: 'row', count: 3, pitch: 30, deg: 0 }),
    fields: [count('count', 'Count', 1, 200), mm('pitch', 'Pitch'), deg('deg', 'Direction')],
  },
  {
    do: 'drop-holes',
    name: 'Drop holes',
    start: () => ({ do: 'drop-holes', below: null }),
    fields: [count('below', 'Smaller than (mm²)', 0, 100_000, UNSET)],
  },
  {
    do: 'simplify',
    name: 'Simplify',
    start: () => ({ do: 'simplify', tolerance: 0.2 }),
    fields: [mm('tolerance', 'Within', 0, 50)],
  },
  {
    do: 'trim',
    name: 'Trim to a contact',
    start: () => ({ do: 'trim', edge: 'bottom', contact: 10 }),
    fields: [choice('edge', 'Edge', 'bottom', 'top'), mm('contact', 'Contact width', 0.1)],
  },
  {
    do: 'ties',
    name: 'Tie islands',
    start: () => ({ do: 'ties', of: 'window', width: 2.5, count: 2, turn: null, moved: [] }),
    fields: [
      choice('of', 'What is cut', 'window', 'paper'),
      mm('width', 'Tie width', 0.2, 100),
      count('count', 'Ties to each', 1, 12),
      deg('turn', 'Direction of the first', UNSET),
    ],
  },
  {
    do: 'size',
    name: 'Size',
    start: () => ({ do: 'size', width: null, height: 60 }),
    fields: [mm('width', 'Width', 0.1, 2000, UNSET), mm('height', 'Height', 0.1, 2000, UNSET)],
  },
  { do: 'turn', name: 'Turn', start: () => ({ do: 'turn', deg: 90 }), fields: [deg('deg', 'By')] },
  {
    do: 'nudge',
    name: 'Nudge a point',
    start: () => ({ do: 'nudge', ring: 0, point: 0, dx: 0, dy: 0 }),
    fields: [count('ring', 'Outline', 0, 5000), count('point', 'Point', 0, 60_000), mm('dx', 'Right'), mm('dy', 'Up')],
  },
];
export const stepInfo = (name: ShapeStep['do']): StepInfo => STEP_INFO.find((s) => s.do === name)!;
