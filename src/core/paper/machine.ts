/** What a cutting machine is, as plain numbers: its bed, its tools, its blade. */

/** What is worked with one tool at a time, in this order. */
export const PASSES = ['pen', 'score', 'perforate', 'inner', 'outline'] as const;
export type Pass = (typeof PASSES)[number];

/** What each pass is, for those who set its tool. */
export const PASS_WORDS: Readonly<Record<Pass, string>> = {
  pen: 'drawn, not cut',
  score: 'scored folds',
  perforate: 'perforated folds',
  inner: 'cuts inside',
  outline: 'outlines',
};

export const PROFILE_VERSION = 1;

export interface Tool {
  /** Its number in the files. */
  readonly tool: number;
  /** How fast it works, mm/s. */
  readonly speedMmS: number;
}
export interface Blade {
  /** How far its tip trails the axis it turns about, mm; 0 for one that is turned by the machine, or a laser. */
  readonly offsetMm: number;
  /** A closed line is begun so far before its start, and gone on so far past its end, mm. */
  readonly leadInMm: number;
  readonly overcutMm: number;
  /** Tighter curves tear, mm. */
  readonly leastRadiusMm: number;
  /** The offset is made up for in the files, or by the machine from the plain lines. */
  readonly madeUpBy: 'file' | 'machine';
  /** Which way round closed lines are cut. */
  readonly direction: 'either' | 'left' | 'right';
}
export interface MachineProfile {
  readonly rhabdoplexMachine: typeof PROFILE_VERSION;
  readonly name: string;
  readonly bed: { readonly widthMm: number; readonly heightMm: number; readonly marginMm: number };
  readonly travelMmS: number;
  readonly accelerationMmS2: number;
  /** To lift or lower a tool, s. */
  readonly liftS: number;
  readonly passes: Readonly<Record<Pass, Tool>>;
  readonly blade: Blade;
}

const tools = (speeds: Readonly<Record<Pass, number>>): MachineProfile['passes'] =>
  Object.fromEntries(PASSES.map((p, k) => [p, { tool: k + 1, speedMmS: speeds[p] }])) as MachineProfile['passes'];

/** Tools from 1 in the order of the passes, each at a speed that suits card: where no machine is chosen. */
export const PLAIN_PASSES = tools({ pen: 20, score: 20, perforate: 20, inner: 20, outline: 20 });

/** Invented machines of the three common builds; their numbers are plausible, of no machine in particular. */
export const MACHINES: readonly MachineProfile[] = [
  {
    rhabdoplexMachine: 1,
    name: 'Small knife on a carrier sheet',
    bed: { widthMm: 305, heightMm: 305, marginMm: 4 },
    travelMmS: 120,
    accelerationMmS2: 900,
    liftS: 0.08,
    passes: tools({ pen: 80, score: 60, perforate: 40, inner: 40, outline: 40 }),
    blade: { offsetMm: 0.3, leadInMm: 1, overcutMm: 1, leastRadiusMm: 0.6, madeUpBy: 'file', direction: 'either' },
  },
  {
    rhabdoplexMachine: 1,
    name: 'Wide knife fed by rollers',
    bed: { widthMm: 610, heightMm: 450, marginMm: 10 },
    travelMmS: 400,
    accelerationMmS2: 2500,
    liftS: 0.05,
    passes: tools({ pen: 250, score: 180, perforate: 120, inner: 150, outline: 150 }),
    blade: {
      offsetMm: 0.25,
      leadInMm: 0.5,
      overcutMm: 1.5,
      leastRadiusMm: 0.5,
      madeUpBy: 'machine',
      direction: 'left',
    },
  },
  {
    rhabdoplexMachine: 1,
    name: 'Flat table with a turned knife',
    bed: { widthMm: 900, heightMm: 600, marginMm: 0 },
    travelMmS: 600,
    accelerationMmS2: 4000,
    liftS: 0.12,
    passes: tools({ pen: 300, score: 250, perforate: 200, inner: 200, outline: 250 }),
    blade: { offsetMm: 0, leadInMm: 0, overcutMm: 0.5, leastRadiusMm: 1.5, madeUpBy: 'machine', direction: 'right' },
  },
];

/** It cuts plain lines as they are drawn: where no machine is chosen. */
export const DEFAULT_MACHINE = MACHINES[2];
