/** What is known of the open card, and what can be done with it. */
import type { Design } from '@/core/document/design';
import { OPENING, within, type Drive, type State } from '@/core/drives';
import type { Side } from '@/core/kinds';
import type { Proof } from '@/core/proof/prove';
import type { Room } from '@/core/proof/room';
import type { Scene, ScenePose } from '@/workers/protocol';
import type { Saving } from './keeper';

export const STAGES = ['brief', 'build', 'dress', 'prove', 'sheets', 'make'] as const;
export type Stage = (typeof STAGES)[number];
export type { Saving } from './keeper';

/** Something that a person is told, until they put it away. */
export interface News {
  readonly text: string;
  /** Something was not done. */
  readonly bad: boolean;
}

export interface Studio {
  readonly id: string;
  readonly design: Design;
  /** What the last change did, for the names of undo and redo. */
  readonly label: string;
  readonly stage: Stage;
  /** Mechanism that is selected; `card` for the base. */
  readonly selected: string;
  /** Further mechanisms that are chosen with it. */
  readonly also: readonly string[];
  /** Facet that is selected in Dress. */
  readonly facet: string | null;
  /** The side of the sheet that lies up in the flat view, and that is dressed. */
  readonly sideUp: Side;
  /** What is pointed at: ids of facets, creases, glue areas. */
  readonly lit: readonly string[];
  /** How the card is to stand: a value for every drive. */
  readonly state: State;
  /** The drive that the travel strip carries. */
  readonly carried: string;
  readonly playing: boolean;
  /** A design shown instead of the open one while a remedy is hovered. */
  readonly preview: Design | null;
  readonly scene: Scene | null;
  readonly pose: ScenePose | null;
  /** How far a pose has come that takes its time, degrees open; null while none does. */
  readonly onWay: number | null;
  /** Set when the design cannot even be put together. */
  readonly trouble: string | null;
  readonly proof: Proof | null;
  readonly proving: boolean;
  readonly rooms: Readonly<Record<string, Room>>;
  readonly saving: Saving;
  /** This tab writes the card; another one does where not. */
  readonly writes: boolean;
  /** The card was put on the shelf of removed cards in another tab. */
  readonly removed: boolean;
  /** States older than those that can be gone back to were let go. */
  readonly historyCut: boolean;
  /** Said to the person until it is put away. */
  readonly news: News | null;
  readonly adding: string | null;
  /** Layers that are moved together in Dress. */
  readonly layers: readonly string[];
  /** Dialog that is open beside the add sheet. */
  readonly dialog: Dialog | null;
  readonly actions: StudioActions;
}
/** Where a shape goes that is brought in from a field: a mechanism, or `card`, and the path of its parameter. */
export interface ShapeSlot {
  readonly mechanism: string;
  readonly path: string;
}
/**
 * `bring`: a new shape; `workshop`: a kept one; `template`: whole templates; `screen`: its true size; `show`: picture
 * and film.
 */
export type Dialog =
  | { readonly kind: 'bring'; readonly into?: ShapeSlot }
  | { readonly kind: 'workshop'; readonly asset: string }
  | { readonly kind: 'template' }
  | { readonly kind: 'screen' }
  | { readonly kind: 'show' };

export interface StudioActions {
  edit(label: string, change: (design: Design) => Design): void;
  undo(): void;
  redo(): void;
  go(stage: Stage): void;
  select(mechanism: string): void;
  /** Chooses one more, or lets it go again. */
  selectAlso(mechanism: string): void;
  selectFacet(facet: string | null): void;
  turnUp(side: Side): void;
  light(ids: readonly string[]): void;
  /** Opens the card to an angle. */
  scrub(openDeg: number): void;
  /** Moves one drive; it goes no further than its range. */
  move(drive: string, value: number): void;
  /** The travel strip shows this drive. */
  carry(drive: string): void;
  /** Moves every drive to where something was found. */
  stand(state: State): void;
  play(on: boolean): void;
  showPreview(design: Design | null): void;
  add(crease: string | null): void;
  pickLayers(ids: readonly string[]): void;
  show(dialog: Dialog | null): void;
  say(news: string | null): void;
  /** What was asked for was not done: spoken at once. */
  warn(news: string): void;
}

/** The design that the views are to show. */
export const shown = (s: Pick<Studio, 'preview' | 'design'>): Design => s.preview ?? s.design;
/** What can be moved, as far as it is known. */
export const drivesOf = ({ scene }: Pick<Studio, 'scene'>): readonly Drive[] => scene?.drives ?? ONLY_OPENING;
const ONLY_OPENING = [OPENING];
/** The state as these drives have it; the same object where nothing changes. */
export function settled(drives: readonly Drive[], state: State): State {
  const next = within(drives, state);
  const ids = Object.keys(next);
  const same = ids.length === Object.keys(state).length && ids.every((id) => next[id] === state[id]);
  return same ? state : next;
}
/** The drive that the travel strip carries: the opening, where another is gone. */
export const carriedDrive = (s: Pick<Studio, 'scene' | 'carried'>): Drive =>
  drivesOf(s).find((d) => d.id === s.carried) ?? OPENING;

export const NONE_ALSO: readonly string[] = [];
/** Everything that is chosen and still there, the first first. */
export const chosenIn = ({
  selected,
  also,
  design,
}: Pick<Studio, 'selected' | 'also' | 'design'>): readonly string[] => [
  selected,
  ...also.filter((id) => design.mechanisms.some((m) => m.id === id)),
];
