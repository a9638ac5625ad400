'use client';
import { useEffect } from 'react';
import type { StudioStore } from '@/store/studio';

/** What is typed is taken when the page is left or put out of sight; it is asked about only what is stored nowhere. */
export function useLeaving(store: StudioStore): void {
  useEffect(() => {
    const take = (): void => {
      const field = document.activeElement;
      if (field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement) field.blur();
      void store.save();
    };
    const hidden = (): void => {
      if (document.visibilityState === 'hidden') take();
    };
    const ask = (event: BeforeUnloadEvent): void => {
      take();
      if (store.unsaved()) event.preventDefault();
    };
    window.addEventListener('pagehide', take);
    // Back within the application: before the fields go, when they no longer tell what was typed.
    window.addEventListener('popstate', take);
    window.addEventListener('beforeunload', ask);
    document.addEventListener('visibilitychange', hidden);
    return () => {
      window.removeEventListener('pagehide', take);
      window.removeEventListener('popstate', take);
      window.removeEventListener('beforeunload', ask);
      document.removeEventListener('visibilitychange', hidden);
    };
  }, [store]);
}
