/** What crosses between the interface and the workers: plain data only, and the one list of jobs. */
import type { Derived, ScenePose, Way } from './scene-types';
import type { Judged, ToldStudy } from './told';
import type { Dimension } from '@/core/build/dimensions';
import type { FilmChoice } from '@/core/formats/film';
import type { PaintChoice } from './film';
import type { Grip } from '@/core/build/grips';
import type { GripLimit } from '@/core/proof/grip-limits';
import type { PosedGrip } from '@/core/build/posed-grips';
import type { Vec3 } from '@/core/linkage';
import type { OwnHold } from '@/core/build/own-ends';
import type { RoleChoice } from '@/core/build/own-roles';
import type { Snap } from '@/core/build/snaps';
import type { State } from '@/core/drives';
import type { ReadTemplate } from '@/core/formats/template-read';
import type { Fault, TemplateLine } from '@/core/pattern/mending';
import type { Template, TemplateJoin } from '@/core/document/template';
import type { KeptSize } from '@/core/build/template';
import type { PieceStock } from '@/core/build/bring';
import type { Proposal } from '@/core/build/template-proposals';
import type { FoundWaterfall } from '@/core/build/template-waterfall';
import type { Severing } from '@/core/build/template-severing';
import type { TemplateRole } from '@/core/pattern/pattern';
import type { LetteredPlane, Outline, StrutSheet, WorkedShape } from '@/core/build/workshop';
import type { Shape, ShapeAsset, TextShape } from '@/core/shapes/shape';
import type { Raster, TraceWishes } from '@/core/shapes/trace';
import type { ExportChoice } from '@/core/formats/export';
import type { Glance } from '@/core/formats/glance';
import type { Picture } from '@/core/formats/picture';
import type { StopPicture } from '@/core/formats/stops';
import type { Ring } from '@/core/plane/polygon';
import type { Vec2 } from '@/core/plane/vec2';
import type { Design } from '@/core/document/design';
import type { Listed } from '@/core/document/listed';
import type { Proof } from '@/core/proof/prove';
import type { Room } from '@/core/proof/room';
import type { Work, WorkStep } from '@/core/build/steps';
import type { TightCurve } from '@/core/cutting/blade';
import type { StepPicture } from '@/core/formats/step-picture';
import type { MachineProfile, Pass } from '@/core/paper/machine';
import type { Beds } from '@/core/sheets/beds';
import type { InHand } from '@/core/sheets/hand';
import type { Trouble } from '@/core/sheets/trouble';
import type { CutReport } from '@/core/simulate/report';
import type { CutState } from '@/core/simulate/run';
import type { Sweep } from '@/core/proof/sweep';
import type { WhatIfPoint } from '@/core/proof/what-if';
import type { CutListRow } from '@/core/sheets/cutlist';
import type { Layout } from '@/core/sheets/layout';
import type { Finding, ThicknessMap } from '@/core/rules';
import type { Judgement, MapAsk, MapCell } from '@/core/decide/map';
import type { StudyAsk } from '@/core/decide/study';
import type { Candidate, TargetAsk } from '@/core/decide/target';
import type { WearPlace } from '@/core/decide/wear';

export * from './scene-types';
export * from './told';

export interface PosedHold {
  readonly corner: Vec3;
  readonly grips: readonly PosedGrip[];
}
export interface InHold {
  readonly grips: readonly Grip[];
  /** Of lines of one's own: their ends, and what they may hang on. */
  readonly own: OwnHold;
  readonly dimensions: readonly Dimension[];
}
/** The lines of a template with their roles, what is wrong with them, and which would part a piece. */
export interface Drawn {
  readonly lines: readonly TemplateLine[];
  readonly faults: readonly Fault[];
  readonly severing: readonly Severing[];
}
/** A piece of a template, as drawn in its file: what it is called, and a place on its paper. */
export interface OfferedPiece {
  readonly id: string;
  readonly title: string;
  readonly outline: Ring;
  readonly at: Vec2;
  /** What it is cut from so far. */
  readonly stock: string;
}
/** What a template offers: its pieces, as drawn in its file, and what they could be joined and folded by. */
export interface Offers {
  readonly pieces: readonly OfferedPiece[];
  readonly joins: readonly Proposal[];
  readonly folds: readonly Readonly<Record<string, TemplateRole>>[];
  /** What keeps its size when the rest is scaled. */
  readonly kept: readonly KeptSize[];
  /** What its pieces are parts of, that no joins of theirs would move. */
  readonly waterfall: FoundWaterfall | null;
}
/** A shape brought in from elsewhere, as path data, and what of it was left out. */
export interface Brought {
  readonly path: string;
  readonly leftOut: readonly string[];
  readonly outline: Outline;
}

