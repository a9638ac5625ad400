import '@fontsource-variable/source-sans-3';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import '@/ui/look.css';
import { Theme } from '@/ui/theme';

export const metadata: Metadata = {
  title: 'Rhabdoplex',
  description: 'Engineer pop-up cards and know before cutting that they work.',
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Theme>{children}</Theme>
      </body>
    </html>
  );
}
