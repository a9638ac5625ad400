'use client';
import Failed from './error';

/** The same where not even the frame of the page could be shown. */
export default function GlobalFailed(props: { error: Error; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <Failed {...props} />
      </body>
    </html>
  );
}