/** The cut list with the outline of each piece, by id. */
export interface CutListing {
  readonly rows: readonly CutListRow[];
  readonly outlines: Readonly<Record<string, readonly Ring[]>>;
}
export interface PicturedStep extends StepPicture {
  readonly step: WorkStep;
}
/** A piece in a hand, over a sheet. */
export interface HeldPiece {
  readonly slot: string;
  readonly piece: string;
  readonly copy: number;
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
}
export interface SheetTrouble {
  readonly slot: string;
  readonly piece: string;
  readonly copy: number;
  readonly trouble: Trouble;
}
export interface Laid {
  readonly layout: Layout;
  readonly beds: Beds | null;
  readonly troubles: readonly SheetTrouble[];
}
/** What the simulated cutter is given: a sheet, a bed or the test strip, in a language. */
export interface CutWhat {
  readonly sheet?: number;
  readonly bed?: number;
  readonly strip?: boolean;
  readonly format: 'svg' | 'dxf' | 'plt' | 'gcode';
  /** The print of the sheet lies so on the bed; its marks are looked for, and the cut follows them. */
  readonly lies?: { readonly dx: number; readonly dy: number; readonly turnDeg: number };
}
/** How the scanner found the print to lie, and how far the cut is off at worst after that, mm. */
export interface Scanned {
  readonly dx: number;
  readonly dy: number;
  readonly turnDeg: number;
  readonly errorMm: number;
}
type CutLine = { readonly pass: Pass; readonly points: Ring };
export interface CutBegun {
  readonly estimateS: number;
  readonly strokes: number;
  readonly lengthMm: number;
  readonly lines: readonly CutLine[];
  readonly passes: readonly Pass[];
  readonly tight: readonly TightCurve[];
  readonly scanned: Scanned | null;
  readonly skipped: readonly string[];
}
export interface CutMore extends CutState {
  /** What was cut since the last time: it goes on where a stroke of that number ended. */
  readonly strokes: readonly (CutLine & { readonly stroke: number })[];
  /** Once it is done. */
  readonly report: CutReport | null;
}

export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      readonly why: string;
      /** It was given up on request. */
      readonly stopped?: true;
    };

/** A design on its way to a worker: whole the first time, by its revision from then on. */
export interface Sent {
  readonly revision: number;
  readonly design?: Design;
}
/** A worker's answer where it does not hold the revision: the design is wanted whole. */
export const UNKNOWN_REVISION = 'unknown revision';

export type DrawnSweep = Pick<Sweep, 'drive' | 'piece'> & { readonly rings: readonly Ring[] };

