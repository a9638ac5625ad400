'use client';
import Link from 'next/link';

/** What could not be shown: said in our own words, with what is safe and the ways on. */
export default function Failed({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main style={{ padding: '72px 40px', maxWidth: 560, margin: '0 auto', lineHeight: 1.6 }}>
      <h1 style={{ fontSize: 26, margin: '0 0 10px' }}>This page stopped</h1>
      <p>
        What is wrong is this page, not your card: every change that the header called saved is in this browser’s
        storage, and is there when the card is opened again. Where the browser stores nothing, what was not saved as a
        file went with the page.
      </p>
      <p style={{ color: 'var(--ink-2)', fontSize: 14 }}>{error.message.slice(0, 200)}</p>
      <p>
        <button type="button" onClick={reset} style={{ marginRight: 16, fontWeight: 700, cursor: 'pointer' }}>
          Try again
        </button>
        <Link href="/" style={{ color: 'var(--accent)', fontWeight: 700 }}>
          To the cards
        </Link>
      </p>
    </main>
  );
}
