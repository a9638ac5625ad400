/** The open card: its design with undo, what is looked at, and what the workers last said about it. */
import { moved, OPEN, OPENING, openTo, within, type Drive, type State } from '@/core/drives';
import { temporal } from 'zundo';
import { createStore } from 'zustand/vanilla';
import type { Design } from '@/core/document/design';
import { CARD } from '@/core/ids';
import type { Side } from '@/core/kinds';
import type { Proof } from '@/core/proof/prove';
import type { Finding } from '@/core/rules';
import type { Room } from '@/core/proof/room';
import { engine, newestWins, onWorkerNews } from '@/workers/client';
import type { Answer, Scene, ScenePose } from '@/workers/protocol';
import type { Json } from '@/core/document/delta';
import { checkChange } from '@/core/document/schema';
import { rebased } from '@/core/document/variants';
import { NO_HISTORY, type History, type Move } from './database';
import { MOST_STEPS_BACK, statesOf } from './history';
import { Keeper, type Saving } from './keeper';
import { loadProject } from './load';
import { addProject, newProjectId, setRemoved, type StoredProject } from './projects';
import { claimCard, onTabs } from './tabs';

export const STAGES = ['brief', 'build', 'dress', 'prove', 'sheets', 'make'] as const;
export type Stage = (typeof STAGES)[number];
export type { Saving } from './keeper';

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
  readonly news: string | null;
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
}

/** What can be moved, as far as it is known. */
export const drivesOf = ({ scene }: Pick<Studio, 'scene'>): readonly Drive[] => scene?.drives ?? ONLY_OPENING;
const ONLY_OPENING = [OPENING];
/** The state as these drives have it; the same object where nothing changes. */
function settled(drives: readonly Drive[], state: State): State {
  const next = within(drives, state);
  const ids = Object.keys(next);
  const same = ids.length === Object.keys(state).length && ids.every((id) => next[id] === state[id]);
  return same ? state : next;
}
/** The drive that the travel strip carries: the opening, where another is gone. */
export const carriedDrive = (s: Pick<Studio, 'scene' | 'carried'>): Drive =>
  drivesOf(s).find((d) => d.id === s.carried) ?? OPENING;

const NONE_ALSO: readonly string[] = [];
/** Everything that is chosen and still there, the first first. */
export const chosenIn = ({
  selected,
  also,
  design,
}: Pick<Studio, 'selected' | 'also' | 'design'>): readonly string[] => [
  selected,
  ...also.filter((id) => design.mechanisms.some((m) => m.id === id)),
];

const PROVE_AFTER_MS = 120;
const PROOF_STEPS = 36;
/** What an older proof is given to come to its next step when a newer one is asked for. */
const PROOF_PATIENCE_MS = 1500;

export type StudioStore = ReturnType<typeof createStudio>;

export interface Opened {
  readonly project: StoredProject;
  readonly history: History;
}

