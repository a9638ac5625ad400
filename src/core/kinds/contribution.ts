/** What a mechanism contributes to the design it stands in: paper, creases, glue, what moves and what must hold. */
import type { CreaseLine, FacetLabel, OwnedArea, PatternLine, Piece } from '../pattern/pattern';
import type { Interruption } from '../pattern/facets';
import type { Polygon, Region } from '../plane/polygon';
import type { Frame2, Vec2 } from '../plane/vec2';
import type { Side } from '../side';
import type { Drive } from '../drives';
import { applyRigid, compose, placeOnSheet, type Bow, type Motion, type Rigid, type Vec3 } from '../linkage';

/**
 * The crease something stands on, as it lies in its flat piece. Local x runs along it from its middle, y into side A.
 */
export interface Host {
  /** Id of the crease. */
  readonly crease: string;
  readonly piece: string;
  readonly frame: Frame2;
  readonly lengthMm: number;
  /** Facets on the two sides, by label: A on the left of the frame's x. */
  readonly sideA: string;
  readonly sideB: string;
  /** +1: closes toward the viewer of the inside face; -1: away from them. */
  readonly sign: 1 | -1;
  /** Size of its fold (rad) at the ends of the card's travel, where known. */
  readonly ends: readonly [closed: number | undefined, open: number | undefined];
  /** How far side A and side B reach from the crease, mm. */
  readonly reachA: number;
  readonly reachB: number;
  readonly stock: string;
}

/** The face of a facet that something is fixed on. */
export interface Face {
  readonly facet: string;
  readonly piece: string;
  readonly side: Side;
  /** From the mount's axes (x to the reader's right, y up, z off the paper, mm) to those of the piece. */
  readonly placement: Rigid;
  /** The facet in the mount's axes. */
  readonly outline: Polygon;
  readonly caliperMm: number;
  readonly stock: string;
}

/** Two facets of different pieces that are glued together. */
export interface Bond {
  readonly id: string;
  readonly a: { readonly piece: string; readonly facet: string };
  readonly b: { readonly piece: string; readonly facet: string };
  /** Frame of piece b in that of piece a. */
  readonly placement: Rigid;
}

export interface Landmark {
  readonly name: string;
  readonly piece: string;
  readonly facet: string;
  readonly at: Vec2;
}

/** What measures may read. Points in mm. */
export interface PoseReader {
  /**
   * In the axes of what the mechanism stands on: x along, y into side A, z on the side that closes. Undefined where
   * the landmark's facet is missing.
   */
  local(landmark: string): Vec3 | undefined;
  /** The same at the closed pose; undefined where the design does not close. */
  closed(landmark: string): Vec3 | undefined;
  /** The curve of what bends, by id. */
  bow(bend: string): Bow | undefined;
}

/** Nothing is posed: what measures say of the flat pieces alone. */
export const NO_POSE: PoseReader = { local: () => undefined, closed: () => undefined, bow: () => undefined };

/** A facet of a piece; or a carriage, `MECHANISM.NAME`: a frame without paper, where one part makes two motions. */
export type Carried = { readonly piece: string; readonly facet: string } | { readonly carriage: string };

/** One part moves against another: a rivet, a track, a crease between pieces. */
export interface MovingJoint {
  /** `MECHANISM.NAME`. */
  readonly id: string;
  /** What it ties; `b` moves against `a`. */
  readonly a: Carried;
  readonly b: Carried;
  /** In the axes of piece a. */
  readonly motion: Motion;
  /** Frame of piece b in that of piece a while the joint's value is 0. */
  readonly placement: Rigid;
  readonly role: -1 | 0 | 1;
  /** Value from a drive, in rad or mm of both; absent: it is solved for. */
  readonly driven?: {
    readonly drive: string;
    readonly at: number;
    readonly rate: number;
    readonly between?: readonly [from: number, to: number];
  };
  /** At rest, and at the drive's other end, where known. */
  readonly ends: readonly [rest: number | undefined, other: number | undefined];
  /** Two points of its line, in the axes of piece a. */
  readonly span: readonly [Vec3, Vec3];
  /** Of glue that may part where the paper must bend: the corners of its area, in the axes of piece a. */
  readonly patch?: readonly Vec3[];
}

/**
 * Paper that bends between the two lines it is hinged at, as a strip that cannot stretch: neither rigid nor creased.
 * It runs along y of its piece, its lines lie along x.
 */
export interface Bend {
  /** `MECHANISM.NAME`. */
  readonly id: string;
  readonly piece: string;
  /** What bends, and what carries its ends at greater and at lesser y. */
  readonly facet: string;
  readonly ends: readonly [high: string, low: string];
  readonly creases: readonly [high: string, low: string];
  /** Between its lines, the middle at y = 0; and where it begins along them, mm. */
  readonly lengthMm: number;
  readonly from: number;
}

/** Foam or thick tape between two sheets, on a facet of a piece. */
export interface FoamPad {
  readonly id: string;
  readonly piece: string;
  readonly facet: string;
  /** In the axes of the piece. */
  readonly region: Region;
  readonly thickMm: number;
  /** The number that is its thickness, by key. */
  readonly lever: string;
  /** What moves under it, with the room that keeps; in the axes of the piece. */
  readonly keepOff: Region;
  /** Strips that are too narrow to be cut, and so are left out; in the axes of the piece. */
  readonly leftOut: Region;
}

