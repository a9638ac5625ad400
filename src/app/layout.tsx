import '@fontsource-variable/source-sans-3';
import type { Metadata } from 'next';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import '@/ui/look.css';
import { Theme } from '@/ui/theme';

export const metadata: Metadata = {
  title: 'Rhabdoplex',
  description: 'Engineer pop-up cards and know before cutting that they work.',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Every page is made when it is asked for: its scripts carry the nonce of that answer.
  await connection();
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Theme>{children}</Theme>
      </body>
    </html>
  );
}
