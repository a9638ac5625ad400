/** One served application for all browser tests of a run; each file has a browser, and what that stores, to itself. */
import { serve } from './server';

declare global {
  var endServer: (() => void) | undefined;
}

export default async function setup(): Promise<void> {
  const { base, stop } = await serve();
  process.env.RHABDOPLEX_BASE = base;
  globalThis.endServer = stop;
}
