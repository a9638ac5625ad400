'use client';
import { ChakraProvider, createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';
import { useSyncExternalStore, type ReactNode } from 'react';
import { keep, readKept } from './common/kept';

/** Chakra's tokens, pointed at the workshop's own colours (look.css); light and dark differ only there. */
const config = defineConfig({
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Source Sans 3 Variable', sans-serif" },
        heading: { value: "'Source Sans 3 Variable', sans-serif" },
      },
      radii: { card: { value: '3px' } },
    },
    semanticTokens: {
      colors: Object.fromEntries(
        [
          ['board', '--board'],
          ['panel', '--panel'],
          ['sheet', '--sheet'],
          ['rule', '--rule'],
          ['ink', '--ink'],
          ['ink2', '--ink-2'],
          ['accent', '--accent'],
          ['wash', '--accent-wash'],
          ['bad', '--bad'],
          ['warn', '--warn'],
          ['good', '--good'],
          ['field', '--field'],
        ].map(([name, variable]) => [name, { value: `var(${variable})` }]),
      ),
    },
  },
  globalCss: { 'html, body': { bg: 'panel', color: 'ink' } },
});
const system = createSystem(defaultConfig, config);

const never = (): (() => void) => () => undefined;

/**
 * Everything shown comes from the browser's own database, so nothing is drawn on the server; there the style engine
 * would also put its sheets where the browser does not expect them.
 */
export function Theme({ children }: { children: ReactNode }) {
  const inBrowser = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  return inBrowser ? <ChakraProvider value={system}>{children}</ChakraProvider> : null;
}

/** Dark or light, remembered in this browser. */
export function toggleDark(): void {
  const dark = document.documentElement.classList.toggle('dark');
  keep('light', dark ? 'dark' : 'light');
}
export function restoreDark(): void {
  if (readKept('light') === 'dark') document.documentElement.classList.add('dark');
}

const watchClass = (changed: () => void): (() => void) => {
  const observer = new MutationObserver(changed);
  observer.observe(document.documentElement, { attributes: true, attributeFilter: ['class'] });
  return () => observer.disconnect();
};
/** Charts draw with fixed colours: they draw again when this changes. */
export const useDark = (): boolean =>
  useSyncExternalStore(
    watchClass,
    () => document.documentElement.classList.contains('dark'),
    () => false,
  );
