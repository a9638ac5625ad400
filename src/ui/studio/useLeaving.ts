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
    // Back within the application: ahead of the router, which takes the fields away at once.
    const traversed = (event: Event): void => {
      if ((event as { navigationType?: string }).navigationType === 'traverse') take();
    };
    const navigation = (window as { navigation?: EventTarget }).navigation;
    navigation?.addEventListener('navigate', traversed);
    window.addEventListener('popstate', take, true);
    window.addEventListener('beforeunload', ask);
    document.addEventListener('visibilitychange', hidden);
    return () => {
      window.removeEventListener('pagehide', take);
      navigation?.removeEventListener('navigate', traversed);
      window.removeEventListener('popstate', take, true);
      window.removeEventListener('beforeunload', ask);
      document.removeEventListener('visibilitychange', hidden);
    };
  }, [store]);
}
