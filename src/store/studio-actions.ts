/** What can be done with the open card. */
import { checkChange } from '@/core/document/schema';
import { rebased } from '@/core/document/variants';
import { moved, OPEN, within } from '@/core/drives';
import { CARD } from '@/core/ids';
import { drivesOf, NONE_ALSO, type News, type Studio, type StudioActions } from './studio-state';

const OTHER_WRITES = 'Not done: this card is written in another tab. Write here instead to change it.';

const refused = (text: string): News => ({ text, bad: true });

/** @param steps back and forth in the history */
export function actionsOf(
  set: (change: Partial<Studio>) => void,
  get: () => Studio,
  steps: { readonly undo: () => void; readonly redo: () => void },
): StudioActions {
  return {
    edit: (label, change) => {
      if (!get().writes) return set({ news: refused(OTHER_WRITES), preview: null });
      const next = rebased(get().design, change(get().design));
      if (next === get().design) return;
      const why = checkChange(next, get().design);
      set(
        why === null ? { design: next, label, preview: null } : { news: refused(`Not done: ${why}.`), preview: null },
      );
    },
    undo: () => get().writes && steps.undo(),
    redo: () => get().writes && steps.redo(),
    say: (text) => set({ news: text === null ? null : { text, bad: false } }),
    warn: (text) => set({ news: refused(text) }),
    go: (to) => set({ stage: to }),
    select: (selected) => set({ selected, also: NONE_ALSO, rooms: selected === get().selected ? get().rooms : {} }),
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
  };
}