/** What stands between sheets or over them beside foam: spacers, heads of rivets, the thickness of a token. */
export interface Filler {
  readonly name: string;
  /** It goes with this facet. */
  readonly piece: string;
  readonly facet: string;
  /** In the axes of the piece. */
  readonly region: Region;
  /** Its lower face over the middle of the facet's sheet, mm. */
  readonly fromMm: number;
  readonly thickMm: number;
  readonly look: 'spacer' | 'rivet' | 'token';
  /** The number that is its thickness, by key. */
  readonly lever?: string;
}

/** What is counted and bought, not cut: rivets, coins. */
export interface Hardware {
  /** Its name: "Rivet". */
  readonly what: string;
  /** What tells one from another of that name, mm: the thickness of a spacer. */
  readonly sizesMm?: readonly number[];
  readonly count: number;
  /** Whose it is; of the base unless said. */
  readonly mechanism?: string;
}

/** What must hold of a part that moves, as its kind measures it; the rule says it where it does not. */
export interface Demand {
  readonly rule: 'captive' | 'bind' | 'grip' | 'covered' | 'web' | 'stands';
  /** Tells several of one rule and mechanism apart. */
  readonly aspect: string;
  /** What is measured, as a sentence begins: "The disc covers window 2 by". */
  readonly says: string;
  readonly measured: number;
  readonly unit: 'mm' | 'deg';
  /** It is about the head of a rivet, and what that must not come over. */
  readonly ofRivet?: true;
  /** It is measured off the paper, between sheets: no cut edge takes part in it. */
  readonly offPaper?: true;
  /** Below this it is a risk. */
  readonly least: number;
  /** Below this it cannot work at all. */
  readonly blocksUnder: number;
  readonly levers: readonly string[];
  /** Parts it is about, by id. */
  readonly subjects: readonly string[];
  /** The drive's value where it happens. */
  readonly at?: { readonly drive: string; readonly value: number };
}

/** Something a part lacks: `key` stays the same while the numbers in the sentence change. */
export interface Lack {
  readonly key: string;
  readonly what: string;
}

export interface Contribution {
  /** Added to the piece it stands on. */
  readonly lines: readonly PatternLine[];
  readonly hostCreases: readonly CreaseLine[];
  readonly labels: readonly FacetLabel[];
  readonly interruptions: readonly Interruption[];
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  /** Creases that others can stand on. */
  readonly hosts: readonly Host[];
  readonly landmarks: readonly Landmark[];
  readonly measures: (pose: PoseReader) => Record<string, number>;
  /** Parameters that say two things at once: what, and by how many mm they differ. */
  readonly contradictions: readonly { readonly key: string; readonly what: string; readonly mm: number }[];
  /** Parts that nothing holds, that lack their paper or cannot move free: what, in words. */
  readonly unheld: readonly Lack[];
  /** Paper of the host's piece that falls out as waste. */
  readonly waste: Region;
  /** Paper of the host's piece that it takes for itself; nothing that stands beside it may take it too. */
  readonly claims: Region;
  /** Its facets' whole areas on the host's piece. */
  readonly owned: readonly OwnedArea[];
  /** What is moved by hand, `MECHANISM.NAME`. */
  readonly drives: readonly Drive[];
  readonly joints: readonly MovingJoint[];
  readonly bends: readonly Bend[];
  readonly foam: readonly FoamPad[];
  readonly fillers: readonly Filler[];
  readonly hardware: readonly Hardware[];
  readonly demands: readonly Demand[];
}

export const EMPTY: Contribution = {
  lines: [],
  hostCreases: [],
  labels: [],
  interruptions: [],
  pieces: [],
  bonds: [],
  hosts: [],
  landmarks: [],
  measures: () => ({}),
  contradictions: [],
  unheld: [],
  waste: [],
  claims: [],
  owned: [],
  drives: [],
  joints: [],
  bends: [],
  foam: [],
  fillers: [],
  hardware: [],
  demands: [],
};

/** Small step from a corner into a facet, for its label: nothing else of a design comes this close to a corner (mm). */
export const LABEL_STEP = 0.02;

const TURN_OVER: Rigid = Float64Array.of(-1, 0, 0, 0, 0, 1, 0, 0, 0, 0, -1, 0);

/**
 * Where a glued piece, drawn in local axes, lies on the host's piece. On a mountain crease it is glued from behind:
 * turned over about local y, so that sides A and B stay and x is mirrored.
 */
export function placedOn(host: Host): Rigid {
  const flat = placeOnSheet(host.frame.origin, host.frame.along);
  return host.sign > 0 ? flat : compose(flat, TURN_OVER);
}
/** A ring drawn in the axes of a glued piece, where it lies on the sheet that carries it. */
export const laidOnto = (placement: Rigid, ring: readonly Vec2[]): Vec2[] =>
  ring.map(([x, y]): Vec2 => {
    const [u, v] = applyRigid(placement, [x, y, 0]);
    return [u, v];
  });