/** One store for each card that is opened; `close` ends its timers. */
export function createStudio({ project, history }: Opened, stage: Stage) {
  const { design } = project;
  /** What the next change of the design is. */
  let move: Move | 'follow' = 'edit';
  const as = (what: Move | 'follow', change: () => void): void => {
    move = what;
    change();
    move = 'edit';
  };
  const store = createStore<Studio>()(
    temporal<Studio, [], [], Pick<Studio, 'design' | 'label'>>(
      (set, get) => ({
        id: project.id,
        design,
        label: history.label,
        stage,
        selected: CARD,
        also: NONE_ALSO,
        facet: null,
        sideUp: 'inside',
        lit: [],
        state: openTo(100),
        carried: OPEN,
        playing: false,
        preview: null,
        scene: null,
        pose: null,
        onWay: null,
        trouble: null,
        proof: null,
        proving: false,
        rooms: {},
        saving: 'saved',
        writes: true,
        removed: false,
        historyCut: history.cut,
        news: null,
        adding: null,
        layers: [],
        dialog: null,
        actions: {
          edit: (label, change) => {
            if (!get().writes) return set({ news: OTHER_WRITES, preview: null });
            const next = rebased(get().design, change(get().design));
            if (next === get().design) return;
            const why = checkChange(next, get().design);
            set(why === null ? { design: next, label, preview: null } : { news: `Not done: ${why}.`, preview: null });
          },
          undo: () => get().writes && as('undo', () => store.temporal.getState().undo()),
          redo: () => get().writes && as('redo', () => store.temporal.getState().redo()),
          say: (news) => set({ news }),
          go: (to) => set({ stage: to }),
          select: (selected) =>
            set({ selected, also: NONE_ALSO, rooms: selected === get().selected ? get().rooms : {} }),
          selectAlso: (id) => {
            const { selected, also, actions } = get();
            if (id === CARD || selected === CARD) return actions.select(id);
            if (also.includes(id)) return set({ also: also.filter((x) => x !== id) });
            if (id !== selected) return set({ also: [...also, id] });
            const [next, ...rest] = also;
            if (next) set({ selected: next, also: rest, rooms: {} });
          },
          selectFacet: (facet) => set({ facet }),
          turnUp: (sideUp) => set({ sideUp, lit: [] }),
          light: (lit) => set({ lit }),
          scrub: (openDeg) => get().actions.move(OPEN, openDeg),
          move: (drive, value) => set({ state: within(drivesOf(get()), moved(get().state, drive, value)) }),
          carry: (carried) => set({ carried }),
          stand: (state) => set({ state: within(drivesOf(get()), state) }),
          play: (playing) => set({ playing }),
          showPreview: (preview) => set({ preview }),
          add: (adding) => set({ adding }),
          pickLayers: (layers) => set({ layers }),
          show: (dialog) => set({ dialog }),
        },
      }),
      {
        partialize: ({ design: d, label }) => ({ design: d, label }),
        equality: (a, b) => a.design === b.design,
        limit: MOST_STEPS_BACK,
      },
    ),
  );

  const askScene = newestWins(
    async (d: Design): Promise<Answer<Scene>> => {
      const answer = await engine('pose').load(d);
      return answer.ok ? { ok: true, value: { ...answer.value, design: d } } : answer;
    },
    (answer) => {
      if (answer.ok)
        store.setState((s) => ({ scene: answer.value, trouble: null, state: settled(answer.value.drives, s.state) }));
      else store.setState({ trouble: answer.why });
    },
  );
  let posing = new AbortController();
  const askPose = newestWins(
    (d: Design, state: State) => {
      posing = new AbortController();
      return engine('pose', posing.signal).pose(d, state, (onWay) => store.setState({ onWay }));
    },
    (answer) => {
      if (answer.ok) store.setState({ pose: answer.value, onWay: null });
      else store.setState({ onWay: null, ...(answer.stopped ? {} : { trouble: answer.why }) });
    },
  );
  const shown = (s: Studio): Design => s.preview ?? s.design;

  let proveTimer: ReturnType<typeof setTimeout> | undefined;
  let endProof: (() => void) | undefined;
  const prove = (): void => {
    const { design: d } = store.getState();
    store.setState({ proving: true });
    const mine = (): boolean => store.getState().design === d;
    // An older proof ends at its next step; one that does not come to it is ended with its worker.
    const older = endProof;
    const patience = older && setTimeout(older, PROOF_PATIENCE_MS);
    const asked = new AbortController();
    endProof = () => asked.abort();
    void engine('proof', asked.signal)
      .prove(d, PROOF_STEPS, (proof, done) => {
        clearTimeout(patience);
        if (mine()) store.setState({ proof, proving: !done });
      })
      .then((answer) => {
        clearTimeout(patience);
        if (mine() && !answer.ok && !answer.stopped) store.setState({ proving: false, trouble: answer.why });
      });
  };
  /** Remedies of one finding that the proof did not look for. */
  const seek = async (finding: Finding): Promise<void> => {
    const { design: d, proof } = store.getState();
    if (!proof) return;
    const answer = await engine('study').seek(d, finding, proof.findings, PROOF_STEPS);
    const now = store.getState();
    if (now.design !== d || !now.proof) return;
    if (!answer.ok) return store.setState({ trouble: answer.why });
    const findings = now.proof.findings.map((f) => (f.id === finding.id ? answer.value : f));
    store.setState({ proof: { ...now.proof, findings } });
  };
  const askRooms = (keys: readonly string[]): void => {
    const { design: d, selected } = store.getState();
    void engine('study').rooms(d, selected, keys, (room) => {
      const now = store.getState();
      if (now.design === d && now.selected === selected) store.setState({ rooms: { ...now.rooms, [room.key]: room } });
    });
  };

  const remember = (h: History, d: Design): void => {
    type Past = { design: Design; label: string }[];
    store.temporal.setState({
      pastStates: statesOf(d as unknown as Json, h.past) as unknown as Past,
      futureStates: statesOf(d as unknown as Json, h.future) as unknown as Past,
    });
    store.setState({ historyCut: h.cut });
  };
  remember(history, design);

  const keep = (opened: Opened): Keeper =>
    new Keeper(opened.project, opened.history, {
      onSaving: (saving) => store.setState({ saving }),
      onParted: () => void part(),
      onRemoved: () => store.setState({ removed: true }),
    });
  let keeper = keep({ project, history });

  /** Goes on with a card of its own that has this design. */
  const goOnAs = async (own: Design): Promise<void> => {
    const id = newProjectId();
    keeper.leave();
    claim.release();
    // Where it cannot be stored either, the page holds it and the keeper tries again.
    await addProject(own, Date.now(), id);
    as('follow', () => store.setState({ id, design: own, label: '', writes: true, removed: false }));
    remember(NO_HISTORY, own);
    const fresh = { id, updated: Date.now(), revision: 0, recordRevision: 0, design: own };
    keeper = keep({ project: fresh, history: NO_HISTORY });
    store.setState({ saving: keeper.saving });
    claim = claimCard(id, onRole, () => keeper.flush());
  };
  /** Another tab wrote the card too: what was made here becomes a card of its own. */
  const part = async (): Promise<void> => {
    const { design: mine } = store.getState();
    const own: Design = { ...mine, name: `${mine.name.slice(0, 90)}, as changed here` };
    await goOnAs(own);
    store.setState({
      news: `This card was changed in another tab as well. Your changes are kept as a card of its own: “${own.name}”.`,
    });
  };
  /** Takes over what another tab has written; one after another, so that the last that was written stays. */
  let following: Promise<Opened | null> = Promise.resolve(null);
  const follow = (): Promise<Opened | null> => (following = following.then(readAgain));
  const readAgain = async (): Promise<Opened | null> => {
    const found = await loadProject(store.getState().id).catch(() => null);
    if (!found?.ok) return null;
    const { project: now, history: h } = found;
    as('follow', () => store.setState({ design: now.design, label: h.label }));
    remember(h, now.design);
    return { project: now, history: h };
  };
  const onRole = (writes: boolean): void => {
    if (writes === store.getState().writes) return;
    if (!writes) {
      // What is in this tab only would be overwritten by what the other has.
      if (unsaved()) return void part();
      keeper.leave();
      return store.setState({ writes });
    }
    void follow().then((opened) => {
      if (opened) keeper = keep(opened);
      store.setState({ writes });
    });
  };
  const unsaved = (): boolean => !['saved', 'saving'].includes(store.getState().saving);
  let claim = claimCard(project.id, onRole, () => keeper.flush());
  const leaveTabs = onTabs((message) => {
    const s = store.getState();
    if (!('id' in message) || message.id !== s.id) return;
    if (message.kind === 'removed') store.setState({ removed: true });
    if (message.kind === 'returned') store.setState({ removed: false });
    if (message.kind === 'changed' && !s.writes) void follow();
  });
  // A tab out of sight may have been asleep while another wrote.
  const seen = (): void => {
    if (document.visibilityState === 'visible' && !store.getState().writes) void follow();
  };
  if (typeof document !== 'undefined') document.addEventListener('visibilitychange', seen);
  const stopNews = onWorkerNews((text) => store.setState({ news: `${text}. Nothing of the card is lost.` }));

  const stop = store.subscribe((now, before) => {
    if (now.design !== before.design) {
      if (move !== 'follow') {
        keeper.record(now.design, move, now.label);
        store.setState({ historyCut: keeper.cut });
      }
      // What the last proof said is about another design from here on.
      store.setState({ proving: true });
      clearTimeout(proveTimer);
      proveTimer = setTimeout(prove, PROVE_AFTER_MS);
      const { selected } = now;
      if (selected !== CARD && !now.design.mechanisms.some((m) => m.id === selected))
        store.setState({ selected: CARD, rooms: {} });
    }
    if (shown(now) !== shown(before)) askScene(shown(now));
    if (shown(now) !== shown(before) || now.state !== before.state) askPose(shown(now), now.state);
  });
  const start = (): void => {
    const s = store.getState();
    askScene(s.design);
    askPose(s.design, s.state);
    prove();
  };
  /** Ends it; whether all of the card is stored by then. */
  const close = (): Promise<boolean> => {
    stop();
    stopNews();
    leaveTabs();
    if (typeof document !== 'undefined') document.removeEventListener('visibilitychange', seen);
    clearTimeout(proveTimer);
    endProof?.();
    return keeper.close().finally(() => claim.release());
  };
  return Object.assign(store, {
    start,
    close,
    askRooms,
    seek,
    /** Writes what is not yet in the card's record. */
    save: () => keeper.flush(),
    /** Something is in this tab only. */
    unsaved,
    /** Gives up the pose that is being worked out. */
    stopPosing: () => posing.abort(),
    /** Asks the tab that writes the card to let this one. */
    takeOver: () => claim.take(),
    /** Takes a card that was removed elsewhere off the shelf; where that was emptied, it goes on as a new one. */
    putBack: async () => {
      if (await setRemoved(store.getState().id, false)) store.setState({ removed: false });
      else await goOnAs(store.getState().design);
    },
  });
}

const OTHER_WRITES = 'Not done: this card is written in another tab. Write here instead to change it.';