export interface Engine {
  /** Whether a value is a card, with its size in words. */
  check(value: unknown): Promise<Answer<Listed>>;
  load(design: Design): Promise<Answer<Derived>>;
  /** `onWay`: told every now and then how far a long walk has come, degrees open. */
  pose(design: Design, state: State, onWay: (openDeg: number) => void): Promise<Answer<ScenePose>>;
  /** Where a point of a facet (by index, in its piece's axes) goes while a drive runs from end to end. */
  way(design: Design, state: State, drive: string, facet: number, at: Vec3): Promise<Answer<Way>>;
  /** Proof in growing parts; a newer call ends an older one, which then answers null. */
  prove(design: Design, steps: number, onPart: (proof: Proof, done: boolean) => void): Promise<Answer<Proof | null>>;
  /** A finding whose remedies the proof did not look for, with them. */
  seek(design: Design, finding: Finding, known: readonly Finding[], steps: number): Promise<Answer<Finding>>;
  rooms(
    design: Design,
    mechanism: string,
    keys: readonly string[],
    onRoom: (room: Room) => void,
  ): Promise<Answer<null>>;
  whatIf(
    design: Design,
    mechanism: string,
    key: string,
    values: readonly number[],
    onPoint: (point: WhatIfPoint) => void,
  ): Promise<Answer<null>>;
  /** `from`: where it is seen from; from the reader's right unless given. */
  picture(design: Design, state: State, from?: readonly [number, number, number]): Promise<Answer<Picture>>;
  /** A card in a list: how it looks, how large it is shut, what it is built as. */
  glance(design: Design, state: State): Promise<Answer<Glance>>;
  /** One that was kept as text; null where it is none. */
  keptGlance(text: string): Promise<Answer<Glance | null>>;
  /** The shut card as its reader has it in front of them, mm; null where it does not close. */
  cover(design: Design): Promise<Answer<Picture | null>>;
  /** What is moved by hand at each of its stops, straight on. */
  stops(design: Design, id: string): Promise<Answer<readonly StopPicture[]>>;
  /** Pictures of its travel at parts of it; of what is moved by hand with the card opened to `openDeg`. */
  moving(design: Design, parts: readonly number[], openDeg: number): Promise<Answer<readonly Picture[]>>;
  thickness(design: Design): Promise<Answer<ThicknessMap | null>>;
  /** With further cards on the same sheets. */
  layout(design: Design, guests: readonly Design[]): Promise<Answer<Laid>>;
  cutList(design: Design): Promise<Answer<CutListing>>;
  /** The search for a tighter layout; `onRound` is told the best so far, and how much of the time is over. */
  nest(
    design: Design,
    guests: readonly Design[],
    seconds: number,
    onRound: (laid: Laid, part: number) => void,
  ): Promise<Answer<Laid>>;
  /** Ends the search; what it found so far is its answer. */
  stopNest(): Promise<Answer<null>>;
  held(design: Design, guests: readonly Design[], held: HeldPiece): Promise<Answer<InHand | null>>;
  beginCut(design: Design, what: CutWhat, machine: MachineProfile): Promise<Answer<CutBegun>>;
  beginFile(text: string, name: string, machine: MachineProfile): Promise<Answer<CutBegun>>;
  cutOn(seconds: number): Promise<Answer<CutMore>>;
  steps(design: Design): Promise<Answer<{ steps: readonly PicturedStep[]; rings: Work['rings'] }>>;
  booklet(design: Design): Promise<Answer<Uint8Array>>;
  /** `onFile`: told the name of each file as it is written. */
  bundle(
    design: Design,
    guests: readonly Design[],
    onFile: (path: string, count: number) => void,
  ): Promise<Answer<Uint8Array>>;
  /** The card in every state that is named. */
  named(design: Design): Promise<Answer<readonly { id: string; name: string; picture: Picture }[]>>;
  outline(design: Design, shape: Shape): Promise<Answer<Outline>>;
  worked(design: Design, asset: ShapeAsset, steps: number): Promise<Answer<WorkedShape>>;
  struts(design: Design, id: string): Promise<Answer<StrutSheet>>;
  /** What each hand sweeps over as it moves a mechanism, on the sheet that carries it. */
  sweeps(design: Design, id: string): Promise<Answer<readonly DrawnSweep[]>>;
  letterLines(design: Design, id: string): Promise<Answer<readonly LetteredPlane[]>>;
  planes(design: Design, id: string): Promise<Answer<readonly (readonly Ring[])[]>>;
  over(
    design: Design,
    id: string,
    measure: string,
  ): Promise<Answer<readonly { readonly open: number; readonly value: number }[]>>;
  bringSvg(text: string): Promise<Answer<Brought>>;
  trace(raster: Raster, wishes: TraceWishes): Promise<Answer<Brought>>;
  letters(
    text: TextShape,
  ): Promise<Answer<readonly { readonly letter: string; readonly path: string; readonly x: number }[]>>;
  template(text: string, name: string): Promise<Answer<ReadTemplate>>;
  /** The design with a waterfall of the template's pieces, on the template's card where it has one. */
  bringWaterfall(design: Design, template: Template, stocks: readonly PieceStock[]): Promise<Answer<Design>>;
  /** The design with the template for its card. */
  bringTemplate(design: Design, template: Template, stocks: readonly PieceStock[]): Promise<Answer<Design>>;
  /** Its pieces, how they could be joined and folded. */
  offers(design: Design, template: Template): Promise<Answer<Offers>>;
  /** Of all joins that are offered those with which the card opens furthest. */
  settle(template: Template): Promise<Answer<readonly TemplateJoin[]>>;
  faults(template: Template): Promise<Answer<Drawn>>;
  export(design: Design, choice: ExportChoice): Promise<Answer<Uint8Array>>;
  /** The card in a state as a PNG; from the reader's right unless said. */
  still(
    design: Design,
    state: State,
    choice: PaintChoice,
    from?: readonly [number, number, number],
  ): Promise<Answer<Uint8Array>>;
  /** Its travel as an animated GIF; `onFrame` is told how far it has come, 0 to 1. */
  film(
    design: Design,
    choice: FilmChoice & PaintChoice & { readonly seconds: number },
    onFrame: (part: number) => void,
  ): Promise<Answer<Uint8Array>>;
  /** What of a mechanism, or of the base, can be taken hold of in the flat view, and its numbers as they are drawn. */
  grips(design: Design, id: string): Promise<Answer<InHold>>;
  /** The corner of a facet nearest to a point of the posed card, and how it goes with the numbers of its mechanism. */
  posedGrips(
    design: Design,
    state: State,
    facet: number,
    at: readonly [number, number, number],
  ): Promise<Answer<PosedHold | null>>;
  /** A mechanism's outlines as it would stand. */
  ghost(design: Design, state: State, id: string): Promise<Answer<readonly (readonly Vec3[])[]>>;
  /** Where the room of its number ends, on the drawing. */
  limits(design: Design, grip: Grip): Promise<Answer<readonly GripLimit[]>>;
  /** Cards made with scatter; `onMore` is told now and then. */
  study(design: Design, ask: StudyAsk, onMore: (study: ToldStudy) => void): Promise<Answer<ToldStudy>>;
  /** A search for numbers in some of its slabs; `onPart` is told how much is done, 0 to 1. */
  slabs(
    design: Design,
    ask: TargetAsk,
    slabs: readonly number[],
    onPart: (part: number) => void,
  ): Promise<Answer<readonly Candidate[]>>;
  /** What two numbers do together, as it grows. */
  map(design: Design, ask: MapAsk, onMore: (cells: readonly MapCell[]) => void): Promise<Answer<readonly MapCell[]>>;
  /** One place of the map: values across and up. */
  place(design: Design, ask: MapAsk, at: readonly [number, number]): Promise<Answer<Judgement>>;
  wear(design: Design): Promise<Answer<readonly WearPlace[]>>;
  /** A design proved at once, with its picture in a state and its flat pieces. */
  judge(design: Design, state: State): Promise<Answer<Judged>>;
  /** What one line of a grip would line up with. */
  snaps(design: Design, grip: Grip, line: number): Promise<Answer<readonly Snap[]>>;
  /** The design with a mechanism turned into plain lines. */
  plain(design: Design, id: string): Promise<Answer<Design>>;
  /** Valleys and mountains that fold flat, for creases of one's own. */
  ownRoles(design: Design, id: string): Promise<Answer<readonly RoleChoice[]>>;
}

/** Jobs whose first argument is not a design. */
export const WITHOUT_DESIGN = [
  'check',
  'keptGlance',
  'bringSvg',
  'trace',
  'letters',
  'template',
  'faults',
  'settle',
  'stopNest',
  'beginFile',
  'cutOn',
] as const;
type Plain = (typeof WITHOUT_DESIGN)[number];
/** The same jobs as the worker takes them. */
export type Wired = {
  [K in keyof Engine]: K extends Plain
    ? Engine[K]
    : Engine[K] extends (design: Design, ...rest: infer R) => infer A
      ? (sent: Sent, ...rest: R) => A
      : never;
} & {
  /** Holds a lock for as long as the worker lives, so that its end is seen; false where there are no locks. */
  hold(lock: string): Promise<boolean>;
};
