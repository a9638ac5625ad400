/** The open card: its design with undo, what is looked at, and what the workers last said about it. */
import { temporal } from 'zundo';
import { createStore } from 'zustand/vanilla';
import type { Design } from '@/core/document/design';
import type { Proof } from '@/core/proof/prove';
import type { Room } from '@/core/proof/room';
import { engine, newestWins, proxy } from '@/workers/client';
import type { Scene, ScenePose } from '@/workers/protocol';
import { saveProject } from './database';

export const STAGES = ['brief', 'build', 'dress', 'prove', 'sheets', 'make'] as const;
export type Stage = (typeof STAGES)[number];
export type Saving = 'saved' | 'saving' | 'failed';

export interface Studio {
  readonly id: string;
  readonly design: Design;
  /** What the last change did, for the names of undo and redo. */
  readonly label: string;
  readonly stage: Stage;
  /** Mechanism that is selected; `card` for the base. */
  readonly selected: string;
  /** Facet that is selected in Dress. */
  readonly facet: string | null;
  /** What is pointed at: ids of facets, creases, glue areas. */
  readonly lit: readonly string[];
  readonly openDeg: number;
  readonly playing: boolean;
  /** A design shown instead of the open one while a remedy is hovered. */
  readonly preview: Design | null;
  readonly scene: Scene | null;
  readonly pose: ScenePose | null;
  /** Set when the design cannot even be put together. */
  readonly trouble: string | null;
  readonly proof: Proof | null;
  readonly proving: boolean;
  readonly rooms: Readonly<Record<string, Room>>;
  readonly saving: Saving;
  readonly adding: string | null;
  /** Layers that are moved together in Dress. */
  readonly layers: readonly string[];
  /** Dialog that is open beside the add sheet. */
  readonly dialog: Dialog | null;
  readonly actions: StudioActions;
}
/** `bring`: a new shape; `workshop`: a kept one; `template`: whole templates. */
/** Where a shape goes that is brought in from a field: a mechanism, or `card`, and the path of its parameter. */
export interface ShapeSlot {
  readonly mechanism: string;
  readonly path: string;
}
export type Dialog =
  | { readonly kind: 'bring'; readonly into?: ShapeSlot }
  | { readonly kind: 'workshop'; readonly asset: string }
  | { readonly kind: 'template' };

export interface StudioActions {
  edit(label: string, change: (design: Design) => Design): void;
  undo(): void;
  redo(): void;
  go(stage: Stage): void;
  select(mechanism: string): void;
  selectFacet(facet: string | null): void;
  light(ids: readonly string[]): void;
  scrub(openDeg: number): void;
  play(on: boolean): void;
  showPreview(design: Design | null): void;
  add(crease: string | null): void;
  pickLayers(ids: readonly string[]): void;
  show(dialog: Dialog | null): void;
}

const SAVE_AFTER_MS = 350;
const PROVE_AFTER_MS = 120;
const PROOF_STEPS = 36;

export type StudioStore = ReturnType<typeof createStudio>;

/** One store for each card that is opened; `close` ends its timers. */
export function createStudio(id: string, design: Design, stage: Stage) {
  const store = createStore<Studio>()(
    temporal<Studio, [], [], Pick<Studio, 'design' | 'label'>>(
      (set, get) => ({
        id,
        design,
        label: '',
        stage,
        selected: 'card',
        facet: null,
        lit: [],
        openDeg: 100,
        playing: false,
        preview: null,
        scene: null,
        pose: null,
        trouble: null,
        proof: null,
        proving: false,
        rooms: {},
        saving: 'saved',
        adding: null,
        layers: [],
        dialog: null,
        actions: {
          edit: (label, change) => {
            const next = change(get().design);
            if (next !== get().design) set({ design: next, label, preview: null });
          },
          undo: () => store.temporal.getState().undo(),
          redo: () => store.temporal.getState().redo(),
          go: (to) => set({ stage: to }),
          select: (selected) => set({ selected, rooms: selected === get().selected ? get().rooms : {} }),
          selectFacet: (facet) => set({ facet }),
          light: (lit) => set({ lit }),
          scrub: (openDeg) => set({ openDeg: Math.min(180, Math.max(0, openDeg)) }),
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
        limit: 500,
      },
    ),
  );

  const askScene = newestWins(
    (d: Design) => engine('pose').load(d),
    (answer) => {
      if (answer.ok) store.setState({ scene: answer.value, trouble: null });
      else store.setState({ trouble: answer.why });
    },
  );
  const askPose = newestWins(
    (d: Design, open: number) => engine('pose').pose(d, open),
    (answer) => {
      if (answer.ok) store.setState({ pose: answer.value });
    },
  );
  const shown = (s: Studio): Design => s.preview ?? s.design;

  let saveTimer: ReturnType<typeof setTimeout> | undefined;
  let proveTimer: ReturnType<typeof setTimeout> | undefined;
  const save = async (): Promise<void> => {
    clearTimeout(saveTimer);
    saveTimer = undefined;
    const { design: d } = store.getState();
    try {
      await saveProject({ id, updated: Date.now(), design: d });
      if (store.getState().design === d) store.setState({ saving: 'saved' });
    } catch {
      store.setState({ saving: 'failed' });
    }
  };
  const prove = (): void => {
    const { design: d } = store.getState();
    store.setState({ proving: true });
    const mine = (): boolean => store.getState().design === d;
    void engine('proof')
      .prove(
        d,
        PROOF_STEPS,
        proxy((proof, done) => {
          if (mine()) store.setState({ proof, proving: !done });
        }),
      )
      .then((answer) => {
        if (mine() && !answer.ok) store.setState({ proving: false, trouble: answer.why });
      });
  };
  const askRooms = (keys: readonly string[]): void => {
    const { design: d, selected } = store.getState();
    void engine('study').rooms(
      d,
      selected,
      keys,
      proxy((room) => {
        const now = store.getState();
        if (now.design === d && now.selected === selected)
          store.setState({ rooms: { ...now.rooms, [room.key]: room } });
      }),
    );
  };

  const stop = store.subscribe((now, before) => {
    if (now.design !== before.design) {
      // What the last proof said is about another design from here on.
      store.setState({ saving: 'saving', proving: true });
      clearTimeout(saveTimer);
      saveTimer = setTimeout(() => void save(), SAVE_AFTER_MS);
      clearTimeout(proveTimer);
      proveTimer = setTimeout(prove, PROVE_AFTER_MS);
      const { selected } = now;
      if (selected !== 'card' && !now.design.mechanisms.some((m) => m.id === selected))
        store.setState({ selected: 'card', rooms: {} });
    }
    if (shown(now) !== shown(before)) askScene(shown(now));
    if (shown(now) !== shown(before) || now.openDeg !== before.openDeg) askPose(shown(now), now.openDeg);
  });
  const start = (): void => {
    const s = store.getState();
    askScene(s.design);
    askPose(s.design, s.openDeg);
    prove();
  };
  const close = (): void => {
    stop();
    clearTimeout(proveTimer);
    if (saveTimer !== undefined) void save();
  };
  return Object.assign(store, { start, close, save, askRooms });
}
