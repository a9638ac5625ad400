import Link from 'next/link';

/** An address that leads nowhere: said in our own words, with the way back. */
export default function NotFound() {
  return (
    <main style={{ padding: '72px 40px', maxWidth: 560, margin: '0 auto', lineHeight: 1.6 }}>
      <h1 style={{ fontSize: 26, margin: '0 0 10px' }}>There is nothing at this address</h1>
      <p>Your cards are where you left them, in this browser. Nothing was lost.</p>
      <p>
        <Link href="/" style={{ color: 'var(--accent)', fontWeight: 700 }}>
          To the cards
        </Link>
      </p>
    </main>
  );
}
