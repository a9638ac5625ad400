/** A finger that has dragged a little is still a tap to the browser: the click that it sends after is let go. */
const SOON_MS = 350;

export function swallowClick(): void {
  const stop = (e: Event): void => {
    e.stopPropagation();
    e.preventDefault();
  };
  window.addEventListener('click', stop, { capture: true, once: true });
  setTimeout(() => window.removeEventListener('click', stop, { capture: true }), SOON_MS);
}
