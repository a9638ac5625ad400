/** The open card: its design with undo, what is looked at, and what the workers last said about it. */
import { temporal } from 'zundo';
import { createStore } from 'zustand/vanilla';
import type { Json } from '@/core/document/delta';
import type { Design } from '@/core/document/design';
import { OPEN, openTo } from '@/core/drives';
import { CARD } from '@/core/ids';
import { onWorkerNews } from '@/workers/client';
import { askingFor } from './asking';
import { NO_HISTORY, type History, type Move } from './database';
import { MOST_STEPS_BACK, statesOf } from './history';
import { Keeper } from './keeper';
import { loadProject } from './load';
import { addProject, newProjectId, setRemoved, type StoredProject } from './projects';
import { actionsOf } from './studio-actions';
import { NONE_ALSO, shown, type Stage, type Studio } from './studio-state';
import { claimCard, onTabs } from './tabs';

export * from './studio-state';

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
        actions: actionsOf(set, get, {
          undo: () => as('undo', () => store.temporal.getState().undo()),
          redo: () => as('redo', () => store.temporal.getState().redo()),
        }),
      }),
      {
        partialize: ({ design: d, label }) => ({ design: d, label }),
        equality: (a, b) => a.design === b.design,
        limit: MOST_STEPS_BACK,
      },
    ),
  );

  const ask = askingFor(store);

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
      news: {
        text:
          'This card was changed in another tab as well. ' +
          `Your changes are kept as a card of its own: “${own.name}”.`,
        bad: false,
      },
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
    if (message.kind === 'gone') keeper.lost();
    if (message.kind === 'returned') store.setState({ removed: false });
    if (message.kind === 'changed' && !s.writes) void follow();
  });
  // A tab out of sight may have been asleep while another wrote.
  const seen = (): void => {
    if (document.visibilityState === 'visible' && !store.getState().writes) void follow();
  };
  if (typeof document !== 'undefined') document.addEventListener('visibilitychange', seen);
  const stopNews = onWorkerNews((text) =>
    store.setState({ news: { text: `${text}. Nothing of the card is lost.`, bad: true } }),
  );

  const stop = store.subscribe((now, before) => {
    if (now.design !== before.design) {
      if (move !== 'follow') {
        keeper.record(now.design, move, now.label);
        store.setState({ historyCut: keeper.cut });
      }
      // What the last proof said is about another design from here on.
      store.setState({ proving: true });
      ask.proveSoon();
      const { selected } = now;
      if (selected !== CARD && !now.design.mechanisms.some((m) => m.id === selected))
        store.setState({ selected: CARD, rooms: {} });
    }
    if (shown(now) !== shown(before)) ask.scene(shown(now));
    if (shown(now) !== shown(before) || now.state !== before.state) ask.pose(shown(now), now.state);
  });
  const start = (): void => {
    const s = store.getState();
    ask.scene(s.design);
    ask.pose(s.design, s.state);
    ask.prove();
  };
  /** Ends it; whether all of the card is stored by then. */
  const close = (): Promise<boolean> => {
    stop();
    stopNews();
    leaveTabs();
    if (typeof document !== 'undefined') document.removeEventListener('visibilitychange', seen);
    ask.close();
    return keeper.close().finally(() => claim.release());
  };
  return Object.assign(store, {
    start,
    close,
    askRooms: ask.rooms,
    seek: ask.seek,
    /** Writes what is not yet in the card's record. */
    save: () => keeper.flush(),
    /** Something is in this tab only. */
    unsaved,
    stopPosing: ask.stopPosing,
    /** Asks the tab that writes the card to let this one. */
    takeOver: () => claim.take(),
    /** Takes a card that was removed elsewhere off the shelf; where that was emptied, it goes on as a new one. */
    putBack: async () => {
      if (await setRemoved(store.getState().id, false)) store.setState({ removed: false });
      else await goOnAs(store.getState().design);
    },
  });
}
