'use client';
import { useEffect, useRef, type ReactNode } from 'react';
import { Action } from './Action';

/** A dialog on the browser's own element: focus stays inside, Escape closes, focus goes back after. */
export function Sheet({
  title,
  shown,
  onClose,
  width = 640,
  children,
}: {
  title: string;
  shown: boolean;
  onClose: () => void;
  width?: number;
  children: ReactNode;
}) {
  const ref = useRef<HTMLDialogElement>(null);
  // The browser says "close" late: one that is closed because another opens must not close that one too.
  const open = useRef(shown);
  useEffect(() => {
    open.current = shown;
    const dialog = ref.current;
    if (shown && dialog && !dialog.open) {
      dialog.showModal();
      dialog.querySelector<HTMLElement>('[data-first]')?.focus();
    }
    if (!shown && dialog?.open) dialog.close();
  }, [shown]);
  return (
    <dialog
      ref={ref}
      aria-label={title}
      onClose={() => open.current && !ref.current?.open && onClose()}
      onClick={(e) => e.target === e.currentTarget && onClose()}
      style={{
        width,
        maxWidth: '94vw',
        maxHeight: '90vh',
        padding: 0,
        border: '1px solid var(--ink-2)',
        borderRadius: 4,
        background: 'var(--panel)',
        color: 'var(--ink)',
        margin: 'auto',
      }}
    >
      {shown && (
        <div style={{ padding: '18px 22px 20px' }}>
          <div style={{ display: 'flex', alignItems: 'center', marginBottom: 12 }}>
            <h2 style={{ flex: 1, margin: 0, fontSize: 18, fontWeight: 700 }}>{title}</h2>
            <Action small onClick={onClose}>
              Close
            </Action>
          </div>
          {children}
        </div>
      )}
    </dialog>
  );
}
