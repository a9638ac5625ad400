'use client';
import { Splitter } from '@chakra-ui/react';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { useKept } from '../common/kept';

export type ViewName = 'flat' | 'posed';
interface Views {
  /** The view that has all the room. */
  readonly full: ViewName | null;
  /** Part of the width that the flat view has, percent. */
  readonly flat: number;
}
const EVEN: Views = { full: null, flat: 50 };
/** Neither view gets narrower, percent. */
const LEAST = 20;

function readViews(value: unknown): Views | null {
  const { full, flat } = (value ?? {}) as Partial<Record<keyof Views, unknown>>;
  if (typeof flat !== 'number' || !(flat >= LEAST && flat <= 100 - LEAST)) return null;
  return { flat, full: full === 'flat' || full === 'posed' ? full : null };
}

interface Full {
  readonly full: ViewName | null;
  readonly toggle: (view: ViewName) => void;
}
const FullContext = createContext<Full>({ full: null, toggle: () => undefined });
/** Whether a view has all the room, and how to change that. */
export const useFull = (): Full => useContext(FullContext);

/** The flat and the posed view beside each other, divided as one likes; or one of them alone. It is remembered. */
export function ViewPair({ flat, posed }: { readonly flat: ReactNode; readonly posed: ReactNode }) {
  const [views, change] = useKept('views', EVEN, readViews);
  const { full } = views;
  const context = useMemo<Full>(
    () => ({ full, toggle: (view) => change({ ...views, full: full === view ? null : view }) }),
    [full, views, change],
  );
  return (
    <FullContext.Provider value={context}>
      {full ? (
        <div style={{ display: 'grid', minWidth: 0, minHeight: 0, height: '100%' }}>
          {full === 'flat' ? flat : posed}
        </div>
      ) : (
        <Splitter.Root
          panels={[
            { id: 'flat', minSize: LEAST },
            { id: 'posed', minSize: LEAST },
          ]}
          defaultSize={[views.flat, 100 - views.flat]}
          onResizeEnd={({ size }) => {
            const [share] = size.map(Number);
            if (Number.isFinite(share)) change({ ...views, flat: Math.min(100 - LEAST, Math.max(LEAST, share)) });
          }}
          height="100%"
          minHeight="0"
          minWidth="0"
        >
          <Splitter.Panel id="flat" display="grid" minWidth="0" minHeight="0">
            {flat}
          </Splitter.Panel>
          <Splitter.ResizeTrigger id="flat:posed" aria-label="Width of the flat view" minWidth="9px">
            <Splitter.ResizeTriggerSeparator />
            <Splitter.ResizeTriggerIndicator />
          </Splitter.ResizeTrigger>
          <Splitter.Panel id="posed" display="grid" minWidth="0" minHeight="0">
            {posed}
          </Splitter.Panel>
        </Splitter.Root>
      )}
    </FullContext.Provider>
  );
}
